"""The catalogue as plain values."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from bootmark.core import judgement
from bootmark.core.catalogue.drawn import Drawn
from bootmark.core.catalogue.heat import Heat
from bootmark.core.catalogue.shapes import Bears, Keeps, Stand
from bootmark.core.meanings import UNSPRAYED, AgentKind, ControlKind, CountTool, DayPart, Measure, Place, Spared, Work
from bootmark.core.types import Taylor, Threshold

PEST_KINDS = (AgentKind.INSECT, AgentKind.MITE, AgentKind.VERTEBRATE, AgentKind.MOLLUSC)
MANY = {"egg": "eggs", "larva": "larvae", "nymph": "nymphs", "pupa": "pupae", "adult": "adults", "young": "young"}
BRINGS_UP_YOUNG = ("mammal", "bird", "slug", "spider")
"""Bodies whose nymph is called its young."""
"""Stages as a population is spoken of."""
PROPER = frozenset({"Asian", "California", "Colorado", "European", "Hessian", "Japanese", "Mediterranean", "Mexican", "Russian", "San"})
"""First words of common names that keep their capital."""

BODIES = (
    "mite", "aphid", "psyllid", "whitefly", "scale", "mealybug", "hopper", "thrips", "bug", "lace bug", "moth", "sawfly", "leaf beetle",
    "beetle", "weevil", "borer", "fly", "midge", "wasp", "bee", "lacewing", "ladybird", "hoverfly", "ant", "grasshopper", "earwig",
    "slug", "spider", "nematode", "fungus", "bacterium", "virus", "mammal", "bird", "none",
)  # fmt: skip
"""Body types, from which life stages are drawn."""

PLACES = tuple(Place)

PARTS = (
    "whole", "tip", "young leaf", "old leaf", "underside", "flower", "fruit", "stem", "base", "root", "ground",
    "trunk", "bulb", "grain", "turf",
)  # fmt: skip
HABITS = ("tree", "conifer", "palm", "shrub", "climber", "herb", "grass", "bulb", "succulent")
"""How plants grow, for what lives on a habit rather than on a crop."""
KIND_PREFIX = "any-"
HARDLY_EVER = "rarely"
REPORT = "report-it"
"""The control by which what is listed is told to the authority."""


def turned(months: frozenset[int], hemisphere: str) -> frozenset[int]:
    """Months of the north as they are in a hemisphere."""
    return months if hemisphere == "north" else frozenset((month + 5) % 12 + 1 for month in months)


@dataclass(frozen=True)
class Sign:
    """One thing that can be seen or felt.

    leak: chance of it with no known agent at work; mistaken: chance that it is told as seen where it is not; overlooked: chance that it
    is told as absent where it is; not_with: signs that can't be there too; crops: crops or habits, the only ones that can show it, none
    for any; stage: the stage of life that was seen with it, empty where it tells none; pictures: the agent whose stage it shows, where its
    drawing is that animal's.
    """

    id: str
    name: str
    sentence: str
    part: str
    look: str
    leak: float
    live: bool = False
    not_with: tuple[str, ...] = ()
    mistaken: float = judgement.MISTAKEN["seldom"]
    overlooked: float = judgement.OVERLOOKED["sometimes"]
    crops: tuple[str, ...] = ()
    stage: str = ""
    pictures: str = ""


@dataclass(frozen=True)
class Look:
    """One deliberate act that answers one or more signs."""

    id: str
    name: str
    do: str
    seconds: int
    tools: tuple[str, ...]
    night: bool
    yes: str
    no: str
    signs: tuple[str, ...] = ()


@dataclass(frozen=True)
class Crop:
    """A crop, orchard tree or ornamental. also: other names it is looked for by; habit: one of HABITS.

    leaf, stand, bears, keeps: its leaf's form, how it stands, its fruit and what it keeps below ground, for drawings. shares: the crop
    with which it has all in common that lives there; like: crops of which what lives there is found on it too, less often; lives: agents
    by how usual, where the plant's own row says so. in_leaf, flowers, fruits: months in the temperate north; eaten: its parts that
    people eat; fed: whether stock grazes it or is fed with it.
    """

    id: str
    name: str
    family: str
    group: str
    place: Place
    also: tuple[str, ...] = ()
    leaf: str = "ovate"
    habit: str = "herb"
    stand: Stand = Stand.SHOOT
    bears: Bears = Bears.CAPSULE
    keeps: Keeps = Keeps.NOTHING
    shares: str = ""
    like: tuple[str, ...] = ()
    lives: Mapping[str, str] = field(default_factory=dict)
    in_leaf: frozenset[int] = frozenset()
    flowers: frozenset[int] = frozenset()
    fruits: frozenset[int] = frozenset()
    eaten: tuple[str, ...] = ()
    fed: bool = False

    def match(self, letters: str) -> int:
        """1 where its name begins with these letters, 2 where a word of any of its names does, 0 where none does."""
        wanted = letters.strip().lower()
        if not wanted:
            return 0
        if self.name.lower().startswith(wanted):
            return 1
        names = [self.name, *self.also]
        return 2 if any(word.startswith(wanted) for name in names for word in name.lower().replace(",", " ").split()) else 0


@dataclass(frozen=True)
class Shows:
    """How an agent shows one sign."""

    sign: str
    often: str
    outlasts: bool
    confirms: bool
    source: str

    @property
    def chance(self) -> float:
        return judgement.HOW_OFTEN[self.often]


@dataclass(frozen=True)
class LookAlike:
    agent: str
    tell: str
    look: str


@dataclass(frozen=True)
class NominalThreshold:
    crop: str
    value: float
    measure: Measure
    unit: str
    source: str


@dataclass(frozen=True)
class Enemy:
    """A natural enemy; ratio: enemies for each pest at which to hold back."""

    agent: str
    name: str
    ratio: float
    source: str


@dataclass(frozen=True)
class Closed:
    """Months in which a control is not done to a plant, and why."""

    months: frozenset[int]
    why: str


@dataclass(frozen=True)
class Control:
    """One way to act.

    lasts_days: days on which it still kills; harms: groups that it harms ("bees", "predatory mites" ...); at_events: events
    of the heat model that it must meet while they go on; phases: events whose animals it kills as long as they are in that
    phase; where both are empty it kills all animals of its stages; months: when it may be done, none for any; not_with: signs beside which
    it does harm; harvest_days, reentry_hours: as recalled, none where they are not known; keeps_out: a barrier, which keeps in what is
    in already; targets: orders, kinds or agents, the only ones that it works on; not_on: habits of plants that it is never done to; needs:
    signs that must have been seen; needs_absent: signs that must have been looked for in vain; by_hand: it brings a hand near;
    small: it works while they are small; final: what it takes away does not come back; closed: crops or habits on which it waits for other
    months; marks: crops that it may mark or burn; brings: what a release lets out; gap_days, season_most: days between two of it at least,
    and how many a season at most, as recalled of labels, none where they are not known; feed_days, plant_back_days: likewise before stock
    grazes or is fed, and before another crop.
    """

    id: str
    kind: ControlKind
    name: str
    do: str
    stages: tuple[str, ...]
    phases: tuple[str, ...]
    at_events: tuple[str, ...]
    timing: str
    spares: str
    harms: tuple[Spared, ...]
    group: str
    spares_eggs: bool
    repeats: int
    contact: bool
    look_again_days: int
    success: str
    skill: str
    tools: tuple[str, ...]
    cautions: tuple[str, ...]
    source: str
    harvest_days: int | None = None
    reentry_hours: int | None = None
    work: Work = Work.ANY
    lasts_days: int = 1
    months: frozenset[int] = frozenset()
    not_with: tuple[str, ...] = ()
    keeps_out: bool = False
    targets: tuple[str, ...] = ()
    not_on: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    needs_absent: tuple[str, ...] = ()
    by_hand: bool = False
    small: bool = False
    final: bool = False
    retired: bool = False
    closed: Mapping[str, Closed] = field(default_factory=dict)
    marks: tuple[str, ...] = ()
    brings: Spared | None = None
    gap_days: int | None = None
    season_most: int | None = None
    feed_days: int | None = None
    plant_back_days: int | None = None

    @property
    def disrupts(self) -> bool:
        """Whether dispensers keep the sexes apart: before the flight, on a large block, and traps are empty meanwhile."""
        return "dispensers" in self.tools

    @property
    def by_sprayer(self) -> bool:
        """Whether a sprayer brings it to leaves, fruit or bark."""
        return any("sprayer" in tool for tool in self.tools) and "watering can" not in self.tools

    @property
    def up_by_hand(self) -> bool:
        """Whether somebody reaches up with it, from the ground."""
        return self.by_hand or (self.kind == ControlKind.PHYSICAL and any(tool in ("hose", "net", "nets") for tool in self.tools))

    @property
    def sprayed(self) -> bool:
        """Whether a label says how often it may be used."""
        return self.kind in (ControlKind.SOFT, ControlKind.CONVENTIONAL)

    @property
    def in_sentence(self) -> str:
        """The name as it stands inside a sentence."""
        return self.name[0].lower() + self.name[1:]

    @property
    def unsprayed(self) -> bool:
        """Whether it may be named before a call carries it, and to somebody at a distance; an active ingredient may not."""
        return self.kind in UNSPRAYED and not any("sprayer" in tool for tool in self.tools)


@dataclass(frozen=True)
class Sampling:
    """How it is counted. per: units taken from one plant; taylor: how clumped it is, None for a common one; tool, stroke: with what, and
    how much of it; part: of the day; dry: never wet; least_temp: degrees C, of the air, None where it does not matter."""

    unit: str
    measure: Measure
    units: int
    plan: str
    when: str
    source: str
    per: int = 1
    taylor: Taylor | None = None
    tool: CountTool = CountTool.EYE
    stroke: str = ""
    part: DayPart = DayPart.ANY
    dry: bool = False
    least_temp: float | None = None


@dataclass(frozen=True)
class Species:
    """Whether it changes anything to know which animal of a kind it is. matters: why; empty where it does not; tells: what would tell."""

    matters: str
    tells: str


@dataclass(frozen=True)
class Agent:
    """An agent, or a kind's entry, which stands for another agent of that kind.

    of: the kind that it belongs to; habits: for a kind, habits or families of the plants that it lives on beside its crops, by how usual;
    sample: what to send where no look in the field can prove it; hurts: what it does to people or stock; brief: a short row tells it;
    eats: the agents and kinds that a helper lives on; listed: countries (ISO 3166-1) where it must be reported.
    """

    id: str
    kind: AgentKind
    name: str
    scientific: str
    other_names: tuple[str, ...]
    order: str
    family: str
    body: str
    colours: tuple[str, str]
    summary: str
    harmful_stage: str
    feeds: tuple[str, ...]
    hosts: Mapping[str, str]
    shows: Mapping[str, Shows]
    answers: Mapping[str, str]
    look_alikes: tuple[LookAlike, ...]
    stages: tuple[str, ...]
    where: Mapping[str, str]
    year: Mapping[str, frozenset[int]]
    winters: str
    winters_as: str
    generations: str
    months: frozenset[int]
    favoured: Mapping[str, float]
    places: Mapping[str, float]
    heat: Heat | None
    growth: str
    sampling: Sampling | None
    thresholds: tuple[NominalThreshold, ...]
    enemies: tuple[Enemy, ...]
    controls: tuple[Control, ...]
    wild_hosts: str
    occurs: str
    notifiable: tuple[str, ...]
    said_wrongly: str
    leave_when: str
    cosmetic: bool
    source: str
    hosts_source: str
    life_source: str
    sources: Mapping[str, str]
    of: str = ""
    habits: Mapping[str, str] = field(default_factory=dict)
    species: Species | None = None
    sample: str = ""
    hurts: str = ""
    generic: bool = False
    brief: bool = False
    eats: tuple[str, ...] = ()
    listed: frozenset[str] = frozenset()
    retired: tuple[Control, ...] = ()
    drawn: Mapping[str, Drawn] = field(default_factory=dict)

    @property
    def is_kind(self) -> bool:
        """Whether it stands for a kind: another agent of it, or, where the kind needs no members, all of them."""
        return self.generic or self.id.startswith(KIND_PREFIX)

    def stage_name(self, stage: str) -> str:
        """What a stage of it is called, a key of MANY."""
        return "young" if stage == "nymph" and self.body in BRINGS_UP_YOUNG else stage

    @property
    def matters(self) -> str:
        """Why it matters which of its kind it is; empty where it does not."""
        return self.species.matters if self.species else ""

    @property
    def tells(self) -> str:
        """What would tell which of its kind it is."""
        return self.species.tells if self.species else ""

    @property
    def in_sentence(self) -> str:
        """The common name as it stands inside a sentence."""
        return self.name if self.name.split()[0] in PROPER else self.name[0].lower() + self.name[1:]

    def with_enemy_names(self, names: Mapping[str, str], aliases: Mapping[str, str]) -> "Agent":
        """The same agent, its enemies called by the names of their own entries."""
        enemies = tuple(replace(enemy, name=names[aliases.get(enemy.agent, enemy.agent)]) for enemy in self.enemies)
        return replace(self, enemies=enemies)

    def listed_in(self, region: str) -> bool:
        """Whether it must be reported in a region, an ISO 3166 code or a name of the lists; False where no region is told."""
        return bool(region) and (region[:2] in self.listed or any(place.startswith(region) for place in self.notifiable))

    def listing_in(self, region: str) -> str:
        """The list that names it there: the one that begins with the region, or the first."""
        return next((place for place in self.notifiable if place.startswith(region)), self.notifiable[0])

    @property
    def is_pest(self) -> bool:
        return self.kind in PEST_KINDS

    def months_in(self, hemisphere: str) -> frozenset[int]:
        return turned(self.months, hemisphere)

    def usual_on(self, crop: str) -> str:
        """How usual it is on a crop of the catalogue: what is said of it, of any plant, or else hardly ever."""
        return self.hosts.get(crop) or self.hosts.get("*", HARDLY_EVER)

    def threshold(self, crop: str, measure: str) -> Threshold | None:
        """Where it starts to matter on a crop: the crop's own before that of any; None where none is known."""
        rows = [row for own in (crop, "*") for row in self.thresholds if row.crop == own and row.measure == measure]
        return Threshold(rows[0].value, rows[0].measure, rows[0].unit, rows[0].source, rows[0].crop) if rows else None

    def control(self, control_id: str) -> Control:
        """A control by its id, also one that is offered no more and stands in old records."""
        return next(control for control in (*self.controls, *self.retired) if control.id == control_id)


