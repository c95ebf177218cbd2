"""What may be said of a case now: the verdict, from the chances of agents and of kinds, and the proofs that were seen."""

import math
from collections.abc import Sequence

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field.activity import activity, activity_look
from bootmark.core.meanings import Activity, AgentKind, Often, VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import SEEN, Case, NextLook, Ranking, Suspect, Verdict

AT_TIMES = (Often.ALWAYS, Often.USUAL, Often.SOMETIMES)
NOT_ANIMALS = (AgentKind.DISEASE, AgentKind.DISORDER, AgentKind.NORMAL)


def _proved(case: Case, catalogue: Catalogue, ranking: Ranking) -> list[Suspect]:
    """Agents, and kinds where no one agent of them stands out, that a confirming sign, chance and margin prove."""
    proved = []
    likely = [suspect for suspect in ranking.suspects if suspect.confirmed and suspect.probability >= judgement.NAMED_AT]
    outstanding = [suspect for suspect in likely if _stands_out(suspect, case, catalogue, ranking)]
    for kind in ranking.kinds:
        species = [suspect for suspect in outstanding if key_of(catalogue, suspect.agent) == kind.agent]
        if species:
            proved += species
        elif kind.confirmed and kind.probability >= judgement.NAMED_AT and kind.agent in catalogue.agents:
            proved.append(kind)
    return sorted(proved, key=lambda suspect: -suspect.probability)


def _stands_out(suspect: Suspect, case: Case, catalogue: Catalogue, ranking: Ranking) -> bool:
    """Whether one that is proved and likely is far enough ahead of each rival that leaves its proof as well."""
    agent = catalogue.agent(suspect.agent)
    proofs = [sign for sign, shows in agent.shows.items() if shows.confirms and case.signs.get(sign) == SEEN]
    rivals = [
        other.probability
        for other in ranking.suspects
        if other.agent != suspect.agent and all(sign in catalogue.agent(other.agent).shows for sign in proofs)
    ]
    return all(suspect.probability >= judgement.NAMED_MARGIN * rival for rival in rivals)


def key_of(catalogue: Catalogue, agent: str) -> str:
    """The kind that stands for an agent; an agent of no kind stands for itself."""
    return catalogue.kind_of(agent) or agent


