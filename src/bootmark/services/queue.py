"""Background work: deferred inside the caller's transaction, so that it is queued only if the write holds."""

import json

from sqlalchemy import text
from sqlalchemy.orm import Session

PULL = "bootmark.pull_weather"
RECKON = "bootmark.reckon_seasons"


def defer(session: Session, task: str, **ids: str) -> int:
    """Queue a task; while one with the same arguments waits, no second is queued. Returns its id, 0 where one waits."""
    row = session.execute(
        text(
            "SELECT (procrastinate_defer_jobs_v1(ARRAY[ROW('default', :task, 0, :lock, NULL, CAST(:args AS jsonb), NULL)"
            "::procrastinate_job_to_defer_v1]))[1] WHERE NOT EXISTS "
            "(SELECT 1 FROM procrastinate_jobs WHERE task_name = :task AND args = CAST(:args AS jsonb) AND status = 'todo')"
        ),
        {"task": task, "lock": f"{task}:{sorted(ids.items())}", "args": json.dumps(ids)},
    ).scalar()
    return int(row or 0)


def finished(session: Session, job_id: int) -> bool:
    """Whether a queued job has run."""
    state = session.execute(text("SELECT status FROM procrastinate_jobs WHERE id = :id"), {"id": job_id}).scalar()
    return state in (None, "succeeded", "failed", "aborted", "cancelled")
