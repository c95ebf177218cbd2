"""What a whole catalogue must hold beyond each file being well formed: told apart, reachable, consistent, no entry thin."""

import re
from collections import Counter
from collections.abc import Iterator

from bootmark.core import judgement
from bootmark.core.catalogue.model import HABITS, Agent, Catalogue, Sampling
from bootmark.core.catalogue.reader import PROVENANCE
from bootmark.core.catalogue.values import values_of
from bootmark.core.field import stopping
from bootmark.core.meanings import AgentKind, ControlKind, Measure, Often, Side

LEAST = {"signs": 4, "looks": 2, "look-alikes": 2, "controls": 3, "enemies": 1}
FEWER = {"beneficial": {"signs": 1, "controls": 1, "enemies": 0}, "normal": {"signs": 2, "controls": 1, "enemies": 0}}
NOT_EATEN = {"signs": 2, "controls": 1, "enemies": 0}
SHARED = {"signs": 1, "looks": 1, "look-alikes": 0, "controls": 1, "enemies": 0}
"""What a short row has from its kind, which is held to OF_KIND."""
MANY_UNITS = {"leaf": "leaves"}
OF_KIND = {"signs": 1, "looks": 1, "look-alikes": 0, "controls": 1, "enemies": 0}
MIDWINTER = 1
GENTLE = (ControlKind.CULTURAL, ControlKind.PHYSICAL)
ALLOWED_COPIES = ("Always.", "none", "Everywhere.", "")


def tells_apart(catalogue: Catalogue, look: str, agent: Agent, other: Agent) -> str:
    """The sign of a look that best tells two agents apart; empty where none does."""

    def gap(sign: str) -> float:
        here, there = agent.shows.get(sign), other.shows.get(sign)
        return abs((here.chance if here else 0.0) - (there.chance if there else 0.0))

    best = max(catalogue.looks[look].signs, key=gap, default="")
    return best if best and gap(best) >= judgement.TELLS_APART else ""


def faults(catalogue: Catalogue) -> list[str]:
    """Each fault as a sentence that names the entry; empty for a sound catalogue."""
    return [
        *_reachable(catalogue),
        *(fault for agent in catalogue.agents.values() for fault in _agent(catalogue, agent)),
        *_copies(catalogue),
    ]


def _reachable(catalogue: Catalogue) -> Iterator[str]:
    shown = {sign for agent in catalogue.agents.values() for sign, shows in agent.shows.items() if shows.often != Often.NEVER}
    for sign in catalogue.signs.values():
        if sign.id not in catalogue.looks[sign.look].signs:
            yield f"{sign.id}: its look does not answer it"
        if sign.id not in shown:
            yield f"{sign.id}: no agent shows it"
    for look in catalogue.looks.values():
        if not look.signs:
            yield f"{look.id}: answers no sign"
        if len(look.signs) == 1 and not (look.yes and look.no):
            yield f"{look.id}: answers one sign and has no words for yes and no"


def _agent(catalogue: Catalogue, agent: Agent) -> Iterator[str]:
    for alike in agent.look_alikes:
        if not tells_apart(catalogue, alike.look, agent, catalogue.agent(alike.agent)):
            yield f"{agent.id}: {alike.look} does not tell it from {alike.agent}"
    counts = {
        "signs": len(agent.shows),
        "looks": len(agent.answers),
        "look-alikes": len(agent.look_alikes),
        "controls": len(agent.controls),
        "enemies": len(agent.enemies),
    }
    least = (
        OF_KIND if agent.is_kind else LEAST | ({} if agent.is_pest else FEWER.get(agent.kind, NOT_EATEN)) | (SHARED if agent.brief else {})
    )
    for what, count in counts.items():
        if count < least[what] and not (what == "look-alikes" and agent.kind == AgentKind.BENEFICIAL):
            yield f"{agent.id}: {count} {what}, at least {least[what]} are wanted"
    if not any(shows.confirms for shows in agent.shows.values()) and agent.kind not in (AgentKind.DISORDER,):
        yield f"{agent.id}: no sign confirms it"
    if agent.is_pest:
        yield from _pest(agent)
    elif agent.kind != AgentKind.BENEFICIAL and not any(control.kind in GENTLE for control in agent.controls):
        yield f"{agent.id}: nothing is known against it but to spray"
    yield from _stages(agent)
    yield from _targets(agent)
    yield from _plants(catalogue, agent)
    yield from _plans(agent)
    for control in agent.controls:
        if control.kind == ControlKind.CONVENTIONAL and not any("label" in caution for caution in control.cautions):
            yield f"{agent.id}: {control.id} does not say that the label comes first"


def _pest(agent: Agent) -> Iterator[str]:
    if (agent.sampling is None or not agent.thresholds) and not agent.hurts:
        yield f"{agent.id}: no way to count it, or no threshold"
    if not agent.stages and not agent.is_kind:
        yield f"{agent.id}: no stages"
    trapped = agent.shows.get("males-in-its-lure-trap")
    if trapped and trapped.confirms and Measure.TRAP not in {threshold.measure for threshold in agent.thresholds}:
        yield f"{agent.id}: its trap confirms it but no threshold is a trap's"


