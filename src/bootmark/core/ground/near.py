"""How far a block lies from what stands on the plan. Library: shapely (GEOS)."""

from collections.abc import Sequence

from bootmark.core.ground.plane import Corner


def distance(corners: Sequence[Corner], points: Sequence[Corner]) -> float:
    """Metres from an outline, what it encloses counted in, to a spot or a line; both on the plan, metres. Nought where they touch."""
    from shapely.geometry import LineString, Point, Polygon  # loaded here: it takes a while, and many pages need none

    shape = LineString(points) if len(points) > 1 else Point(points[0])
    return float(Polygon(corners).distance(shape))
