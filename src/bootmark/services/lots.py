"""The way of a lot: from bed to bed and to its buyer, with what was found on it at each place."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from bootmark.services.base import ground, grown
from bootmark.services.base.farm_time import day_of
from bootmark.services.scouting import held
from bootmark.store.models import Farm, FindingRow, Planting
from bootmark.store.rows import of_farm, plain

MOST_FOUND = 12


@dataclass(frozen=True)
class Named:
    """A finding on a lot. verdict: as it was stored."""

    agent: str
    verdict: str
    on: dt.date


@dataclass(frozen=True)
class Step:
    """A place that a lot stood at. until: None while it stands there; held: its block is held now."""

    block: str
    since: dt.date | None
    until: dt.date | None
    gone_to: str
    held: bool
    findings: tuple[Named, ...]


def way(session: Session, farm: Farm, planting: Planting) -> list[Step]:
    """Every place of a planting's lot, from where it came first to where all of it went; itself alone where it never moved."""
    rows = {row.id: plain(row) for row in session.scalars(of_farm(Planting))}
    blocks = {block.id: block.name for block in ground.all_blocks(session)}
    holds = held.blocks(session)
    lot = _lot(planting.id, rows)
    ordered = sorted((rows[part] for part in lot), key=lambda row: (row.since or dt.date.min, str(row.id)))
    return [
        Step(blocks[row.block_id], row.since, row.until, row.gone_to, row.block_id in holds, _named(session, farm, row)) for row in ordered
    ]


def _lot(planting: uuid.UUID, rows: dict[uuid.UUID, Planting]) -> set[uuid.UUID]:
    """A planting with all that it came from and all that came from any of these."""
    first = planting
    seen = {first}
    while (before := rows[first].grown_from) and before in rows and before not in seen:
        first = before
        seen.add(first)
    lot = {first}
    while more := {row.id for row in rows.values() if row.grown_from in lot and not row.withdrawn} - lot:
        lot |= more
    return lot | {planting}


def _named(session: Session, farm: Farm, planting: Planting) -> tuple[Named, ...]:
    """What was named or suspected on a block while a planting stood there, the newest first, each agent once."""
    columns = (FindingRow.agent, FindingRow.verdict, FindingRow.seen_at)
    rows = of_farm(FindingRow, *columns).where(FindingRow.block_id == planting.block_id)
    newest: dict[str, Named] = {}
    for agent, verdict, at in session.execute(rows.order_by(FindingRow.seen_at.desc())):
        on = day_of(farm, at)
        if (planting.since is None or planting.since <= on) and (planting.until is None or on <= planting.until):
            newest.setdefault(agent, Named(agent, verdict, on))
    return tuple(newest.values())[:MOST_FOUND]


def standing(session: Session) -> list[tuple[uuid.UUID, str, str]]:
    """Plantings that a lot may have come from: what stands on any block, with its crop and its block's name."""
    return [(row.id, row.crop, block.name) for block in ground.blocks(session) for row in grown.standing(block)]
