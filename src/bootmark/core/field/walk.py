"""Where to walk today, why there, in which order, and what to carry."""

import datetime as dt
import itertools
import math
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from enum import IntEnum

from bootmark.core import judgement
from bootmark.core.field.points import Corner
from bootmark.core.field.worth import BlockState, Why, together, whys
from bootmark.core.meanings import TrapWait
from bootmark.core.messages import Message, Says, says

MOST_UNCROSSED = 150
HOLD_CARRIED = ("boot brush", "disinfectant")
ALWAYS_CARRIED = ("hand lens", "white paper", "knife", "flagging tape")


@dataclass(frozen=True)
class PlannedStop:
    """A stop with its reasons. hold: what is said of a block that is held; closed: of one that nobody goes into now; late: why it comes
    after blocks that lie nearer; minutes: that the look takes; young: propagation, which comes first."""

    block: str
    whys: tuple[Why, ...]
    hold: Message | None = None
    closed: Message | None = None
    late: Message | None = None
    minutes: int = 0
    young: bool = False

    @property
    def weight(self) -> float:
        return together(self.whys)


@dataclass(frozen=True)
class Walk:
    """stops in walking order; rest: blocks that can wait, with the reason; carry: what to take along; minutes, metres: from gate to gate,
    the looks in them."""

    stops: tuple[PlannedStop, ...]
    rest: tuple[tuple[str, tuple[Message, ...]], ...]
    carry: tuple[str, ...]
    minutes: int = 0
    metres: int = 0

    @property
    def first(self) -> PlannedStop | None:
        """The stop that is most pressing, not held before any that is; None where every block is closed, or nothing calls."""
        open_now = (stop for stop in self.stops if not stop.closed)
        return max(open_now, key=lambda stop: (stop.hold is None, stop.weight), default=None)


@dataclass(frozen=True)
class Wish:
    """What a scout asks of a walk. minutes: that there are, None for as long as it takes; without, also: blocks that are left out, and
    that are walked to whatever calls for them."""

    minutes: int | None = None
    without: frozenset[str] = frozenset()
    also: frozenset[str] = frozenset()


def plan(blocks: Sequence[BlockState], today: dt.date, gate: Corner = (0.0, 0.0), wish: Wish | None = None) -> Walk:
    """Today's walk from gate to gate: every block with a reason, clean before infested, and within each part the shortest way.

    Blocks that nobody goes into now come after the others, and those that are held last. Where there is no time for all, what weighs most
    for its minutes is walked to. wish: what the scout asks of it.
    """
    wish = wish or Wish()
    stops = {block.id: _stop(block, reasons) for block in blocks if (reasons := _wished(block, today, wish))}
    where = {block.id: block.at for block in blocks}
    order = _within(wish.minutes, stops, where, gate)
    short = {block_id for block_id in stops if block_id not in order}
    rest = tuple((block.id, _restful(block, today, wish, block.id in short)) for block in blocks if block.id not in order)
    walked = [block for block in blocks if block.id in order]
    return Walk(tuple(stops[block_id] for block_id in order), rest, _carried(walked, today), *_long(order, stops, where, gate))


def _wished(block: BlockState, today: dt.date, wish: Wish) -> tuple[Why, ...]:
    if block.id in wish.without:
        return ()
    reasons = whys(block, today)
    return reasons or ((Why(says(Says.ASKED_FOR), judgement.CHANCE_ASKED, "asked"),) if block.id in wish.also else ())


def _stop(block: BlockState, reasons: tuple[Why, ...]) -> PlannedStop:
    late = says(Says.AFTER_CLEAN) if block.pests and not block.held and not block.closed else None
    minutes = 0 if block.closed else max(judgement.LOOK_MINUTES[why.kind] for why in reasons)
    return PlannedStop(block.id, reasons, block.held, block.closed, late, minutes, block.young)


def _carried(blocks: Sequence[BlockState], today: dt.date) -> tuple[str, ...]:
    tools = {tool for block in blocks for case in block.cases for tool in case.tools}
    lures = any(trap.what == TrapWait.LURE and trap.due <= today for block in blocks for trap in block.traps)
    tools |= {"new lures"} if lures else set()
    tools |= set(HOLD_CARRIED) if any(block.held or block.pests for block in blocks) else set()
    return (*ALWAYS_CARRIED, *sorted(tools - set(ALWAYS_CARRIED)))


