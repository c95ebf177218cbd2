"""The trap register: traps, what is caught in them, what is due, and the biofix that a sustained catch proposes."""

import datetime as dt
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any, NamedTuple

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import judgement
from bootmark.core.catalogue import Agent
from bootmark.core.field import traps as rules
from bootmark.core.field.worth import DueTrap
from bootmark.core.meanings import BiofixKind, TrapKind, TrapState
from bootmark.core.messages import Message
from bootmark.core.season import biofix
from bootmark.core.season.biofix import Check, Proposal
from bootmark.core.units import Quantity
from bootmark.services.base import applied, farm_time, ground, grown, memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Checks, Choice, Day, Flag, Note, Number, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.services.seasons import crop_stages, forecasts
from bootmark.store.models import Block, Farm, Trap, TrapCheck
from bootmark.store.rows import of_farm, plain, row_of

__all__ = [
    "CheckTrap",
    "Hanging",
    "Proposed",
    "SaveTrap",
    "Trap",
    "by_id",
    "catches",
    "disrupted",
    "proposals",
    "register",
    "store_check",
    "store_trap",
    "trap",
    "waiting",
]


class SaveTrap(Command, kind="trap.save", v=2, roles=SCOUTS):
    """Keep a trap: where it hangs, for whom, when to read it and to change its lure."""

    name: Annotated[str, Text(40)]
    block_id: Annotated[uuid.UUID, RecordId("block")]
    agent: Annotated[str, AgentField()]
    kind: Annotated[str, Choice(tuple(TrapKind))]
    longitude: Annotated[float, Number(-180, 180, "degrees")]
    latitude: Annotated[float, Number(-90, 90, "degrees")]
    set_on: Annotated[dt.date, Day(past="give the day on which it was put out")]
    lure_on: Annotated[dt.date | None, Day(past="give the day on which the lure was put in", optional=True)] = None
    lure_days: Annotated[int | None, Number(1, 400, "days", whole=True, optional=True)] = None
    check_days: Annotated[int, Number(1, 60, "days", whole=True)]
    strong: Annotated[bool, Flag()] = False
    lure: Annotated[str, Text(80, needed=False)] = ""
    height: Annotated[float | None, Number(0, 60, optional=True, measures=Quantity.LENGTH)] = None
    ended: Annotated[bool, Flag()] = False

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.kind in rules.LURED and self.lure_days is None:
            yield "lure_days", say.line("This trap has a lure: write how many days it lasts, as its label says, from 1 to 400.")


class CheckTrap(Command, kind="trap.check", roles=SCOUTS):
    """Keep what was in a trap, or why it could not be read, and whether it got a new lure or a new sticky floor."""

    trap_id: Annotated[uuid.UUID, RecordId("trap")]
    on: Annotated[dt.date, Day()]
    caught: Annotated[int | None, Number(0, 100_000, whole=True, optional=True, not_whole="count the animals")] = None
    new_lure: Annotated[bool, Flag()] = False
    new_liner: Annotated[bool, Flag()] = False
    note: Note = ""
    state: Annotated[str, Choice(tuple(TrapState), fallback=TrapState.READ)] = TrapState.READ

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.state == TrapState.READ and self.caught is None:
            yield "caught", say.line("Write how many it held, 0 for none; or say why it could not be read.")
        elif self.state in UNREAD and self.caught is not None:
            yield "caught", say.line("What could not be read has no number: leave it empty.")


def _spot_in_degrees(payload: Any, farm: Farm) -> Any:
    """Until version 1 of it, a trap hung at metres east and south on the plan."""
    if not isinstance(payload, dict) or not {"x", "y"} <= payload.keys():
        return payload
    rest = {name: value for name, value in payload.items() if name not in ("x", "y")}
    degrees = ground.in_degrees(farm, [[payload["x"], payload["y"]]])
    longitude, latitude = degrees[0] if degrees else (None, None)
    return rest | {"longitude": longitude, "latitude": latitude}


