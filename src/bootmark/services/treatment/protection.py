"""What was done and still protects, by block: until its days are over, or rain has washed it off."""

import datetime as dt
from dataclasses import dataclass

from sqlalchemy.orm import Session

from bootmark.core import judgement
from bootmark.core.catalogue import Catalogue
from bootmark.core.season import programme
from bootmark.services.base import applied, ground, memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.base.stamp import Topic
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Farm


@dataclass(frozen=True)
class Standing:
    """A material that was brought out.

    until: the last day on which it still works; washed: whether rain ended it before its days; measured: whether its rain was measured on
    every day since.
    """

    block: str
    agent: str
    name: str
    done: dt.date
    until: dt.date
    washed: bool
    measured: bool


_kept: memo.Kept[list[Standing]] = memo.Kept(64)


def standing(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> list[Standing]:
    """Materials that still work on a day, or that rain ended before their days were over, the newest first."""
    rests_on = (Topic.TREATMENT, Topic.PLACES, *block_weather.READ)
    return stamp.while_standing(session, _kept, rests_on, (catalogue.hash, day), lambda: _read(session, farm, catalogue, day))


def _read(session: Session, farm: Farm, catalogue: Catalogue, day: dt.date) -> list[Standing]:
    heirs = ground.heirs(session)
    stands = []
    for row in applied.since(session, day - dt.timedelta(days=judgement.LONGEST_STANDING)):
        control, done = catalogue.agent(row.agent).control(row.control), row.ended.astimezone(zone(farm)).date()
        lasts = done + dt.timedelta(days=control.lasts_days)
        if not control.sprayed or control.lasts_days < 2 or lasts < day:
            continue
        for block in heirs.of(row.block_id, done):
            record = block_weather.record_of(session, farm, block)
            days = [done + dt.timedelta(days=n) for n in range(1, (day - done).days + 1)]
            rain = [record.rain.get(date) if record else None for date in days]
            until = done + dt.timedelta(days=programme.protected_days(control, [fallen or 0.0 for fallen in rain]))
            stands.append(Standing(block.name, row.agent, control.name, done, until, until < lasts, None not in rain))
    return stands