def _within(minutes: int | None, stops: Mapping[str, PlannedStop], where: Mapping[str, Corner], gate: Corner) -> list[str]:
    """The stops in walking order; where there are so many minutes only, those that weigh most for what they take, while they fit."""
    if minutes is None:
        return _ordered(stops, where, gate)
    chosen: dict[str, PlannedStop] = {}
    worth = sorted(stops.values(), key=lambda stop: (-stop.weight / max(stop.minutes, 1), stop.block))
    for stop in worth:
        tried = chosen | {stop.block: stop}
        if _long(_ordered(tried, where, gate), tried, where, gate)[0] <= minutes:
            chosen = tried
    return _ordered(chosen, where, gate)


def _long(order: Sequence[str], stops: Mapping[str, PlannedStop], where: Mapping[str, Corner], gate: Corner) -> tuple[int, int]:
    """Minutes and metres from gate to gate; nobody walks into a closed block."""
    open_ones = [where[block_id] for block_id in order if not stops[block_id].closed]
    way = [gate, *open_ones, gate]
    metres = sum(math.dist(here, there) for here, there in itertools.pairwise(way))
    minutes = metres / judgement.METRES_A_MINUTE + sum(stops[block_id].minutes for block_id in order)
    return math.ceil(minutes), round(metres)


def _ordered(stops: Mapping[str, PlannedStop], where: Mapping[str, Corner], gate: Corner) -> list[str]:
    """Part after part, each by the shortest way from where the one before ended, the last of those that are walked back to the gate."""
    parts = [{block_id for block_id, stop in stops.items() if _turn(stop) == turn} for turn in Turn]
    order: list[str] = []
    for place, part in enumerate(parts):
        last = where[order[-1]] if order else gate
        ends = not any(parts[place + 1 :])
        order += _round(part, where, last, gate if ends else None)
    return order


class Turn(IntEnum):
    """The parts of a walk: nobody goes from an infested block to a clean one, nor from a held block to any."""

    YOUNG = 0
    CLEAN = 1
    INFESTED = 2
    CLOSED = 3
    HELD = 4


def _turn(stop: PlannedStop) -> Turn:
    return (
        Turn.HELD if stop.hold else Turn.CLOSED if stop.closed else Turn.INFESTED if stop.late else Turn.YOUNG if stop.young else Turn.CLEAN
    )


def _round(block_ids: Set[str], where: Mapping[str, Corner], start: Corner, end: Corner | None) -> list[str]:
    """Some blocks in walking order from a place on, to another where one is given."""
    order: list[str] = []
    here, left = start, set(block_ids)
    while left:
        nearest = min(left, key=lambda block_id: (math.dist(here, where[block_id]), block_id))
        order.append(nearest)
        left.remove(nearest)
        here = where[nearest]
    return _uncross(order, where, start, end)


def _restful(block: BlockState, today: dt.date, wish: Wish, no_time: bool) -> tuple[Message, ...]:
    if no_time:
        return (whys(block, today)[0].reason if whys(block, today) else says(Says.ASKED_FOR), says(Says.NO_TIME))
    if block.id in wish.without:
        return (says(Says.LEFT_OUT),)
    if block.held or block.closed:
        return tuple(why for why in (block.held, block.closed) if why)
    since = (today - block.looked).days if block.looked else 0
    coming = min((look.due for look in block.due), default=None)
    looked = says(Says.LOOKED_AT, days=since)
    return (looked, says(Says.LOOK_COMES, on=coming)) if coming else (looked,)


def _uncross(order: list[str], where: Mapping[str, Corner], gate: Corner, end: Corner | None) -> list[str]:
    """Two-opt: turn stretches round while that shortens the walk. Longer walks than MOST_UNCROSSED stay as nearest next gives them."""
    if len(order) > MOST_UNCROSSED:
        return order
    order = list(order)
    points = [gate, *(where[block_id] for block_id in order), *([end] if end else [])]
    better = True
    while better:
        better = False
        for first in range(len(order) - 1):
            for last in range(first + 1, len(order)):
                # The stretch from first to last turned round: two legs change, one where the walk ends with it.
                gained = math.dist(points[first], points[first + 1]) - math.dist(points[first], points[last + 1])
                if last + 2 < len(points):
                    gained += math.dist(points[last + 1], points[last + 2]) - math.dist(points[first + 1], points[last + 2])
                if gained > 1e-9:
                    order[first : last + 1] = order[first : last + 1][::-1]
                    points[first + 1 : last + 2] = points[first + 1 : last + 2][::-1]
                    better = True
    return order
