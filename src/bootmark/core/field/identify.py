"""Naming the cause: suspects for a case, the looks that would tell most, and what may be said of it now.

The network is in network.py, the chance of each agent before any sign in priors.py, the worth of looks in looks.py.
"""

import math
from collections.abc import Mapping, Sequence
from typing import Any

from bootmark.core import catalogue as catalogues
from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field import looks as worth
from bootmark.core.field.looks import Question
from bootmark.core.field.network import Network
from bootmark.core.meanings import Activity, AgentKind, Direction, Often, VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import ABSENT, SEEN, Case, Cause, NextLook, Ranking, Suspect, Verdict

PARASITISED = ("white-cocoons-on-its-back", "yellow-cocoons-beside-it", "mummies", "black-whitefly-scales", "white-eggs-behind-head")
DEAD = ("crushed-body-dry",)

Told = Case | Mapping[str, Any]


def _resolve(case: Told, catalogue: Catalogue | None) -> tuple[Case, Catalogue]:
    return Case.of(case), catalogue or catalogues.default()


def _suspect(agent: Agent, chance: float, network: Network) -> Suspect:
    prior = network.priors[network.place[agent.id]]
    reasons = list(prior.reasons)
    signs = network.catalogue.signs
    for sign in network.seen:
        shows = agent.shows.get(sign)
        if shows and shows.chance > signs[sign].leak:
            kind = Says.SIGN_PROVES if shows.confirms else Says.SIGN_FITS
            reasons.append(says(kind, Direction.FOR, sign=sign, agent=agent.id, often=shows.often))
    for sign in network.absent:
        shows = agent.shows.get(sign)
        if shows and shows.often in (Often.ALWAYS, Often.USUAL):
            reasons.append(says(Says.SIGN_MISSING, Direction.AGAINST, sign=sign, agent=agent.id, often=shows.often))
    confirmed = any(agent.shows[sign].confirms for sign in network.seen if sign in agent.shows)
    speaks_for, against = (tuple(reason for reason in reasons if reason.direction == direction) for direction in Direction)
    return Suspect(agent.id, chance, speaks_for, against, confirmed)


def contradictions(case: Case, catalogue: Catalogue) -> list[Message]:
    """Pairs of signs told as seen that can't both be there."""
    seen = [sign for sign, state in case.signs.items() if state == SEEN and sign in catalogue.signs]
    return [
        says(Says.SIGNS_CONTRADICT, sign=sign, other=other, look=catalogue.signs[sign].look)
        for sign in seen
        for other in catalogue.signs[sign].not_with
        if other in seen
    ]


def suspects(case: Told, *, catalogue: Catalogue | None = None) -> Ranking:
    """Explanations of a case, likeliest first, singly and jointly, and each agent's own chance.

    Parameters
    ----------
    case : a Case or a mapping of its fields.
    catalogue : the shipped one where None.

    Returns
    -------
    Ranking
        A sign or crop that the catalogue lacks is said in its notes, not refused.

    Raises
    ------
    ValueError
        For a case without a crop or with an unknown state of a sign.

    Source
    ------
    Bayes' rule over single and joint causes, noisy-or for what several leave: Pearl (1988).
    """
    resolved, entries = _resolve(case, catalogue)
    return _ranking(_question(resolved, entries))


def _question(case: Case, catalogue: Catalogue) -> Question:
    network = Network(case, catalogue)
    return Question(network, network.solve())


def _ranking(question: Question) -> Ranking:
    network, solution = question.network, question.solution
    case, entries = network.case, network.catalogue
    agents = network.agents
    causes = [
        Cause(tuple(agents[place].id for place in members), weight / solution.total)
        for members, weight in solution.alone
        if weight >= judgement.LISTED_AT * solution.total
    ]
    # One agent that no answer bears on may be there besides; two are too seldom to list.
    for place in network.inert():
        odds = network.odds[place]
        causes += [
            Cause((*cause.agents, agents[place].id), cause.probability * odds)
            for cause in tuple(causes)
            if len(cause.agents) < 3 and cause.probability * odds >= judgement.LISTED_AT and not _ends_inert(cause, network)
        ]
    causes.sort(key=lambda cause: -cause.probability)
    order = sorted(range(len(agents)), key=lambda place: -solution.chances[place])
    notes = [network.note] if network.note else []
    notes += [says(Says.SIGN_UNKNOWN, sign=sign) for sign in case.signs if sign not in entries.signs]
    notes += contradictions(case, entries)
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
    resolved, entries = _resolve(case, catalogue)
    return worth.rank(_question(resolved, entries), ranking, entries.looks)


