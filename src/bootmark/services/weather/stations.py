"""Weather of a station: its days as they count, and what is foretold there."""

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

from sqlalchemy import func, or_
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Session

from bootmark.core.season import blend
from bootmark.core.season.blend import Place
from bootmark.core.season.daily import DailySeries
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import StationKind, WeatherVerdict
from bootmark.store.models import ForecastHour, Judgement, Station, WeatherDay, WeatherHour
from bootmark.store.rows import of_farm

LEAST_HOURS_AHEAD = 20
"""Hours of a day that a forecast has to cover before its extremes count. Judgement, no source."""
Span = tuple[dt.date, dt.date]


class Foretold(NamedTuple):
    """One hour of a forecast. temp: degrees C; rh: percent; wind: m/s; rain: mm."""

    valid_at: dt.datetime
    temp: float
    rh: float
    wind: float
    rain: float


@dataclass(frozen=True)
class Record(DailySeries):
    """All days of one station as they count. key: changes with any new reading or judgement, and with nothing else."""

    key: tuple[Any, ...] = ()


_records: memo.Kept[Record] = memo.Kept(32)
_parts: memo.Kept[DailySeries] = memo.Kept(256)
_keys: memo.Kept[dict[uuid.UUID, tuple[Any, ...]]] = memo.Kept(64)
_ahead: memo.Kept[list[Foretold]] = memo.Kept(64)
_days_ahead: memo.Kept[DailySeries] = memo.Kept(64)


def offset(station: Station) -> dt.timezone:
    """The fixed zone on which a station's days run."""
    return dt.timezone(dt.timedelta(minutes=station.offset_minutes))


def place(station: Station) -> Place:
    return Place(station.latitude, station.longitude, station.elevation)


def keys(session: Session) -> dict[uuid.UUID, tuple[Any, ...]]:
    """What each station's days are at: the same wherever and whenever it is asked, while no reading or judgement comes."""
    return stamp.while_standing(session, _keys, (Topic.WEATHER,), "keys", lambda: _read_keys(session))


def _read_keys(session: Session) -> dict[uuid.UUID, tuple[Any, ...]]:
    counted = of_farm(WeatherDay, WeatherDay.station_id, func.count(), func.max(WeatherDay.received_at)).group_by(WeatherDay.station_id)
    judged: dict[uuid.UUID, list[Any]] = {}
    for station, version, day in session.execute(
        of_farm(Judgement, Judgement.station_id, Judgement.version_id, Judgement.local_date).order_by(Judgement.local_date)
    ):
        judged.setdefault(station, []).append((version, day))
    farm = session.info["farm"]
    return {station: (farm, station, count, newest, tuple(judged.get(station, ()))) for station, count, newest in session.execute(counted)}


def record(session: Session, station: Station) -> Record:
    """A station's days; read once and kept until a new reading comes."""

    def read() -> Record:
        series = _judged(session, station, raw(session, station))
        return Record(series.days, series.rain, keys(session).get(station.id, (station.farm_id, station.id)))

    return stamp.while_standing(session, _records, (Topic.WEATHER,), station.id, read)


def part(session: Session, station: Station, spans: Sequence[Span]) -> DailySeries:
    """Some stretches of a station's days, from one on and up to but without another; read alone where they are few."""
    key = (station.farm_id, stamp.of(session, Topic.WEATHER), station.id)
    whole = _records.get(key)
    if whole is not None:
        return whole
    return stamp.while_standing(
        session, _parts, (Topic.WEATHER,), (station.id, tuple(spans)), lambda: _judged(session, station, raw(session, station, spans))
    )


def raw(session: Session, station: Station, spans: Sequence[Span] = ()) -> DailySeries:
    """A station's newest reading of each day as it was received, whatever people said of it since."""
    columns = (WeatherDay.local_date, WeatherDay.tmin, WeatherDay.tmax, WeatherDay.rain)
    rows = of_farm(WeatherDay, *columns).where(WeatherDay.station_id == station.id)
    if spans:
        rows = rows.where(or_(*((WeatherDay.local_date >= first) & (WeatherDay.local_date < end) for first, end in spans)))
    newest = rows.ext(distinct_on(WeatherDay.local_date)).order_by(WeatherDay.local_date, WeatherDay.received_at.desc())
    kept = session.execute(newest).all()
    return DailySeries({day: (low, high) for day, low, high, _ in kept}, {day: rain for day, _, _, rain in kept})


