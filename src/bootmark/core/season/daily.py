"""A station's or a block's days as they are known: what fills, blends, cuts and warms them."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from bootmark.core import judgement
from bootmark.core.season import blend, gaps
from bootmark.core.season.ahead import Weather
from bootmark.core.season.blend import Place
from bootmark.core.season.gaps import Extremes

SILENT = (np.nan, np.nan)


@dataclass(frozen=True)
class DailySeries:
    """Days with holes. days: date to (tmin, tmax), degrees C; rain: date to mm, None where it was not measured."""

    days: Mapping[dt.date, Extremes] = field(default_factory=dict)
    rain: Mapping[dt.date, float | None] = field(default_factory=dict)

    @classmethod
    def blended(cls, stations: Sequence[Place], series: Sequence["DailySeries"], at: Place) -> "DailySeries":
        """Days at a place from those of several stations by distance and height, the nearest station first.

        Rain is the nearest station's that measured it: the mean of two showers is no shower. Raises ValueError without a station.
        """
        days = sorted(set().union(*(each.days for each in series)))
        values = np.array([[each.days.get(day, SILENT) for day in days] for each in series], dtype=float)
        mixed = blend.blend(stations, values.reshape(len(series), len(days), 2), at)
        rain = {day: next((each.rain[day] for each in series if each.rain.get(day) is not None), None) for day in days}
        return cls({day: (float(low), float(high)) for day, (low, high) in zip(days, mixed, strict=True)}, rain)

    def years(self, before: dt.date) -> list[Weather]:
        """Whole years before a day's own, the newest first."""
        by_year: dict[int, list[dt.date]] = {}
        for day in self.days:
            if day.year < before.year:
                by_year.setdefault(day.year, []).append(day)
        whole = [sorted(dates) for _, dates in sorted(by_year.items(), reverse=True) if len(dates) >= judgement.LEAST_DAYS_OF_A_YEAR]
        return [Weather(tuple(dates), *np.array([self.days[day] for day in dates], dtype=float).T) for dates in whole]

    def between(self, first: dt.date, end: dt.date) -> "DailySeries":
        """The days from one on, up to but without another."""
        return DailySeries({day: extremes for day, extremes in self.days.items() if first <= day < end})

    def then(self, later: "DailySeries") -> "DailySeries":
        """These days, and those of another series in place of its own."""
        return DailySeries({**self.days, **later.days}, {**self.rain, **later.rain})

    def filled(self, past: Sequence[Weather] = (), neighbour: "DailySeries | None" = None) -> Weather:
        """The days in order, holes filled and marked by how: see `gaps.fill`."""
        return gaps.fill(self.days, [by_month_day(year) for year in past], neighbour.days if neighbour else None)

    def spell(self, day: dt.date, back: int) -> list[tuple[float, float | None]]:
        """Maximum and rain of the known days before a day, at most so many days back, in order."""
        dates = (day - dt.timedelta(days=n) for n in range(back, 0, -1))
        return [(self.days[date][1], self.rain.get(date)) for date in dates if date in self.days]


def by_month_day(year: Weather) -> dict[tuple[int, int], Extremes]:
    """A year's extremes by month and day."""
    rows = zip(year.dates, np.asarray(year.tmin), np.asarray(year.tmax), strict=True)
    return {(day.month, day.day): (float(low), float(high)) for day, low, high in rows}


def warmed(weather: Weather, degrees: float, since: dt.date | None = None) -> Weather:
    """The same weather with every day from one on, or all of them, warmer by so many degrees C."""
    step = np.array([degrees if since is None or day >= since else 0.0 for day in weather.dates])
    return replace(weather, tmin=np.asarray(weather.tmin, dtype=float) + step, tmax=np.asarray(weather.tmax, dtype=float) + step)


def same_day(day: dt.date, year: int) -> dt.date:
    """A day in another year; the 28th of February for the 29th.

    >>> print(same_day(dt.date(2024, 2, 29), 2026))
    2026-02-28
    """
    return day.replace(year=year, day=28) if (day.month, day.day) == (2, 29) else day.replace(year=year)
