"""Catches of one trap over the season, a bar a check."""

import datetime as dt
from collections.abc import Sequence

from bootmark.web.drawing import svg
from bootmark.web.drawing.palette import themed

WIDTH, HEIGHT, BASE = 620.0, 150.0, 120.0


def catches_svg(caught: Sequence[tuple[dt.date, int]], today: dt.date) -> str:
    """Bars by day, each with its number; months below. caught: days and numbers in order, at least one."""
    first = min(caught[0][0], today) - dt.timedelta(days=4)
    days = max((today - first).days + 4, 21)
    most = max([1, *(count for _, count in caught)])

    def x(day: dt.date) -> float:
        return 8 + (WIDTH - 16) * (day - first).days / days

    parts = [svg.line([(8, BASE), (WIDTH - 8, BASE)], themed.ink, 1.6)]
    month = dt.date(first.year, first.month, 1)
    while month <= today + dt.timedelta(days=4):
        if month >= first:
            parts.append(svg.line([(x(month), BASE), (x(month), BASE + 8)], themed.ink, 1.2))
            parts.append(svg.text(f"{month:%B}", round(x(month) + 4), round(BASE + 20), size=14))
        month = (month.replace(day=28) + dt.timedelta(days=5)).replace(day=1)
    for day, count in caught:
        height = (BASE - 30) * count / most
        parts.append(
            f'<rect x="{x(day) - 5:.1f}" y="{BASE - height:.1f}" width="10" height="{max(height, 1.5):.1f}" fill="{themed.slate}"/>'
        )
        parts.append(svg.text(count, round(x(day)), round(BASE - height - 5), size=14, anchor="middle"))
    told = ", ".join(f"{count} on {day:%-d %B}" for day, count in caught)
    return svg.document("".join(parts), f"Catches: {told}", f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
