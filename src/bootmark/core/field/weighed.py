"""What a count says of a pest that is confirmed: too few, too close, too little counted, held by its enemies, or that it matters."""

import math
from dataclasses import replace

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent
from bootmark.core.field import stopping
from bootmark.core.field.count import enemy_ratio, interval, ratio_limits, wilson
from bootmark.core.field.reasons import Reasons
from bootmark.core.field.stopping import Rule, Word
from bootmark.core.meanings import CATCHES, Chosen, DecisionKind, LimitMethod, Measure, OffPlan, Side
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.types import Decision, Interval, Sample, StageNow, Threshold


def counted(case: Reasons, stage: StageNow, sample: Sample, wanted: Threshold, enemies: float | None) -> Decision | None:
    """The call where a count alone makes it; None where it is above the threshold and nothing holds it."""
    if sample.chosen == Chosen.PICKED:
        return _picked(case)
    if sample.off:
        return _off_plan(case, sample.off)
    rule, word = against(case.agent, sample, wanted.value)
    tally, line = _tally(sample, wanted, rule), _line(wanted)
    if sample.chosen == Chosen.PLAN and rule and len(sample.counts) < rule.least:
        return _too_few_units(case, stage, tally, len(sample.counts), rule.least)
    if word.ended:
        case.against.append(says(Says.PLAN_ENDED))
    if sample.measure in CATCHES and word.side == Side.BELOW and case.agent.sampling:
        return _few_in_traps(case, tally)
    if word.side == Side.BELOW:
        case.grows(stage)
        case.speaks_for = [tally, line]
        case.change.append(says(Says.MORE_NEXT_TIME, value=wanted.value, measure=wanted.measure))
        days = _soon(stage, judgement.CLOSE_LOOK_DAYS if word.ended else judgement.LEAVE_LOOK_DAYS)
        return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_FEW), days, says(Says.FOR_COUNT_AGAIN))
    if word.side == Side.BETWEEN:
        case.speaks_for.append(tally)
        case.against.append(says(Says.THRESHOLD_WITHIN, **line.facts))
        case.grows(stage)
        case.change.append(says(Says.MORE_UNITS))
        days = _soon(stage, judgement.CLOSE_LOOK_DAYS)
        headline = case.of(Says.CALL_CLOSE, days=days)
        return _held(case, sample, wanted, enemies) or case.decide(DecisionKind.LOOK_AGAIN, headline, days, says(Says.FOR_LARGER_COUNT))
    case.speaks_for += [tally, line]
    return _held(case, sample, wanted, enemies)


def _tally(sample: Sample, wanted: Threshold, rule: Rule | None) -> Message:
    estimate = limits(sample, rule)
    if sample.measure in CATCHES:
        return says(Says.CAUGHT, measure=sample.measure, unit=wanted.unit, estimate=estimate.estimate, units=estimate.units)
    facts: dict[str, Fact] = {"estimate": estimate.estimate, "low": estimate.low, "high": estimate.high, "units": estimate.units}
    if estimate.method == LimitMethod.ALL_COUNTED:
        return says(Says.COUNTED_ALL, measure=sample.measure, unit=wanted.unit, **facts)
    return says(Says.COUNTED, measure=sample.measure, unit=wanted.unit, **facts)


def _line(wanted: Threshold) -> Message:
    return says(Says.THRESHOLD, value=wanted.value, measure=wanted.measure, unit=wanted.unit, source=wanted.source)


def _picked(case: Reasons) -> Decision:
    case.against.append(says(Says.PICKED_BAD))
    case.change.append(says(Says.BY_PLAN))
    return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_PICKED), 1, says(Says.FOR_COUNT))


def _off_plan(case: Reasons, off: OffPlan) -> Decision:
    case.against.append(says(Says.OFF_PLAN, off=off))
    case.change.append(says(Says.BY_PLAN))
    plan = case.agent.sampling.plan if case.agent.sampling else ""
    return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_COUNT, plan=plan), 1, says(Says.FOR_COUNT))


def _few_in_traps(case: Reasons, tally: Message) -> Decision:
    """Few in traps do not say that there are few on the plants: these are counted."""
    assert case.agent.sampling
    case.speaks_for.append(tally)
    case.change.append(says(Says.NEEDS_COUNT))
    headline = case.of(Says.CALL_COUNT, plan=case.agent.sampling.plan)
    return case.decide(DecisionKind.LOOK_AGAIN, headline, 1, says(Says.FOR_COUNT))


