"""The Book: what was seen and done, and how counts changed."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.catalogue import bbch
from bootmark.core.catalogue.model import MANY
from bootmark.core.field.count import enemy_ratio, interval
from bootmark.core.types import Interval, Sample
from bootmark.store.base import Head
from bootmark.store.models import Application, Biofix, Block, Command, DecisionRow, Farm, Look, SampleRow, Stop, TreatmentRow
from bootmark.store.season_models import CropStage, StageSighting, Trap, TrapCheck
from bootmark.store.versions import VERSIONS

MOST_ENTRIES = 400


@dataclass(frozen=True)
class Entry:
    """One line of the log. conflict: two versions stand side by side.

    kind: "look", "count", "call", "done", "biofix", "trap", "stage" or "crop".
    """

    at: dt.datetime
    kind: str
    block: str
    text: str
    account_id: uuid.UUID
    record_id: uuid.UUID
    conflict: bool = False
    decision: uuid.UUID | None = None


@dataclass(frozen=True)
class Counted:
    at: dt.datetime
    sample: SampleRow
    interval: Interval
    ratio: float | None


def log(session: Session, farm: Farm, known: Any, names: dict[str, str]) -> list[Entry]:
    """Everything people recorded, the newest first. names: how agents are said."""
    blocks = {block.id: block.name for block in session.scalars(select(Block).where(Block.farm_id == farm.id))}
    stops = {stop.id: stop for stop in session.scalars(select(Stop).where(Stop.farm_id == farm.id))}
    found: list[Entry] = []
    for look in session.scalars(select(Look).where(Look.farm_id == farm.id).order_by(Look.seen_at.desc()).limit(MOST_ENTRIES)):
        told = look.working["verdict"]
        seen = [known.signs[sign].name.lower() for sign, state in look.signs.items() if state == "seen" and sign in known.signs]
        agents = " and ".join(known.agent(agent).in_sentence for agent in told["agents"])
        text = f"{told['kind'].capitalize()}{': ' + agents if agents else ''}. Seen: {', '.join(seen)}." if seen else "Sound: nothing seen."
        found.append(Entry(look.seen_at, "look", blocks[stops[look.stop_id].block_id], text, look.account_id, look.id, look.conflict))
    for sample in session.scalars(
        select(SampleRow).where(SampleRow.farm_id == farm.id).order_by(SampleRow.seen_at.desc()).limit(MOST_ENTRIES)
    ):
        text = f"{names[sample.agent]}: {_said(sample)}."
        found.append(
            Entry(sample.seen_at, "count", blocks[stops[sample.stop_id].block_id], text, sample.account_id, sample.id, sample.conflict)
        )
    for call in session.scalars(
        select(DecisionRow).where(DecisionRow.farm_id == farm.id).order_by(DecisionRow.seen_at.desc()).limit(MOST_ENTRIES)
    ):
        text = f"{names[call.agent]}: {call.headline}"
        found.append(Entry(call.seen_at, "call", blocks[call.block_id], text, call.account_id, call.id, call.conflict, call.id))
    rows = session.execute(
        select(Application, TreatmentRow)
        .join(TreatmentRow, (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id))
        .where(Application.farm_id == farm.id)
        .limit(MOST_ENTRIES)
    )
    for done, treatment in rows:
        control = known.agent(treatment.agent).control(treatment.control)
        text = f"{control.name} against {known.agent(treatment.agent).in_sentence}: {done.amount:g} {done.amount_unit} on {done.area:g} ha."
        found.append(
            Entry(
                done.finished_at, "done", blocks[treatment.block_id], text, done.account_id, done.id, done.conflict, treatment.decision_id
            )
        )
    for biofix in session.scalars(select(Biofix).where(Biofix.farm_id == farm.id)):
        text = f"{names[biofix.agent]}: heat counted from {biofix.on:%-d %B %Y}. {biofix.basis}."
        found.append(Entry(biofix.seen_at, "biofix", blocks[biofix.block_id], text, biofix.account_id, biofix.id, biofix.conflict))
    found += _season(session, farm, blocks, names)
    return sorted(found, key=lambda entry: entry.at, reverse=True)


def _season(session: Session, farm: Farm, blocks: dict[uuid.UUID, str], names: dict[str, str]) -> list[Entry]:
    """Traps read, animals counted by stage, crop stages noted."""
    found = []
    checks = select(TrapCheck, Trap).join(Trap, (Trap.farm_id == TrapCheck.farm_id) & (Trap.id == TrapCheck.trap_id))
    for check, trap in session.execute(checks.where(TrapCheck.farm_id == farm.id).order_by(TrapCheck.seen_at.desc()).limit(MOST_ENTRIES)):
        text = f"{trap.name}, {names[trap.agent]}: {check.caught} caught{', a new lure' if check.new_lure else ''}."
        found.append(Entry(check.seen_at, "trap", blocks[trap.block_id], text, check.account_id, check.id, check.conflict))
    seen = select(StageSighting).where(StageSighting.farm_id == farm.id).order_by(StageSighting.seen_at.desc()).limit(MOST_ENTRIES)
    for row in session.scalars(seen):
        counts = ", ".join(f"{count} {MANY.get(stage, stage) if count != 1 else stage}" for stage, count in row.counts.items())
        text = f"{names[row.agent]}: {counts}."
        found.append(Entry(row.seen_at, "stage", blocks[row.block_id], text, row.account_id, row.id, row.conflict))
    noted = select(CropStage, Block.crop).join(Block, (Block.farm_id == CropStage.farm_id) & (Block.id == CropStage.block_id))
    for stage, crop in session.execute(noted.where(CropStage.farm_id == farm.id).order_by(CropStage.seen_at.desc()).limit(MOST_ENTRIES)):
        text = f"BBCH {stage.code:02}, {bbch.scale_of(crop).name(stage.code)}{f', node {stage.node}' if stage.node is not None else ''}."
        found.append(Entry(stage.seen_at, "crop", blocks[stage.block_id], text, stage.account_id, stage.id, stage.conflict))
    return found


def _said(sample: SampleRow) -> str:
    found = interval(Sample(sample.unit, tuple(sample.counts), tuple(sample.enemies), sample.measure))
    if sample.measure == "proportion":
        return f"on {100 * found.estimate:.0f} % of {found.units} {sample.unit}s"
    helpers = f", {sum(sample.enemies)} helpers" if sample.enemies else ""
    return f"{found.estimate:.1f} for each {sample.unit} on {found.units}{helpers}"


def counts(session: Session, farm: Farm, block_id: uuid.UUID, agent: str, since: dt.datetime) -> list[Counted]:
    """Counts of an agent on a block since a moment, in order."""
    rows = session.scalars(
        select(SampleRow)
        .join(Stop, (Stop.farm_id == SampleRow.farm_id) & (Stop.id == SampleRow.stop_id))
        .where(SampleRow.farm_id == farm.id, Stop.block_id == block_id, SampleRow.agent == agent, SampleRow.seen_at >= since)
        .order_by(SampleRow.seen_at)
    )
    found = []
    for row in rows:
        sample = Sample(row.unit, tuple(row.counts), tuple(row.enemies), row.measure)
        found.append(Counted(row.seen_at, row, interval(sample), enemy_ratio(sample)))
    return found


def done_on(session: Session, farm: Farm, block_id: uuid.UUID, agent: str, since: dt.datetime) -> list[tuple[Application, TreatmentRow]]:
    """Treatments done against an agent on a block since a moment."""
    rows = session.execute(
        select(Application, TreatmentRow)
        .join(TreatmentRow, (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id))
        .where(
            Application.farm_id == farm.id, TreatmentRow.block_id == block_id, TreatmentRow.agent == agent, Application.finished_at >= since
        )
        .order_by(Application.finished_at)
    )
    return [(application, treatment) for application, treatment in rows]


def head(session: Session, farm: Farm, record_id: uuid.UUID) -> Head | None:
    """The current state of a record of any kind."""
    return next((found for model in VERSIONS if (found := session.get(model, (farm.id, record_id)))), None)


def versions(session: Session, farm: Farm, record_id: uuid.UUID) -> list[dict[str, Any]]:
    """All versions of a record, newest first, with what each holds."""
    for head, table in VERSIONS.items():
        if session.get(head, (farm.id, record_id)):
            rows = session.execute(
                select(table, Command.kind)
                .join(Command, (Command.farm_id == table.c.farm_id) & (Command.id == table.c.command_id))
                .where(table.c.farm_id == farm.id, table.c.record_id == record_id)
                .order_by(table.c.number.desc())
            )
            return [dict(row._mapping) for row in rows]
    return []
