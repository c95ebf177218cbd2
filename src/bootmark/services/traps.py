"""The trap register: traps, what is caught in them, what is due, and the biofix that a sustained catch proposes."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any, NamedTuple

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.field import traps as rules
from bootmark.core.field.walk import DueTrap
from bootmark.core.season import biofix
from bootmark.core.season.biofix import Check, Proposal
from bootmark.services import crop_stages, season
from bootmark.services.commands import Context, Fields, Json, kind
from bootmark.services.field import SCOUTS, local_day
from bootmark.store.models import Block, Farm
from bootmark.store.season_models import Trap, TrapCheck


@kind("trap.save", Trap, SCOUTS)
def trap_save(context: Context) -> Json:
    """Keep a trap: where it hangs, for whom, when to read it and to change its lure."""
    payload = context.sent.payload
    fields = Fields(payload)
    name = fields.text("name", most=40)
    trap_kind = fields.one_of("kind", list(rules.KINDS))
    agent = fields.one_of("agent", list(context.catalogue.agents))
    today = local_day(context)
    set_on = fields.day("set_on")
    if "set_on" not in fields.errors and set_on > today:
        fields.errors["set_on"] = f"{set_on:%-d %B} is still ahead: give the day on which it was put out."
    lured = trap_kind in rules.LURED
    lure_on = fields.day("lure_on") if lured and payload.get("lure_on") else set_on if lured else None
    if lure_on and "lure_on" not in fields.errors and lure_on > today:
        fields.errors["lure_on"] = f"{lure_on:%-d %B} is still ahead: give the day on which the lure was put in."
    columns: Json = {
        "name": name,
        "agent": agent,
        "kind": trap_kind,
        "x": fields.number("x", -50_000, 50_000, "m"),
        "y": fields.number("y", -50_000, 50_000, "m"),
        "set_on": set_on,
        "lure_on": lure_on,
        "lure_days": int(fields.number("lure_days", 1, 400, "days")) if lured else None,
        "check_days": int(fields.number("check_days", 1, 60, "days")),
        "ended": bool(payload.get("ended")),
    }
    taken = context.session.scalars(select(Trap.id).where(Trap.farm_id == context.farm_id, Trap.name == name)).first()
    if name and taken and taken != context.sent.record_id:
        fields.errors["name"] = f"There is a trap called {name} already: an unmarked trap is a lost trap, choose another name."
    fields.done()
    return {**columns, "block_id": context.get(Block, payload.get("block_id"), "block_id").id}


def _new_lure(context: Context, row: TrapCheck) -> None:
    trap: Trap = context.get(Trap, row.trap_id, "trap_id")
    if row.new_lure and trap.lure_days and (trap.lure_on is None or trap.lure_on < row.on):
        trap.lure_on = row.on


@kind("trap.check", TrapCheck, SCOUTS, _new_lure)
def trap_check(context: Context) -> Json:
    """Keep what was in a trap, and whether it got a new lure."""
    payload = context.sent.payload
    fields = Fields(payload)
    on = fields.day("on")
    caught = fields.number("caught", 0, 100_000)
    note = fields.text("note", most=300, needed=False)
    if "caught" not in fields.errors and caught != int(caught):
        fields.errors["caught"] = f"{caught:g} is not a whole number: count the animals."
    trap: Trap = context.get(Trap, payload.get("trap_id"), "trap_id")
    if "on" not in fields.errors and not trap.set_on <= on <= local_day(context):
        fields.errors["on"] = f"The trap has hung since {trap.set_on:%-d %B %Y}: give a day from then to today."
    fields.done()
    return {"trap_id": trap.id, "on": on, "caught": int(caught), "new_lure": bool(payload.get("new_lure")), "note": note}


@dataclass(frozen=True)
class Hanging:
    """A trap with its checks of this season, oldest first, and what it waits for."""

    trap: Trap
    checks: tuple[TrapCheck, ...]
    due: tuple[rules.Due, ...]

    @property
    def last(self) -> TrapCheck | None:
        return self.checks[-1] if self.checks else None


def register(session: Session, farm: Farm, day: dt.date, *, ended: bool = False) -> list[Hanging]:
    """Every trap that hangs, by block and name; with those taken in where asked for."""
    traps = list(session.scalars(select(Trap).where(Trap.farm_id == farm.id).order_by(Trap.name)))
    since = day - dt.timedelta(days=biofix.SEASON_DAYS)
    by_trap: dict[uuid.UUID, list[TrapCheck]] = {}
    rows = session.scalars(
        select(TrapCheck)
        .where(TrapCheck.farm_id == farm.id, TrapCheck.on > since, TrapCheck.on <= day)
        .order_by(TrapCheck.on, TrapCheck.seen_at)
    )
    for row in rows:
        by_trap.setdefault(row.trap_id, []).append(row)
    found = []
    for trap in traps:
        if trap.ended and not ended:
            continue
        checks = tuple(by_trap.get(trap.id, ()))
        last = checks[-1].on if checks else None
        waits = () if trap.ended else rules.due(trap.set_on, trap.check_days, last, trap.lure_on, trap.lure_days)
        found.append(Hanging(trap, checks, waits))
    return found


def waiting(hanging: list[Hanging], known: Any, day: dt.date) -> dict[uuid.UUID, list[DueTrap]]:
    """What traps wait for today, by block."""
    found: dict[uuid.UUID, list[DueTrap]] = {}
    for one in hanging:
        for due in one.due:
            if due.on <= day:
                name = known.agent(one.trap.agent).in_sentence
                found.setdefault(one.trap.block_id, []).append(DueTrap(one.trap.name, name, due.what, due.on))
    return found


class Proposed(NamedTuple):
    """A biofix that nobody has set yet, and what proposes it. block: its name."""

    block_id: uuid.UUID
    block: str
    agent: str
    on: dt.date
    why: str


def proposals(session: Session, farm: Farm, known: Any, day: dt.date, hanging: list[Hanging]) -> list[Proposed]:
    """Biofixes that catches or the crop's own stage propose where this season has none."""
    have = set(season.biofixes(session, farm, day))
    checks: dict[tuple[uuid.UUID, str], list[Check]] = {}
    for one in hanging:
        key = (one.trap.block_id, one.trap.agent)
        checks.setdefault(key, []).extend(Check(row.on, row.caught) for row in one.checks)
    blocks = {block.id: block for block in session.scalars(select(Block).where(Block.farm_id == farm.id).order_by(Block.name))}
    found = []
    for (block_id, agent), rows in checks.items():
        heat = known.agents[agent].heat if agent in known.agents else None
        if (block_id, agent) in have or heat is None or heat.biofix != "catch" or not heat.events:
            continue
        told = biofix.sustained_catch(rows, *heat.catch)
        if told:
            found.append(_proposed(blocks[block_id], agent, told))
    noted = crop_stages.noted(session, farm)
    since = biofix.season_begins(day, farm.latitude < 0)
    by_crop = [agent for agent in known.agents.values() if agent.heat and agent.heat.biofix == "crop"]
    for block in blocks.values() if by_crop else ():
        for agent_ in by_crop:
            if not {block.crop, "*"}.isdisjoint(agent_.hosts) and (block.id, agent_.id) not in have:
                told = biofix.crop_event(agent_.heat, noted.get(block.id, []), since)
                if told:
                    found.append(_proposed(block, agent_.id, told))
    return found


def _proposed(block: Block, agent: str, told: Proposal) -> Proposed:
    return Proposed(block.id, block.name, agent, told.on, told.why)


def catches(hanging: list[Hanging]) -> dict[tuple[uuid.UUID, str], list[tuple[dt.date, int]]]:
    """What was caught on each day, by block and agent, all traps together."""
    found: dict[tuple[uuid.UUID, str], dict[dt.date, int]] = {}
    for one in hanging:
        days = found.setdefault((one.trap.block_id, one.trap.agent), {})
        for row in one.checks:
            days[row.on] = days.get(row.on, 0) + row.caught
    return {key: sorted(days.items()) for key, days in found.items()}