@handles(SaveTrap, Trap, upgrades={1: _spot_in_degrees})
def store_trap(command: SaveTrap, context: Context) -> Trap:
    context.take_turns("names of traps")
    others = context.session.scalars(of_farm(Trap, Trap.id).where(Trap.name == command.name))
    if any(other != context.sent.record_id for other in others):
        taken = say.line("There is a trap called {name} already: an unmarked trap is a lost trap, choose another name.", name=command.name)
        context.errors["name"] = taken
    context.get(Block, command.block_id, "block_id")
    if ground.away(context.farm, (command.longitude, command.latitude)) > ground.FURTHEST:
        context.errors["longitude"] = say.line("It lies further from the farm than {most:0} km.", most=ground.FURTHEST / 1000)
    lured = command.kind in rules.LURED
    lure: dict[str, Any] = {"lure": "", "lure_on": None, "lure_days": None}
    if lured:
        lure = {"lure": command.lure, "lure_on": command.lure_on or command.set_on, "lure_days": command.lure_days}
    return Trap(**command.model_dump(exclude=set(lure)), **lure)


def _new_lure(context: Context, row: TrapCheck) -> None:
    trap: Trap = context.get(Trap, row.trap_id, "trap_id")
    if row.new_lure and trap.lure_days and (trap.lure_on is None or trap.lure_on < row.on):
        trap.lure_on = row.on


@handles(CheckTrap, TrapCheck, _new_lure)
def store_check(command: CheckTrap, context: Context) -> TrapCheck:
    trap: Trap = context.get(Trap, command.trap_id, "trap_id")
    if not trap.set_on <= command.on <= context.today:
        context.errors["on"] = say.line("The trap has hung since {set_on:full}: give a day from then to today.", set_on=trap.set_on)
    payload = command.model_dump()
    if rules.spent(command.caught, command.on, trap.lure_on, trap.lure_days):
        payload |= {"state": TrapState.SPENT, "caught": None}
    elif command.caught == 0 and not trap.strong and _among_dispensers(context, trap, command.on):
        payload |= {"state": TrapState.DISRUPTED, "caught": None}
    return TrapCheck(**payload)


def disrupted(session: Session, farm: Farm, agent: Agent, block_id: uuid.UUID, day: dt.date) -> bool:
    """Whether dispensers for a pest hang on a block on a day: its traps hang among them."""
    controls = {control.id: control for control in agent.controls if control.disrupts}
    rows = applied.since(session, day - dt.timedelta(days=judgement.SEASON_DAYS)) if controls else []
    for row in rows:
        hung = row.ended.astimezone(farm_time.zone(farm)).date()
        if row.agent != agent.id or row.control not in controls:
            continue
        if not rules.among_dispensers(day, hung, controls[row.control].lasts_days):
            continue
        if any(block.id == block_id for block in ground.heirs(session).of(row.block_id, hung)):
            return True
    return False


def _among_dispensers(context: Context, trap: Trap, day: dt.date) -> bool:
    return disrupted(context.session, context.farm, context.catalogue.agent(trap.agent), trap.block_id, day)


UNREAD = (TrapState.DOWN, TrapState.FULL, TrapState.SOAKED)


@dataclass(frozen=True)
class Visit:
    """One visit of a trap. caught: None where it could not be read."""

    on: dt.date
    caught: int | None
    state: TrapState


@dataclass(frozen=True)
class Hanging:
    """A trap with its checks of this season, oldest first, and what it waits for. visits: with those at which it could not be read."""

    trap: Trap
    checks: tuple[Check, ...]
    due: tuple[rules.Due, ...]
    visits: tuple[Visit, ...] = ()


_registers: memo.Kept[list[Hanging]] = memo.Kept(64)


def register(session: Session, day: dt.date, *, ended: bool = False) -> list[Hanging]:
    """Every trap that hangs, by block and name; with those taken in where asked for. They are values."""
    every = stamp.while_standing(session, _registers, (Topic.SEASONS,), day, lambda: _register(session, day))
    return every if ended else [hanging for hanging in every if not hanging.trap.ended]


def _register(session: Session, day: dt.date) -> list[Hanging]:
    since = day - dt.timedelta(days=judgement.SEASON_DAYS)
    by_trap: dict[uuid.UUID, list[Visit]] = {}
    columns = (TrapCheck.trap_id, TrapCheck.on, TrapCheck.caught, TrapCheck.state)
    rows = of_farm(TrapCheck, *columns).where(TrapCheck.on > since, TrapCheck.on <= day)
    for trap_id, on, caught, state in session.execute(rows.order_by(TrapCheck.on, TrapCheck.seen_at)):
        by_trap.setdefault(trap_id, []).append(Visit(on, caught, TrapState(state)))
    hangings = []
    for trap in session.scalars(of_farm(Trap).order_by(Trap.name)):
        visits = tuple(by_trap.get(trap.id, ()))
        checks = tuple(Check(visit.on, visit.caught, str(trap.id)) for visit in visits if visit.caught is not None)
        last = visits[-1].on if visits else None
        waits = () if trap.ended else rules.due(trap.set_on, trap.check_days, last, trap.lure_on, trap.lure_days)
        hangings.append(Hanging(plain(trap), checks, waits, visits))
    return hangings


