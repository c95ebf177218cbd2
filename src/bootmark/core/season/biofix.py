"""The dated event from which a pest's heat is counted."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Heat
from bootmark.core.messages import Message, Says, says


@dataclass(frozen=True)
class Check:
    """One look into a trap. caught: animals of the species since the look before."""

    on: dt.date
    caught: int


@dataclass(frozen=True)
class Proposal:
    """on: the biofix; why: what it rests on."""

    on: dt.date
    why: Message


def sustained_catch(checks: Sequence[Check], checks_in_row: int, within_days: int) -> Proposal | None:
    """The first of so many checks running that each had a catch, all within so many days; None where there is none yet.

    checks: of one trap or of several on one block, in any order; those of one day count as one check. Raises ValueError for a rule
    that asks for nothing. Common practice, no source: a single moth may have been blown in.

    >>> april = [Check(dt.date(2026, 4, day), caught) for day, caught in ((20, 1), (23, 0), (26, 2), (29, 3))]
    >>> print(sustained_catch(april, checks_in_row=2, within_days=7).on)
    2026-04-26
    """
    if checks_in_row < 1 or within_days < 0:
        raise ValueError("a sustained catch takes at least one check")
    by_day: dict[dt.date, int] = {}
    for check in checks:
        if check.caught < 0:
            raise ValueError("a catch can't be below nothing")
        by_day[check.on] = by_day.get(check.on, 0) + check.caught
    days = sorted(by_day)
    for place in range(len(days) - checks_in_row + 1):
        run = days[place : place + checks_in_row]
        if all(by_day[day] for day in run) and (run[-1] - run[0]).days <= within_days:
            caught = tuple(str(by_day[day]) for day in run)
            return Proposal(run[0], says(Says.CATCHES, caught=caught, checks=checks_in_row, last=run[-1]))
    return None


def calendar_day(heat: Heat, southern: bool, today: dt.date) -> dt.date | None:
    """The model's own calendar day of the season that runs today, turned round south of the equator; None where it has none."""
    if heat.month_day is None:
        return None
    month, date = heat.month_day
    if southern:
        month = (month + 5) % 12 + 1
    on = dt.date(today.year, month, date)
    return on if on <= today else dt.date(today.year - 1, month, date)


def season_begins(day: dt.date, southern: bool) -> dt.date:
    """The first day whose crop stages belong to a day's season: new year in the north, so many days back where a summer spans it."""
    return day - dt.timedelta(days=judgement.SEASON_DAYS) if southern else day.replace(month=1, day=1)


def crop_event(heat: Heat, stages: Sequence[tuple[dt.date, int]], since: dt.date) -> Proposal | None:
    """The first day on which the crop was at or past the model's stage; None before, or where the model does not hang on the crop.

    stages: day and BBCH code as noted on a block; since: the first day of this season.
    """
    if heat.crop_code is None:
        return None
    reached = sorted((on, code) for on, code in stages if on >= since and code >= heat.crop_code)
    return Proposal(reached[0][0], says(Says.CROP_STOOD, code=reached[0][1])) if reached else None
