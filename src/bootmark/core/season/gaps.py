"""Missing days: filled so that they can be seen to be filled, never silently."""

import datetime as dt
from collections.abc import Mapping, Sequence

import numpy as np

from bootmark.core.season.ahead import Weather

SHORT_GAP = 3


def fill(days: Mapping[dt.date, tuple[float, float]], past: Sequence[Mapping[tuple[int, int], tuple[float, float]]] = ()) -> Weather:
    """Days in order without holes: gaps up to three days by straight lines between the days beside
    them, longer ones by the mean of past years on the same day of the year, as long as there is one.

    days: date to (tmin, tmax), degrees C; past: for each past year (month, day) to the same.
    The series ends at the first hole that can't be filled.
    """
    if not days:
        return Weather((), np.empty(0), np.empty(0))
    first, last = min(days), max(days)
    dates = [first + dt.timedelta(days=n) for n in range((last - first).days + 1)]
    values = np.array([days.get(day, (np.nan, np.nan)) for day in dates], dtype=float)
    holes = np.isnan(values[:, 0])
    kinds = np.where(holes, "filled", "measured")
    place = 0
    while place < len(dates):
        if not holes[place]:
            place += 1
            continue
        end = place
        while holes[end]:
            end += 1
        if end - place <= SHORT_GAP:
            for column in (0, 1):
                values[place:end, column] = np.interp(np.arange(place, end), [place - 1, end], values[[place - 1, end], column])
        else:
            for hole in range(place, end):
                same = [year[(dates[hole].month, dates[hole].day)] for year in past if (dates[hole].month, dates[hole].day) in year]
                if not same:
                    return Weather(tuple(dates[:hole]), values[:hole, 0], values[:hole, 1], tuple(str(kind) for kind in kinds[:hole]))
                values[hole] = np.mean(same, axis=0)
        place = end
    return Weather(tuple(dates), values[:, 0], values[:, 1], tuple(str(kind) for kind in kinds))
