"""Leaf area lost: holes, eaten edges by the other half, and what is discoloured."""

import itertools
from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from scipy.spatial import ConvexHull
from skimage import draw

from bootmark.core import judgement
from bootmark.core.meanings import Refusal
from bootmark.core.photo import light
from bootmark.core.photo.light import Floats, Mask, Picture, Unreadable

LONGEST = 900
"""Points of the longest side at which leaves are measured: more tell no more of a share."""


@dataclass(frozen=True)
class Measured:
    """One leaf. lost, holes, edges: shares of the whole leaf that are gone, inside and along its edge; discoloured: of what is left;
    outline: where it lies, for a drawing over the picture: row and column of its box, and its masks."""

    lost: float
    holes: float
    edges: float
    discoloured: float
    box: tuple[int, int, int, int]
    whole: Mask
    left: Mask
    odd: Mask


@dataclass(frozen=True)
class Leaves:
    """Every leaf of a picture, the largest first, and all of them together."""

    leaves: tuple[Measured, ...]

    @property
    def lost(self) -> float:
        whole = sum(leaf.whole.sum() for leaf in self.leaves)
        return float(sum(leaf.lost * leaf.whole.sum() for leaf in self.leaves) / whole)

    @property
    def discoloured(self) -> float:
        left = sum(leaf.left.sum() for leaf in self.leaves)
        return float(sum(leaf.odd.sum() for leaf in self.leaves) / max(left, 1))


def measure(picture: Picture) -> Leaves:
    """The leaves of a picture on plain ground, each with what it has lost.

    picture: rows, columns, red green blue. A leaf's own half gives back what is eaten at the edge of the other; where both are eaten at the
    same height nothing is told. Raises Unreadable with why. Source: shares of areas do not change under tilt (an affine map); the rest
    common practice, no source.
    """
    lit, mask = _seen(picture)
    labels, count = ndimage.label(mask)
    if not count:
        raise Unreadable(Refusal.NOTHING)
    sizes = ndimage.sum_labels(mask, labels, range(1, count + 1))
    wanted = [place + 1 for place in np.argsort(-sizes) if sizes[place] >= judgement.PHOTO_LEAF_LEAST * mask.size]
    if not wanted:
        raise Unreadable(Refusal.NOTHING)
    if np.isin(labels[light.frame(mask.shape)], wanted).any():
        raise Unreadable(Refusal.CUT)
    # Through a hole the ground is seen; what is brighter than it shines.
    ground = float(np.median(lit.lab[..., 0][lit.ground]))
    shiny = (lit.lab[..., 0] > ground + judgement.PHOTO_SHINES) & ndimage.binary_fill_holes(mask)
    if ndimage.binary_opening(shiny, iterations=2).sum() > judgement.PHOTO_GLARE * mask.sum():
        raise Unreadable(Refusal.GLARE)
    leaves = tuple(_of(labels == label, lit) for label in wanted)
    return Leaves(leaves)


def by_outline(picture: Picture, outline: Floats) -> Leaves:
    """One leaf whose whole outline somebody drew: what is not leaf in it is lost, whatever the other half says.

    picture: rows, columns, red green blue; outline: corners as shares of its width and height, three at the least. Raises Unreadable.
    """
    lit, mask = _seen(picture)
    rows, columns = mask.shape
    whole: Mask = draw.polygon2mask(mask.shape, outline[:, ::-1] * [rows, columns])
    left = mask & whole
    if left.sum() < judgement.PHOTO_LEAF_LEAST * mask.size:
        raise Unreadable(Refusal.NOTHING)
    filled: Mask = ndimage.binary_fill_holes(left)
    return Leaves((_told(whole, left, filled, lit.lab, (0, 0, rows, columns)),))


def _seen(picture: Picture) -> tuple[light.Lit, Mask]:
    """A picture in even light, and what of it is leaf. Raises Unreadable."""
    small = light.fitted(picture, LONGEST)
    lit = light.on_plain_ground(small)
    if light.sharpness(light.grey(small)) < judgement.PHOTO_BLUR:
        raise Unreadable(Refusal.BLURRED)
    return lit, _leafy(lit)


