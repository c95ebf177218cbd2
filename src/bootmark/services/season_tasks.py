"""What is looked at outside the season: in winter, before planting, in the store; and that it was."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy import func
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Catalogue
from bootmark.core.field import yearly
from bootmark.core.field.yearly import Ground, Task
from bootmark.core.meanings import FeatureKind, YearTask
from bootmark.services.base import ground, grown, memo, stamp
from bootmark.services.base.fields import Choice, RecordId
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.looked import Looked
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Farm, PlanFeature, Planting, SeasonTask
from bootmark.store.rows import of_farm

_due: memo.Kept[list["DueTask"]] = memo.Kept(64)


class DoTask(Looked, kind="task.do", roles=SCOUTS):
    """Keep that something was looked at outside the season: that nothing was wrong, or what was."""

    task: Annotated[str, Choice(tuple(YearTask))]
    place_id: Annotated[uuid.UUID | None, RecordId("place", optional=True)] = None


@handles(DoTask, SeasonTask)
def store_task(command: DoTask, context: Context) -> SeasonTask:
    of_farm_alone = command.task in yearly.OF_FARM
    if of_farm_alone != (command.place_id is None):
        context.errors["place_id"] = say.line("Say of which place this is.")
    elif command.place_id:
        context.get(PlanFeature if command.task in yearly.OF_STORE else Block, command.place_id, "place_id")
    return SeasonTask(**command.model_dump())


@dataclass(frozen=True)
class DueTask:
    """A task with the name of its place; empty for the farm."""

    task: Task
    place: str


def due(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> list[DueTask]:
    """What is to be looked at on a day outside the season."""
    key = (catalogue.hash, day)
    return stamp.while_standing(session, _due, (Topic.PLACES,), key, lambda: _read(session, farm, catalogue, day))


def _read(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> list[DueTask]:
    stores = [feature for feature in ground.features(session) if feature.kind == FeatureKind.STORE]
    blocks = ground.blocks(session)
    names = {str(block.id): block.name for block in blocks} | {str(store.id): store.name for store in stores}
    last = of_farm(SeasonTask, SeasonTask.task, SeasonTask.place_id, func.max(SeasonTask.on)).group_by(SeasonTask.task, SeasonTask.place_id)
    done = {(YearTask(task), str(place) if place else ""): on for task, place, on in session.execute(last)}
    planned = of_farm(Planting, Planting.block_id, func.min(Planting.since)).where(Planting.since > day).group_by(Planting.block_id)
    ahead: dict[uuid.UUID, dt.date] = {block: on for block, on in session.execute(planned) if on}
    grounds = [
        Ground(
            str(block.id),
            [catalogue.crops[row.crop] for row in grown.standing(block) if row.crop in catalogue.crops],
            plants_on=ahead.get(block.id),
        )
        for block in blocks
    ]
    wanted = yearly.tasks(day, farm.latitude, grounds, [str(store.id) for store in stores], done)
    return [DueTask(task, names.get(task.place, "")) for task in wanted]
