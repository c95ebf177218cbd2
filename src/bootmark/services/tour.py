"""Today on every farm that somebody belongs to: its walk in short, in an order that carries nothing from one to the next."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core.catalogue import Catalogue
from bootmark.core.field import tour
from bootmark.core.field.tour import FarmDay
from bootmark.core.messages import Message
from bootmark.services.base import farm_time, work
from bootmark.services.base.people import Member
from bootmark.services.base.work import NotHere, Work
from bootmark.services.scouting import rounds
from bootmark.services.treatment import opinions, thresholds

MOST = 24
"""Farms whose walks are reckoned at once."""


@dataclass(frozen=True)
class Today:
    """A farm's day. first: the block that is most pressing, and why; minutes: of the whole walk; waiting: calls that wait for a word."""

    member: Member
    day: FarmDay
    minutes: int
    first: tuple[str, Message] | None
    waiting: int


def today(farms: Sequence[Member], token: str, catalogue: Catalogue, real_now: dt.datetime) -> list[Today]:
    """The day of each farm of a person, in the order in which they go there; each in a transaction of its own."""
    days = {}
    for member in farms[:MOST]:
        try:
            with work.at_work(member.farm_id, token, real_now) as at_work:
                days[str(member.farm_id)] = _of(at_work, catalogue, real_now)
        except NotHere:
            continue
    return [days[day.id] for day in tour.ordered(row.day for row in days.values())]


def _of(at_work: Work, catalogue: Catalogue, real_now: dt.datetime) -> Today:
    farm, session = at_work.farm, at_work.session
    own = thresholds.own(session, catalogue)
    walk, blocks, _ = rounds.today(session, farm, catalogue, own, farm_time.now(farm, real_now), real_now)
    names = {str(block.id): block.name for block in blocks}
    first = walk.first
    day = FarmDay(
        str(farm.id),
        max((stop.weight for stop in walk.stops if not stop.closed), default=0.0),
        len(walk.stops),
        any(stop.late for stop in walk.stops),
        rounds.any_held(session),
    )
    goes_to = (names[first.block], first.whys[0].reason) if first else None
    return Today(at_work.member, day, walk.minutes, goes_to, len(opinions.waiting(session, at_work.member)))
