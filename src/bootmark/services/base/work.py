"""One person's work on one farm: the transaction that a request lives in, and who is asking."""

import datetime as dt
import os
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from sqlalchemy import text
from sqlalchemy.exc import InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session

from bootmark.services.base import memo, sign_ins, stamp
from bootmark.services.base.people import Member, Person
from bootmark.services.base.preferences import Preferences
from bootmark.services.base.roles import Role
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Farm
from bootmark.store.rows import NotHere, plain
from bootmark.store.session import farm_session

__all__ = ["DatabaseAway", "Farm", "NotHere", "Session", "SignedOut", "Work", "at_work", "farm_of", "first_farms", "nobody", "on_farm"]

_farms: memo.Kept[Farm] = memo.Kept(64)
DISK_FULL = "53100"
_ENTER = text("SELECT * FROM bm_enter(:hashed, :farm, :now)")


@dataclass(frozen=True)
class Work:
    """A session as its farm, the farm, the member who asks and the sign-in by which they came."""

    session: Session
    farm: Farm
    member: Member
    person: Person
    sign_in: uuid.UUID
    preferences: Preferences


class SignedOut(Exception):
    """The sign-in has ended."""


class DatabaseAway(Exception):
    """The database does not answer, or not in time; the same may be tried again. no_room: whether its disk is full."""

    def __init__(self, no_room: bool = False) -> None:
        super().__init__()
        self.no_room = no_room


@contextmanager
def _where_it_answers() -> Iterator[None]:
    """Raises DatabaseAway where the database is what failed."""
    try:
        yield
    except (OperationalError, InterfaceError, PoolTimeout) as error:
        raise DatabaseAway(getattr(getattr(error, "orig", None), "sqlstate", "") == DISK_FULL) from error


@contextmanager
def at_work(farm_id: uuid.UUID, token: str, real_now: dt.datetime) -> Iterator[Work]:
    """A transaction as one farm, for whoever a sign-in's token is.

    Raises SignedOut where the sign-in has ended, NotHere where its person has no business on this farm.
    """
    with nobody() as session:
        row = session.execute(_ENTER, {"hashed": sign_ins.hashed(token), "farm": farm_id, "now": real_now}).one_or_none()
        if row is None:
            if sign_ins.of_token(session, token, real_now) is None:
                raise SignedOut
            raise NotHere("membership")
        session.info["farm"] = farm_id
        stamp.keep(session, row.stamps or {})
        fresh = sign_ins.is_fresh(row.asked_at, real_now)
        member = Member(row.account_id, farm_id, row.farm, Role(row.role), row.qualified, fresh)
        yield Work(
            session, _farm(session), member, Person(row.account_id, row.name, row.email), row.session_id, Preferences.of(row.preferences)
        )


def _farm(session: Session) -> Farm:
    """The farm's row, as it was read while the farm's places stood."""
    kept = stamp.while_standing(session, _farms, (Topic.PLACES,), "farm", lambda: plain(farm_of(session)))
    return session.merge(kept, load=False)


@contextmanager
def on_farm(farm_id: uuid.UUID) -> Iterator[Session]:
    """A transaction as one farm: committed at the end, rolled back on any error."""
    with _where_it_answers(), farm_session(farm_id) as session:
        yield session


@contextmanager
def nobody() -> Iterator[Session]:
    """A transaction as no farm: signing in."""
    with _where_it_answers(), farm_session(None) as session:
        yield session


def first_farms(most: int) -> list[uuid.UUID]:
    """Some farms of this installation, to make pages ready for; none where this process may not ask."""
    if not os.environ.get("BOOTMARK_WORKER_URL"):
        return []
    with farm_session(None, role="worker") as session:
        return list(session.scalars(text("SELECT id FROM bm_farms() LIMIT :most"), {"most": most}))


def farm_of(session: Session) -> Farm:
    """The session's own farm."""
    return session.get_one(Farm, session.info["farm"])
