"""The log: everything that people recorded, the newest first, read by the page.

What a line says is made once for each version of its record, and kept while that version stands.
"""

import datetime as dt
import functools
import uuid
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

from sqlalchemy import CompoundSelect, Integer, Select, bindparam, func, literal, select, union_all
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Catalogue, bbch
from bootmark.core.catalogue.model import MANY
from bootmark.core.field.count import interval
from bootmark.core.meanings import Age, Measure, TrapState
from bootmark.core.types import SEEN, Sample
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.base import Withdrawable
from bootmark.store.models import (
    Application,
    Biofix,
    Block,
    CropStage,
    DecisionRow,
    Look,
    Opinion,
    OutsideAnswer,
    SampleRow,
    StageSighting,
    Stop,
    Trap,
    TrapCheck,
    TreatmentRow,
)
from bootmark.store.rows import of_farm

CONFLICTS_SHOWN = 40
ORDER = ("look", "count", "call", "opinion", "answer", "done", "biofix", "trap", "stage", "crop")
"""Entries of one moment stand in the order of the work."""


@dataclass(frozen=True)
class Entry:
    """One line of the log. kind: a key of KINDS; conflict: two versions stand side by side; withdrawn: it counts no more."""

    at: dt.datetime
    kind: str
    block_id: uuid.UUID
    block: str
    text: str
    account_id: uuid.UUID
    record_id: uuid.UUID
    conflict: bool
    withdrawn: bool


class Line(NamedTuple):
    """Where an entry stands, before it is put into words."""

    at: dt.datetime
    kind: str
    place: int
    record_id: uuid.UUID
    version_id: uuid.UUID
    block_id: uuid.UUID
    account_id: uuid.UUID
    conflict: bool
    withdrawn: bool


Texts = Callable[[Session, Sequence[uuid.UUID], Catalogue], dict[uuid.UUID, str]]


def _lines(kind: str, head: Any, block: Any, at: Any = None) -> Select[Any]:
    moment = head.seen_at if at is None else at
    return of_farm(
        head,
        moment.label("at"),
        literal(kind).label("kind"),
        literal(ORDER.index(kind)).label("place"),
        head.id,
        head.version_id,
        block.label("block_id"),
        head.account_id,
        head.conflict,
        (head.withdrawn if issubclass(head, Withdrawable) else literal(False)).label("withdrawn"),
        withdrawn=True,
    )


def _join(statement: Select[Any], head: Any, parent: Any, key: Any) -> Select[Any]:
    return statement.join(parent, (parent.farm_id == head.farm_id) & (parent.id == key))


