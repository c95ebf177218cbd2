"""A station's year: the day's extremes as a band, heat against past years."""

import datetime as dt
from collections.abc import Sequence

from bootmark import say
from bootmark.core.units import Quantity
from bootmark.drawing import axes, svg
from bootmark.drawing.axes import Axis
from bootmark.drawing.palette import themed
from bootmark.services.weather.heat import YearOfHeat
from bootmark.services.weather.stations import Record

WIDTH, HEIGHT, LEFT, BASE = 640.0, 220.0, 40.0, 190.0


def year_svg(record: Record, year: int) -> str:
    """Daily minimum to maximum of one year, with a line at freezing."""
    days = sorted(day for day in record.days if day.year == year)
    if not days:
        return ""
    unit = say.tongue().formats.unit(Quantity.TEMPERATURE)
    lows, highs = ([unit.shown(record.days[day][side]) for day in days] for side in (0, 1))
    bottom, top = min(unit.shown(-5.0), *lows), max(unit.shown(30.0), *highs)

    axis = Axis(dt.date(year, 1, 1), dt.date(year, 12, 31), LEFT, WIDTH - LEFT - 8)

    def y(value: float) -> float:
        return BASE - 170 * (value - bottom) / (top - bottom)

    shown = (value for value in range(-40, 121, 20 if unit.zero else 10) if bottom <= value <= top)
    parts = [axes.levels(shown, y, LEFT, WIDTH - 8, bold=unit.zero), axes.months_below(axis, BASE, 4, HEIGHT - 6 - BASE, short=True)]
    bars = "".join(f"M{axis.x(day):.1f} {y(low):.1f}V{y(high):.1f}" for day, low, high in zip(days, lows, highs, strict=True))
    parts.append(svg.path(bars, stroke=themed.boot, width=max(1.0, axis.width / 365 * 0.85), opacity="0.75"))
    title = say.line("Daily minimum and maximum of {year}, {unit}", year=year, unit=say.tongue().symbol(Quantity.TEMPERATURE))
    return svg.document("".join(parts), title, f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")


def heat_svg(rows: Sequence[YearOfHeat], start: tuple[int, int], unit: str) -> str:
    """Heat sums day by day, the newest year bold, the others by their number. rows: newest year first."""
    rows = [row for row in rows if row.course][:6]
    if not rows:
        return ""
    scale = 1.8 if unit == "F" else 1.0
    days, most = max(len(row.course) for row in rows), scale * max(row.course[-1] for row in rows) or 1.0
    right = WIDTH - 46
    first = dt.date(2001, *start)
    axis = Axis(first, first + dt.timedelta(days=days - 1), LEFT, right - LEFT)

    def x(day: int) -> float:
        return axis.x(first + dt.timedelta(days=day))

    def y(value: float) -> float:
        return BASE - 170 * value * scale / most

    grid = axes.levels(axes.steps(most), lambda value: BASE - 170 * value / most, LEFT, right)
    parts = [grid, axes.months_below(axis, BASE, 6, HEIGHT - 6 - BASE, short=True)]
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
    sums = "; ".join(say.line("{year}: {sum:0} to {on:day}", year=row.year, sum=row.course[-1] * scale, on=row.last) for row in rows)
    title = say.line("Degree-days {unit} by day. {years}", unit=unit, years=sums)
    return svg.document("".join(parts), title, f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
