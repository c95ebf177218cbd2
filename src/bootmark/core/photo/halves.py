"""The two halves of a leaf: its axis, the bend between both sides, and what one side says of the other."""

import itertools
import math
from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from scipy.spatial import ConvexHull

from bootmark.core import judgement
from bootmark.core.meanings import Refusal
from bootmark.core.photo.light import Floats, Labels, Mask, Unreadable

SLICES, TIP = 60, 3
"""Slices across a leaf along its axis, and those at either end that are too narrow to compare."""
INNER = slice(TIP, SLICES - TIP)
PLACE: Floats = np.arange(SLICES)[INNER] / SLICES - 0.5
"""Where slices lie along the axis, -0.5 at one end."""
TURNS: Floats = np.radians(np.arange(-36, 37, 4))
"""By which a leaf's own axis may lie off the longest of its outline: broad leaves and bites turn that."""


@dataclass(frozen=True)
class Halves:
    """A leaf cut along an axis. middle: row and column that all is told from; along: the axis; first, length: where it begins and how long
    it is; by slice bend: the middle between both sides, left and right: how far each reaches, with its bites given back, bitten: whether
    either was; agreeing: share of slices at which neither was."""

    middle: Floats
    along: Floats
    first: float
    length: float
    bend: Floats
    left: Floats
    right: Floats
    bitten: Mask
    agreeing: float

    @property
    def unlike(self) -> float:
        """How far widths along the axis are from those of any leaf, x^a (1 - x)^b whatever a and b, as a share of the widest.

        Two leaves on each other have corners that no such curve has. Common practice, no source.
        """
        widths = self.right - self.left
        wide = widths > 0
        if wide.sum() < SLICES / 2:
            return math.inf
        share = PLACE[wide] + 0.5
        terms = np.stack([np.ones(wide.sum()), np.log(share), np.log(1 - share)], axis=-1)
        weights = widths[wide]
        fit, *_ = np.linalg.lstsq(terms * weights[:, None], np.log(weights) * weights, rcond=None)
        return float(np.sqrt(np.mean((np.exp(terms @ fit) - weights) ** 2)) / weights.max())

    @property
    def dips(self) -> bool:
        """Whether a leaf narrows and widens again along its axis: eaten on both sides, lobed, or several on each other."""
        calm = ndimage.median_filter((self.right - self.left) / self.length, 3)
        rising, falling = np.maximum.accumulate(calm), np.maximum.accumulate(calm[::-1])[::-1]
        return bool((np.minimum(rising, falling) - calm).max() > judgement.PHOTO_DIP)

    def across(self, shape: tuple[int, ...]) -> tuple[Labels, Mask, Floats]:
        """Of every point of a mask of such a shape: its slice, whether it lies in any, and how far off the axis."""
        rows, columns = np.mgrid[0 : shape[0], 0 : shape[1]]
        grid = np.stack([rows, columns], axis=-1) - self.middle
        slot = ((grid @ self.along - self.first) / self.length * SLICES).astype(int) - TIP
        inside: Mask = (slot >= 0) & (slot < len(self.bend))
        return np.clip(slot, 0, len(self.bend) - 1), inside, grid @ _beside(self.along)


def halves(filled: Mask) -> Halves:
    """A leaf cut along its axis: of those that lie near the longest of its outline, the one at which most of both sides agree, and its form
    is most a leaf's.

    filled: the leaf with its holes filled. Raises Unreadable where the outline can't be told: eaten on both sides at the same height, or no
    leaf's at all.
    """
    points = np.argwhere(filled).astype(np.float64)
    middle = points.mean(axis=0)
    longest = np.linalg.eigh(np.cov((points - middle).T))[1][:, 1]
    edge = np.argwhere(filled & ~ndimage.binary_erosion(filled)) - middle
    turned = (longest * np.cos(turn) + _beside(longest) * np.sin(turn) for turn in TURNS)
    cuts = [cut for cut in (_cut(edge, middle, along) for along in turned) if cut]
    best = max(cuts, key=lambda cut: cut.agreeing - judgement.PHOTO_FORM * cut.unlike, default=None)
    if best is None or best.bitten.mean() > judgement.PHOTO_BITTEN or best.dips or best.unlike > judgement.PHOTO_UNLIKE:
        raise Unreadable(Refusal.OUTLINE)
    return best