def _looks(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    texts = {}
    rows = of_farm(Look, Look.id, Look.signs, Look.working["verdict"], Look.plants).where(Look.id.in_(ids))
    for look_id, signs, verdict, plants in session.execute(rows):
        seen = [catalogue.signs[sign].name.lower() for sign, state in signs.items() if state == SEEN and sign in catalogue.signs]
        agents = say.tongue().formats.both([catalogue.agent(agent).in_sentence for agent in verdict["agents"]])
        kind = say.line(verdict["kind"]).capitalize()
        sound = "Sound: nothing seen on {plants} plants." if plants else "Sound: nothing seen."
        text = sound if not seen else "{kind}: {agents}. Seen: {signs}." if agents else "{kind}. Seen: {signs}."
        texts[look_id] = say.line(text, kind=kind, agents=agents, signs=", ".join(seen), plants=plants)
    return texts


def _counts(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    rows = session.scalars(of_farm(SampleRow, withdrawn=True).where(SampleRow.id.in_(ids)))
    return {row.id: f"{catalogue.agent(row.agent).name}: {_counted(row)}." for row in rows}


def _counted(row: SampleRow) -> str:
    """A count in words, with the ages where they were told apart."""
    ages = [f"{row.ages[age]} {say.term(age).lower()}" for age in Age if row.ages.get(age)]
    return "; ".join(filter(None, (_number(row), ", ".join(ages))))


def _number(row: SampleRow) -> str:
    estimate = interval(Sample(row.unit, tuple(row.counts), tuple(row.enemies), Measure(row.measure)))
    if row.measure == Measure.PROPORTION:
        return say.line("on {share:percent} of {units}, by {unit:word}", share=estimate.estimate, units=estimate.units, unit=row.unit)
    facts = {"estimate": estimate.estimate, "unit": row.unit, "units": estimate.units}
    if row.enemies:
        return say.line("{estimate:1} for each {unit:word} on {units}, {helpers} helpers", **facts, helpers=sum(row.enemies))
    return say.line("{estimate:1} for each {unit:word} on {units}", **facts)


def _calls(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    rows = session.execute(of_farm(DecisionRow, DecisionRow.id, DecisionRow.agent, DecisionRow.headline).where(DecisionRow.id.in_(ids)))
    return {call: f"{catalogue.agent(agent).name}: {headline}" for call, agent, headline in rows}


def _done(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    columns = (Application.id, TreatmentRow.agent, TreatmentRow.control, Application.amount, Application.amount_unit, Application.area)
    statement = _join(of_farm(Application, *columns), Application, TreatmentRow, Application.treatment_id)
    texts = {}
    for done, agent_id, control, amount, unit, area in session.execute(statement.where(Application.id.in_(ids))):
        agent = catalogue.agent(agent_id)
        texts[done] = say.line(
            "{control} against {agent}: {amount:g} {unit} on {area:area}.",
            control=agent.control(control).name,
            agent=agent.in_sentence,
            amount=amount,
            unit=unit,
            area=area,
        )
    return texts


def _opinions(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    statement = _join(of_farm(Opinion, Opinion, DecisionRow.agent, withdrawn=True), Opinion, DecisionRow, Opinion.decision_id)
    rows = session.execute(statement.where(Opinion.id.in_(ids)))
    return {row.id: f"{catalogue.agent(agent).name}: {say.line(row.stance)}. {row.words}" for row, agent in rows}


def _answers(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    texts = {}
    for row in session.scalars(of_farm(OutsideAnswer).where(OutsideAnswer.id.in_(ids))):
        answered = (
            say.line("{by}: it is {agent}.", by=row.answered_by, agent=catalogue.agent(row.agent).in_sentence)
            if row.agent
            else say.line("{by}: it is nothing of what was asked.", by=row.answered_by)
        )
        texts[row.id] = f"{answered} {say.line('The block is free again.')}" if row.frees else answered
    return texts


def _biofixes(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    rows = session.scalars(of_farm(Biofix, withdrawn=True).where(Biofix.id.in_(ids)))
    return {
        row.id: say.line("{name}: heat counted from {on:full}. {basis}.", name=catalogue.agent(row.agent).name, on=row.on, basis=row.basis)
        for row in rows
    }


def _checks(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    columns = (TrapCheck.id, Trap.name, Trap.agent, TrapCheck.caught, TrapCheck.new_lure, TrapCheck.state)
    statement = _join(of_farm(TrapCheck, *columns, withdrawn=True), TrapCheck, Trap, TrapCheck.trap_id).where(TrapCheck.id.in_(ids))
    return {
        check: say.line(
            _checked(caught, lure), trap=trap, name=catalogue.agent(agent).name, caught=caught, state=say.term(TrapState(state)).lower()
        )
        for check, trap, agent, caught, lure, state in session.execute(statement)
    }


def _checked(caught: int | None, lure: bool) -> str:
    if caught is None:
        return "{trap}, {name}: not read, {state}."
    return "{trap}, {name}: {caught} caught, a new lure." if lure else "{trap}, {name}: {caught} caught."


def _sightings(session: Session, ids: Sequence[uuid.UUID], catalogue: Catalogue) -> dict[uuid.UUID, str]:
    texts = {}
    for row in session.scalars(of_farm(StageSighting, withdrawn=True).where(StageSighting.id.in_(ids))):
        counts = ", ".join(f"{count} {say.line(MANY.get(stage, stage) if count != 1 else stage)}" for stage, count in row.counts.items())
        texts[row.id] = f"{catalogue.agent(row.agent).name}: {counts}."
    return texts


def _crop_stages(session: Session, ids: Sequence[uuid.UUID], _known: Catalogue) -> dict[uuid.UUID, str]:
    columns = (CropStage.id, CropStage.code, CropStage.node, Block.crop)
    statement = _join(of_farm(CropStage, *columns, withdrawn=True), CropStage, Block, CropStage.block_id)
    return {
        stage: say.line(
            "BBCH {code}, {name:word}." if node is None else "BBCH {code}, {name:word}, node {node}.",
            code=f"{code:02}",
            name=bbch.scale_of(crop).name(code),
            node=node,
        )
        for stage, code, node, crop in session.execute(statement.where(CropStage.id.in_(ids)))
    }


KINDS: dict[str, tuple[Select[Any], Texts]] = {
    "look": (_join(_lines("look", Look, Stop.block_id), Look, Stop, Look.stop_id), _looks),
    "count": (_join(_lines("count", SampleRow, Stop.block_id), SampleRow, Stop, SampleRow.stop_id), _counts),
    "call": (_lines("call", DecisionRow, DecisionRow.block_id), _calls),
    "opinion": (_join(_lines("opinion", Opinion, DecisionRow.block_id), Opinion, DecisionRow, Opinion.decision_id), _opinions),
    "answer": (_lines("answer", OutsideAnswer, OutsideAnswer.block_id), _answers),
    "done": (
        _join(
            _lines("done", Application, TreatmentRow.block_id, Application.finished_at), Application, TreatmentRow, Application.treatment_id
        ),
        _done,
    ),
    "biofix": (_lines("biofix", Biofix, Biofix.block_id), _biofixes),
    "trap": (_join(_lines("trap", TrapCheck, Trap.block_id), TrapCheck, Trap, TrapCheck.trap_id), _checks),
    "stage": (_lines("stage", StageSighting, StageSighting.block_id), _sightings),
    "crop": (_lines("crop", CropStage, CropStage.block_id), _crop_stages),
}
"""What stands in the log: how its lines are found, and how they are said."""

HEADS: dict[Topic, dict[str, Any]] = {
    Topic.SCOUTING: {"look": Look, "count": SampleRow},
    Topic.TREATMENT: {"call": DecisionRow, "opinion": Opinion, "answer": OutsideAnswer, "done": Application},
    Topic.SEASONS: {"biofix": Biofix, "trap": TrapCheck, "stage": StageSighting, "crop": CropStage},
}
"""Whose rows are counted, by what they change with."""
_texts: memo.Kept[str] = memo.Kept(20_000)
_totals: memo.Kept[int] = memo.Kept(2_000)


@functools.lru_cache(maxsize=64)
def _wanted(kinds: tuple[str, ...], *, of_block: bool, conflicts: bool = False, newest: bool = False) -> CompoundSelect[Any]:
    """Lines of some kinds together, built once. of_block: of the parameter `block`; newest: so many of each kind as `most` says."""
    statements = [KINDS[kind][0] for kind in kinds]
    if of_block:
        statements = [lines.where(_column(lines, "block_id") == bindparam("block")) for lines in statements]
    if conflicts:
        statements = [lines.where(_column(lines, "conflict")) for lines in statements]
    if newest:
        cut = [lines.order_by(_column(lines, "at").desc()).limit(bindparam("most", type_=Integer)).subquery() for lines in statements]
        statements = [select(lines) for lines in cut]
    together = union_all(*statements)
    at, place, record = (together.selected_columns[name] for name in ("at", "place", "id"))
    ordered = together.order_by(at.desc(), place, record)
    # A limit that is set later would be another statement, and take as long to read as all the rest.
    return ordered.offset(bindparam("start", type_=Integer)).limit(bindparam("shown", type_=Integer)) if newest else ordered


def _column(lines: Select[Any], name: str) -> Any:
    column = lines.selected_columns[name]
    return getattr(column, "element", column)


def _kinds(kind: str) -> tuple[str, ...]:
    return (kind,) if kind else ORDER


def total(session: Session, block_id: uuid.UUID | None = None, kind: str = "") -> int:
    """How many entries there are of a block and kind, or of all. What was counted before is counted anew only where it changed."""
    counted = 0
    for topic, heads in HEADS.items():
        kinds = tuple(name for name in heads if kind in ("", name))
        if kinds:
            key = (block_id, kinds)
            counted += stamp.while_standing(session, _totals, (topic,), key, functools.partial(_count, session, heads, *key))
    return counted


def _count(session: Session, heads: Mapping[str, Any], block_id: uuid.UUID | None, kinds: tuple[str, ...]) -> int:
    if block_id:
        lines = _wanted(kinds, of_block=True).order_by(None).subquery()
        return int(session.execute(select(func.count()).select_from(lines), {"block": block_id}).scalar_one())
    # Without a block the joins that tell it are not needed.
    return sum(int(session.execute(of_farm(heads[kind], func.count(), withdrawn=True)).scalar_one()) for kind in kinds)


def entries(
    session: Session, catalogue: Catalogue, *, block_id: uuid.UUID | None = None, kind: str = "", start: int = 0, most: int | None = None
) -> list[Entry]:
    """The entries of a page of the log, the newest first."""
    statement = _wanted(_kinds(kind), of_block=block_id is not None, newest=most is not None)
    rows = session.execute(statement, {"block": block_id, "most": start + (most or 0), "start": start, "shown": most})
    return _said(session, [Line(*row) for row in rows], catalogue)


def conflicts(session: Session, catalogue: Catalogue) -> list[Entry]:
    """Records of which two versions stand side by side."""
    statement = _wanted(ORDER, of_block=False, conflicts=True, newest=True)
    rows = session.execute(statement, {"most": CONFLICTS_SHOWN, "start": 0, "shown": CONFLICTS_SHOWN})
    return _said(session, [Line(*row) for row in rows], catalogue)


def _said(session: Session, lines: list[Line], catalogue: Catalogue) -> list[Entry]:
    farm = session.info["farm"]
    fresh: dict[str, list[Line]] = {}
    texts: dict[uuid.UUID, str] = {}
    for line in lines:
        kept = _texts.get((farm, line.version_id, catalogue.hash))
        if kept is None:
            fresh.setdefault(line.kind, []).append(line)
        else:
            texts[line.record_id] = kept
    for kind, new in fresh.items():
        made = KINDS[kind][1](session, [line.record_id for line in new], catalogue)
        for line in new:
            texts[line.record_id] = _texts.put((farm, line.version_id, catalogue.hash), made[line.record_id])
    blocks = {block.id: block.name for block in ground.all_blocks(session)}
    return [
        Entry(
            line.at,
            line.kind,
            line.block_id,
            blocks[line.block_id],
            texts[line.record_id],
            line.account_id,
            line.record_id,
            line.conflict,
            line.withdrawn,
        )
        for line in lines
    ]
