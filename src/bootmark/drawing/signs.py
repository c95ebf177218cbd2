"""The drawing of each sign, by its id, on the leaf of a crop and at a severity; where it is an animal of its own, that animal's."""

import functools
import random
import zlib

from bootmark.core.catalogue import default
from bootmark.drawing import (
    danger_signs,
    foliage_signs,
    fruit_signs,
    ground_signs,
    growth_signs,
    helper_signs,
    insect_signs,
    kind_signs,
    larva_signs,
    leaf_signs,
    other_signs,
    plant_signs,
    seated,
    small_signs,
    stem_signs,
    svg,
    tip_signs,
    wood_signs,
)
from bootmark.drawing.sketch import Draw, Sketch

DRAWN: dict[str, Draw] = {
    **danger_signs.DRAWN,
    **foliage_signs.DRAWN,
    **fruit_signs.DRAWN,
    **ground_signs.DRAWN,
    **growth_signs.DRAWN,
    **helper_signs.DRAWN,
    **insect_signs.DRAWN,
    **kind_signs.DRAWN,
    **larva_signs.DRAWN,
    **leaf_signs.DRAWN,
    **other_signs.DRAWN,
    **plant_signs.DRAWN,
    **small_signs.DRAWN,
    **stem_signs.DRAWN,
    **tip_signs.DRAWN,
    **wood_signs.DRAWN,
}
USUAL = 0.6
STEPS = 10
"""Severities are drawn in tenths, so that a drawing can be kept."""


def takes_form(sign: str) -> bool:
    """Whether a sign's drawing follows the crop's leaf and the severity."""
    return sign in leaf_signs.DRAWN


def sign_svg(sign: str, form: str = "ovate", severity: float = USUAL) -> str:
    """One sign as a document; the same at every load.

    form: one of leaf.FORMS; severity: 0 to 1. Raises KeyError for a sign without a drawing or an unknown form.
    """
    drawn = (form, round(severity * STEPS)) if takes_form(sign) else ("ovate", round(USUAL * STEPS))
    return _kept(sign, *drawn, default().hash)


@functools.lru_cache(maxsize=4096)
def _kept(sign: str, form: str, tenths: int, _catalogue: str) -> str:
    entry = default().signs[sign]
    title = f"{entry.name}: {entry.sentence}"
    if entry.pictures:
        return svg.document(seated.animal(default().agents[entry.pictures], entry), title)
    sketch = Sketch(random.Random(zlib.crc32(sign.encode())), form, tenths / STEPS)
    return svg.document(DRAWN[sign](sketch), title)
