"""Today's round, from what is booked, open, due by heat and long unseen."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import func
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Session

from bootmark.core.field import walk
from bootmark.core.field.walk import BlockState, DueLook, OpenCase, Opening, Walk
from bootmark.services.base import ground
from bootmark.services.seasons import results, traps
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, DecisionRow, Farm, Look, ReturnVisit, Stop
from bootmark.store.rows import of_farm

OPEN_CASE_DAYS = 14


def last_looks(session: Session) -> dict[uuid.UUID, dt.date]:
    rows = session.execute(of_farm(Stop, Stop.block_id, func.max(Stop.on)).group_by(Stop.block_id))
    return dict(rows.all())


def open_cases(session: Session, known: Any, today: dt.date) -> dict[uuid.UUID, list[OpenCase]]:
    """The newest look of each block, where it still needs one and nobody has called it."""
    rows = session.execute(
        of_farm(Look, Look.working["verdict"], Look.working["next_look"], Stop.block_id, Stop.on)
        .join(Stop, (Stop.farm_id == Look.farm_id) & (Stop.id == Look.stop_id))
        .outerjoin(DecisionRow, (DecisionRow.farm_id == Look.farm_id) & (DecisionRow.look_id == Look.id))
        .where(Stop.on > today - dt.timedelta(days=OPEN_CASE_DAYS), DecisionRow.id.is_(None))
        .ext(distinct_on(Stop.block_id))
        .order_by(Stop.block_id, Look.seen_at.desc())
    )
    found: dict[uuid.UUID, list[OpenCase]] = {}
    for told, asked, block_id, on in rows:
        next_look = known.looks.get(asked)
        if told["kind"] == "needs a look" and told["agents"] and next_look:
            found[block_id] = [OpenCase(known.agent(told["agents"][0]).in_sentence, next_look.name, next_look.tools, on)]
    return found


def booked(session: Session) -> list[ReturnVisit]:
    return list(session.scalars(of_farm(ReturnVisit).where(ReturnVisit.state == "booked").order_by(ReturnVisit.due_on)))


def openings(
    session: Session, farm: Farm, blocks: list[Block], known: Any, today: dt.date, real_now: dt.datetime
) -> dict[uuid.UUID, list[Opening]]:
    """The window that is open or next for each agent that is watched, as the stored forecasts have it."""
    listed, _ = results.refresh(session, farm, blocks, known, today, real_now)
    found: dict[uuid.UUID, list[Opening]] = {}
    for one in listed:
        if one.opens and one.closes and one.closes >= today:
            found.setdefault(one.ask.block.id, []).append(Opening(one.ask.agent.in_sentence, one.opens, one.closes))
    return found


def today(session: Session, farm: Farm, known: Any, day: dt.date, real_now: dt.datetime) -> tuple[Walk, list[Block]]:
    """The walk of a day and the farm's blocks."""
    blocks = ground.blocks(session)
    looked, cases = last_looks(session), open_cases(session, known, day)
    due: dict[uuid.UUID, list[DueLook]] = {}
    for visit in booked(session):
        name = known.agent(visit.agent).in_sentence
        due.setdefault(visit.block_id, []).append(
            DueLook(str(visit.id), name, visit.due_on, visit.look_for, visit.application_id is not None)
        )
    waits = traps.waiting(traps.register(session, day), known, day)
    windows = openings(session, farm, blocks, known, day, real_now)
    states = [
        BlockState(
            id=str(block.id),
            name=block.name,
            at=ground.middle(block),
            looked=looked.get(block.id),
            spells=block_weather.hints(session, farm, block, day),
            due=due.get(block.id, ()),
            cases=cases.get(block.id, ()),
            openings=windows.get(block.id, ()),
            traps=waits.get(block.id, ()),
        )
        for block in blocks
    ]
    return walk.plan(states, day), blocks


def opened_today(session: Session, day: dt.date) -> dict[str, list[Stop]]:
    """Stops of a day by block, the newest first."""
    found: dict[str, list[Stop]] = {}
    for stop in session.scalars(of_farm(Stop).where(Stop.on == day).order_by(Stop.seen_at.desc(), Stop.id)):
        found.setdefault(str(stop.block_id), []).append(stop)
    return found
