"""One stop with all that hangs on it."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.services.commands import DERIVED
from bootmark.store.models import Block, DecisionRow, Farm, Look, Photo, ReturnVisit, SampleRow, Stop


@dataclass(frozen=True)
class AtStop:
    """A stop, its block, and its records; None where not made yet."""

    stop: Stop
    block: Block
    look: Look | None
    samples: dict[str, SampleRow]
    calls: dict[str, DecisionRow]
    visit: ReturnVisit | None

    @property
    def named(self) -> list[str]:
        """Agents that the look's verdict speaks of, named ones only."""
        told = self.look.working["verdict"] if self.look else {"kind": "", "agents": []}
        return list(told["agents"]) if told["kind"] in ("named", "help has come", "not a pest", "must be reported") else []

    @property
    def spoken_of(self) -> list[str]:
        return list(self.look.working["verdict"]["agents"]) if self.look else []

    @property
    def worn(self) -> tuple[str, ...]:
        """Lugs done for this stop."""
        return tuple(name for name, done in (("look", self.look), ("count", self.samples), ("call", self.calls)) if done)


def child(stop_id: uuid.UUID, kind: str, agent: str = "") -> uuid.UUID:
    """The id of a record at a stop: the same at every load of its page, so that a reload can't make a second one."""
    return uuid.uuid5(DERIVED, f"{stop_id}/{kind}/{agent}")


def at(session: Session, farm: Farm, stop_id: uuid.UUID) -> AtStop | None:
    stop = session.get(Stop, (farm.id, stop_id))
    if stop is None:
        return None
    look = session.scalars(
        select(Look).where(Look.farm_id == farm.id, Look.stop_id == stop_id).order_by(Look.seen_at.desc()).limit(1)
    ).first()
    samples = session.scalars(select(SampleRow).where(SampleRow.farm_id == farm.id, SampleRow.stop_id == stop_id))
    calls = session.scalars(select(DecisionRow).where(DecisionRow.farm_id == farm.id, DecisionRow.look_id == look.id)) if look else ()
    return AtStop(
        stop,
        session.get_one(Block, (farm.id, stop.block_id)),
        look,
        {one.agent: one for one in samples},
        {one.agent: one for one in calls},
        session.get(ReturnVisit, (farm.id, stop.return_id)) if stop.return_id else None,
    )


def newest(session: Session, farm: Farm, account_id: uuid.UUID, day: dt.date) -> Stop | None:
    """The stop that a person opened last on a day."""
    return session.scalars(
        select(Stop)
        .where(Stop.farm_id == farm.id, Stop.on == day, Stop.account_id == account_id)
        .order_by(Stop.seen_at.desc(), Stop.id)
        .limit(1)
    ).first()


def photos(session: Session, farm: Farm, stop_id: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(select(Photo.id).where(Photo.farm_id == farm.id, Photo.stop_id == stop_id).order_by(Photo.seen_at)))
