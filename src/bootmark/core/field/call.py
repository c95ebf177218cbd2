"""Does it matter, and do I act. The default is to leave it, and to say why."""

from collections.abc import Collection, Sequence
from dataclasses import replace

from bootmark.core import catalogue as catalogues
from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue, Control
from bootmark.core.field import stand, weighed
from bootmark.core.field.choices import as_grown, choices
from bootmark.core.field.count import interval
from bootmark.core.field.proofs import listed_kin
from bootmark.core.field.reasons import Reasons
from bootmark.core.meanings import CATCHES, Activity, Age, AgentKind, ControlKind, DecisionKind, SoldAs, VerdictKind
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.types import CropState, Decision, Done, Finding, Policy, Sample, StageNow, Threshold

LABEL_FIRST = says(Says.LABEL_FIRST)
LISTED = (ControlKind.LIVING, ControlKind.SOFT)
"""Kinds of control that a certifier lists."""


def economic_injury_level(
    control_cost: float, market_value: float, injury_per_pest: float, damage_per_injury: float, efficacy: float
) -> float:
    """Pests per unit at which the loss avoided pays for the control: EIL = C / (V I D K).

    Parameters
    ----------
    control_cost : C, money per area.
    market_value : V, money per unit of yield.
    injury_per_pest : I, injury per pest.
    damage_per_injury : D, yield lost per unit of injury.
    efficacy : K, share of injury avoided, above 0 and up to 1.

    Returns
    -------
    Pests per unit.

    Raises
    ------
    ValueError
        Where a value is not positive, or the efficacy is above 1.

    Source
    ------
    Stern et al. (1959); Pedigo, Hutchins and Higley (1986).

    Examples
    --------
    40 / (200 x 0.5 x 0.4 x 0.8).

    >>> economic_injury_level(40.0, 200.0, 0.5, 0.4, 0.8)
    1.25
    """
    if min(control_cost, market_value, injury_per_pest, damage_per_injury, efficacy) <= 0 or efficacy > 1:
        raise ValueError("every term must be above zero, and efficacy at most one")
    return control_cost / (market_value * injury_per_pest * damage_per_injury * efficacy)


def _reported(case: Reasons) -> Decision | None:
    if case.finding.verdict != VerdictKind.MUST_BE_REPORTED:
        return None
    case.speaks_for.append(case.of(Says.LISTED))
    return case.decide(DecisionKind.REPORT, case.of(Says.CALL_REPORT), 1, says(Says.FOR_ANSWER))


def _sampled(case: Reasons) -> Decision | None:
    """A sample is sent where no look in the field can prove it; the plant stays where it is, apart from others."""
    if case.finding.verdict != VerdictKind.SEND_A_SAMPLE:
        return None
    case.against.append(case.of(Says.NO_PROOF))
    case.change.append(case.of(Says.FOR_CLINIC))
    return case.decide(DecisionKind.SEND_A_SAMPLE, case.of(Says.CALL_SAMPLE), judgement.UNKNOWN_DAYS, says(Says.FOR_CLINIC))


def _not_a_target(case: Reasons, crop: CropState, policy: Policy, catalogue: Catalogue) -> Decision | None:
    agent, finding = case.agent, case.finding
    if agent.kind == AgentKind.BENEFICIAL:
        case.speaks_for += [case.of(Says.AGENT_SUMMARY), *[case.of(Says.AGENT_SAID_WRONGLY)] * bool(agent.said_wrongly)]
        case.change.append(says(Says.FEEDS_BESIDE))
        return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_HARMLESS), judgement.HARMLESS_LOOK_DAYS, says(Says.FOR_DAMAGE))
    if agent.kind == AgentKind.NORMAL:
        case.speaks_for.append(case.of(Says.AGENT_SUMMARY))
        case.change.append(says(Says.OTHER_CAUSE))
        return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_NORMAL), judgement.HARMLESS_LOOK_DAYS, says(Says.FOR_DAMAGE))
    if agent.kind in (AgentKind.DISEASE, AgentKind.DISORDER):
        case.speaks_for.append(case.of(Says.AGENT_SUMMARY))
        case.change.append(says(Says.OTHER_CAUSE))
        case.choices = tuple(
            choice
            for choice in choices(agent, StageNow(), crop, policy, finding)
            if agent.control(choice.control).kind in (ControlKind.CULTURAL, ControlKind.PHYSICAL)
        )
        act = next((agent.control(choice.control) for choice in case.choices if choice.offered), None)
        if crop.on_hold:
            return case.hold()
        if case.asks():
            return case.look_first(catalogue)
        if act is None:
            return case.decide(DecisionKind.REFER, case.of(Says.CALL_NONE_FITS), judgement.ADVISER_DAYS, says(Says.FOR_ADVISER))
        case.cautions += (LABEL_FIRST, *_cautions(agent, act, crop)) if agent.kind == AgentKind.DISEASE else (LABEL_FIRST,)
        headline = case.of(Says.CALL_CULTURAL, control=act.id, agent_kind=agent.kind)
        return case.decide(DecisionKind.CULTURAL_ACT, headline, act.look_again_days, _success(agent, act))
    return None


