"""Which hours are right: every hour against every limit, each with its reason."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.limits import Between, Limits
from bootmark.core.meanings import HourState, Light, Place, Work
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.season import weather

OK, CAUTION, NO = HourState
RANK = {OK: 0, CAUTION: 1, NO: 2}


@dataclass(frozen=True)
class Hourly:
    """Hours in order. times: timezone-aware starts; temp: degrees C; rh: percent; wind: m/s mean at 2 m; rain: mm in the hour."""

    times: tuple[dt.datetime, ...]
    temp: ArrayLike
    rh: ArrayLike
    wind: ArrayLike
    rain: ArrayLike
    latitude: float = 0.0
    longitude: float = 0.0


@dataclass(frozen=True)
class Constraints:
    """Limits of one piece of work. Values are common practice, no source; a label's own come first.

    wind: m/s at 2 m. temp and delta_t: degrees C. rain_free: hours after the start without rain. not_before
    and not_after: the stage window's days, local. None: no limit of that kind. covered: wind that nobody measured does not refuse.
    """

    wind: Limits | None = judgement.WIND
    temp: Between | None = judgement.SPRAY_TEMPERATURE
    delta_t: Limits | None = judgement.DRYING
    rain_free: int | None = judgement.RAIN_FREE_HOURS
    daylight: Light = Light.DAY
    not_before: dt.date | None = None
    not_after: dt.date | None = None
    zone: dt.tzinfo = field(default=dt.UTC)
    covered: bool = False


@dataclass(frozen=True)
class Cell:
    """What an hour is: by one limit, with its reason; by all of them, with every reason why it is no better, none where it is right."""

    state: HourState
    reasons: tuple[Message, ...]


@dataclass(frozen=True)
class HourTable:
    """rows: limit to one cell an hour; overall: the worst of each hour, with the reasons of all limits that make it so."""

    times: tuple[dt.datetime, ...]
    rows: Mapping[str, tuple[Cell, ...]]
    overall: tuple[Cell, ...]

    def stretches(self) -> list[tuple[dt.datetime, dt.datetime, Cell]]:
        """Hours in a row that share one answer: start, end, and the answer with its reasons."""
        stretches: list[tuple[dt.datetime, dt.datetime, Cell]] = []
        hour = dt.timedelta(hours=1)
        last: set[str] = set()
        for place, (time, cell) in enumerate(zip(self.times, self.overall, strict=True)):
            kinds = {name for name, cells in self.rows.items() if cells[place].state == cell.state}
            if stretches and stretches[-1][1] == time and stretches[-1][2].state == cell.state and kinds == last:
                stretches[-1] = (stretches[-1][0], time + hour, stretches[-1][2])
            else:
                stretches.append((time, time + hour, cell))
            last = kinds
        return stretches

    def spans(self, least: int = 2) -> list[tuple[dt.datetime, dt.datetime]]:
        """Runs of at least so many hours in which nothing refuses or warns: start and end."""
        spans, start = [], None
        for place, cell in enumerate((*self.overall, Cell(NO, ()))):
            if cell.state == OK and start is None:
                start = place
            elif cell.state != OK and start is not None:
                if place - start >= least:
                    spans.append((self.times[start], self.times[place - 1] + dt.timedelta(hours=1)))
                start = None
        return spans


def limits_for(work: Work, *, not_before: dt.date | None = None, not_after: dt.date | None = None, zone: dt.tzinfo = dt.UTC) -> Constraints:
    """Limits of one kind of work. Common practice, no source; a label's own come first."""
    days = {"not_before": not_before, "not_after": not_after, "zone": zone}
    if work == Work.SPRAY:
        return Constraints(**days)  # type: ignore[arg-type]
    if work == Work.EVENING_SPRAY:
        return Constraints(daylight=Light.EVENING, **days)  # type: ignore[arg-type]
    if work == Work.RELEASE:
        return Constraints(wind=None, temp=judgement.RELEASE_TEMPERATURE, delta_t=None, rain_free=judgement.RELEASE_RAIN_FREE_HOURS, **days)  # type: ignore[arg-type]
    return Constraints(wind=None, temp=None, delta_t=None, rain_free=0, **days)  # type: ignore[arg-type]


def under_cover(limits: Constraints, place: str) -> Constraints:
    """The same limits under a roof. No rain falls there, and still air is no reason to wait.

    A closed house has no wind to drift in; out of a tunnel it drifts like in a field while sides and doors stand open, so that the upper
    limits of the wind hold. Common practice, no source.
    """
    if place == Place.GREENHOUSE:
        return replace(limits, wind=None, rain_free=None, covered=True)
    if place == Place.TUNNEL:
        return replace(limits, wind=limits.wind and limits.wind._replace(least=0.0), rain_free=None, covered=True)
    return limits


def _cell(state: HourState, kind: Says, **facts: Fact) -> Cell:
    return Cell(state, (says(kind, **facts),))


def _wind(values: NDArray[np.float64], limits: Limits) -> list[Cell]:
    cells = []
    for wind in values.tolist():
        if wind > limits.most:
            cells.append(_cell(NO, Says.WIND_OVER, wind=wind))
        elif wind > limits.caution:
            cells.append(_cell(CAUTION, Says.WIND_NEAR, wind=wind))
        elif wind < limits.least:
            cells.append(_cell(NO, Says.WIND_STILL, wind=wind))
        else:
            cells.append(_cell(OK, Says.WIND, wind=wind))
    return cells


