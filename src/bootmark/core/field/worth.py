"""What a look at a block is worth today: the chance that a decision is due there, times what it costs to be late."""

import datetime as dt
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from bootmark.core import judgement
from bootmark.core.field.points import Corner
from bootmark.core.meanings import Spell, TrapWait
from bootmark.core.messages import Message, Says, says


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
    """A trap that waits. name: what is written on it; agent, id: ids; due: since when."""

    name: str
    agent: str
    what: TrapWait
    due: dt.date
    id: str = ""


@dataclass(frozen=True)
class Growing:
    """What was counted lately and grows. agent: its id; days: until it passes its threshold at the upper limit of the count."""

    agent: str
    days: float


@dataclass(frozen=True, order=True)
class Place:
    """A block on the plan. id, name: its own; at: its middle, metres."""

    id: str
    name: str
    at: Corner


@dataclass(frozen=True)
class Proved:
    """A pest that was proved on a block and is not over. agent: its id; on: when it was told of last."""

    agent: str
    on: dt.date


@dataclass(frozen=True)
class NextDoor:
    """A pest that was proved on a block nearby and lives on what grows here. agent: its id; block: the other's name; on: when."""

    agent: str
    block: str
    on: dt.date


@dataclass(frozen=True)
class BlockState:
    """What is known of a block before today's walk. at: its middle on the plan, metres; looked: the last look, None for never;
    held: what is said of a block that is held after a report; closed: of one that nobody goes into after a spray; young: propagation and
    young plants, which get everything; pests: ids of those that were proved there lately and are not over; arrived: lots that nobody has
    looked through; grows: what was counted and comes to matter; history: agents that were proved here in these weeks of earlier years;
    next_door: those that were proved beside it lately."""

    id: str
    name: str
    at: Corner
    looked: dt.date | None
    spells: Mapping[str, int] = field(default_factory=dict)
    due: Sequence[DueLook] = ()
    cases: Sequence[OpenCase] = ()
    openings: Sequence[Opening] = ()
    traps: Sequence[DueTrap] = ()
    held: Message | None = None
    closed: Message | None = None
    young: bool = False
    pests: Sequence[str] = ()
    arrived: Sequence[str] = ()
    grows: Sequence[Growing] = ()
    history: Sequence[str] = ()
    next_door: Sequence[NextDoor] = ()


@dataclass(frozen=True)
class Why:
    """One reason for a stop. chance: that a decision is due because of it; cost: of being late with that, as a share of the worst;
    return_id: the booking that the stop would answer; trap: the one to be read there."""

    reason: Message
    chance: float
    kind: str
    cost: float = 1.0
    return_id: str = ""
    trap: str = ""

    @property
    def weight(self) -> float:
        return 100 * self.chance * self.cost


def together(whys: Sequence[Why]) -> float:
    """What a look is worth by all its reasons, 0 to 100: that one of them is right is likelier than that each is."""
    return 100 * (1 - math.prod(1 - why.chance * why.cost for why in whys))


def whys(block: BlockState, today: dt.date) -> tuple[Why, ...]:
    """Reasons to stop at a block today, the weightiest first. Chances and costs are judgement, no source."""
    since = (today - block.looked).days if block.looked else None
    reasons = [*_booked(block, today), *_traps(block, today), *_windows(block, today), *_rhythm(block, since)]
    reasons += [
        Why(says(Says.TELL_WHAT_IT_IS, agent=case.agent, look=case.look), judgement.CHANCE_CASE, "case", _urgent(case.agent, block, today))
        for case in block.cases
    ]
    reasons += [Why(says(Says.LOT_ARRIVED, lot=lot), judgement.CHANCE_CASE, "case") for lot in block.arrived]
    reasons += [
        Why(says(Says.PASSES_HERE, agent=row.agent, days=math.ceil(row.days)), _closeness(row.days), "window")
        for row in block.grows
        if row.days <= judgement.GROWS_SOON_DAYS
    ]
    unseen = since is None or since >= judgement.FAST_RHYTHM_DAYS
    reasons += [Why(says(Says.FOUND_BEFORE, agent=agent), judgement.CHANCE_HISTORY, "window") for agent in block.history if unseen]
    reasons += [
        Why(says(Says.FOUND_BESIDE, agent=row.agent, block=row.block), judgement.CHANCE_NEXT_DOOR, "window")
        for row in block.next_door
        if block.looked is None or block.looked < row.on
    ]
    return tuple(sorted(reasons, key=lambda why: -why.weight))


