"""Longitude and latitude, and the farm's plan that is drawn from them.

The plan counts metres east and south of the farm's origin by the azimuthal equidistant projection about it: distances from the origin are
true, and none on a farm is off by more than a part in a million. Library: pyproj (PROJ), on the ellipsoid of WGS84.
"""

import functools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

Corner = tuple[float, float]
"""Longitude and latitude, degrees; on the plan metres east and south."""
M2_PER_HA = 10_000.0
MOST_KEPT = 500
"""Corners of an outline whose place on the plan is kept in memory: those of a file may be many more."""


@dataclass(frozen=True)
class Origin:
    """Where the plan's nought lies, degrees. It is fixed at a farm's start: moving the farm's typed place moves no block."""

    latitude: float
    longitude: float

    def to_plan(self, corners: Sequence[Sequence[float]]) -> tuple[Corner, ...]:
        """Corners in degrees as metres east and south."""
        plan: tuple[Corner, ...] = _kept(_to_plan, len(corners))(self, _pairs(corners))
        return plan

    def to_degrees(self, points: Sequence[Sequence[float]]) -> tuple[Corner, ...]:
        """Points of the plan as longitude and latitude, to a hundredth of a millimetre."""
        if not points:
            return ()
        longitudes, latitudes = _projection(self)([x for x, _ in points], [-y for _, y in points], inverse=True)
        return tuple((round(east, 10), round(north, 10)) for east, north in zip(longitudes, latitudes, strict=True))


@functools.lru_cache(maxsize=64)
def _projection(origin: Origin) -> Any:
    from pyproj import Proj  # loaded here: it takes a while, and many pages need none

    return Proj(proj="aeqd", lat_0=origin.latitude, lon_0=origin.longitude, ellps="WGS84")


def _pairs(corners: Sequence[Sequence[float]]) -> tuple[Corner, ...]:
    return tuple((float(corner[0]), float(corner[1])) for corner in corners)


def _kept(function: Any, size: int) -> Any:
    """A function that keeps its answers, and the same without that for an outline larger than any block's."""
    return function if size <= MOST_KEPT else function.__wrapped__


@functools.lru_cache(maxsize=4096)
def _to_plan(origin: Origin, corners: tuple[Corner, ...]) -> tuple[Corner, ...]:
    if not corners:
        return ()
    easts, norths = _projection(origin)([east for east, _ in corners], [north for _, north in corners])
    return tuple((round(x, 3), round(-y, 3)) for x, y in zip(easts, norths, strict=True))


@functools.cache
def _geod() -> Any:
    from pyproj import Geod

    return Geod(ellps="WGS84")


@functools.lru_cache(maxsize=4096)
def _area(corners: tuple[Corner, ...]) -> float:
    area, _ = _geod().polygon_area_perimeter([east for east, _ in corners], [north for _, north in corners])
    return abs(float(area)) / M2_PER_HA


def area(corners: Sequence[Sequence[float]]) -> float:
    """What an outline in degrees encloses on the ellipsoid, hectares."""
    return float(_kept(_area, len(corners))(_pairs(corners)))


def edge(corners: Sequence[Sequence[float]]) -> float:
    """How long the edge of an outline in degrees is along the ellipsoid, metres."""
    pairs = _pairs(corners)
    _, length = _geod().polygon_area_perimeter([east for east, _ in pairs], [north for _, north in pairs])
    return float(length)


def distance(start: Corner, end: Corner) -> float:
    """From one place to another along the ellipsoid, metres."""
    return float(_geod().inv(*start, *end)[2])
