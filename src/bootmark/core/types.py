"""The plain values that pass between layers. Frozen, built from plain dicts, no behaviour of rooms."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from bootmark.core.meanings import (
    Activity,
    Chosen,
    ControlKind,
    DecisionKind,
    LimitMethod,
    Measure,
    OffPlan,
    SignState,
    SoldAs,
    VerdictKind,
    Worth,
)
from bootmark.core.messages import Message

SEEN, ABSENT, UNSURE = SignState
STATES = tuple(SignState)

VERDICTS, DECISIONS, ACTIVITIES = tuple(VerdictKind), tuple(DecisionKind), tuple(Activity)
ACTING = (
    DecisionKind.ACT_NOW,
    DecisionKind.ACT_IN_WINDOW,
    DecisionKind.SPOT_TREAT,
    DecisionKind.RELEASE,
    DecisionKind.CULTURAL_ACT,
)


@dataclass(frozen=True)
class Case:
    """What is known of one plant or patch.

    month: 1-12; hemisphere: "north" or "south"; weather: days in a row of each hint, for
    example {"hot-and-dry": 9}; signs: sign id to "seen", "absent" or "unsure"; history: agent
    id to the number of earlier findings on this block; tools: what the scout carries, None
    for everything; hour: local hour, None where it does not matter; family: botanical family, for a
    crop that is not known; region: the plant health area that the farm lies in, as the catalogue's
    lists name it; heat: agent id to the share of its population that is about by this year's heat;
    habit: how the plant grows, for one that is not known; slip: share of answers taken to be wrong, None for each sign's own.
    """

    crop: str
    place: str = "field"
    month: int = 6
    hemisphere: str = "north"
    weather: Mapping[str, int] = field(default_factory=dict)
    signs: Mapping[str, str] = field(default_factory=dict)
    history: Mapping[str, int] = field(default_factory=dict)
    tools: frozenset[str] | None = None
    hour: int | None = None
    family: str = ""
    region: str = ""
    heat: Mapping[str, float] = field(default_factory=dict)
    slip: float | None = None
    habit: str = ""

    @classmethod
    def of(cls, value: "Case | Mapping[str, Any]") -> "Case":
        if isinstance(value, Case):
            return value
        given = {name: value[name] for name in cls.__dataclass_fields__ if value.get(name) is not None}
        if "crop" not in given:
            raise ValueError("a case needs a crop")
        for sign, state in given.get("signs", {}).items():
            if state not in STATES:
                raise ValueError(f"sign {sign!r} must be seen, absent or unsure, not {state!r}")
        if given.get("hemisphere", "north") not in ("north", "south"):
            raise ValueError("hemisphere must be north or south")
        if not 1 <= int(given.get("month", 6)) <= 12:
            raise ValueError("month must be from 1 to 12")
        if not 0 <= float(given.get("slip", 0.1)) < 0.5:
            raise ValueError("slip must be from 0 to below 0.5")
        if "tools" in given:
            given["tools"] = frozenset(given["tools"])
        return cls(**given)


@dataclass(frozen=True)
class Cause:
    """One explanation: no agent, one, or up to three at work together."""

    agents: tuple[str, ...]
    probability: float


@dataclass(frozen=True)
class Suspect:
    """One agent with its chance of being at work, alone or with others."""

    agent: str
    probability: float
    reasons_for: tuple[Message, ...]
    reasons_against: tuple[Message, ...]
    confirmed: bool


@dataclass(frozen=True)
class Ranking:
    """Explanations of a case, likeliest first. Probabilities over causes and rest add to one.

    rest: share of all explanations too unlikely to be listed one by one; left_out: bound on the
    share that was not weighed at all; explanations: the causes once more, with agents that no sign
    told of speaks for left aside, since they may be there besides; kinds: of each kind that a sign told of speaks for the chance
    that any of its agents is at work, under the kind's id; unexplained: signs seen that no agent here leaves.
    """

    causes: tuple[Cause, ...]
    suspects: tuple[Suspect, ...]
    notes: tuple[Message, ...] = ()
    rest: float = 0.0
    left_out: float = 0.0
    explanations: tuple[Cause, ...] = ()
    kinds: tuple[Suspect, ...] = ()
    unexplained: tuple[str, ...] = ()

    def of(self, agent: str) -> Suspect | None:
        return next((suspect for suspect in self.suspects if suspect.agent == agent), None)


@dataclass(frozen=True)
class NextLook:
    """A look worth taking: bits of information expected, what it costs, what it splits.

    proves: whether it asks for a proof that is wanted; awaited: whether the call waits for one of its signs.
    """

    look: str
    bits: float
    seconds: int
    signs: tuple[str, ...]
    splits: tuple[str, ...]
    decides: bool
    proves: bool = False
    awaited: bool = False


@dataclass(frozen=True)
class Verdict:
    """What may be said of a case. advice: what follows from it, in the order in which it is said; dangers: what may hurt people."""

    kind: VerdictKind
    agents: tuple[str, ...]
    probability: float
    activity: Activity
    speaks_for: tuple[Message, ...]
    speaks_against: tuple[Message, ...]
    would_change: tuple[Message, ...]
    advice: tuple[Message, ...]
    dangers: tuple[Message, ...] = ()


@dataclass(frozen=True)
class Taylor:
    """How clumped a pest is: the variance of counts of single units is a times their mean to the power of b. Source: Taylor (1961)."""

    a: float
    b: float


@dataclass(frozen=True)
class Sample:
    """Counts made to a plan. counts: one number for each unit looked at; enemies likewise, or empty.

    measure: "mean" (animals per unit) or "proportion" (share of units with at least one); dead, parasitised: how many besides, or of
    units how many with none but such, None where nobody counted them; chosen: how the units came; off: why it does not hold as the plan
    has it, None where it does; ages: how many were of an age, of those that were told apart.
    """

    unit: str
    counts: tuple[int, ...]
    enemies: tuple[int, ...] = ()
    measure: Measure = Measure.MEAN
    dead: int | None = None
    parasitised: int | None = None
    chosen: Chosen = Chosen.PLAN
    off: OffPlan | None = None
    ages: Mapping[str, int] = field(default_factory=dict)

    @classmethod
    def of(cls, value: "Sample | Mapping[str, Any]") -> "Sample":
        if isinstance(value, Sample):
            return value
        counts = tuple(int(count) for count in value["counts"])
        enemies = tuple(int(count) for count in value.get("enemies", ()))
        if any(count < 0 for count in counts + enemies):
            raise ValueError("a count can't be below zero")
        if enemies and len(enemies) != len(counts):
            raise ValueError(f"{len(enemies)} counts of enemies were given for {len(counts)} units")
        dead, parasitised = (None if value.get(name) is None else int(value[name]) for name in ("dead", "parasitised"))
        measure, chosen = Measure(value.get("measure", Measure.MEAN)), Chosen(value.get("chosen", Chosen.PLAN))
        return cls(str(value.get("unit", "leaf")), counts, enemies, measure, dead, parasitised, chosen)


@dataclass(frozen=True)
class Interval:
    """An estimate with its confidence limits. level: 0 to 1; units: how many were looked at."""

    estimate: float
    low: float
    high: float
    units: int
    level: float
    method: LimitMethod


@dataclass(frozen=True)
class Threshold:
    """When an agent starts to matter."""

    value: float
    measure: Measure
    unit: str
    source: str
    crop: str = "*"


@dataclass(frozen=True)
class Done:
    """A control that was carried out against an agent on this ground. agent, control: ids; judged_from: the day from which it can be told
    whether it worked."""

    agent: str
    control: str
    on: dt.date
    judged_from: dt.date


@dataclass(frozen=True)
class StageNow:
    """Where a population stands today.

    shares: stage to share (adds to one with "not yet" and "over"); window: first and last day
    in which enough are in a stage that can be killed, None where no window is known; windows:
    the same for each control by its id, where it is known.
    """

    shares: Mapping[str, float] = field(default_factory=dict)
    today: dt.date | None = None
    window: tuple[dt.date, dt.date] | None = None
    days_to_threshold: float | None = None
    windows: Mapping[str, tuple[dt.date, dt.date]] = field(default_factory=dict)


@dataclass(frozen=True)
class Finding:
    """An agent named at a stop. seen, absent: the signs that were, and that were not; stages: those that were seen, there whatever a model
    says; shared: signs seen that another cause named beside it leaves too; danger: what else may be there that hurts, which danger_sign
    would prove; large: which share of those that feed is large, None where nobody told their ages apart."""

    agent: str
    verdict: VerdictKind
    probability: float
    confirmed: bool
    activity: Activity = Activity.NOT_KNOWN
    next_look: str = ""
    seen: frozenset[str] = frozenset()
    absent: frozenset[str] = frozenset()
    shared: frozenset[str] = frozenset()
    danger: str = ""
    danger_sign: str = ""
    stages: frozenset[str] = frozenset()
    large: float | None = None


@dataclass(frozen=True)
class Answered:
    """What somebody outside the farm answered. asked: the agent that was asked about; named: what it is, None for nothing of that."""

    asked: str
    named: str | None


@dataclass(frozen=True)
class CropState:
    """The crop at the time of the call.

    days_to_harvest: to the next picking, None where nobody knows; month 0: not known; region: as in Case; on_hold: held after a report;
    eaten, fed: whether any part of it is, by people or by stock, so that what has an interval waits for the day of harvest to be told;
    height, reach: metres, of the plants and of the highest sprayer, None where nobody told; sold_as, worth: None likewise; lines_near: a
    line hangs over it or beside it; storm: the first day of one that is foretold; weak_stalks, holed_fruit, leaf_loss: shares, of those
    that were tried or looked at for this agent lately; flowered: it has come to flower or is past it, None where nobody knows;
    area: hectares.
    """

    crop: str
    days_to_harvest: int | None = None
    in_flower: bool = False
    month: int = 0
    hemisphere: str = "north"
    region: str = ""
    habit: str = ""
    on_hold: bool = False
    eaten: bool = False
    fed: bool = False
    height: float | None = None
    reach: float | None = None
    sold_as: SoldAs | None = None
    worth: Worth | None = None
    lines_near: bool = False
    storm: dt.date | None = None
    weak_stalks: Interval | None = None
    holed_fruit: Interval | None = None
    leaf_loss: Interval | None = None
    flowered: bool | None = None
    area: float | None = None


@dataclass(frozen=True)
class Policy:
    """What a farm uses. order: kinds of control, most welcome first; None where it has no order of its own and uses all. certified:
    whether a certifier's list rules beside it; to_nature: whether it does nothing against pests, by its own will."""

    order: tuple[ControlKind, ...] | None = None
    refuses: frozenset[ControlKind] = frozenset()
    certified: bool = False
    to_nature: bool = False

    def uses(self, kind: ControlKind) -> bool:
        return kind not in self.refuses and (self.order is None or kind in self.order)


@dataclass(frozen=True)
class Choice:
    """A control on offer, or not, with the reason."""

    control: str
    offered: bool
    reason: Message


@dataclass(frozen=True)
class Decision:
    """The call on a finding. look_again_for: what the look that it books is to see."""

    kind: DecisionKind
    headline: Message
    reasons_for: tuple[Message, ...]
    reasons_against: tuple[Message, ...]
    would_change: tuple[Message, ...]
    choices: tuple[Choice, ...]
    cautions: tuple[Message, ...]
    look_again_days: int | None
    look_again_for: Message
