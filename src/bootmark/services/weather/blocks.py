"""Weather of a block: its own station's, or all outdoor stations' by distance and height."""

import datetime as dt
import hashlib
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.meanings import COVERED, DayKind
from bootmark.core.season import blend
from bootmark.core.season.ahead import Weather
from bootmark.core.season.blend import Place
from bootmark.core.season.daily import DailySeries, same_day
from bootmark.core.season.gaps import Extremes
from bootmark.core.season.spells import spells
from bootmark.core.season.windows import Hourly
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import StationKind
from bootmark.services.weather import stations
from bootmark.services.weather.stations import Foretold, Record, Span
from bootmark.store.models import Block, Farm, Station, WeatherHour
from bootmark.store.rows import of_farm

SPELL_DAYS = 30
YEARS_BACK = 5
WITHOUT_STATION: Extremes = (12.0, 24.0)
"""What a day ahead is taken to be where no station tells. Judgement, no source."""
READ = (Topic.WEATHER, Topic.PLACES)
_hints: memo.Kept[Mapping[str, int]] = memo.Kept(2000)
_ahead: memo.Kept[list[Extremes]] = memo.Kept(500)
_keys: memo.Kept[str] = memo.Kept(2000)
_blended: memo.Kept[Record] = memo.Kept(64)
_hours: memo.Kept[Hourly] = memo.Kept(64)
_storm_days: memo.Kept[tuple[dt.date, ...]] = memo.Kept(64)
_at: memo.Kept[dict[str, Any]] = memo.Kept(256)


def place_of(farm: Farm, block: Block, near: Sequence[Station]) -> Place:
    """Where a block lies: the middle of its corners; at the stations' mean height where none is told."""
    longitude, latitude = ground.lies_at(farm, block)
    height = block.elevation if block.elevation is not None else float(np.mean([station.elevation for station in near])) if near else 0.0
    return Place(latitude, longitude, height)


def sources(session: Session, farm: Farm, block: Block) -> list[Station]:
    """The stations that a block's weather comes from, the one that counts most first; none where the farm has none.

    One, unless the block is set to take them all by distance; a logger under cover stands for its own block only.
    """
    every = ground.stations(session)
    outdoor = [station for station in every if station.kind == StationKind.OUTDOOR]
    if block.weather == "nearby" and outdoor:
        here = place_of(farm, block, outdoor)
        return sorted(outdoor, key=lambda station: blend.distance(stations.place(station), here))
    own = next((station for station in every if station.id == block.station_id), None)
    return [own] if own else outdoor[:1] or every[:1]


def station_of(session: Session, farm: Farm, block: Block) -> Station | None:
    """The one station that stands for a block where a single one is asked: for hours, wind and rain."""
    return next(iter(sources(session, farm, block)), None)


def tells_heat(session: Session, farm: Farm, block: Block) -> bool:
    """Whether there is weather that tells how warm it is where the plants stand: under cover only a logger inside does."""
    near = sources(session, farm, block)
    return bool(near) and (block.place not in COVERED or near[0].kind == StationKind.COVER)


def _where(block: Block) -> tuple[Any, ...]:
    """Blocks with the same weather have the same."""
    return ("nearby", block.id) if block.weather == "nearby" else ("own", block.station_id)


def record_of(session: Session, farm: Farm, block: Block) -> Record | None:
    """A block's days as they count."""
    near = sources(session, farm, block)
    if len(near) < 2:
        return stations.record(session, near[0]) if near else None

    def blended() -> Record:
        records = [stations.record(session, station) for station in near]
        here = place_of(farm, block, near)
        series = DailySeries.blended([stations.place(station) for station in near], records, here)
        return Record(series.days, series.rain, ("nearby", tuple(each.key for each in records), here))

    return stamp.while_standing(session, _blended, READ, block.id, blended)


