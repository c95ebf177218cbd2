"""Weather of a block: its own station's, or all outdoor stations' by distance and height."""

import datetime as dt
import hashlib
import uuid
from collections.abc import Sequence
from typing import Any

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.season import blend
from bootmark.core.season.ahead import Weather
from bootmark.core.season.blend import Place
from bootmark.core.season.gaps import fill
from bootmark.core.season.spells import spells
from bootmark.core.season.windows import Hourly
from bootmark.services import memo
from bootmark.services.weather import Extremes, Record, by_month_day, forecast_rows, foretold_days, neighbour_days, place, record
from bootmark.store.models import Block, Farm, Station, WeatherHour

SPELL_DAYS = 30
METRES_A_DEGREE = 111_195.0
WITHOUT_STATION: Extremes = (12.0, 24.0)
"""What a day ahead is taken to be where no station tells. Judgement, no source."""


def stations(session: Session, farm: Farm) -> list[Station]:
    return memo.once(
        session,
        ("stations", farm.id),
        lambda: list(session.scalars(select(Station).where(Station.farm_id == farm.id).order_by(Station.name))),
    )


def place_of(farm: Farm, block: Block, near: Sequence[Station]) -> Place:
    """Where a block lies: its middle on the plan, counted from the farm's own place; at the stations' mean height where none is told."""
    x = float(np.mean([corner[0] for corner in block.outline]))
    y = float(np.mean([corner[1] for corner in block.outline]))
    latitude = farm.latitude - y / METRES_A_DEGREE
    longitude = farm.longitude + x / (METRES_A_DEGREE * float(np.cos(np.radians(farm.latitude))))
    height = block.elevation if block.elevation is not None else float(np.mean([one.elevation for one in near])) if near else 0.0
    return Place(latitude, longitude, height)


def sources(session: Session, farm: Farm, block: Block) -> list[Station]:
    """The stations that a block's weather comes from, the one that counts most first; none where the farm has none.

    One, unless the block is set to take them all by distance; a logger under cover stands for its own block only.
    """
    if block.weather == "nearby":
        return memo.once(session, ("nearby", block.id), lambda: _nearby(session, farm, block))
    station = block.station_id
    return memo.once(session, ("own", station), lambda: _own(session, farm, station))


def _nearby(session: Session, farm: Farm, block: Block) -> list[Station]:
    outdoor = [one for one in stations(session, farm) if one.kind == "outdoor"]
    if not outdoor:
        return _own(session, farm, block.station_id)
    here = place_of(farm, block, outdoor)
    return sorted(outdoor, key=lambda one: blend.distance(place(one), here))


def _own(session: Session, farm: Farm, station: uuid.UUID | None) -> list[Station]:
    known = stations(session, farm)
    own = next((one for one in known if one.id == station), None)
    return [own] if own else [one for one in known if one.kind == "outdoor"][:1] or known[:1]


def station_of(session: Session, farm: Farm, block: Block) -> Station | None:
    """The one station that stands for a block where a single one is asked: for hours, wind and rain."""
    return next(iter(sources(session, farm, block)), None)


def record_of(session: Session, farm: Farm, block: Block) -> Record | None:
    """A block's days as they count."""
    found = sources(session, farm, block)
    if len(found) < 2:
        return record(session, farm.id, found[0].id) if found else None
    return memo.once(session, ("blended", block.id), lambda: _blended(session, farm, block, found))


def _blended(session: Session, farm: Farm, block: Block, found: Sequence[Station]) -> Record:
    kept = [record(session, farm.id, one.id) for one in found]
    here = place_of(farm, block, found)
    days = sorted(set().union(*(one.days for one in kept)))
    nothing = (np.nan, np.nan)
    values = np.array([[one.days.get(day, nothing) for day in days] for one in kept], dtype=float)
    mixed = blend.blend([place(one) for one in found], values, here)
    # Rain is taken from the nearest station that measured it: the mean of two showers is no shower.
    rain = {day: next((one.rain[day] for one in kept if one.rain.get(day) is not None), None) for day in days}
    key = ("nearby", tuple(one.key for one in kept), here)
    return Record(key, {day: (float(low), float(high)) for day, (low, high) in zip(days, mixed, strict=True)}, rain)


def foretold_of(session: Session, farm: Farm, block: Block, day: dt.date) -> dict[dt.date, Extremes]:
    """Foretold extremes of a block's days."""
    found = sources(session, farm, block)
    told = [foretold_days(session, one, day) for one in found]
    if len(found) < 2:
        return told[0] if told else {}
    days = sorted(set().union(*told))
    values = np.array([[one.get(ahead, (np.nan, np.nan)) for ahead in days] for one in told], dtype=float).reshape(len(found), len(days), 2)
    mixed = blend.blend([place(one) for one in found], values, place_of(farm, block, found))
    return {ahead: (float(low), float(high)) for ahead, (low, high) in zip(days, mixed, strict=True)}


