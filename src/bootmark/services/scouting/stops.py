"""One stop with all that hangs on it."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from bootmark.core.meanings import VerdictKind
from bootmark.core.messages import Message
from bootmark.services.base import grown, memo, people, stamp
from bootmark.services.base.handling import DERIVED
from bootmark.services.base.stamp import Topic
from bootmark.services.scouting import held
from bootmark.store.models import Block, DecisionRow, Look, ReturnVisit, SampleRow, Stop
from bootmark.store.rows import of_farm, plain, row_of


@dataclass(frozen=True)
class Beside:
    """Another stop of the same day on the same block, at which something was kept: by whom, when, and whether it was counted there."""

    id: uuid.UUID
    account_id: uuid.UUID
    name: str
    at: dt.datetime
    counted: tuple[str, ...]


@dataclass(frozen=True)
class AtStop:
    """A stop, its block, and its records; None where not made yet. hold: what is said of a block that is held; beside: other stops there on
    that day."""

    stop: Stop
    block: Block
    look: Look | None
    samples: dict[str, SampleRow]
    calls: dict[str, DecisionRow]
    visit: ReturnVisit | None
    hold: Message | None
    beside: tuple[Beside, ...] = ()

    @property
    def named(self) -> list[str]:
        """Agents that the look's verdict speaks of, named ones only."""
        verdict = self.look.working["verdict"] if self.look else {"kind": "", "agents": []}
        return (
            list(verdict["agents"])
            if verdict["kind"] in (VerdictKind.NAMED, VerdictKind.HELP_HAS_COME, VerdictKind.NOT_A_PEST, VerdictKind.MUST_BE_REPORTED)
            else []
        )

    @property
    def spoken_of(self) -> list[str]:
        return list(self.look.working["verdict"]["agents"]) if self.look else []

    @property
    def worn(self) -> tuple[str, ...]:
        """Lugs done for this stop."""
        return tuple(name for name, done in (("look", self.look), ("count", self.samples), ("call", self.calls)) if done)


_kept: memo.Kept[AtStop] = memo.Kept(512)


def child(stop_id: uuid.UUID, kind: str, agent: str = "") -> uuid.UUID:
    """The id of a record at a stop: the same at every load of its page, so that a reload can't make a second one."""
    return uuid.uuid5(DERIVED, f"{stop_id}/{kind}/{agent}")


def at(session: Session, stop_id: uuid.UUID) -> AtStop:
    """A stop with its records, as values: to be shown, not to be changed. Raises NotHere."""
    return stamp.while_standing(session, _kept, (Topic.SCOUTING, Topic.TREATMENT, Topic.PLACES), stop_id, lambda: _at(session, stop_id))


def _at(session: Session, stop_id: uuid.UUID) -> AtStop:
    stop = row_of(session, Stop, stop_id)
    look = session.scalars(of_farm(Look).where(Look.stop_id == stop_id).order_by(Look.seen_at.desc()).limit(1)).first()
    samples = session.scalars(of_farm(SampleRow).where(SampleRow.stop_id == stop_id))
    calls = session.scalars(of_farm(DecisionRow).where(DecisionRow.look_id == look.id)) if look else ()
    return AtStop(
        plain(stop),
        grown.at_stop(session, stop),
        plain(look) if look else None,
        {sample.agent: plain(sample) for sample in samples},
        {call.agent: plain(call) for call in calls},
        plain(row_of(session, ReturnVisit, stop.return_id)) if stop.return_id else None,
        held.blocks(session).get(stop.block_id),
        _beside(session, stop),
    )


def _beside(session: Session, stop: Stop) -> tuple[Beside, ...]:
    there = of_farm(Stop).where(Stop.block_id == stop.block_id, Stop.on == stop.on, Stop.id != stop.id)
    others = list(session.scalars(there.order_by(Stop.seen_at, Stop.id)))
    if not others:
        return ()
    ids = [other.id for other in others]
    looked = set(session.scalars(of_farm(Look, Look.stop_id).where(Look.stop_id.in_(ids))))
    counted: dict[uuid.UUID, list[str]] = {}
    for stop_id, agent in session.execute(of_farm(SampleRow, SampleRow.stop_id, SampleRow.agent).where(SampleRow.stop_id.in_(ids))):
        counted.setdefault(stop_id, []).append(agent)
    names = people.names(session)
    return tuple(
        Beside(other.id, other.account_id, names.get(other.account_id, ""), other.seen_at, tuple(sorted(counted.get(other.id, ()))))
        for other in others
        if other.id in looked or other.id in counted
    )


def newest(session: Session, account_id: uuid.UUID, day: dt.date) -> Stop | None:
    """The stop that a person opened last on a day."""
    mine = of_farm(Stop).where(Stop.on == day, Stop.account_id == account_id)
    return session.scalars(mine.order_by(Stop.seen_at.desc(), Stop.id).limit(1)).first()


def newest_of_all(session: Session) -> list[uuid.UUID]:
    """The stops of the newest look and of the newest count."""
    newest = (session.scalars(of_farm(head, head.stop_id).order_by(head.seen_at.desc()).limit(1)).first() for head in (Look, SampleRow))
    return [stop for stop in newest if stop]
