"""Naming the cause: a two-layer noisy-or network of agents and signs, solved exactly for up to three joint causes.

P(sign absent | agents S) = (1 - leak) * product over S of (1 - q[agent, sign]); signs are independent
given S. Source: Pearl (1988), "Probabilistic Reasoning in Intelligent Systems", section 4.3.2;
the restriction to few joint causes as in Heckerman (1989), "A tractable inference algorithm for
diagnosing multiple diseases".
"""

import itertools
import math
from collections.abc import Mapping
from typing import Any

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue.model import HOW_USUAL, Agent, Catalogue, Look
from bootmark.core.types import ABSENT, SEEN, Case, Cause, NextLook, Ranking, Reason, Suspect, Verdict

MOST_JOINT = 3
OUT_OF_SEASON = 0.15
HINT_DAYS = 5
HISTORY_CAP = 3
NAMED_AT = 0.8
SETTLED_AT = 0.75
WORTH_A_LOOK = 0.002
DECIDES = 4
HELPING_KINDS = ("beneficial",)
HINTS = {"hot-and-dry": "hot and dry", "week-of-rain": "rain", "drought": "drought"}


def _prior(agent: Agent, case: Case) -> tuple[float, tuple[Reason, ...], tuple[Reason, ...]]:
    """The chance of an agent before any sign, with the reasons that moved it."""
    usual = agent.hosts.get(case.crop, agent.hosts.get("*", "rarely"))
    odds = HOW_USUAL[usual] / (1 - HOW_USUAL[usual])
    speaks_for: list[Reason] = []
    against: list[Reason] = []
    if case.month not in agent.months_in(case.hemisphere):
        odds *= OUT_OF_SEASON
        against.append(Reason("Out of its season."))
    for hint, times in agent.favoured.items():
        days = case.weather.get(hint, 0)
        if days >= HINT_DAYS:
            odds *= times
            words = (
                f"{days} days of {HINTS.get(hint, hint)}"
                if hint == "week-of-rain"
                else f"{HINTS.get(hint, hint).capitalize()} for {days} days"
            )
            (speaks_for if times > 1 else against).append(Reason(f"{words}, so it counts for {'more' if times > 1 else 'less'}."))
    past = case.history.get(agent.id, 0)
    if past:
        odds *= 1 + min(past, HISTORY_CAP)
        speaks_for.append(Reason(f"Found on this block {'before' if past == 1 else f'{past} times before'}."))
    return odds / (1 + odds), tuple(speaks_for), tuple(against)


class Network:
    """One case's agents with their priors, and the joint chance of each set of causes."""

    def __init__(self, case: Case, known: Catalogue) -> None:
        self.case, self.known = case, known
        self.agents = known.on(case.crop)
        self.priors = {agent.id: _prior(agent, case) for agent in self.agents}
        self.seen = [sign for sign, state in case.signs.items() if state == SEEN and sign in known.signs]
        self.absent = [sign for sign, state in case.signs.items() if state == ABSENT and sign in known.signs]
        self.by_id = {agent.id: agent for agent in self.agents}
        self.sets = tuple(itertools.chain.from_iterable(itertools.combinations(self.by_id, size) for size in range(MOST_JOINT + 1)))

    def chance(self, sign: str, causes: tuple[str, ...]) -> float:
        """P(sign there | exactly these causes at work)."""
        missing = 1 - self.known.signs[sign].leak
        for agent in causes:
            shows = self.by_id[agent].shows.get(sign)
            if shows:
                missing *= 1 - shows.chance
        return 1 - missing

    def weight(self, causes: tuple[str, ...]) -> float:
        """Prior odds of the set times the likelihood of what was told."""
        weight = 1.0
        for agent in causes:
            prior = self.priors[agent][0]
            weight *= prior / (1 - prior)
        for sign in self.seen:
            weight *= self.chance(sign, causes)
        for sign in self.absent:
            weight *= 1 - self.chance(sign, causes)
        return weight

    def explaining(self) -> set[str]:
        """Agents that make at least one seen sign likelier; all of them where nothing was seen."""
        signs = self.known.signs
        found = {
            one.id for one in self.agents if any(sign in one.shows and one.shows[sign].chance > signs[sign].leak for sign in self.seen)
        }
        return found or set(self.by_id)

    def solve(self) -> list[Cause]:
        weights = [self.weight(causes) for causes in self.sets]
        total = math.fsum(weights)
        return sorted(
            (Cause(causes, weight / total) for causes, weight in zip(self.sets, weights, strict=True)), key=lambda one: -one.probability
        )


def _resolve(case: Case | Mapping[str, Any], catalogue: Catalogue | None) -> tuple[Case, Catalogue]:
    return Case.of(case), catalogue or catalogues.default()


