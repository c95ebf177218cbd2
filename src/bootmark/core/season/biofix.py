"""The dated event from which a pest's heat is counted."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.messages import Fact, Message, Says, says


@dataclass(frozen=True)
class Check:
    """One look into a trap. caught: animals of the species since the look before; trap: which one, where there are several."""

    on: dt.date
    caught: int
    trap: str = ""


@dataclass(frozen=True)
class Proposal:
    """on: the biofix; why: what it rests on; since: the first day on which it may have been, the day after the trap was read before."""

    on: dt.date
    why: Message
    since: dt.date


def sustained_catch(checks: Sequence[Check], checks_in_row: int, within_days: int, *, least: int = 1, nights: int = 0) -> Proposal | None:
    """The first day on which a trap's catch meets a model's rule; None where none has yet.

    Each trap speaks for itself: two traps with a moth each are no sustained catch. The rule is either so many checks running that each
    had a catch, all within so many days; or, with nights, so many animals within so many nights, a longer interval between two checks
    taken by its mean. The day is that of the check; it lies between the check before and this one. checks: in any order, those of one
    trap and day count as one. Raises ValueError for a rule that asks for nothing. Common practice, no source: a single moth may have been
    blown in.

    >>> april = [Check(dt.date(2026, 4, day), caught) for day, caught in ((20, 1), (23, 0), (26, 2), (29, 3))]
    >>> proposal = sustained_catch(april, checks_in_row=2, within_days=7)
    >>> print(proposal.since, proposal.on)
    2026-04-24 2026-04-26
    """
    if checks_in_row < 1 or within_days < 0 or least < 1 or nights < 0:
        raise ValueError("a sustained catch takes at least one check")
    by_trap: dict[str, dict[dt.date, int]] = {}
    for check in checks:
        if check.caught < 0:
            raise ValueError("a catch can't be below nothing")
        days = by_trap.setdefault(check.trap, {})
        days[check.on] = days.get(check.on, 0) + check.caught
    met = [
        _of_trap(sorted(days.items()), checks_in_row, within_days) if not nights else _intense(sorted(days.items()), least, nights)
        for days in by_trap.values()
    ]
    return min((proposal for proposal in met if proposal), key=lambda proposal: (proposal.on, proposal.since), default=None)


Caught = Sequence[tuple[dt.date, int]]


def _since(days: Caught, place: int) -> dt.date:
    return days[place - 1][0] + dt.timedelta(days=1) if place else days[place][0]


def _lies(since: dt.date, on: dt.date) -> dict[str, Fact]:
    return {"since": since, "on": on, "gap": "yes" if since < on else "no"}


def _of_trap(days: Caught, checks_in_row: int, within_days: int) -> Proposal | None:
    for place in range(len(days) - checks_in_row + 1):
        run = days[place : place + checks_in_row]
        if all(caught for _, caught in run) and (run[-1][0] - run[0][0]).days <= within_days:
            catches = tuple(str(caught) for _, caught in run)
            since = _since(days, place)
            return Proposal(
                run[0][0], says(Says.CATCHES, caught=catches, checks=checks_in_row, last=run[-1][0], **_lies(since, run[0][0])), since
            )
    return None


def _intense(days: Caught, least: int, nights: int) -> Proposal | None:
    for place, (on, _) in enumerate(days):
        first = place
        while first > 1 and (on - days[first - 2][0]).days <= nights:
            first -= 1
        slept = max(1, (on - days[first - 1][0]).days) if first else 1
        total = sum(animals for _, animals in days[first : place + 1])
        if total * min(1.0, nights / slept) >= least:
            since = _since(days, first)
            return Proposal(on, says(Says.CATCH_INTENSE, caught=total, nights=slept, **_lies(since, on)), since)
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
    return Proposal(reached[0][0], says(Says.CROP_STOOD, code=reached[0][1]), reached[0][0]) if reached else None
