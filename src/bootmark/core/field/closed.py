"""Which blocks nobody goes into after a material was brought out, and until when.

The label decides; what is known here is recalled. It runs from the end of the work, the longest of all materials counts, and one whose
interval is not known closes a block for as long as most labels would, with the word to read it. Common practice, no source.
"""

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.messages import Message, Says, says


@dataclass(frozen=True)
class Sprayed:
    """A material as it was brought out. agent, control: ids; began, ended: with their zone; hours: from the end until anybody goes in again
    without what the label asks for, None where it is not known."""

    block: str
    agent: str
    control: str
    began: dt.datetime
    ended: dt.datetime
    hours: int | None


def _until(spray: Sprayed) -> dt.datetime:
    """When it opens again; where nobody knows, after so long that a label would."""
    hours = spray.hours if spray.hours is not None else judgement.UNKNOWN_REENTRY_HOURS
    return spray.ended + dt.timedelta(hours=hours)


def blocks(sprays: Iterable[Sprayed], now: dt.datetime) -> dict[str, Message]:
    """The blocks that are closed now, each with what is said of it: the one that opens last, one that is not known before all."""
    last: dict[str, Sprayed] = {}
    for spray in sprays:
        if spray.began <= now < _until(spray):
            other = last.get(spray.block)
            if other is None or _weight(spray) > _weight(other):
                last[spray.block] = spray
    return {block: _said(spray, now) for block, spray in last.items()}


def _weight(spray: Sprayed) -> tuple[bool, dt.datetime]:
    return spray.hours is None, _until(spray)


def _said(spray: Sprayed, now: dt.datetime) -> Message:
    ended, until = spray.ended.astimezone(now.tzinfo), _until(spray).astimezone(now.tzinfo)
    facts: dict[str, str | dt.datetime] = {"control": spray.control, "ended": ended, "until": until}
    if spray.hours is None:
        return says(Says.CLOSED_UNKNOWN, agent=spray.agent, **facts)
    days = "today" if until.date() == now.date() else "later"
    return says(Says.BLOCK_CLOSED, agent=spray.agent, days=days, **facts)
