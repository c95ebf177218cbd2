"""Naming the cause: suspects for a case, the looks that would tell most, and what may be said of it now.

The network is in network.py, the chance of each agent before any sign in priors.py, the worth of looks in looks.py.
"""

import math
from collections.abc import Sequence

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field import looks as worth
from bootmark.core.field.activity import activity, activity_look
from bootmark.core.field.judge import judge
from bootmark.core.field.looks import Question
from bootmark.core.field.network import MOST_JOINT, Network
from bootmark.core.field.resolve import CaseLike, resolve
from bootmark.core.meanings import Direction, Often
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import SEEN, Case, Cause, NextLook, Ranking, Suspect, Verdict

__all__ = ["activity", "activity_look", "answer", "contradictions", "next_looks", "suspects", "verdict"]


def _suspect(agent: Agent, chance: float, network: Network) -> Suspect:
    """An agent with its chance and, unless it is next to nothing, the reasons for and against it."""
    place = network.place[agent.id]
    confirmed = place in network.proved
    if chance < judgement.LISTED_AT and not confirmed:
        return Suspect(agent.id, chance, (), (), confirmed)
    reasons = list(network.priors[place].reasons)
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


def suspects(case: CaseLike, *, catalogue: Catalogue | None = None) -> Ranking:
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
    resolved, entries = resolve(case, catalogue)
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
    alone = sorted(causes, key=lambda cause: -cause.probability)
    for place in network.inert():
        odds, agent = network.odds[place], agents[place].id
        for cause in alone:
            if cause.probability * odds < judgement.LISTED_AT:
                break
            if len(cause.agents) < MOST_JOINT:
                causes.append(Cause((*cause.agents, agent), cause.probability * odds))
    causes.sort(key=lambda cause: -cause.probability)
    order = sorted(range(len(agents)), key=lambda place: -solution.chances[place])
    notes = [network.note] if network.note else []
    notes += [says(Says.SIGN_UNKNOWN, sign=sign) for sign in case.signs if sign not in entries.signs]
    notes += contradictions(case, entries)
    suspects_of = tuple(_suspect(agents[place], solution.chances[place], network) for place in order)
    return Ranking(
        tuple(causes),
        suspects_of,
        tuple(notes),
        rest=max(0.0, 1 - math.fsum(cause.probability for cause in causes)),
        left_out=solution.left_out,
        explanations=question.causes(),
        kinds=_kinds(question, suspects_of),
        unexplained=tuple(sign for sign in network.seen if sign not in network.showing),
    )


def _kinds(question: Question, suspects_of: Sequence[Suspect]) -> tuple[Suspect, ...]:
    """Of each kind, and of each agent of no kind, that explains something seen: the chance that any of it is at work."""
    network, solution = question.network, question.solution
    explaining = network.explains()
    by_agent = {suspect.agent: suspect for suspect in suspects_of}
    places = {key: members for key, members in network.together.items() if not explaining.isdisjoint(members)}
    several = [key for key, members in places.items() if _shared(members, solution.chances)]
    together = dict(zip(several, network.chances_of_any(solution, [places[key] for key in several]), strict=True))
    kinds = []
    for key, members in places.items():
        lead = max(members, key=lambda place: solution.chances[place])
        best = by_agent[network.agents[lead].id]
        confirmed = any(by_agent[network.agents[place].id].confirmed for place in members)
        kinds.append(Suspect(key, together.get(key, solution.chances[lead]), best.reasons_for, best.reasons_against, confirmed))
    return tuple(sorted(kinds, key=lambda suspect: -suspect.probability))


def _shared(members: Sequence[int], chances: Sequence[float]) -> bool:
    """Whether a kind's chance is spread over several of its members."""
    each = [chances[place] for place in members]
    return len(each) > 1 and max(each) < judgement.LISTED_AT + sum(each)


def next_looks(case: CaseLike, ranking: Ranking, *, catalogue: Catalogue | None = None) -> list[NextLook]:
    """Looks worth taking, best first: those that can change the call, then by expected bits for each second.

    Several signs answered by one look count as one look. Looks whose signs have all been answered, that
    need a tool the scout does not carry, or that belong to the night, are left out. Only agents that
    explain what was seen are asked about: whether thirst is there beside pale points is not the question.
    """
    resolved, entries = resolve(case, catalogue)
    return worth.rank(_question(resolved, entries), ranking, entries.looks)


def answer(case: CaseLike, *, catalogue: Catalogue | None = None) -> tuple[Ranking, list[NextLook], Verdict]:
    """Suspects, next looks and verdict of one case, the network solved once."""
    resolved, entries = resolve(case, catalogue)
    question = _question(resolved, entries)
    ranking = _ranking(question)
    looks = worth.rank(question, ranking, entries.looks)
    return ranking, looks, judge(resolved, entries, ranking, looks)


def verdict(case: CaseLike, ranking: Ranking, *, catalogue: Catalogue | None = None) -> Verdict:
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
    resolved, entries = resolve(case, catalogue)
    return judge(resolved, entries, ranking, next_looks(resolved, ranking, catalogue=entries))