def _cautions(agent: Agent, control: Control, crop: CropState) -> tuple[Message, ...]:
    marks = (says(Says.CONTROL_MARKS, agent=agent.id, control=control.id),) if {crop.crop, crop.habit} & set(control.marks) else ()
    return (*marks, *(says(Says.CATALOGUE_CAUTION, caution=caution) for caution in control.cautions))


def _success(agent: Agent, control: Control) -> Message:
    return says(Says.FOR_SUCCESS, agent=agent.id, control=control.id)


PROVED = (VerdictKind.NAMED, VerdictKind.HELP_HAS_COME, VerdictKind.NOT_A_PEST, VerdictKind.NORMAL, VerdictKind.MUST_BE_REPORTED)


def _unproved(case: Reasons, catalogue: Catalogue) -> Decision | None:
    """Unproved comes first, for every kind of agent. A disorder leaves no animal to prove it: its verdict must do."""
    finding = case.finding
    if finding.verdict in PROVED and (finding.confirmed or case.agent.kind == AgentKind.DISORDER):
        return None
    case.against.append(case.of(Says.NO_PROOF))
    look = finding.next_look if finding.next_look in catalogue.looks else ""
    case.change.append(says(Says.TAKE_LOOK, look=look) if look else says(Says.LIVE_PROOF))
    look_for = says(Says.FOR_LOOK, look=look) if look else says(Says.FOR_LIVE)
    return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_UNPROVED), 1, look_for)


ENDED = {Activity.FINISHED: 1.0, Activity.DEAD: judgement.DEAD_SHARE, Activity.PARASITISED: judgement.PARASITISED_SHARE}
"""The share of the animals counted that must have gone so, for an attack to be over."""


def _past(case: Reasons, sample: Sample | None, crop: CropState) -> Decision | None:
    activity = case.finding.activity
    if activity in ENDED:
        alive = sum(sample.counts) if sample else 0
        ended = sample and (sample.parasitised if activity == Activity.PARASITISED else sample.dead)
        if alive and ended is None and activity != Activity.FINISHED:
            case.against.append(case.of(Says.FEW_ENDED, activity=activity))
            return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_ENDED, activity=activity), 1, says(Says.FOR_COUNT))
        if not alive or (ended or 0) >= ENDED[activity] * ((ended or 0) + alive):
            case.speaks_for.append(case.of(Says.OVER, activity=activity))
            case.change.append(says(Says.FRESH_SIGNS))
            return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_OVER), judgement.OVER_LOOK_DAYS, says(Says.FOR_FRESH))
    if sample is None or not sample.counts:
        return _cosmetic(case, crop)
    return None


def _cosmetic(case: Reasons, crop: CropState) -> Decision | None:
    if not case.agent.cosmetic:
        return None
    if crop.sold_as in (SoldAs.FRESH, SoldAs.LOOKS) and case.agent.sampling:
        case.against.append(says(Says.BLEMISH_REFUSED))
        return None
    case.speaks_for.append(says(Says.BLEMISH_TAKEN) if crop.sold_as else case.of(Says.COSMETIC))
    line = next((nominal for nominal in case.agent.thresholds if nominal.measure not in CATCHES), None)
    if line:
        case.change.append(case.of(Says.COSMETIC_BELOW, value=line.value, measure=line.measure, unit=line.unit))
    return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_COSMETIC), judgement.HARMLESS_LOOK_DAYS, says(Says.FOR_MORE_DAMAGE))


def in_hand(finding: Finding, agent: Agent, sample: Sample | None) -> Finding:
    """What was counted alive is there, in the stage that feeds or as its ages were told, whatever a model says."""
    if sample is None or not sum(sample.counts) or sample.measure in CATCHES:
        return finding
    return replace(finding, stages=finding.stages or _of_ages(agent, sample), large=_large(sample))


def _of_ages(agent: Agent, sample: Sample) -> frozenset[str]:
    """The stages of what was counted alive: where all were grown they are adults, anything else feeds."""
    return frozenset({"adult"} if sample.ages.get(Age.ADULTS) == sum(sample.counts) else agent.feeds[:1])


