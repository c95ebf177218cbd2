"""What a person may call instead of what the rules say, and what no reason allows."""

from dataclasses import dataclass, replace

from bootmark.core import catalogue as catalogues
from bootmark.core import judgement
from bootmark.core.catalogue.model import REPORT, Catalogue
from bootmark.core.field.call import in_hand
from bootmark.core.field.choices import as_grown, choices, spoils
from bootmark.core.field.proofs import listed_kin
from bootmark.core.meanings import CATCHES, OVER, DecisionKind, VerdictKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import Choice, CropState, Decision, Finding, Policy, Sample, StageNow

LIFTED = frozenset({Says.CONTROL_COUNT_FIRST, Says.CONTROL_TOO_MANY})
"""What speaks against a control that a person may overrule: nobody is hurt, and no rule of others is broken."""
ALWAYS = (DecisionKind.LEAVE, DecisionKind.LOOK_AGAIN, DecisionKind.SEND_A_SAMPLE, DecisionKind.REFER)
"""Calls that touch nothing."""


@dataclass(frozen=True)
class Otherwise:
    """A call without a control that may be made against the rules, and the look that it books."""

    kind: DecisionKind
    look_again_days: int
    look_again_for: Message

    @property
    def headline(self) -> Message:
        return says(Says.CALL_LEFT) if self.kind == DecisionKind.LEAVE else says(Says.CALL_INSTEAD, decision_kind=self.kind)

    @property
    def follows(self) -> Message:
        """What comes of it."""
        return says(Says.FOLLOWS_INSTEAD, decision_kind=self.kind, days=self.look_again_days)


@dataclass(frozen=True)
class Instead:
    """What may be called against the rules. calls: those without a control; controls: those that may be carried out all the same, each with
    what speaks against it."""

    calls: tuple[Otherwise, ...]
    controls: tuple[Choice, ...]

    def of(self, kind: str) -> Otherwise | None:
        return next((otherwise for otherwise in self.calls if otherwise.kind == kind), None)


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
    crop = as_grown(crop, entries)
    kinds = list(ALWAYS)
    if listed_kin(agent, crop.crop, crop.region, entries):
        kinds.append(DecisionKind.REPORT)
    proved = agent.is_pest and finding.confirmed and finding.verdict in (VerdictKind.NAMED, VerdictKind.HELP_HAS_COME)
    if proved and not crop.on_hold:
        kinds += [DecisionKind.HARVEST_FIRST] * bool(crop.eaten or crop.fed)
        kinds.append(DecisionKind.SALVAGE)
    calls = tuple(_otherwise(kind, crop) for kind in kinds if kind != decision.kind)
    if not proved or crop.on_hold or finding.activity in OVER:
        return Instead(calls, ())
    refused = {choice.control: choice.reason for choice in decision.choices if not choice.offered}
    if decision.choices and not any(reason.kind in LIFTED for reason in refused.values()):
        return Instead(calls, ())
    taken = {choice.control for choice in decision.choices if choice.offered}
    taken |= {control for control, reason in refused.items() if reason.kind not in LIFTED} | {REPORT}
    # As if it were counted, and few enough: whatever else speaks against a control is said now.
    lifted = choices(agent, stage, crop, policy, in_hand(finding, agent, sample))
    counted = sample is not None and bool(sample.counts) and sample.measure not in CATCHES
    uncounted = {control.id for control in agent.controls if not counted and not control.unsprayed}
    controls = []
    for choice in lifted:
        if choice.offered and choice.control not in taken:
            bare = says(Says.CONTROL_COUNT_FIRST) if choice.control in uncounted else choice.reason
            controls.append(replace(choice, reason=refused.get(choice.control, bare)))
    return Instead(calls, tuple(controls))


def _otherwise(kind: DecisionKind, crop: CropState) -> Otherwise:
    """A call with the look that it books."""
    days, look_for = {
        DecisionKind.SEND_A_SAMPLE: (judgement.UNKNOWN_DAYS, Says.FOR_CLINIC),
        DecisionKind.REFER: (judgement.ADVISER_DAYS, Says.FOR_ADVISER),
        DecisionKind.REPORT: (1, Says.FOR_ANSWER),
        DecisionKind.HARVEST_FIRST: (max(1, crop.days_to_harvest or judgement.INSTEAD_LOOK_DAYS), Says.FOR_LEFT),
        DecisionKind.SALVAGE: (judgement.LEAVE_LOOK_DAYS, Says.FOR_NEW_PLANTS),
    }.get(kind, (judgement.INSTEAD_LOOK_DAYS, Says.FOR_COUNT_AGAIN))
    return Otherwise(kind, days, says(look_for))


def apart(agent: str, controls: tuple[str, ...], catalogue: Catalogue) -> tuple[str, str] | None:
    """The first two controls that are not carried out together: one spoils the other, or both are sprayed; None where all go together."""
    entry = catalogue.agent(agent)
    chosen = [entry.control(control) for control in controls]
    for place, first in enumerate(chosen):
        for second in chosen[place + 1 :]:
            if spoils(first, second) or spoils(second, first) or (first.sprayed and second.sprayed):
                return first.id, second.id
    return None
