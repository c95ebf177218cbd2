"""A station's year: the day's extremes as a band, heat against past years."""

import datetime as dt
from collections.abc import Sequence

from bootmark.services.weather.heat import YearOfHeat
from bootmark.services.weather.stations import Record
from bootmark.web.drawing import svg
from bootmark.web.drawing.palette import themed

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
            parts.append(svg.line([(LEFT, y(value)), (WIDTH - 8, y(value))], themed.ink if value == 0 else themed.rule, 1))
            parts.append(svg.text(value, LEFT - 6, round(y(value) + 4), size=14, anchor="end", fill=themed.grey))
    for month in range(1, 13):
        parts.append(
            svg.text(
                f"{dt.date(year, month, 1):%b}",
                round(x(dt.date(year, month, 15))),
                round(HEIGHT - 6),
                size=14,
                anchor="middle",
                fill=themed.grey,
            )
        )
    step = (WIDTH - LEFT - 8) / 365
    bars = "".join(f"M{x(day):.1f} {y(low):.1f}V{y(high):.1f}" for day, low, high in zip(days, lows, highs, strict=True))
    parts.append(svg.path(bars, stroke=themed.boot, width=max(1.0, step * 0.85), opacity="0.75"))
    return svg.document("".join(parts), f"Daily minimum and maximum of {year}, degrees C", f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")


def heat_svg(rows: Sequence[YearOfHeat], start: tuple[int, int], unit: str) -> str:
    """Heat sums day by day, the newest year bold, the others by their number. rows: newest year first."""
    rows = [row for row in rows if row.course][:6]
    if not rows:
        return ""
    scale = 1.8 if unit == "F" else 1.0
    days, most = max(len(row.course) for row in rows), scale * max(row.course[-1] for row in rows) or 1.0
    right = WIDTH - 46

    def x(day: int) -> float:
        return LEFT + (right - LEFT) * day / max(days - 1, 1)

    def y(value: float) -> float:
        return BASE - 170 * value * scale / most

    parts = []
    step = next(one for one in (50, 100, 200, 250, 500, 1000, 2000) if most / one <= 5 or one == 2000)
    for value in range(0, int(most) + 1, step):
        height = BASE - 170 * value / most
        parts.append(svg.line([(LEFT, height), (right, height)], themed.rule, 1))
        parts.append(svg.text(value, LEFT - 6, round(height + 4), size=13, anchor="end", fill=themed.grey))
    first = dt.date(2001, *start)
    for day in range(days):
        month = first + dt.timedelta(days=day)
        if month.day == 1:
            parts.append(svg.text(f"{month:%b}", round(x(day) + 2), round(HEIGHT - 6), size=14, fill=themed.grey))
            parts.append(svg.line([(x(day), BASE), (x(day), BASE + 6)], themed.ink, 1))
    taken: list[float] = []
    for place, row in enumerate(rows):
        points = [(x(day), y(value)) for day, value in enumerate(row.course)]
        newest = place == 0
        parts.append(
            svg.line(
                points[:: 1 if newest else 3] + points[-1:],
                themed.boot if newest else themed.slate,
                3 if newest else 1.4,
                stroke_dasharray="none" if newest else "5 3",
            )
        )
        height = points[-1][1] + 4
        while any(abs(height - other) < 13 for other in taken) and len(points) == days:
            height += 13
        if len(points) == days:
            taken.append(height)
        weight, colour = ("700", themed.boot) if newest else ("", themed.slate)
        parts.append(svg.text(row.year, round(points[-1][0] + 4), round(height), size=13, weight=weight, fill=colour))
    told = "; ".join(f"{row.year}: {row.course[-1] * scale:.0f} to {row.last:%-d %B}" for row in rows)
    return svg.document("".join(parts), f"Degree-days {unit} by day. {told}", f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
