"""Stored forecasts: a page reads them, a change of what they rest on makes them anew, in the background where there are many."""

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from bootmark.core.season import openings
from bootmark.core.season.phenology import Season
from bootmark.services.base import queue
from bootmark.services.seasons import forecasts
from bootmark.services.seasons.forecasts import Ask, Pair
from bootmark.services.seasons.packing import pack, unpack
from bootmark.store.models import Block, Farm, SeasonResult, SeasonRun
from bootmark.store.rows import of_farm

__all__ = [
    "Listed",
    "SeasonRun",
    "begin",
    "in_turn",
    "keep",
    "listing",
    "load",
    "newest_run",
    "part_of",
    "refresh",
    "told_done",
]
AT_ONCE = 24
"""Forecasts that a page makes itself; more go to the background."""
PARTS = 16
STEP = 10
"""Forecasts that a worker keeps in one transaction: what is lost where it is stopped."""
RUN_FORGOTTEN = dt.timedelta(minutes=30)


@dataclass(frozen=True)
class Listed:
    """A forecast that is watched.

    fresh: what is stored rests on today's readings; needs, opens, closes: as stored, None where nothing is.
    """

    ask: Ask
    fresh: bool
    stored: bool
    needs: bool
    opens: dt.date | None
    closes: dt.date | None

    @property
    def pair(self) -> Pair:
        return self.ask.block.id, self.ask.agent.id


def listing(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, day: dt.date) -> list[Listed]:
    """Every forecast that is watched on these blocks, those that need somebody first, then by the day on which their window closes."""
    wanted = forecasts.asks(session, farm, blocks, catalogue, day)
    columns = (SeasonResult.block_id, SeasonResult.agent, SeasonResult.key, SeasonResult.needs, SeasonResult.opens, SeasonResult.closes)
    stored = {(row.block_id, row.agent): row for row in session.execute(of_farm(SeasonResult, *columns))}
    rows = []
    for question in wanted:
        row = stored.get((question.block.id, question.agent.id))
        fresh = row is not None and row.key == question.key
        rows.append(
            Listed(question, fresh, row is not None, bool(row and row.needs), row.opens if row else None, row.closes if row else None)
        )
    return sorted(
        rows, key=lambda question: (not question.needs, question.closes or dt.date.max, question.ask.block.name, question.ask.agent.name)
    )


def load(session: Session, wanted: Sequence[Listed]) -> dict[Pair, Season]:
    """The stored forecasts of these, as they are."""
    if not wanted:
        return {}
    blocks = {listed.ask.block.id for listed in wanted}
    pairs = {listed.pair for listed in wanted}
    rows = session.execute(
        of_farm(SeasonResult, SeasonResult.block_id, SeasonResult.agent, SeasonResult.facts, SeasonResult.arrays).where(
            SeasonResult.block_id.in_(blocks),
            SeasonResult.agent.in_({listed.ask.agent.id for listed in wanted}),
            SeasonResult.facts != {},
        )
    )
    return {(row.block_id, row.agent): unpack(row.facts, row.arrays) for row in rows if (row.block_id, row.agent) in pairs}


def keep(session: Session, farm: Farm, question: Ask, day: dt.date, real_now: dt.datetime) -> bool:
    """Reckon one forecast and store it, unless it is stored already; True where it was reckoned.

    Two workers that come to the same forecast take turns, and the second finds it done. One that can't be made (no weather from
    its biofix on) is kept empty, so that it is not tried again before something changes.
    """
    session.execute(
        text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 1))"), {"key": f"{farm.id}/{question.block.id}/{question.agent.id}"}
    )
    where = (SeasonResult.farm_id == farm.id, SeasonResult.block_id == question.block.id, SeasonResult.agent == question.agent.id)
    if session.execute(select(SeasonResult.key).where(*where)).scalar() == question.key:
        return False
    season = forecasts.answer(session, farm, question, day)
    packed, arrays = pack(season) if season else ({}, b"")
    leading = openings.leading_window(season, question.agent, after=day) if season else None
    row = {
        "key": question.key,
        "day": day,
        "needs": openings.near(leading[1] if leading else None, day),
        "opens": leading[1][0] if leading else None,
        "closes": leading[1][1] if leading else None,
        "facts": packed,
        "arrays": arrays,
        "reckoned_at": real_now,
    }
    statement = insert(SeasonResult).values(farm_id=farm.id, block_id=question.block.id, agent=question.agent.id, **row)
    session.execute(statement.on_conflict_do_update(index_elements=["farm_id", "block_id", "agent"], set_=row))
    return True


def refresh(
    session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, day: dt.date, real_now: dt.datetime
) -> tuple[list[Listed], SeasonRun | None]:
    """The listing with what is stale made anew: here where it is little, else in the background; then the run that does it."""
    rows = listing(session, farm, blocks, catalogue, day)
    stale = in_turn(rows)
    if not stale:
        return rows, None
    if len(stale) > AT_ONCE:
        return rows, begin(session, farm, len(stale), day, real_now)
    for row in stale:
        keep(session, farm, row.ask, day, real_now)
    return listing(session, farm, blocks, catalogue, day), None


def in_turn(listed: Sequence[Listed]) -> list[Listed]:
    """What has to be made anew, in the one order in which all take its locks: two that take them crosswise would wait for each other."""
    return sorted((row for row in listed if not row.fresh), key=lambda row: row.pair)


def newest_run(session: Session) -> SeasonRun | None:
    return session.scalars(of_farm(SeasonRun).order_by(SeasonRun.started_at.desc()).limit(1)).first()


def begin(session: Session, farm: Farm, total: int, day: dt.date, real_now: dt.datetime) -> SeasonRun:
    """Queue the reckoning of a farm, unless one is under way that is not forgotten."""
    session.execute(text("SELECT pg_advisory_xact_lock(hashtextextended(:key, 2))"), {"key": str(farm.id)})
    running = newest_run(session)
    if running and running.finished_at is None and real_now - running.started_at < RUN_FORGOTTEN:
        return running
    run = SeasonRun(farm_id=farm.id, id=uuid.uuid4(), day=day, total=total, done=0, parts=[], started_at=real_now, finished_at=None)
    session.add(run)
    session.flush()
    for part in range(PARTS):
        queue.defer(session, queue.RECKON, farm_id=str(farm.id), run_id=str(run.id), part=str(part))
    return run


def part_of(block_id: uuid.UUID) -> int:
    """The part of a run that a block belongs to: the same at every try."""
    return block_id.int % PARTS


def told_done(session: Session, farm_id: uuid.UUID, run_id: uuid.UUID, count: int, real_now: dt.datetime, part: int | None = None) -> None:
    """Add to a run what has been done; part: one that is done with this, whether or not it had anything left to do."""
    run = session.get_one(SeasonRun, (farm_id, run_id), with_for_update=True, populate_existing=True)
    run.done = min(run.done + count, run.total)
    if part is not None and part not in run.parts:
        run.parts = [*run.parts, part]
    if len(run.parts) == PARTS and run.finished_at is None:
        run.done, run.finished_at = run.total, real_now
