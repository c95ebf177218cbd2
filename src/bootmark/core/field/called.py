"""The call on each agent of a verdict, with the finding that it rests on."""

from collections.abc import Mapping

from bootmark.core.catalogue.model import Catalogue
from bootmark.core.field import call, identify
from bootmark.core.messages import Says
from bootmark.core.types import ABSENT, SEEN, Case, CropState, Decision, Finding, NextLook, Policy, Ranking, Sample, StageNow, Verdict


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


def finding(agent: str, case: Case, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> Finding:
    suspect = ranking.of(agent)
    kind = next((kind for kind in ranking.kinds if kind.agent == agent), None)
    best = kind if kind and (suspect is None or kind.probability > suspect.probability) else suspect
    return Finding(
        agent=agent,
        verdict=verdict.kind,
        probability=best.probability if best else 0.0,
        confirmed=bool(best and best.confirmed),
        activity=identify.activity(agent, case, catalogue=catalogue),
        next_look=looks[0].look if looks else "",
        seen=frozenset(sign for sign, state in case.signs.items() if state == SEEN),
        absent=frozenset(sign for sign, state in case.signs.items() if state == ABSENT),
        danger=next((str(line.agent) for line in verdict.dangers if line.kind == Says.DANGER_PERHAPS), ""),
    )


def _sample(agent: str, samples: Mapping[str, Sample], catalogue: Catalogue) -> Sample | None:
    """The count of an agent, or of another name of its kind."""
    kind = catalogue.kind_of(agent)
    like = (sample for name, sample in samples.items() if kind and catalogue.kind_of(name) == kind)
    return samples.get(agent) or next(like, None)
