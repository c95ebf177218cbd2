"""Which part of an installation is ill."""

import datetime as dt
from enum import StrEnum

from sqlalchemy import text

from bootmark.services.base.work import DatabaseAway, nobody
from bootmark.store.setup import newest

WORKER_SILENT = dt.timedelta(seconds=30)
"""A worker says every few seconds that it lives."""


class Part(StrEnum):
    DATABASE = "database"
    VERSION = "version"
    WORKER = "worker"


NEEDED = frozenset({Part.DATABASE, Part.VERSION})
"""What must be well before requests are taken."""


def parts(real_now: dt.datetime) -> dict[Part, str]:
    """Why each part is ill, empty where it is well. What can't be asked because the database is away is left out."""
    try:
        with nobody() as session:
            row = session.execute(text("SELECT revision, worker_seen FROM bm_health()")).one()
    except DatabaseAway:
        return {Part.DATABASE: "it does not answer"}
    illness = {Part.DATABASE: "", Part.VERSION: "", Part.WORKER: ""}
    if row.revision != newest():
        illness[Part.VERSION] = f"the database stands at {row.revision} and this code at {newest()}"
    if row.worker_seen is None:
        illness[Part.WORKER] = "none is running"
    elif real_now - row.worker_seen > WORKER_SILENT:
        illness[Part.WORKER] = f"not heard of for {(real_now - row.worker_seen).total_seconds():.0f} s"
    return illness
