"""What treatments that were done keep from being picked, by block."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from bootmark.core.catalogue import Catalogue, Control
from bootmark.core.field import harvest
from bootmark.core.messages import Message, Says, says
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Application, Block, Farm, TreatmentRow
from bootmark.store.rows import of_farm

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
    wanted = harvest.wanted_days(control, *uses(catalogue, block.crop))
    return harvest.first_picking(done, wanted) if control.sprayed and wanted else None


def uses(catalogue: Catalogue, crop: str) -> tuple[bool, bool]:
    """Whether people, and whether stock, eat of a crop; a plant that nobody knows is taken to be eaten."""
    entry = catalogue.crops.get(crop)
    return (True, False) if entry is None else (bool(entry.eaten), entry.fed)


def blocks(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> dict[uuid.UUID, NoPicking]:
    """Blocks that may not be picked on a day, each with the treatment that keeps it longest."""
    key = (catalogue.hash, day)
    return stamp.while_standing(session, _kept, (Topic.TREATMENT, Topic.PLACES), key, lambda: _read(session, farm, catalogue, day))


def _read(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> dict[uuid.UUID, NoPicking]:
    since = dt.datetime.combine(day - dt.timedelta(days=LONGEST_DAYS), dt.time(), dt.UTC)
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    rows = session.execute(
        of_farm(Application, Application.finished_at, TreatmentRow.block_id, TreatmentRow.agent, TreatmentRow.control)
        .join(TreatmentRow, joined)
        .where(Application.finished_at > since)
    )
    by_id = {block.id: block for block in ground.blocks(session)}
    longest: dict[uuid.UUID, NoPicking] = {}
    for row in rows:
        control = catalogue.agent(row.agent).control(row.control)
        done = row.finished_at.astimezone(zone(farm)).date()
        before = keeps_until(control, by_id[row.block_id], catalogue, done)
        if before is None:
            continue
        eaten, fed = uses(catalogue, by_id[row.block_id].crop)
        labelled = harvest.intervals_known(control, eaten, fed)
        kind = Says.NO_PICKING if labelled else Says.NO_PICKING_UNKNOWN
        why = says(kind, agent=row.agent, control=row.control, on=done, before=before, fed="yes" if fed else "no")
        stays = NoPicking(before, why, labelled)
        if before > day and (row.block_id not in longest or before > longest[row.block_id].before):
            longest[row.block_id] = stays
    return longest
