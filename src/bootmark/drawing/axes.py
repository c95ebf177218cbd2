"""What charts over time share: places of days, rules and names of months, levels with their numbers, a line for today."""

import datetime as dt
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from bootmark import say
from bootmark.drawing import svg
from bootmark.drawing.palette import themed


def months_between(first: dt.date, last: dt.date) -> Iterator[dt.date]:
    """First days of months from one day to another, both included."""
    day = first.replace(day=1)
    while day <= last:
        if day >= first:
            yield day
        day = (day.replace(day=28) + dt.timedelta(days=5)).replace(day=1)


@dataclass(frozen=True)
class Axis:
    """Days to places on a sheet: the first stands at `left`, the last `width` further on."""

    first: dt.date
    last: dt.date
    left: float
    width: float

    @property
    def days(self) -> int:
        return (self.last - self.first).days

    def x(self, day: dt.date) -> float:
        """A day's place; days before and after stand at the ends."""
        return self.left + self.width * min(max((day - self.first).days / max(self.days, 1), 0.0), 1.0)

    def shows(self, day: dt.date) -> bool:
        return self.first <= day <= self.last

    def months(self) -> list[dt.date]:
        """The first days of the months that it shows."""
        return list(months_between(self.first, self.last))


def months_above(axis: Axis, bottom: float) -> str:
    """A rule for the first of every month, with its name above."""
    months = [(axis.x(day), say.tongue().formats.month(day)) for day in axis.months()]
    rules = "".join(f"M{x:.1f} 20V{bottom:g}" for x, _ in months)
    labels = "".join(svg.text(name, round(x + 5), 14) for x, name in months if x < axis.left + axis.width - 80)
    return f'<path d="{rules}" fill="none" stroke="{themed.rule}"/><g font-size="15" font-weight="700">{labels}</g>'


def months_below(axis: Axis, base: float, tick: float, drop: float, *, short: bool = False) -> str:
    """A tick for the first of every month below a chart, with its name beside it. tick: its length; drop: how far down the name stands."""
    formats = say.tongue().formats
    parts = []
    for day in axis.months():
        x = axis.x(day)
        parts.append(svg.line([(x, base), (x, base + tick)], themed.ink, 1.2))
        name = formats.short_month(day) if short else formats.month(day)
        parts.append(svg.text(name, round(x + 4), round(base + drop), size=14, fill=themed.grey))
    return "".join(parts)


def levels(values: Iterable[float], y: Callable[[float], float], left: float, right: float, *, bold: float | None = None) -> str:
    """Rules across a chart with their numbers before them. bold: the level that counts, as freezing."""
    parts = []
    for value in values:
        colour = themed.ink if value == bold else themed.rule
        parts.append(svg.line([(left, y(value)), (right, y(value))], colour, 1))
        parts.append(svg.text(f"{value:g}", left - 6, round(y(value) + 4), size=14, anchor="end", fill=themed.grey))
    return "".join(parts)


def steps(most: float, at_most: int = 5) -> range:
    """Round numbers from nought to a value, few enough to be read."""
    sizes = (1, 2, 5, 10, 20, 50, 100, 200, 250, 500, 1000, 2000)
    step = next((size for size in sizes if most / size <= at_most), sizes[-1])
    return range(0, int(most) + 1, step)
