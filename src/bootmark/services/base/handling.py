"""What carries a command out: what a handler may know, and how it is joined to its declaration."""

import datetime as dt
import hashlib
import json
import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Catalogue
from bootmark.core.messages import Message
from bootmark.services.base.command import Command, Refused, TooEarly
from bootmark.services.base.farm_time import zone
from bootmark.services.base.fields import YEARS, Checks, can_be_stored
from bootmark.services.base.people import Member
from bootmark.store.base import Head, Withdrawable
from bootmark.store.models import Farm

Json = dict[str, Any]
DERIVED = uuid.UUID("5b9d1f3e-6f0a-4f0e-9a44-8f7d5c0d2b61")
MOST_REASON = 300
OLDEST = dt.timedelta(days=3 * 365)
"""No phone is without signal for longer: it was set back by an empty battery."""
LEAST_FIELDS = (
    "A command needs command_id and record_id (uuid), kind, v (number), base (the command that it builds on, or null), "
    "seen_at (with its zone) and payload."
)
AnyCommand = TypeVar("AnyCommand", bound=Command)
AnyHead = TypeVar("AnyHead", bound=Head)


@dataclass(frozen=True)
class Sent:
    """A command as it arrives.

    base: the command that this one builds on, None if new; base_number: what devices of before version 0.2 sent instead, the number of
    that command's version; merges: commands whose versions a person has taken up in this one; seen_at: when it was done, by the farm's
    time; told_at: the same as the device said it; reason: why, where a record is changed; withdrawn: it is to count no more.
    """

    command_id: uuid.UUID
    kind: str
    v: int
    record_id: uuid.UUID
    base: uuid.UUID | None
    seen_at: dt.datetime
    payload: Any
    content_hash: str
    told_at: dt.datetime
    sent_at: dt.datetime | None = None
    base_number: int | None = None
    merges: tuple[uuid.UUID, ...] = ()
    reason: str = ""
    withdrawn: bool = False

    @classmethod
    def of(cls, raw: Any, now: dt.datetime, *, sent_at: dt.datetime | None = None, off_by: dt.timedelta = dt.timedelta(0)) -> "Sent":
        """Read one. now: the farm's time; off_by: what the device's clock is behind the farm's. Raises Refused."""
        try:
            told_at = dt.datetime.fromisoformat(raw["seen_at"]) if raw.get("seen_at") is not None else now
            if told_at.tzinfo is None or told_at.year not in YEARS:
                raise ValueError
            return cls(
                command_id=uuid.UUID(raw["command_id"]),
                kind=str(raw["kind"]),
                v=int(raw.get("v", 1)),
                record_id=uuid.UUID(raw["record_id"]),
                base=uuid.UUID(raw["base"]) if raw.get("base") is not None else None,
                seen_at=believed(told_at + off_by, now),
                payload=raw["payload"],
                content_hash=_content_hash(raw),
                told_at=told_at,
                sent_at=sent_at,
                base_number=int(raw["base_version"]) if "base" not in raw and raw.get("base_version") else None,
                merges=tuple(uuid.UUID(command) for command in raw.get("merges", ())),
                reason=_reason(raw.get("reason", "")),
                withdrawn=raw.get("withdrawn", False) is True,
            )
        except (KeyError, ValueError, TypeError, AttributeError, OverflowError) as error:
            raise Refused(command=say.line(LEAST_FIELDS)) from error

    @property
    def version_id(self) -> uuid.UUID:
        return version_id(self.command_id)


def device_moment(text: Any) -> dt.datetime | None:
    """A time as a device tells it, with its zone; None where it tells none that can be."""
    try:
        moment = dt.datetime.fromisoformat(text)
    except (TypeError, ValueError):
        return None
    return moment if moment.tzinfo and moment.year in YEARS else None


def believed(moment: dt.datetime, now: dt.datetime) -> dt.datetime:
    """When it was done, as far as that can be: a clock that says what is still to come, or what was years ago, is not believed."""
    return moment if now - OLDEST <= moment <= now else now


def _reason(said: Any) -> str:
    """Why somebody changes a record. Raises ValueError where it is no text that can be kept."""
    if not isinstance(said, str) or len(said) > MOST_REASON or not can_be_stored(said):
        raise ValueError
    return said.strip()


def version_id(command_id: uuid.UUID) -> uuid.UUID:
    """The id of the version that a command makes."""
    return uuid.uuid5(DERIVED, str(command_id))


