"""A finding as it is kept: its evidence, every version of it, and what was found of its agents on that block."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.services import people, stops
from bootmark.store.models import Block, Farm, FindingRow, Look, Stop
from bootmark.store.versions import VERSIONS


@dataclass(frozen=True)
class Version:
    """What was told in one version of a look. conflict: it came late and stands beside the current one."""

    number: int
    seen_at: dt.datetime
    by: str
    signs: dict[str, str]
    note: str
    conflict: bool
    verdicts: tuple[tuple[str, str, float], ...]


@dataclass(frozen=True)
class Earlier:
    """One finding of an agent on the block: when, what was said of it, whether a sign proved it."""

    agent: str
    seen_at: dt.datetime
    verdict: str
    activity: str
    confirmed: bool
    look_id: uuid.UUID


@dataclass(frozen=True)
class Finding:
    look: Look
    stop: Stop
    block: Block
    versions: tuple[Version, ...]
    history: tuple[Earlier, ...]
    photos: list[uuid.UUID]

    @property
    def verdict(self) -> dict[str, Any]:
        return dict(self.look.working["verdict"])


def of_look(session: Session, farm: Farm, look_id: uuid.UUID) -> Finding | None:
    look = session.get(Look, (farm.id, look_id))
    if look is None:
        return None
    stop = session.get_one(Stop, (farm.id, look.stop_id))
    block = session.get_one(Block, (farm.id, stop.block_id))
    rows = list(session.scalars(select(FindingRow).where(FindingRow.farm_id == farm.id, FindingRow.look_id == look_id)))
    names = people.names(session)
    table = VERSIONS[Look]
    kept = session.execute(
        select(table).where(table.c.farm_id == farm.id, table.c.record_id == look_id).order_by(table.c.number.desc())
    ).mappings()
    versions = tuple(
        Version(
            one["number"],
            one["seen_at"],
            names.get(one["account_id"], "somebody who has left"),
            one["payload"].get("signs", {}),
            one["payload"].get("note", ""),
            one["conflict"],
            tuple((row.agent, row.verdict, row.probability) for row in rows if row.look_version == one["number"]),
        )
        for one in kept
    )
    spoken_of = {row.agent for row in rows} | set(look.working["verdict"]["agents"])
    earlier = session.scalars(
        select(FindingRow)
        .where(
            FindingRow.farm_id == farm.id,
            FindingRow.block_id == block.id,
            FindingRow.agent.in_(spoken_of),
            FindingRow.look_id != look_id,
        )
        .order_by(FindingRow.seen_at.desc())
    )
    history = tuple(Earlier(one.agent, one.seen_at, one.verdict, one.activity, one.confirmed, one.look_id) for one in earlier)
    return Finding(look, stop, block, versions, history, stops.photos(session, farm, stop.id))