@dataclass(frozen=True, eq=False)
class Catalogue:
    """All entries. A catalogue is the same as itself alone, so that what is worked out of one may be kept by it."""

    agents: Mapping[str, Agent]
    signs: Mapping[str, Sign]
    looks: Mapping[str, Look]
    crops: Mapping[str, Crop]
    hash: str
    aliases: Mapping[str, str] = field(default_factory=dict)

    def agent(self, agent_id: str) -> Agent:
        return self.agents[self.aliases.get(agent_id, agent_id)]

    def crops_like(self, letters: str) -> list[Crop]:
        """Crops that have a name, or another name, in which a word begins with these letters; those so named first."""
        ranked = [(crop.match(letters), crop.name, crop) for crop in self.crops.values()]
        return [crop for rank, _, crop in sorted(ranked, key=lambda entry: entry[:2]) if rank]

    @property
    def crop_names(self) -> list[str]:
        """Every name by which a crop can be asked for, in the order of their own names."""
        return [name for crop in sorted(self.crops.values(), key=lambda entry: entry.name) for name in (crop.name, *crop.also)]

    @property
    def families(self) -> list[str]:
        return sorted({crop.family for crop in self.crops.values()})

    def can_show(self, sign: str, crop: str, habit: str = "") -> bool:
        """Whether a plant can show a sign at all. habit: of a plant that is no crop of the catalogue."""
        only = self.signs[sign].crops
        grows = self.crops[crop].habit if crop in self.crops else habit
        return not only or crop in only or grows in only or not (grows or crop in self.crops)

    @cached_property
    def _by_kind(self) -> Mapping[str, tuple[Agent, ...]]:
        kinds: dict[str, list[Agent]] = {}
        for agent in self.agents.values():
            kinds.setdefault(agent.of, []).append(agent)
        return {kind: tuple(members) for kind, members in kinds.items() if kind}

    def members(self, kind: str) -> tuple[Agent, ...]:
        """The agents of a kind that have entries of their own."""
        return self._by_kind.get(kind, ())

    def kin(self, agent_id: str) -> tuple[Agent, ...]:
        """An agent and, where it stands for a kind, all that have entries of it."""
        return (self.agent(agent_id), *self.members(agent_id))

    def key_of(self, agent_id: str) -> str:
        """What an agent is weighed together with: its kind, or itself where it is of none."""
        return self.kind_of(agent_id) or agent_id

    def kind_of(self, agent_id: str) -> str:
        """The kind that an agent belongs to; a kind's own entry belongs to itself; empty where there is none."""
        agent = self.agent(agent_id)
        return agent.of or (agent.id if agent.is_kind else "")

    def on(self, crop: str) -> tuple[Agent, ...]:
        """Agents that may be at work on a crop; an unknown crop gets those of any crop."""
        return tuple(agent for agent in self.agents.values() if crop in agent.hosts or "*" in agent.hosts)
