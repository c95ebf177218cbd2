"""Records with all their versions, and how counts changed."""

import datetime as dt
import uuid
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.field.count import enemy_ratio, interval
from bootmark.core.meanings import Chosen, Measure
from bootmark.core.types import Interval, Sample
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.base import Head, Withdrawable
from bootmark.store.models import Application, Block, CommandRow, DecisionRow, Look, SampleRow, Stop, TreatmentRow
from bootmark.store.rows import CURRENT_FARM, of_farm
from bootmark.store.versions import VERSIONS


@dataclass(frozen=True)
class Counted:
    at: dt.datetime
    sample: SampleRow
    interval: Interval
    ratio: float | None


def counts(session: Session, block_id: uuid.UUID, agent: str, since: dt.datetime) -> list[Counted]:
    """Counts of an agent on a block since a moment, in order; without those of units that were picked."""
    rows = session.scalars(
        of_farm(SampleRow)
        .join(Stop, (Stop.farm_id == SampleRow.farm_id) & (Stop.id == SampleRow.stop_id))
        .where(Stop.block_id == block_id, SampleRow.agent == agent, SampleRow.seen_at >= since, SampleRow.chosen != Chosen.PICKED)
        .order_by(SampleRow.seen_at)
    )
    counted = []
    for row in rows:
        sample = Sample(row.unit, tuple(row.counts), tuple(row.enemies), Measure(row.measure), chosen=Chosen(row.chosen))
        counted.append(Counted(row.seen_at, row, interval(sample), enemy_ratio(sample)))
    return counted


_pairs: memo.Kept[list[tuple[Block, str]]] = memo.Kept(64)


def counted_and_called(session: Session, since: dt.datetime) -> list[tuple[Block, str]]:
    """Blocks and agents that were called on a count since a moment, by agent."""
    return stamp.while_standing(session, _pairs, (Topic.PLACES, Topic.TREATMENT), since, lambda: _counted_and_called(session, since))


def _counted_and_called(session: Session, since: dt.datetime) -> list[tuple[Block, str]]:
    blocks = {block.id: block for block in ground.all_blocks(session)}
    rows = of_farm(DecisionRow, DecisionRow.agent, DecisionRow.block_id).distinct()
    pairs = session.execute(rows.where(DecisionRow.seen_at >= since, DecisionRow.sample_id.is_not(None)))
    return [(blocks[block], agent) for agent, block in sorted(tuple(pair) for pair in pairs)]


def done_on(session: Session, block_id: uuid.UUID, agent: str, since: dt.datetime) -> list[tuple[Application, TreatmentRow]]:
    """Treatments done against an agent on a block since a moment."""
    rows = session.execute(
        of_farm(Application, Application, TreatmentRow)
        .join(TreatmentRow, (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id))
        .where(TreatmentRow.block_id == block_id, TreatmentRow.agent == agent, Application.finished_at >= since)
        .order_by(Application.finished_at)
    )
    return [(application, treatment) for application, treatment in rows]


def head(session: Session, record_id: uuid.UUID) -> Head | None:
    """The current state of a record of any kind."""
    key = session.info["farm"], record_id
    return next((row for model in VERSIONS if (row := session.get(model, key))), None)


def call(session: Session, record_id: uuid.UUID) -> DecisionRow | None:
    """The record as a call, where it is one."""
    return session.get(DecisionRow, (session.info["farm"], record_id))


def versions(session: Session, record_id: uuid.UUID) -> list[dict[str, Any]]:
    """All versions of a record, newest first, with what each holds, why, and what it builds on."""
    row = head(session, record_id)
    if row is None:
        return []
    table = VERSIONS[type(row)]
    rows = session.execute(
        select(table, CommandRow.told_at, CommandRow.reason, CommandRow.withdrawn, CommandRow.merges)
        .join(CommandRow, (CommandRow.farm_id == table.c.farm_id) & (CommandRow.id == table.c.command_id))
        .where(table.c.farm_id == CURRENT_FARM, table.c.record_id == record_id)
        .order_by(table.c.number.desc())
    )
    kept = [dict(version._mapping) for version in rows]
    numbers = {version["command_id"]: version["number"] for version in kept}
    return [version | {"base": numbers.get(version["base_command"])} for version in kept]


class Shaken(StrEnum):
    """What has changed of that on which a call rests."""

    LOOK = "look"
    COUNT = "count"
    WITHDRAWN = "withdrawn"


def shaken(session: Session, call: DecisionRow) -> list[Shaken]:
    """What of a call's look and count was corrected or withdrawn after it was made."""
    farm = session.info["farm"]
    pinned = call.working.get("versions", {})
    look, sample = session.get(Look, (farm, call.look_id)), call.sample_id and session.get(SampleRow, (farm, call.sample_id))
    changed = [Shaken.LOOK] if look and pinned.get("look") not in (None, str(look.version_id)) else []
    if sample and sample.withdrawn:
        return [*changed, Shaken.WITHDRAWN]
    return [*changed, Shaken.COUNT] if sample and pinned.get("sample") not in (None, str(sample.version_id)) else changed


def stop_of(session: Session, call: DecisionRow) -> uuid.UUID | None:
    """The stop at which a call was made."""
    look = session.get(Look, (session.info["farm"], call.look_id))
    return look.stop_id if look else None


def can_be_withdrawn(head: Head | None) -> bool:
    return isinstance(head, Withdrawable)
