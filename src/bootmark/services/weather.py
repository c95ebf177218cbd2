"""Weather of a station: what was measured, what is foretold, what is filled, what looks wrong."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.dialects.postgresql import distinct_on, insert
from sqlalchemy.orm import Session

from bootmark.core.season import blend, faults
from bootmark.core.season.ahead import Weather
from bootmark.core.season.blend import Place
from bootmark.core.season.faults import Flag
from bootmark.core.season.gaps import fill
from bootmark.core.season.normals import normals
from bootmark.services import memo
from bootmark.store.models import ForecastHour, Station, WeatherDay, WeatherDerived, WeatherHour
from bootmark.store.season_models import Judgement

Extremes = tuple[float, float]
LEAST_DAYS_OF_A_YEAR = 300
HOURS_LOOKED_AT = 30


class Foretold(NamedTuple):
    """One hour of a forecast. temp: degrees C; rh: percent; wind: m/s; rain: mm."""

    valid_at: dt.datetime
    temp: float
    rh: float
    wind: float
    rain: float


@dataclass(frozen=True)
class Record:
    """All days of one station as they count: date to (tmin, tmax) and date to rain. key: changes with any new reading."""

    key: tuple[Any, ...]
    days: dict[dt.date, Extremes]
    rain: dict[dt.date, float | None]

    def years(self, before: dt.date) -> list[Weather]:
        """Whole past years, the newest first."""
        by_year: dict[int, list[dt.date]] = {}
        for day in self.days:
            if day.year < before.year:
                by_year.setdefault(day.year, []).append(day)
        found = []
        for _, dates in sorted(by_year.items(), reverse=True):
            if len(dates) >= LEAST_DAYS_OF_A_YEAR:
                dates.sort()
                found.append(Weather(tuple(dates), [self.days[day][0] for day in dates], [self.days[day][1] for day in dates]))
        return found


_records: memo.Kept[Record] = memo.Kept(32)


def offset(station: Station) -> dt.timezone:
    """The fixed zone on which a station's days run."""
    return dt.timezone(dt.timedelta(minutes=station.offset_minutes))


def record(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID) -> Record:
    """A station's days; read once and kept until a new reading comes."""
    return memo.once(session, ("record", farm_id, station_id), lambda: _record(session, farm_id, station_id))


def _record(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID) -> Record:
    where = (WeatherDay.farm_id == farm_id, WeatherDay.station_id == station_id)
    stamp = session.execute(select(func.count(), func.max(WeatherDay.received_at)).where(*where)).one()
    judged = judgements(session, farm_id, station_id)
    key = (farm_id, station_id, *stamp, tuple((one.version_id, one.local_date) for one in judged))
    if kept := _records.get(key):
        return kept
    rows = session.execute(
        select(WeatherDay.local_date, WeatherDay.tmin, WeatherDay.tmax, WeatherDay.rain)
        .where(*where)
        .ext(distinct_on(WeatherDay.local_date))
        .order_by(WeatherDay.local_date, WeatherDay.received_at.desc())
    ).all()
    days = {row[0]: (row[1], row[2]) for row in rows}
    for one in judged:
        # What a person left out counts as missing, and is filled and marked like any gap; the raw reading stays where it is.
        if one.verdict == "left out":
            days.pop(one.local_date, None)
        elif one.verdict == "mended" and one.local_date in days and one.tmin is not None and one.tmax is not None:
            days[one.local_date] = (one.tmin, one.tmax)
    return _records.put(key, Record(key, days, {row[0]: row[3] for row in rows if row[0] in days}))


def judgements(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID) -> list[Judgement]:
    """What people said of a station's flagged days."""
    rows = select(Judgement).where(Judgement.farm_id == farm_id, Judgement.station_id == station_id).order_by(Judgement.local_date)
    return list(session.scalars(rows))


def forecast_rows(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, day: dt.date) -> list[Foretold]:
    """The newest forecast that was out by the end of a day."""
    return memo.once(session, ("forecast", station_id, day), lambda: _forecast_rows(session, farm_id, station_id, day))


def _forecast_rows(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, day: dt.date) -> list[Foretold]:
    end = dt.datetime.combine(day, dt.time(0), dt.UTC) + dt.timedelta(days=1)
    where = (ForecastHour.farm_id == farm_id, ForecastHour.station_id == station_id)
    newest = select(func.max(ForecastHour.issued_at)).where(*where, ForecastHour.issued_at < end).scalar_subquery()
    columns = (ForecastHour.valid_at, ForecastHour.temp, ForecastHour.rh, ForecastHour.wind, ForecastHour.rain)
    rows = session.execute(select(*columns).where(*where, ForecastHour.issued_at == newest).order_by(ForecastHour.valid_at))
    return [Foretold(*row) for row in rows]


def foretold_days(session: Session, station: Station, day: dt.date) -> dict[dt.date, Extremes]:
    """Extremes of the days that a forecast covers by at least 20 hours, and of today from what was measured and is foretold."""
    return memo.once(session, ("foretold", station.id, day), lambda: _foretold_days(session, station, day))


def _foretold_days(session: Session, station: Station, day: dt.date) -> dict[dt.date, Extremes]:
    zone = offset(station)
    start = dt.datetime.combine(day, dt.time(0), zone)
    measured = session.execute(
        select(WeatherHour.utc_hour, WeatherHour.temp).where(
            WeatherHour.farm_id == station.farm_id, WeatherHour.station_id == station.id, WeatherHour.utc_hour >= start
        )
    )
    hours: dict[dt.datetime, float] = {row.valid_at: row.temp for row in forecast_rows(session, station.farm_id, station.id, day)}
    hours |= dict(measured.all())
    by_day: dict[dt.date, list[float]] = {}
    for hour, temp in hours.items():
        by_day.setdefault(hour.astimezone(zone).date(), []).append(temp)
    return {one: (min(temps), max(temps)) for one, temps in by_day.items() if len(temps) >= 20 and one >= day}


