"""Where on a block the units of a count are taken: points in walking order, all inside it. Standard library only."""

import itertools
import math
import random
from collections.abc import Sequence

from bootmark.core.meanings import Pattern

Corner = tuple[float, float]
"""Metres along the two axes of a plan."""
FINE = 4000
"""Places along a pattern that are tried: what lies outside the block falls out."""
LEGS = {Pattern.W: 4, Pattern.ZIGZAG: 8}
INSET = 0.12
"""How far in from the edge the points of an edge walk lie, as a share of the way to the middle; and the other half of them."""
HALF_IN = 0.65
MOST_TRIES = 100_000


def walk_points(
    polygon: Sequence[Sequence[float]], n: int, pattern: Pattern | str = Pattern.ZIGZAG, *, direction: float | None = None, seed: int = 0
) -> list[Corner]:
    """So many points of a block in walking order.

    polygon: corners in metres, the last not the first again; pattern: a Pattern; direction: of its rows, degrees from the first axis of the
    plan towards its second, along its longest side where None; seed: of the random pattern. Raises ValueError for fewer than three corners,
    fewer than one point, or an outline that encloses nothing.
    """
    corners = [(float(x), float(y)) for x, y, *_ in polygon]
    if n < 1 or len(corners) < 3 or abs(_area(corners)) < 1e-9:
        raise ValueError("points lie in an outline that encloses ground, and there is one at least")
    pattern = Pattern(pattern)
    if pattern == Pattern.RANDOM:
        return _in_order(_strewn(corners, n, _chance(seed)))
    if pattern == Pattern.EDGE:
        return _edge(corners, n)
    turn = math.radians(direction) if direction is not None else _along(corners)
    level = [_turned(corner, -turn) for corner in corners]
    way = _rows(level, n) if pattern == Pattern.ROWS else _zigzag(level, LEGS[pattern])
    points = [_turned(point, turn) for point in _spread(way, level, n)]
    return points if len(points) == n else _in_order(_strewn(corners, n, _chance(seed)))


def _chance(seed: int) -> random.Random:
    return random.Random(seed)  # noqa: S311 - where a scout walks is no secret


def _area(corners: Sequence[Corner]) -> float:
    return sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(corners, [*corners[1:], corners[0]], strict=True)) / 2


def _along(corners: Sequence[Corner]) -> float:
    sides = zip(corners, [*corners[1:], corners[0]], strict=True)
    (x1, y1), (x2, y2) = max(sides, key=lambda side: math.dist(*side))
    return math.atan2(y2 - y1, x2 - x1)


def _turned(point: Corner, by: float) -> Corner:
    (x, y), cos, sin = point, math.cos(by), math.sin(by)
    return (x * cos - y * sin, x * sin + y * cos)


def inside(point: Corner, corners: Sequence[Corner]) -> bool:
    """Whether a point lies in an outline: by the crossings of a ray."""
    x, y = point
    within = False
    for (x1, y1), (x2, y2) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if (y1 > y) != (y2 > y) and x < (x2 - x1) * (y - y1) / (y2 - y1) + x1:
            within = not within
    return within


def _box(corners: Sequence[Corner]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    return min(xs), min(ys), max(xs), max(ys)


def _zigzag(corners: Sequence[Corner], legs: int) -> list[Corner]:
    left, low, right, high = _box(corners)
    return [(left + (right - left) * leg / legs, low if leg % 2 else high) for leg in range(legs + 1)]


def _rows(corners: Sequence[Corner], n: int) -> list[Corner]:
    """There and back along rows, evenly over the block."""
    left, low, right, high = _box(corners)
    rows = max(1, round(math.sqrt(n * (high - low) / max(right - left, 1e-9))))
    way: list[Corner] = []
    for row in range(rows):
        y = low + (high - low) * (row + 1 / 2) / rows
        way += [(left, y), (right, y)] if row % 2 == 0 else [(right, y), (left, y)]
    return way


def _spread(way: Sequence[Corner], corners: Sequence[Corner], n: int) -> list[Corner]:
    """So many points evenly along the parts of a way that lie inside; fewer where hardly any do."""
    long = sum(math.dist(*leg) for leg in itertools.pairwise(way))
    fine: list[Corner] = []
    for (x1, y1), (x2, y2) in itertools.pairwise(way):
        steps = max(1, round(FINE * math.dist((x1, y1), (x2, y2)) / max(long, 1e-9)))
        fine += [(x1 + (x2 - x1) * (step + 1 / 2) / steps, y1 + (y2 - y1) * (step + 1 / 2) / steps) for step in range(steps)]
    within = [point for point in fine if inside(point, corners)]
    return [within[int(len(within) * (place + 1 / 2) / n)] for place in range(n)] if len(within) >= n else []


def _strewn(corners: Sequence[Corner], n: int, chance: random.Random) -> list[Corner]:
    left, low, right, high = _box(corners)
    points: list[Corner] = []
    for _ in range(MOST_TRIES):
        point = (chance.uniform(left, right), chance.uniform(low, high))
        if inside(point, corners):
            points.append(point)
        if len(points) == n:
            return points
    raise ValueError("this outline is too thin for points")


def _edge(corners: Sequence[Corner], n: int) -> list[Corner]:
    """Half of the points round the edge, half round the middle: what comes from outside is met where it comes in."""
    middle = (sum(x for x, _ in corners) / len(corners), sum(y for _, y in corners) / len(corners))

    def ring(share: float, count: int) -> list[Corner]:
        inner = [(x + (middle[0] - x) * share, y + (middle[1] - y) * share) for x, y in corners]
        return _spread([*inner, inner[0]], corners, count)

    outer = n - n // 2
    points = [*ring(INSET, outer), *(ring(HALF_IN, n - outer) if n > outer else [])]
    return points if len(points) == n else _in_order(_strewn(corners, n, _chance(0)))


def _in_order(points: list[Corner]) -> list[Corner]:
    """The points nearest next, from the first corner of their box on."""
    left = list(points)
    here: Corner = (min(x for x, _ in left), min(y for _, y in left))
    way: list[Corner] = []
    while left:
        here = min(left, key=lambda point: math.dist(here, point))
        left.remove(here)
        way.append(here)
    return way
