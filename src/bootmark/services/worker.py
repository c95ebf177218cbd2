"""The background worker: reads stations over HTTP, and reckons the forecasts of big farms."""

import asyncio
import datetime as dt
import json
import logging
import os
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from typing import Any

from procrastinate import App, PsycopgConnector, RetryStrategy
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from bootmark.core.catalogue import default
from bootmark.services import farm_time, results, rounds, weather
from bootmark.services.queue import PULL, RECKON
from bootmark.store.models import Farm, Station, WeatherDay
from bootmark.store.season_models import SeasonRun
from bootmark.store.session import farm_session

TIMEOUT_SECONDS = 5
MOST_HOURS = 24 * 40
HEARTBEAT_SECONDS, STALLED_SECONDS = 3.0, 12.0
WAITS_SECONDS = (0.2, 0.8)
MOST_BACK_OFF = dt.timedelta(hours=6)
log = logging.getLogger("bootmark.worker")


def plain_url() -> str:
    return os.environ.get("BOOTMARK_WORKER_URL", "").replace("postgresql+psycopg://", "postgresql://")


app = App(connector=PsycopgConnector(conninfo=plain_url()))


def ask(url: str, path: str, **words: str) -> dict[str, Any]:
    """A station's answer, asked for again twice where it does not come. Raises URLError, or ValueError where it is not JSON."""
    if not url.startswith(("http://", "https://")):
        raise ValueError(f"{url} is not the address of a station")
    address = f"{url}/{path}?{urllib.parse.urlencode(words)}"
    for wait in (*WAITS_SECONDS, None):
        try:
            with urllib.request.urlopen(address, timeout=TIMEOUT_SECONDS) as answer:
                told = json.load(answer)
            break
        except (urllib.error.URLError, TimeoutError) as error:
            # What the station itself refuses it will refuse again.
            if wait is None or isinstance(error, urllib.error.HTTPError):
                raise
            time.sleep(wait)
    if not isinstance(told, dict):
        raise ValueError("the station's answer is not an object")
    return told


def backed_off(failures: int) -> dt.timedelta:
    """How long a station that failed so often in a row is left alone: 2, 4, 8 ... minutes, six hours at the most."""
    return min(dt.timedelta(minutes=2 ** min(failures, 12)), MOST_BACK_OFF)


def pull_station(session: Session, farm: Farm, station: Station, now: dt.datetime) -> int:
    """Read what a station has measured since it was last heard, and its newest forecast. Reading twice stores once."""
    newest = session.scalars(
        select(WeatherDay.local_date)
        .where(WeatherDay.farm_id == farm.id, WeatherDay.station_id == station.id)
        .order_by(WeatherDay.local_date.desc())
    ).first()
    zone = weather.offset(station)
    since = dt.datetime.combine(newest + dt.timedelta(days=1), dt.time(0), zone) if newest else now - dt.timedelta(days=10)
    since = max(since, now - dt.timedelta(hours=MOST_HOURS))
    told = ask(station.url, "readings", station=station.name, since=since.isoformat(), until=now.isoformat())
    hours: list[dict[str, Any]] = [
        {
            "utc_hour": dt.datetime.fromisoformat(one["at"]),
            "received_at": dt.datetime.fromisoformat(one["at"]) + dt.timedelta(hours=1),
            "source": "station",
            **{name: float(one[name]) for name in ("temp", "rh", "wind", "rain")},
        }
        for one in told["hours"]
    ]
    new = weather.store_hours(session, farm.id, station.id, hours)
    by_day: dict[dt.date, list[dict[str, Any]]] = {}
    for row in hours:
        by_day.setdefault(row["utc_hour"].astimezone(zone).date(), []).append(row)
    days = [
        {
            "local_date": day,
            "received_at": rows[-1]["received_at"],
            "tmin": min(row["temp"] for row in rows),
            "tmax": max(row["temp"] for row in rows),
            "rain": sum(row["rain"] for row in rows),
            "source": "station",
        }
        for day, rows in by_day.items()
        if len(rows) == 24
    ]
    weather.store_days(session, farm.id, station.id, days)
    foretold = ask(station.url, "forecast", station=station.name, at=now.isoformat())
    issued = dt.datetime.fromisoformat(foretold["issued_at"])
    rows = [
        {
            "issued_at": issued,
            "valid_at": dt.datetime.fromisoformat(one["at"]),
            **{name: float(one[name]) for name in ("temp", "rh", "wind", "rain")},
        }
        for one in foretold["hours"]
    ]
    weather.store_forecast(session, farm.id, station.id, rows)
    station.heard_at = now
    return new


