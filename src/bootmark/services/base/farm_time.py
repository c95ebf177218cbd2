"""The farm's one source of "now": a real farm's is handed in, a demo farm keeps its own."""

import datetime as dt
from zoneinfo import ZoneInfo

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base.command import Refused
from bootmark.store.models import Farm

STEPS = {"hour": dt.timedelta(hours=1), "day": dt.timedelta(days=1), "week": dt.timedelta(days=7)}


def now(farm: Farm, real_now: dt.datetime) -> dt.datetime:
    """The farm's time, in its own zone."""
    return (farm.clock_at or real_now).astimezone(zone(farm))


def zone(farm: Farm) -> ZoneInfo:
    return ZoneInfo(farm.time_zone)


def start_of(farm: Farm, day: dt.date) -> dt.datetime:
    """When a day of the farm begins."""
    return dt.datetime.combine(day, dt.time(), zone(farm))


def day_of(farm: Farm, moment: dt.datetime) -> dt.date:
    """The farm's day in which a moment lies."""
    return moment.astimezone(zone(farm)).date()


def standard_offset(farm: Farm, year: int) -> dt.timedelta:
    """How far the farm's zone is ahead of UTC, without summer time."""
    offsets = [dt.datetime(year, month, 1, tzinfo=zone(farm)).utcoffset() for month in range(1, 13)]
    return min(offset for offset in offsets if offset is not None)


def step(session: Session, farm: Farm, by: str, stood_at: str) -> dt.datetime:
    """Step a demo farm's clock forward; sent twice from the same standing it steps once."""
    if farm.clock_at is None:
        raise Refused(by=say.line("This farm runs on real time: its clock can't be stepped."))
    if by not in STEPS:
        raise Refused(by=say.line("The clock steps by {steps}.", steps=", ".join(STEPS)))
    session.refresh(farm, with_for_update=True)
    if farm.clock_at.isoformat() == stood_at:
        farm.clock_at = farm.clock_at + STEPS[by]
        session.flush()
    return farm.clock_at