def _suspect(agent: Agent, chance: float, network: Network) -> Suspect:
    _, speaks_for, against = network.priors[agent.id]
    signs = network.known.signs
    for sign in network.seen:
        shows = agent.shows.get(sign)
        if shows and shows.chance > signs[sign].leak:
            text = f"{signs[sign].name}: {'only it leaves this' if shows.confirms else shows.often}."
            speaks_for += (Reason(text, sign),)
    for sign in network.absent:
        shows = agent.shows.get(sign)
        if shows and shows.often in ("always", "usual"):
            against += (Reason(f"{signs[sign].name} is not there: {shows.often} with it.", sign),)
    confirmed = any(agent.shows[sign].confirms for sign in network.seen if sign in agent.shows)
    return Suspect(agent.id, chance, speaks_for, against, confirmed)


def suspects(case: Case | Mapping[str, Any], *, catalogue: Catalogue | None = None) -> Ranking:
    """Explanations of a case, likeliest first, singly and jointly, and each agent's own chance.

    case: a Case or a mapping of its fields. Probabilities over causes (none, one, two, three
    agents) add to one. Raises ValueError for a case without a crop or with an unknown state.
    """
    told, known = _resolve(case, catalogue)
    network = Network(told, known)
    causes = network.solve()
    chances = dict.fromkeys(network.by_id, 0.0)
    for cause in causes:
        for agent in cause.agents:
            chances[agent] += cause.probability
    ranked = sorted(network.agents, key=lambda agent: -chances[agent.id])
    notes = [f"{sign} is not a sign that Bootmark knows: it was left out." for sign in told.signs if sign not in known.signs]
    if told.crop not in known.crops:
        notes.append(f"{told.crop} is not a crop that Bootmark knows: only causes of any crop are weighed.")
    if told.signs.get("soil-dry-a-finger-deep") == SEEN and told.signs.get("soil-sodden") == SEEN:
        notes.append("Soil dry and soil sodden can't both be: put your finger in again.")
    return Ranking(tuple(causes), tuple(_suspect(agent, chances[agent.id], network) for agent in ranked), tuple(notes))


def _entropy(weights: list[float]) -> float:
    total = math.fsum(weights)
    return -math.fsum(w / total * math.log2(w / total) for w in weights if w > 0) if total > 0 else 0.0


def _information(network: Network, causes: list[Cause], signs: list[str]) -> float:
    """Bits that a look's answers are expected to tell about what explains the signs seen.

    Agents that explain none of them (thirst beside pale points) are summed out: whether they
    are there as well is not what the scout is asking.
    """
    asked = network.explaining()
    groups: dict[tuple[str, ...], int] = {}
    place = [groups.setdefault(tuple(agent for agent in cause.agents if agent in asked), len(groups)) for cause in causes]

    def grouped(weights: list[float]) -> list[float]:
        sums = [0.0] * len(groups)
        for group, weight in zip(place, weights, strict=True):
            sums[group] += weight
        return sums

    before = _entropy(grouped([cause.probability for cause in causes]))
    chances = [[network.chance(sign, cause.agents) for sign in signs] for cause in causes]
    after = 0.0
    for outcome in itertools.product((True, False), repeat=len(signs)):
        weights = []
        for cause, row in zip(causes, chances, strict=True):
            weight = cause.probability
            for there, chance in zip(outcome, row, strict=True):
                weight *= chance if there else 1 - chance
            weights.append(weight)
        after += math.fsum(weights) * _entropy(grouped(weights))
    return max(0.0, before - after)


def _possible(look: Look, case: Case) -> bool:
    carried = case.tools is None or set(look.tools) <= case.tools
    in_time = not look.night or case.hour is None or case.hour >= 21 or case.hour < 5
    return carried and in_time


def _confirming(network: Network, agent: str) -> set[str]:
    return {shows.sign for shows in network.by_id[agent].shows.values() if shows.confirms}


def next_looks(case: Case | Mapping[str, Any], ranking: Ranking, *, catalogue: Catalogue | None = None) -> list[NextLook]:
    """Looks worth taking, best first: expected bits for each second that they cost.

    A look that could confirm the leading suspect counts fourfold, since it can change the call
    and not only the name (judgement, no source). Several signs answered by one look count as
    one look. Looks whose signs have all been answered, that need a tool the scout does not
    carry, or that belong to the night, are left out.
    """
    told, known = _resolve(case, catalogue)
    network = Network(told, known)
    live = [cause for cause in ranking.causes if cause.probability > 1e-6]
    pests = [one for one in ranking.suspects if network.by_id[one.agent].is_pest and not one.confirmed]
    wanted = _confirming(network, pests[0].agent) if pests and pests[0].probability > 0.05 else set()
    told_of = {sign for shows in (agent.shows for agent in network.agents) for sign in shows}
    found = []
    for look in known.looks.values():
        open_signs = [sign for sign in look.signs if sign not in told.signs and sign in told_of]
        if look.id == "glance" or not open_signs or not _possible(look, told):
            continue
        bits = _information(network, live, open_signs)
        decides = bool(wanted & set(open_signs))
        if bits > WORTH_A_LOOK:
            found.append(NextLook(look.id, bits, look.seconds, tuple(open_signs), _splits(network, ranking, open_signs), decides))
    return sorted(found, key=lambda one: -(one.bits * (DECIDES if one.decides else 1)) / one.seconds)


