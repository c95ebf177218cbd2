"""Where to walk today, why there, in which order, and what to carry."""

import datetime as dt
import math
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass, field

from bootmark.core import judgement
from bootmark.core.meanings import Spell, TrapWait
from bootmark.core.messages import Message, Says, says

MOST_UNCROSSED = 150
HOLD_CARRIED = ("boot brush", "disinfectant")
ALWAYS_CARRIED = ("hand lens", "white paper", "knife", "flagging tape")


@dataclass(frozen=True)
class DueLook:
    """A booked look. id: of the booking; agent: its id."""

    id: str
    agent: str
    due: dt.date
    look_for: str
    after_treatment: bool


@dataclass(frozen=True)
class OpenCase:
    """A case that waits for the look that decides it. agent, look: ids."""

    agent: str
    look: str
    tools: tuple[str, ...]
    on: dt.date


@dataclass(frozen=True)
class Opening:
    """The days on which an agent is in a stage that can be reached. No control is named: a window alone is no reason to treat."""

    agent: str
    first: dt.date
    last: dt.date


@dataclass(frozen=True)
class DueTrap:
    """A trap that waits. name: what is written on it; agent: an id; due: since when."""

    name: str
    agent: str
    what: TrapWait
    due: dt.date


@dataclass(frozen=True)
class BlockState:
    """What is known of a block before today's walk. at: its middle on the plan, metres; looked: the last look, None for never;
    held: what is said of a block that is held after a report; closed: of one that nobody goes into after a spray."""

    id: str
    name: str
    at: tuple[float, float]
    looked: dt.date | None
    spells: Mapping[str, int] = field(default_factory=dict)
    due: Sequence[DueLook] = ()
    cases: Sequence[OpenCase] = ()
    openings: Sequence[Opening] = ()
    traps: Sequence[DueTrap] = ()
    held: Message | None = None
    closed: Message | None = None


@dataclass(frozen=True)
class Why:
    """One reason for a stop, with its weight. return_id: the booking that the stop would answer."""

    reason: Message
    weight: float
    kind: str
    return_id: str = ""


@dataclass(frozen=True)
class PlannedStop:
    """A stop with its reasons. hold: what is said of a block that is held; closed: of one that nobody goes into now."""

    block: str
    whys: tuple[Why, ...]
    hold: Message | None = None
    closed: Message | None = None

    @property
    def weight(self) -> float:
        return sum(why.weight for why in self.whys)


@dataclass(frozen=True)
class Walk:
    """stops in walking order; rest: blocks that can wait, with the reason; carry: what to take along."""

    stops: tuple[PlannedStop, ...]
    rest: tuple[tuple[str, tuple[Message, ...]], ...]
    carry: tuple[str, ...]


def whys(block: BlockState, today: dt.date) -> tuple[Why, ...]:
    """Reasons to stop at a block today, the weightiest first. Weights are judgement, no source."""
    reasons = []
    for look in block.due:
        late = (today - look.due).days
        if late >= 0:
            kind = Says.SEE_WHETHER_IT_WORKED if look.after_treatment else Says.LOOK_DUE
            reasons.append(
                Why(says(kind, agent=look.agent, late=late, look_for=look.look_for), judgement.WEIGHT_RETURN + late, "return", look.id)
            )
    for case in block.cases:
        reasons.append(Why(says(Says.TELL_WHAT_IT_IS, agent=case.agent, look=case.look), judgement.WEIGHT_CASE, "case"))
    for trap in block.traps:
        late = (today - trap.due).days
        if late >= 0:
            kind = Says.READ_TRAP if trap.what == TrapWait.CHECK else Says.CHANGE_LURE
            reasons.append(
                Why(
                    says(kind, agent=trap.agent, trap=trap.name, late=late),
                    judgement.WEIGHT_TRAP[0] + min(late, judgement.WEIGHT_TRAP[1]),
                    "trap",
                )
            )
    for opening in block.openings:
        if opening.first <= today <= opening.last:
            reasons.append(Why(says(Says.WINDOW_OPEN, agent=opening.agent, last=opening.last), judgement.WEIGHT_OPEN, "window"))
        elif 0 < (opening.first - today).days <= judgement.WINDOW_SOON_DAYS:
            ahead = (opening.first - today).days
            reasons.append(Why(says(Says.WINDOW_COMES, agent=opening.agent, days=ahead), judgement.WEIGHT_SOON, "window"))
    hot = block.spells.get(Spell.HOT_AND_DRY, 0)
    rain = block.spells.get(Spell.WEEK_OF_RAIN, 0)
    rhythm = judgement.FAST_RHYTHM_DAYS if hot >= judgement.FAST_SPELL_DAYS else judgement.CALM_RHYTHM_DAYS
    since = (today - block.looked).days if block.looked else None
    if since is None:
        reasons.append(Why(says(Says.NEVER_LOOKED), judgement.WEIGHT_NEVER, "rhythm"))
    elif since >= rhythm:
        kind = Says.LONG_UNSEEN_HOT if hot >= judgement.FAST_SPELL_DAYS else Says.LONG_UNSEEN_RAIN if rain else Says.LONG_UNSEEN
        reasons.append(
            Why(says(kind, days=since, hot=hot, rain=rain), judgement.WEIGHT_UNSEEN[0] + min(since, judgement.WEIGHT_UNSEEN[1]), "rhythm")
        )
    return tuple(sorted(reasons, key=lambda why: -why.weight))


