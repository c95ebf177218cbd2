"""Weather of a station or block: what was measured, what is foretold, and what is filled."""

import datetime as dt
import uuid
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar, cast

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.dialects.postgresql import distinct_on, insert
from sqlalchemy.orm import Session

from bootmark.core.season.ahead import Weather
from bootmark.core.season.gaps import fill
from bootmark.core.season.spells import spells
from bootmark.core.season.windows import Hourly
from bootmark.store.models import Block, Farm, ForecastHour, Station, WeatherDay, WeatherDerived, WeatherHour

Extremes = tuple[float, float]
Kept = TypeVar("Kept")
LEAST_DAYS_OF_A_YEAR = 300
SPELL_DAYS = 30
_KEPT = 32


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


_records: OrderedDict[tuple[Any, ...], Record] = OrderedDict()


def offset(station: Station) -> dt.timezone:
    """The fixed zone on which a station's days run."""
    return dt.timezone(dt.timedelta(minutes=station.offset_minutes))


def _once(session: Session, key: tuple[Any, ...], ask: Callable[[], Kept]) -> Kept:
    """What a question answered before in this transaction; forgotten as soon as readings are stored in it."""
    memo = session.info.setdefault("weather", {})
    if key not in memo:
        memo[key] = ask()
    return cast(Kept, memo[key])


def record(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID) -> Record:
    """A station's days; read once and kept until a new reading comes."""
    return _once(session, ("record", farm_id, station_id), lambda: _record(session, farm_id, station_id))


def _record(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID) -> Record:
    where = (WeatherDay.farm_id == farm_id, WeatherDay.station_id == station_id)
    stamp = session.execute(select(func.count(), func.max(WeatherDay.received_at)).where(*where)).one()
    key = (farm_id, station_id, *stamp)
    if key in _records:
        _records.move_to_end(key)
        return _records[key]
    rows = session.execute(
        select(WeatherDay.local_date, WeatherDay.tmin, WeatherDay.tmax, WeatherDay.rain)
        .where(*where)
        .ext(distinct_on(WeatherDay.local_date))
        .order_by(WeatherDay.local_date, WeatherDay.received_at.desc())
    ).all()
    _records[key] = Record(key, {row[0]: (row[1], row[2]) for row in rows}, {row[0]: row[3] for row in rows})
    while len(_records) > _KEPT:
        _records.popitem(last=False)
    return _records[key]


def forecast_rows(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, day: dt.date) -> list[ForecastHour]:
    """The newest forecast that was out by the end of a day."""
    return _once(session, ("forecast", station_id, day), lambda: _forecast_rows(session, farm_id, station_id, day))


def _forecast_rows(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, day: dt.date) -> list[ForecastHour]:
    end = dt.datetime.combine(day, dt.time(0), dt.UTC) + dt.timedelta(days=1)
    where = (ForecastHour.farm_id == farm_id, ForecastHour.station_id == station_id)
    newest = select(func.max(ForecastHour.issued_at)).where(*where, ForecastHour.issued_at < end).scalar_subquery()
    return list(session.scalars(select(ForecastHour).where(*where, ForecastHour.issued_at == newest).order_by(ForecastHour.valid_at)))


def foretold_days(session: Session, station: Station, day: dt.date) -> dict[dt.date, Extremes]:
    """Extremes of the days that a forecast covers by at least 20 hours, and of today from what was measured and is foretold."""
    return _once(session, ("foretold", station.id, day), lambda: _foretold_days(session, station, day))


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


def series(session: Session, station: Station, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather], tuple[Any, ...]]:
    """A station's weather from a day on, forecast days with it; its past years; and a key that changes with either."""
    return _once(session, ("series", station.id, day, start), lambda: _series(session, station, day, start))


def _series(session: Session, station: Station, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather], tuple[Any, ...]]:
    kept = record(session, station.farm_id, station.id)
    measured = {one: kept.days[one] for one in kept.days if start <= one < day}
    foretold = foretold_days(session, station, day)
    past = kept.years(start)
    by_day = [by_month_day(year) for year in past]
    told = fill({**measured, **foretold}, by_day)
    kinds = tuple("forecast" if kind == "measured" and one >= day else kind for one, kind in zip(told.dates, told.kind, strict=True))
    return Weather(told.dates, told.tmin, told.tmax, kinds), past, (*kept.key, day, start, tuple(sorted(foretold.items())))


def by_month_day(year: Weather) -> dict[tuple[int, int], Extremes]:
    """A year's extremes by month and day."""
    rows = zip(year.dates, np.asarray(year.tmin), np.asarray(year.tmax), strict=True)
    return {(day.month, day.day): (float(low), float(high)) for day, low, high in rows}