def _closeness(days: float) -> float:
    """The chance that a pest that grows has to be decided on, the nearer its threshold the more."""
    near, far = judgement.CHANCE_GROWS
    return far + (near - far) * max(0.0, 1 - days / judgement.GROWS_SOON_DAYS)


def _urgent(agent: str, block: BlockState, today: dt.date) -> float:
    """The cost of being late with a case: less where it is known that no stage of it that can be reached is out."""
    spans = [opening for opening in block.openings if opening.agent == agent]
    open_now = any(opening.first <= today <= opening.last for opening in spans)
    return 1.0 if open_now or not spans else judgement.COST_LATER


def _booked(block: BlockState, today: dt.date) -> list[Why]:
    due = [(look, (today - look.due).days) for look in block.due if look.due <= today]
    return [
        Why(
            says(
                Says.SEE_WHETHER_IT_WORKED if look.after_treatment else Says.LOOK_DUE, agent=look.agent, late=late, look_for=look.look_for
            ),
            min(judgement.CHANCE_RETURN + judgement.CHANCE_A_DAY * late, judgement.CHANCE_MOST),
            "return",
            return_id=look.id,
        )
        for look, late in due
    ]


def _traps(block: BlockState, today: dt.date) -> list[Why]:
    waits = [(trap, (today - trap.due).days) for trap in block.traps if trap.due <= today]
    least, most = judgement.CHANCE_TRAP
    return [
        Why(
            says(Says.READ_TRAP if trap.what == TrapWait.CHECK else Says.CHANGE_LURE, agent=trap.agent, trap=trap.name, late=late),
            min(least + judgement.CHANCE_A_DAY * late, most),
            "trap",
            trap=trap.id,
        )
        for trap, late in waits
    ]


def _windows(block: BlockState, today: dt.date) -> list[Why]:
    reasons = []
    for opening in block.openings:
        ahead, left = (opening.first - today).days, (opening.last - today).days
        if ahead <= 0 <= left:
            # Of a window that closes in days a day late is much of it.
            cost = 1.0 if left <= judgement.WINDOW_CLOSES_DAYS else judgement.COST_LATER
            reasons.append(Why(says(Says.WINDOW_OPEN, agent=opening.agent, last=opening.last), judgement.CHANCE_OPEN, "window", cost))
        elif 0 < ahead <= judgement.WINDOW_SOON_DAYS:
            reasons.append(Why(says(Says.WINDOW_COMES, agent=opening.agent, days=ahead), judgement.CHANCE_SOON, "window"))
    return reasons


def _rhythm(block: BlockState, since: int | None) -> list[Why]:
    if since is None:
        return [Why(says(Says.NEVER_LOOKED), judgement.CHANCE_NEVER, "rhythm")]
    hot, rain = block.spells.get(Spell.HOT_AND_DRY, 0), block.spells.get(Spell.WEEK_OF_RAIN, 0)
    quick = hot >= judgement.FAST_SPELL_DAYS
    if since < (judgement.FAST_RHYTHM_DAYS if quick else judgement.CALM_RHYTHM_DAYS):
        return []
    kind = Says.LONG_UNSEEN_HOT if quick else Says.LONG_UNSEEN_RAIN if rain else Says.LONG_UNSEEN
    # In heat mites double in days: as much may have come of three days as of nine otherwise.
    aged = since * (judgement.CALM_RHYTHM_DAYS / judgement.FAST_RHYTHM_DAYS if quick else 1.0)
    least, most = judgement.CHANCE_UNSEEN
    return [Why(says(kind, days=since, hot=hot, rain=rain), min(least + judgement.CHANCE_A_DAY * aged / 2, most), "rhythm")]
