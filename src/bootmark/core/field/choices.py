"""Which controls of an agent are on offer, in which order, and why not the others."""

from dataclasses import dataclass, replace

from bootmark.core import judgement
from bootmark.core.catalogue.model import REPORT, Agent, Catalogue, Control, turned
from bootmark.core.field import harvest, proofs
from bootmark.core.meanings import UNSPRAYED, Activity, AgentKind, ControlKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import Choice, CropState, Finding, Policy, StageNow

OILS, SULFUR = ("summer-oil", "dormant-oil"), "sulfur"
HIGH = ("tree", "conifer", "palm")
"""Habits of plants that grow higher than a sprayer reaches."""


@dataclass(frozen=True)
class _At:
    """What a control is held against."""

    agent: Agent
    stage: StageNow
    crop: CropState
    policy: Policy
    finding: Finding | None
    counted: bool
    times: float | None

    def refusal(self, control: Control) -> Message | None:
        """Why it is not on offer: of the farm and the place first, then of what is there, then of the crop; None where it is."""
        return self._of_farm(control) or self._of_what_is_there(control) or self._of_crop(control)

    def _of_farm(self, control: Control) -> Message | None:
        month = self.stage.today.month if self.stage.today else self.crop.month
        if self.crop.on_hold and control.id != REPORT:
            return says(Says.CONTROL_HELD)
        # To report what is listed here is the law's, whatever a farm likes.
        is_duty = control.id == REPORT and self.agent.listed_in(self.crop.region)
        if not is_duty and not self.policy.uses(control.kind):
            return says(Says.CONTROL_REFUSED, control_kind=control.kind)
        if control.id == REPORT and self.crop.region and not self.agent.listed_in(self.crop.region):
            return says(Says.CONTROL_NOT_LISTED)
        if self.crop.habit in control.not_on:
            return says(Says.CONTROL_NOT_ON, habit=self.crop.habit)
        closed = control.closed.get(self.crop.crop) or control.closed.get(self.crop.habit)
        if closed and month and month in turned(closed.months, self.crop.hemisphere):
            return says(Says.CONTROL_CLOSED, why=closed.why)
        if control.months and month and month not in turned(control.months, self.crop.hemisphere):
            return says(Says.CONTROL_SEASON)
        return None

    def _of_what_is_there(self, control: Control) -> Message | None:
        finding, own = self.finding, self.stage.windows.get(control.id)
        modelled = {name for name, share in self.stage.shares.items() if share >= judgement.PRESENT_SHARE}
        seen = finding.stages if finding else frozenset()
        # A model ranks and warns; it denies no animal in the hand.
        present, in_hand = modelled | seen if modelled else set(), bool(seen & set(control.stages))
        # What a part of a stage decides (small larvae, those that hatch) is not told by the stage that was seen.
        large = finding.large if finding else None
        young_in_hand = control.small and large is not None and large <= judgement.LARGE_SHARE
        in_hand = in_hand and (young_in_hand or not (control.phases or control.at_events))
        refused = self._of_signs(control, finding) if finding else None
        if refused:
            return refused
        animal = self.agent.kind in (AgentKind.INSECT, AgentKind.MITE)
        if control.keeps_out and finding and finding.activity == Activity.ACTIVE and animal:
            return says(Says.CONTROL_INSIDE)
        if not self.counted and not control.unsprayed:
            return says(Says.CONTROL_COUNT_FIRST)
        if control.brings and self.times is not None and self.times > judgement.RELEASE_MOST:
            return says(Says.CONTROL_TOO_MANY, times=judgement.RELEASE_MOST)
        if control.small and large is not None and large > judgement.LARGE_SHARE:
            return says(Says.CONTROL_LARGE, share=large)
        if own and self.stage.today and own[1] < self.stage.today and not in_hand:
            return says(Says.CONTROL_LATE, on=own[1])
        if not own and present and control.stages and not present & set(control.stages):
            return says(Says.CONTROL_OTHER_STAGE, stages=control.stages)
        return None

    def _of_signs(self, control: Control, finding: Finding) -> Message | None:
        """Signs beside which it does harm, that it needs, and what else may be there."""
        beside = next((sign for sign in (*control.not_with, *control.needs_absent) if sign in finding.seen), "")
        if beside:
            return says(Says.CONTROL_BESIDE, sign=beside)
        lacking = next((sign for sign in control.needs if sign not in finding.seen), "")
        if lacking:
            return says(Says.CONTROL_LACKS if lacking in finding.absent else Says.CONTROL_ASK, sign=lacking)
        unasked = next((sign for sign in control.needs_absent if sign not in finding.absent), "")
        if unasked:
            return says(Says.CONTROL_ASK, sign=unasked)
        if control.by_hand and finding.danger and finding.danger != self.agent.id:
            return says(Says.CONTROL_DANGER, agent=finding.danger, sign=finding.danger_sign)
        # One answer may be wrong: what another cause leaves as well is no second word for this one.
        own = {sign: shows for sign, shows in self.agent.shows.items() if sign in finding.seen - finding.shared}
        fits = sum(shows.confirms or shows.often in proofs.MOSTLY for shows in own.values())
        return says(Says.CONTROL_FINAL) if control.final and fits < judgement.FINAL_SIGNS else None

    def _of_crop(self, control: Control) -> Message | None:
        crop = self.crop
        # Who tells a harvest has something that is eaten, whatever the catalogue knows of the plant.
        eaten = crop.eaten or (crop.days_to_harvest is not None and not crop.fed)
        if control.sprayed:
            wanted, labelled = harvest.wanted_days(control, eaten, crop.fed), harvest.intervals_known(control, eaten, crop.fed)
            if crop.days_to_harvest is None and wanted and labelled:
                return says(Says.CONTROL_HARVEST_UNKNOWN, wanted=wanted)
            if crop.days_to_harvest is not None and crop.days_to_harvest < wanted:
                return says(Says.CONTROL_HARVEST if labelled else Says.CONTROL_INTERVAL, days=crop.days_to_harvest, wanted=wanted)
        if crop.in_flower and "bees" in control.harms:
            return says(Says.CONTROL_BEES)
        return self._of_height(control) or self._of_disruption(control)

    def _of_disruption(self, control: Control) -> Message | None:
        """Dispensers hang before the first flight, and on a block that is large enough: pairs come in from beside a small one."""
        if not control.disrupts:
            return None
        if self.crop.area is not None and self.crop.area < judgement.DISRUPTED_HECTARES:
            return says(Says.CONTROL_TOO_SMALL, area=self.crop.area, least=judgement.DISRUPTED_HECTARES)
        seen = self.finding.stages if self.finding else frozenset()
        flies = self.stage.shares.get("adult", 0.0) >= judgement.PRESENT_SHARE or "adult" in seen
        return says(Says.CONTROL_FLIES) if flies else None

    def _of_height(self, control: Control) -> Message | None:
        """A spray goes no higher than the highest sprayer; what nobody told is asked for where it may matter."""
        crop = self.crop
        if crop.height is not None and control.up_by_hand and not control.by_sprayer:
            return says(Says.CONTROL_TOO_HIGH_BY_HAND, height=crop.height) if crop.height > judgement.HAND_METRES else None
        if not control.by_sprayer:
            return None
        if crop.height is None:
            return says(Says.CONTROL_ASK_HEIGHT) if crop.reach is not None and crop.habit in HIGH else None
        if crop.reach is None:
            return says(Says.CONTROL_ASK_REACH, height=crop.height) if crop.height >= judgement.TALL_METRES else None
        return says(Says.CONTROL_TOO_HIGH, height=crop.height, reach=crop.reach) if crop.height > crop.reach else None


