"""Readings that can't be right, or may not be: flagged for a person, never changed here."""

import datetime as dt
import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement, units
from bootmark.core.meanings import FaultKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.season.normals import Normals

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Flag:
    """One thing for a person to look at. tmin, tmax: what it would read if mended, where known."""

    date: dt.date
    kind: FaultKind
    why: Message
    tmin: float | None = None
    tmax: float | None = None


def of_days(dates: Sequence[dt.date], tmin: ArrayLike, tmax: ArrayLike, usual: Normals | None = None) -> list[Flag]:
    """Flags of daily extremes, one a day at the most, in order of days.

    dates: n days in order, gaps allowed; tmin, tmax: degrees C, (n,); usual: the station's normals where there are any, without which
    only what the days themselves tell is flagged.
    """
    low, high = np.asarray(tmin, dtype=float), np.asarray(tmax, dtype=float)
    flags: dict[dt.date, Flag] = {}
    for flag in itertools.chain(
        _crossed(dates, low, high), _units(dates, low, high, usual), _stuck(dates, low, high), _spikes(dates, low, high, usual)
    ):
        flags.setdefault(flag.date, flag)
    return [flags[day] for day in sorted(flags)]


def _crossed(dates: Sequence[dt.date], low: Array, high: Array) -> list[Flag]:
    return [
        Flag(dates[n], FaultKind.CROSSED, says(Says.CROSSED, low=float(low[n]), high=float(high[n])), float(high[n]), float(low[n]))
        for n in np.flatnonzero(low > high).tolist()
    ]


def _stuck(dates: Sequence[dt.date], low: Array, high: Array) -> list[Flag]:
    """The same two values for days on end, or a day without any swing between days that have one."""
    flags, start = [], 0
    for n in range(1, len(dates) + 1):
        if n < len(dates) and low[n] == low[start] and high[n] == high[start] and (dates[n] - dates[n - 1]).days == 1:
            continue
        if n - start >= judgement.STUCK_DAYS:
            why = says(Says.STUCK_DAYS, low=float(low[start]), high=float(high[start]), days=n - start)
            flags += [Flag(dates[place], FaultKind.STUCK, why) for place in range(start, n)]
        start = n
    return flags


def _spikes(dates: Sequence[dt.date], low: Array, high: Array, usual: Normals | None) -> list[Flag]:
    """A single day far from the days beside it and, where the normals are known, from what the season allows."""
    flags = []
    for n in range(1, len(dates) - 1):
        if (dates[n + 1] - dates[n - 1]).days != 2:
            continue
        for name, row, place in (("minimum", low, 0), ("maximum", high, 1)):
            beside = (row[n - 1] + row[n + 1]) / 2
            off, own = row[n] - beside, abs(row[n + 1] - row[n - 1])
            if abs(off) < judgement.SPIKE_LEAST + own:
                continue
            if usual is not None and abs(row[n] - usual.on(dates[n])[place]) < judgement.SPIKE_SPREADS * usual.spread:
                continue
            why = says(Says.SPIKE, extreme=name, temp=float(row[n]), off=float(abs(off)), side="above" if off > 0 else "below")
            flags.append(Flag(dates[n], FaultKind.SPIKE, why))
            break
    return flags


def _units(dates: Sequence[dt.date], low: Array, high: Array, usual: Normals | None) -> list[Flag]:
    """Days in a row that are far off, and right when read in the other unit."""
    if usual is None:
        return []
    flags: list[Flag] = []
    run: list[Flag] = []
    for n, day in enumerate(dates):
        expected = sum(usual.on(day)) / 2
        read = ((low[n] + high[n]) / 2, float(units.celsius((low[n] + high[n]) / 2)))
        if abs(read[0] - expected) > judgement.UNIT_OFF and abs(read[1] - expected) < judgement.UNIT_OFF / 2:
            mended = float(units.celsius(low[n])), float(units.celsius(high[n]))
            why = says(Says.FAHRENHEIT, low=float(low[n]), high=float(high[n]), low_mended=mended[0], high_mended=mended[1])
            run.append(Flag(day, FaultKind.UNIT, why, *mended))
            if n + 1 < len(dates):
                continue
        if len(run) >= judgement.UNIT_DAYS:
            flags += run
        run = []
    return flags


def of_hours(times: Sequence[dt.datetime], temps: ArrayLike, longitude: float) -> list[Flag]:
    """Flags of hourly temperatures: a value that does not move, and a day whose warmest time has shifted.

    times: timezone-aware starts of hours in order; temps: degrees C, (n,); longitude: degrees, east positive. The warmest time of a
    day follows the sun's noon by two to four hours; several days on end far off that point to a wrong clock.
    """
    values = np.asarray(temps, dtype=float)
    flags: dict[dt.date, Flag] = {}
    start = 0
    for n in range(1, len(values) + 1):
        if n < len(values) and values[n] == values[start]:
            continue
        if n - start >= judgement.STUCK_HOURS:
            day = times[start].date()
            why = says(Says.STUCK_HOURS, temp=float(values[start]), hours=n - start, since=times[start].time())
            flags.setdefault(day, Flag(day, FaultKind.STUCK, why))
        start = n
    for flag in _clock(times, values, longitude):
        flags.setdefault(flag.date, flag)
    return [flags[day] for day in sorted(flags)]


def warmest_hour(temps: ArrayLike) -> float:
    """The hour of day at which the first harmonic of 24 temperatures peaks, 0 to 24."""
    turn = np.fft.rfft(np.asarray(temps, dtype=float))[1]
    return float((-np.angle(turn) * 24 / (2 * np.pi)) % 24)


def _clock(times: Sequence[dt.datetime], values: Array, longitude: float) -> list[Flag]:
    days: dict[dt.date, list[tuple[float, float]]] = {}
    for time, value in zip(times, values, strict=True):
        solar = time.astimezone(dt.UTC) + dt.timedelta(hours=longitude / 15)
        days.setdefault(solar.date(), []).append((solar.hour + solar.minute / 60, float(value)))
    late: list[tuple[dt.date, float]] = []
    flags: list[Flag] = []
    for day, rows in days.items():
        off = 0.0
        if len(rows) == 24 and max(v for _, v in rows) - min(v for _, v in rows) > judgement.CLOCK_SWING:
            off = (warmest_hour([v for _, v in sorted(rows)]) + sorted(rows)[0][0] - 15 + 12) % 24 - 12
        if abs(off) >= judgement.CLOCK_HOURS and (not late or off * late[-1][1] > 0):
            late.append((day, off))
            if len(late) == judgement.CLOCK_DAYS:
                mean = sum(hours for _, hours in late) / len(late)
                why = says(Says.CLOCK_SHIFTED, hours=abs(mean), way="late" if mean > 0 else "early", days=judgement.CLOCK_DAYS)
                flags += [Flag(shifted, FaultKind.CLOCK, why) for shifted, _ in late]
            elif len(late) > judgement.CLOCK_DAYS:
                flags.append(Flag(day, FaultKind.CLOCK, flags[-1].why))
        else:
            late = []
    return flags
