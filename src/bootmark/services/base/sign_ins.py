"""Signing in: a try is slowed down as failures add up, a sign-in is a row that can be listed and ended, each try is remembered.

Nobody is shut out by somebody else's failures: the wait grows for one address that tries one name; a name that is tried from everywhere
waits a little, and not at all from where its person has signed in of late.
"""

import datetime as dt
import hashlib
import secrets
import uuid
from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base import people
from bootmark.services.base.people import Person

WINDOW = dt.timedelta(minutes=15)
"""Failures that are older count no more."""
DAY, PHONE = dt.timedelta(hours=14), dt.timedelta(days=30)
"""How long a sign-in lasts: a working day, or a month on one's own phone."""
KNOWN_FOR = dt.timedelta(days=30)
ASK_AGAIN_AFTER = dt.timedelta(hours=1)
"""Before signing and before keys are made, whoever signed in longer ago is asked who it is."""
MOST_DEVICE, MOST_EVENTS = 80, 12


class Outcome(StrEnum):
    """What came of a try to sign in; the values stand in the database."""

    SIGNED_IN = "signed in"
    ASKED = "gave the password again"
    CHANGED = "changed the password"
    RESET = "set the password by a link"
    LINKED = "an owner made a link for the password"
    REFUSED = "refused"
    SLOWED = "too soon"


@dataclass(frozen=True)
class Limit:
    """free: failures without a wait; the wait then doubles from a second to at most longest."""

    free: int
    longest: dt.timedelta

    def wait(self, failures: int) -> dt.timedelta:
        beyond = failures - self.free
        return min(dt.timedelta(seconds=2 ** min(beyond, 12)), self.longest) if beyond >= 0 else dt.timedelta(0)


PAIR = Limit(5, dt.timedelta(minutes=15))
ADDRESS = Limit(30, dt.timedelta(minutes=1))
NAME = Limit(20, dt.timedelta(seconds=4))
KEY = Limit(30, dt.timedelta(minutes=15))
"""Of wrong keys of stations, by address."""


@dataclass(frozen=True)
class From:
    """Where a try comes from. device: what kind of one."""

    address: str
    device: str = ""


@dataclass(frozen=True)
class Try:
    """What came of a try. person: who it is, None where name and password don't fit; wait: seconds where it came too soon, else 0."""

    person: Person | None
    wait: int = 0


@dataclass(frozen=True)
class SignIn:
    """A sign-in as its person sees it."""

    id: uuid.UUID
    device: str
    address: str
    made_at: dt.datetime
    seen_at: dt.datetime
    ends_at: dt.datetime


@dataclass(frozen=True)
class Here:
    """Whose sign-in a token is."""

    id: uuid.UUID
    person: Person
    asked_at: dt.datetime


@dataclass(frozen=True)
class Event:
    at: dt.datetime
    address: str
    device: str
    outcome: str


def hashed(token: str) -> str:
    """What is kept of a token. It is long and random: a plain hash is enough."""
    return hashlib.sha256(token.encode("utf-8", "replace")).hexdigest()


def check(session: Session, email: str, password: str, where: From, real_now: dt.datetime) -> Try:
    """Whether name and password fit. What came too soon counts for nothing."""
    name = people.folded(email)
    is_known_address = session.execute(
        text("SELECT bm_knows_address(:name, :address, :since)"), {"name": name, "address": where.address, "since": real_now - KNOWN_FOR}
    ).scalar_one()
    limits = {f"pair:{name}\t{where.address}": PAIR, f"address:{where.address}": ADDRESS} | (
        {} if is_known_address else {f"name:{name}": NAME}
    )
    row = session.execute(text("SELECT id, name, password_hash FROM bm_sign_in(:email)"), {"email": name}).one_or_none()
    account = row.id if row else None
    seconds = max(waits(session, key, limit, real_now) for key, limit in limits.items())
    if seconds:
        _remember(session, account, name, where, Outcome.SLOWED, real_now)
        return Try(None, seconds)
    if people.fits(row.password_hash if row else None, password) and row:
        session.execute(text("SELECT bm_tries_forgotten(:key)"), {"key": next(iter(limits))})
        return Try(Person(row.id, row.name, name))
    for key in (*limits, *([f"name:{name}"] if is_known_address else [])):
        failed(session, key, real_now)
    _remember(session, account, name, where, Outcome.REFUSED, real_now)
    return Try(None)


