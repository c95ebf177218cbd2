"""Years side by side: what part of the population is in each stage on the same days of each year, stacked."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from bootmark import say
from bootmark.drawing import strokes, svg
from bootmark.drawing.axes import Axis, months_above
from bootmark.drawing.palette import themed
from bootmark.drawing.strokes import COLOURS
from bootmark.web.stages.svg import LEFT, STAGE_ORDER, WIDTH

ROW, GAP, TOP = 40.0, 12.0, 24.0


@dataclass(frozen=True)
class YearRow:
    """name: what stands before it; first: the day of its first share, as a day of the axis's own year; shares: by stage, a day each."""

    name: str
    first: dt.date
    shares: Mapping[str, np.ndarray]


def years_svg(rows: Sequence[YearRow], axis: Axis, today: dt.date) -> str:
    """A row a year, the first one in bold, with the same day marked through all."""
    bottom = TOP + len(rows) * (ROW + GAP)
    parts = [months_above(axis, bottom - GAP)]
    for place, row in enumerate(rows):
        base = TOP + place * (ROW + GAP) + ROW
        parts.append(svg.text(row.name, round(LEFT - 8), round(base - 13), size=15, anchor="end", weight="" if place else "700"))
        parts.append(f'<path d="M{LEFT:g} {base:g}h{WIDTH:g}" stroke="{themed.rule}"/>')
        parts.append(_stack(row, axis, base))
    if axis.first <= today <= axis.last:
        x = axis.x(today)
        parts.append(f'<path d="M{x:.1f} 20V{bottom - GAP:g}" stroke="{themed.ink}" stroke-width="2.4"/>')
    named = ", ".join(row.name for row in rows)
    return svg.document(
        "".join(parts), say.line("Stages on the same days: {years}", years=named), f"0 0 {LEFT + WIDTH + 6:.0f} {bottom:.0f}"
    )


def _stack(row: YearRow, axis: Axis, base: float) -> str:
    length = max((len(share) for share in row.shares.values()), default=0)
    days = (row.first - axis.first).days + np.arange(length)
    inside = (days >= 0) & (days <= axis.days)
    if inside.sum() < 2:
        return ""
    x = LEFT + WIDTH * days[inside] / axis.days
    below = np.column_stack([x, np.full(len(x), base)])
    parts = []
    for stage in STAGE_ORDER:
        if stage not in row.shares:
            continue
        above = below - np.column_stack([np.zeros(len(x)), ROW * row.shares[stage][inside]])
        shapes = strokes.between(above, below)
        if shapes:
            parts.append(svg.path(strokes.outline(shapes), COLOURS[stage], themed.paper, 1.0))
            parts.append(strokes.texture(stage, shapes))
        below = above
    return "".join(parts)
