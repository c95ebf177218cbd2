"""Naming the cause: suspects for a case, the looks that would tell most, and what may be said of it now.

The network is in network.py, the chance of each agent before any sign in priors.py, the worth of looks in looks.py.
"""

import math
from collections.abc import Mapping, Sequence
from typing import Any

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field import looks as worth
from bootmark.core.field.looks import Question
from bootmark.core.field.network import Network
from bootmark.core.meanings import Activity, AgentKind, Often, VerdictKind
from bootmark.core.types import ABSENT, SEEN, Case, Cause, NextLook, Ranking, Reason, Suspect, Verdict

LISTED_AT = 1e-3
"""Explanations likelier than this are listed one by one."""
NAMED_AT = 0.75
MARGIN = 3.0
"""An agent is named where it is this many times as likely as each rival for its confirming sign. Judgement, no source."""
SETTLED_AT = 0.7
REPORTED_AT = 0.3
PARASITISED = ("white-cocoons-on-its-back", "yellow-cocoons-beside-it", "mummies", "black-whitefly-scales", "white-eggs-behind-head")
DEAD = ("crushed-body-dry",)

Told = Case | Mapping[str, Any]


def _resolve(case: Told, catalogue: Catalogue | None) -> tuple[Case, Catalogue]:
    return Case.of(case), catalogue or catalogues.default()


def _suspect(agent: Agent, chance: float, network: Network) -> Suspect:
    prior = network.priors[network.place[agent.id]]
    speaks_for, against = prior.speaks_for, prior.against
    signs = network.known.signs
    for sign in network.seen:
        shows = agent.shows.get(sign)
        if shows and shows.chance > signs[sign].leak:
            text = f"{signs[sign].name}: {'only it leaves this' if shows.confirms else f'{shows.often} with it'}."
            speaks_for += (Reason(text, sign),)
    for sign in network.absent:
        shows = agent.shows.get(sign)
        if shows and shows.often in (Often.ALWAYS, Often.USUAL):
            against += (Reason(f"{signs[sign].name} is not there: {shows.often} with it.", sign),)
    confirmed = any(agent.shows[sign].confirms for sign in network.seen if sign in agent.shows)
    return Suspect(agent.id, chance, speaks_for, against, confirmed)


def contradictions(case: Case, catalogue: Catalogue) -> list[str]:
    """Pairs of signs told as seen that can't both be there."""
    seen = [sign for sign, state in case.signs.items() if state == SEEN and sign in catalogue.signs]
    found = []
    for sign in seen:
        for other in catalogue.signs[sign].not_with:
            if other in seen:
                one, two = catalogue.signs[sign], catalogue.signs[other]
                found.append(f"{one.name} and {two.name.lower()} can't both be: {catalogue.looks[one.look].do.rstrip('.').lower()}, again.")
    return found


def suspects(case: Told, *, catalogue: Catalogue | None = None) -> Ranking:
    """Explanations of a case, likeliest first, singly and jointly, and each agent's own chance.

    case: a Case or a mapping of its fields. Raises ValueError for a case without a crop or with an
    unknown state. A sign or crop that is not known is said in the notes, not refused.
    """
    told, known = _resolve(case, catalogue)
    return _ranking(_question(told, known))


def _question(told: Case, catalogue: Catalogue) -> Question:
    network = Network(told, catalogue)
    return Question(network, network.solve())


def _ranking(question: Question) -> Ranking:
    network, solution = question.network, question.solution
    told, known = network.case, network.known
    agents = network.agents
    causes = [
        Cause(tuple(agents[place].id for place in members), weight / solution.total)
        for members, weight in solution.alone
        if weight >= LISTED_AT * solution.total
    ]
    # One agent that no answer bears on may be there besides; two are too seldom to list.
    for place in network.inert():
        odds = network.odds[place]
        causes += [
            Cause((*cause.agents, agents[place].id), cause.probability * odds)
            for cause in tuple(causes)
            if len(cause.agents) < 3 and cause.probability * odds >= LISTED_AT and not _ends_inert(cause, network)
        ]
    causes.sort(key=lambda cause: -cause.probability)
    order = sorted(range(len(agents)), key=lambda place: -solution.chances[place])
    notes = [network.note] if network.note else []
    notes += [f"{sign} is not a sign that Bootmark knows: it was left out." for sign in told.signs if sign not in known.signs]
    notes += contradictions(told, known)
    return Ranking(
        tuple(causes),
        tuple(_suspect(agents[place], solution.chances[place], network) for place in order),
        tuple(notes),
        rest=max(0.0, 1 - math.fsum(cause.probability for cause in causes)),
        left_out=solution.left_out,
        explanations=question.causes(),
    )


