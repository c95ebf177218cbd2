"""The background worker: reads stations over HTTP."""

import asyncio
import datetime as dt
import json
import logging
import os
import urllib.error
import urllib.parse
import urllib.request
import uuid
from typing import Any

from procrastinate import App, PsycopgConnector, RetryStrategy
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from bootmark.services import farm_time, weather
from bootmark.services.queue import PULL
from bootmark.store.models import Farm, Station, WeatherDay
from bootmark.store.session import farm_session

TIMEOUT_SECONDS = 5
MOST_HOURS = 24 * 40
log = logging.getLogger("bootmark.worker")


def plain_url() -> str:
    return os.environ.get("BOOTMARK_WORKER_URL", "").replace("postgresql+psycopg://", "postgresql://")


app = App(connector=PsycopgConnector(conninfo=plain_url()))


def ask(url: str, path: str, **words: str) -> dict[str, Any]:
    """A station's answer. Raises URLError, or ValueError where it is not JSON."""
    if not url.startswith(("http://", "https://")):
        raise ValueError(f"{url} is not the address of a station")
    with urllib.request.urlopen(f"{url}/{path}?{urllib.parse.urlencode(words)}", timeout=TIMEOUT_SECONDS) as answer:
        told = json.load(answer)
    if not isinstance(told, dict):
        raise ValueError("the station's answer is not an object")
    return told


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
    for station in session.scalars(select(Station).where(Station.farm_id == farm.id, Station.url != "")):
        try:
            with session.begin_nested():
                new += pull_station(session, farm, station, farm_time.now(farm, real_now))
        except (urllib.error.URLError, ValueError, KeyError, OSError) as error:
            log.warning("station %s did not answer: %s", station.id, error)
    return new


@app.task(name=PULL, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def pull_weather(farm_id: str) -> None:
    farm = uuid.UUID(farm_id)
    with farm_session(farm, role="worker") as session:
        pull_farm(session, session.get_one(Farm, farm), dt.datetime.now(dt.UTC))


@app.periodic(cron="*/10 * * * *")
@app.task(name="bootmark.pull_all")
def pull_all(timestamp: int) -> None:
    """Every ten minutes of real time: each farm with a station."""
    with farm_session(None, role="worker") as session:
        farms = list(session.scalars(text("SELECT id FROM bm_farms()")))
    for farm in farms:
        pull_weather(str(farm))


def main() -> None:
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(name)s %(levelname)s %(message)s")

    async def run() -> None:
        async with app.open_async():
            await app.run_worker_async(concurrency=1, fetch_job_polling_interval=2.0, delete_jobs="successful")

    asyncio.run(run())


if __name__ == "__main__":
    main()