def _splits(network: Network, ranking: Ranking, signs: list[str]) -> tuple[str, ...]:
    """The leading suspects that a look tells apart: the one that shows its signs first."""
    leading = [one.agent for one in ranking.suspects[:4] if one.probability > 0.02]

    def shown(agent: str) -> float:
        return max(network.chance(sign, (agent,)) for sign in signs)

    ordered = sorted(leading, key=lambda agent: -shown(agent))
    if len(ordered) < 2 or shown(ordered[0]) - shown(ordered[-1]) < 0.1:
        return tuple(ordered[:1])
    return ordered[0], ordered[-1]


def activity(agent: str, case: Case | Mapping[str, Any], *, catalogue: Catalogue | None = None) -> str:
    """Whether an attack goes on: active with a live sign of it seen, finished where the live signs
    were looked for and are absent while lasting damage is there, otherwise not known."""
    told, known = _resolve(case, catalogue)
    shows = known.agent(agent).shows
    live = [sign for sign in shows if known.signs[sign].live]
    if any(told.signs.get(sign) == SEEN for sign in live):
        return "active"
    looked_for = [sign for sign in live if shows[sign].confirms and shows[sign].often in ("always", "usual")]
    lasting = any(told.signs.get(sign) == SEEN and shows[sign].outlasts for sign in shows)
    if lasting and looked_for and all(told.signs.get(sign) == ABSENT for sign in looked_for):
        return "finished"
    return "not known"


def verdict(case: Case | Mapping[str, Any], ranking: Ranking, *, catalogue: Catalogue | None = None) -> Verdict:
    """What may be said of a case now: one of types.VERDICTS, with what speaks for and against it.

    A pest is named only with a confirming sign and a chance of 0.8 or more (judgement, no source).
    """
    told, known = _resolve(case, catalogue)
    looks = next_looks(told, ranking, catalogue=known)
    if not any(state == SEEN for state in told.signs.values()):
        return _verdict("needs a look", (), 0.0, told, known, ranking, looks, "Tap what you see, or say that the plant is sound.")
    named = [one for one in ranking.suspects if one.confirmed and one.probability >= NAMED_AT and known.agent(one.agent).is_pest]
    helpers = [
        one for one in ranking.suspects if known.agent(one.agent).kind in HELPING_KINDS and one.confirmed and one.probability >= NAMED_AT
    ]
    if named:
        agents = tuple(one.agent for one in named)
        told_to = [known.agent(agent) for agent in agents if known.agent(agent).notifiable]
        plan = known.agent(agents[0]).sampling
        advice = f"Count next, {plan.unit} by {plan.unit}." if plan else "Count next."
        if told_to:
            places = ", ".join(told_to[0].notifiable)
            advice += f" Where it is listed ({places}) report it to the plant health authority first and do not move it."
        return _verdict("named", agents, named[0].probability, told, known, ranking, looks, advice)
    top = ranking.suspects[0] if ranking.suspects else None
    if helpers and not any(one.probability > 0.3 and known.agent(one.agent).is_pest for one in ranking.suspects):
        best = helpers[0]
        return _verdict("help has come", (best.agent,), best.probability, told, known, ranking, looks, known.agent(best.agent).leave_when)
    disorders = [one for one in ranking.suspects if known.agent(one.agent).kind in ("disorder", "normal") and one.probability >= SETTLED_AT]
    pests = math.fsum(cause.probability for cause in ranking.causes if any(known.agent(agent).is_pest for agent in cause.agents))
    if disorders and pests <= 1 - SETTLED_AT:
        best = disorders[0]
        kind = "normal for the season" if known.agent(best.agent).kind == "normal" else "not a pest"
        return _verdict(kind, (best.agent,), best.probability, told, known, ranking, looks, known.agent(best.agent).controls[0].do)
    if looks and top and top.probability > 0:
        look = known.looks[looks[0].look]
        return _verdict("needs a look", (top.agent,), top.probability, told, known, ranking, looks, look.do)
    agents = (top.agent,) if top else ()
    chance = top.probability if top else 0.0
    return _verdict(
        "cannot tell", agents, chance, told, known, ranking, looks, "Bag a sample in paper, note the place, and ask a licensed adviser."
    )


def _verdict(
    kind: str, agents: tuple[str, ...], chance: float, case: Case, known: Catalogue, ranking: Ranking, looks: list[NextLook], advice: str
) -> Verdict:
    chosen = [one for one in (ranking.of(agent) for agent in agents) if one]
    change = []
    for one in looks[:2]:
        look = known.looks[one.look]
        others = [known.agent(agent).in_sentence for agent in one.splits if agent not in agents]
        change.append(f"{look.name}: could point to {others[0]} instead." if others else f"{look.name}: would settle it.")
    return Verdict(
        kind=kind,
        agents=agents,
        probability=chance,
        activity=activity(agents[0], case, catalogue=known) if agents else "not known",
        speaks_for=tuple(reason for one in chosen for reason in one.reasons_for),
        speaks_against=tuple(reason for one in chosen for reason in one.reasons_against),
        would_change=tuple(change),
        advice=advice,
    )
