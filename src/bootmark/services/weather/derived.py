"""What Bootmark adds to a station's raw days: how holes are filled, and which readings look wrong."""

import datetime as dt
from typing import Any

import numpy as np
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from bootmark.core.meanings import DayKind
from bootmark.core.season import faults
from bootmark.core.season.faults import Flag
from bootmark.core.season.normals import normals
from bootmark.services.base.handling import as_json
from bootmark.services.weather import stations
from bootmark.store.models import Station, WeatherDerived, WeatherHour
from bootmark.store.rows import of_farm

HOURS_LOOKED_AT = 30
CHUNK = 1000
UNTOUCHED: dict[str, Any] = {"tmin": None, "tmax": None, "filled": "", "flags": []}


def derive(session: Session, station: Station) -> int:
    """Write down beside a station's raw days which are filled and how, and which look wrong; returns how many are filled."""
    record = stations.record(session, station)
    of_station = of_farm(WeatherDerived, WeatherDerived.local_date).where(WeatherDerived.station_id == station.id)
    rows: dict[dt.date, dict[str, Any]] = {day: dict(UNTOUCHED) for day in session.scalars(of_station)}
    filled = 0
    past = record.years(max(record.days) + dt.timedelta(days=366)) if record.days else []
    neighbour = stations.neighbour(session, station)
    # Year by year: a file of long ago does not call for the years between to be made up.
    for year in sorted({day.year for day in record.days}):
        whole = record.between(dt.date(year, 1, 1), dt.date(year + 1, 1, 1)).filled(past, neighbour)
        for day, low, high, kind in zip(whole.dates, np.asarray(whole.tmin), np.asarray(whole.tmax), whole.kind, strict=True):
            if kind != DayKind.MEASURED:
                rows.setdefault(day, dict(UNTOUCHED)).update(tmin=float(low), tmax=float(high), filled=kind)
                filled += 1
    for flag in flags(session, station):
        rows.setdefault(flag.date, dict(UNTOUCHED))["flags"] = [as_json(flag)]
    key = {"farm_id": station.farm_id, "station_id": station.id}
    values = [{**key, "local_date": day, **row} for day, row in rows.items()]
    for start in range(0, len(values), CHUNK):
        statement = insert(WeatherDerived).values(values[start : start + CHUNK])
        fresh = {name: statement.excluded[name] for name in UNTOUCHED}
        session.execute(statement.on_conflict_do_update(index_elements=["farm_id", "station_id", "local_date"], set_=fresh))
    return filled


def how_filled(session: Session, station: Station) -> dict[dt.date, str]:
    """How each filled day of a station was filled: a word of `gaps`."""
    rows = of_farm(WeatherDerived, WeatherDerived.local_date, WeatherDerived.filled)
    filled = rows.where(WeatherDerived.station_id == station.id, WeatherDerived.filled != "")
    return dict(session.execute(filled).all())


def flags(session: Session, station: Station) -> list[Flag]:
    """Readings of a station that look wrong: its raw days, and the hours of the last weeks."""
    raw = stations.raw(session, station).days
    if not raw:
        return []
    dates = sorted(raw)
    low, high = np.array([raw[day][0] for day in dates]), np.array([raw[day][1] for day in dates])
    try:
        usual = normals(dates, low, high)
    except ValueError:
        usual = None
    flagged = {flag.date: flag for flag in faults.of_days(dates, low, high, usual)}
    since = dt.datetime.combine(dates[-1] - dt.timedelta(days=HOURS_LOOKED_AT), dt.time(0), dt.UTC)
    hours = session.execute(
        of_farm(WeatherHour, WeatherHour.utc_hour, WeatherHour.temp)
        .where(WeatherHour.station_id == station.id, WeatherHour.utc_hour >= since)
        .order_by(WeatherHour.utc_hour)
    ).all()
    zone = stations.offset(station)
    for flag in faults.of_hours([hour.astimezone(zone) for hour, _ in hours], [temp for _, temp in hours], station.longitude):
        flagged.setdefault(flag.date, flag)
    return [flagged[day] for day in sorted(flagged)]