def series(session: Session, farm: Farm, block: Block, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather], tuple[Any, ...]]:
    """A block's weather from a day on, forecast days with it; its past years; and a key that changes with either."""
    where = ("nearby", block.id) if block.weather == "nearby" else ("station", *(one.id for one in sources(session, farm, block)))
    return memo.once(session, ("series", where, day, start), lambda: _series(session, farm, block, day, start))


def _series(session: Session, farm: Farm, block: Block, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather], tuple[Any, ...]]:
    kept = record_of(session, farm, block)
    if kept is None:
        return Weather((), (), ()), [], ()
    measured = {one: kept.days[one] for one in kept.days if start <= one < day}
    foretold = foretold_of(session, farm, block, day)
    past = kept.years(start)
    by_day = [by_month_day(year) for year in past]
    told = fill({**measured, **foretold}, by_day, _neighbour(session, farm, block))
    kinds = tuple("forecast" if kind == "measured" and one >= day else kind for one, kind in zip(told.dates, told.kind, strict=True))
    return Weather(told.dates, told.tmin, told.tmax, kinds), past, (*kept.key, day, start, tuple(sorted(foretold.items())))


def key(session: Session, farm: Farm, block: Block, day: dt.date) -> str | None:
    """Changes with any reading or forecast that a block's weather rests on; None without a station."""
    where = ("nearby", block.id) if block.weather == "nearby" else ("own", block.station_id)
    return memo.once(session, ("key", where, day), lambda: _key(session, farm, block, day))


def _key(session: Session, farm: Farm, block: Block, day: dt.date) -> str | None:
    found = sources(session, farm, block)
    if not found:
        return None
    # A long gap is filled from any other outdoor station, so that its readings count too.
    others = [one for one in stations(session, farm) if one.kind == "outdoor"]
    rests_on = (
        place_of(farm, block, found) if len(found) > 1 else None,
        [record(session, farm.id, one.id).key for one in dict.fromkeys((*found, *others))],
        [sorted(foretold_days(session, one, day).items()) for one in found],
    )
    return hashlib.sha256(repr(rests_on).encode()).hexdigest()


def warmed(told: Weather, past: Sequence[Weather], degrees: float, today: dt.date) -> tuple[Weather, list[Weather]]:
    """The same weather with every day from today on warmer by so many degrees C, and so the past years that stand for days ahead.

    Past years are warmed whole: what they tell is the days still to come.
    """
    step = np.array([degrees if day >= today else 0.0 for day in told.dates])
    ahead = Weather(told.dates, np.asarray(told.tmin, dtype=float) + step, np.asarray(told.tmax, dtype=float) + step, told.kind)
    return ahead, [
        Weather(one.dates, np.asarray(one.tmin, dtype=float) + degrees, np.asarray(one.tmax, dtype=float) + degrees, one.kind)
        for one in past
    ]


def _neighbour(session: Session, farm: Farm, block: Block) -> dict[dt.date, Extremes] | None:
    """The days from which a long gap of a block's one station is filled; none where several stations tell already."""
    own = sources(session, farm, block)
    return neighbour_days(session, own[0]) if len(own) == 1 else None


def hints(session: Session, farm: Farm, block: Block, day: dt.date) -> dict[str, int]:
    """Spells that the days before this one stand in."""
    kept = record_of(session, farm, block)
    if kept is None:
        return {}
    dates = [day - dt.timedelta(days=n) for n in range(SPELL_DAYS, 0, -1)]
    return spells([(kept.days[one][1], kept.rain[one]) for one in dates if one in kept.days])


def days_ahead(session: Session, farm: Farm, block: Block, start: dt.date, count: int = 40) -> list[Extremes]:
    """Extremes from a day on: the forecast, then the mean of past years on those days."""
    kept = record_of(session, farm, block)
    if kept is None:
        return [WITHOUT_STATION] * count
    foretold = foretold_of(session, farm, block, start)
    rows: list[Extremes] = []
    for n in range(count):
        day = start + dt.timedelta(days=n)
        same = [kept.days[one] for one in (same_day(day, day.year - back) for back in range(1, 6)) if one in kept.days]
        mean = tuple(np.mean(same, axis=0)) if same else (rows[-1] if rows else WITHOUT_STATION)
        low, high = foretold.get(day) or kept.days.get(day) or mean
        rows.append((float(low), float(high)))
    return rows


def same_day(day: dt.date, year: int) -> dt.date:
    """A day in another year; the 28th of February for the 29th."""
    return day.replace(year=year, day=28) if (day.month, day.day) == (2, 29) else day.replace(year=year)


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
