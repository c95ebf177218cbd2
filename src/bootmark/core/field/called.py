"""The call on each agent of a verdict, with the finding that it rests on."""

from collections.abc import Collection, Mapping
from dataclasses import replace

from bootmark.core import judgement
from bootmark.core.catalogue.model import Catalogue
from bootmark.core.field import call, identify, proofs
from bootmark.core.field.choices import spoils
from bootmark.core.meanings import VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import (
    ABSENT,
    SEEN,
    Answered,
    Case,
    CropState,
    Decision,
    Finding,
    NextLook,
    Policy,
    Ranking,
    Sample,
    StageNow,
    Verdict,
)


def calls(
    case: Case,
    ranking: Ranking,
    looks: list[NextLook],
    verdict: Verdict,
    crop: CropState,
    policy: Policy,
    catalogue: Catalogue,
    samples: Mapping[str, Sample] | None = None,
) -> list[tuple[Finding, Decision]]:
    """Each agent of a verdict in its order, with what to do about it. samples: counts by agent or kind."""
    findings = [finding(agent, case, ranking, looks, verdict, catalogue) for agent in verdict.agents]
    decided = []
    for called in findings:
        sample = _sample(called.agent, samples or {}, catalogue)
        decided.append((called, call.decide(called, StageNow(), sample, None, None, crop, policy, catalogue=catalogue)))
    return decided


def conflicts(decided: list[tuple[Finding, Decision]], catalogue: Catalogue) -> list[Message]:
    """What the calls of one case must keep apart: a material and the living thing that it kills, oil and sulfur."""
    offered = [
        (called.agent, catalogue.agent(called.agent).control(choice.control))
        for called, decision in decided
        for choice in decision.choices
        if choice.offered
    ]
    apart = []
    for agent, control in offered:
        for other, against in offered:
            if other != agent and spoils(control, against):
                apart.append(says(Says.KEEP_APART, agent=agent, control=control.id, other_agent=other, against=against.name))
    return apart


def finding(agent: str, case: Case, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> Finding:
    suspect = ranking.of(agent)
    kind = next((kind for kind in ranking.kinds if kind.agent == agent), None)
    best = kind if kind and (suspect is None or kind.probability > suspect.probability) else suspect
    bare = Finding(
        agent=agent,
        verdict=verdict.kind,
        probability=best.probability if best else 0.0,
        confirmed=bool(best and best.confirmed),
        activity=identify.activity(agent, case, catalogue=catalogue),
        next_look=looks[0].look if looks else "",
    )
    return with_signs(bare, case.signs, verdict.agents, {line.agent: line.kind for line in verdict.dangers}, catalogue)


def with_signs(
    finding: Finding, signs: Mapping[str, str], agents: Collection[str], dangers: Mapping[str, Says], catalogue: Catalogue
) -> Finding:
    """A finding with what the signs say to its call. agents: of its verdict; dangers: those that may hurt, each as it was said of."""
    seen = frozenset(sign for sign, state in signs.items() if state == SEEN)
    others = [member for agent in agents if agent != finding.agent for member in catalogue.kin(agent)]
    danger, sign = _unanswered(finding.agent, signs, dangers, catalogue)
    return replace(
        finding,
        seen=seen,
        shared=frozenset(sign for sign in seen if any(proofs.fits(agent, {sign: SEEN}) for agent in others)),
        absent=frozenset(sign for sign, state in signs.items() if state == ABSENT),
        stages=_stages_seen(signs, finding.agent, catalogue),
        danger=danger,
        danger_sign=sign,
    )


def settled(finding: Finding, answer: Answered, region: str, catalogue: Catalogue) -> Finding:
    """A finding after an answer from a clinic or an authority, which settles what it names and what was asked, and nothing else."""
    named, key_of = answer.named, catalogue.key_of
    if named and finding.agent in (named, key_of(named)):
        verdict = VerdictKind.MUST_BE_REPORTED if catalogue.agent(named).listed_in(region) else VerdictKind.NAMED
        return replace(finding, verdict=verdict, probability=judgement.ANSWERED, confirmed=True)
    if key_of(finding.agent) == key_of(answer.asked):
        return replace(finding, verdict=VerdictKind.CANNOT_TELL, probability=1 - judgement.ANSWERED, confirmed=False)
    return finding


def _unanswered(called: str, signs: Mapping[str, str], dangers: Mapping[str, Says], catalogue: Catalogue) -> tuple[str, str]:
    """What else is there that hurts, or may be by a usual sign while its proof was not looked for; that proof."""
    for agent_id, said in dangers.items():
        agent = catalogue.agent(agent_id)
        if said == Says.DANGER and agent.id != called:
            return agent.id, ""
        proof = next(iter(proofs.open_proofs([agent], signs)), "")
        if said == Says.DANGER_PERHAPS and proof and proofs.fits(agent, signs, proofs.MOSTLY):
            return agent.id, proof
    return "", ""


def _stages_seen(signs: Mapping[str, str], agent: str, catalogue: Catalogue) -> frozenset[str]:
    """The stages of an agent that were seen."""
    shown = {sign for member in catalogue.kin(agent) for sign in member.shows}
    seen = (catalogue.signs[sign].stage for sign, state in signs.items() if state == SEEN and sign in shown)
    return frozenset(stage for stage in seen if stage)


def _sample(agent: str, samples: Mapping[str, Sample], catalogue: Catalogue) -> Sample | None:
    """The count of an agent, or of another name of its kind."""
    kind = catalogue.kind_of(agent)
    like = (sample for name, sample in samples.items() if kind and catalogue.kind_of(name) == kind)
    return samples.get(agent) or next(like, None)
