"""A station's year: the day's extremes as a band, heat against past years."""

import datetime as dt

from bootmark.services.weather import Record
from bootmark.web.drawing import svg

WIDTH, HEIGHT, LEFT, BASE = 640.0, 220.0, 40.0, 190.0


def year_svg(record: Record, year: int) -> str:
    """Daily minimum to maximum of one year, with a line at freezing."""
    days = sorted(day for day in record.days if day.year == year)
    if not days:
        return ""
    lows, highs = [record.days[day][0] for day in days], [record.days[day][1] for day in days]
    bottom, top = min(-5.0, *lows), max(30.0, *highs)

    def x(day: dt.date) -> float:
        return LEFT + (WIDTH - LEFT - 8) * (day.timetuple().tm_yday - 1) / 365

    def y(value: float) -> float:
        return BASE - 170 * (value - bottom) / (top - bottom)

    parts = []
    for value in range(-20, 41, 10):
        if bottom <= value <= top:
            parts.append(svg.line([(LEFT, y(value)), (WIDTH - 8, y(value))], svg.INK if value == 0 else svg.RULE, 1))
            parts.append(f'<text x="{LEFT - 6}" y="{y(value) + 4:.0f}" font-size="14" text-anchor="end" fill="#5a5d57">{value}</text>')
    for month in range(1, 13):
        parts.append(
            f'<text x="{x(dt.date(year, month, 15)):.0f}" y="{HEIGHT - 6:.0f}" font-size="14" text-anchor="middle" fill="#5a5d57">{dt.date(year, month, 1):%b}</text>'
        )
    step = (WIDTH - LEFT - 8) / 365
    bars = "".join(f"M{x(day):.1f} {y(low):.1f}V{y(high):.1f}" for day, low, high in zip(days, lows, highs, strict=True))
    parts.append(svg.path(bars, stroke=svg.BOOT, width=max(1.0, step * 0.85), opacity="0.75"))
    return svg.document("".join(parts), f"Daily minimum and maximum of {year}, degrees C", f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
