"""Traps: when each is to be read and when its lure is spent. Standard library only."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.meanings import TrapKind, TrapWait

CHECK, LURE = TrapWait
LURED = (TrapKind.DELTA, TrapKind.BUCKET)


@dataclass(frozen=True)
class Due:
    """on: the day from which it is due."""

    what: TrapWait
    on: dt.date


def due(set_on: dt.date, check_days: int, last_check: dt.date | None, lure_on: dt.date | None, lure_days: int | None) -> tuple[Due, ...]:
    """What a trap waits for next, by day: its reading, and its lure where it has one.

    set_on: when it was put out; last_check: when it was read last, None for never. Raises ValueError for intervals below a day.
    """
    if check_days < 1 or (lure_days is not None and lure_days < 1):
        raise ValueError("a trap is read, and a lure changed, after at least a day")
    waits = [Due(CHECK, (last_check or set_on) + dt.timedelta(days=check_days))]
    if lure_on is not None and lure_days is not None:
        waits.append(Due(LURE, lure_on + dt.timedelta(days=lure_days)))
    return tuple(sorted(waits, key=lambda wait: wait.on))


def spent(caught: int | None, on: dt.date, lure_on: dt.date | None, lure_days: int | None) -> bool:
    """Whether an empty trap tells nothing, as its lure was spent: nothing would have come. Common practice, no source."""
    return caught == 0 and lure_on is not None and lure_days is not None and on > lure_on + dt.timedelta(days=lure_days)


def among_dispensers(day: dt.date, hung: dt.date, lasts_days: int) -> bool:
    """Whether a trap hung among dispensers on a day. hung: when these were; lasts_days: how long they give off."""
    return hung <= day <= hung + dt.timedelta(days=lasts_days)


def weekly(set_on: dt.date, checks: Sequence[tuple[dt.date, int]], day: dt.date) -> int | None:
    """What a trap caught in a week, by its last reading: spread over the days since the one before, or since it was put out.

    checks: day and catch of each reading, oldest first. None where it was not read within judgement.CATCH_DAYS.
    """
    if not checks or (day - checks[-1][0]).days > judgement.CATCH_DAYS:
        return None
    on, caught = checks[-1]
    before = checks[-2][0] if len(checks) > 1 else set_on
    return round(caught * 7 / max((on - before).days, 1))