def _judged(session: Session, station: Station, series: DailySeries) -> DailySeries:
    """What a person left out counts as missing, and is filled and marked like any gap; the raw reading stays where it is."""
    days, rain = dict(series.days), dict(series.rain)
    for judgement in judgements(session, station.id):
        if judgement.verdict == WeatherVerdict.LEFT_OUT:
            days.pop(judgement.local_date, None)
            rain.pop(judgement.local_date, None)
        elif (
            judgement.verdict == WeatherVerdict.MENDED
            and judgement.local_date in days
            and judgement.tmin is not None
            and judgement.tmax is not None
        ):
            days[judgement.local_date] = (judgement.tmin, judgement.tmax)
    return DailySeries(days, rain)


def judgements(session: Session, station_id: uuid.UUID) -> list[Judgement]:
    """What people said of a station's flagged days."""
    rows = of_farm(Judgement).where(Judgement.station_id == station_id).order_by(Judgement.local_date)
    return memo.once(session, ("judgements", station_id), lambda: list(session.scalars(rows)))


def forecast_rows(session: Session, station: Station, day: dt.date) -> list[Foretold]:
    """The newest forecast that was out by the end of a day."""
    return stamp.while_standing(session, _ahead, (Topic.WEATHER,), (station.id, day), lambda: _forecast_rows(session, station, day))


def _forecast_rows(session: Session, station: Station, day: dt.date) -> list[Foretold]:
    end = dt.datetime.combine(day, dt.time(0), dt.UTC) + dt.timedelta(days=1)
    newest = of_farm(ForecastHour, func.max(ForecastHour.issued_at)).where(
        ForecastHour.station_id == station.id, ForecastHour.issued_at < end
    )
    columns = (ForecastHour.valid_at, ForecastHour.temp, ForecastHour.rh, ForecastHour.wind, ForecastHour.rain)
    rows = of_farm(ForecastHour, *columns).where(ForecastHour.station_id == station.id, ForecastHour.issued_at == newest.scalar_subquery())
    return [Foretold(*row) for row in session.execute(rows.order_by(ForecastHour.valid_at))]


def foretold_days(session: Session, station: Station, day: dt.date) -> DailySeries:
    """Extremes of the days that a forecast covers well, and of today from what was measured and is foretold."""
    return stamp.while_standing(session, _days_ahead, (Topic.WEATHER,), (station.id, day), lambda: _foretold_days(session, station, day))


def _foretold_days(session: Session, station: Station, day: dt.date) -> DailySeries:
    zone = offset(station)
    start = dt.datetime.combine(day, dt.time(0), zone)
    measured = of_farm(WeatherHour, WeatherHour.utc_hour, WeatherHour.temp).where(
        WeatherHour.station_id == station.id, WeatherHour.utc_hour >= start
    )
    hours: dict[dt.datetime, float] = {row.valid_at: row.temp for row in forecast_rows(session, station, day)}
    hours |= dict(session.execute(measured).all())
    by_day: dict[dt.date, list[float]] = {}
    for hour, temp in hours.items():
        by_day.setdefault(hour.astimezone(zone).date(), []).append(temp)
    return DailySeries(
        {date: (min(temps), max(temps)) for date, temps in by_day.items() if len(temps) >= LEAST_HOURS_AHEAD and date >= day}
    )


def neighbour(session: Session, station: Station) -> DailySeries | None:
    """The days of the nearest other outdoor station, from which a long gap is filled; None where there is none."""
    others = [other for other in ground.stations(session) if other.kind == StationKind.OUTDOOR and other.id != station.id]
    nearest = min(others, key=lambda other: blend.distance(place(other), place(station)), default=None)
    return record(session, nearest) if nearest else None
