"""Normals: what a day of the year is usually like at a station, smoothed over the year by a few harmonics."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement

Array = NDArray[np.float64]
HARMONICS = 3
DAYS_OF_YEAR = 366
MEAN_YEAR = 365.25


@dataclass(frozen=True)
class Normals:
    """tmin, tmax: usual extremes by day of year, degrees C, (366,), the first being 1 January; spread: one standard deviation of
    a single day's mean temperature about its usual one, degrees C."""

    tmin: Array
    tmax: Array
    spread: float

    def on(self, day: dt.date) -> tuple[float, float]:
        place = day.timetuple().tm_yday - 1
        return float(self.tmin[place]), float(self.tmax[place])


def _waves(days_of_year: Array, harmonics: int) -> Array:
    turn = 2 * np.pi * (days_of_year - 1) / MEAN_YEAR
    columns = [np.ones_like(turn)]
    for n in range(1, harmonics + 1):
        columns += [np.cos(n * turn), np.sin(n * turn)]
    return np.stack(columns, axis=-1)


def normals(dates: Sequence[dt.date], tmin: ArrayLike, tmax: ArrayLike, harmonics: int = HARMONICS) -> Normals:
    """Usual extremes by day of year.

    dates: n days in any order; tmin, tmax: degrees C, (n,), NaN where missing; harmonics: waves a year that are kept. Raises
    ValueError for fewer than 300 days with both extremes, or for days that leave a month out.
    Source: least squares on a Fourier series, as in Narapusetty, DelSole and Tippett (2009), "Optimal estimation of the
    climatological mean", Journal of Climate 22 (from memory).
    """
    low, high = np.asarray(tmin, dtype=float), np.asarray(tmax, dtype=float)
    there = ~(np.isnan(low) | np.isnan(high))
    if (
        int(there.sum()) < judgement.LEAST_DAYS_OF_NORMALS
        or len({day.month for day, measured in zip(dates, there, strict=True) if measured}) < 12
    ):
        raise ValueError(
            f"{int(there.sum())} days are too few to tell a year's normals: {judgement.LEAST_DAYS_OF_NORMALS} are needed, from every month"
        )
    yday = np.array([day.timetuple().tm_yday for day in dates], dtype=float)
    waves, every = _waves(yday[there], harmonics), _waves(np.arange(1.0, DAYS_OF_YEAR + 1), harmonics)
    usual = []
    for column in (low[there], high[there]):
        weights, *_ = np.linalg.lstsq(waves, column, rcond=None)
        usual.append(every @ weights)
    strayed = (low[there] + high[there]) / 2 - (usual[0] + usual[1])[yday[there].astype(int) - 1] / 2
    return Normals(usual[0], usual[1], float(strayed.std()))
