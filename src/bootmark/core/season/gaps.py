"""Missing days: filled so that they can be seen to be filled, never silently."""

import datetime as dt
import itertools
from collections.abc import Mapping, Sequence

import numpy as np

from bootmark.core import judgement
from bootmark.core.meanings import DayKind, Fill
from bootmark.core.season.ahead import Weather

LINE, NEIGHBOUR, NORMALS = Fill

Extremes = tuple[float, float]


def fill(
    days: Mapping[dt.date, Extremes],
    past: Sequence[Mapping[tuple[int, int], Extremes]] = (),
    neighbour: Mapping[dt.date, Extremes] | None = None,
) -> Weather:
    """Days in order without holes: gaps up to three days by straight lines between the days beside
    them, longer ones from a neighbour set off by its mean difference, and what it lacks by the mean of past years on the same
    day of the year, as long as there is one.

    days: date to (tmin, tmax), degrees C; past: for each past year (month, day) to the same; neighbour: another station's days.
    The kind of a filled day says how. The series ends at the first hole that can't be filled.
    """
    if not days:
        return Weather((), np.empty(0), np.empty(0))
    first, last = min(days), max(days)
    dates = [first + dt.timedelta(days=n) for n in range((last - first).days + 1)]
    values = np.array([days.get(day, (np.nan, np.nan)) for day in dates], dtype=float)
    kinds: list[str] = [DayKind.FILLED if hole else DayKind.MEASURED for hole in np.isnan(values[:, 0])]
    off = _difference(days, neighbour or {})
    place = 0
    while place < len(dates):
        if kinds[place] == DayKind.MEASURED:
            place += 1
            continue
        end = place
        while kinds[end] == DayKind.FILLED:
            end += 1
        if end - place <= judgement.SHORT_GAP_DAYS:
            for column in (0, 1):
                values[place:end, column] = np.interp(np.arange(place, end), [place - 1, end], values[[place - 1, end], column])
            kinds[place:end] = [LINE] * (end - place)
        else:
            for hole in range(place, end):
                filled = _from_elsewhere(dates[hole], past, neighbour or {}, off)
                if filled is None:
                    return Weather(tuple(dates[:hole]), values[:hole, 0], values[:hole, 1], tuple(kinds[:hole]))
                values[hole], kinds[hole] = filled
        place = end
    return Weather(tuple(dates), values[:, 0], values[:, 1], tuple(kinds))


def _difference(days: Mapping[dt.date, Extremes], neighbour: Mapping[dt.date, Extremes]) -> Extremes | None:
    """What a neighbour's extremes lack to a station's, on average; None where they share too few days."""
    both = [day for day in days if day in neighbour]
    if len(both) < judgement.OVERLAP_DAYS:
        return None
    low, high = np.mean([np.subtract(days[day], neighbour[day]) for day in both], axis=0)
    return float(low), float(high)


def _from_elsewhere(
    day: dt.date, past: Sequence[Mapping[tuple[int, int], Extremes]], neighbour: Mapping[dt.date, Extremes], off: Extremes | None
) -> tuple[Extremes, str] | None:
    if off is not None and day in neighbour:
        low, high = neighbour[day][0] + off[0], neighbour[day][1] + off[1]
        return (min(low, high), max(low, high)), NEIGHBOUR
    same = [year[(day.month, day.day)] for year in past if (day.month, day.day) in year]
    if not same:
        return None
    low, high = np.mean(same, axis=0)
    return (float(low), float(high)), NORMALS


def runs(days: Mapping[dt.date, Extremes], until: dt.date | None = None) -> list[tuple[dt.date, dt.date]]:
    """First and last day of each gap between the first day there is and the last, or a later day."""
    gaps = []
    step = dt.timedelta(days=1)
    ordered = sorted(days)
    for before, two in itertools.pairwise(ordered):
        if two - before > step:
            gaps.append((before + step, two - step))
    if ordered and until and until - ordered[-1] > step:
        gaps.append((ordered[-1] + step, until - step))
    return gaps