def _large(sample: Sample) -> float | None:
    """Which share of those that feed is large; None where too few were told apart."""
    small, large = sample.ages.get(Age.SMALL, 0), sample.ages.get(Age.LARGE, 0)
    return large / (small + large) if small + large >= judgement.AGES_LEAST else None


def decide(
    finding: Finding,
    stage: StageNow,
    sample: Sample | None,
    threshold: Threshold | None,
    enemies: float | None,
    crop: CropState,
    policy: Policy,
    *,
    catalogue: Catalogue | None = None,
    done: Sequence[Done] = (),
) -> Decision:
    """The call on one finding: one of types.DECISIONS, with reasons, choices and the look it books.

    Nothing is offered against a suspect that lacks a confirming sign. A count is held against the
    threshold by a rule whose errors were simulated, never below ten units; picked units decide nothing.

    Parameters
    ----------
    finding : what was named, how likely, and whether a sign confirmed it.
    stage : what is there today, by model or sighting.
    sample : what was counted; None where nothing has been.
    threshold : in the unit and measure of the sample; None where none is known.
    enemies : natural enemies for each pest; None to take them from the sample.
    crop : its stage, days to harvest, flowers.
    policy : order of kinds of control, and what the farm refuses.
    catalogue : the shipped one where None.
    done : what was carried out against it on this ground; while that can't be judged yet, nothing more is done.

    Returns
    -------
    Decision

    Source
    ------
    Design of the confirming look and of leaving as the default: common practice, no source; nominal
    thresholds as the catalogue gives them.
    """
    entries = catalogue or catalogues.default()
    agent = entries.agent(finding.agent)
    crop = as_grown(crop, entries)
    finding = in_hand(finding, agent, sample)
    case = Reasons(agent, finding)
    if listed_kin(agent, crop.crop, crop.region, entries):
        case.cautions += (says(Says.KEPT_UNMOVED),)
    early = _reported(case) or _sampled(case) or _unproved(case, entries)
    early = early or _not_a_target(case, crop, policy, entries) or _past(case, sample, crop)
    if early:
        return early
    case.speaks_for.append(case.of(Says.CONFIRMED_ACTIVE if finding.activity == Activity.ACTIVE else Says.CONFIRMED))
    early = stand.ripe(case, crop)
    if early:
        return early
    if stand.leaves_lost(case, crop):
        return _working(case, stage, done) or _act(case, stage, crop, policy, finding)
    if agent.sampling is None:
        return _working(case, stage, done) or _act(case, stage, crop, policy, finding)
    if sample is None or not sample.counts:
        case.change.append(says(Says.NEEDS_COUNT))
        case.choices = choices(agent, stage, crop, policy, finding, counted=False)
        headline = case.of(Says.CALL_COUNT, plan=agent.sampling.plan if agent.sampling else "")
        return case.decide(DecisionKind.LOOK_AGAIN, headline, 1, says(Says.FOR_COUNT))
    wanted = threshold or agent.threshold(crop.crop, sample.measure)
    if wanted is None or wanted.measure != sample.measure:
        left = _cosmetic(case, crop)
        if left:
            return left
        case.change.append(says(Says.NEEDS_THRESHOLD))
        return case.decide(DecisionKind.REFER, case.of(Says.CALL_NO_THRESHOLD), judgement.LEAVE_LOOK_DAYS, says(Says.FOR_COUNT_AGAIN))
    early = weighed.counted(case, stage, sample, wanted, enemies) or _working(case, stage, done)
    return early or _act(case, stage, crop, policy, finding, interval(sample).estimate / wanted.value if wanted.value else None)


def _working(case: Reasons, stage: StageNow, done: Sequence[Done]) -> Decision | None:
    """What was done and can't be judged yet is waited for: the same again an hour later says nothing, and adds to what the label counts."""
    last = max((row for row in done if row.agent == case.agent.id), key=lambda row: row.judged_from, default=None)
    if last is None or stage.today is None or stage.today >= last.judged_from:
        return None
    facts: dict[str, Fact] = {"control": last.control, "on": last.on, "judged": last.judged_from}
    case.against.append(case.of(Says.DONE_ALREADY, **facts))
    case.change.append(says(Says.FRESH_SIGNS))
    days = (last.judged_from - stage.today).days
    return case.decide(
        DecisionKind.LOOK_AGAIN, case.of(Says.CALL_WORKING, **facts), days, _success(case.agent, case.agent.control(last.control))
    )


