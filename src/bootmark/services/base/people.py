"""Signing in, and who may do what."""

import datetime as dt
import unicodedata
import uuid
from dataclasses import dataclass

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base.roles import Role

FAILURES_ALLOWED = 8
MOST_LETTERS = 254
"""Of an address of mail. Source: RFC 3696, erratum 1690."""
FAILURE_WINDOW = dt.timedelta(minutes=15)
_hasher = PasswordHasher()
# Compared against where no such account is known, so that the answer takes as long.
_NOBODY = _hasher.hash("nobody has this password")


@dataclass(frozen=True)
class Person:
    id: uuid.UUID
    name: str
    email: str = ""


@dataclass(frozen=True)
class Member:
    """A person on one farm."""

    account_id: uuid.UUID
    farm_id: uuid.UUID
    farm: str
    role: Role
    qualified: bool


class TooManyAttempts(Exception):
    """Sign-in is closed for this name or address for a while."""


def hash_password(password: str) -> str:
    return _hasher.hash(password)


def folded(email: str) -> str:
    """An address as it is looked up and as its failures are counted: the one place where letters are made alike.

    What can't be an address comes back empty: it is longer than one may be, or holds what no database keeps.
    """
    name = unicodedata.normalize("NFKC", email.strip()).casefold()
    return name if len(name) <= MOST_LETTERS and name.isprintable() else ""


def sign_in(session: Session, email: str, password: str, address: str, real_now: dt.datetime) -> Person | None:
    """The person, or None where name and password don't fit. Raises TooManyAttempts."""
    name = folded(email)
    keys = (f"name:{name}", f"address:{address}")
    for key, allowed in zip(keys, (FAILURES_ALLOWED, FAILURES_ALLOWED * 5), strict=True):
        if too_many(session, key, real_now, allowed):
            raise TooManyAttempts
    row = session.execute(text("SELECT id, name, password_hash FROM bm_sign_in(:email)"), {"email": name}).one_or_none()
    try:
        _hasher.verify(row.password_hash if row else _NOBODY, password)
        if row:
            return Person(row.id, row.name, name)
    except (VerifyMismatchError, InvalidHashError):
        pass
    for key in keys:
        failed(session, key, real_now)
    return None


def too_many(session: Session, key: str, real_now: dt.datetime, allowed: int = FAILURES_ALLOWED * 5) -> bool:
    """Whether so many failures were counted of late that no more is listened to."""
    failures = session.execute(text("SELECT bm_failures(:key, :since)"), {"key": key, "since": real_now - FAILURE_WINDOW}).scalar_one()
    return int(failures) >= allowed


def failed(session: Session, key: str, real_now: dt.datetime) -> None:
    session.execute(text("SELECT bm_failed(:key, :now)"), {"key": key, "now": real_now})


def person(session: Session, account_id: uuid.UUID) -> Person | None:
    row = session.execute(text("SELECT id, name, email FROM bm_account(:id)"), {"id": account_id}).one_or_none()
    return Person(row.id, row.name, row.email) if row else None


def memberships(session: Session, account_id: uuid.UUID) -> list[Member]:
    rows = session.execute(text("SELECT farm_id, farm, role, qualified FROM bm_memberships(:id)"), {"id": account_id})
    return [Member(account_id, row.farm_id, row.farm, Role(row.role), row.qualified) for row in rows]


def names(session: Session) -> dict[uuid.UUID, str]:
    """Names of the members of the session's farm."""
    return {row.id: row.name for row in session.execute(text("SELECT id, name FROM bm_people()"))}


def members(session: Session) -> list[tuple[str, str, bool]]:
    """Name, role and qualification of the members of the session's farm."""
    return [(row.name, row.role, row.qualified) for row in session.execute(text("SELECT name, role, qualified FROM bm_people()"))]
