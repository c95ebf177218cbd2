"""Records of another kind that a command changes beside its own: each gets a version, and the command stands by it."""

import uuid
from typing import Any, TypeVar

from sqlalchemy import func, insert, select

from bootmark.services.base.handling import Context, as_json
from bootmark.store.base import Head
from bootmark.store.versions import VERSIONS

AnyHead = TypeVar("AnyHead", bound=Head)


def change(context: Context, model: type[AnyHead], record_id: uuid.UUID, payload: dict[str, Any], **more: Any) -> AnyHead:
    """Make or change a record as its own command would. payload: as that command says it; more: attributes that no command says."""
    session, sent = context.session, context.sent
    head = session.get(model, (context.farm_id, record_id), with_for_update=True, populate_existing=True)
    base = head.command_id if head else None
    versions = VERSIONS[model]
    newest = select(func.max(versions.c.number)).where(versions.c.farm_id == context.farm_id, versions.c.record_id == record_id)
    number = int(session.execute(newest).scalar_one() or 0) + 1
    if head is None:
        head = model()
        head.farm_id, head.id, head.conflict = context.farm_id, record_id, False
    for name, value in (payload | more).items():
        setattr(head, name, value)
    head.version, head.version_id = number, context.derived_id(f"version of {record_id}", 0)
    head.command_id, head.seen_at, head.account_id = sent.command_id, sent.seen_at, context.member.account_id
    session.add(head)
    session.flush()
    row = {
        "farm_id": context.farm_id,
        "id": head.version_id,
        "record_id": record_id,
        "number": number,
        "base_command": base,
        "conflict": False,
        "command_id": sent.command_id,
        "account_id": context.member.account_id,
        "seen_at": sent.seen_at,
        "received_at": context.real_now,
        "payload": as_json(payload),
    }
    session.execute(insert(versions).values(row))
    return head
