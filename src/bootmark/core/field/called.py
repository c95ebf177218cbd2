"""The call on each agent of a verdict, with the finding that it rests on."""

from collections.abc import Mapping

from bootmark.core.catalogue.model import Catalogue
from bootmark.core.field import call, identify
from bootmark.core.field.choices import MOSTLY
from bootmark.core.meanings import ControlKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import ABSENT, SEEN, Case, CropState, Decision, Finding, NextLook, Policy, Ranking, Sample, StageNow, Verdict

OILS, SULFUR = ("summer-oil", "dormant-oil"), "sulfur"


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
            if other == agent:
                continue
            kills = control.kind == ControlKind.LIVING and not {"predators", "predatory mites", "parasitoids"}.isdisjoint(against.harms)
            burns = control.id in OILS and against.id == SULFUR
            if kills or burns:
                apart.append(says(Says.KEEP_APART, agent=agent, control=control.id, other_agent=other, against=against.name))
    return apart


def finding(agent: str, case: Case, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> Finding:
    suspect = ranking.of(agent)
    kind = next((kind for kind in ranking.kinds if kind.agent == agent), None)
    best = kind if kind and (suspect is None or kind.probability > suspect.probability) else suspect
    danger, sign = _unanswered(agent, verdict, case, catalogue)
    return Finding(
        agent=agent,
        verdict=verdict.kind,
        probability=best.probability if best else 0.0,
        confirmed=bool(best and best.confirmed),
        activity=identify.activity(agent, case, catalogue=catalogue),
        next_look=looks[0].look if looks else "",
        seen=frozenset(sign for sign, state in case.signs.items() if state == SEEN),
        absent=frozenset(sign for sign, state in case.signs.items() if state == ABSENT),
        stages=stages_seen(case.signs, agent, catalogue),
        danger=danger,
        danger_sign=sign,
    )


def _unanswered(called: str, verdict: Verdict, case: Case, catalogue: Catalogue) -> tuple[str, str]:
    """What else is there that hurts, or may be by a usual sign while its proof was not looked for; that proof."""
    for line in verdict.dangers:
        agent = catalogue.agent(line.agent)
        if line.kind == Says.DANGER and agent.id != called:
            return agent.id, ""
        fits = any(case.signs.get(sign) == SEEN and shows.often in MOSTLY for sign, shows in agent.shows.items())
        proof = next((sign for sign, shows in agent.shows.items() if shows.confirms and sign not in case.signs), "")
        if line.kind == Says.DANGER_PERHAPS and fits and proof:
            return agent.id, proof
    return "", ""


def stages_seen(signs: Mapping[str, str], agent: str, catalogue: Catalogue) -> frozenset[str]:
    """The stages of an agent that were seen."""
    kin = (catalogue.agent(agent), *catalogue.members(agent))
    shown = {sign for member in kin for sign in member.shows}
    seen = (catalogue.signs[sign].stage for sign, state in signs.items() if state == SEEN and sign in shown)
    return frozenset(stage for stage in seen if stage)


def _sample(agent: str, samples: Mapping[str, Sample], catalogue: Catalogue) -> Sample | None:
    """The count of an agent, or of another name of its kind."""
    kind = catalogue.kind_of(agent)
    like = (sample for name, sample in samples.items() if kind and catalogue.kind_of(name) == kind)
    return samples.get(agent) or next(like, None)