def waits(session: Session, key: str, limit: Limit, real_now: dt.datetime) -> int:
    """Seconds until the next try is listened to; 0 where it is now."""
    tries = session.execute(text("SELECT failures, newest FROM bm_tries(:key, :since)"), {"key": key, "since": real_now - WINDOW}).one()
    if not tries.failures:
        return 0
    left = tries.newest + limit.wait(tries.failures) - real_now
    # A clock that was set back makes nobody wait longer than the limit says.
    return int(max(0, min(-(-left // dt.timedelta(seconds=1)), limit.longest.total_seconds())))


def failed(session: Session, key: str, real_now: dt.datetime) -> None:
    session.execute(text("SELECT bm_failed(:key, :now)"), {"key": key, "now": real_now})


def _remember(session: Session, account: uuid.UUID | None, name: str, where: From, outcome: Outcome, real_now: dt.datetime) -> None:
    session.execute(
        text("SELECT bm_sign_in_event(:account, :name, :address, :device, :outcome, :now)"),
        {
            "account": account,
            "name": name,
            "address": where.address,
            "device": where.device[:MOST_DEVICE],
            "outcome": outcome,
            "now": real_now,
        },
    )


def begin(session: Session, person: Person, where: From, real_now: dt.datetime, *, own_phone: str = "") -> str:
    """A new sign-in; the token that stands for it, told this once. own_phone: the phone's name, where it is one's own."""
    token = secrets.token_urlsafe(32)
    session.execute(
        text("SELECT bm_session_open(:id, :hashed, :account, :device, :address, :now, :ends)"),
        {
            "id": uuid.uuid4(),
            "hashed": hashed(token),
            "account": person.id,
            "device": (own_phone or where.device)[:MOST_DEVICE],
            "address": where.address,
            "now": real_now,
            "ends": real_now + (PHONE if own_phone else DAY),
        },
    )
    note(session, person, where, Outcome.SIGNED_IN, real_now)
    return token


def of_token(session: Session, token: str, real_now: dt.datetime) -> Here | None:
    """Whose sign-in it is; None where it has ended."""
    row = session.execute(text("SELECT * FROM bm_session(:hashed, :now)"), {"hashed": hashed(token), "now": real_now}).one_or_none()
    return Here(row.session_id, Person(row.account_id, row.name, row.email), row.asked_at) if row else None


def is_fresh(asked_at: dt.datetime, real_now: dt.datetime) -> bool:
    """Whether somebody has said who it is so lately that it need not be asked again."""
    return real_now - asked_at < ASK_AGAIN_AFTER


def asked(session: Session, token: str, person: Person, where: From, real_now: dt.datetime) -> None:
    """Note that the person who signed in has given the password again."""
    session.execute(text("SELECT bm_session_asked(:hashed, :now)"), {"hashed": hashed(token), "now": real_now})
    note(session, person, where, Outcome.ASKED, real_now)


def note(session: Session, person: Person, where: From, outcome: Outcome, real_now: dt.datetime) -> None:
    """Remember what somebody did to the own account, for its holder to read."""
    _remember(session, person.id, person.email, where, outcome, real_now)


def end(session: Session, account: uuid.UUID, sign_in: uuid.UUID, real_now: dt.datetime) -> None:
    """End one sign-in of an account; another's stays."""
    session.execute(text("SELECT bm_session_end(:account, :id, :now, 'person')"), {"account": account, "id": sign_in, "now": real_now})


def end_all_of_member(session: Session, account: uuid.UUID, real_now: dt.datetime) -> int:
    """End every sign-in of a member of the session's farm; how many there were."""
    return int(session.execute(text("SELECT bm_member_signed_out(:account, :now)"), {"account": account, "now": real_now}).scalar_one())


def listed(session: Session, account: uuid.UUID, real_now: dt.datetime) -> list[SignIn]:
    """The sign-ins of an account that last, the newest seen first."""
    rows = session.execute(text("SELECT * FROM bm_sessions(:account, :now)"), {"account": account, "now": real_now})
    return [SignIn(row.id, row.device, row.address, row.made_at, row.seen_at, row.ends_at) for row in rows]


def events(session: Session, account: uuid.UUID) -> list[Event]:
    """What came of the newest tries to sign in as an account."""
    rows = session.execute(text("SELECT * FROM bm_sign_in_events(:account, :most)"), {"account": account, "most": MOST_EVENTS})
    return [Event(row.at, row.address, row.device, row.outcome) for row in rows]
