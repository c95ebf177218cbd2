"""Reading stations over HTTP: each asked a few times, its answer checked, and left alone for a while where it fails."""

import datetime as dt
import json
import logging
from typing import Any

import urllib3
from sqlalchemy import func, or_
from sqlalchemy.orm import Session

from bootmark.services.base import farm_time
from bootmark.services.weather.readings import PULLED, HourReading, take, take_forecast
from bootmark.services.weather.stations import offset
from bootmark.store.models import Farm, Station, WeatherDay
from bootmark.store.rows import of_farm

TIMEOUT_SECONDS = 5.0
ATTEMPTS = 2
"""How often a station that does not answer is asked again; what it refuses itself it will refuse again."""
FIRST_DAYS = dt.timedelta(days=10)
MOST_HOURS = dt.timedelta(hours=24 * 40)
MOST_BACK_OFF = dt.timedelta(hours=6)
MOST_LETTERS = 200
SENT_AFTER = dt.timedelta(hours=1)
log = logging.getLogger("bootmark.worker")

_pool = urllib3.PoolManager(
    timeout=urllib3.Timeout(total=TIMEOUT_SECONDS),
    retries=urllib3.Retry(total=ATTEMPTS, backoff_factor=0.2, redirect=0, raise_on_redirect=True, status=0),
)


def ask(url: str, path: str, **words: str) -> dict[str, Any]:
    """A station's answer. Raises urllib3's HTTPError where it does not come, ValueError where it is not a JSON object."""
    if not url.startswith(("http://", "https://")):
        raise ValueError(f"{url} is not the address of a station")
    answer = _pool.request("GET", f"{url}/{path}", fields=words)
    if answer.status != 200:
        raise ValueError(f"the station answered {answer.status}")
    told = json.loads(answer.data)
    if not isinstance(told, dict):
        raise ValueError("the station's answer is not an object")
    return told


def backed_off(failures: int) -> dt.timedelta:
    """How long a station that failed so often in a row is left alone: 2, 4, 8 ... minutes, six hours at the most."""
    return min(dt.timedelta(minutes=2 ** min(failures, 12)), MOST_BACK_OFF)


def _hours(told: Any) -> list[HourReading]:
    hours = []
    for row in told:
        at = dt.datetime.fromisoformat(row["at"])
        values = {name: float(row[name]) for name in ("temp", "rh", "wind", "rain")}
        hours.append(HourReading(at, at + SENT_AFTER, **values))
    return hours


def pull_station(session: Session, station: Station, now: dt.datetime) -> int:
    """Read what a station has measured since it was last heard, and its newest forecast. Reading twice stores once."""
    newest = session.scalars(of_farm(WeatherDay, func.max(WeatherDay.local_date)).where(WeatherDay.station_id == station.id)).one()
    since = dt.datetime.combine(newest + dt.timedelta(days=1), dt.time(0), offset(station)) if newest else now - FIRST_DAYS
    since = max(since, now - MOST_HOURS)
    told = ask(station.url, "readings", station=station.name, since=since.isoformat(), until=now.isoformat())
    taken = take(session, station, _hours(told["hours"]), PULLED)
    foretold = ask(station.url, "forecast", station=station.name, at=now.isoformat())
    take_forecast(session, station, dt.datetime.fromisoformat(foretold["issued_at"]), _hours(foretold["hours"]))
    station.heard_at = now
    return taken.hours


def pull_farm(session: Session, farm: Farm, real_now: dt.datetime) -> int:
    """Read every station of a farm that has an address; one that does not answer leaves the others alone."""
    new = 0
    due = or_(Station.next_try_at.is_(None), Station.next_try_at <= real_now)
    for station in session.scalars(of_farm(Station).where(Station.url != "", due)):
        try:
            with session.begin_nested():
                new += pull_station(session, station, farm_time.now(farm, real_now))
            station.failures, station.next_try_at, station.last_error = 0, None, ""
        except (urllib3.exceptions.HTTPError, ValueError, KeyError, TypeError, OSError) as error:
            log.warning("station %s did not answer: %s", station.id, error)
            station.failures += 1
            station.next_try_at = real_now + backed_off(station.failures)
            station.last_error = str(error)[:MOST_LETTERS]
    return new
