"""The weather that is not known yet: the usual course of the year, what persists of the last weeks, and draws around both."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtri, stdtrit

from bootmark.core import judgement

Array = NDArray[np.float64]
WINDOWS, TOLD_AHEAD = (14, 21, 28), (7, 14, 28)
"""Days back from which a departure is told, and spans ahead by which it is judged on the past years."""


@dataclass(frozen=True)
class Weather:
    """Daily extremes in order without gaps in dates; degrees C.

    kind: for each day "measured", "filled" or "forecast".
    """

    dates: tuple[dt.date, ...]
    tmin: ArrayLike
    tmax: ArrayLike
    kind: tuple[str, ...] = ()


def aligned(past: Weather, dates: Sequence[dt.date]) -> tuple[Array, Array]:
    """A past year's extremes on this year's days of the year; the last day stands for 29 February."""
    by_day = {
        (day.month, day.day): (low, high) for day, low, high in zip(past.dates, np.asarray(past.tmin), np.asarray(past.tmax), strict=True)
    }
    rows = []
    for day in dates:
        extremes = by_day.get((day.month, day.day)) or by_day.get((2, 28) if (day.month, day.day) == (2, 29) else (0, 0))
        rows.append(extremes or (np.nan, np.nan))
    low, high = np.array(rows, dtype=float).T
    return low, high


def _smoothed(rows: Array) -> Array:
    """Rows of days, each smoothed by a running mean."""
    padded = np.pad(rows, ((0, 0), (judgement.SMOOTH_DAYS, judgement.SMOOTH_DAYS)), mode="edge")
    sums = np.cumsum(np.pad(padded, ((0, 0), (1, 0))), axis=1)
    width = 2 * judgement.SMOOTH_DAYS + 1
    return np.asarray((sums[:, width:] - sums[:, :-width]) / width)


def _means(rows: Array, width: int) -> Array:
    """Running means of rows of days over so many days, each at the day on which it begins."""
    sums = np.cumsum(np.pad(rows, ((0, 0), (1, 0))), axis=1)
    return np.asarray((sums[:, width:] - sums[:, :-width]) / width)


def _shares(heat_of_years: Array) -> dict[int, float]:
    """For each of some numbers of days back, the share of a departure from the usual course over them that goes on.

    It fades over as many days as it was told from. Fitted on the past years alone: each is set against the smoothed mean
    of the others, as this year is set against theirs. One year tells nothing.
    """
    years, days = heat_of_years.shape
    if years < 2:
        return {}
    strayed = heat_of_years - _smoothed((heat_of_years.sum(axis=0, keepdims=True) - heat_of_years) / (years - 1))
    shares = {}
    for window in WINDOWS:
        last = days - window - max(TOLD_AHEAD)
        if last < 1:
            continue
        before = _means(strayed, window)[:, :last]
        across = square = 0.0
        for span in TOLD_AHEAD:
            kept = float(_fading(span, window).mean())
            across += kept * float((before * _means(strayed, span)[:, window : window + last]).sum())
            square += kept**2 * float((before**2).sum())
        shares[window] = float(np.clip(across / max(square, 1e-9), 0.0, 1.0))
    return shares


def _fading(days: int, window: int) -> Array:
    return np.asarray(np.exp(-np.arange(days) / window))


def _course(heat_of_years: Array, measured: Array) -> tuple[Array, Array]:
    """The usual course of all days, those ahead set off by what goes on of the last weeks' departure; and the share of a
    departure that is so told of each day ahead.

    The mean over several numbers of days back: which of them is best can't be told from few years.
    """
    usual: Array = _smoothed(heat_of_years.mean(axis=0, keepdims=True))[0]
    start, ahead = len(measured), heat_of_years.shape[1] - len(measured)
    shares = {window: share for window, share in _shares(heat_of_years).items() if start >= window}
    course, fading_sum = usual.copy(), np.zeros(ahead)
    for window, share in shares.items():
        fading = share * _fading(ahead, window) / len(shares)
        course[start:] += fading * float((measured[-window:] - usual[start - window : start]).mean())
        fading_sum += fading
    return np.maximum(0.0, course), fading_sum


def draws_of(heat_of_years: Array, measured: Array, draws: int, seed: int) -> Array:
    """Daily heat ahead: the usual course of the year, and how past years strayed from it.

    heat_of_years: (years, days); known: this year's heat so far, (days,). Returns (draws, days left). What strays from
    week to week is drawn in blocks of days from any past year, from within a few days of its date; what strays for a month
    or more is one past year's, either way round, for the whole of a draw, less the variance that the last weeks have told
    of it. Of the second there is but one in a year, so that few years hold too little of it: it is widened by Student's t
    over the normal at 90 per cent, n - 1 degrees of freedom for n years (textbook statistics, from memory). Where the usual
    course is near nothing, cutting at no heat would warm the mean, so the mean of each day is set back to the course.
    `bench/hindcast.py` measures all of this.
    """
    rng = np.random.default_rng(seed)
    years, days = heat_of_years.shape
    start = len(measured)
    ahead = days - start
    course, weight = _course(heat_of_years, measured)
    strayed = heat_of_years - _smoothed(heat_of_years.mean(axis=0, keepdims=True))[0]
    slow = _smoothed(strayed)
    fast = strayed - slow
    widened = min(judgement.MOST_WIDENED, float(stdtrit(max(1, years - 1), 0.9) / ndtri(0.9)))
    blocks = -(-ahead // judgement.BLOCK_DAYS)
    year = np.repeat(rng.integers(0, years, (draws, blocks)), judgement.BLOCK_DAYS, axis=1)[:, :ahead]
    shift = np.repeat(rng.integers(-judgement.JITTER_DAYS, judgement.JITTER_DAYS + 1, (draws, blocks)), judgement.BLOCK_DAYS, axis=1)[
        :, :ahead
    ]
    place = np.clip(np.arange(start, days)[None, :] + shift, 0, days - 1)
    one_year, sign = rng.integers(0, years, (draws, 1)), rng.choice([-1.0, 1.0], (draws, 1))
    late = np.clip(
        np.arange(start, days)[None, :] + rng.integers(-judgement.SMOOTH_DAYS, judgement.SMOOTH_DAYS + 1, (draws, 1)), 0, days - 1
    )
    drawn = np.maximum(0.0, course[start:] + fast[year, place] + widened * np.sqrt(1 - weight**2) * sign * slow[one_year, late])
    return np.asarray(drawn * (course[start:] / np.maximum(drawn.mean(axis=0), 1e-9)))