def _temp(values: NDArray[np.float64], limits: Between) -> list[Cell]:
    return [
        _cell(NO, Says.COLD, temp=temp)
        if temp < limits.low
        else _cell(NO, Says.HOT, temp=temp)
        if temp > limits.high
        else _cell(OK, Says.TEMPERATURE, temp=temp)
        for temp in values.tolist()
    ]


def _drying(values: NDArray[np.float64], limits: Limits) -> list[Cell]:
    return [
        _cell(NO, Says.DRIES_AWAY, delta_t=value)
        if value > limits.most
        else _cell(CAUTION, Says.DRYING_FAST, delta_t=value)
        if value > limits.caution
        else _cell(CAUTION, Says.STAYS_WET, delta_t=value)
        if value < limits.least
        else _cell(OK, Says.DRYING, delta_t=value)
        for value in values.tolist()
    ]


def _rain(values: NDArray[np.float64], hours_free: int) -> list[Cell]:
    cells = []
    for place, rain in enumerate(values):
        ahead = values[place : place + 1 + hours_free]
        wet = np.flatnonzero(ahead > judgement.RAIN_MM)
        if rain > judgement.RAIN_MM:
            cells.append(_cell(NO, Says.RAIN, rain=float(rain)))
        elif not len(wet) and np.isnan(ahead).any():
            cells.append(_cell(NO, Says.HOUR_UNKNOWN, what="Rain"))
        elif len(wet):
            cells.append(_cell(NO, Says.RAIN_LATER, hours=int(wet[0])))
        elif len(ahead) <= hours_free:
            cells.append(_cell(CAUTION, Says.FORECAST_ENDS))
        else:
            cells.append(_cell(OK, Says.DRY, hours=hours_free))
    return cells


def _where_known(cells: list[Cell], values: NDArray[np.float64], state: HourState, what: str) -> list[Cell]:
    """Cells of a limit, with that state where nothing was measured: an unknown is never right."""
    return [_cell(state, Says.HOUR_UNKNOWN, what=what) if np.isnan(value) else cell for cell, value in zip(cells, values, strict=True)]


def _light(hourly: Hourly, limits: Constraints) -> list[Cell]:
    cells = []
    for time in hourly.times:
        rise, fall = weather.sun_times(time.astimezone(limits.zone).date(), hourly.latitude, hourly.longitude)
        evening = (
            fall - dt.timedelta(hours=judgement.EVENING_HOURS.before) <= time <= fall + dt.timedelta(hours=judgement.EVENING_HOURS.after)
        )
        light = rise <= time + dt.timedelta(minutes=judgement.DAWN_MINUTES) and time <= fall
        if limits.daylight == Light.EVENING:
            cells.append(_cell(OK, Says.EVENING) if evening else _cell(NO, Says.NOT_EVENING))
        else:
            cells.append(_cell(OK, Says.DAYLIGHT) if light else _cell(NO, Says.DARK))
    return cells


def _stage(times: Sequence[dt.datetime], limits: Constraints) -> list[Cell]:
    cells = []
    for time in times:
        day = time.astimezone(limits.zone).date()
        if limits.not_before and day < limits.not_before:
            cells.append(_cell(NO, Says.BEFORE_WINDOW, on=limits.not_before))
        elif limits.not_after and day > limits.not_after:
            cells.append(_cell(NO, Says.AFTER_WINDOW, on=limits.not_after))
        else:
            cells.append(_cell(OK, Says.IN_WINDOW))
    return cells


def hours(hourly: Hourly, constraints: Constraints) -> HourTable:
    """Every hour against every limit: ok, caution or no, with the reason of each.

    Parameters
    ----------
    hourly : n hours of weather.
    constraints : limits of the work.

    Returns
    -------
    HourTable
        A cell for each limit and hour, and the worst of each hour. Where a value is missing (NaN) wind and rain refuse, temperature and
        drying warn.

    Raises
    ------
    ValueError
        Where the series differ in length or a time has no zone.
    """
    if any(time.tzinfo is None for time in hourly.times):
        raise ValueError("every hour needs a time zone")
    columns = [np.asarray(column, dtype=float) for column in (hourly.temp, hourly.rh, hourly.wind, hourly.rain)]
    if any(len(column) != len(hourly.times) for column in columns):
        raise ValueError("times, temp, rh, wind and rain must be of one length")
    temp, rh, wind, rain = columns
    rows: dict[str, list[Cell]] = {}
    if constraints.not_before or constraints.not_after:
        rows["stage"] = _stage(hourly.times, constraints)
    if constraints.wind:
        rows["wind"] = _where_known(_wind(wind, Limits(*constraints.wind)), wind, CAUTION if constraints.covered else NO, "Wind")
    if constraints.rain_free is not None:
        rows["rain"] = _rain(rain, constraints.rain_free)
    if constraints.temp:
        rows["temperature"] = _where_known(_temp(temp, Between(*constraints.temp)), temp, CAUTION, "Temperature")
    if constraints.delta_t:
        drying = weather.delta_t(temp, rh)
        rows["drying"] = _where_known(_drying(drying, Limits(*constraints.delta_t)), drying, CAUTION, "Drying")
    if constraints.daylight != Light.ANY:
        rows["light"] = _light(hourly, constraints)
    overall = []
    for column in zip(*rows.values(), strict=True):
        worst = max(column, key=lambda cell: RANK[cell.state])
        stands = worst.state != OK
        overall.append(Cell(worst.state, tuple(cell.reasons[0] for cell in column if stands and cell.state == worst.state)))
    return HourTable(hourly.times, {name: tuple(cells) for name, cells in rows.items()}, tuple(overall))