def judge(case: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> Verdict:
    def judged(kind: VerdictKind, chosen: Sequence[Suspect], *advice: Message) -> Verdict:
        return _verdict(kind, chosen, case, catalogue, ranking, looks, advice)

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
    proved = _proved(case, catalogue, ranking)
    helpers = [suspect for suspect in proved if of(suspect).kind == AgentKind.BENEFICIAL]
    named = [suspect for suspect in proved if of(suspect).is_pest]
    if named:
        parasitised = [suspect for suspect in named if activity(suspect.agent, case, catalogue=catalogue) == Activity.PARASITISED]
        if helpers and len(parasitised) == len(named):
            return judged(VerdictKind.HELP_HAS_COME, [helpers[0], *named], _leave(of(named[0])), _leave(of(helpers[0])))
        besides = [suspect for suspect in proved if of(suspect).kind == AgentKind.DISEASE]
        beside = _perhaps_too(named, case, catalogue, ranking)
        return judged(VerdictKind.NAMED, [*named, *besides], *_onward(named, case, catalogue), *beside)
    ill = _settled_without_pests(proved, catalogue, ranking, looks)
    pests = _mass(ranking, {suspect.agent for suspect in ranking.kinds if of(suspect).is_pest}, catalogue)
    if _listed_near(case, catalogue, ranking):
        return _unsettled(case, catalogue, ranking, looks)
    if helpers and not ill and pests <= judgement.PESTS_LEFT:
        return judged(VerdictKind.HELP_HAS_COME, helpers[:1], _leave(of(helpers[0])))
    if ill and pests <= judgement.PESTS_LEFT:
        kind = VerdictKind.NORMAL if of(ill[0]).kind == AgentKind.NORMAL else VerdictKind.NOT_A_PEST
        advice = [_instead(of(ill[0]))] if of(ill[0]).controls else []
        return judged(kind, ill, *advice, *_kept(ill[0], case, catalogue))
    return _unsettled(case, catalogue, ranking, looks)


def _settled_without_pests(proved: list[Suspect], catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> list[Suspect]:
    """Diseases, disorders and what is normal that settle a case."""
    ill = [suspect for suspect in proved if catalogue.agent(suspect.agent).kind in NOT_ANIMALS]
    if ill:
        return ill
    return [
        suspect
        for suspect in ranking.kinds
        if suspect.probability >= (judgement.UNPROVED_AT if looks else judgement.SETTLED_AT)
        and _may_go_unproved(catalogue.agent(suspect.agent))
    ][:1]


def _listed_near(case: Case, catalogue: Catalogue, ranking: Ranking) -> bool:
    """Whether a proof was seen of a pest that must be reported, or may have to be: nothing is cleared beside it."""
    agents = (catalogue.agent(suspect.agent) for suspect in ranking.suspects if suspect.confirmed)
    return any(agent.is_pest and agent.notifiable and (not case.region or agent.listed_in(case.region)) for agent in agents)


def _may_go_unproved(agent: Agent) -> bool:
    """A disorder that no sign can prove is settled by its chance; one that a sign could prove waits for it."""
    return agent.kind == AgentKind.DISORDER and not any(shows.confirms for shows in agent.shows.values())


def _unsettled(case: Case, catalogue: Catalogue, ranking: Ranking, looks: list[NextLook]) -> Verdict:
    top = list(ranking.kinds[:1])
    leader = catalogue.agent(top[0].agent) if top else None
    if leader and leader.sample and top[0].probability >= judgement.SAMPLED_AT and not any(look.proves for look in looks):
        return _verdict(VerdictKind.SEND_A_SAMPLE, top, case, catalogue, ranking, looks, (says(Says.SAMPLE, agent=leader.id),))
    nothing = next((cause.probability for cause in ranking.explanations if not cause.agents), 0.0)
    live = [sign for sign in ranking.unexplained if catalogue.signs[sign].live]
    hopeless = nothing >= judgement.NOTHING_AT and not any(look.proves for look in looks)
    if hopeless or (nothing >= judgement.UNKNOWN_AT and (live or not looks)):
        return _verdict(VerdictKind.NO_CAUSE_KNOWN, [], case, catalogue, ranking, looks, (says(Says.SEND_SAMPLE),))
    if looks:
        return _verdict(VerdictKind.NEEDS_A_LOOK, top, case, catalogue, ranking, looks, (says(Says.TAKE_LOOK, look=looks[0].look),))
    return _verdict(VerdictKind.CANNOT_TELL, top, case, catalogue, ranking, looks, (says(Says.SEND_SAMPLE),))


def _onward(named: list[Suspect], case: Case, catalogue: Catalogue) -> list[Message]:
    """What follows from a name: to count it; to keep it where it, or one of its kind that may live here, may have to be reported."""
    agent = catalogue.agent(named[0].agent)
    plan = agent.sampling
    advice = [says(Says.COUNT_NEXT, agent=agent.id, unit=plan.unit if plan else "")]
    if agent.notifiable and not case.region:
        advice.append(says(Says.REPORT_IF_LISTED, agent=agent.id, listings=agent.notifiable))
    for suspect in named:
        advice += _kept(suspect, case, catalogue)
    return advice


def _perhaps_too(named: list[Suspect], case: Case, catalogue: Catalogue, ranking: Ranking) -> list[Message]:
    """A second cause that is likelier at work than not, and the look that would prove it: one of two is never named alone."""
    kinds = {key_of(catalogue, suspect.agent) for suspect in named}
    beside = []
    for kind in ranking.kinds:
        if kind.agent in kinds or kind.confirmed or kind.probability < judgement.BESIDE_AT:
            continue
        kin = [catalogue.agent(kind.agent), *catalogue.members(kind.agent)]
        open_proofs = (sign for agent in kin for sign, shows in agent.shows.items() if shows.confirms and sign not in case.signs)
        proof = next(open_proofs, "")
        if proof:
            beside.append(says(Says.PERHAPS_TOO, agent=kind.agent, look=catalogue.signs[proof].look))
    return beside


def _kept(suspect: Suspect, case: Case, catalogue: Catalogue) -> list[Message]:
    """A kind is never cleared while one of its members that must be reported may live on that plant there."""
    agent = catalogue.agent(suspect.agent)
    if not agent.is_kind or agent.species is None or not agent.species.matters:
        return []
    listed = [
        member.id
        for member in catalogue.members(agent.id)
        if member.notifiable and (not case.region or member.listed_in(case.region)) and _may_live(member, case, catalogue)
    ]
    kept = says(Says.KIND_HAS_LISTED, agent=agent.id, members=tuple(listed)) if listed else None
    return [kept] if kept else [says(Says.SPECIES_MATTERS, agent=agent.id)]


def _may_live(agent: Agent, case: Case, catalogue: Catalogue) -> bool:
    return case.crop in agent.hosts or "*" in agent.hosts or case.crop not in catalogue.crops


def _mass(ranking: Ranking, kinds: set[str], catalogue: Catalogue) -> float:
    """Chance that any agent of these kinds is at work, from the explanations of what was seen."""
    return math.fsum(
        cause.probability for cause in ranking.explanations if any(key_of(catalogue, agent) in kinds for agent in cause.agents)
    )


def _leave(agent: Agent) -> Message:
    return says(Says.LEAVE_WHEN, agent=agent.id)


def _instead(agent: Agent) -> Message:
    acts = [control for control in agent.controls if control.unsprayed] or list(agent.controls)
    return says(Says.DO_INSTEAD, agent=agent.id, control=acts[0].id)


def _report(agent: Agent, region: str) -> Message:
    return says(Says.REPORT_IT, agent=agent.id, listing=agent.listing_in(region))


def _dangers(case: Case, catalogue: Catalogue, ranking: Ranking, named: tuple[str, ...]) -> tuple[Message, ...]:
    """What can hurt people or stock, told as soon as a sign of it fits, however unlikely it is."""
    dangers = []
    for suspect in ranking.suspects:
        agent = catalogue.agent(suspect.agent)
        fits = [
            shows for sign, shows in agent.shows.items() if case.signs.get(sign) == SEEN and (shows.confirms or shows.often in AT_TIMES)
        ]
        if agent.hurts and fits and suspect.probability >= judgement.DANGER_AT:
            kind = Says.DANGER if agent.id in named else Says.DANGER_PERHAPS
            dangers.append(says(kind, agent=agent.id))
    return tuple(dangers)


def _verdict(
    kind: VerdictKind,
    chosen: Sequence[Suspect],
    case: Case,
    catalogue: Catalogue,
    ranking: Ranking,
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
        dangers=_dangers(case, catalogue, ranking, agents),
    )