def store_days(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    """Add raw days; a row that is there already stays as it is. Returns how many were new."""
    return _add(session, WeatherDay, farm_id, station_id, rows)


def _add(session: Session, model: type[Any], farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    new = 0
    memo.forget(session)
    for start in range(0, len(rows), 2000):
        chunk = [{"farm_id": farm_id, "station_id": station_id, **row} for row in rows[start : start + 2000]]
        done = session.execute(
            insert(model)
            .values(chunk)
            .on_conflict_do_nothing()
            .returning(model.received_at if model is not ForecastHour else model.issued_at)
        )
        new += len(done.all())
    return new


def store_hours(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    return _add(session, WeatherHour, farm_id, station_id, rows)


def store_forecast(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    return _add(session, ForecastHour, farm_id, station_id, rows)


def by_month_day(year: Weather) -> dict[tuple[int, int], Extremes]:
    """A year's extremes by month and day."""
    rows = zip(year.dates, np.asarray(year.tmin), np.asarray(year.tmax), strict=True)
    return {(day.month, day.day): (float(low), float(high)) for day, low, high in rows}


def raw_days(session: Session, station: Station) -> dict[dt.date, Extremes]:
    """A station's newest reading of each day as it was received, whatever people said of it since."""
    rows = session.execute(
        select(WeatherDay.local_date, WeatherDay.tmin, WeatherDay.tmax)
        .where(WeatherDay.farm_id == station.farm_id, WeatherDay.station_id == station.id)
        .ext(distinct_on(WeatherDay.local_date))
        .order_by(WeatherDay.local_date, WeatherDay.received_at.desc())
    )
    return {day: (low, high) for day, low, high in rows}


def place(station: Station) -> Place:
    return Place(station.latitude, station.longitude, station.elevation)


def neighbour_days(session: Session, station: Station) -> dict[dt.date, Extremes] | None:
    """The days of the nearest other outdoor station, from which a long gap is filled; None where there is none."""
    outdoor = Station.farm_id == station.farm_id, Station.kind == "outdoor", Station.id != station.id
    others = memo.once(session, ("others", station.id), lambda: list(session.scalars(select(Station).where(*outdoor))))
    nearest = min(others, key=lambda one: blend.distance(place(one), place(station)), default=None)
    return record(session, station.farm_id, nearest.id).days if nearest else None


def derive(session: Session, station: Station) -> int:
    """Write down beside a station's raw days which are filled and how, and which look wrong; returns how many are filled."""
    kept = record(session, station.farm_id, station.id)
    rows: dict[dt.date, dict[str, Any]] = {}

    def row(day: dt.date) -> dict[str, Any]:
        empty = {
            "farm_id": station.farm_id,
            "station_id": station.id,
            "local_date": day,
            "tmin": None,
            "tmax": None,
            "filled": "",
            "flags": [],
        }
        return rows.setdefault(day, empty)

    known = WeatherDerived.farm_id == station.farm_id, WeatherDerived.station_id == station.id
    for day in session.scalars(select(WeatherDerived.local_date).where(*known)):
        row(day)
    filled = 0
    by_day = [by_month_day(year) for year in kept.years(max(kept.days) + dt.timedelta(days=366))] if kept.days else []
    neighbour = neighbour_days(session, station)
    # Year by year: a file of long ago does not call for the years between to be made up.
    for year in sorted({day.year for day in kept.days}):
        told = fill({day: kept.days[day] for day in kept.days if day.year == year}, by_day, neighbour)
        for day, low, high, kind in zip(told.dates, np.asarray(told.tmin), np.asarray(told.tmax), told.kind, strict=True):
            if kind != "measured":
                row(day).update(tmin=float(low), tmax=float(high), filled=kind)
                filled += 1
    for flag in flags(session, station):
        row(flag.date)["flags"] = [{"kind": flag.kind, "why": flag.why, "tmin": flag.tmin, "tmax": flag.tmax}]
    values = list(rows.values())
    for start in range(0, len(values), 1000):
        statement = insert(WeatherDerived).values(values[start : start + 1000])
        fresh = {name: statement.excluded[name] for name in ("tmin", "tmax", "filled", "flags")}
        session.execute(statement.on_conflict_do_update(index_elements=["farm_id", "station_id", "local_date"], set_=fresh))
    return filled


def flags(session: Session, station: Station) -> list[Flag]:
    """Readings of a station that look wrong: its raw days, and the hours of the last weeks."""
    raw = raw_days(session, station)
    if not raw:
        return []
    dates = sorted(raw)
    low, high = np.array([raw[day][0] for day in dates]), np.array([raw[day][1] for day in dates])
    try:
        usual = normals(dates, low, high)
    except ValueError:
        usual = None
    found = {flag.date: flag for flag in faults.of_days(dates, low, high, usual)}
    since = dt.datetime.combine(dates[-1] - dt.timedelta(days=HOURS_LOOKED_AT), dt.time(0), dt.UTC)
    hours = session.execute(
        select(WeatherHour.utc_hour, WeatherHour.temp)
        .where(WeatherHour.farm_id == station.farm_id, WeatherHour.station_id == station.id, WeatherHour.utc_hour >= since)
        .order_by(WeatherHour.utc_hour)
    ).all()
    zone = offset(station)
    for flag in faults.of_hours([hour.astimezone(zone) for hour, _ in hours], [temp for _, temp in hours], station.longitude):
        found.setdefault(flag.date, flag)
    return [found[day] for day in sorted(found)]
