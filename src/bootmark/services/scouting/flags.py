"""Plants and spots that were flagged, to be found again."""

import datetime as dt
import uuid
from typing import NamedTuple

from sqlalchemy.orm import Session

from bootmark.services.base import memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Stop
from bootmark.store.rows import of_farm

STANDS_DAYS = 60
"""Days for which a flag is told: after that it has blown away, or its plant has grown past it."""
_flags: memo.Kept[dict[uuid.UUID, list["Flag"]]] = memo.Kept(64)


class Flag(NamedTuple):
    """A flagged spot. stop: at which it was flagged; place: longitude and latitude, None where it was told in words only."""

    stop: uuid.UUID
    on: dt.date
    where: str
    place: tuple[float, float] | None


def standing(session: Session, day: dt.date) -> dict[uuid.UUID, list[Flag]]:
    """Flags by block, the newest first."""
    return stamp.while_standing(session, _flags, (Topic.SCOUTING,), day, lambda: _read(session, day))


def _read(session: Session, day: dt.date) -> dict[uuid.UUID, list[Flag]]:
    columns = (Stop.block_id, Stop.id, Stop.on, Stop.where, Stop.longitude, Stop.latitude)
    rows = of_farm(Stop, *columns).where(Stop.flagged, Stop.on > day - dt.timedelta(days=STANDS_DAYS))
    by_block: dict[uuid.UUID, list[Flag]] = {}
    for block, stop, on, where, longitude, latitude in session.execute(rows.order_by(Stop.seen_at.desc())):
        place = (longitude, latitude) if longitude is not None and latitude is not None else None
        by_block.setdefault(block, []).append(Flag(stop, on, where, place))
    return by_block