def _leafy(lit: light.Lit) -> Mask:
    """What lies on the ground: by its colour, since a shadow has none, or where it is far darker than any shadow."""
    chroma = np.hypot(lit.lab[..., 1], lit.lab[..., 2])
    calm = ndimage.gaussian_filter(chroma, 0.7)
    mask = (calm > judgement.PHOTO_CHROMA) | (lit.lab[..., 0] < judgement.PHOTO_BLACK)
    if not mask.any():
        return np.zeros(mask.shape, dtype=bool)
    # Where light is mixed by blur the edge lies half way between the colours of both sides.
    half = max(judgement.PHOTO_CHROMA, judgement.PHOTO_HALF * float(np.quantile(calm[mask], 0.3)))
    opened: Mask = ndimage.binary_opening((calm > half) | (lit.lab[..., 0] < judgement.PHOTO_BLACK), iterations=1)
    return opened


def _of(mask: Mask, lit: light.Lit) -> Measured:
    rows, columns = np.nonzero(mask)
    pad = 4
    box = (max(rows.min() - pad, 0), max(columns.min() - pad, 0), int(rows.max()) + pad + 1, int(columns.max()) + pad + 1)
    part = (slice(box[0], box[2]), slice(box[1], box[3]))
    left: Mask = mask[part]
    filled: Mask = ndimage.binary_fill_holes(left)
    corners = (int(box[0]), int(box[1]), int(box[2]), int(box[3]))
    return _told(filled | _given_back(filled), left, filled, lit.lab[part], corners)


def _told(whole: Mask, left: Mask, filled: Mask, lab: Floats, box: tuple[int, int, int, int]) -> Measured:
    """What masks of a leaf say: whole, what is left, and that with its holes filled."""
    area, holes, edges = whole.sum(), (filled & whole & ~left).sum(), (whole & ~filled).sum()
    odd = _discoloured(lab, left)
    discoloured = float(odd.sum() / left.sum())
    return Measured(float((holes + edges) / area), float(holes / area), float(edges / area), discoloured, box, whole, left, odd)


def _given_back(filled: Mask) -> Mask:
    """What the other half of a leaf says was there.

    Along the leaf's axis each side has a width; half their difference bends smoothly, whatever the leaf's form, and where it leaps one side
    was eaten: the other gives its width back. Raises Unreadable where the outline can't be told: eaten on both sides at the same height,
    or no leaf's at all.
    """
    points = np.argwhere(filled).astype(np.float64)
    middle = points.mean(axis=0)
    spread = np.cov((points - middle).T)
    along = np.linalg.eigh(spread)[1][:, 1]
    across = np.array([-along[1], along[0]])
    height, side = (points - middle) @ along, (points - middle) @ across
    first, length = height.min(), np.ptp(height)
    bins = np.minimum(((height - first) / length * SLICES).astype(int), SLICES - 1)
    right, left = np.full(SLICES, -np.inf), np.full(SLICES, np.inf)
    np.maximum.at(right, bins, side)
    np.minimum.at(left, bins, side)
    inner = slice(TIP, SLICES - TIP)
    place = np.arange(SLICES)[inner] / SLICES - 0.5
    bend = _smooth(place, (right[inner] + left[inner]) / 2, length)
    leaps = (right[inner] + left[inner]) / 2 - bend
    sure, perhaps = (np.abs(leaps) > limit * length for limit in (judgement.PHOTO_LEAP, judgement.PHOTO_LEAP / 3))
    bitten = ndimage.binary_propagation(sure, mask=perhaps)
    if bitten.mean() > judgement.PHOTO_BITTEN:
        raise Unreadable(Refusal.OUTLINE)
    # A side that was eaten is as wide as the other, mirrored at the bend.
    whole_right = np.where(bitten & (leaps < 0), 2 * bend - left[inner], right[inner])
    whole_left = np.where(bitten & (leaps > 0), 2 * bend - right[inner], left[inner])
    widths = whole_right - whole_left
    if _dips(widths / length) or _unlike(place + 0.5, widths) > judgement.PHOTO_UNLIKE:
        raise Unreadable(Refusal.OUTLINE)
    rows, columns = np.mgrid[0 : filled.shape[0], 0 : filled.shape[1]]
    grid = np.stack([rows, columns], axis=-1) - middle
    slot = ((grid @ along - first) / length * SLICES).astype(int) - TIP
    inside = (slot >= 0) & (slot < len(bitten))
    slot = np.clip(slot, 0, len(bitten) - 1)
    off = grid @ across
    # A hole that a bite has opened lies between both sides too.
    between: Mask = inside & (off <= whole_right[slot]) & (off >= whole_left[slot]) & ~filled
    missing: Mask = ndimage.binary_opening(between, iterations=2) | (between & bitten[slot])
    if _solidity(filled | missing) < judgement.PHOTO_SOLID:
        raise Unreadable(Refusal.OUTLINE)
    return missing


