"""Today's round, from what is booked, open, due by heat and long unseen."""

import datetime as dt
import uuid
from collections.abc import Sequence
from typing import Any, NamedTuple

from sqlalchemy import func, or_, select
from sqlalchemy.orm import Session

from bootmark.core.field import walk
from bootmark.core.field.walk import Walk, Wish
from bootmark.core.field.worth import BlockState, DueLook, OpenCase, Opening
from bootmark.core.meanings import Place, VerdictKind
from bootmark.services.base import ground, grown
from bootmark.services.base.states import VisitState
from bootmark.services.scouting import closed, earlier, held
from bootmark.services.seasons import results, traps
from bootmark.services.seasons.results import Listed
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, DecisionRow, Farm, Look, ReturnVisit, SampleRow, Stop
from bootmark.store.rows import of_farm

OPEN_CASE_DAYS = 14
MOST_OPENED = 5
"""Open stops that are shown of a block."""


def last_looks(session: Session) -> dict[uuid.UUID, dt.date]:
    """When something was kept of each block last, if only that nothing is wrong: a stop that was opened and left is no look."""
    kept = [of_farm(head, head.id).where(head.stop_id == Stop.id).exists() for head in (Look, SampleRow)]
    newest = select(func.max(Stop.on)).where(Stop.farm_id == Block.farm_id, Stop.block_id == Block.id, or_(*kept)).scalar_subquery()
    rows = session.execute(of_farm(Block, Block.id, newest))
    return {block: on for block, on in rows if on}


def open_cases(session: Session, catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[OpenCase]]:
    """Suspects that still need a look and that nobody has called: of each suspect on a block what was told last counts."""
    called = of_farm(DecisionRow, DecisionRow.id).where(DecisionRow.look_id == Look.id).exists()
    # The workings are long: only what is asked of them is taken up.
    columns = (Look.working["verdict"], Look.working["next_look"], Stop.block_id, Stop.on, called)
    joined = (Stop.farm_id == Look.farm_id) & (Stop.id == Look.stop_id)
    looks = of_farm(Look, *columns).join(Stop, joined).where(Stop.on > today - dt.timedelta(days=OPEN_CASE_DAYS))
    cases: dict[uuid.UUID, list[OpenCase]] = {}
    settled: set[tuple[uuid.UUID, str]] = set()
    for verdict, asked, block_id, on, is_called in session.execute(looks.order_by(Look.seen_at.desc())):
        agents = [agent for agent in verdict["agents"] if (block_id, agent) not in settled]
        settled |= {(block_id, agent) for agent in verdict["agents"]}
        next_look = catalogue.looks.get(asked)
        first = verdict["agents"][:1]
        if verdict["kind"] == VerdictKind.NEEDS_A_LOOK and agents[:1] == first and first and next_look and not is_called:
            cases.setdefault(block_id, []).append(OpenCase(first[0], next_look.id, next_look.tools, on))
    return cases


def booked(session: Session) -> list[ReturnVisit]:
    return list(session.scalars(of_farm(ReturnVisit).where(ReturnVisit.state == VisitState.BOOKED).order_by(ReturnVisit.due_on)))


def openings(listed: Sequence[Listed], today: dt.date) -> dict[uuid.UUID, list[Opening]]:
    """The window that is open or next for each agent that is watched, as the stored forecasts have it."""
    by_block: dict[uuid.UUID, list[Opening]] = {}
    for row in listed:
        if row.opens and row.closes and row.closes >= today:
            by_block.setdefault(row.ask.block.id, []).append(Opening(row.ask.agent.id, row.opens, row.closes))
    return by_block


class Today(NamedTuple):
    """The walk of a day and the farm's blocks. whole: every forecast that it rests on is made for the rows as they are."""

    walk: Walk
    blocks: list[Block]
    whole: bool


class Opened(NamedTuple):
    """A stop that is open. id: its record."""

    id: uuid.UUID
    seen_at: dt.datetime
    where: str


def today(
    session: Session, farm: Farm, catalogue: Any, own: Any, now: dt.datetime, real_now: dt.datetime, wish: Wish | None = None
) -> Today:
    """A farm's walk of a day. own: the catalogue with the farm's own thresholds."""
    day = now.date()
    blocks = ground.blocks(session)
    looked, cases, pests = last_looks(session), open_cases(session, catalogue, day), earlier.proved(session, farm, catalogue, day)
    due: dict[uuid.UUID, list[DueLook]] = {}
    for visit in booked(session):
        look = DueLook(str(visit.id), visit.agent, visit.due_on, visit.look_for, visit.application_id is not None)
        due.setdefault(visit.block_id, []).append(look)
    waits = traps.waiting(traps.register(session, day), day)
    listed, _ = results.refresh(session, farm, blocks, catalogue, day, real_now)
    windows = openings(listed, day)
    holds, shut = held.blocks(session), closed.blocks(session, catalogue, now)
    history, beside = earlier.in_these_weeks(session, farm, catalogue, day), earlier.next_door(farm, blocks, pests, catalogue)
    grows = earlier.growing(session, farm, blocks, own, day)
    states = [
        BlockState(
            id=str(block.id),
            name=block.name,
            at=ground.middle(farm, block),
            looked=looked.get(block.id),
            spells=block_weather.hints(session, farm, block, day),
            due=due.get(block.id, ()),
            cases=cases.get(block.id, ()),
            openings=windows.get(block.id, ()),
            traps=waits.get(block.id, ()),
            held=holds.get(block.id),
            closed=shut.get(block.id),
            young=block.place == Place.CONTAINER,
            pests=[row.agent for row in pests.get(block.id, ())],
            grows=grows.get(block.id, ()),
            history=history.get(block.id, ()),
            next_door=beside.get(str(block.id), ()),
            arrived=[row.unchecked for row in grown.standing(block) if row.unchecked],
        )
        for block in blocks
        if not grown.is_bare(block)
    ]
    return Today(walk.plan(states, day, ground.gate(session, farm), wish), blocks, all(row.fresh for row in listed))


def any_held(session: Session) -> bool:
    """Whether a block of the farm is held after a report."""
    return bool(held.blocks(session))


def opened_today(session: Session, day: dt.date) -> dict[str, list[Opened]]:
    """The newest stops of a day by block, the newest first."""
    columns = (Stop.block_id, Stop.id, Stop.seen_at, Stop.where)
    by_block: dict[str, list[Opened]] = {}
    for block, *stop in session.execute(of_farm(Stop, *columns).where(Stop.on == day).order_by(Stop.seen_at.desc(), Stop.id)):
        newest = by_block.setdefault(str(block), [])
        if len(newest) < MOST_OPENED:
            newest.append(Opened(*stop))
    return by_block
