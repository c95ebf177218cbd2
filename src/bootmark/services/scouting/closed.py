"""Which blocks are closed after what was signed for on them."""

import datetime as dt
import uuid

from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.catalogue import Catalogue
from bootmark.core.field import closed
from bootmark.core.field.closed import Sprayed
from bootmark.core.messages import Message
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Application, TreatmentRow
from bootmark.store.rows import of_farm

_sprays: memo.Kept[list[Sprayed]] = memo.Kept(64)


def blocks(session: Session, catalogue: Catalogue, now: dt.datetime) -> dict[uuid.UUID, Message]:
    """The blocks that nobody goes into now, each with why and until when."""
    key = (catalogue.hash, now.date())
    sprays = stamp.while_standing(session, _sprays, (Topic.TREATMENT, Topic.PLACES), key, lambda: _read(session, catalogue, now))
    return {uuid.UUID(block): why for block, why in closed.blocks(sprays, now).items()}


def _read(session: Session, catalogue: Catalogue, now: dt.datetime) -> list[Sprayed]:
    since = now - dt.timedelta(days=judgement.LONGEST_REENTRY_DAYS)
    columns = (TreatmentRow.block_id, TreatmentRow.agent, TreatmentRow.control, Application.started_at, Application.finished_at)
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    rows = session.execute(of_farm(Application, *columns).join(TreatmentRow, joined).where(Application.finished_at > since))
    heirs = ground.heirs(session)
    return [
        Sprayed(str(block.id), agent, control, began, ended, catalogue.agent(agent).control(control).reentry_hours)
        for sprayed, agent, control, began, ended in rows
        for block in heirs.of(sprayed, ended.astimezone(now.tzinfo).date())
    ]
