"""The life-cycle wheel: one turn is the year at this farm, one ring for each stage."""

import datetime as dt
import math
from collections.abc import Mapping, Sequence

import numpy as np
from shapely import Polygon

from bootmark import say
from bootmark.drawing import strokes, svg
from bootmark.drawing.palette import themed
from bootmark.drawing.strokes import COLOURS

MIDDLE, OUTER, RING, GAP = 150.0, 112.0, 19.0, 3.0


def _angle(share: float) -> float:
    """January begins at the top; the year turns with the clock."""
    return math.tau * share - math.pi / 2


def _at(share: float, radius: float) -> tuple[float, float]:
    return MIDDLE + radius * math.cos(_angle(share)), MIDDLE + radius * math.sin(_angle(share))


def _band(start: float, end: float, outer: float, inner: float) -> str:
    if end - start >= 1:
        return _band(start, start + 0.5, outer, inner) + _band(start + 0.5, start + 0.9999, outer, inner)
    large = int(end - start > 0.5)
    (ax, ay), (bx, by) = _at(start, outer), _at(end, outer)
    (cx, cy), (dx, dy) = _at(end, inner), _at(start, inner)
    return (
        f"M{ax:.1f} {ay:.1f}A{outer:.1f} {outer:.1f} 0 {large} 1 {bx:.1f} {by:.1f}"
        f"L{cx:.1f} {cy:.1f}A{inner:.1f} {inner:.1f} 0 {large} 0 {dx:.1f} {dy:.1f}Z"
    )


def _shape(start: float, end: float, outer: float, inner: float) -> Polygon:
    """A band as corners, a degree apart."""
    steps = np.linspace(start, end, max(round(360 * (end - start)), 2))
    return Polygon([*(_at(share, outer) for share in steps), *(_at(share, inner) for share in steps[::-1])])


def runs(months: frozenset[int]) -> list[tuple[int, int]]:
    """Months that follow each other, as first month and count, round the turn of the year."""
    if len(months) == 12:
        return [(1, 12)]
    runs_of = []
    for month in sorted(months):
        if (month - 2) % 12 + 1 not in months:
            length = 1
            while (month + length - 1) % 12 + 1 in months:
                length += 1
            runs_of.append((month, length))
    return runs_of


def wheel_svg(
    title: str,
    stages: Mapping[str, frozenset[int]],
    winter: tuple[str, frozenset[int]] | None,
    today: dt.date,
    events: Sequence[tuple[str, dt.date]] = (),
) -> str:
    """stages: months of each stage at this farm; winter: stage and months of rest; events: this year's median days."""
    parts = [svg.circle(MIDDLE, MIDDLE, OUTER + 2, themed.page, themed.rule, 1)]
    for month in range(12):
        inner_end, two = _at(month / 12, 30), _at(month / 12, OUTER + 12)
        parts.append(svg.line([inner_end, two], themed.rule, 1))
    for place, (stage, months) in enumerate(stages.items()):
        outer = OUTER - place * (RING + GAP)
        for first, count in runs(months):
            start = (first - 1) / 12
            end = start + count / 12
            parts.append(svg.path(_band(start, end, outer, outer - RING), COLOURS[stage]))
            parts.append(strokes.texture(stage, [_shape(start, end, outer, outer - RING)]))
            parts.append(svg.path(_band(start, end, outer, outer - RING), "none", themed.ink, 0.8))
        if winter and winter[0] == stage:
            for first, count in runs(winter[1] - months):
                start = (first - 1) / 12
                parts.append(svg.path(_band(start, start + count / 12, outer - 5, outer - RING + 5), COLOURS[stage], opacity="0.35"))
    for number, (_, day) in enumerate(events, 1):
        share = (day.timetuple().tm_yday - 1) / 365
        x, y = _at(share, OUTER + 36)
        parts.append(svg.line([_at(share, OUTER - 4), _at(share, OUTER + 28)], themed.boot, 2))
        parts.append(
            svg.circle(x, y, 9, themed.boot)
            + svg.text(number, round(x, 1), round(y + 5, 1), size=14, anchor="middle", weight="700", fill=themed.page)
        )
    for month in range(12):
        x, y = _at((month + 0.5) / 12, OUTER + 13)
        parts.append(
            svg.text(
                say.tongue().formats.month(dt.date(2001, month + 1, 1))[0],
                round(x, 1),
                round(y + 5, 1),
                size=14,
                anchor="middle",
                weight="600",
                fill=themed.slate,
                halo=themed.paper,
            )
        )
    share = (today.timetuple().tm_yday - 1) / 365
    parts.append(svg.line([_at(share, 24), _at(share, OUTER + 3)], themed.rust, 2.4))
    parts.append(svg.circle(MIDDLE, MIDDLE, 24, themed.paper, themed.rust, 1.6))
    parts.append(svg.text(say.line("today"), MIDDLE, MIDDLE + 5, size=13, anchor="middle", weight="700", fill=themed.rust))
    return svg.document("".join(parts), title, "-12 -12 324 324")
