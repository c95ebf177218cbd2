"""The drawing of each sign, by its id."""

import functools
import random
import zlib
from collections.abc import Callable
from html import escape

from bootmark.core.catalogue import default
from bootmark.web.drawing import damage, scenes, svg
from bootmark.web.drawing.leaf import FORMS, Leaf

Draw = Callable[[random.Random], str]


def _on(how: Callable[[Leaf, random.Random], str], form: str = "ovate", *, under: bool = False) -> Draw:
    return lambda rng: how(Leaf(FORMS[form], under=under), rng)


def _laid(extra: Draw, form: str = "ovate", *, under: bool = False) -> Draw:
    return lambda rng: Leaf(FORMS[form], under=under).draw() + extra(rng)


DRAWN: dict[str, Draw] = {
    "stippling": _on(damage.stippling),
    "bronzing": _on(damage.bronzing),
    "silvering": _on(damage.silvering),
    "black-specks-in-silver": _on(lambda leaf, rng: damage.silvering(leaf, rng, 0.5, 26)),
    "webbing-fine": _on(damage.webbing),
    "black-spots-under-the-leaf": _on(damage.spots, under=True),
    "mites-and-round-eggs": scenes.mites_and_eggs,
    "predatory-mites": scenes.predatory,
    "moving-specks-on-white-paper": scenes.paper_specks,
    "slender-insects-on-paper": scenes.slender_on_paper,
    "thrips-in-flower": scenes.flower_thrips,
    "curl-up": _on(damage.curled),
    "distorted-fruit": scenes.misshapen,
    "fruit-entry-hole-with-frass": scenes.entry_hole,
    "fruit-exit-hole-at-the-end": scenes.exit_hole,
    "stings-and-dimples": scenes.stings,
    "larva-at-the-core": scenes.core_larva,
    "males-in-its-lure-trap": scenes.lure_trap,
    "honeydew": _on(damage.honeydew, "slim"),
    "sooty-film": _on(damage.sooty, "slim"),
    "cast-skins": _laid(scenes.skins, under=True),
    "ants-tending": scenes.ants,
    "flat-nymphs-in-drops": scenes.nymphs_in_drops,
    "yellow-grain-eggs": scenes.grain_eggs,
    "insects-fly-up-when-shaken": scenes.flying,
    "chewed-holes": _on(damage.chewed),
    "stubs": _on(damage.stubs),
    "black-pellets-on-leaves": _laid(scenes.pellets),
    "egg-cluster-yellow-upright": scenes.beetle_eggs,
    "humped-red-larvae": scenes.humped_larva,
    "ten-striped-beetles": scenes.striped_beetle,
    "drooping": lambda _: scenes.shoot(droop=True),
    "yellowing-from-below": _on(damage.yellowed, "broad"),
    "scorch-at-the-margin": _on(damage.scorch),
    "whole-plant-dead-among-green-ones": scenes.dead_among_green,
    "soil-dry-a-finger-deep": lambda _: scenes.finger("dry"),
    "soil-sodden": lambda _: scenes.finger("sodden"),
    "perks-up-hours-after-water": scenes.drooping_after_water,
    "irrigation-not-running": scenes.dry_line,
    "roots-chewed": lambda _: scenes.root(True),
    "legless-white-maggots": scenes.maggots,
    "white-eggs-at-the-stem-base": scenes.base_eggs,
    "circles-cut-from-the-edge": _on(damage.circles),
    "bee-carrying-leaf": scenes.bee_with_leaf,
    "leaf-still-green-and-working": lambda _: Leaf(FORMS["ovate"]).draw(),
}


@functools.cache
def sign_svg(sign_id: str) -> str:
    """One sign as a document; the same at every load. Raises KeyError for a sign without a drawing."""
    known = default().signs[sign_id]
    rng = random.Random(zlib.crc32(sign_id.encode()))
    return svg.document(DRAWN[sign_id](rng), escape(f"{known.name}: {known.sentence}"))
