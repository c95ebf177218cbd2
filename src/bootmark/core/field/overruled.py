"""What a person may call instead of what the rules say, and what no reason allows."""

from dataclasses import dataclass, replace

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue.model import REPORT, Catalogue
from bootmark.core.field.choices import choices
from bootmark.core.field.proofs import listed_kin
from bootmark.core.meanings import OVER, ControlKind, DecisionKind, Measure, VerdictKind
from bootmark.core.messages import Says
from bootmark.core.types import Choice, CropState, Decision, Finding, Policy, Sample, StageNow

LIFTED = frozenset({Says.CONTROL_COUNT_FIRST, Says.CONTROL_TOO_MANY})
"""What speaks against a control that a person may overrule: nobody is hurt, and no rule of others is broken."""
ALWAYS = (DecisionKind.LEAVE, DecisionKind.LOOK_AGAIN, DecisionKind.SEND_A_SAMPLE, DecisionKind.REFER)
"""Calls that touch nothing."""


@dataclass(frozen=True)
class Instead:
    """What may be called against the rules. kinds: calls without a control; controls: those that may be carried out all the same."""

    kinds: tuple[DecisionKind, ...]
    controls: tuple[Choice, ...]


def instead(
    finding: Finding,
    stage: StageNow,
    sample: Sample | None,
    crop: CropState,
    policy: Policy,
    decision: Decision,
    *,
    catalogue: Catalogue | None = None,
) -> Instead:
    """What a person may call against a decision, with a reason.

    A report is a duty and is not overruled. Nothing is done on an unproved name, against what does no harm, against what is over, on a held
    block, past a window, before an interval allows or in flower with what kills bees: these refusals stand whoever calls. What the farm's
    policy leaves out is changed under Farm and not at one stop.

    Source: common practice, no source.
    """
    entries = catalogue or catalogues.default()
    agent = entries.agent(finding.agent)
    if decision.kind == DecisionKind.REPORT:
        return Instead((), ())
    kinds = [kind for kind in ALWAYS if kind != decision.kind]
    plant = entries.crops.get(crop.crop)
    if plant:
        crop = replace(crop, habit=crop.habit or plant.habit, eaten=bool(plant.eaten), fed=plant.fed)
    if listed_kin(agent, crop.crop, crop.region, entries):
        kinds.append(DecisionKind.REPORT)
    if not agent.is_pest or not finding.confirmed or finding.verdict not in (VerdictKind.NAMED, VerdictKind.HELP_HAS_COME):
        return Instead(tuple(kinds), ())
    kinds += [kind for kind in (DecisionKind.HARVEST_FIRST,) if (crop.eaten or crop.fed) and kind != decision.kind]
    kinds += [kind for kind in (DecisionKind.SALVAGE,) if kind != decision.kind]
    if crop.on_hold:
        return Instead(tuple(kind for kind in kinds if kind in (*ALWAYS, DecisionKind.REPORT)), ())
    if finding.activity in OVER:
        return Instead(tuple(kinds), ())
    counted = sample is not None and bool(sample.counts) and sample.measure != Measure.TRAP
    offered = {choice.control for choice in decision.choices if choice.offered}
    extra = [
        replace(choice, offered=True)
        for choice in choices(agent, stage, crop, policy, finding, counted=counted)
        if choice.control not in offered and choice.control != REPORT and (choice.offered or choice.reason.kind in LIFTED)
    ]
    return Instead(tuple(kinds), tuple(extra))


def apart(agent: str, controls: tuple[str, ...], catalogue: Catalogue) -> tuple[str, str] | None:
    """Two controls that are not carried out together: one kills what the other brings, or both come out of a bottle; None where all do."""
    entry = catalogue.agent(agent)
    chosen = [entry.control(control) for control in controls]
    for place, first in enumerate(chosen):
        for second in chosen[place + 1 :]:
            kills = first.brings in second.harms or second.brings in first.harms
            bottles = first.sprayed and second.sprayed
            if kills or bottles:
                return first.id, second.id
    return None


def goes_along(kind: ControlKind) -> bool:
    """Whether a kind of control may stand beside another in one call: what comes out of a bottle is a call of its own."""
    return kind in (ControlKind.CULTURAL, ControlKind.PHYSICAL, ControlKind.LIVING)