def station_of(session: Session, farm: Farm, block: Block) -> Station | None:
    """The block's own station, or the farm's first."""
    if block.station_id:
        return session.get(Station, (farm.id, block.station_id))
    return session.scalars(select(Station).where(Station.farm_id == farm.id).order_by(Station.name)).first()


def hints(session: Session, farm: Farm, block: Block, day: dt.date) -> dict[str, int]:
    """Spells that the days before this one stand in."""
    station = station_of(session, farm, block)
    if station is None:
        return {}
    kept = record(session, farm.id, station.id)
    dates = [day - dt.timedelta(days=n) for n in range(SPELL_DAYS, 0, -1)]
    return spells([(kept.days[one][1], kept.rain[one]) for one in dates if one in kept.days])


def days_ahead(session: Session, farm: Farm, block: Block, start: dt.date, count: int = 40) -> list[Extremes]:
    """Extremes from a day on: the forecast, then the mean of past years on those days."""
    station = station_of(session, farm, block)
    if station is None:
        return [(12.0, 24.0)] * count
    kept = record(session, farm.id, station.id)
    foretold = foretold_days(session, station, start)
    rows: list[Extremes] = []
    for n in range(count):
        day = start + dt.timedelta(days=n)
        same = [kept.days[one] for one in (_same_day(day, back) for back in range(1, 6)) if one in kept.days]
        mean = tuple(np.mean(same, axis=0)) if same else (rows[-1] if rows else (12.0, 24.0))
        low, high = foretold.get(day) or kept.days.get(day) or mean
        rows.append((float(low), float(high)))
    return rows


def _same_day(day: dt.date, years_back: int) -> dt.date:
    try:
        return day.replace(year=day.year - years_back)
    except ValueError:
        return day.replace(year=day.year - years_back, day=28)


def hourly(session: Session, farm: Farm, station: Station, now: dt.datetime, hours: int = 96) -> Hourly:
    """The hours ahead, from the newest forecast."""
    first = now.replace(minute=0, second=0, microsecond=0)
    rows = [row for row in forecast_rows(session, farm.id, station.id, now.astimezone(dt.UTC).date()) if row.valid_at >= first][:hours]
    return Hourly(
        tuple(row.valid_at for row in rows),
        [row.temp for row in rows],
        [row.rh for row in rows],
        [row.wind for row in rows],
        [row.rain for row in rows],
        station.latitude,
        station.longitude,
    )


def at(session: Session, farm: Farm, block: Block, when: dt.datetime) -> dict[str, Any] | None:
    """The weather in the hour of an act: measured where it is there, else foretold, else nothing."""
    station = station_of(session, farm, block)
    if station is None:
        return None
    hour = when.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)
    measured = session.scalars(
        select(WeatherHour)
        .where(WeatherHour.farm_id == farm.id, WeatherHour.station_id == station.id, WeatherHour.utc_hour == hour)
        .order_by(WeatherHour.received_at.desc())
    ).first()
    row: Any = measured or next((one for one in forecast_rows(session, farm.id, station.id, hour.date()) if one.valid_at == hour), None)
    if row is None:
        return None
    return {
        "temp": row.temp,
        "rh": row.rh,
        "wind": row.wind,
        "rain": row.rain,
        "from": "measured" if measured else "forecast",
        "station": station.name,
        "hour": hour.isoformat(),
    }


def store_days(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    """Add raw days; a row that is there already stays as it is. Returns how many were new."""
    return _add(session, WeatherDay, farm_id, station_id, rows)


def _add(session: Session, model: type[Any], farm_id: uuid.UUID, station_id: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    new = 0
    session.info.pop("weather", None)
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


def derive_fills(session: Session, station: Station) -> int:
    """Write down which days of a station are filled and with what, beside the raw days; returns how many."""
    kept = record(session, station.farm_id, station.id)
    if not kept.days:
        return 0
    newest = max(kept.days)
    by_day = [by_month_day(year) for year in kept.years(newest + dt.timedelta(days=366))]
    rows = []
    # Year by year: a file of long ago does not call for the years between to be made up.
    for year in sorted({day.year for day in kept.days}):
        told = fill({day: kept.days[day] for day in kept.days if day.year == year}, by_day)
        for day, low, high, kind in zip(told.dates, np.asarray(told.tmin), np.asarray(told.tmax), told.kind, strict=True):
            if kind == "filled":
                key = {"farm_id": station.farm_id, "station_id": station.id, "local_date": day}
                rows.append({**key, "tmin": float(low), "tmax": float(high), "filled": kind, "flags": []})
    for start in range(0, len(rows), 1000):
        session.execute(insert(WeatherDerived).values(rows[start : start + 1000]).on_conflict_do_nothing())
    return len(rows)
