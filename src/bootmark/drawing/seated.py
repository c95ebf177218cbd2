"""An animal on the part of the plant on which it is looked for: signs that are one agent and no other."""

import random
from collections.abc import Callable

from bootmark.core.catalogue.model import Agent, Sign
from bootmark.drawing import backdrops, motifs, scenes, svg
from bootmark.drawing.stages import drawn_of, stage_body

SMALL = ("mite", "thrips", "whitefly", "psyllid", "aphid", "midge", "scale")
"""Bodies that are seen in numbers, or with the lens."""
BESIDE = ((34, 40, 0.42, -24), (82, 58, 0.5, 18), (46, 96, 0.46, 52))
OPENED: dict[str, Callable[[], str]] = {
    "cut-the-fruit": backdrops.cut_fruit,
    "cut-the-bulb": lambda: motifs.bulb(""),
    "slit-the-stem": motifs.slit,
}
LIES_ON: dict[str, Callable[[], str]] = {
    "stem": lambda: backdrops.stem(26),
    "tip": lambda: backdrops.stem(26),
    "trunk": lambda: backdrops.bark(96),
    "base": lambda: backdrops.bark(96),
    "ground": lambda: backdrops.earth(30),
    "root": lambda: backdrops.earth(30),
    "turf": motifs.turf,
    "grain": motifs.grain,
    "bulb": motifs.tuber,
    "fruit": backdrops.apple,
    "flower": lambda: scenes.flower(random.Random(1)),
    "underside": lambda: backdrops.blade(under=True),
}


def _ground(sign: Sign) -> str:
    if "conifer" in sign.crops and sign.part in ("old leaf", "underside", "tip"):
        return backdrops.needles()
    return OPENED.get(sign.look, LIES_ON.get(sign.part, backdrops.blade))()


def animal(agent: Agent, sign: Sign) -> str:
    """The stage of an agent that a sign shows, as the inside of an SVG of 120 by 140: small ones several, one large."""
    body = stage_body(agent.body, sign.stage, agent.colours, agent.id, drawn_of(agent, sign.stage))
    if agent.body in SMALL and sign.stage in ("adult", "nymph"):
        some = "".join(
            f'<g transform="translate({x} {y}) rotate({turn}) scale({size}) translate(-60 -72)">{body}</g>' for x, y, size, turn in BESIDE
        )
        return scenes.lens(svg.circle(60, 66, 47, svg.UNDER) + some) if agent.body == "mite" else _ground(sign) + some
    size = 0.6 if sign.look in OPENED else 0.86
    return _ground(sign) + f'<g transform="translate(60 76) scale({size}) translate(-60 -72)">{body}</g>'