def _ends_inert(cause: Cause, network: Network) -> bool:
    return bool(cause.agents) and not network.shown[network.place[cause.agents[-1]]]


def next_looks(case: Told, ranking: Ranking, *, catalogue: Catalogue | None = None) -> list[NextLook]:
    """Looks worth taking, best first: those that can change the call, then by expected bits for each second.

    Several signs answered by one look count as one look. Looks whose signs have all been answered, that
    need a tool the scout does not carry, or that belong to the night, are left out. Only agents that
    explain what was seen are asked about: whether thirst is there beside pale points is not the question.
    """
    told, known = _resolve(case, catalogue)
    return worth.rank(_question(told, known), ranking, known.looks)


def answer(case: Told, *, catalogue: Catalogue | None = None) -> tuple[Ranking, list[NextLook], Verdict]:
    """Suspects, next looks and verdict of one case, the network solved once."""
    told, known = _resolve(case, catalogue)
    question = _question(told, known)
    ranking = _ranking(question)
    looks = worth.rank(question, ranking, known.looks)
    return ranking, looks, _judge(told, known, ranking, looks)


def activity(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> Activity:
    """Whether an attack goes on: an activity.

    Parasitised or dead where a sign says so; active with a live sign of it seen; finished where the
    live signs that confirm it were looked for and are absent while lasting damage is there.
    """
    told, known = _resolve(case, catalogue)
    shows = known.agent(agent).shows
    seen = {sign for sign in shows if told.signs.get(sign) == SEEN}
    if known.agent(agent).is_pest:
        if seen & set(PARASITISED):
            return Activity.PARASITISED
        if seen & set(DEAD) and not any(known.signs[sign].live for sign in seen):
            return Activity.DEAD
    if any(known.signs[sign].live for sign in seen):
        return Activity.ACTIVE
    looked_for = [
        sign for sign, one in shows.items() if known.signs[sign].live and one.confirms and one.often in (Often.ALWAYS, Often.USUAL)
    ]
    answered = [sign for sign in looked_for if sign in told.signs]
    if any(shows[sign].outlasts for sign in seen) and answered and all(told.signs[sign] == ABSENT for sign in answered):
        return Activity.FINISHED
    return Activity.NOT_KNOWN


def activity_look(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> str:
    """The look that would tell whether an attack goes on; empty where none is left."""
    told, known = _resolve(case, catalogue)
    shows = known.agent(agent).shows
    live = [sign for sign, one in shows.items() if known.signs[sign].live and one.confirms and sign not in told.signs]
    return known.signs[max(live, key=lambda sign: shows[sign].chance)].look if live else ""


def verdict(case: Told, ranking: Ranking, *, catalogue: Catalogue | None = None) -> Verdict:
    """What may be said of a case now: a verdict, with what speaks for and against it.

    A pest is named only with a confirming sign, a chance of 0.75 or more, and a margin over each rival
    for that sign (judgement, no source).
    """
    told, known = _resolve(case, catalogue)
    return _judge(told, known, ranking, next_looks(told, ranking, catalogue=known))


def _named(told: Case, catalogue: Catalogue, ranking: Ranking) -> list[Suspect]:
    """Pests with a confirming sign, chance and margin enough."""
    found = []
    for suspect in ranking.suspects:
        agent = catalogue.agent(suspect.agent)
        if not (agent.is_pest and suspect.confirmed and suspect.probability >= NAMED_AT):
            continue
        proofs = [sign for sign, shows in agent.shows.items() if shows.confirms and told.signs.get(sign) == SEEN]
        rivals = [
            other.probability
            for other in ranking.suspects
            if other.agent != suspect.agent
            and catalogue.agent(other.agent).is_pest
            and all(sign in catalogue.agent(other.agent).shows for sign in proofs)
        ]
        if all(suspect.probability >= MARGIN * rival for rival in rivals):
            found.append(suspect)
    return found


def _judge(told: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> Verdict:
    def say(kind: VerdictKind, ones: Sequence[Suspect], advice: str) -> Verdict:
        return _verdict(kind, ones, told, catalogue, looks, advice)

    def of(one: Suspect) -> Agent:
        return catalogue.agent(one.agent)

    if not any(state == SEEN for state in told.signs.values()):
        return say(VerdictKind.NEEDS_A_LOOK, [], "Tap what you see, or say that the plant is sound.")
    listed = [
        suspect
        for suspect in ranking.suspects
        if suspect.confirmed and suspect.probability >= REPORTED_AT and of(suspect).listed_in(told.region)
    ]
    if listed:
        return say(VerdictKind.MUST_BE_REPORTED, listed[:1], _report(of(listed[0]), told.region))
    named = _named(told, catalogue, ranking)
    helpers = [
        suspect
        for suspect in ranking.suspects
        if of(suspect).kind == AgentKind.BENEFICIAL and suspect.confirmed and suspect.probability >= SETTLED_AT
    ]
    if named:
        if helpers and all(activity(one.agent, told, catalogue=catalogue) == Activity.PARASITISED for one in named):
            return say(VerdictKind.HELP_HAS_COME, [helpers[0], *named], f"{of(named[0]).leave_when} {of(helpers[0]).leave_when}")
        plan = of(named[0]).sampling
        advice = f"Count next, {plan.unit} by {plan.unit}." if plan else "Count next."
        if of(named[0]).notifiable and not told.region:
            places = "; ".join(of(named[0]).notifiable)
            advice += f" Where it is listed ({places}) report it to the plant health authority first and do not move it."
        return say(VerdictKind.NAMED, named, advice)
    pests = _mass(ranking, {suspect.agent for suspect in ranking.suspects if of(suspect).is_pest})
    if helpers and pests <= 1 - SETTLED_AT / 1.5:
        return say(VerdictKind.HELP_HAS_COME, helpers[:1], of(helpers[0]).leave_when)
    others = [
        suspect
        for suspect in ranking.suspects
        if of(suspect).kind in (AgentKind.DISORDER, AgentKind.DISEASE, AgentKind.NORMAL) and suspect.probability >= SETTLED_AT
    ]
    others = [other for other in others if other.confirmed or of(other).kind == AgentKind.DISORDER]
    suspected = _mass(ranking, {suspect.agent for suspect in ranking.suspects if of(suspect).is_pest and suspect.probability > 0.02})
    if others and suspected <= 1 - SETTLED_AT / 1.5:
        kind = VerdictKind.NORMAL if of(others[0]).kind == AgentKind.NORMAL else VerdictKind.NOT_A_PEST
        return say(kind, others[:1], _instead(of(others[0])))
    top = ranking.suspects[:1]
    if looks:
        return say(VerdictKind.NEEDS_A_LOOK, top, catalogue.looks[looks[0].look].do)
    return say(VerdictKind.CANNOT_TELL, top, "Bag a sample in paper, note the place and the day, and ask a licensed adviser.")


def _mass(ranking: Ranking, agents: set[str]) -> float:
    """Chance that any of these agents is at work, from the listed explanations."""
    return math.fsum(cause.probability for cause in ranking.causes if agents & set(cause.agents))


def _instead(agent: Agent) -> str:
    acts = [control for control in agent.controls if control.unsprayed] or list(agent.controls)
    return f"{acts[0].do} Then look whether this holds: {acts[0].success[0].lower()}{acts[0].success[1:]}"


def _report(agent: Agent, region: str) -> str:
    listing = next(place for place in agent.notifiable if place.startswith(region))
    return (
        f"It is listed here ({listing}). Photograph it, leave it where it is, do not move, post or treat it, "
        "and tell the plant health authority today."
    )


def _verdict(kind: VerdictKind, chosen: Sequence[Suspect], case: Case, catalogue: Catalogue, looks: list[NextLook], advice: str) -> Verdict:
    agents = tuple(one.agent for one in chosen)
    change = []
    for one in looks[:2]:
        look = catalogue.looks[one.look]
        others = [catalogue.agent(agent).in_sentence for agent in one.splits if agent not in agents]
        change.append(f"{look.name}: could point to {others[0]} instead." if others else f"{look.name}: would settle it.")
    state = (
        activity(agents[-1] if kind == VerdictKind.HELP_HAS_COME else agents[0], case, catalogue=catalogue)
        if agents
        else Activity.NOT_KNOWN
    )
    if agents and state == Activity.NOT_KNOWN and catalogue.agent(agents[0]).is_pest:
        telling = activity_look(agents[0], case, catalogue=catalogue)
        if telling:
            change.append(f"{catalogue.looks[telling].name}: would tell whether it is still at work.")
    return Verdict(
        kind=kind,
        agents=agents,
        probability=chosen[0].probability if chosen else 0.0,
        activity=state,
        speaks_for=tuple(reason for one in chosen for reason in one.reasons_for),
        speaks_against=tuple(reason for one in chosen for reason in one.reasons_against),
        would_change=tuple(dict.fromkeys(change)),
        advice=advice,
    )
