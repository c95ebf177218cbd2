"""Traps: when each is to be read and when its lure is spent. Standard library only."""

import datetime as dt
from dataclasses import dataclass

from bootmark.core.meanings import TrapWait

CHECK, LURE = TrapWait
KINDS = {
    "delta": "Delta trap with a lure",
    "bucket": "Bucket trap with a lure",
    "card": "Sticky card",
    "band": "Cardboard band",
    "pitfall": "Pitfall",
    "light": "Light trap",
}
LURED = ("delta", "bucket")
LURE_DAYS = 42
"""Days that a lure lasts where its label says nothing else. Common practice, no source."""
CHECK_DAYS = 3


@dataclass(frozen=True)
class Due:
    """what: CHECK or LURE; on: the day from which it is due."""

    what: str
    on: dt.date


def due(set_on: dt.date, check_days: int, last_check: dt.date | None, lure_on: dt.date | None, lure_days: int | None) -> tuple[Due, ...]:
    """What a trap waits for next, by day: its reading, and its lure where it has one.

    set_on: when it was put out; last_check: when it was read last, None for never. Raises ValueError for intervals below a day.
    """
    if check_days < 1 or (lure_days is not None and lure_days < 1):
        raise ValueError("a trap is read, and a lure changed, after at least a day")
    found = [Due(CHECK, (last_check or set_on) + dt.timedelta(days=check_days))]
    if lure_on is not None and lure_days is not None:
        found.append(Due(LURE, lure_on + dt.timedelta(days=lure_days)))
    return tuple(sorted(found, key=lambda one: one.on))
