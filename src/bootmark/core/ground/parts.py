"""Outlines divided and joined. Corners are longitude and latitude; the geometry is done in metres about the first of them."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from bootmark.core.ground.outline import MOST_CORNERS, simpler
from bootmark.core.ground.plane import Corner, Origin

REACHES = 50.0
"""Metres by which a dividing line is drawn on beyond its ends: a hand stops a little short of the hedge."""
GAP = 4.0
"""Metres between two blocks that are joined all the same: a grass strip, a careless drawing."""
LEAST_SHARE = 0.001
"""Of a block: what is smaller is a slip of the hand."""


class PartsFault(StrEnum):
    MISSES = "misses"
    PIECES = "pieces"
    APART = "apart"
    HOLE = "hole"


@dataclass(frozen=True)
class Divided:
    """A block cut in two: the smaller part, the larger, and the share of the whole that the smaller is."""

    piece: tuple[Corner, ...]
    rest: tuple[Corner, ...]
    share: float


def divide(outline: Sequence[Sequence[float]], line: Sequence[Sequence[float]]) -> Divided | PartsFault:
    """A block cut along a line of two places or more; why it can't be where it can't."""
    from shapely import LineString, Polygon
    from shapely.ops import split

    own = Origin(outline[0][1], outline[0][0])
    whole = Polygon(own.to_plan(outline))
    points = own.to_plan(line)
    if len(set(points)) < 2:
        return PartsFault.MISSES
    parts = [part for part in split(whole, LineString(_drawn_on(points))).geoms if part.area > LEAST_SHARE * whole.area]
    if len(parts) < 2:
        return PartsFault.MISSES
    if len(parts) > 2:
        return PartsFault.PIECES
    piece, rest = sorted(parts, key=lambda part: float(part.area))
    return Divided(_corners(own, piece), _corners(own, rest), float(piece.area / (piece.area + rest.area)))


def join(first: Sequence[Sequence[float]], second: Sequence[Sequence[float]]) -> tuple[Corner, ...] | PartsFault:
    """The outline of two blocks together; why it can't be where it can't. A gap between them is closed."""
    from shapely import Polygon, union

    own = Origin(first[0][1], first[0][0])
    here, there = (Polygon(own.to_plan(corners)).buffer(GAP / 2, join_style="mitre") for corners in (first, second))
    together: Any = union(here, there).buffer(-GAP / 2, join_style="mitre")
    if together.geom_type != "Polygon":
        return PartsFault.APART
    return PartsFault.HOLE if together.interiors else _corners(own, together)


def _drawn_on(points: Sequence[Corner]) -> list[Corner]:
    """A line with both its ends drawn on."""
    (x0, y0), (x1, y1) = next((points[0], point) for point in points if point != points[0])
    (x3, y3), (x2, y2) = next((points[-1], point) for point in reversed(points) if point != points[-1])
    return [_beyond((x1, y1), (x0, y0)), *points, _beyond((x2, y2), (x3, y3))]


def _beyond(start: Corner, end: Corner) -> Corner:
    x, y = end[0] - start[0], end[1] - start[1]
    long = (x * x + y * y) ** 0.5
    return (end[0] + x / long * REACHES, end[1] + y / long * REACHES)


def _corners(own: Origin, shape: Any) -> tuple[Corner, ...]:
    corners = own.to_degrees([(float(x), float(y)) for x, y in shape.exterior.coords[:-1]])
    return simpler(corners, MOST_CORNERS)[0]