def _too_few_units(case: Reasons, stage: StageNow, tally: Message, units: int, least: int) -> Decision:
    case.speaks_for.append(tally)
    case.change.append(says(Says.MORE_UNITS))
    days = _soon(stage, judgement.CLOSE_LOOK_DAYS)
    return case.decide(DecisionKind.LOOK_AGAIN, case.of(Says.CALL_UNITS, units=units, least=least), days, says(Says.FOR_LARGER_COUNT))


def limits(sample: Sample, rule: Rule | None) -> Interval:
    """What a sample says of its block, with limits. rule: by which it is held against a threshold, None where nothing is.

    Units of one plant are like each other: a share has wider limits then. Where every unit had none, a pest that lies in clumps may have
    been missed more easily than the plain limit says.
    """
    estimate = interval(sample)
    if rule and estimate.method == LimitMethod.WILSON and rule.alike > 1:
        low, high = wilson(estimate.estimate * estimate.units / rule.alike, estimate.units / rule.alike, estimate.level)
        return replace(estimate, low=low, high=high)
    if rule is None or estimate.method != LimitMethod.POISSON_NONE or math.isinf(rule.clumping):
        return estimate
    return replace(estimate, high=stopping.none_seen(rule, estimate.units, estimate.level), method=LimitMethod.CLUMPED_NONE)


def against(agent: Agent, sample: Sample, threshold: float) -> tuple[Rule | None, Word]:
    """What a count says against a threshold, and the rule by which it says so; none for traps, whose catch is no sample of others."""
    if sample.measure in CATCHES or threshold <= 0:
        average = sum(sample.counts) / len(sample.counts)
        return None, Word(Side.ABOVE if average >= threshold and average > 0 else Side.BELOW)
    plan = agent.sampling
    taylor, units, per = (plan.taylor, plan.units, plan.per) if plan and plan.measure == sample.measure else (None, 0, 1)
    rule = stopping.rule(threshold, sample.measure, taylor, units, per)
    return rule, stopping.of_sample(rule, sample)


def _held(case: Reasons, sample: Sample, wanted: Threshold, enemies: float | None) -> Decision | None:
    """Whether natural enemies are enough to hold back: never on a handful of animals, nor far above the threshold.

    It is the lower limit of their ratio that must be enough, and a ratio takes pests that were counted, not plants that had some.
    """
    held = case.agent.enemies[0] if case.agent.enemies else None
    if held is None or sample.measure != Measure.MEAN:
        return None
    ratio = enemies if enemies is not None else enemy_ratio(sample)
    if ratio is None:
        case.change.append(says(Says.HELP_UNCOUNTED, enemies=held.name))
        return None
    units, animals = len(sample.counts), sum(sample.counts) + sum(sample.enemies)
    if units < judgement.LEAST_UNITS or animals < judgement.LEAST_ANIMALS:
        least: dict[str, Fact] = {"least_units": judgement.LEAST_UNITS, "least_animals": judgement.LEAST_ANIMALS}
        case.change.append(says(Says.HELP_TOO_FEW, enemies=held.name, animals=animals, units=units, **least))
        return None
    low = enemies if enemies is not None else ratio_limits(sample)[0]
    facts: dict[str, Fact] = {"enemies": held.name, "ratio": ratio, "wanted": held.ratio, "only": "yes" if math.isinf(ratio) else "no"}
    if low < held.ratio <= ratio:
        case.change.append(says(Says.HELP_UNSURE, **facts))
        return None
    if ratio < held.ratio:
        case.against.append(says(Says.HELP_LACKS, **facts))
        return None
    if sum(sample.counts) / units > judgement.MOST_HELD * wanted.value:
        case.against.append(says(Says.HELP_TOO_LATE, times=judgement.MOST_HELD, **facts))
        return None
    case.speaks_for.append(says(Says.HELP_ENOUGH, **facts))
    case.change.append(says(Says.HELP_FEWER, wanted=held.ratio))
    return case.decide(DecisionKind.LEAVE, case.of(Says.CALL_HELP), judgement.HELPED_LOOK_DAYS, says(Says.FOR_BOTH))


def _soon(stage: StageNow, otherwise: int) -> int:
    """Days to the next count: before the threshold is passed, where growth brings it there first."""
    comes = stage.days_to_threshold
    return otherwise if comes is None or comes > otherwise else max(1, math.ceil(comes) - 1)
