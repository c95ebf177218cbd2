"""Sessions bound to one farm: the second wall is told which at the start of every transaction."""

import os
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.engine import Connection
from sqlalchemy.orm import Session, SessionTransaction

SHARED = frozenset(
    {
        "account",
        "account_reset",
        "erased",
        "rate_hit",
        "sign_in_attempt",
        "sign_in_session",
        "sign_in_event",
        "agent",
        "sign",
        "alembic_version",
    }
)
"""Tables of no farm. Everything else has row-level security; the queue's tables are the library's own."""


WEB_LIMITS = "-c statement_timeout=30s -c lock_timeout=10s -c idle_in_transaction_session_timeout=60s"
"""What no statement and no transaction of a request outlives: whoever waits longer is told to try again."""

_engines: dict[str, Engine] = {}
_TELL = text("SELECT set_config('bm.farm', :farm, true)")


def limits(role: str) -> dict[str, Any]:
    """How long a role's connections wait; work in the background may take its time."""
    return {"connect_timeout": 5} | ({"options": WEB_LIMITS} if role == "web" else {})


def engine(role: str = "web") -> Engine:
    """The engine of one database role, from BOOTMARK_<ROLE>_URL; made once."""
    if role not in _engines:
        _engines[role] = create_engine(
            os.environ[f"BOOTMARK_{role.upper()}_URL"],
            pool_size=5,
            max_overflow=5,
            pool_pre_ping=True,
            hide_parameters=True,
            connect_args=limits(role),
        )
    return _engines[role]


def close_engines() -> None:
    """Give up all connections, as before the addresses change."""
    while _engines:
        _engines.popitem()[1].dispose()


@event.listens_for(Session, "after_begin")
def _tell_farm(session: Session, _transaction: SessionTransaction, connection: Connection) -> None:
    # The setting is the transaction's own: where no farm is told, none is set.
    if farm := session.info.get("farm"):
        connection.execute(_TELL, {"farm": str(farm)})


@contextmanager
def farm_session(farm: uuid.UUID | None, *, role: str = "web", bind: Engine | None = None) -> Iterator[Session]:
    """One transaction as one farm: committed at the end, rolled back on any error."""
    with Session(bind or engine(role), info={"farm": farm}, expire_on_commit=False) as session, session.begin():
        yield session