def plan(blocks: Sequence[BlockState], today: dt.date, gate: tuple[float, float] = (0.0, 0.0)) -> Walk:
    """Today's walk: every block with a reason, nearest next from the gate on, improved by uncrossing. Blocks that nobody goes into now come
    after the others, and those that are held last."""
    stops = {block.id: PlannedStop(block.id, reasons, block.held, block.closed) for block in blocks if (reasons := whys(block, today))}
    where = {block.id: block.at for block in blocks}
    order: list[str] = []
    for turn in range(3):
        last = where[order[-1]] if order else gate
        order += _round({block_id for block_id, stop in stops.items() if _turn(stop) == turn}, where, last)
    rest = tuple((block.id, _restful(block, today)) for block in blocks if block.id not in stops)
    tools = {tool for block in blocks if block.id in stops for case in block.cases for tool in case.tools}
    lures = any(trap.what == TrapWait.LURE and trap.due <= today for block in blocks for trap in block.traps)
    tools |= {"new lures"} if lures else set()
    tools |= set(HOLD_CARRIED) if any(stop.hold for stop in stops.values()) else set()
    return Walk(tuple(stops[block_id] for block_id in order), rest, (*ALWAYS_CARRIED, *sorted(tools - set(ALWAYS_CARRIED))))


def _turn(stop: PlannedStop) -> int:
    """In which of the three parts of a walk it stands: nobody goes from a held block to a sound one."""
    return 2 if stop.hold else 1 if stop.closed else 0


def _round(block_ids: Set[str], where: Mapping[str, tuple[float, float]], start: tuple[float, float]) -> list[str]:
    """Some blocks in walking order from a place on."""
    order: list[str] = []
    here, left = start, set(block_ids)
    while left:
        nearest = min(left, key=lambda block_id: (math.dist(here, where[block_id]), block_id))
        order.append(nearest)
        left.remove(nearest)
        here = where[nearest]
    return _uncross(order, where, start)


def _restful(block: BlockState, today: dt.date) -> tuple[Message, ...]:
    if block.held or block.closed:
        return tuple(why for why in (block.held, block.closed) if why)
    since = (today - block.looked).days if block.looked else 0
    coming = min((look.due for look in block.due), default=None)
    looked = says(Says.LOOKED_AT, days=since)
    return (looked, says(Says.LOOK_COMES, on=coming)) if coming else (looked,)


def _uncross(order: list[str], where: Mapping[str, tuple[float, float]], gate: tuple[float, float]) -> list[str]:
    """Two-opt: turn stretches round while that shortens the walk. Longer walks than MOST_UNCROSSED stay as nearest next gives them."""
    if len(order) > MOST_UNCROSSED:
        return order
    order = list(order)
    points = [gate, *(where[block_id] for block_id in order)]
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