def _part_of(session: Session, farm: Farm, block: Block, spans: Sequence[Span]) -> DailySeries | None:
    """Some stretches of a block's days, without reading all of them."""
    near = sources(session, farm, block)
    if not near:
        return None
    series = [stations.part(session, station, spans) for station in near]
    return (
        series[0]
        if len(near) == 1
        else DailySeries.blended([stations.place(near_by) for near_by in near], series, place_of(farm, block, near))
    )


def foretold_of(session: Session, farm: Farm, block: Block, day: dt.date) -> DailySeries:
    """Foretold extremes of a block's days."""
    near = sources(session, farm, block)
    series = [stations.foretold_days(session, station, day) for station in near]
    if len(near) < 2:
        return series[0] if series else DailySeries()
    return DailySeries.blended([stations.place(station) for station in near], series, place_of(farm, block, near))


def series(session: Session, farm: Farm, block: Block, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather]]:
    """A block's weather from a day on, forecast days with it, and its past years."""
    return memo.once(session, ("series", _where(block), day, start), lambda: _series(session, farm, block, day, start))


def _series(session: Session, farm: Farm, block: Block, day: dt.date, start: dt.date) -> tuple[Weather, list[Weather]]:
    record = record_of(session, farm, block)
    if record is None:
        return Weather((), (), ()), []
    near = sources(session, farm, block)
    past = record.years(start)
    # The days of a long gap of the one station come from its neighbour; where several stations tell already, from none.
    beside = stations.neighbour(session, near[0]) if len(near) == 1 else None
    whole = record.between(start, day).then(foretold_of(session, farm, block, day)).filled(past, beside)
    kinds = tuple(
        DayKind.FORECAST if kind == DayKind.MEASURED and date >= day else kind for kind, date in zip(whole.kind, whole.dates, strict=True)
    )
    return Weather(whole.dates, whole.tmin, whole.tmax, kinds), past


def key(session: Session, farm: Farm, block: Block, day: dt.date) -> str | None:
    """Changes with any reading or forecast that a block's weather rests on; None without a station."""
    near = sources(session, farm, block)
    if not near:
        return None
    return stamp.while_standing(session, _keys, READ, (_where(block), day), lambda: _key(session, farm, block, near, day))


def _key(session: Session, farm: Farm, block: Block, near: Sequence[Station], day: dt.date) -> str:
    # A long gap is filled from any other outdoor station, so that its readings count too.
    others = [station for station in ground.stations(session) if station.kind == StationKind.OUTDOOR]
    at = stations.keys(session)
    rests_on = (
        place_of(farm, block, near) if len(near) > 1 else None,
        [at.get(station_id, (station_id,)) for station_id in dict.fromkeys(station.id for station in (*near, *others))],
        [sorted(stations.foretold_days(session, station, day).days.items()) for station in near],
    )
    return hashlib.sha256(repr(rests_on).encode()).hexdigest()


def hints(session: Session, farm: Farm, block: Block, day: dt.date) -> Mapping[str, int]:
    """Spells that the days before this one stand in."""

    def spells_of() -> Mapping[str, int]:
        recent = _part_of(session, farm, block, [(day - dt.timedelta(days=SPELL_DAYS), day)])
        return spells(recent.spell(day, SPELL_DAYS)) if recent else {}

    return stamp.while_standing(session, _hints, READ, (_where(block), day), spells_of)


def days_ahead(session: Session, farm: Farm, block: Block, start: dt.date, count: int = 40) -> list[Extremes]:
    """Extremes from a day on: the forecast, then the mean of past years on those days."""
    made = lambda: _days_ahead(session, farm, block, start, count)  # noqa: E731 - named for what it hands over
    return stamp.while_standing(session, _ahead, READ, (_where(block), start, count), made)