def _stages(agent: Agent) -> Iterator[str]:
    lived = {month for months in agent.year.values() for month in months}
    if agent.stages and not agent.months <= lived:
        yield f"{agent.id}: active in months in which no stage lives"
    if agent.is_pest and agent.stages and not agent.winters_as and agent.kind != AgentKind.VERTEBRATE:
        yield f"{agent.id}: does not say as what it winters"
    if agent.winters_as == "larva" and MIDWINTER in agent.year.get("pupa", ()) and MIDWINTER not in agent.year["larva"]:
        yield f"{agent.id}: winters as a larva, and its year has the pupa then"
    for control in agent.controls:
        if set(control.stages) - set(agent.stages):
            yield f"{agent.id}: {control.id} works on a stage that it does not have"
    for event in agent.heat.events if agent.heat else ():
        if event.stage not in (*agent.stages, "over"):
            yield f"{agent.id}: event {event.id} begins a stage that it does not have"
    events = {event.id for event in agent.heat.events} if agent.heat else set()
    for control in agent.controls:
        if (set(control.phases) | set(control.at_events)) - events:
            yield f"{agent.id}: {control.id} names an event that its heat model does not have"


def _plans(agent: Agent) -> Iterator[str]:
    """A plan must be able to end "too few" for sure where none is found."""
    plan = agent.sampling
    for threshold in agent.thresholds if plan else ():
        assert plan is not None
        if threshold.measure == plan.measure and not _can_end(plan, threshold.value):
            yield f"{agent.id}: its plan can never show fewer than {threshold.value:g}"
        if threshold.measure == plan.measure and not _of_unit(plan.unit, threshold.unit):
            yield f"{agent.id}: counts by {plan.unit}, and its threshold is of {threshold.unit}"


def _can_end(plan: Sampling, threshold: float) -> bool:
    rule = stopping.rule(threshold, plan.measure, plan.taylor, plan.units, plan.per)
    word = stopping.word(rule, [0] * rule.most)
    return word.side == Side.BELOW and not word.ended


def _of_unit(unit: str, words_of: str) -> bool:
    """Whether what a threshold is of names the unit that its plan counts by, or many of it."""
    words = {unit, *unit.split(" or ")}
    return any(re.search(rf"\b{re.escape(word)}(s|es)?\b", words_of) for word in words | {MANY_UNITS.get(word, word) for word in words})


def _targets(agent: Agent) -> Iterator[str]:
    """What lives or must be eaten works on what it works on."""
    for control in agent.controls:
        aims = {agent.id, agent.of, *agent.order.replace(",", " ").split()}
        if control.targets and aims.isdisjoint(control.targets):
            yield f"{agent.id}: {control.id} works on {', '.join(control.targets)} only"


def _plants(catalogue: Catalogue, agent: Agent) -> Iterator[str]:
    """Plants that a control waits on or may mark."""
    plants = {*catalogue.crops, *HABITS}
    for control in agent.controls:
        for plant in {*control.closed, *control.marks} - plants:
            yield f"{agent.id}: {control.id} tells of {plant}, which is no crop and no habit"


def _copies(catalogue: Catalogue) -> Iterator[str]:
    for name in ("summary", "said_wrongly", "name"):
        texts = Counter(getattr(agent, name) for agent in catalogue.agents.values())
        for text, count in texts.items():
            if count > 1 and text not in ALLOWED_COPIES:
                yield f"{name} stands in {count} entries: {text!r}"
    shown: dict[frozenset[tuple[str, str]], list[Agent]] = {}
    for agent in catalogue.agents.values():
        if agent.is_kind:
            continue
        key = frozenset((sign, shows.often) for sign, shows in agent.shows.items())
        for other in shown.setdefault(key, []):
            if _usual_hosts(agent) & _usual_hosts(other):
                yield f"{agent.id}: shows exactly the signs of {other.id}, on the same plants"
        shown[key].append(agent)


def _usual_hosts(agent: Agent) -> set[str]:
    return {crop for crop, usual in agent.hosts.items() if usual in ("often", "sometimes")}


def provenance(catalogue: Catalogue) -> Counter[str]:
    """How many values rest on what: signs, hosts, life, heat events, thresholds, ratios and controls counted one by one."""
    counts: Counter[str] = Counter()
    for agent in catalogue.agents.values():
        sources = [value.source for value in values_of(agent, catalogue)]
        counts.update(next(kind for kind in PROVENANCE if source.startswith(kind)) for source in sources)
    return counts


def coverage(catalogue: Catalogue) -> dict[str, Counter[str]]:
    """Entries by kind, crops by group, signs by how often they are shown."""
    return {
        "agents": Counter(agent.kind for agent in catalogue.agents.values()),
        "crops": Counter(crop.group for crop in catalogue.crops.values()),
        "signs of agents": Counter(
            often
            for often in judgement.HOW_OFTEN
            for agent in catalogue.agents.values()
            for shows in agent.shows.values()
            if shows.often == often
        ),
    }
