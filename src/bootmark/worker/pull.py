"""Reading stations over HTTP: each asked a few times, its answer checked, and left alone for a while where it fails."""

import datetime as dt
import ipaddress
import json
import logging
import math
import os
import socket
import time
import uuid
from typing import Any
from urllib.parse import urlsplit

import urllib3
from sqlalchemy import func, or_
from sqlalchemy.exc import DBAPIError, OperationalError
from sqlalchemy.orm import Session

from bootmark.services.base import farm_time
from bootmark.services.base.fields import YEARS
from bootmark.services.weather.pushed import LIMITS, NAMES
from bootmark.services.weather.readings import PULLED, HourReading, take, take_forecast
from bootmark.services.weather.stations import offset
from bootmark.store.models import Farm, Station, WeatherDay
from bootmark.store.rows import of_farm

TIMEOUT_SECONDS = 5.0
MOST_SECONDS = 20.0
"""For a whole answer, however slowly its bytes come."""
MOST_BYTES = 4_000_000
CHUNK = 16_384
LOCAL_STATIONS = "BOOTMARK_LOCAL_STATIONS"
"""Set to 1 where stations stand on this machine itself, as the demo's stand-in does."""
ATTEMPTS = 2
"""How often a station that does not answer is asked again; what it refuses itself it will refuse again."""
FIRST_DAYS = dt.timedelta(days=10)
MOST_HOURS = dt.timedelta(hours=24 * 40)
MOST_BACK_OFF = dt.timedelta(hours=6)
MOST_LETTERS = 200
SENT_AFTER = dt.timedelta(hours=1)
FAULTS = (
    urllib3.exceptions.HTTPError, ValueError, LookupError, TypeError, ArithmeticError, RecursionError, OSError, DBAPIError,
)  # fmt: skip
"""What a station's answer may be guilty of."""
log = logging.getLogger("bootmark.worker")

_pool = urllib3.PoolManager(
    timeout=urllib3.Timeout(total=TIMEOUT_SECONDS),
    retries=urllib3.Retry(total=ATTEMPTS, backoff_factor=0.2, redirect=0, raise_on_redirect=True, status=0),
)


def ask(url: str, path: str, **words: str) -> dict[str, Any]:
    """A station's answer. Raises urllib3's HTTPError where it does not come, ValueError where it is not a JSON object."""
    _refuse_where_no_station_stands(url)
    answer = _pool.request("GET", f"{url}/{path}", fields=words, preload_content=False)
    try:
        if answer.status != 200:
            raise ValueError(f"the station answered {answer.status}")
        readings = json.loads(_body(answer))
    finally:
        # What was not read is not waited for: the connection goes, and the next call makes its own.
        answer.close()
    if not isinstance(readings, dict):
        raise ValueError("the station's answer is not an object")
    return readings


def _refuse_where_no_station_stands(url: str) -> None:
    """Raises ValueError for an address that is no station's: none of the web, this machine itself, or one that is kept for machines.

    Stations stand inside a farm's own network, so its addresses are asked.
    """
    parts = urlsplit(url)
    if parts.scheme not in ("http", "https") or not parts.hostname:
        raise ValueError(f"{url} is not the address of a station")
    for *_, place in socket.getaddrinfo(parts.hostname, parts.port or parts.scheme, type=socket.SOCK_STREAM):
        address = ipaddress.ip_address(str(place[0]).partition("%")[0])
        local = address.is_loopback and os.environ.get(LOCAL_STATIONS) != "1"
        if local or address.is_link_local or address.is_multicast or address.is_unspecified or address.is_reserved:
            raise ValueError(f"no station stands at {parts.hostname}: give its address in the farm's network, or one of the web")


