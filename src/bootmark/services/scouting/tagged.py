"""Pictures of the same thing again and again: a leaf, a branch, a row with a tag, by the block that it is on."""

import datetime as dt
import uuid
from dataclasses import dataclass

from sqlalchemy import func
from sqlalchemy.orm import Session

from bootmark.core.season.daily import same_day
from bootmark.services.base.farm_time import day_of
from bootmark.store.models import Farm, Photo, Stop
from bootmark.store.rows import of_farm

MOST_TAG = 60
JOINED = (Stop.farm_id == Photo.farm_id) & (Stop.id == Photo.stop_id)


@dataclass(frozen=True)
class Tag:
    """What is pictured again and again on a block. number: of its pictures; last: when it was pictured last."""

    name: str
    number: int
    last: dt.datetime


@dataclass(frozen=True)
class Taken:
    """One picture of a tag. on: the farm's day."""

    photo: uuid.UUID
    on: dt.date


def tags(session: Session, block_id: uuid.UUID) -> list[Tag]:
    """The tags of a block, the last pictured first."""
    rows = of_farm(Photo, Photo.tag, func.count(), func.max(Photo.seen_at)).join(Stop, JOINED)
    rows = rows.where(Stop.block_id == block_id, Photo.tag != "").group_by(Photo.tag).order_by(func.max(Photo.seen_at).desc())
    return [Tag(name, number, last) for name, number, last in session.execute(rows)]


def of_tag(session: Session, farm: Farm, block_id: uuid.UUID, tag: str) -> list[Taken]:
    """The pictures of a tag, the oldest first."""
    rows = of_farm(Photo, Photo.id, Photo.seen_at).join(Stop, JOINED).where(Stop.block_id == block_id, Photo.tag == tag)
    return [Taken(photo, day_of(farm, seen_at)) for photo, seen_at in session.execute(rows.order_by(Photo.seen_at, Photo.id))]


def a_year_before(pictures: list[Taken], day: dt.date) -> Taken | None:
    """Of the pictures of earlier years the one nearest to the same day of its year; None where there is none."""
    earlier = [picture for picture in pictures if picture.on.year < day.year]
    return min(earlier, key=lambda picture: abs((picture.on - same_day(day, picture.on.year)).days), default=None)
