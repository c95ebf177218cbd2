"""Sticky cards and dishes: things of a size, for a person to name; and what came since the last picture of the same card."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from scipy.spatial import cKDTree

from bootmark.core import judgement
from bootmark.core.meanings import Refusal
from bootmark.core.photo import light, sheet, specks
from bootmark.core.photo.light import Floats, Mask, Picture, Unreadable

MOST_SCALE, LONGEST = 9.0, 2600
"""Points a millimetre, and of the picture's longest side, at which cards are measured at the most."""


@dataclass(frozen=True)
class Things:
    """What sits on a card. places: x along its long side and y along its short one; lengths, widths: of each; millimetres; seen: the places
    as shares of the picture's width and height."""

    places: Floats
    seen: Floats
    lengths: Floats
    widths: Floats
    sides: tuple[float, float]


def measure(picture: Picture, sides: tuple[float, float], *, dish: bool = False) -> Things:
    """Things on a card or in a dish of one colour, printed lines left out.

    sides: the card's longer and shorter side, of a dish its diameter twice; millimetres. Raises Unreadable. Common practice, no source.
    """
    small = light.fitted(picture, LONGEST)
    mask = light.closed(sheet.in_colour_of_its_middle(small), 6)
    card = sheet.dish_lies(mask, len(small), sides[0], MOST_SCALE) if dish else sheet.lies(mask, len(small), sides, MOST_SCALE)
    seen = light.grey(small)
    if sheet.blur(card, seen) > judgement.CARD_BLUR:
        raise Unreadable(Refusal.BLURRED)
    if card.scale * judgement.THING_SHORTEST < judgement.SPECK_POINTS:
        raise Unreadable(Refusal.FAR)
    darker = sheet.even(card.above(seen), card.scale, judgement.THING_LONGEST / 2)
    lines = _lines(darker, card.scale)
    darker -= lines
    noise = 1.4826 * float(np.median(np.abs(darker)))
    dark: Mask = darker > max(judgement.THING_DARKER, judgement.SPECK_NOISE * noise)
    # What lies across a line was cut in two with it.
    dark |= light.closed(dark, max(1, round(judgement.LINE_WIDE / 2 * card.scale))) & (lines > judgement.THING_DARKER / 2)
    inner = card.inner(judgement.DISH_RIM if dish else judgement.SHEET_MARGIN)
    labels, count = ndimage.label(dark & inner, structure=np.ones((3, 3)))
    lengths, widths = (axis / card.scale for axis in specks.axes(labels, count))
    places = np.array(ndimage.center_of_mass(labels > 0, labels, range(1, count + 1))).reshape(-1, 2)[:, ::-1] / card.scale
    real = (lengths >= judgement.THING_SHORTEST) & (lengths <= judgement.THING_LONGEST) & (widths >= judgement.THING_SHORTEST / 3)
    return Things(places[real], sheet.seen_at(card, places[real], small.shape), lengths[real], widths[real], sides)


def _lines(darker: Floats, scale: float) -> Floats:
    """How much of the darkness is of printed lines: what runs on for long along either side of the card, bent a little by the lens."""
    long, off = max(3, round(judgement.LINE_LONG * scale)), max(1, round(judgement.LINE_OFF * scale)) | 1
    lines = []
    for size, calm, bent in (((1, long), (1, long // 6), (off, 1)), ((long, 1), (long // 6, 1), (1, off))):
        lines.append(ndimage.grey_opening(ndimage.maximum_filter(ndimage.uniform_filter(darker, calm), bent), size))
    both: Floats = np.maximum(*lines).clip(0)
    return both


def alike(lengths: Sequence[float], widths: Sequence[float]) -> list[list[int]]:
    """For each thing the places of those that are as long and as wide, itself included. lengths, widths: millimetres, above nought."""
    near = np.ones((len(lengths), len(lengths)), dtype=bool)
    for sizes in (lengths, widths):
        logs = np.log(np.asarray(sizes, dtype=float))
        near &= np.abs(logs[:, None] - logs[None]) < judgement.THING_LIKE
    return [np.flatnonzero(row).tolist() for row in near]


def came(before: Things, after: Things) -> Mask:
    """Which things of a card were not on an earlier picture of it. The card may hang upside down."""
    best = np.ones(len(after.places), dtype=bool)
    if not len(before.places) or not len(after.places):
        return best
    for places in (after.places, np.array(after.sides) - after.places):
        far, _ = cKDTree(before.places).query(places)
        new = far > judgement.SAME_WITHIN
        best = min(best, new, key=np.sum)
    return best
