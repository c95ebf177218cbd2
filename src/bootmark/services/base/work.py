"""One person's work on one farm: the transaction that a request lives in, and who is asking."""

import os
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base import memo, stamp
from bootmark.services.base.people import Member, Person
from bootmark.services.base.roles import Role
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Farm
from bootmark.store.rows import NotHere, plain
from bootmark.store.session import farm_session

__all__ = ["Farm", "NotHere", "Session", "Work", "at_work", "database_answers", "farm_of", "first_farms", "nobody", "on_farm"]

_farms: memo.Kept[Farm] = memo.Kept(64)
_ENTER = text("SELECT * FROM bm_enter(:account, :farm)")


@dataclass(frozen=True)
class Work:
    """A session as its farm, the farm, and the member who asks."""

    session: Session
    farm: Farm
    member: Member
    person: Person


@contextmanager
def at_work(farm_id: uuid.UUID, account_id: uuid.UUID) -> Iterator[Work]:
    """A transaction as one farm, for an account that is a member there. Raises NotHere where it has no business there."""
    with nobody() as session:
        row = session.execute(_ENTER, {"account": account_id, "farm": farm_id}).one_or_none()
        if row is None:
            raise NotHere("membership")
        session.info["farm"] = farm_id
        stamp.told(session, row.stamps or {})
        member = Member(account_id, farm_id, row.farm, Role(row.role), row.qualified)
        yield Work(session, _farm(session), member, Person(account_id, row.name, row.email))


def _farm(session: Session) -> Farm:
    """The farm's row, as it was read while the farm's places stood."""
    kept = stamp.while_standing(session, _farms, (Topic.PLACES,), "farm", lambda: plain(farm_of(session)))
    return session.merge(kept, load=False)


@contextmanager
def on_farm(farm_id: uuid.UUID) -> Iterator[Session]:
    """A transaction as one farm: committed at the end, rolled back on any error."""
    with farm_session(farm_id) as session:
        yield session


@contextmanager
def nobody() -> Iterator[Session]:
    """A transaction as no farm: signing in, and whether the database answers."""
    with farm_session(None) as session:
        yield session


def first_farms(most: int) -> list[uuid.UUID]:
    """Some farms of this installation, to make pages ready for; none where this process may not ask."""
    if not os.environ.get("BOOTMARK_WORKER_URL"):
        return []
    with farm_session(None, role="worker") as session:
        return list(session.scalars(text("SELECT id FROM bm_farms() LIMIT :most"), {"most": most}))


def database_answers() -> None:
    """Ask the database for nothing. Raises what its driver raises where it does not answer."""
    with farm_session(None) as session:
        session.execute(text("SELECT 1"))


def farm_of(session: Session) -> Farm:
    """The session's own farm."""
    return session.get_one(Farm, session.info["farm"])
