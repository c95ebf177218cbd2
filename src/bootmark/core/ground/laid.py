"""How a picture of the farm lies under its plan: by two points of it if it was taken from straight above, else by three."""

import math
from collections.abc import Sequence
from enum import StrEnum

from bootmark.core.ground.plane import Corner

LEAST_APART = 5.0
"""Metres between two points on the plan, and hundredths of its width on the picture, by which it is laid: nearer, a slip turns it."""
MOST_STRETCHED = 4.0
"""How much longer a metre may be drawn one way than the other."""
Matrix = tuple[float, float, float, float, float, float]
"""As SVG has it: x' = a x + c y + e, y' = b x + d y + f."""


class LaidFault(StrEnum):
    COUNT = "count"
    NEAR = "near"
    LINE = "line"
    MIRRORED = "mirrored"
    STRETCHED = "stretched"


def matrix(marks: Sequence[Corner], points: Sequence[Corner], wide: float) -> Matrix | LaidFault:
    """What brings a picture's points to the plan; why nothing does.

    marks: on the picture, pixels right and down; points: the same on the plan, metres east and south; wide: the picture's width, pixels.
    """
    if len(marks) != len(points) or len(marks) not in (2, 3):
        return LaidFault.COUNT
    pairs = [(a, b) for a in range(len(marks)) for b in range(a)]
    too_near = any(math.dist(marks[a], marks[b]) < wide * LEAST_APART / 100 for a, b in pairs)
    if too_near or any(math.dist(points[a], points[b]) < LEAST_APART for a, b in pairs):
        return LaidFault.NEAR
    return _turned(marks, points) if len(marks) == 2 else _stretched(marks, points)


def _turned(marks: Sequence[Corner], points: Sequence[Corner]) -> Matrix:
    """Turned, scaled and moved, as complex numbers do it."""
    here, there = complex(*marks[1]) - complex(*marks[0]), complex(*points[1]) - complex(*points[0])
    by = there / here
    moved = complex(*points[0]) - by * complex(*marks[0])
    return (by.real, by.imag, -by.imag, by.real, moved.real, moved.imag)


def _stretched(marks: Sequence[Corner], points: Sequence[Corner]) -> Matrix | LaidFault:
    (x0, y0), (x1, y1), (x2, y2) = marks
    u1, v1, u2, v2 = x1 - x0, y1 - y0, x2 - x0, y2 - y0
    area = u1 * v2 - u2 * v1
    if abs(area) < 0.02 * math.hypot(u1, v1) * math.hypot(u2, v2):
        return LaidFault.LINE
    (p0, q0), (p1, q1), (p2, q2) = points
    a, c = ((p1 - p0) * v2 - (p2 - p0) * v1) / area, ((p2 - p0) * u1 - (p1 - p0) * u2) / area
    b, d = ((q1 - q0) * v2 - (q2 - q0) * v1) / area, ((q2 - q0) * u1 - (q1 - q0) * u2) / area
    size = a * d - b * c
    if size <= 0:
        return LaidFault.MIRRORED
    # The ratio of the two singular values: what a circle's axes become.
    both = a * a + b * b + c * c + d * d
    root = math.sqrt(max(both * both - 4 * size * size, 0.0))
    if both - root <= 0 or math.sqrt((both + root) / (both - root)) > MOST_STRETCHED:
        return LaidFault.STRETCHED
    return (a, b, c, d, p0 - a * x0 - c * y0, q0 - b * x0 - d * y0)