SLICES, TIP = 60, 3
"""Slices across a leaf along its axis, and those at either end that are too narrow to compare."""


def _smooth(place: Floats, bend: Floats, length: float) -> Floats:
    """A curve of the second order through as many of some places as lie on one, whatever the rest says: bites are outliers.

    Source: every three of a dozen places propose a curve, the one that most agree with is fitted to those; Fischler and Bolles (1981).
    """
    terms = np.stack([np.ones_like(place), place, place**2], axis=-1)
    some = np.linspace(0, len(place) - 1, 14).round().astype(int)
    triples = np.array(list(itertools.combinations(some, 3)))
    curves = np.linalg.solve(terms[triples], bend[triples][..., None])[..., 0] @ terms.T
    agree = np.abs(curves - bend) < judgement.PHOTO_LEAP / 3 * length
    best = agree[agree.sum(axis=1).argmax()]
    fit, *_ = np.linalg.lstsq(terms[best], bend[best], rcond=None)
    curve: Floats = terms @ fit
    return curve


def _solidity(mask: Mask) -> float:
    """A shape's area over that of its convex hull."""
    edge = np.argwhere(mask & ~ndimage.binary_erosion(mask))
    return float(mask.sum() / ConvexHull(edge).volume)


def _dips(widths: Floats) -> bool:
    """Whether a leaf narrows and widens again along its axis: eaten on both sides, lobed, or several on each other."""
    calm = ndimage.median_filter(widths, 3)
    rising, falling = np.maximum.accumulate(calm), np.maximum.accumulate(calm[::-1])[::-1]
    return bool((np.minimum(rising, falling) - calm).max() > judgement.PHOTO_DIP)


def _unlike(place: Floats, widths: Floats) -> float:
    """How far the widths of an outline along its axis are from those of any leaf, x^a (1 - x)^b whatever a and b, as a share of the widest.

    place: 0 at one end to 1 at the other. Two leaves on each other have corners that no such curve has. Common practice, no source.
    """
    wide = widths > 0
    terms = np.stack([np.ones(wide.sum()), np.log(place[wide]), np.log(1 - place[wide])], axis=-1)
    weights = widths[wide]
    fit, *_ = np.linalg.lstsq(terms * weights[:, None], np.log(weights) * weights, rcond=None)
    return float(np.sqrt(np.mean((np.exp(terms @ fit) - weights) ** 2)) / weights.max())


def _discoloured(coloured: Floats, left: Mask) -> Mask:
    """What of a leaf is not its own green: away from the colour of its greenest part, towards yellow, brown, red or pale."""
    inner = ndimage.binary_erosion(left, iterations=2)
    a, b, lightness = coloured[..., 1], coloured[..., 2], coloured[..., 0]
    if not inner.any():
        return np.zeros_like(left)
    hue = np.arctan2(b, a)
    green = inner & (a <= np.quantile(a[inner], 0.4))
    if float(np.median(hue[green])) < judgement.PHOTO_GREEN:
        raise Unreadable(Refusal.NOT_GREEN)
    own, spread = np.median(hue[green]), max(float(np.std(hue[green])), judgement.PHOTO_HUE_LEAST)
    turned = own - hue
    odd = (turned > judgement.PHOTO_TURNED * spread) | (lightness > np.median(lightness[green]) + judgement.PHOTO_PALER)
    odd |= np.hypot(a, b) < judgement.PHOTO_FADED * np.median(np.hypot(a, b)[green])
    # Veins are paler than the blade and are its own: thin lines are no patches.
    patches = ndimage.binary_opening(odd & inner, iterations=2)
    grown: Mask = ndimage.binary_dilation(patches, iterations=2) & odd & left
    return grown
