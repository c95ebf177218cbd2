"""What was proved and counted before, as it speaks for a look today: here, beside, in these weeks of earlier years, and growing."""

import datetime as dt
import math
import uuid
from collections.abc import Sequence
from typing import Any

from sqlalchemy import func, or_
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.field.worth import Growing, NextDoor
from bootmark.core.meanings import Activity, Chosen
from bootmark.core.season.daily import same_day
from bootmark.services.base import ground, grown, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.services.scouting import growth
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, Farm, FindingRow, SampleRow, Stop
from bootmark.store.rows import of_farm, plain

OVER = (Activity.FINISHED, Activity.DEAD)
MOST_TOLD = 2
"""Agents of earlier years that are told of a block at most."""
_reckoned: memo.Kept[tuple[float | None]] = memo.Kept(1000)
_growing: memo.Kept[dict[uuid.UUID, list[Growing]]] = memo.Kept(64)


def proved(session: Session, catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[str]]:
    """Pests that were proved on each block lately and are not over, by what was told of each last."""
    since = dt.datetime.combine(today - dt.timedelta(days=judgement.FOUND_DAYS), dt.time(), dt.UTC)
    columns = (FindingRow.block_id, FindingRow.agent, FindingRow.confirmed, FindingRow.activity)
    newest = of_farm(FindingRow, *columns).where(FindingRow.seen_at >= since).ext(distinct_on(FindingRow.block_id, FindingRow.agent))
    rows = session.execute(newest.order_by(FindingRow.block_id, FindingRow.agent, FindingRow.seen_at.desc()))
    by_block: dict[uuid.UUID, list[str]] = {}
    for block_id, agent, confirmed, activity in rows:
        if confirmed and activity not in OVER and agent in catalogue.agents and catalogue.agents[agent].is_pest:
            by_block.setdefault(block_id, []).append(agent)
    return by_block


def in_these_weeks(session: Session, catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[str]]:
    """Pests that were proved on each block in these weeks of earlier years, most often told first."""
    around = dt.timedelta(days=judgement.HISTORY_DAYS)
    days = [same_day(today, today.year - back) for back in (1, 2, 3)]
    weeks = or_(*(FindingRow.seen_at.between(_start(day - around), _start(day + around)) for day in days))
    columns = (FindingRow.block_id, FindingRow.agent, func.count())
    rows = of_farm(FindingRow, *columns).where(FindingRow.confirmed, weeks)
    by_block: dict[uuid.UUID, list[str]] = {}
    for block_id, agent, _ in session.execute(rows.group_by(FindingRow.block_id, FindingRow.agent).order_by(func.count().desc())):
        if agent in catalogue.agents and catalogue.agents[agent].is_pest and len(by_block.setdefault(block_id, [])) < MOST_TOLD:
            by_block[block_id].append(agent)
    return by_block


def _start(day: dt.date) -> dt.datetime:
    return dt.datetime.combine(day, dt.time(), dt.UTC)


def next_door(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[NextDoor]]:
    """Pests that were proved lately on a block nearby and live on what grows here, of each the nearest."""
    since = _start(today - dt.timedelta(days=judgement.FOUND_DAYS))
    columns = (FindingRow.block_id, FindingRow.agent, func.max(FindingRow.seen_at))
    rows = of_farm(FindingRow, *columns).where(FindingRow.confirmed, FindingRow.seen_at >= since, FindingRow.activity.not_in(OVER))
    proved_on = [(block, agent, at.date()) for block, agent, at in session.execute(rows.group_by(FindingRow.block_id, FindingRow.agent))]
    where = {block.id: (block, ground.middle(farm, block)) for block in blocks} if proved_on else {}
    beside: dict[uuid.UUID, list[NextDoor]] = {}
    for source, agent_id, on in proved_on:
        agent = catalogue.agents.get(agent_id)
        if source not in where or agent is None or not agent.is_pest:
            continue
        for block, middle in where.values():
            near = block.id != source and math.dist(middle, where[source][1]) <= judgement.BESIDE_METRES
            told = any(row.agent == agent_id for row in beside.get(block.id, ()))
            if near and not told and "*" not in agent.hosts and grown.lives_on(agent, block):
                beside.setdefault(block.id, []).append(NextDoor(agent_id, where[source][0].name, on))
    return beside


def growing(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[Growing]]:
    """What was counted on each block lately and comes to pass its threshold by itself."""
    rests_on = (Topic.SCOUTING, Topic.TREATMENT, *block_weather.READ)
    return stamp.while_standing(
        session, _growing, rests_on, (catalogue.hash, today), lambda: _grows(session, farm, blocks, catalogue, today)
    )


def _days(session: Session, farm: Farm, block: Block, catalogue: Any, sample: SampleRow, on: dt.date) -> float | None:
    """Days until what was counted passes its threshold, reckoned once for each count while weather and places stand."""
    key = (catalogue.hash, sample.version_id, block.version_id, on)

    def reckoned() -> tuple[float | None]:
        return (growth.days_to_threshold(session, farm, block, catalogue.agent(sample.agent), plain(sample), on),)

    return stamp.while_standing(session, _reckoned, block_weather.READ, key, reckoned)[0]


def _grows(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[Growing]]:
    by_id = {block.id: block for block in blocks}
    joined = (Stop.farm_id == SampleRow.farm_id) & (Stop.id == SampleRow.stop_id)
    rows = (
        of_farm(SampleRow, SampleRow, Stop.block_id, Stop.on)
        .join(Stop, joined)
        .where(Stop.on > today - dt.timedelta(days=judgement.FOUND_DAYS), Stop.on < today, SampleRow.chosen == Chosen.PLAN)
    )
    grows: dict[uuid.UUID, list[Growing]] = {}
    taken: set[tuple[uuid.UUID, str]] = set()
    for sample, block_id, on in session.execute(rows.order_by(SampleRow.seen_at.desc())):
        block = by_id.get(block_id)
        if block is None or (block_id, sample.agent) in taken or not sum(sample.counts):
            continue
        taken.add((block_id, sample.agent))
        days = _days(session, farm, block, catalogue, sample, on)
        if days is not None and days > 0:
            grows.setdefault(block_id, []).append(Growing(sample.agent, max(days - (today - on).days, 0.0)))
    return grows
