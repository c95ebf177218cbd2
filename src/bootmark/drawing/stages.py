"""Life stages by body type, for the Guide's wheel and pages."""

import functools
import random
import zlib
from dataclasses import replace

from bootmark.core.catalogue.drawn import PLAIN, Drawn, Pattern
from bootmark.core.catalogue.model import Agent
from bootmark.drawing import callouts, insects, larvae, marked, small, svg
from bootmark.drawing.caterpillars import caterpillar, lying
from bootmark.drawing.moths import moth

LIKE_THEIR_ELDERS = ("thrips", "mite", "gall mite")
"""What has larvae that look like small adults."""
YOUNG = 0.62
"""Size of one that looks like its elders."""
UNDRAWN = ("none", "nematode", "fungus", "bacterium", "virus")
SAWFLY_LARVA = Drawn(mark="#3a4a2a", spots=2)
LADYBIRD_LARVA = Drawn(mark="#e08a2a", spots=2, hairs=True)


def _eggs(body: str, colour: str, rng: random.Random) -> str:
    if body in ("mite", "gall mite", "spider"):
        return "".join(svg.circle(38 + 15 * (n % 4), 58 + 17 * (n // 4), 6, colour, "#9a8d6d", 1) for n in range(10))
    if body in ("leaf beetle", "ladybird"):
        return "".join(
            svg.ellipse(40 + 9 * (n % 5) + 4 * (n // 5 % 2), 52 + 15 * (n // 5), 4, 9, "#e2a52f", stroke="#a9660f") for n in range(13)
        )
    if body == "lacewing":
        return "".join(
            svg.path(f"M{30 + 14 * n} 112L{28 + 15 * n} {60 + 5 * (n % 2)}", stroke="#8a8570", width=1)
            + svg.ellipse(28 + 15 * n, 56 + 5 * (n % 2), 3.4, 6, svg.WHITE, stroke="#8a8570")
            for n in range(5)
        )
    if body == "bug":
        return "".join(
            svg.ellipse(42 + 12 * (n % 4), 56 + 16 * (n // 4), 5, 7, "#c9d6a8", stroke="#7a8a5a")
            + svg.ellipse(42 + 12 * (n % 4), 51 + 16 * (n // 4), 4, 1.6, "#e9efd6", stroke="#7a8a5a", width=0.6)
            for n in range(11)
        )
    if body in ("moth", "sawfly", "bee", "wasp"):
        return "".join(
            svg.ellipse(rng.uniform(36, 84), rng.uniform(48, 92), 6, 4.4, "#e9e2b8", turn=rng.uniform(0, 90), stroke="#a89a62")
            for _ in range(12)
        )
    return "".join(
        svg.ellipse(rng.uniform(36, 84), rng.uniform(48, 92), 6.5, 2.8, "#f1ead2", turn=rng.uniform(-60, 60), stroke="#a8946a")
        for _ in range(12)
    )


def _leaf_beetle_larva(drawn: Drawn, colour: str) -> str:
    """Humped and spotted on a leaf; slim and pale where it lives on roots."""
    if drawn.slim:
        return caterpillar(drawn, colour, drawn.head or "#5d3a1a", fat=drawn.slim, prolegs=())
    slug = larvae.slug_larva(60, 76, 78, drawn.colour or colour, dots=drawn.mark or svg.INK, hairs=drawn.hairs)
    stripes = [svg.path(f"M28 {68 + 7 * n}Q60 {60 + 7 * n} 88 {66 + 7 * n}", stroke=drawn.mark, width=2.4) for n in range(drawn.stripes)]
    return slug + "".join(stripes) + (svg.circle(98, 68, 8, drawn.head, "#3d352b", 0.8) if drawn.head else "")


def _larva(body: str, colour: str, drawn: Drawn) -> str:
    skin = drawn.colour or colour
    if body == "moth":
        return caterpillar(drawn, colour, "#6b4a2a")
    if body == "sawfly":
        plain = drawn if drawn != PLAIN else SAWFLY_LARVA
        if plain.pattern == Pattern.SADDLE:
            return larvae.slug_larva(60, 76, 78, skin)
        return caterpillar(plain, colour, "#a5702f", fat=0.15, prolegs=(0, 2, 3, 4, 5, 6, 7))
    if body in ("fly", "midge", "hoverfly"):
        return larvae.maggot(24, 72, -6, 2.0, skin)
    if body == "leaf beetle":
        return _leaf_beetle_larva(drawn, colour)
    if body == "ladybird":
        plain = drawn if drawn != PLAIN else LADYBIRD_LARVA
        return caterpillar(replace(plain, size=plain.size * 0.76), colour, "#1f2224", fat=0.26)
    if body == "lacewing":
        return lying(60, 72, 66, skin, head="#4a3a28", fat=0.22, drawn=Drawn(hairs=True)) + svg.path(
            "M98 68q12 -8 14 -2M98 78q12 8 14 2", stroke="#4a3a28", width=2
        )
    if body in ("beetle", "weevil"):
        if drawn.slim:
            return caterpillar(drawn, colour, drawn.head or "#8a5a2a", fat=drawn.slim, prolegs=())
        return larvae.grub(60, 72, 36, legs=body == "beetle", colour=skin)
    if body == "borer":
        return caterpillar(drawn, colour, "#8a5a2a", fat=0.1, prolegs=())
    return larvae.maggot(26, 72, 4, 1.9, skin)


def _adult(body: str, young: str, colour: str, drawn: Drawn) -> str:
    skin = drawn.colour or colour
    draw = {
        "mite": lambda: marked.mite(drawn, colour),
        "gall mite": lambda: small.mite(60, 72, 40, skin, -20, worm=True),
        "aphid": lambda: marked.aphid(drawn, colour),
        "psyllid": lambda: insects.wasp(60, 74, 34, skin, -70),
        "whitefly": lambda: marked.whitefly(drawn, colour),
        "scale": lambda: marked.scales(drawn, colour),
        "mealybug": lambda: small.mealybug(60, 72, 36, -10, skin),
        "hopper": lambda: marked.hopper(drawn, colour),
        "thrips": lambda: small.thrips(60, 72, 84 * drawn.size, -20, skin),
        "bug": lambda: marked.bug(drawn, colour),
        "lace bug": lambda: marked.lace_bug(drawn, colour),
        "moth": lambda: moth(drawn, colour),
        "sawfly": lambda: insects.wasp(60, 76, 42 * drawn.size, skin, -80),
        "leaf beetle": lambda: marked.beetle(drawn, colour, slim=0.7),
        "ladybird": lambda: marked.beetle(drawn, colour, slim=0.9, spots=7),
        "beetle": lambda: marked.beetle(drawn, colour, slim=0.55),
        "weevil": lambda: marked.beetle(drawn, colour, slim=0.58, snout=True),
        "borer": lambda: marked.beetle(drawn, colour, slim=0.34, horns=drawn.slim * 3 or 0.5),
        "fly": lambda: marked.fly(drawn, colour),
        "midge": lambda: marked.fly(drawn, colour, 34),
        "hoverfly": lambda: marked.fly(drawn, colour),
        "wasp": lambda: insects.wasp(60, 76, 40 * drawn.size, skin, sting=True),
        "bee": lambda: marked.fly(drawn, colour),
        "lacewing": lambda: insects.lacewing(64, 80, 46),
        "ant": lambda: insects.ant(60, 72, 34, -20, skin),
        "grasshopper": lambda: insects.grasshopper(60, 76, 46, skin),
        "earwig": lambda: insects.earwig(62, 74, 36),
        "slug": lambda: small.slug(60, 84, 92, skin, house=True),
        "spider": lambda: small.spider(60, 72, 24, skin),
        "mammal": lambda: _prints(drawn),
        "bird": _bird,
    }
    return draw.get(body, lambda: "")()


TOES = 4
SLOTS = 2
"""Toes of an animal that goes on hoofs."""


def _prints(drawn: Drawn) -> str:
    """Its track: two slots of a hoof, or a pad with so many toes, with claws where it digs."""
    skin, places = drawn.colour or "#8a6f52", ((42, 108), (76, 82), (44, 56))
    if drawn.toes == SLOTS:
        slot = "M{x} {y}c-7 4 -9 -14 -1 -22c4 6 4 16 1 22Z"
        return "".join(svg.path(slot.format(x=x - 2, y=y + 8) + slot.format(x=x + 9, y=y + 8), skin) for x, y in places)
    toes, size = drawn.toes or TOES, drawn.size
    parts = []
    for x, y in places:
        parts.append(svg.ellipse(x, y, 8 * size, 10 * size * (drawn.slim or 1), skin))
        for n in range(toes):
            toe_x, toe_y = x + size * 6 * (n - (toes - 1) / 2), y - size * (13 if n in (0, toes - 1) else 16)
            parts.append(svg.circle(toe_x, toe_y, 3 * size, skin))
            if drawn.claws:
                parts.append(svg.path(f"M{toe_x:.1f} {toe_y - 3:.1f}l0 -6", stroke=drawn.claws, width=1.8))
    return "".join(parts)


def _bird() -> str:
    return (
        svg.path("M20 84C30 56 66 46 84 58C90 50 104 52 104 62L114 66L104 70C100 96 60 108 38 96L16 104Z", "#5d6468", svg.INK, 1.4)
        + svg.circle(96, 62, 2.2, svg.INK)
        + svg.path("M60 102l-2 16M72 100l2 16", stroke="#a5702f", width=2.4)
    )


def _pupa(body: str, colour: str) -> str:
    if body in ("fly", "midge", "hoverfly"):
        return svg.ellipse(60, 72, 36, 16, "#8a4a22", turn=-8, stroke="#4a2a14") + "".join(
            svg.path(f"M{38 + 11 * n} 60q4 12 0 26", stroke="#5d3418", width=1.2) for n in range(5)
        )
    if body in ("wasp", "sawfly", "bee", "lacewing"):
        return svg.ellipse(60, 72, 38, 20, "#e9dfc0", turn=-10, stroke="#a8946a") + "".join(
            svg.path(f"M{30 + 12 * n} 62q8 10 0 22", stroke="#c9b98a", width=1) for n in range(6)
        )
    return larvae.pupa(60, 72, 40, colour)


def stage_body(body: str, stage: str, colours: tuple[str, str], seed: str, drawn: Drawn = PLAIN) -> str:
    """One stage of a body type. Nymphs are small adults, but for scales, whiteflies and psyllids, which lie flat."""
    rng = random.Random(zlib.crc32(f"{seed}{stage}".encode()))
    young, grown = colours[0] or "#e9dfc0", colours[1] or "#8a7a5a"
    if stage == "egg":
        return _eggs(body, young, rng)
    if stage == "larva" and body not in LIKE_THEIR_ELDERS:
        return _larva(body, young, drawn)
    if stage == "pupa":
        return _pupa(body, "#7a4a22")
    if stage in ("nymph", "larva"):
        if body in ("whitefly", "scale", "psyllid"):
            return "".join(
                svg.ellipse(x, y, 18, 12, young, turn=turn, stroke="#8a7a4a")
                + svg.circle(x - 11, y - 3, 2, svg.RUST)
                + svg.circle(x - 11, y + 4, 2, svg.RUST)
                for x, y, turn in ((42, 60, 10), (78, 70, -30), (52, 98, 40))
            )
        return f'<g transform="translate(60 72) scale({YOUNG}) translate(-60 -72)">{_adult(body, young, young, drawn)}</g>'
    return _adult(body, young, grown, drawn)


@functools.cache
def stage_svg(
    body: str, stage: str, colours: tuple[str, str], seed: str, title: str, drawn: Drawn = PLAIN, marks: tuple[str, ...] = ()
) -> str:
    small_elder = stage == "nymph" or (stage == "larva" and body in LIKE_THEIR_ELDERS)
    tags = callouts.rings(body, stage == "larva" and not small_elder, marks, YOUNG if small_elder else 1.0)
    return svg.document(stage_body(body, stage, colours, seed, drawn) + tags, title, "6 20 108 104")


def drawn_of(agent: Agent, stage: str) -> Drawn:
    """How a stage is drawn; a nymph looks like its elders, where nothing else is told of it."""
    like_adult = stage == "nymph" or agent.body in LIKE_THEIR_ELDERS
    return agent.drawn.get(stage) or (agent.drawn.get("adult") if like_adult else None) or PLAIN


def of_agent(agent: Agent, stage: str, marks: tuple[str, ...] = ()) -> str:
    """marks: what is ringed, in the order of the numbers; of drawn.TOLD."""
    body = "gall mite" if agent.family == "Eriophyidae" else agent.body
    return stage_svg(body, stage, agent.colours, agent.id, f"{agent.name}: {stage}", drawn_of(agent, stage), marks)


def stages_of(agent: Agent) -> tuple[str, ...]:
    """The stages that can be drawn, what does the harm first; of a kind those that do it."""
    there = tuple(dict.fromkeys((*agent.feeds, *agent.stages))) if agent.is_kind else agent.stages
    first = [stage for stage in agent.feeds if stage in there]
    rest = [stage for stage in ("adult", "larva", "nymph", "pupa", "egg") if stage in there]
    return tuple(dict.fromkeys((*first, *rest))) if agent.body not in UNDRAWN else ()
