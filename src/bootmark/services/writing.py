"""The one way in for every write: a command is stored once, replayed when sent again, kept beside its rival when it comes late.

One transaction holds the command, the version that it makes, the new head and what is derived. The head moves only if the command
builds on the one that made it; otherwise its version stands beside the head, and later commands that build on it stay there too.
"""

import dataclasses
import datetime as dt
import logging
import uuid
from collections.abc import Sequence
from typing import Any

from psycopg.errors import UniqueViolation
from sqlalchemy import func, insert, inspect, select, text
from sqlalchemy.exc import IntegrityError, InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Catalogue
from bootmark.services.base import farm_time
from bootmark.services.base.command import Answer, AskFirst, Forbidden, OtherContent, Refused, TooEarly
from bootmark.services.base.handling import Context, Handler, Json, Sent, as_json
from bootmark.services.base.people import Member
from bootmark.services.kinds import KINDS
from bootmark.store.base import Head, Withdrawable
from bootmark.store.models import CommandRow, Farm
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS

TRIES = 3
TRUSTED_CLOCK = dt.timedelta(minutes=2)
"""Difference between a device's clock and the farm's that is taken for the time on the way."""
META = frozenset({"farm_id", "id", "version", "version_id", "command_id", "conflict", "seen_at", "account_id"})
log = logging.getLogger("bootmark.writing")


def handle(session: Session, farm: Farm, member: Member, catalogue: Catalogue, sent: Sent, real_now: dt.datetime) -> Json:
    """Carry out one command inside the caller's transaction and return its result.

    Raises Refused (or Forbidden, OtherContent, TooEarly) and stores nothing then.
    """
    handler = KINDS.get(sent.kind)
    if handler is None:
        raise Refused(
            kind=say.line("{kind} is not a kind of command; there are {kinds}.", kind=repr(sent.kind[:60]), kinds=", ".join(sorted(KINDS)))
        )
    # Two sessions that send the same command, or write the same record, take turns.
    for key in (sent.command_id, sent.record_id):
        session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 0))"), {"key": str(key)})
    before = session.get(CommandRow, (farm.id, sent.command_id))
    if before is not None:
        if before.content_hash != sent.content_hash:
            raise OtherContent(command_id=say.line("This command was sent before with other content: nothing was changed."))
        return {**before.result, "replayed": True}
    Forbidden.unless(member.role, handler.command.spec.roles)
    if handler.command.spec.signs and not member.fresh:
        raise AskFirst
    if sent.v in handler.upgrades:
        sent = dataclasses.replace(sent, payload=handler.upgrades[sent.v](sent.payload, farm))
    elif sent.v != handler.command.spec.v:
        raise Refused(
            v=say.line(
                "Version {v} of {kind} is not known here, {wanted} is: load the page again.",
                v=sent.v,
                kind=sent.kind,
                wanted=handler.command.spec.v,
            )
        )
    for attempt in range(TRIES):
        try:
            with session.begin_nested():
                return _store(Context(session, farm, member, catalogue, real_now, sent), handler)
        except IntegrityError as error:
            # Somebody else took the same name a moment ago: the handler sees it now, and says so in words.
            if not isinstance(error.orig, UniqueViolation) or attempt == TRIES - 1:
                raise
    raise AssertionError("unreachable")


def _store(context: Context, handler: Handler[Any, Any]) -> Json:
    session, sent = context.session, context.sent
    try:
        command = handler.command.read(sent.payload, context.checks)
    except Refused as error:
        raise Refused(**{**(handler.beside(sent.payload, context) if handler.beside else {}), **error.errors}) from None
    fresh = handler.act(command, context)
    if isinstance(fresh, Withdrawable):
        fresh.withdrawn = sent.withdrawn
    elif sent.withdrawn:
        context.errors["withdrawn"] = say.line("Such a record is not withdrawn: put it right, or make it anew.")
    if sent.withdrawn and not sent.reason:
        context.errors["reason"] = say.line("Say why it is withdrawn, for whoever reads it later.")
    context.refuse_what_is_wrong()
    head = session.get(handler.head, (context.farm_id, sent.record_id), with_for_update=True, populate_existing=True)
    base = _base(context, handler.head)
    if base is not None and head is None:
        raise TooEarly(base=say.line("What this builds on has not arrived yet."))
    beside = head is not None and base != head.command_id
    number = _next_number(context, handler.head) if head else 1
    result: Json = {"status": Answer.CONFLICT if beside else Answer.STORED, "record_id": str(sent.record_id), "version": number}
    session.add(_command_row(context, base, result))
    if head is None:
        head = fresh
        head.farm_id, head.id, head.conflict = context.farm_id, sent.record_id, False
        session.add(head)
    elif beside:
        head.conflict = True
    else:
        _move(head, fresh)
        head.conflict = head.conflict and not sent.merges
    if not beside:
        head.version, head.version_id, head.command_id = number, sent.version_id, sent.command_id
        head.seen_at, head.account_id = sent.seen_at, context.member.account_id
    session.flush()
    _keep_version(context, handler.head, number, base, beside, as_json(handler.keeps(fresh)) if handler.keeps else sent.payload)
    follow = handler.undo if sent.withdrawn else handler.derive
    if follow and not beside:
        follow(context, head)
        session.flush()
    return result


