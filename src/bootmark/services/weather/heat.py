"""Dates by which a station's heat reached given sums, year by year."""

import datetime as dt
from dataclasses import dataclass

import numpy as np

from bootmark.core.season import degree_days
from bootmark.core.season.daily import DailySeries
from bootmark.services.base.command import Refused


@dataclass(frozen=True)
class Question:
    """lower, upper: degrees C; start: month and day; sums: degree-days C."""

    lower: float
    upper: float | None
    start: tuple[int, int]
    sums: tuple[float, ...]
    method: str = degree_days.DEFAULT_METHOD
    cutoff: str = degree_days.DEFAULT_CUTOFF


@dataclass(frozen=True)
class YearOfHeat:
    """dates: one for each sum, None where not reached; total: degree-days C to the last day; missing: days without a reading;
    course: degree-days C day by day from the start."""

    year: int
    dates: tuple[dt.date | None, ...]
    total: float
    last: dt.date
    missing: int
    course: tuple[float, ...] = ()


def by_year(record: DailySeries, question: Question) -> list[YearOfHeat]:
    """Each year's dates, newest year first. A hole is bridged by straight lines and counted. Raises Refused."""
    years = []
    for year in sorted({day.year for day in record.days}, reverse=True):
        start = dt.date(year, *question.start)
        days = sorted(day for day in record.days if day.year == year and day >= start)
        if not days:
            continue
        span = [start + dt.timedelta(days=n) for n in range((days[-1] - start).days + 1)]
        place = np.array([(day - start).days for day in days])
        low = np.interp(np.arange(len(span)), place, [record.days[day][0] for day in days])
        high = np.interp(np.arange(len(span)), place, [record.days[day][1] for day in days])
        try:
            heat = degree_days.daily(low, high, question.lower, question.upper, method=question.method, cutoff=question.cutoff)
        except ValueError as error:
            raise Refused(upper=f"{str(error).capitalize()}.") from error
        total = np.cumsum(heat)
        dates = tuple(span[int((total >= wanted).argmax())] if (total >= wanted).any() else None for wanted in question.sums)
        years.append(YearOfHeat(year, dates, float(total[-1]), days[-1], len(span) - len(days), tuple(total.tolist())))
    return years
