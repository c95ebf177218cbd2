"""Which hours are right: every hour against every limit, each with its reason."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr

from bootmark.core import judgement
from bootmark.core.limits import Between, Limits
from bootmark.core.meanings import HourState, Light, Place, Work
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.season import weather

OK, CAUTION, NO = HourState
RANK = {OK: 0, CAUTION: 1, NO: 2}


@dataclass(frozen=True)
class Hourly:
    """Hours in order.

    times: timezone-aware starts; temp: degrees C; rh: percent; wind: m/s mean at `wind_height`, m above the ground; rain: mm in the hour;
    cloud: share of the sky, 0 to 1, None where nobody tells; temp_above: degrees C measured some metres above temp, None likewise.
    """

    times: tuple[dt.datetime, ...]
    temp: ArrayLike
    rh: ArrayLike
    wind: ArrayLike
    rain: ArrayLike
    latitude: float = 0.0
    longitude: float = 0.0
    wind_height: float = weather.SPRAY_HEIGHT
    cloud: ArrayLike | None = None
    temp_above: ArrayLike | None = None


@dataclass(frozen=True)
class Constraints:
    """Limits of one piece of work. Values are common practice, no source; a label's own come first.

    wind: m/s at 2 m. temp and delta_t: degrees C. rain_free: hours after the start without rain. not_before
    and not_after: the stage window's days, local. None: no limit of that kind. covered: wind that nobody measured does not refuse;
    inversion: whether cold air near the ground, in which drops hang and travel, refuses.
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
    inversion: bool = False


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
        return Constraints(inversion=True, **days)  # type: ignore[arg-type]
    if work == Work.EVENING_SPRAY:
        return Constraints(daylight=Light.EVENING, inversion=True, **days)  # type: ignore[arg-type]
    if work == Work.RELEASE:
        return Constraints(wind=None, temp=judgement.RELEASE_TEMPERATURE, delta_t=None, rain_free=judgement.RELEASE_RAIN_FREE_HOURS, **days)  # type: ignore[arg-type]
    return Constraints(wind=None, temp=None, delta_t=None, rain_free=0, **days)  # type: ignore[arg-type]


def under_cover(limits: Constraints, place: str) -> Constraints:
    """The same limits under a roof. No rain falls there, and still air is no reason to wait.

    A closed house has no wind to drift in; out of a tunnel it drifts like in a field while sides and doors stand open, so that the upper
    limits of the wind hold. Common practice, no source.
    """
    if place == Place.GREENHOUSE:
        return replace(limits, wind=None, rain_free=None, covered=True, inversion=False)
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


def _inversion(hourly: Hourly, wind: NDArray[np.float64], limits: Constraints) -> list[Cell]:
    """Cold air that lies near the ground: measured where two heights are, else likely about a clear night in little wind.

    From an hour before sunset until two hours after sunrise; a sky or a wind that nobody tells is not taken to be a safe one.
    """
    count = len(hourly.times)
    cloud = np.full(count, np.nan) if hourly.cloud is None else np.asarray(hourly.cloud, dtype=float)
    above = np.full(count, np.nan) if hourly.temp_above is None else np.asarray(hourly.temp_above, dtype=float)
    colder = above - np.asarray(hourly.temp, dtype=float)
    cells = []
    for place, time in enumerate(hourly.times):
        rise, fall = weather.sun_times(time.astimezone(limits.zone).date(), hourly.latitude, hourly.longitude)
        before, after = dt.timedelta(hours=judgement.INVERSION_HOURS.before), dt.timedelta(hours=judgement.INVERSION_HOURS.after)
        night = time >= fall - before or time < rise + after
        overcast = cloud[place] >= judgement.OVERCAST
        moved = wind[place] >= judgement.INVERSION_WIND
        if not np.isnan(colder[place]):
            lies = colder[place] > 0
            cells.append(_cell(NO, Says.INVERSION_MEASURED, warmer=float(colder[place])) if lies else _cell(OK, Says.NO_INVERSION))
        elif night and not overcast and not moved:
            cells.append(_cell(NO, Says.INVERSION))
        else:
            cells.append(_cell(OK, Says.NO_INVERSION))
    return cells


def _will_do(hourly: Hourly, wind: NDArray[np.float64], limits: Constraints) -> NDArray[np.float64]:
    """Chance that an hour foretold as right will be so, by how far forecasts of its wind and warmth err by then."""
    days = np.array([(time - hourly.times[0]) / dt.timedelta(days=1) for time in hourly.times])
    chance = np.full(len(days), 1.0)
    temp = np.asarray(hourly.temp, dtype=float)
    for values, bounds, error in (
        (wind, limits.wind and (limits.wind[0], limits.wind[2]), judgement.WIND_ERROR),
        (temp, limits.temp and tuple(limits.temp), judgement.TEMPERATURE_ERROR),
    ):
        if bounds:
            spread = error * np.sqrt(np.maximum(days, judgement.LEAST_LEAD))
            chance = chance * (ndtr((bounds[1] - values) / spread) - ndtr((bounds[0] - values) / spread))
    if limits.rain_free is not None:
        chance = chance * (1 - judgement.RAIN_UNFORETOLD) ** days
    return np.asarray(chance)


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
        drying warn. Beyond the third day an hour that would be right is told with the chance that it will be, and is never right.

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
    wind = weather.wind_at(wind, hourly.wind_height)
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
    if constraints.inversion:
        rows["inversion"] = _inversion(hourly, wind, constraints)
    if constraints.daylight != Light.ANY:
        rows["light"] = _light(hourly, constraints)
    chance = _will_do(hourly, wind, constraints)
    overall = tuple(_overall(column, hourly, place, chance) for place, column in enumerate(zip(*rows.values(), strict=True)))
    return HourTable(hourly.times, {name: tuple(cells) for name, cells in rows.items()}, overall)


def _overall(column: Sequence[Cell], hourly: Hourly, place: int, chance: NDArray[np.float64]) -> Cell:
    """The worst of one hour, with the reasons of all limits that make it so."""
    worst = max(column, key=lambda cell: RANK[cell.state])
    if worst.state != OK:
        return Cell(worst.state, tuple(cell.reasons[0] for cell in column if cell.state == worst.state))
    if hourly.times[place] - hourly.times[0] >= dt.timedelta(hours=judgement.SURE_FORECAST):
        return _cell(CAUTION, Says.WILL_DO, chance=float(chance[place]))
    return Cell(OK, ())