def answer(case: Told, *, catalogue: Catalogue | None = None) -> tuple[Ranking, list[NextLook], Verdict]:
    """Suspects, next looks and verdict of one case, the network solved once."""
    resolved, entries = _resolve(case, catalogue)
    question = _question(resolved, entries)
    ranking = _ranking(question)
    looks = worth.rank(question, ranking, entries.looks)
    return ranking, looks, _judge(resolved, entries, ranking, looks)


def activity(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> Activity:
    """Whether an attack goes on: an activity.

    Parasitised or dead where a sign says so; active with a live sign of it seen; finished where the
    live signs that confirm it were looked for and are absent while lasting damage is there.
    """
    resolved, entries = _resolve(case, catalogue)
    shows = entries.agent(agent).shows
    seen = {sign for sign in shows if resolved.signs.get(sign) == SEEN}
    if entries.agent(agent).is_pest:
        if seen & set(PARASITISED):
            return Activity.PARASITISED
        if seen & set(DEAD) and not any(entries.signs[sign].live for sign in seen):
            return Activity.DEAD
    if any(entries.signs[sign].live for sign in seen):
        return Activity.ACTIVE
    looked_for = [
        sign
        for sign, showing in shows.items()
        if entries.signs[sign].live and showing.confirms and showing.often in (Often.ALWAYS, Often.USUAL)
    ]
    answered = [sign for sign in looked_for if sign in resolved.signs]
    if any(shows[sign].outlasts for sign in seen) and answered and all(resolved.signs[sign] == ABSENT for sign in answered):
        return Activity.FINISHED
    return Activity.NOT_KNOWN


def activity_look(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> str:
    """The look that would tell whether an attack goes on; empty where none is left."""
    resolved, entries = _resolve(case, catalogue)
    shows = entries.agent(agent).shows
    live = [sign for sign, showing in shows.items() if entries.signs[sign].live and showing.confirms and sign not in resolved.signs]
    return entries.signs[max(live, key=lambda sign: shows[sign].chance)].look if live else ""


def verdict(case: Told, ranking: Ranking, *, catalogue: Catalogue | None = None) -> Verdict:
    """What may be said of a case now: a verdict, with what speaks for and against it.

    A pest is named only with a confirming sign, a chance of 0.75 or more, and a margin over each rival
    for that sign.

    Parameters
    ----------
    case : as in suspects.
    ranking : of that case.
    catalogue : the shipped one where None.

    Returns
    -------
    Verdict
        Its kind, its agents, and what would change it.

    Source
    ------
    The chance and the margin: judgement, no source.
    """
    resolved, entries = _resolve(case, catalogue)
    return _judge(resolved, entries, ranking, next_looks(resolved, ranking, catalogue=entries))


def _named(case: Case, catalogue: Catalogue, ranking: Ranking) -> list[Suspect]:
    """Pests with a confirming sign, chance and margin enough."""
    named = []
    for suspect in ranking.suspects:
        agent = catalogue.agent(suspect.agent)
        if not (agent.is_pest and suspect.confirmed and suspect.probability >= judgement.NAMED_AT):
            continue
        proofs = [sign for sign, shows in agent.shows.items() if shows.confirms and case.signs.get(sign) == SEEN]
        rivals = [
            other.probability
            for other in ranking.suspects
            if other.agent != suspect.agent
            and catalogue.agent(other.agent).is_pest
            and all(sign in catalogue.agent(other.agent).shows for sign in proofs)
        ]
        if all(suspect.probability >= judgement.NAMED_MARGIN * rival for rival in rivals):
            named.append(suspect)
    return named


def _judge(case: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> Verdict:
    def judged(kind: VerdictKind, chosen: Sequence[Suspect], *advice: Message) -> Verdict:
        return _verdict(kind, chosen, case, catalogue, looks, advice)

    def of(suspect: Suspect) -> Agent:
        return catalogue.agent(suspect.agent)

    if not any(state == SEEN for state in case.signs.values()):
        return judged(VerdictKind.NEEDS_A_LOOK, [], says(Says.TELL_SIGNS))
    listed = [
        suspect
        for suspect in ranking.suspects
        if suspect.confirmed and suspect.probability >= judgement.REPORTED_AT and of(suspect).listed_in(case.region)
    ]
    if listed:
        return judged(VerdictKind.MUST_BE_REPORTED, listed[:1], _report(of(listed[0]), case.region))
    named = _named(case, catalogue, ranking)
    helpers = [
        suspect
        for suspect in ranking.suspects
        if of(suspect).kind == AgentKind.BENEFICIAL and suspect.confirmed and suspect.probability >= judgement.SETTLED_AT
    ]
    if named:
        if helpers and all(activity(suspect.agent, case, catalogue=catalogue) == Activity.PARASITISED for suspect in named):
            return judged(VerdictKind.HELP_HAS_COME, [helpers[0], *named], _leave(of(named[0])), _leave(of(helpers[0])))
        plan = of(named[0]).sampling
        advice = [says(Says.COUNT_NEXT, agent=named[0].agent, unit=plan.unit if plan else "")]
        if of(named[0]).notifiable and not case.region:
            advice.append(says(Says.REPORT_IF_LISTED, agent=named[0].agent, listings=of(named[0]).notifiable))
        return judged(VerdictKind.NAMED, named, *advice)
    pests = _mass(ranking, {suspect.agent for suspect in ranking.suspects if of(suspect).is_pest})
    if helpers and pests <= judgement.PESTS_LEFT:
        return judged(VerdictKind.HELP_HAS_COME, helpers[:1], _leave(of(helpers[0])))
    others = [
        suspect
        for suspect in ranking.suspects
        if of(suspect).kind in (AgentKind.DISORDER, AgentKind.DISEASE, AgentKind.NORMAL) and suspect.probability >= judgement.SETTLED_AT
    ]
    others = [other for other in others if other.confirmed or of(other).kind == AgentKind.DISORDER]
    suspected = _mass(
        ranking, {suspect.agent for suspect in ranking.suspects if of(suspect).is_pest and suspect.probability > judgement.RARE_PEST}
    )
    if others and suspected <= judgement.PESTS_LEFT:
        kind = VerdictKind.NORMAL if of(others[0]).kind == AgentKind.NORMAL else VerdictKind.NOT_A_PEST
        return judged(kind, others[:1], _instead(of(others[0])))
    top = ranking.suspects[:1]
    if looks:
        return judged(VerdictKind.NEEDS_A_LOOK, top, says(Says.TAKE_LOOK, look=looks[0].look))
    return judged(VerdictKind.CANNOT_TELL, top, says(Says.SEND_SAMPLE))


def _mass(ranking: Ranking, agents: set[str]) -> float:
    """Chance that any of these agents is at work, from the listed explanations."""
    return math.fsum(cause.probability for cause in ranking.causes if agents & set(cause.agents))


def _leave(agent: Agent) -> Message:
    return says(Says.LEAVE_WHEN, agent=agent.id)


def _instead(agent: Agent) -> Message:
    acts = [control for control in agent.controls if control.unsprayed] or list(agent.controls)
    return says(Says.DO_INSTEAD, agent=agent.id, control=acts[0].id)


def _report(agent: Agent, region: str) -> Message:
    return says(Says.REPORT_IT, agent=agent.id, listing=next(place for place in agent.notifiable if place.startswith(region)))


def _verdict(
    kind: VerdictKind,
    chosen: Sequence[Suspect],
    case: Case,
    catalogue: Catalogue,
    looks: list[NextLook],
    advice: tuple[Message, ...],
) -> Verdict:
    agents = tuple(suspect.agent for suspect in chosen)
    change = []
    for look in looks[:2]:
        other = next((agent for agent in look.splits if agent not in agents), None)
        change.append(says(Says.LOOK_POINTS, look=look.look, agent=other) if other else says(Says.LOOK_SETTLES, look=look.look))
    state = (
        activity(agents[-1] if kind == VerdictKind.HELP_HAS_COME else agents[0], case, catalogue=catalogue)
        if agents
        else Activity.NOT_KNOWN
    )
    if agents and state == Activity.NOT_KNOWN and catalogue.agent(agents[0]).is_pest:
        telling = activity_look(agents[0], case, catalogue=catalogue)
        if telling:
            change.append(says(Says.LOOK_TELLS_ACTIVITY, look=telling))
    return Verdict(
        kind=kind,
        agents=agents,
        probability=chosen[0].probability if chosen else 0.0,
        activity=state,
        speaks_for=tuple(reason for suspect in chosen for reason in suspect.reasons_for),
        speaks_against=tuple(reason for suspect in chosen for reason in suspect.reasons_against),
        would_change=tuple(dict.fromkeys(change)),
        advice=advice,
    )
