"""Looks at places that are no blocks: incoming plants held apart, fences, stores, bins, a neighbour's edge."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Annotated

from sqlalchemy import func
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.fields import RecordId
from bootmark.services.base.ground import PlanFeature
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.looked import Looked
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.store.models import PlaceCheck
from bootmark.store.rows import of_farm

NEWEST = 10
_last: memo.Kept[dict[uuid.UUID, dt.date]] = memo.Kept(64)


class CheckPlace(Looked, kind="place.check", roles=SCOUTS):
    """Keep a look at a place on the plan: that nothing was wrong there, or what was."""

    feature_id: Annotated[uuid.UUID, RecordId("place")]


@handles(CheckPlace, PlaceCheck)
def store_check(command: CheckPlace, context: Context) -> PlaceCheck:
    place: PlanFeature = context.get(PlanFeature, command.feature_id, "feature_id")
    if place.ended:
        context.errors["feature_id"] = say.line("That is gone from the plan.")
    return PlaceCheck(**command.model_dump())


@dataclass(frozen=True)
class DuePlace:
    """A place that is to be looked at. last: when it was, None for never."""

    place: PlanFeature
    last: dt.date | None


def due(session: Session, day: dt.date) -> list[DuePlace]:
    """Places whose rhythm is over on a day, the longest unseen first."""

    def read() -> dict[uuid.UUID, dt.date]:
        rows = of_farm(PlaceCheck, PlaceCheck.feature_id, func.max(PlaceCheck.on)).group_by(PlaceCheck.feature_id)
        return dict(session.execute(rows).all())

    last = stamp.while_standing(session, _last, (Topic.SCOUTING,), "last", read)
    walked = [DuePlace(place, last.get(place.id)) for place in ground.features(session) if place.check_days]
    waits = [row for row in walked if row.last is None or (day - row.last).days >= (row.place.check_days or 0)]
    return sorted(waits, key=lambda row: row.last or dt.date.min)


def newest(session: Session, feature_id: uuid.UUID) -> list[PlaceCheck]:
    """The last looks at a place, the newest first."""
    rows = of_farm(PlaceCheck).where(PlaceCheck.feature_id == feature_id).order_by(PlaceCheck.on.desc(), PlaceCheck.seen_at.desc())
    return list(session.scalars(rows.limit(NEWEST)))