def _body(answer: urllib3.BaseHTTPResponse) -> bytes:
    """The bytes of an answer. Raises ValueError where they are too many or come too slowly."""
    body, end = bytearray(), time.monotonic() + MOST_SECONDS
    while part := answer.read1(CHUNK):
        body += part
        if len(body) > MOST_BYTES:
            raise ValueError(f"the station's answer is longer than {MOST_BYTES} bytes")
        if time.monotonic() > end:
            raise ValueError(f"the station's answer took longer than {MOST_SECONDS:g} seconds")
    return bytes(body)


def backed_off(failures: int) -> dt.timedelta:
    """How long a station that failed so often in a row is left alone: 2, 4, 8 ... minutes, six hours at the most."""
    return min(dt.timedelta(minutes=2 ** min(failures, 12)), MOST_BACK_OFF)


def _moment(text: Any) -> dt.datetime:
    """A time with its zone, in a year in which stations measure. Raises ValueError."""
    at = dt.datetime.fromisoformat(text)
    if at.tzinfo is None or at.year not in YEARS:
        raise ValueError(f"{text} is not a time with a zone")
    return at.astimezone(dt.UTC)


def _hours(rows: Any) -> list[HourReading]:
    hours = []
    for row in rows:
        at = _moment(row["at"])
        values = {name: float(row[name]) for name in LIMITS}
        for name, value in values.items():
            low, high = LIMITS[name]
            if not math.isfinite(value) or not low <= value <= high:
                raise ValueError(f"{NAMES[name]} is {value:g} at {row['at']}: {low:g} to {high:g} is taken")
        hours.append(HourReading(at, at + SENT_AFTER, **values))
    return hours


def pull_station(session: Session, station: Station, now: dt.datetime) -> int:
    """Read what a station has measured since it was last heard, and its newest forecast. Reading twice stores once."""
    newest = session.scalars(of_farm(WeatherDay, func.max(WeatherDay.local_date)).where(WeatherDay.station_id == station.id)).one()
    since = dt.datetime.combine(newest + dt.timedelta(days=1), dt.time(0), offset(station)) if newest else now - FIRST_DAYS
    since = max(since, now - MOST_HOURS)
    readings = ask(station.url, "readings", station=station.name, since=since.isoformat(), until=now.isoformat())
    taken = take(session, station, _hours(readings["hours"]), PULLED)
    foretold = ask(station.url, "forecast", station=station.name, at=now.isoformat())
    take_forecast(session, station, _moment(foretold["issued_at"]), _hours(foretold["hours"]))
    station.heard_at = now
    return taken.hours


def due(session: Session, real_now: dt.datetime) -> list[uuid.UUID]:
    """Stations of the session's farm that have an address and are not left alone for now."""
    waited = or_(Station.next_try_at.is_(None), Station.next_try_at <= real_now)
    return list(session.scalars(of_farm(Station, Station.id).where(Station.url != "", waited)))


def pull_farm(session: Session, farm: Farm, real_now: dt.datetime) -> int:
    """Read every station of a farm that is due; one that does not answer leaves the others alone."""
    return sum(pull_if_due(session, farm, station, real_now) for station in due(session, real_now))


def pull_if_due(session: Session, farm: Farm, station_id: uuid.UUID, real_now: dt.datetime) -> int:
    """Read one station, unless it is left alone by now; the number of its hours that were new. What is wrong with it is noted with it."""
    station = session.get_one(Station, (farm.id, station_id))
    if not station.url or (station.next_try_at and station.next_try_at > real_now):
        return 0
    try:
        with session.begin_nested():
            new = pull_station(session, station, farm_time.now(farm, real_now))
    except OperationalError:
        # The database itself is ill: that is no fault of the station, and the job is tried again.
        raise
    except FAULTS as error:
        log.warning("station %s did not answer: %s", station.id, type(error).__name__)
        station.failures += 1
        station.next_try_at = real_now + backed_off(station.failures)
        station.last_error = "".join(letter for letter in str(error) if letter.isprintable())[:MOST_LETTERS]
        return 0
    station.failures, station.next_try_at, station.last_error = 0, None, ""
    return new