def _content_hash(raw: Mapping[str, Any]) -> str:
    """Of the JSON as it arrived, the time of sending left out: that alone differs where the same command is sent again."""
    content: Any = {name: value for name, value in raw.items() if name != "sent_at"}
    if "base_version" in raw and "base" not in raw:
        # As it was reckoned before version 0.2: what a device sent then and sends again now is the same command.
        told_at = dt.datetime.fromisoformat(raw["seen_at"])
        content = [raw["kind"], str(uuid.UUID(raw["record_id"])), int(raw["base_version"]), told_at.isoformat(), raw["payload"]]
    return hashlib.sha256(json.dumps(content, sort_keys=True, separators=(",", ":")).encode()).hexdigest()


@dataclass(frozen=True)
class Context:
    """What a handler may know. real_now is for received_at only; seen_at is farm time. errors: what the farm has against the command."""

    session: Session
    farm: Farm
    member: Member
    catalogue: Catalogue
    real_now: dt.datetime
    sent: Sent
    errors: dict[str, str] = field(default_factory=dict)

    @property
    def farm_id(self) -> uuid.UUID:
        return self.farm.id

    @property
    def today(self) -> dt.date:
        """The farm's day on which it was done."""
        return self.sent.seen_at.astimezone(zone(self.farm)).date()

    @property
    def checks(self) -> Checks:
        """What the command's fields are held against."""
        return Checks(self.catalogue, self.today)

    def get(self, model: type[Any], record_id: uuid.UUID, name: str) -> Any:
        """A row of this farm that the command refers to. name: its field. Raises TooEarly."""
        row = self.session.get(model, (self.farm_id, record_id))
        what = name.removesuffix("_id")
        if row is None:
            raise TooEarly(**{name: say.line("The {name} is not known here yet.", name=what)})
        if isinstance(row, Withdrawable) and row.withdrawn:
            self.errors[name] = say.line("This {name} was withdrawn: take another.", name=what)
        return row

    def take_turns(self, over: str) -> None:
        """Let those who take something of the farm at the same moment, as a name, take turns: the second sees what the first took."""
        key = f"{over} of {self.farm_id}"
        self.session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": key})

    def derived_id(self, kind: str, ordinal: int) -> uuid.UUID:
        return uuid.uuid5(DERIVED, f"{self.sent.version_id}/{kind}/{ordinal}")

    def refuse_what_is_wrong(self) -> None:
        if self.errors:
            raise Refused(**self.errors)


Upgrade = Callable[[Any, Farm], Any]
"""Brings a payload of an older version to the present shape; one that it can't read it leaves for the rules to refuse."""


@dataclass(frozen=True)
class Handler(Generic[AnyCommand, AnyHead]):
    """Joins a declaration with what stores it: act makes the head as it is to be, derive what follows from it.

    beside: what the farm has against a payload of which some fields are wrong by themselves, so that all of it is told at once.
    upgrades: of each older version, what brings a payload of it to the present shape; none is ever taken away.
    undo: what becomes of what followed from a record that is withdrawn.
    keeps: what a version holds, where the command says less than its record is or otherwise; None where it is the payload.
    """

    command: type[AnyCommand]
    head: type[AnyHead]
    act: Callable[[AnyCommand, Context], AnyHead]
    derive: Callable[[Context, AnyHead], None] | None = None
    beside: Callable[[Any, Context], dict[str, str]] | None = None
    upgrades: Mapping[int, Upgrade] = field(default_factory=dict)
    keeps: Callable[[AnyHead], Json] | None = None
    undo: Callable[[Context, AnyHead], None] | None = None


def handles(
    command: type[AnyCommand],
    head: type[AnyHead],
    derive: Callable[[Context, AnyHead], None] | None = None,
    *,
    beside: Callable[[Any, Context], dict[str, str]] | None = None,
    upgrades: Mapping[int, Upgrade] | None = None,
    keeps: Callable[[AnyHead], Json] | None = None,
    undo: Callable[[Context, AnyHead], None] | None = None,
) -> Callable[[Callable[[AnyCommand, Context], AnyHead]], Handler[AnyCommand, AnyHead]]:
    def join(act: Callable[[AnyCommand, Context], AnyHead]) -> Handler[AnyCommand, AnyHead]:
        return Handler(command, head, act, derive, beside, upgrades or {}, keeps, undo)

    return join


def as_json(value: Any) -> Any:
    """For a working that is kept: ids, days and times as text, values as dicts, messages with their text as it is shown now."""
    if isinstance(value, Message):
        return as_json(say.kept(value))
    if hasattr(value, "__dataclass_fields__"):
        return {name: as_json(getattr(value, name)) for name in value.__dataclass_fields__}
    if isinstance(value, Mapping):
        return {str(key): as_json(part) for key, part in value.items()}
    if isinstance(value, (list, tuple, set, frozenset)):
        return [as_json(part) for part in value]
    if isinstance(value, (dt.date, dt.time)):
        return value.isoformat()
    return str(value) if isinstance(value, uuid.UUID) else value
