"""One person's work on one farm: the transaction that a request lives in, and who is asking."""

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base.people import Member, Person
from bootmark.services.base.roles import Role
from bootmark.store.models import Farm
from bootmark.store.rows import NotHere
from bootmark.store.session import farm_session

__all__ = ["Farm", "NotHere", "Session", "Work", "enter", "farm_of", "nobody", "on_farm"]

_WHO = text(
    "SELECT who.name, who.email, held.farm, held.role, held.qualified FROM bm_account(:account) who "
    "JOIN bm_memberships(:account) held ON held.farm_id = :farm"
)


@dataclass(frozen=True)
class Work:
    """A session as its farm, the farm, and the member who asks."""

    session: Session
    farm: Farm
    member: Member
    person: Person


def enter(session: Session, farm_id: uuid.UUID, account_id: uuid.UUID) -> Work:
    """Who an account is on the session's farm. Raises NotHere where it has no business there."""
    row = session.execute(_WHO, {"account": account_id, "farm": farm_id}).one_or_none()
    if row is None:
        raise NotHere("membership")
    member = Member(account_id, farm_id, row.farm, Role(row.role), row.qualified)
    return Work(session, session.get_one(Farm, farm_id), member, Person(account_id, row.name, row.email))


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


def farm_of(session: Session) -> Farm:
    """The session's own farm."""
    return session.get_one(Farm, session.info["farm"])
