"""What treatments that were done keep from being picked, by block."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from bootmark.core.catalogue import Catalogue, Control
from bootmark.core.field import harvest
from bootmark.core.messages import Message, Says, says
from bootmark.services.base import applied, ground, grown, memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Farm

LONGEST_DAYS = 400


@dataclass(frozen=True)
class NoPicking:
    """before: the first day that may be picked again; why: which material, done when; labelled: whether its interval is known."""

    before: dt.date
    why: Message
    labelled: bool


_kept: memo.Kept[dict[uuid.UUID, NoPicking]] = memo.Kept(64)


def days_to(block: Block, day: dt.date) -> int | None:
    """Whole days to the block's next picking; None where nobody told it."""
    return harvest.whole_days(day, block.harvest_from)


def keeps_until(control: Control, block: Block, catalogue: Catalogue, done: dt.date) -> dt.date | None:
    """The first day that a block may be picked, cut or grazed if a control is brought out on a day; None where it keeps nobody from it."""
    wanted = harvest.wanted_days(control, *grown.eaten_and_fed(catalogue, block))
    return harvest.first_picking(done, wanted) if control.sprayed and wanted else None


def blocks(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> dict[uuid.UUID, NoPicking]:
    """Blocks that may not be picked on a day, each with the treatment that keeps it longest."""
    key = (catalogue.hash, day)
    return stamp.while_standing(session, _kept, (Topic.TREATMENT, Topic.PLACES), key, lambda: _read(session, farm, catalogue, day))


def _read(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> dict[uuid.UUID, NoPicking]:
    heirs = ground.heirs(session)
    longest: dict[uuid.UUID, NoPicking] = {}
    for row in applied.since(session, day - dt.timedelta(days=LONGEST_DAYS)):
        control, done = catalogue.agent(row.agent).control(row.control), row.ended.astimezone(zone(farm)).date()
        for block in heirs.of(row.block_id, done):
            before = keeps_until(control, block, catalogue, done)
            if before and before > day and (block.id not in longest or before > longest[block.id].before):
                longest[block.id] = _no_picking(catalogue, block, row, done, before)
    return longest


def _no_picking(catalogue: Catalogue, block: Block, row: Any, done: dt.date, before: dt.date) -> NoPicking:
    eaten, fed = grown.eaten_and_fed(catalogue, block)
    labelled = harvest.intervals_known(catalogue.agent(row.agent).control(row.control), eaten, fed)
    kind = Says.NO_PICKING if labelled else Says.NO_PICKING_UNKNOWN
    return NoPicking(before, says(kind, agent=row.agent, control=row.control, on=done, before=before, fed="yes" if fed else "no"), labelled)