def given_back(filled: Mask, cut: Halves) -> Mask:
    """What the other half of a leaf says was there. filled: the leaf with its holes filled; cut: its halves. Raises Unreadable."""
    slot, inside, off = cut.across(filled.shape)
    # A hole that a bite has opened lies between both sides too.
    between: Mask = inside & (off <= cut.right[slot]) & (off >= cut.left[slot]) & ~filled
    missing: Mask = ndimage.binary_opening(between, iterations=2) | (between & cut.bitten[slot])
    if _solidity(filled | missing) < judgement.PHOTO_SOLID:
        raise Unreadable(Refusal.OUTLINE)
    return missing


def _cut(edge: Floats, middle: Floats, along: Floats) -> Halves | None:
    """The halves along one axis; None where some slice has no edge at all.

    Along the axis each side has a width; half their difference bends smoothly, whatever the leaf's form, and where it leaps one side was
    eaten: the other, mirrored at the bend, gives its width back.
    """
    height, side = edge @ along, edge @ _beside(along)
    first, length = float(height.min()), float(np.ptp(height))
    bins = np.minimum(((height - first) / length * SLICES).astype(int), SLICES - 1)
    right, left = np.full(SLICES, -np.inf), np.full(SLICES, np.inf)
    np.maximum.at(right, bins, side)
    np.minimum.at(left, bins, side)
    right, left = right[INNER], left[INNER]
    if not np.isfinite(right - left).all() or not (right > left).any():
        return None
    bend = _smooth((right + left) / 2, length)
    leaps = (right + left) / 2 - bend
    sure, perhaps = (np.abs(leaps) > limit * length for limit in (judgement.PHOTO_LEAP, judgement.PHOTO_LEAP / 3))
    bitten = ndimage.binary_propagation(sure, mask=perhaps)
    whole_right = np.where(bitten & (leaps < 0), 2 * bend - left, right)
    whole_left = np.where(bitten & (leaps > 0), 2 * bend - right, left)
    return Halves(middle, along, first, length, bend, whole_left, whole_right, bitten, float((~perhaps).mean()))


def _beside(along: Floats) -> Floats:
    return np.array([-along[1], along[0]])


def _smooth(bend: Floats, length: float) -> Floats:
    """A curve of the second order through as many slices as lie on one, whatever the rest says: bites are outliers.

    Source: every three of a dozen places propose a curve, the one that most agree with is fitted to those; Fischler and Bolles (1981).
    """
    proposed = np.einsum("sij,sj->si", PROPOSE, bend[TRIPLES]) @ TERMS.T
    agree = np.abs(proposed - bend) < judgement.PHOTO_LEAP / 3 * length
    best = agree[agree.sum(axis=1).argmax()]
    fit, *_ = np.linalg.lstsq(TERMS[best], bend[best], rcond=None)
    curve: Floats = TERMS @ fit
    return curve


TERMS: Floats = np.stack([np.ones_like(PLACE), PLACE, PLACE**2], axis=-1)
TRIPLES = np.array(list(itertools.combinations(np.linspace(0, len(PLACE) - 1, 14).round().astype(int), 3)))
PROPOSE: Floats = np.linalg.inv(TERMS[TRIPLES])
"""From three places of the bend to the curve through them."""


def _solidity(mask: Mask) -> float:
    """A shape's area over that of its convex hull."""
    edge = np.argwhere(mask & ~ndimage.binary_erosion(mask))
    return float(mask.sum() / ConvexHull(edge).volume)
