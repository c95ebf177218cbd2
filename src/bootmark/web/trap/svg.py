"""Catches of one trap over the season, a bar a check."""

import datetime as dt
from collections.abc import Sequence

from bootmark import say
from bootmark.drawing import svg
from bootmark.drawing.axes import Axis, months_below
from bootmark.drawing.palette import themed

WIDTH, HEIGHT, BASE = 620.0, 150.0, 120.0


def catches_svg(caught: Sequence[tuple[dt.date, int]], today: dt.date) -> str:
    """Bars by day, each with its number; months below. caught: days and numbers in order, at least one."""
    first = min(caught[0][0], today) - dt.timedelta(days=4)
    days = max((today - first).days + 4, 21)
    most = max([1, *(count for _, count in caught)])

    axis = Axis(first, first + dt.timedelta(days=days), 8, WIDTH - 16)
    parts = [svg.line([(8, BASE), (WIDTH - 8, BASE)], themed.ink, 1.6), months_below(axis, BASE, 8, 20)]
    for day, count in caught:
        height = (BASE - 30) * count / most
        parts.append(
            f'<rect x="{axis.x(day) - 5:.1f}" y="{BASE - height:.1f}" width="10" height="{max(height, 1.5):.1f}" fill="{themed.slate}"/>'
        )
        parts.append(svg.text(count, round(axis.x(day)), round(BASE - height - 5), size=14, anchor="middle"))
    counts = ", ".join(say.line("{count} on {day:day}", count=count, day=day) for day, count in caught)
    return svg.document("".join(parts), say.line("Catches: {counts}", counts=counts), f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
