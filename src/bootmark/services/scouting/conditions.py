"""What the stand itself shows: stalks that give way when they are pushed, fruit with holes, leaf that is lost by eye."""

import datetime as dt
import uuid
from collections.abc import Iterator, Mapping
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import judgement
from bootmark.core.field import conditions
from bootmark.core.meanings import Condition
from bootmark.core.types import Interval
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Checks, Choice, Counts, RecordId
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.store.models import CropCondition, Photo, Stop
from bootmark.store.rows import of_farm, plain


class RecordCondition(Command, kind="condition.record", roles=SCOUTS):
    """Keep what the stand showed at a stop: each stalk or fruit 1 where it gave way or has a hole, each leaf by its per cent lost."""

    stop_id: Annotated[uuid.UUID, RecordId("stop")]
    agent: Annotated[str, AgentField()]
    condition: Annotated[str, Choice(tuple(Condition))]
    units: Annotated[list[int], Counts()]
    photo_id: Annotated[uuid.UUID | None, RecordId("photograph", optional=True)] = None

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        most = 100 if self.condition == Condition.LEAVES else 1
        if any(unit > most for unit in self.units):
            yield (
                "units",
                (say.line("A leaf has lost up to 100 per cent.") if most > 1 else say.line("Each is sound or not: 0 or 1 for each.")),
            )


@handles(RecordCondition, CropCondition)
def store_condition(command: RecordCondition, context: Context) -> CropCondition:
    context.get(Stop, command.stop_id, "stop_id")
    if command.photo_id and context.get(Photo, command.photo_id, "photo_id").stop_id != command.stop_id:
        context.errors["photo_id"] = say.line("That picture was taken at another stop.")
    return CropCondition(**command.model_dump())


def at_stop(session: Session, stop_id: uuid.UUID) -> list[CropCondition]:
    """What was kept at a stop."""
    return [plain(row) for row in session.scalars(of_farm(CropCondition).where(CropCondition.stop_id == stop_id))]


def newest(session: Session, block_id: uuid.UUID, agent: str, day: dt.date) -> Mapping[Condition, Interval]:
    """What a block's stand showed of an agent lately, the newest of each, with limits."""
    since = day - dt.timedelta(days=judgement.CONDITION_DAYS)
    joined = (Stop.farm_id == CropCondition.farm_id) & (Stop.id == CropCondition.stop_id)
    rows = of_farm(CropCondition, CropCondition.condition, CropCondition.units).join(Stop, joined)
    rows = rows.where(Stop.block_id == block_id, CropCondition.agent == agent, Stop.on > since, Stop.on <= day)
    shown: dict[Condition, Interval] = {}
    for condition, units in session.execute(rows.order_by(CropCondition.seen_at.desc())):
        shown.setdefault(Condition(condition), conditions.limits(Condition(condition), units))
    return shown
