"""Which blocks are closed after what was signed for on them, and while it is being done."""

import datetime as dt
import uuid

from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.catalogue import Catalogue
from bootmark.core.field import closed
from bootmark.core.field.closed import Early, Sprayed
from bootmark.core.messages import Message
from bootmark.services.base import applied, ground, memo, planned, stamp
from bootmark.services.base.applied import Applied
from bootmark.services.base.stamp import Topic
from bootmark.store.models import BegunWork, TreatmentRow

_sprays: memo.Kept[list[Sprayed]] = memo.Kept(64)


def blocks(session: Session, catalogue: Catalogue, now: dt.datetime) -> dict[uuid.UUID, Message]:
    """The blocks that nobody goes into now, each with why and until when."""
    return {uuid.UUID(block): why for block, why in closed.blocks(_all(session, catalogue, now), now).items()}


def hand_work(session: Session, catalogue: Catalogue, now: dt.datetime) -> dict[uuid.UUID, Message]:
    """The blocks in which hands thin, tie and pick nothing now though people may walk there, each with why."""
    return {uuid.UUID(block): why for block, why in closed.hand_work(_all(session, catalogue, now), now).items()}


def _all(session: Session, catalogue: Catalogue, now: dt.datetime) -> list[Sprayed]:
    key = (catalogue.hash, now.date())
    return stamp.while_standing(session, _sprays, (Topic.TREATMENT, Topic.PLACES), key, lambda: _read(session, catalogue, now))


def _read(session: Session, catalogue: Catalogue, now: dt.datetime) -> list[Sprayed]:
    heirs = ground.heirs(session)
    done = [
        _sprayed(block.id, row, catalogue)
        for row in applied.since(session, now.date() - dt.timedelta(days=judgement.LONGEST_REENTRY_DAYS))
        for block in heirs.of(row.block_id, row.ended.astimezone(now.tzinfo).date())
    ]
    begun = planned.being_done(TreatmentRow.block_id, TreatmentRow.agent, TreatmentRow.control, BegunWork.began_at)
    running = [
        Sprayed(str(block.id), agent, control, began, None, None)
        for where, agent, control, began in session.execute(begun)
        for block in heirs.of(where, began.astimezone(now.tzinfo).date())
    ]
    return [*done, *running]


def _sprayed(block: uuid.UUID, row: Applied, catalogue: Catalogue) -> Sprayed:
    """A material as it closes a block: by its label where somebody read that, else as it is recalled."""
    early = Early(row.early_minutes, row.early_wear) if row.early_minutes else None
    recalled, labelled = catalogue.agent(row.agent).control(row.control).reentry_hours, row.label_hours is not None
    return Sprayed(
        str(block),
        row.agent,
        row.control,
        row.began,
        row.ended,
        hours=row.label_hours if labelled else recalled,
        hand_hours=row.hand_hours,
        dries=row.until_dry,
        early=early,
        labelled=labelled,
    )
