"""What a block's ground was part of before: closings, waits for harvest and a season's uses follow the ground, not the name.

A block is one strip of ground or several; each strip tells which block it was, from when, until when. A piece cut off takes the strips of
the block that it was cut from; a block that takes in another takes the other's strips beside its own.
"""

import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace

Strip = tuple["Span", ...]


@dataclass(frozen=True)
class Span:
    """While a strip was part of a block. since: the first day of it, None for always; until: the last day, None for still."""

    block: str
    since: dt.date | None = None
    until: dt.date | None = None

    def holds(self, day: dt.date) -> bool:
        """Whether the strip was part of the block on a day."""
        return (self.since is None or self.since <= day) and (self.until is None or day <= self.until)


def of_block(block: str, kept: Iterable[Strip] = ()) -> tuple[Strip, ...]:
    """A block's strips: those that it keeps, or one that was never anything else."""
    return tuple(kept) or ((Span(block),),)


def cut(piece: str, strips: Sequence[Strip], on: dt.date) -> tuple[Strip, ...]:
    """The strips of a piece that is cut off on a day: until then they were the block's, from that day on they are its own.

    A strip has no shape: a piece of a block that was joined from two has the strips of both, and so the worse of what was done to either.
    What is done to the block on the day itself counts for both: nobody knows whether it was before or after the cut.
    """
    return tuple(_handed(strip, piece, on) for strip in strips)


def joined(block: str, own: Sequence[Strip], other: Sequence[Strip], on: dt.date) -> tuple[Strip, ...]:
    """The strips of a block that takes in another on a day."""
    return tuple(dict.fromkeys([*own, *(_handed(strip, block, on) for strip in other)]))


def _handed(strip: Strip, to: str, on: dt.date) -> Strip:
    *before, last = strip
    return (*before, replace(last, until=on), Span(to, on))


def spans(strips: Iterable[Strip]) -> tuple[Span, ...]:
    """Every span of some strips, each once."""
    return tuple(dict.fromkeys(span for strip in strips for span in strip))


def most(strips: Iterable[Strip], done: Callable[[Span], int]) -> int:
    """The most that was done to any strip. done: how many times within one span.

    Raises ValueError where there is no strip.
    """
    return max(sum(map(done, strip)) for strip in strips)
