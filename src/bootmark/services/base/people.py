"""People: their names, their passwords, and what they are on a farm."""

import datetime as dt
import unicodedata
import uuid
from dataclasses import dataclass

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base.roles import Role

MOST_LETTERS = 254
"""Of an address of mail. Source: RFC 3696, erratum 1690."""
NOBODY = "none"
"""In place of a password's hash: nobody signs in to that account."""
_hasher = PasswordHasher()
# Compared against where no such account is known, so that the answer takes as long.
_OF_NOBODY = _hasher.hash("nobody has this password")


@dataclass(frozen=True)
class Person:
    id: uuid.UUID
    name: str
    email: str = ""


@dataclass(frozen=True)
class Member:
    """A person on one farm. fresh: whether the person has given the password within the hour, as signing wants it."""

    account_id: uuid.UUID
    farm_id: uuid.UUID
    farm: str
    role: Role
    qualified: bool
    fresh: bool = True


def spelled(password: str) -> str:
    """A password as it is hashed: phones and desks compose the same letters differently. Source: NIST SP 800-63B-4, 2025, 3.1.1.2."""
    return unicodedata.normalize("NFKC", password)


def hash_password(password: str) -> str:
    return _hasher.hash(spelled(password).encode("utf-8", "surrogatepass"))


def folded(email: str) -> str:
    """An address as it is looked up and as its failures are counted: the one place where letters are made alike.

    What can't be an address comes back empty: it is longer than one may be, or holds what no database keeps.
    """
    name = unicodedata.normalize("NFKC", email.strip()).casefold()
    return name if len(name) <= MOST_LETTERS and name.isprintable() else ""


def is_address(email: str) -> bool:
    """Whether it may be an address of mail: a name, an @ and a host with a dot."""
    before, at, behind = folded(email).partition("@")
    return bool(before and at and "." in behind and not any(letter.isspace() for letter in before + behind))


def fits(password_hash: str | None, password: str) -> bool:
    """Whether a password makes a hash. Where there is none the answer is no, and takes as long."""
    try:
        return _hasher.verify(password_hash or _OF_NOBODY, spelled(password).encode("utf-8", "surrogatepass")) and password_hash is not None
    except (VerificationError, InvalidHashError):
        return False


def memberships(session: Session, account_id: uuid.UUID) -> list[Member]:
    rows = session.execute(text("SELECT farm_id, farm, role, qualified FROM bm_memberships(:id)"), {"id": account_id})
    return [Member(account_id, row.farm_id, row.farm, Role(row.role), row.qualified) for row in rows]


def names(session: Session) -> dict[uuid.UUID, str]:
    """Names of everybody who is or was on the session's farm."""
    return {row.id: row.name for row in session.execute(text("SELECT id, name FROM bm_people()"))}


@dataclass(frozen=True)
class Colleague:
    """A member of a farm, as the others see them. qualified: until certificate_until, where that is told."""

    account_id: uuid.UUID
    name: str
    role: Role
    qualified: bool
    email: str
    certificate: str = ""
    certificate_until: dt.date | None = None
    ended_at: dt.datetime | None = None

    def has_lapsed(self, today: dt.date) -> bool:
        """Whether the certificate has ended."""
        return self.qualified and self.certificate_until is not None and self.certificate_until < today

    def is_qualified(self, today: dt.date) -> bool:
        return self.qualified and not self.has_lapsed(today)


def everybody(session: Session) -> list[Colleague]:
    """Who is or was on the session's farm, by name."""
    rows = session.execute(text("SELECT * FROM bm_people()"))
    return [
        Colleague(row.id, row.name, Role(row.role), row.qualified, row.email, row.certificate, row.certificate_until, row.ended_at)
        for row in rows
    ]


def members(session: Session) -> list[Colleague]:
    """Who is on the session's farm now."""
    return [colleague for colleague in everybody(session) if colleague.ended_at is None]
