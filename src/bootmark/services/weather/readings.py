"""The one door for readings: pulled, pushed and uploaded ones are stored, made into days, and their gaps filled, all the same way."""

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from bootmark.services.weather import derived
from bootmark.services.weather.stations import offset
from bootmark.store.models import ForecastHour, Station, WeatherDay, WeatherHour
from bootmark.store.rows import of_farm

PULLED, PUSHED = "station", "pushed"
CHUNK = 2000
HOURS_OF_A_DAY = 24


@dataclass(frozen=True)
class HourReading:
    """One hour. utc_hour: its beginning; temp: degrees C; rh: percent; wind: m/s; rain: mm; received_at: farm time."""

    utc_hour: dt.datetime
    received_at: dt.datetime
    temp: float
    rh: float
    wind: float
    rain: float


@dataclass(frozen=True)
class DayReading:
    """One day of a station, on its own fixed offset. tmin, tmax: degrees C; rain: mm, None where not measured."""

    local_date: dt.date
    received_at: dt.datetime
    tmin: float
    tmax: float
    rain: float | None


@dataclass(frozen=True)
class Taken:
    """How much of it was new, and how many days are filled since."""

    hours: int = 0
    days: int = 0
    filled: int = 0


def take(session: Session, station: Station, hours: Sequence[HourReading], source: str) -> Taken:
    """Store hours, and the days that are whole with them. An hour that says what is stored already is left out."""
    fresh = _unknown(session, station, list({hour.utc_hour: hour for hour in hours}.values()))
    new = store_hours(session, station, fresh, source)
    zone = offset(station)
    days = _whole_days(session, station, {hour.utc_hour.astimezone(zone).date() for hour in fresh})
    taken = take_days(session, station, days, source)
    return Taken(new, taken.days, taken.filled)


def store_hours(session: Session, station: Station, hours: Sequence[HourReading], source: str) -> int:
    """Store hours as they are, where their days are stored already. Returns how many were new."""
    return _add(session, WeatherHour, station, [asdict(hour) | {"source": source} for hour in hours])


def take_days(session: Session, station: Station, days: Sequence[DayReading], source: str) -> Taken:
    """Store days; a row that is there already stays as it is. What is missing is filled, and what looks wrong flagged, anew."""
    new = _add(session, WeatherDay, station, [asdict(day) | {"source": source} for day in days])
    return Taken(0, new, derived.derive(session, station) if new else 0)


def take_forecast(session: Session, station: Station, issued_at: dt.datetime, hours: Iterable[HourReading]) -> int:
    """Store a forecast. Returns how many of its hours were new."""
    rows = []
    for hour in hours:
        row = asdict(hour) | {"issued_at": issued_at, "valid_at": hour.utc_hour}
        rows.append({name: value for name, value in row.items() if name not in ("utc_hour", "received_at")})
    return _add(session, ForecastHour, station, rows)


def _add(session: Session, model: type[Any], station: Station, rows: list[dict[str, Any]]) -> int:
    new = 0
    for start in range(0, len(rows), CHUNK):
        chunk = [{"farm_id": station.farm_id, "station_id": station.id, **row} for row in rows[start : start + CHUNK]]
        done = session.execute(insert(model).values(chunk).on_conflict_do_nothing().returning(model.station_id))
        new += len(done.all())
    return new


def _unknown(session: Session, station: Station, hours: Sequence[HourReading]) -> list[HourReading]:
    """Hours that say something that is not stored yet."""
    columns = (WeatherHour.utc_hour, WeatherHour.temp, WeatherHour.rh, WeatherHour.wind, WeatherHour.rain)
    moments = [hour.utc_hour for hour in hours]
    rows = of_farm(WeatherHour, *columns).where(WeatherHour.station_id == station.id, WeatherHour.utc_hour.in_(moments))
    stored = {tuple(row) for row in session.execute(rows)} if moments else set()
    return [hour for hour in hours if (hour.utc_hour, hour.temp, hour.rh, hour.wind, hour.rain) not in stored]


def _whole_days(session: Session, station: Station, dates: set[dt.date]) -> list[DayReading]:
    """The days of a station that have all their hours, the newest reading of each hour counted."""
    zone, days = offset(station), []
    for date in sorted(dates):
        start = dt.datetime.combine(date, dt.time(0), zone)
        rows = of_farm(WeatherHour).where(
            WeatherHour.station_id == station.id, WeatherHour.utc_hour >= start, WeatherHour.utc_hour < start + dt.timedelta(days=1)
        )
        hours = {row.utc_hour: row for row in session.scalars(rows.order_by(WeatherHour.received_at))}
        if len(hours) == HOURS_OF_A_DAY:
            temps = [hour.temp for hour in hours.values()]
            received = max(hour.received_at for hour in hours.values())
            days.append(DayReading(date, received, min(temps), max(temps), sum(hour.rain for hour in hours.values())))
    return days
