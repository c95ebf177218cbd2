"""Which blocks nobody goes into after a material was brought out, and until when; and where hands do no work yet.

The label decides, as whoever signs has read it; what is known here is recalled. It runs from the end of the work and while that goes
on, the longest of all materials counts, and one whose interval is not known closes a block for as long as most labels would, with the
word to read it. Common practice, no source.
"""

import datetime as dt
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.messages import Fact, Message, Says, says


@dataclass(frozen=True)
class Early:
    """What a label allows before the interval is over. minutes: at most, a day; wear: the clothing."""

    minutes: int
    wear: str


@dataclass(frozen=True)
class Sprayed:
    """A material as it was brought out.

    agent, control: ids; began, ended: with their zone, ended None while it is being done; hours: from the end until anybody goes in again
    without what the label asks for, None where it is not known; hand_hours: until hands thin, tie or pick, None where the label has no
    longer ones for them; dries: it closes until it has dried, too; early: None where nobody goes in before; labelled: whether the hours
    were read from its label.
    """

    block: str
    agent: str
    control: str
    began: dt.datetime
    ended: dt.datetime | None
    hours: float | None
    hand_hours: float | None = None
    dries: bool = False
    early: Early | None = None
    labelled: bool = False


def _walking(spray: Sprayed) -> float:
    hours = spray.hours if spray.hours is not None else judgement.UNKNOWN_REENTRY_HOURS
    return max(hours, judgement.DRYING_HOURS if spray.dries else 0)


def _handling(spray: Sprayed) -> float:
    return max(_walking(spray), spray.hand_hours or 0)


def _until(spray: Sprayed, hours: Callable[[Sprayed], float]) -> dt.datetime | None:
    """When it opens again, None while it is being done; where nobody knows, after so long that a label would."""
    return spray.ended + dt.timedelta(hours=hours(spray)) if spray.ended else None


def blocks(sprays: Iterable[Sprayed], now: dt.datetime) -> dict[str, Message]:
    """The blocks that are closed now, each with what is said of it: the one that is being done before all, one that is not known, the one
    that opens last."""
    return {block: _said(spray, now) for block, spray in _last(sprays, now, _walking).items()}


def hand_work(sprays: Iterable[Sprayed], now: dt.datetime) -> dict[str, Message]:
    """The blocks in which hands do no work now though people may walk there, each with why."""
    rows = list(sprays)
    shut, last = _last(rows, now, _walking), _last(rows, now, _handling)
    return {
        block: says(Says.NO_HAND_WORK, agent=spray.agent, control=spray.control, until=_at(_until(spray, _handling), now))
        for block, spray in last.items()
        if block not in shut
    }


def _last(sprays: Iterable[Sprayed], now: dt.datetime, hours: Callable[[Sprayed], float]) -> dict[str, Sprayed]:
    last: dict[str, Sprayed] = {}
    for spray in sprays:
        until = _until(spray, hours)
        if spray.began <= now and (until is None or now < until):
            other = last.get(spray.block)
            if other is None or _weight(spray, hours) > _weight(other, hours):
                last[spray.block] = spray
    return last


def _weight(spray: Sprayed, hours: Callable[[Sprayed], float]) -> tuple[bool, bool, dt.datetime]:
    return spray.ended is None, spray.hours is None, _until(spray, hours) or spray.began


def _at(moment: dt.datetime | None, now: dt.datetime) -> dt.datetime:
    assert moment
    return moment.astimezone(now.tzinfo)


def _said(spray: Sprayed, now: dt.datetime) -> Message:
    facts: dict[str, Fact] = {"control": spray.control}
    if spray.ended is None:
        return says(Says.BEING_DONE, agent=spray.agent, began=_at(spray.began, now), **facts)
    until = _at(_until(spray, _walking), now)
    facts |= {"ended": _at(spray.ended, now), "until": until}
    if spray.hours is None:
        return says(Says.CLOSED_UNKNOWN, agent=spray.agent, **facts)
    facts["days"] = "today" if until.date() == now.date() else "later"
    facts["by"] = "label" if spray.labelled else "memory"
    kind = Says.CLOSED_TILL_DRY if spray.dries and spray.hours <= judgement.DRYING_HOURS else Says.BLOCK_CLOSED
    closed = says(kind, agent=spray.agent, **facts)
    if spray.early is None:
        return closed
    return says(Says.CLOSED_BUT_EARLY, closed=closed, minutes=spray.early.minutes, wear=spray.early.wear, until=until)