def pull_farm(session: Session, farm: Farm, real_now: dt.datetime) -> int:
    """Read every station of a farm that has an address; one that does not answer leaves the others alone."""
    new = 0
    waiting = (Station.next_try_at.is_(None)) | (Station.next_try_at <= real_now)
    for station in session.scalars(select(Station).where(Station.farm_id == farm.id, Station.url != "", waiting)):
        try:
            with session.begin_nested():
                read = pull_station(session, farm, station, farm_time.now(farm, real_now))
                if read:
                    weather.derive(session, station)
            new += read
            station.failures, station.next_try_at, station.last_error = 0, None, ""
        except (urllib.error.URLError, ValueError, KeyError, OSError) as error:
            log.warning("station %s did not answer: %s", station.id, error)
            station.failures += 1
            station.next_try_at = real_now + backed_off(station.failures)
            station.last_error = str(error)[:200]
    return new


@app.task(name=PULL, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def pull_weather(farm_id: str) -> None:
    farm = uuid.UUID(farm_id)
    with farm_session(farm, role="worker") as session:
        pull_farm(session, session.get_one(Farm, farm), dt.datetime.now(dt.UTC))


@app.task(name=RECKON, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def reckon_seasons(farm_id: str, run_id: str, part: str) -> None:
    """One part of a farm's forecasts, a few in each transaction, so that a worker that is stopped loses only those."""
    farm, run = uuid.UUID(farm_id), uuid.UUID(run_id)
    with farm_session(farm, role="worker") as session:
        where = session.get_one(Farm, farm)
        day = session.get_one(SeasonRun, (farm, run)).day
        blocks = [block for block in rounds.blocks_of(session, where) if results.part_of(block.id) == int(part)]
        stale = [one.ask for one in results.in_turn(results.listing(session, where, blocks, default(), day))]
        for start in range(0, len(stale), results.STEP):
            step = stale[start : start + results.STEP]
            with farm_session(farm, role="worker") as own:
                for one in step:
                    results.keep(own, where, one, day, dt.datetime.now(dt.UTC))
                results.told_done(own, farm, run, len(step), dt.datetime.now(dt.UTC))
        results.told_done(session, farm, run, 0, dt.datetime.now(dt.UTC), int(part))


@app.periodic(cron="*/10 * * * *")
@app.task(name="bootmark.pull_all")
def pull_all(timestamp: int) -> None:
    """Every ten minutes of real time: each farm with a station."""
    with farm_session(None, role="worker") as session:
        farms = list(session.scalars(text("SELECT id FROM bm_farms()")))
    for farm in farms:
        pull_weather(str(farm))


async def take_over() -> None:
    """Again and again, give the jobs of workers that have died to those that live."""
    while True:
        for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_SECONDS):
            log.warning("job %s was left by a worker that died: it is tried again", job.id)
            await app.job_manager.retry_job(job)
        await asyncio.sleep(HEARTBEAT_SECONDS)


def main() -> None:
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(name)s %(levelname)s %(message)s")

    async def run() -> None:
        async with app.open_async():
            tidy = asyncio.create_task(take_over())
            try:
                await app.run_worker_async(
                    concurrency=1,
                    fetch_job_polling_interval=2.0,
                    delete_jobs="successful",
                    update_heartbeat_interval=HEARTBEAT_SECONDS,
                    stalled_worker_timeout=STALLED_SECONDS,
                )
            finally:
                tidy.cancel()

    asyncio.run(run())


if __name__ == "__main__":
    main()
