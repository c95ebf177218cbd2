"""Specks on white paper after a tap: what moved between two pictures is alive, what did not may be dirt."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from scipy import ndimage
from scipy.optimize import linear_sum_assignment
from scipy.spatial.distance import cdist

from bootmark.core import judgement
from bootmark.core.meanings import AgentKind, Gate, Refusal
from bootmark.core.photo import light, sheet
from bootmark.core.photo.light import Floats, Labels, Picture, Unreadable

GATES = {Gate.MITES: (0.3, 1.0), Gate.THRIPS: (0.8, 3.0)}
"""Shortest and longest length that counts, millimetres. Common practice, no source."""


def gate_for(kind: AgentKind) -> Gate:
    """The gate that animals of a kind are looked for with first."""
    return Gate.MITES if kind == AgentKind.MITE else Gate.THRIPS


MOST_SCALE = 10.0
"""Points a millimetre at which paper is measured at the most."""


@dataclass(frozen=True)
class Specks:
    """Things on a sheet within the gate. places: x along its long side and y along its short one, lengths: of each; all in millimetres;
    seen: the places as shares of the picture's width and height; larger: how many things are larger than the gate."""

    places: Floats
    seen: Floats
    lengths: Floats
    larger: int
    sides: tuple[float, float]

    @property
    def count(self) -> int:
        return len(self.places)


@dataclass(frozen=True)
class Moved:
    """Two pictures of one sheet. moving: how many moved; still: how many did not; first: the specks of the first picture; moved: which of
    these have gone from where they were."""

    moving: int
    still: int
    first: Specks
    moved: tuple[bool, ...]


def specks(picture: Picture, sides: tuple[float, float], gate: tuple[float, float]) -> Specks:
    """Dark things of a size on white paper.

    sides: the paper's longer and shorter side; gate: shortest and longest length that counts; millimetres. Raises Unreadable where no
    sheet is seen whole, where it is blurred so that things of the gate would vanish, or is not empty paper. Common practice, no source.
    """
    paper = sheet.lies(sheet.in_colour_of_its_middle(picture), picture.shape[0], sides, MOST_SCALE)
    seen = light.grey(picture)
    grey = paper.above(seen)
    if sheet.blur(paper, seen) > judgement.SPECK_BLUR * gate[0]:
        raise Unreadable(Refusal.BLURRED)
    if paper.scale * gate[0] < judgement.SPECK_POINTS:
        raise Unreadable(Refusal.FAR)
    darker = sheet.even(grey, paper.scale, gate[1])
    inner = paper.inner(judgement.SHEET_MARGIN)
    darker[~inner] = 0
    noise = 1.4826 * float(np.median(np.abs(darker[inner])))
    least = max(judgement.SPECK_DARKER, judgement.SPECK_NOISE * noise)
    labels, count = ndimage.label(darker > least, structure=np.ones((3, 3)))
    if not count:
        return Specks(np.zeros((0, 2)), np.zeros((0, 2)), np.zeros(0), 0, sides)
    each = np.arange(1, count + 1)
    deepest = np.concatenate([[1.0], ndimage.maximum(darker, labels, each)])
    # By blur a speck is spread out: half of its own darkness is where it ends.
    core = np.where(darker > 0.5 * deepest[labels], labels, 0)
    areas = ndimage.sum_labels(core > 0, core, each)
    lengths = axes(core, count)[0] / paper.scale
    places = np.array(ndimage.center_of_mass(darker, core, each))[:, ::-1] / paper.scale
    real = areas >= judgement.SPECK_LEAST
    if darker[labels > 0].size > judgement.PAPER_COVERED * darker.size:
        raise Unreadable(Refusal.MARKED)
    inside = real & (lengths >= gate[0] * judgement.GATE_SLACK) & (lengths <= gate[1] / judgement.GATE_SLACK)
    larger = int((real & (lengths > gate[1] / judgement.GATE_SLACK)).sum())
    seen = sheet.seen_at(paper, places[inside], picture.shape)
    return Specks(places[inside], seen, lengths[inside], larger, sides)


def axes(labels: Labels, count: int) -> tuple[Floats, Floats]:
    """The length and the width of each label, points: the axes of an ellipse of the same second moments."""
    places = np.argwhere(labels)
    owner, (rows, columns) = labels[labels > 0], places.T.astype(np.float64)
    number = np.maximum(np.bincount(owner, minlength=count + 1), 1)

    def mean(values: Any) -> Any:
        return np.bincount(owner, values, count + 1) / number

    x, y = mean(columns), mean(rows)
    # A point has an extent of its own.
    xx, yy = mean(columns**2) - x**2 + 1 / 12, mean(rows**2) - y**2 + 1 / 12
    xy = mean(columns * rows) - x * y
    middle, apart = (xx + yy) / 2, np.sqrt(((xx - yy) / 2) ** 2 + xy**2)
    return (4 * np.sqrt(middle + apart))[1:], (4 * np.sqrt(np.maximum(middle - apart, 0)))[1:]


def moved(first: Specks, second: Specks) -> Moved:
    """What moved between two pictures of one sheet, a few seconds apart.

    A speck of the first with one of the second at the same place is still; the rest moved. The second may lie upside down. Raises
    Unreadable where so little stayed that they can't be of one sheet. Source: least squares of all pairs, Kuhn (1955).
    """
    turned = replace(second, places=np.array(second.sides) - second.places)
    pairs = max((_pairs(first, other) for other in (second, turned)), key=len)
    still = len(pairs)
    gone = first.count - still
    came = second.count - still
    if min(first.count, second.count) >= judgement.MATCH_LEAST and still < judgement.MATCH_SHARE * min(first.count, second.count):
        raise Unreadable(Refusal.NO_MATCH)
    stayed = {place for place, _ in pairs}
    # Each that moves is missing once and new once; one that ran over the edge only the former.
    return Moved(max(gone, came), still, first, tuple(place not in stayed for place in range(first.count)))


def _pairs(first: Specks, second: Specks) -> list[tuple[int, int]]:
    """Specks of both at the same place, each once."""
    if not first.count or not second.count:
        return []
    far = cdist(first.places, second.places)
    rows, columns = linear_sum_assignment(np.minimum(far, 10 * judgement.STILL_WITHIN))
    return [(row, column) for row, column in zip(rows, columns, strict=True) if far[row, column] <= judgement.STILL_WITHIN]
