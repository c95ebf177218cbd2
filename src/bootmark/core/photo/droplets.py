"""Droplets on paper that turns from yellow to blue where water falls: how much is covered, how many to a square centimetre."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from skimage import filters, measure

from bootmark.core import judgement
from bootmark.core.meanings import CardPlace, Refusal
from bootmark.core.photo import light, sheet
from bootmark.core.photo.light import Floats, Mask, Picture, Unreadable

MOST_SCALE = 30.0
"""Points a millimetre at which cards are measured at the most."""


@dataclass(frozen=True)
class Drops:
    """One card. cover: share that is blue; count: droplets, None where so much is covered that they can't be told apart; per_cm2: of
    these; stained: where it is blue, rows along its short side; scale: points a millimetre."""

    cover: float
    count: int | None
    per_cm2: float | None
    stained: Mask
    scale: float


def card(picture: Picture, sides: tuple[float, float]) -> Drops:
    """The droplets on one card that lies on plain light ground.

    sides: the card's longer and shorter side, millimetres. Raises Unreadable: no card, cut, blued all over by damp air, by fingers.
    Source: Otsu (1979) for the two colours.
    """
    small = light.fitted(picture, sheet.FIND_AT)
    lit = light.on_plain_ground(small)
    coloured = np.hypot(lit.lab[..., 1], lit.lab[..., 2]) > judgement.CARD_COLOUR
    lies = sheet.lies(light.closed(coloured, 3), len(picture), sides, MOST_SCALE)
    margin = max(2, round(judgement.CARD_MARGIN * lies.scale))
    if sheet.blur(lies, light.grey(picture)) > judgement.DROPS_BLUR:
        raise Unreadable(Refusal.BLURRED)
    inner = (slice(margin, -margin), slice(margin, -margin))
    channels = [lies.above(picture[..., channel].astype(np.float64))[inner] for channel in range(3)]
    surface = lies.above(lit.surface)[inner]
    lab = light.on_white(light.linear(np.stack(channels, axis=-1)), surface, lit.base)
    # Yellow against blue tells that there are drops, light against dark where they end: pictures keep colours at half of their points.
    yellow = ndimage.gaussian_filter(lab[..., 2], 1.0)
    dry = float(np.quantile(yellow, judgement.CARD_DRY))
    if dry < judgement.CARD_YELLOW:
        raise Unreadable(Refusal.BLUED)
    half = float(filters.threshold_otsu(yellow))
    blue = yellow < half
    if not blue.any() or dry - float(np.median(yellow[blue])) < judgement.CARD_APART:
        return Drops(0.0, 0, 0.0, np.zeros(yellow.shape, bool), lies.scale)
    if _smeared(yellow, dry, half, blue, lies.scale):
        raise Unreadable(Refusal.FINGERS)
    bright = lab[..., 0]
    half = (float(np.median(bright[~blue])) + float(np.quantile(bright[blue], judgement.CARD_WET))) / 2
    stained: Mask = bright < half
    cover = float(stained.mean())
    if cover > judgement.MERGED_ABOVE:
        return Drops(cover, None, None, stained, lies.scale)
    # Drops that nearly touch run together in a picture: it is sharpened for their number, not for their area.
    sharp = filters.unsharp_mask(bright, 1.5, 1, preserve_range=True) < half
    count = round(_drops(sharp, lies.scale) / (1 - judgement.DROPS_UNSEEN * cover))
    return Drops(cover, count, count / (stained.size / lies.scale**2 / 100), stained, lies.scale)


def _smeared(yellow: Floats, dry: float, limit: float, stained: Mask, scale: float) -> bool:
    """Whether it was touched: patches between yellow and blue that are no edge of a drop, or one stain that no drop makes."""
    between = (yellow < dry - judgement.SMEAR_OFF * (dry - limit)) & ~ndimage.binary_dilation(
        stained, iterations=max(2, round(judgement.SMEAR_EDGE * scale))
    )
    return bool(ndimage.binary_opening(between, iterations=3).mean() > judgement.SMEAR_MOST)


def _drops(stained: Mask, points_per_mm: float) -> float:
    """How many drops made the stains, those too that lie on each other, as if they fell by chance.

    Of discs strewn by chance the area, the edge and the number of pieces less holes, each of a unit of area, tell how many there are.
    Source: Stoyan, Kendall and Mecke (1995), "Stochastic Geometry and its Applications", section 3.3 (Miles 1976).
    """
    area = stained.size / points_per_mm**2
    covered = float(stained.mean())
    # Along two sides of the card pieces count once: they are cut by the others too.
    cut = np.concatenate([stained[-1, :], stained[::-1, -1]])
    runs = int(cut[0]) + int(np.count_nonzero(cut[1:] & ~cut[:-1]))
    pieces = (measure.euler_number(stained, connectivity=1) - runs) / area
    edge = measure.perimeter_crofton(np.pad(stained, 1, mode="edge"), directions=4) / points_per_mm / area
    return float((pieces / (1 - covered) + edge**2 / (4 * math.pi * (1 - covered) ** 2)) * area)


def evenness(covers: list[float]) -> float | None:
    """How unlike the covers of several cards are: their standard deviation over their mean; None for fewer than two or none covered."""
    if len(covers) < 2 or not sum(covers):
        return None
    return float(np.std(covers, ddof=1) / np.mean(covers))


@dataclass(frozen=True)
class PlaceCover:
    """The cards of one place in the crop, None where nobody told it. cover: their mean."""

    place: CardPlace | None
    cards: int
    cover: float


def by_place(covers: Sequence[tuple[CardPlace | None, float]]) -> list[PlaceCover]:
    """Covers by where their cards were, in the order of the enumeration, those of no told place last."""
    sums = []
    for place in (*CardPlace, None):
        there = [cover for where, cover in covers if where == place]
        if there:
            sums.append(PlaceCover(place, len(there), sum(there) / len(there)))
    return sums
