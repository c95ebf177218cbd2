"""Every write is a command: stored once, replayed when sent again, kept beside its rival when it comes late.

One transaction holds the command, the version that it makes, the new head and what is derived.
"""

import datetime as dt
import hashlib
import json
import uuid
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, insert, select, text
from sqlalchemy.orm import Session

from bootmark.core.catalogue import Catalogue
from bootmark.services import memo
from bootmark.services.people import Member
from bootmark.store.base import Head
from bootmark.store.models import Command, Farm
from bootmark.store.versions import VERSIONS

Json = dict[str, Any]
DERIVED = uuid.UUID("5b9d1f3e-6f0a-4f0e-9a44-8f7d5c0d2b61")


class Refused(Exception):
    """The command can't be stored. errors: field to what is wrong and what would be right."""

    def __init__(self, **errors: str) -> None:
        super().__init__("; ".join(errors.values()))
        self.errors = errors


class Forbidden(Refused):
    """This role may not do it."""


class OtherContent(Refused):
    """The command's id has been used for something else."""


class TooEarly(Refused):
    """What it refers to has not arrived yet: send it again later."""


@dataclass(frozen=True)
class Sent:
    """A command as it arrives."""

    command_id: uuid.UUID
    kind: str
    record_id: uuid.UUID
    base_version: int
    seen_at: dt.datetime
    payload: Json

    @classmethod
    def of(cls, raw: Mapping[str, Any]) -> "Sent":
        try:
            seen_at = dt.datetime.fromisoformat(str(raw["seen_at"]))
            payload = raw["payload"]
            if seen_at.tzinfo is None or not isinstance(payload, dict):
                raise ValueError
            return cls(
                uuid.UUID(str(raw["command_id"])),
                str(raw["kind"]),
                uuid.UUID(str(raw["record_id"])),
                int(raw["base_version"]),
                seen_at,
                payload,
            )
        except (KeyError, ValueError, TypeError) as error:
            raise Refused(
                command="A command needs command_id and record_id (uuid), kind, base_version (number), seen_at (with its zone) and payload."
            ) from error

    def digest(self) -> str:
        content = [self.kind, str(self.record_id), self.base_version, self.seen_at.isoformat(), self.payload]
        return hashlib.sha256(json.dumps(content, sort_keys=True, separators=(",", ":")).encode()).hexdigest()


@dataclass(frozen=True)
class Context:
    """What a handler may know. real_now is for received_at only; seen_at is farm time."""

    session: Session
    farm: Farm
    member: Member
    catalogue: Catalogue
    real_now: dt.datetime
    sent: Sent

    @property
    def farm_id(self) -> uuid.UUID:
        return self.farm.id

    def get(self, model: type[Any], record_id: Any, what: str) -> Any:
        """A row of this farm that the command refers to."""
        try:
            key = uuid.UUID(str(record_id))
        except ValueError as error:
            raise Refused(**{what: f"The {what.removesuffix('_id')} is not given as an id."}) from error
        row = self.session.get(model, (self.farm_id, key))
        if row is None:
            raise TooEarly(**{what: f"The {what.removesuffix('_id')} is not known here yet."})
        return row

    def derived_id(self, kind: str, ordinal: int) -> uuid.UUID:
        return uuid.uuid5(DERIVED, f"{version_id(self.sent)}/{kind}/{ordinal}")


Handler = Callable[[Context], Json]
Derive = Callable[[Context, Any], None]


@dataclass(frozen=True)
class Kind:
    name: str
    head: type[Head]
    roles: frozenset[str]
    handler: Handler
    derive: Derive | None
    about: str


KINDS: dict[str, Kind] = {}


def kind(name: str, head: type[Head], roles: Sequence[str], derive: Derive | None = None) -> Callable[[Handler], Handler]:
    """Register the handler of one kind: checks the payload and returns the head's columns."""

    def register(handler: Handler) -> Handler:
        KINDS[name] = Kind(name, head, frozenset(roles), handler, derive, (handler.__doc__ or "").strip().splitlines()[0])
        return handler

    return register


def version_id(sent: Sent) -> uuid.UUID:
    return uuid.uuid5(DERIVED, str(sent.command_id))


