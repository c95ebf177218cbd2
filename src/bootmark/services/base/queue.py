"""Background work: deferred inside the caller's transaction, so that it is queued only if the write holds.

The queue's library has a connector for SQLAlchemy's connections only where it runs them itself, so its own function is called here;
the lock that keeps a second waiting job of the same kind out is the library's `queueing_lock`.
"""

import json

from psycopg.errors import UniqueViolation
from sqlalchemy import text
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

PULL = "bootmark.pull_weather"
PULL_STATION = "bootmark.pull_station"
READ_FILE = "bootmark.read_file"
RECKON = "bootmark.reckon_seasons"
MAIL_INVITATION, MAIL_RESET = "bootmark.mail_invitation", "bootmark.mail_reset"
WEATHER, FILES, DEFAULT = "weather", "files", "default"
QUEUES = {PULL_STATION: WEATHER, READ_FILE: FILES, MAIL_INVITATION: WEATHER, MAIL_RESET: WEATHER}
"""What may take long without reckoning has a queue of its own, so that it holds up nothing else."""
ENDED = frozenset({None, "succeeded", "failed", "aborted", "cancelled"})
"""States of a job that has run; None where it is gone, since jobs that succeeded are deleted."""

_DEFER = text(
    "SELECT (procrastinate_defer_jobs_v1(ARRAY[ROW(:queue, :task, 0, :lock, :lock, CAST(:args AS jsonb), NULL)"
    "::procrastinate_job_to_defer_v1]))[1]"
)


def defer(session: Session, task: str, **ids: str) -> int:
    """Queue a task; while one with the same arguments waits, no second is queued. Returns its id, 0 where one waits."""
    words = {"queue": QUEUES.get(task, DEFAULT), "task": task, "lock": f"{task}:{sorted(ids.items())}", "args": json.dumps(ids)}
    try:
        with session.begin_nested():
            return int(session.execute(_DEFER, words).scalar_one())
    except IntegrityError as error:
        if isinstance(error.orig, UniqueViolation):
            return 0
        raise


def finished(session: Session, job_id: int) -> bool:
    """Whether a queued job has run."""
    state = session.execute(text("SELECT status FROM procrastinate_jobs WHERE id = :id"), {"id": job_id}).scalar()
    return state in ENDED