def as_grown(crop: CropState, catalogue: Catalogue) -> CropState:
    """The crop with what the catalogue knows of its plant: how it grows, and whether it is eaten or fed."""
    plant = catalogue.crops.get(crop.crop)
    return replace(crop, habit=crop.habit or plant.habit, eaten=bool(plant.eaten), fed=plant.fed) if plant else crop


def spoils(control: Control, beside: Control) -> bool:
    """Whether one control is not carried out beside another: that kills what it lets out, or oil and sulfur burn leaves together."""
    return control.brings in beside.harms or (control.id in OILS and beside.id == SULFUR)


def timing(agent: Agent, control: Control) -> Message:
    return says(Says.CONTROL_TIMING, agent=agent.id, control=control.id)


def choices(
    agent: Agent,
    stage: StageNow,
    crop: CropState,
    policy: Policy,
    finding: Finding | None = None,
    *,
    counted: bool = True,
    times: float | None = None,
) -> tuple[Choice, ...]:
    """Every control of an agent in the order of the farm's policy, offered or not, each with its reason.

    Where the farm has no order of its own, what is not sprayed stands in the catalogue's order, as an adviser would say it. Reporting
    comes first where the agent is listed, and last where that is not known. counted: whether a count has been made, without which
    nothing is sprayed; times: how many times the threshold were counted, None where nobody knows.
    """
    at = _At(agent, stage, crop, policy, finding, counted, times)
    rank = {kind: place for place, kind in enumerate(ControlKind if policy.order is None else policy.order)}
    if policy.order is None:
        rank |= dict.fromkeys(UNSPRAYED, 0)
    report = -1 if agent.listed_in(crop.region) else len(rank) + 1

    def place(control: Control) -> int:
        return report if control.id == REPORT else rank.get(control.kind, len(rank))

    offers = []
    for control in sorted(agent.controls, key=place):
        refusal = at.refusal(control)
        offers.append(Choice(control.id, refusal is None, refusal or timing(agent, control)))
    return tuple(offers)
