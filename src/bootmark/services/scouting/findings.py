"""A finding as it is kept: its evidence, every version of it, and what was found of its agents on that block."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base import grown, people
from bootmark.services.scouting import photos
from bootmark.store.models import Block, FindingRow, Look, Stop
from bootmark.store.rows import of_farm, row_of
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


def of_look(session: Session, look_id: uuid.UUID) -> Finding:
    """A look with all that is known of what it found. Raises NotHere."""
    look = row_of(session, Look, look_id)
    stop = row_of(session, Stop, look.stop_id)
    rows = list(session.scalars(of_farm(FindingRow).where(FindingRow.look_id == look_id)))
    names = people.names(session)
    table = VERSIONS[Look]
    kept = session.execute(
        select(table).where(table.c.farm_id == look.farm_id, table.c.record_id == look_id).order_by(table.c.number.desc())
    ).mappings()
    versions = tuple(
        Version(
            version["number"],
            version["seen_at"],
            names.get(version["account_id"], say.line("somebody who has left")),
            version["payload"].get("signs", {}),
            version["payload"].get("note", ""),
            version["conflict"],
            tuple((row.agent, row.verdict, row.probability) for row in rows if row.look_version == version["number"]),
        )
        for version in kept
    )
    spoken_of = {row.agent for row in rows} | set(look.working["verdict"]["agents"])
    before = of_farm(FindingRow).where(FindingRow.block_id == stop.block_id, FindingRow.agent.in_(spoken_of), FindingRow.look_id != look_id)
    history = tuple(
        Earlier(row.agent, row.seen_at, row.verdict, row.activity, row.confirmed, row.look_id)
        for row in session.scalars(before.order_by(FindingRow.seen_at.desc()))
    )
    return Finding(look, stop, grown.at_stop(session, stop), versions, history, photos.of_stop(session, stop.id))


def of_version(session: Session, look_id: uuid.UUID, number: int) -> list[FindingRow]:
    """The agents that one version of a look speaks of."""
    return list(session.scalars(of_farm(FindingRow).where(FindingRow.look_id == look_id, FindingRow.look_version == number)))