def trap(session: Session, trap_id: uuid.UUID) -> Trap:
    """A trap of the farm. Raises NotHere."""
    return row_of(session, Trap, trap_id)


def by_id(session: Session) -> dict[uuid.UUID, Trap]:
    return {row.id: row for row in session.scalars(of_farm(Trap))}


def waiting(hanging: list[Hanging], day: dt.date) -> dict[uuid.UUID, list[DueTrap]]:
    """What traps wait for today, by block."""
    waits: dict[uuid.UUID, list[DueTrap]] = {}
    for trapped in hanging:
        for due in trapped.due:
            if due.on <= day:
                waits.setdefault(trapped.trap.block_id, []).append(
                    DueTrap(trapped.trap.name, trapped.trap.agent, due.what, due.on, str(trapped.trap.id))
                )
    return waits


def weekly(hanging: list[Hanging], block_id: uuid.UUID, agent: str, day: dt.date) -> tuple[int, ...]:
    """What each trap of a block that was read lately caught in a week."""
    mine = [trapped for trapped in hanging if (trapped.trap.block_id, trapped.trap.agent) == (block_id, agent)]
    rates = (rules.weekly(trapped.trap.set_on, [(check.on, check.caught) for check in trapped.checks], day) for trapped in mine)
    return tuple(rate for rate in rates if rate is not None)


class Proposed(NamedTuple):
    """A biofix that nobody has set yet, and what proposes it. block: its name."""

    block_id: uuid.UUID
    block: str
    agent: str
    on: dt.date
    why: Message


def proposals(session: Session, farm: Farm, catalogue: Any, day: dt.date, hanging: list[Hanging]) -> list[Proposed]:
    """Biofixes that catches or the crop's own stage propose where this season has none."""
    have = set(forecasts.biofixes(session, day))
    checks: dict[tuple[uuid.UUID, str], list[Check]] = {}
    for trapped in hanging:
        key = (trapped.trap.block_id, trapped.trap.agent)
        checks.setdefault(key, []).extend(trapped.checks)
    blocks = {block.id: block for block in ground.blocks(session)}
    proposed = []
    for (block_id, agent), rows in checks.items():
        heat = catalogue.agents[agent].heat if agent in catalogue.agents else None
        if block_id not in blocks or (block_id, agent) in have or heat is None or heat.biofix != BiofixKind.CATCH or not heat.events:
            continue
        proposal = biofix.sustained_catch(rows, *heat.catch, least=heat.catch_least, nights=heat.catch_nights)
        if proposal:
            proposed.append(_proposed(blocks[block_id], agent, proposal))
    since = biofix.season_begins(day, farm.latitude < 0)
    watched = forecasts.watched(session, day)
    by_crop = [agent for agent in catalogue.agents.values() if agent.heat and agent.heat.biofix == BiofixKind.CROP]
    for block in blocks.values() if by_crop else ():
        for agent_ in by_crop:
            met = (block.id, agent_.id) in watched and (block.id, agent_.id) not in have
            if met and grown.lives_on(agent_, block):
                proposal = biofix.crop_event(agent_.heat, crop_stages.noted(session, block), since)
                if proposal:
                    proposed.append(_proposed(block, agent_.id, proposal))
    return proposed


def _proposed(block: Block, agent: str, proposal: Proposal) -> Proposed:
    return Proposed(block.id, block.name, agent, proposal.on, proposal.why)


def catches(hanging: list[Hanging]) -> dict[tuple[uuid.UUID, str], list[tuple[dt.date, int]]]:
    """What was caught on each day, by block and agent, all traps together."""
    by_pair: dict[tuple[uuid.UUID, str], dict[dt.date, int]] = {}
    for trapped in hanging:
        days = by_pair.setdefault((trapped.trap.block_id, trapped.trap.agent), {})
        for row in trapped.checks:
            days[row.on] = days.get(row.on, 0) + row.caught
    return {key: sorted(days.items()) for key, days in by_pair.items()}
