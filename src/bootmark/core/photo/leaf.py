"""Leaf area lost: holes, eaten edges by the other half, and what is discoloured."""

from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from skimage import draw

from bootmark.core import judgement
from bootmark.core.meanings import Refusal
from bootmark.core.photo import light, overlap
from bootmark.core.photo.halves import given_back, halves
from bootmark.core.photo.light import Floats, Mask, Picture, Unreadable

LONGEST = 900
"""Points of the longest side at which leaves are measured: more tell no more of a share."""

NEAR = 30
"""Points about a leaf whose light is the leaf's own: further off a shadow may lie."""


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
    # Through a hole the ground about it is seen; what is brighter than that shines.
    about = lit.ground & ndimage.binary_dilation(mask, iterations=NEAR)
    ground = float(np.median(lit.lab[..., 0][about if about.any() else lit.ground]))
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
    cut = halves(filled)
    if overlap.runs_through(lit.lab[part], left, cut):
        raise Unreadable(Refusal.ACROSS)
    return _told(filled | given_back(filled, cut), left, filled, lit.lab[part], corners)


def _told(whole: Mask, left: Mask, filled: Mask, lab: Floats, box: tuple[int, int, int, int]) -> Measured:
    """What masks of a leaf say: whole, what is left, and that with its holes filled."""
    area, holes, edges = whole.sum(), (filled & whole & ~left).sum(), (whole & ~filled).sum()
    odd = _discoloured(lab, left)
    discoloured = float(odd.sum() / left.sum())
    return Measured(float((holes + edges) / area), float(holes / area), float(edges / area), discoloured, box, whole, left, odd)


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
