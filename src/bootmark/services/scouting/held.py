"""Which blocks are held after a report, and what is said of it."""

import uuid

from sqlalchemy.orm import Session

from bootmark.core.messages import Message, Says, says
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import HoldState
from bootmark.store.models import Hold
from bootmark.store.rows import of_farm

_held: memo.Kept[dict[uuid.UUID, Message]] = memo.Kept(64)


def blocks(session: Session) -> dict[uuid.UUID, Message]:
    """The blocks that are held, each with what is said of the hold that began first."""
    return stamp.while_standing(session, _held, (Topic.TREATMENT, Topic.PLACES), "held", lambda: _read(session))


def _read(session: Session) -> dict[uuid.UUID, Message]:
    rows = session.scalars(of_farm(Hold).where(Hold.state == HoldState.HELD).order_by(Hold.since.desc(), Hold.id))
    heirs = ground.heirs(session)
    said = ((hold, says(Says.BLOCK_HELD, agent=hold.agent, since=hold.since)) for hold in rows)
    return {block.id: text for hold, text in said for block in heirs.since(hold.block_id, hold.since)}
