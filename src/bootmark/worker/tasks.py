"""The jobs, and the process that does them."""

import asyncio
import datetime as dt
import logging
import os
import signal
import sys
import uuid
from collections.abc import Callable

from procrastinate import App, PsycopgConnector, RetryStrategy
from sqlalchemy import text
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from bootmark import logs
from bootmark.core.catalogue import default
from bootmark.services.base import farm_time, ground
from bootmark.services.base.queue import DEFAULT, FILES, MAIL_INVITATION, MAIL_RESET, PULL, PULL_STATION, READ_FILE, RECKON, WEATHER, defer
from bootmark.services.seasons import results
from bootmark.services.weather import files
from bootmark.store.models import Farm, SeasonRun, WeatherUpload
from bootmark.store.session import farm_session
from bootmark.worker import mail
from bootmark.worker.pull import due, pull_farm, pull_if_due

HEARTBEAT_SECONDS, STALLED_SECONDS = 3.0, 12.0
GRACE_SECONDS = 5.0
AT_ONCE = {DEFAULT: 1, FILES: 1, WEATHER: 4}
"""Jobs at once of each queue: reckoning takes a core, stations are waited for."""
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


@app.task(name=PULL_STATION, queue=WEATHER, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def pull_station(farm_id: str, station_id: str) -> None:
    """One station: however slow it is, others wait for it no longer than they must."""
    farm = uuid.UUID(farm_id)
    with farm_session(farm, role="worker") as session:
        pull_if_due(session, session.get_one(Farm, farm), uuid.UUID(station_id), real_now())


@app.task(name=READ_FILE, queue=FILES, retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def read_file(farm_id: str, upload_id: str, key: str, job: str) -> None:
    """Read a large weather file, or import it; its page asks how far that is."""
    farm_key, upload_key = uuid.UUID(farm_id), uuid.UUID(upload_id)
    with farm_session(farm_key, role="worker") as session:
        work = files.work_of(session, farm_key, upload_key, key, job)
        farm_now = farm_time.now(session.get_one(Farm, farm_key), real_now())
    if work is None:
        return

    def step(per_cent: int) -> None:
        with farm_session(farm_key, role="worker") as session:
            files.note_progress(session, farm_key, upload_key, per_cent)

    def finishing(act: Callable[[Session, WeatherUpload], None]) -> None:
        with farm_session(farm_key, role="worker") as session:
            act(session, session.get_one(WeatherUpload, (farm_key, upload_key), with_for_update=True))

    def failed(_session: Session, upload: WeatherUpload) -> None:
        upload.job = files.Job.FAILED

    try:
        files.do(work, finishing, farm_now, real_now(), step)
    except OperationalError:
        raise
    except Exception:
        log.exception("a weather file could not be read")
        finishing(failed)


@app.task(name=MAIL_INVITATION, queue=WEATHER, retry=RetryStrategy(max_attempts=6, exponential_wait=4))
def mail_invitation(farm_id: str, invitation_id: str) -> None:
    with farm_session(uuid.UUID(farm_id), role="worker") as session:
        mail.invitation(session, uuid.UUID(invitation_id), real_now())


@app.task(name=MAIL_RESET, queue=WEATHER, retry=RetryStrategy(max_attempts=6, exponential_wait=4))
def mail_reset(account_id: str, asked_at: str) -> None:  # noqa: ARG001 - a second wish is a second letter
    with farm_session(None, role="worker") as session:
        mail.reset(session, uuid.UUID(account_id), real_now())


@app.periodic(cron="*/10 * * * *")
@app.task(name="bootmark.pull_all")
def pull_all(timestamp: int) -> None:  # noqa: ARG001 - the queue hands it over by name
    """Every ten minutes of real time: a job for each station of each farm."""
    with farm_session(None, role="worker") as session:
        farms = list(session.scalars(text("SELECT id FROM bm_farms()")))
    for farm in farms:
        with farm_session(farm, role="worker") as session:
            for station in due(session, real_now()):
                defer(session, PULL_STATION, farm_id=str(farm), station_id=str(station))


@app.periodic(cron="17 2 * * *")
@app.task(name="bootmark.forget", retry=RetryStrategy(max_attempts=4, exponential_wait=4))
def forget_strangers(timestamp: int) -> None:  # noqa: ARG001 - the queue hands it over by name
    """Once a night: blank what farms keep of strangers for longer than their owners want."""
    with farm_session(None, role="worker") as session:
        forgotten = session.execute(text("SELECT bm_forget(:now)"), {"now": real_now()}).scalar_one()
    log.info("%s records of strangers were blanked", forgotten)


async def take_over() -> None:
    """Again and again, give the jobs of workers that have died to those that live."""
    while True:
        for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_SECONDS):
            log.warning("job %s was left by a worker that died: it is tried again", job.id)
            await app.job_manager.retry_job(job)
        await asyncio.sleep(HEARTBEAT_SECONDS)


async def take_jobs(queue: str, at_once: int) -> None:
    await app.run_worker_async(
        queues=[queue],
        name=queue,
        concurrency=at_once,
        fetch_job_polling_interval=2.0,
        delete_jobs="successful",
        update_heartbeat_interval=HEARTBEAT_SECONDS,
        stalled_worker_timeout=STALLED_SECONDS,
        shutdown_graceful_timeout=GRACE_SECONDS,
        install_signal_handlers=False,
    )


async def _until(ended: asyncio.Event) -> None:
    await ended.wait()


async def work() -> int:
    """Take jobs until told to end (0), or until the database is gone (1): whoever supervises starts us again."""
    ended = asyncio.Event()
    for number in (signal.SIGTERM, signal.SIGINT):
        asyncio.get_running_loop().add_signal_handler(number, ended.set)
    async with app.open_async():
        running = [asyncio.create_task(take_jobs(queue, at_once)) for queue, at_once in AT_ONCE.items()]
        running += [asyncio.create_task(take_over()), asyncio.create_task(_until(ended))]
        await asyncio.wait(running, return_when=asyncio.FIRST_COMPLETED)
        for each in running:
            each.cancel()
        await asyncio.gather(*running, return_exceptions=True)
    return 0 if ended.is_set() else 1


def main() -> None:
    logs.to_standard_error()

    sys.exit(asyncio.run(work()))