def _days_ahead(session: Session, farm: Farm, block: Block, start: dt.date, count: int) -> list[Extremes]:
    end = start + dt.timedelta(days=count)
    years = range(YEARS_BACK + 1)
    spans = [(same_day(start, start.year - back), same_day(start, start.year - back) + (end - start)) for back in years]
    series = _part_of(session, farm, block, spans)
    if series is None:
        return [WITHOUT_STATION] * count
    foretold = foretold_of(session, farm, block, start).days
    rows: list[Extremes] = []
    for n in range(count):
        day = start + dt.timedelta(days=n)
        same = [series.days[past] for past in (same_day(day, day.year - back) for back in years[1:]) if past in series.days]
        mean = tuple(np.mean(same, axis=0)) if same else (rows[-1] if rows else WITHOUT_STATION)
        low, high = foretold.get(day) or series.days.get(day) or mean
        rows.append((float(low), float(high)))
    return rows


def hourly(session: Session, station: Station, now: dt.datetime, hours: int = 96) -> Hourly:
    """The hours ahead, from the newest forecast."""
    first = now.replace(minute=0, second=0, microsecond=0)
    return stamp.while_standing(session, _hours, READ, (station.id, first, hours), lambda: _hourly(session, station, first, hours))


def _hourly(session: Session, station: Station, first: dt.datetime, hours: int) -> Hourly:
    rows = [row for row in stations.forecast_rows(session, station, first.astimezone(dt.UTC).date()) if row.valid_at >= first][:hours]
    return Hourly(
        tuple(row.valid_at for row in rows),
        [row.temp for row in rows],
        [row.rh for row in rows],
        [row.wind for row in rows],
        [row.rain for row in rows],
        station.latitude,
        station.longitude,
        station.wind_height,
    )


def storm_ahead(session: Session, farm: Farm, block: Block, day: dt.date) -> dt.date | None:
    """The first day ahead for which the newest forecast has a storm; None where it has none, or there is none."""
    station = station_of(session, farm, block)
    if station is None:
        return None

    def read() -> tuple[dt.date, ...]:
        by_day: dict[dt.date, list[Foretold]] = {}
        for row in stations.forecast_rows(session, station, day):
            by_day.setdefault(row.valid_at.astimezone(zone(farm)).date(), []).append(row)
        ahead = [on for on in sorted(by_day) if day <= on <= day + dt.timedelta(days=judgement.STORM_DAYS)]
        return tuple(on for on in ahead if _storms(by_day[on]))

    stormy = stamp.while_standing(session, _storm_days, READ, (station.id, day), read)
    return min(stormy, default=None)


def _storms(hours: Sequence[Foretold]) -> bool:
    return sum(row.rain or 0.0 for row in hours) >= judgement.STORM_MM or max(row.wind or 0.0 for row in hours) >= judgement.STORM_WIND


def at(session: Session, farm: Farm, block: Block, when: dt.datetime) -> dict[str, Any] | None:
    """The weather in the hour of an act: measured where it is there, else foretold, else nothing."""
    station = station_of(session, farm, block)
    if station is None:
        return None
    hour = when.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)
    measured = stamp.while_standing(session, _at, READ, (station.id, hour), lambda: _in_hour(session, station, hour))
    return measured or None


def _in_hour(session: Session, station: Station, hour: dt.datetime) -> dict[str, Any]:
    """The weather of one hour; empty where nothing is known of it."""
    read = of_farm(WeatherHour).where(WeatherHour.station_id == station.id, WeatherHour.utc_hour == hour)
    measured = session.scalars(read.order_by(WeatherHour.received_at.desc())).first()
    foretold = stations.forecast_rows(session, station, hour.date())
    row: Any = measured or next((row for row in foretold if row.valid_at == hour), None)
    if row is None:
        return {}
    return {
        "temp": row.temp,
        "rh": row.rh,
        "wind": row.wind,
        "rain": row.rain,
        "from": DayKind.MEASURED if measured else DayKind.FORECAST,
        "station": station.name,
        "hour": hour.isoformat(),
    }
