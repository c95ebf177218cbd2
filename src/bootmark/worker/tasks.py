"""The jobs, and the process that does them."""

import asyncio
import datetime as dt
import logging
import os
import uuid

from procrastinate import App, PsycopgConnector, RetryStrategy
from sqlalchemy import text

from bootmark import logs
from bootmark.core.catalogue import default
from bootmark.services.base import ground
from bootmark.services.base.queue import PULL, RECKON
from bootmark.services.seasons import results
from bootmark.store.models import Farm, SeasonRun
from bootmark.store.session import farm_session
from bootmark.worker.pull import pull_farm

HEARTBEAT_SECONDS, STALLED_SECONDS = 3.0, 12.0
log = logging.getLogger("bootmark.worker")


def plain_url() -> str:
    return os.environ.get("BOOTMARK_WORKER_URL", "").replace("postgresql+psycopg://", "postgresql://")


app = App(connector=PsycopgConnector(conninfo=plain_url()))


def real_now() -> dt.datetime:
    return dt.datetime.now(dt.UTC)


@app.task(name=PULL, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def pull_weather(farm_id: str) -> None:
    farm = uuid.UUID(farm_id)
    with farm_session(farm, role="worker") as session:
        pull_farm(session, session.get_one(Farm, farm), real_now())


@app.task(name=RECKON, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def reckon_seasons(farm_id: str, run_id: str, part: str) -> None:
    """One part of a farm's forecasts, a few in each transaction, so that a worker that is stopped loses only those."""
    farm_key, run = uuid.UUID(farm_id), uuid.UUID(run_id)
    with farm_session(farm_key, role="worker") as session:
        farm = session.get_one(Farm, farm_key)
        day = session.get_one(SeasonRun, (farm_key, run)).day
        blocks = [block for block in ground.blocks(session) if results.part_of(block.id) == int(part)]
        stale = [listed.ask for listed in results.in_turn(results.listing(session, farm, blocks, default(), day))]
        for start in range(0, len(stale), results.STEP):
            step = stale[start : start + results.STEP]
            with farm_session(farm_key, role="worker") as own:
                for ask in step:
                    results.keep(own, farm, ask, day, real_now())
                results.told_done(own, farm_key, run, len(step), real_now())
        results.told_done(session, farm_key, run, 0, real_now(), int(part))


@app.periodic(cron="*/10 * * * *")
@app.task(name="bootmark.pull_all")
def pull_all(timestamp: int) -> None:  # noqa: ARG001 - the queue hands it over by name
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
    logs.to_standard_error()

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