def _act(case: Reasons, stage: StageNow, crop: CropState, policy: Policy, finding: Finding, times: float | None = None) -> Decision:
    agent = case.agent
    case.choices = choices(agent, stage, crop, policy, finding, times=times)
    offered = [choice for choice in case.choices if choice.offered]
    cautions = (caution for choice in offered for caution in _cautions(agent, agent.control(choice.control), crop))
    listed = (says(Says.CERTIFIER),) if policy.certified and any(agent.control(choice.control).kind in LISTED for choice in offered) else ()
    case.cautions += (LABEL_FIRST, *stand.cautions(crop), *listed, *dict.fromkeys(cautions))
    today = stage.today
    window = stage.windows.get(offered[0].control, stage.window) if offered else stage.window
    spans = [*stage.windows.values()] or [stage.window] if stage.window else []
    closed = [span for span in spans if span and today and span[1] < today]
    # Animals in the hand that feed no more are no reason to act late, however fresh the damage.
    in_hand = bool(finding.stages & set(agent.feeds)) if finding.stages else finding.activity == Activity.ACTIVE
    all_late = bool(case.choices) and all(choice.reason.kind == Says.CONTROL_LATE for choice in case.choices)
    if closed and len(closed) == len(spans) and (all_late or not in_hand):
        last = max(span[1] for span in closed)
        case.against.append(says(Says.STAGE_OVER, on=last))
        case.change.append(says(Says.YOUNG_AGAIN))
        return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_LATE), judgement.OVER_LOOK_DAYS, says(Says.FOR_GENERATION))
    if crop.on_hold:
        return case.hold()
    if not offered:
        return _none_fits(case, crop, policy)
    licensed = all(agent.control(choice.control).kind == ControlKind.CONVENTIONAL for choice in offered)
    given_up = stand.given_up(case, crop) if licensed else None
    if given_up:
        return given_up
    first = agent.control(offered[0].control)
    case.change.append(says(Says.LESS_PRESSING))
    kind = act_kind(first, stage, finding.stages)
    if kind == DecisionKind.ACT_IN_WINDOW and window and today:
        days = (window[0] - today).days
        headline = case.of(Says.CALL_WINDOW, control=first.id, first=window[0], last=window[1])
        return case.decide(kind, headline, days, says(Says.FOR_WINDOW))
    headline = case.of(Says.CALL_NOW_ADVISED if policy.order is None else Says.CALL_NOW, control=first.id, choices=len(offered))
    return case.decide(kind, headline, first.look_again_days, _success(agent, first))


def _none_fits(case: Reasons, crop: CropState, policy: Policy) -> Decision:
    """What is called where no control is on offer, each with why."""
    case.against += [case.of(Says.CONTROL_BLOCKED, control=choice.control, reason=choice.reason) for choice in case.choices]
    if any(choice.reason.kind == Says.CONTROL_HARVEST_UNKNOWN for choice in case.choices):
        return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_ASK_HARVEST), 1, says(Says.FOR_HARVEST))
    if crop.days_to_harvest is not None and crop.days_to_harvest <= judgement.HARVEST_NEAR_DAYS:
        return case.decide(DecisionKind.HARVEST_FIRST, case.of(Says.CALL_HARVEST), max(1, crop.days_to_harvest), says(Says.FOR_LEFT))
    if policy.to_nature:
        return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_NATURE), judgement.LEAVE_LOOK_DAYS, says(Says.FOR_COUNT_AGAIN))
    early = stand.out_of_reach(case, crop) or stand.given_up(case, crop)
    return early or case.decide(DecisionKind.REFER, case.of(Says.CALL_NONE_FITS), judgement.ADVISER_DAYS, says(Says.FOR_ADVISER))


def act_kind(control: Control, stage: StageNow, seen: Collection[str] = ()) -> DecisionKind:
    """Which of types.ACTING a control is, at the stage that the population is in. seen: stages in hand, for which nothing waits."""
    window = stage.windows.get(control.id, stage.window)
    if window and stage.today and window[0] > stage.today and set(control.stages).isdisjoint(seen):
        return DecisionKind.ACT_IN_WINDOW
    if control.kind == ControlKind.LIVING and "sprayer" not in control.tools:
        return DecisionKind.RELEASE
    return DecisionKind.CULTURAL_ACT if control.kind == ControlKind.CULTURAL else DecisionKind.ACT_NOW


def on_spot(kind: DecisionKind) -> DecisionKind:
    """What a call is that is for a part of a block alone: what waits for its days, or is let out, stays what it is."""
    return DecisionKind.SPOT_TREAT if kind == DecisionKind.ACT_NOW else kind