def handle(session: Session, farm: Farm, member: Member, catalogue: Catalogue, sent: Sent, real_now: dt.datetime) -> Json:
    """Carry out one command inside the caller's transaction and return its result.

    Raises Refused (or Forbidden, OtherContent, TooEarly) and stores nothing then.
    """
    one = KINDS.get(sent.kind)
    if one is None:
        raise Refused(kind=f"{sent.kind!r} is not a kind of command; known are {', '.join(sorted(KINDS))}.")
    # Two sessions that send the same command, or write the same record, take turns.
    for key in (sent.command_id, sent.record_id):
        session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": str(key)})
    before = session.get(Command, (farm.id, sent.command_id))
    if before is not None:
        if before.content_hash != sent.digest():
            raise OtherContent(command_id="This command was sent before with other content: nothing was changed.")
        return {**before.result, "replayed": True}
    if member.role not in one.roles:
        raise Forbidden(role=f"A {member.role} can't do this; it takes {' or '.join(sorted(one.roles))}.")
    context = Context(session, farm, member, catalogue, real_now, sent)
    columns = one.handler(context)
    head = session.get(one.head, (farm.id, sent.record_id), with_for_update=True, populate_existing=True)
    current = head.version if head else 0
    conflict = sent.base_version != current
    number = current + 1
    if head:
        versions = VERSIONS[one.head]
        newest = select(func.max(versions.c.number)).where(versions.c.farm_id == farm.id, versions.c.record_id == sent.record_id)
        number = session.execute(newest).scalar_one() + 1
    elif sent.base_version:
        raise TooEarly(base_version="The version that this builds on has not arrived yet.")
    result: Json = {
        "status": "conflict" if conflict else "stored",
        "record_id": str(sent.record_id),
        "version": number,
    }
    session.add(
        Command(
            farm_id=farm.id,
            id=sent.command_id,
            kind=sent.kind,
            record_id=sent.record_id,
            base_version=sent.base_version,
            seen_at=sent.seen_at,
            received_at=real_now,
            account_id=member.account_id,
            content_hash=sent.digest(),
            result=result,
        )
    )
    if head and conflict:
        head.conflict = True
    else:
        head = head or one.head()
        head.farm_id, head.id = farm.id, sent.record_id
        fresh = {
            "version": number,
            "version_id": version_id(sent),
            "conflict": False,
            "seen_at": sent.seen_at,
            "account_id": member.account_id,
        }
        for name, value in {**columns, **fresh}.items():
            setattr(head, name, value)
        session.add(head)
    session.flush()
    session.execute(
        insert(VERSIONS[one.head]).values(
            farm_id=farm.id,
            id=version_id(sent),
            record_id=sent.record_id,
            number=number,
            base=sent.base_version,
            conflict=conflict,
            command_id=sent.command_id,
            account_id=member.account_id,
            seen_at=sent.seen_at,
            received_at=real_now,
            payload=sent.payload,
        )
    )
    memo.forget(session)
    if one.derive and not conflict:
        one.derive(context, head)
        session.flush()
    return result


def sync(
    session: Session, farm: Farm, member: Member, catalogue: Catalogue, batch: Sequence[Mapping[str, Any]], real_now: dt.datetime
) -> list[Json]:
    """Carry out a batch, each command behind its own savepoint; one result for each, in the order sent.

    A command that came before what it refers to is tried once more after the others.
    """
    results: dict[int, Json] = {}
    waiting = list(enumerate(batch))
    for last_round in (False, True):
        later = []
        for place, raw in waiting:
            answer: Json = {"command_id": raw.get("command_id") if isinstance(raw, Mapping) else None}
            try:
                with session.begin_nested():
                    answer |= handle(session, farm, member, catalogue, Sent.of(raw), real_now)
            except TooEarly as error:
                later.append((place, raw))
                answer |= {"status": "wait", "errors": error.errors}
            except OtherContent as error:
                answer |= {"status": "other content", "errors": error.errors}
            except Refused as error:
                answer |= {"status": "refused", "errors": error.errors}
            results[place] = answer
        waiting = later
        if last_round or not waiting:
            break
    return [results[place] for place in sorted(results)]


def as_json(value: Any) -> Any:
    """Dates and ids as text, dataclasses and mappings as dicts, for a working that is kept."""
    if hasattr(value, "__dataclass_fields__"):
        return {name: as_json(getattr(value, name)) for name in value.__dataclass_fields__}
    if isinstance(value, Mapping):
        return {str(key): as_json(one) for key, one in value.items()}
    if isinstance(value, (list, tuple, set, frozenset)):
        return [as_json(one) for one in value]
    if isinstance(value, (dt.date, dt.datetime)):
        return value.isoformat()
    return str(value) if isinstance(value, uuid.UUID) else value


class Fields:
    """Reads a payload field by field and gathers what is wrong, so that all of it is told at once."""

    def __init__(self, payload: Mapping[str, Any]) -> None:
        self.payload, self.errors = payload, dict[str, str]()

    def text(self, name: str, *, most: int = 2000, needed: bool = True) -> str:
        value = str(self.payload.get(name) or "").strip()
        if needed and not value:
            self.errors[name] = "This is empty: write something here."
        if len(value) > most:
            self.errors[name] = f"This has {len(value)} characters; {most} is the most."
        return value

    def number(self, name: str, low: float, high: float, unit: str = "") -> float:
        try:
            value = float(str(self.payload.get(name)).replace(",", "."))
        except ValueError:
            self.errors[name] = (
                f"{self.payload.get(name) or 'Nothing'} is not a number: write one from {low:g} to {high:g} {unit}.".replace(" .", ".")
            )
            return low
        if not low <= value <= high:
            self.errors[name] = f"{value:g} is out of range: write a number from {low:g} to {high:g} {unit}.".replace(" .", ".")
        return value

    def day(self, name: str) -> dt.date:
        try:
            return dt.date.fromisoformat(str(self.payload.get(name)))
        except ValueError:
            self.errors[name] = f"{self.payload.get(name) or 'Nothing'} is not a day: write it as 2026-06-18."
            return dt.date.min

    def moment(self, name: str) -> dt.datetime:
        try:
            value = dt.datetime.fromisoformat(str(self.payload.get(name)))
            if value.tzinfo:
                return value
        except ValueError:
            pass
        self.errors[name] = "This is not a day and time: write it as 2026-06-18T07:40."
        return dt.datetime.min.replace(tzinfo=dt.UTC)

    def one_of(self, name: str, allowed: Sequence[str]) -> str:
        value = str(self.payload.get(name) or "")
        if value not in allowed:
            self.errors[name] = f"{value or 'Nothing'} can't be chosen here: take {', '.join(allowed)}."
        return value

    def counts(self, name: str) -> list[int]:
        raw = self.payload.get(name) or []
        if not isinstance(raw, list) or not all(isinstance(one, int) and not isinstance(one, bool) and 0 <= one <= 100_000 for one in raw):
            self.errors[name] = "Counts are whole numbers from 0 up, one for each unit looked at."
            return []
        return raw

    def done(self) -> None:
        if self.errors:
            raise Refused(**self.errors)
