"""What was proved and counted before, as it speaks for a look today: here, beside, in these weeks of earlier years, and growing."""

import datetime as dt
import uuid
from collections.abc import Mapping, Sequence
from typing import Any

from sqlalchemy import func, or_
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.field import beside
from bootmark.core.field.worth import Growing, NextDoor, Place, Proved
from bootmark.core.meanings import Activity, Chosen
from bootmark.core.season.daily import same_day
from bootmark.services.base import ground, grown, memo, stamp
from bootmark.services.base.farm_time import day_of, start_of
from bootmark.services.base.stamp import Topic
from bootmark.services.scouting import growth
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, Farm, FindingRow, SampleRow, Stop
from bootmark.store.rows import of_farm, plain

ENDED = (Activity.FINISHED, Activity.DEAD)
MOST_TOLD = 2
"""Agents of earlier years that are told of a block at most."""
_reckoned: memo.Kept[tuple[float | None]] = memo.Kept(1000)
_growing: memo.Kept[dict[uuid.UUID, list[Growing]]] = memo.Kept(64)


def proved(session: Session, farm: Farm, catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[Proved]]:
    """Pests that were proved on each block lately and are not over, by what was told of each last."""
    since = start_of(farm, today - dt.timedelta(days=judgement.FOUND_DAYS))
    columns = (FindingRow.block_id, FindingRow.agent, FindingRow.confirmed, FindingRow.activity, FindingRow.seen_at)
    newest = of_farm(FindingRow, *columns).where(FindingRow.seen_at >= since).ext(distinct_on(FindingRow.block_id, FindingRow.agent))
    rows = session.execute(newest.order_by(FindingRow.block_id, FindingRow.agent, FindingRow.seen_at.desc()))
    by_block: dict[uuid.UUID, list[Proved]] = {}
    for block_id, agent, confirmed, activity, seen_at in rows:
        if confirmed and activity not in ENDED and agent in catalogue.agents and catalogue.agents[agent].is_pest:
            by_block.setdefault(block_id, []).append(Proved(agent, day_of(farm, seen_at)))
    return by_block


def in_these_weeks(session: Session, farm: Farm, catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[str]]:
    """Pests that were proved on each block in these weeks of earlier years, most often told first."""
    around, day_long = dt.timedelta(days=judgement.HISTORY_DAYS), dt.timedelta(days=1)
    days = [same_day(today, today.year - back) for back in (1, 2, 3)]
    weeks = or_(*(FindingRow.seen_at.between(start_of(farm, day - around), start_of(farm, day + around + day_long)) for day in days))
    columns = (FindingRow.block_id, FindingRow.agent, func.count())
    rows = of_farm(FindingRow, *columns).where(FindingRow.confirmed, weeks)
    by_block: dict[uuid.UUID, list[str]] = {}
    for block_id, agent, _ in session.execute(rows.group_by(FindingRow.block_id, FindingRow.agent).order_by(func.count().desc())):
        if agent in catalogue.agents and catalogue.agents[agent].is_pest and len(by_block.setdefault(block_id, [])) < MOST_TOLD:
            by_block[block_id].append(agent)
    return by_block


def next_door(
    farm: Farm, blocks: Sequence[Block], pests: Mapping[uuid.UUID, Sequence[Proved]], catalogue: Any
) -> dict[str, list[NextDoor]]:
    """Pests that were proved lately beside each block and live on what grows there, by the block's id. pests: as `proved` tells them."""
    by_id = {str(block.id): block for block in blocks}

    def lives_on(agent_id: str, block: str) -> bool:
        agent = catalogue.agents[agent_id]
        return "*" not in agent.hosts and grown.lives_on(agent, by_id[block])

    places = [Place(str(block.id), block.name, ground.middle(farm, block)) for block in blocks] if pests else []
    return beside.next_door(places, {str(block): rows for block, rows in pests.items()}, lives_on)


def growing(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, today: dt.date) -> dict[uuid.UUID, list[Growing]]:
    """What was counted on each block lately and comes to pass its threshold by itself. catalogue: with the farm's own thresholds."""
    rests_on = (Topic.SCOUTING, Topic.TREATMENT, *block_weather.READ)
    return stamp.while_standing(
        session, _growing, rests_on, (catalogue.hash, today), lambda: _grows(session, farm, blocks, catalogue, today)
    )


def _days(session: Session, farm: Farm, block: Block, catalogue: Any, sample: SampleRow, on: dt.date) -> float | None:
    """Days until what was counted passes its threshold, reckoned once for each count while weather and places stand."""
    agent = catalogue.agent(sample.agent)
    key = (catalogue.hash, growth.limit(agent, block.crop), sample.version_id, block.version_id, on)

    def reckoned() -> tuple[float | None]:
        return (growth.days_to_threshold(session, farm, block, agent, plain(sample), on),)

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
