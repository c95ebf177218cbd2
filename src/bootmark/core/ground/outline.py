"""What an outline must be to be a block's: corners in degrees, in the order in which one walks round it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from bootmark.core.ground import plane
from bootmark.core.ground.plane import Corner, Origin

MOST_CORNERS = 500
MOST_HECTARES = 10_000.0
LEAST_WIDTH = 0.5
"""Metres: what is nowhere wider is a line drawn there and back, and no block."""
POLAR = 85.0
"""Degrees of latitude beyond which nothing is farmed, and plans turn."""


class FaultKind(StrEnum):
    CORNERS = "corners"
    MANY = "many"
    NUMBER = "number"
    METRES = "metres"
    POLE = "pole"
    DATELINE = "dateline"
    BARE = "bare"
    CROSSES = "crosses"
    SLIVER = "sliver"
    HUGE = "huge"


@dataclass(frozen=True)
class Fault:
    """Why an outline can't be kept. place: of the corner that is wrong, from 1 on; at: longitude and latitude of the spot; size: how many
    corners, or hectares."""

    kind: FaultKind
    place: int = 0
    at: Corner | None = None
    size: float = 0.0


def _is_pair(corner: Any) -> bool:
    return (
        isinstance(corner, (list, tuple))
        and len(corner) >= 2
        and all(type(number) in (int, float) and math.isfinite(number) for number in corner[:2])
    )


def places_fault(corners: Sequence[Any]) -> Fault | None:
    """What is wrong with the first of some places that is no longitude and latitude where something is farmed; None where all are."""
    for place, corner in enumerate(corners, 1):
        if not _is_pair(corner):
            return Fault(FaultKind.NUMBER, place)
        east, north = corner[:2]
        if abs(east) > 180 or abs(north) > 90:
            return Fault(FaultKind.METRES, place)
        if abs(north) > POLAR:
            return Fault(FaultKind.POLE, place)
    return None


def fault(corners: Any, *, most: int = MOST_CORNERS) -> Fault | None:
    """What is wrong with an outline; None where nothing is. corners: [longitude, latitude] each, the last not the first again."""
    if not isinstance(corners, (list, tuple)) or len(corners) < 3:
        return Fault(FaultKind.CORNERS, size=len(corners) if isinstance(corners, (list, tuple)) else 0)
    if len(corners) > most:
        return Fault(FaultKind.MANY, size=len(corners))
    wrong_place = places_fault(corners)
    if wrong_place:
        return wrong_place
    if max(corner[0] for corner in corners) - min(corner[0] for corner in corners) > 180:
        return Fault(FaultKind.DATELINE)
    return _shape_fault(corners)


def _shape_fault(corners: Sequence[Sequence[float]]) -> Fault | None:
    from shapely import LinearRing, Polygon  # loaded here: only what is drawn or brought in needs it

    hectares = plane.area(corners)
    if hectares > MOST_HECTARES:
        return Fault(FaultKind.HUGE, size=hectares)
    own = Origin(corners[0][1], corners[0][0])
    points = own.to_plan(corners)
    if len(set(points)) < 3:
        return Fault(FaultKind.BARE)
    ring = LinearRing(points)
    if not ring.is_simple:
        return Fault(FaultKind.CROSSES, at=own.to_degrees([crossing(points)])[0])
    shape = Polygon(points)
    if shape.area == 0:
        return Fault(FaultKind.BARE)
    return Fault(FaultKind.SLIVER) if shape.buffer(-LEAST_WIDTH / 2).is_empty else None


def crossing(points: Sequence[Corner]) -> Corner:
    """Where a ring that is not simple meets itself: by an index of its sides, since a file may bring a hundred thousand."""
    import numpy as np
    import shapely

    ring = np.asarray([*points, points[0]])
    sides: Any = shapely.linestrings(np.stack([ring[:-1], ring[1:]], axis=1))
    first, second = shapely.STRtree(sides).query(sides, predicate="intersects")
    first, second = first[first < second], second[first < second]
    near = (second == first + 1) | ((first == 0) & (second == len(sides) - 1))
    met: Any = shapely.intersection(sides[first], sides[second])
    # Neighbours share a corner and may share no more.
    wrong = met[~near | (shapely.length(met) > 0)]
    spot = wrong[0].representative_point() if len(wrong) else shapely.Point(points[0])
    return (float(spot.x), float(spot.y))


def simpler(corners: Sequence[Corner], most: int = MOST_CORNERS) -> tuple[tuple[Corner, ...], float]:
    """An outline with at most so many corners, and by how many metres it is off at most; as it is where it has no more.

    Source: Douglas and Peucker (1973), as the geometry library has it.
    """
    import shapely
    from shapely import Polygon

    if len(corners) <= most:
        return tuple(corners), 0.0
    own = Origin(corners[0][1], corners[0][0])
    shape, off = Polygon(own.to_plan(corners)), 0.25
    while True:
        ring = shapely.get_coordinates(shape.simplify(off))[:-1].tolist()
        if len(ring) <= most:
            return own.to_degrees(ring), off
        off *= 2