def _base(context: Context, head: type[Head]) -> uuid.UUID | None:
    """The command that this one builds on, however the device told it. Raises TooEarly where it has not arrived."""
    sent, versions = context.sent, VERSIONS[head]
    if sent.base is None and sent.base_number is None:
        return None
    named = versions.c.command_id == sent.base if sent.base else versions.c.number == sent.base_number
    where = (versions.c.farm_id == context.farm_id, versions.c.record_id == sent.record_id, named)
    base = context.session.execute(select(versions.c.command_id).where(*where)).scalar_one_or_none()
    if base is None:
        raise TooEarly(base=say.line("What this builds on has not arrived yet."))
    return uuid.UUID(str(base))


def _next_number(context: Context, head: type[Head]) -> int:
    versions = VERSIONS[head]
    newest = select(func.max(versions.c.number)).where(
        versions.c.farm_id == context.farm_id, versions.c.record_id == context.sent.record_id
    )
    return int(context.session.execute(newest).scalar_one()) + 1


def _move(head: Head, fresh: Head) -> None:
    """Give the head what the command says of it; what no command writes stays as it is."""
    for attribute in inspect(type(head)).column_attrs.keys():  # noqa: SIM118 - a collection, not a dict
        if attribute not in META and attribute in fresh.__dict__:
            setattr(head, attribute, getattr(fresh, attribute))


def _command_row(context: Context, base: uuid.UUID | None, result: Json) -> CommandRow:
    sent = context.sent
    return CommandRow(
        farm_id=context.farm_id,
        id=sent.command_id,
        kind=sent.kind,
        v=sent.v,
        record_id=sent.record_id,
        base=base,
        merges=[str(command) for command in sent.merges],
        seen_at=sent.seen_at,
        told_at=sent.told_at,
        sent_at=sent.sent_at,
        received_at=context.real_now,
        account_id=context.member.account_id,
        content_hash=sent.content_hash,
        result=result,
        reason=sent.reason,
        withdrawn=sent.withdrawn,
    )


def _keep_version(context: Context, head: type[Head], number: int, base: uuid.UUID | None, beside: bool, payload: Any) -> None:
    sent = context.sent
    row = {
        "farm_id": context.farm_id,
        "id": sent.version_id,
        "record_id": sent.record_id,
        "number": number,
        "base_command": base,
        "conflict": beside,
        "command_id": sent.command_id,
        "account_id": context.member.account_id,
        "seen_at": sent.seen_at,
        "received_at": context.real_now,
        "payload": payload,
    }
    context.session.execute(insert(VERSIONS[head]).values(row))


def sync(
    farm_id: uuid.UUID,
    member: Member,
    catalogue: Catalogue,
    batch: Sequence[Any],
    real_now: dt.datetime,
    sent_at: dt.datetime | None = None,
) -> list[Json]:
    """Carry out a batch, each command in a transaction of its own; one answer for each, in the order sent.

    Answers: stored, conflict (kept beside the head), wait (what it refers to is not here yet), refused, ask (a signature: who it is must
    be said again first), other content, again (the database was busy) and fault (unforeseen, logged). A command that came before what it
    refers to is tried once more after the others.
    """
    answers: dict[int, Json] = {}
    waiting = list(enumerate(batch))
    for last_round in (False, True):
        later = []
        for place, raw in waiting:
            answers[place] = _answer(farm_id, member, catalogue, raw, real_now, sent_at)
            if answers[place]["status"] == Answer.WAIT:
                later.append((place, raw))
        waiting = later
        if last_round or not waiting:
            break
    return [answers[place] for place in sorted(answers)]


def _answer(farm_id: uuid.UUID, member: Member, catalogue: Catalogue, raw: Any, real_now: dt.datetime, sent_at: dt.datetime | None) -> Json:
    answer: Json = {"command_id": raw.get("command_id") if isinstance(raw, dict) else None}
    for attempt in range(TRIES):
        try:
            with farm_session(farm_id) as session:
                farm = session.get_one(Farm, farm_id)
                sent = Sent.of(raw, farm_time.now(farm, real_now), sent_at=sent_at, off_by=off_by(farm, sent_at, real_now))
                result = handle(session, farm, member, catalogue, sent, real_now)
            return answer | result
        except TooEarly as error:
            return answer | {"status": Answer.WAIT, "errors": error.errors}
        except AskFirst as error:
            return answer | {"status": Answer.ASK, "errors": error.errors}
        except OtherContent as error:
            return answer | {"status": Answer.OTHER_CONTENT, "errors": error.errors}
        except Refused as error:
            return answer | {"status": Answer.REFUSED, "errors": error.errors}
        except (OperationalError, InterfaceError, PoolTimeout):
            if attempt == TRIES - 1:
                log.warning("command %s found the database busy %d times", answer["command_id"], TRIES)
        except Exception:
            log.exception("command %s failed", answer["command_id"])
            return answer | {
                "status": Answer.FAULT,
                "errors": {"command": say.line("Bootmark failed at this record. It is kept, and sent again later.")},
            }
    return answer | {"status": Answer.AGAIN, "errors": {"command": say.line("The database was busy: it is sent again.")}}


def off_by(farm: Farm, sent_at: dt.datetime | None, real_now: dt.datetime) -> dt.timedelta:
    """What a device's clock is behind the farm's. A demo farm's clock stands still, and no device can be wrong by it."""
    if sent_at is None or farm.clock_at is not None:
        return dt.timedelta(0)
    difference = farm_time.now(farm, real_now) - sent_at
    return difference if abs(difference) > TRUSTED_CLOCK else dt.timedelta(0)
