"""Does it matter, and do I act. The default is to leave it, and to say why."""

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue.model import MANY, Agent, Catalogue, Control
from bootmark.core.field.count import enemy_ratio, interval
from bootmark.core.meanings import Activity, AgentKind, ControlKind, DecisionKind, Measure, VerdictKind
from bootmark.core.types import Choice, CropState, Decision, Finding, Interval, Policy, Sample, StageNow, Threshold

LABEL_FIRST = "The label, local rules and licensed advice come before anything Bootmark says."
LEAVE_LOOK_DAYS = 7
SOON_DAYS = 7
LEAST_UNITS = 10
"""Units below which natural enemies decide nothing. Common practice, no source."""
LEAST_ANIMALS = 10
"""Pests and enemies together below which their ratio is chance. Judgement, no source."""


def economic_injury_level(
    control_cost: float, market_value: float, injury_per_pest: float, damage_per_injury: float, efficacy: float
) -> float:
    """Pests per unit at which the loss avoided pays for the control: EIL = C / (V I D K).

    control_cost: money per area; market_value: money per unit of yield; injury_per_pest;
    damage_per_injury: yield lost per unit of injury; efficacy: share of injury avoided, above 0
    and up to 1. Raises ValueError where a value is not positive. Source: Stern et al. (1959);
    Pedigo, Hutchins and Higley (1986).
    """
    if min(control_cost, market_value, injury_per_pest, damage_per_injury, efficacy) <= 0 or efficacy > 1:
        raise ValueError("every term must be above zero, and efficacy at most one")
    return control_cost / (market_value * injury_per_pest * damage_per_injury * efficacy)


def _number(value: float) -> str:
    return f"{value:.2g}" if value < 1 else f"{value:.1f}".removesuffix(".0")


def _share(measure: str, value: float) -> str:
    return f"{100 * value:.0f} %" if measure == Measure.PROPORTION else _number(value)


def choices(agent: Agent, stage: StageNow, crop: CropState, policy: Policy) -> tuple[Choice, ...]:
    """Every control of an agent in the order of the farm's policy, offered or not, each with its reason."""
    present = {name for name, share in stage.shares.items() if share >= 0.1}

    def judge(control: Control) -> Choice:
        if control.kind in policy.refuses or control.kind not in policy.order:
            return Choice(control.id, False, f"This farm's policy leaves out {control.kind} controls.")
        own = stage.windows.get(control.id)
        if own and stage.today and own[1] < stage.today:
            return Choice(control.id, False, f"Too late: its window closed on {own[1]:%-d %B}.")
        if not own and present and control.stages and not present & set(control.stages):
            return Choice(control.id, False, f"It kills {' and '.join(MANY[one] for one in control.stages)}; few are in that stage today.")
        if crop.days_to_harvest is not None and crop.days_to_harvest < control.harvest_days:
            return Choice(
                control.id, False, f"Harvest in {crop.days_to_harvest} days, and it must be kept {control.harvest_days} days before."
            )
        if crop.in_flower and "bees" in control.harms:
            return Choice(control.id, False, "The crop is in flower, and it kills bees.")
        return Choice(control.id, True, control.timing)

    rank = {kind: place for place, kind in enumerate(policy.order)}
    return tuple(judge(one) for one in sorted(agent.controls, key=lambda one: rank.get(one.kind, len(rank))))


class _Case:
    """Gathers reasons while the rules are gone through in order."""

    def __init__(self, agent: Agent, finding: Finding) -> None:
        self.agent, self.finding = agent, finding
        self.speaks_for: list[str] = []
        self.against: list[str] = []
        self.change: list[str] = []
        self.choices: tuple[Choice, ...] = ()
        self.cautions: tuple[str, ...] = ()

    def decide(self, kind: DecisionKind, headline: str, days: int | None = None, look_for: str = "") -> Decision:
        return Decision(
            kind, headline, tuple(self.speaks_for), tuple(self.against), tuple(self.change), self.choices, self.cautions, days, look_for
        )


def _not_a_target(case: _Case) -> Decision | None:
    agent, finding = case.agent, case.finding
    if finding.verdict == VerdictKind.MUST_BE_REPORTED:
        case.speaks_for.append("It is listed: the plant health authority decides what is done.")
        return case.decide(DecisionKind.REPORT, "Photograph it, leave it where it is, report it.", 1, "whether the authority has answered")
    if agent.kind == AgentKind.BENEFICIAL:
        case.speaks_for += [agent.summary, agent.said_wrongly]
        case.change.append("Ragged holes or droppings beside it would mean that something else feeds here too.")
        return case.decide(DecisionKind.LEAVE, f"Leave it: the {agent.in_sentence} does the plant no harm.", 28, "new damage")
    if agent.kind in (AgentKind.DISEASE, AgentKind.DISORDER, AgentKind.NORMAL):
        case.speaks_for.append(agent.summary)
        case.change.append("A live animal, or no change a day after, would mean another cause.")
        act = next(
            (control for control in agent.controls if control.kind in (ControlKind.CULTURAL, ControlKind.PHYSICAL)), agent.controls[0]
        )
        case.choices = (Choice(act.id, True, act.timing),)
        case.cautions = (LABEL_FIRST, *act.cautions) if agent.kind == AgentKind.DISEASE else (LABEL_FIRST,)
        no_spray = "Nothing against insects or mites helps here." if agent.kind == AgentKind.DISEASE else "No spray helps."
        return case.decide(DecisionKind.CULTURAL_ACT, f"{act.do} {no_spray}", act.look_again_days, act.success)
    return None


def _unproved(case: _Case, catalogue: Catalogue) -> Decision | None:
    finding = case.finding
    if finding.confirmed and finding.verdict in (VerdictKind.NAMED, VerdictKind.HELP_HAS_COME):
        return None
    case.against.append("Nothing seen so far is left by this animal alone. Nothing is sprayed on a symptom.")
    look = catalogue.looks.get(finding.next_look)
    case.change.append(f"{look.do}" if look else "The live animal, or a sign that only it leaves.")
    return case.decide(
        DecisionKind.LOOK_AGAIN, "Look again before you call: no live one has been seen.", 1, look.name if look else "the live animal"
    )


def _past(case: _Case) -> Decision | None:
    if case.finding.activity in (Activity.FINISHED, Activity.DEAD, Activity.PARASITISED):
        words = {
            Activity.FINISHED: "It has gone",
            Activity.DEAD: "They are dead",
            Activity.PARASITISED: "They carry parasites that will hatch",
        }
        case.speaks_for.append(f"{words[case.finding.activity]}: nothing is left to control.")
        case.change.append("Fresh droppings or a live one would change this.")
        return case.decide(DecisionKind.LEAVE, "Leave it: the attack is over.", 14, "fresh damage")
    if case.agent.cosmetic:
        case.speaks_for.append("The damage is cosmetic; the plant works on.")
        return case.decide(DecisionKind.LEAVE, "Leave it: it does no harm that counts.", 28, "more damage")
    return None


def _held(case: _Case, sample: Sample, enemies: float | None, estimate: Interval) -> Decision | None:
    """Whether natural enemies are enough to hold back; never on a handful of animals."""
    held = case.agent.enemies[0] if case.agent.enemies else None
    if held is None:
        return None
    ratio = enemies if enemies is not None else enemy_ratio(sample)
    if ratio is None:
        case.change.append(f"{held.name} were not counted: enough of them would change this.")
        return None
    animals = sum(sample.counts) + sum(sample.enemies)
    if estimate.units < LEAST_UNITS or animals < LEAST_ANIMALS:
        least = f"{LEAST_UNITS} units and {LEAST_ANIMALS} animals"
        case.change.append(
            f"{held.name} counted on more: {animals} animals on {estimate.units} are too few to decide by, {least} the least."
        )
        return None
    told = f"{held.name}: {_number(ratio) if ratio < 1e6 else 'only they were found'} for each pest"
    if ratio >= held.ratio:
        case.speaks_for.append(f"{told}; {_number(held.ratio)} is enough to wait.")
        case.change.append(f"Fewer than {_number(held.ratio)} for each pest at the next look.")
        return case.decide(DecisionKind.LEAVE, "Leave it: help is winning. Look again soon.", 5, "pests and helpers counted again")
    case.against.append(f"{told}, and it takes {_number(held.ratio)}.")
    return None


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
) -> Decision:
    """The call on one finding: one of types.DECISIONS, with reasons, choices and the look it books.

    sample: None where nothing has been counted; threshold: None where none is known; enemies:
    natural enemies for each pest, None to take them from the sample. Nothing is offered against
    a suspect that lacks a confirming sign. Limits, not the estimate, are held against the threshold.
    Source: design of the confirming look and of leaving as the default, common practice; nominal
    thresholds as the catalogue gives them.
    """
    known = catalogue or catalogues.default()
    agent = known.agent(finding.agent)
    case = _Case(agent, finding)
    early = _not_a_target(case) or _unproved(case, known) or _past(case)
    if early:
        return early
    case.speaks_for.append(
        f"{agent.name} is confirmed and active." if finding.activity == Activity.ACTIVE else f"{agent.name} is confirmed."
    )
    if sample is None or not sample.counts:
        case.change.append("A count to the plan.")
        plan = agent.sampling.plan if agent.sampling else "Count twenty units along the walk."
        return case.decide(DecisionKind.LOOK_AGAIN, f"Count before you call. {plan}", 1, "a count")
    estimate = interval(sample)
    wanted = threshold or _nominal(agent, crop.crop, sample.measure)
    if wanted is None or wanted.measure != sample.measure:
        case.change.append("A threshold for this crop.")
        return case.decide(
            DecisionKind.REFER, "No threshold is known for this crop: ask a licensed adviser.", LEAVE_LOOK_DAYS, "a count again"
        )
    limits = f"{_share(sample.measure, estimate.low)} to {_share(sample.measure, estimate.high)}"
    counted = f"{_share(sample.measure, estimate.estimate)} {wanted.unit} ({limits}), {estimate.units} looked at"
    line = f"{_share(wanted.measure, wanted.value)} {wanted.unit} is where it starts to matter ({wanted.source})"
    if estimate.high < wanted.value:
        soon = stage.days_to_threshold is not None and stage.days_to_threshold < SOON_DAYS
        days = max(2, int(stage.days_to_threshold or SOON_DAYS) - 1) if soon else LEAVE_LOOK_DAYS
        case.speaks_for = [f"Counted {counted}.", f"{line}."]
        case.change.append(f"{_share(wanted.measure, wanted.value)} or more at the next count.")
        return case.decide(DecisionKind.LEAVE, "Leave it: too few to matter.", days, "a count again")
    if estimate.low < wanted.value:
        case.speaks_for.append(f"Counted {counted}.")
        case.against.append(f"{line}; the count does not tell on which side it lies.")
        case.change.append("More units counted, or the same count in a few days.")
        held = _held(case, sample, enemies, estimate)
        return held or case.decide(DecisionKind.LOOK_AGAIN, "Too close to call: count more, or again in three days.", 3, "a larger count")
    case.speaks_for += [f"Counted {counted}.", f"{line}."]
    held = _held(case, sample, enemies, estimate)
    if held:
        return held
    return _act(case, stage, crop, policy)


def _act(case: _Case, stage: StageNow, crop: CropState, policy: Policy) -> Decision:
    agent = case.agent
    case.choices = choices(agent, stage, crop, policy)
    offered = [choice for choice in case.choices if choice.offered]
    case.cautions = (LABEL_FIRST, *dict.fromkeys(text for one in offered for text in agent.control(one.control).cautions))
    today = stage.today
    window = stage.windows.get(offered[0].control, stage.window) if offered else stage.window
    spans = [*stage.windows.values()] or [stage.window] if stage.window else []
    closed = [span for span in spans if span and today and span[1] < today]
    if closed and len(closed) == len(spans):
        last = max(span[1] for span in closed)
        case.against.append(f"The stage that can be reached was over on {last:%-d %B}.")
        case.change.append("Eggs or young ones seen again.")
        return case.decide(
            DecisionKind.LEAVE, "Leave it: it is too late for this generation. Clean up and plan the next.", 14, "the next generation"
        )
    if not offered:
        blocked = "; ".join(f"{agent.control(choice.control).name}: {choice.reason}" for choice in case.choices)
        case.against.append(blocked)
        near = crop.days_to_harvest is not None and crop.days_to_harvest <= 14
        if near:
            return case.decide(
                DecisionKind.HARVEST_FIRST, "Harvest first: no control fits before it.", crop.days_to_harvest, "what is left after harvest"
            )
        return case.decide(DecisionKind.REFER, "Nothing on this farm's list fits: ask a licensed adviser.", 2, "the adviser's answer")
    first = agent.control(offered[0].control)
    case.change.append("More helpers, a near harvest, or a lower count.")
    kind = act_kind(first, stage)
    if kind == DecisionKind.ACT_IN_WINDOW and window and today:
        days = (window[0] - today).days
        return case.decide(kind, f"Act from {window[0]:%-d %B} to {window[1]:%-d %B}: {first.name}.", days, "whether the window has moved")
    told = f"Act now. First by this farm's policy: {first.in_sentence}." if len(offered) > 1 else f"Act now: {first.in_sentence}."
    return case.decide(kind, told, first.look_again_days, first.success)


def act_kind(control: Control, stage: StageNow) -> DecisionKind:
    """Which of types.ACTING a control is, at the stage that the population is in."""
    window = stage.windows.get(control.id, stage.window)
    if window and stage.today and window[0] > stage.today:
        return DecisionKind.ACT_IN_WINDOW
    if control.kind == ControlKind.LIVING and "sprayer" not in control.tools:
        return DecisionKind.RELEASE
    return DecisionKind.CULTURAL_ACT if control.kind == ControlKind.CULTURAL else DecisionKind.ACT_NOW


def _nominal(agent: Agent, crop: str, measure: str) -> Threshold | None:
    threshold = next((nominal for nominal in agent.thresholds if nominal.crop in (crop, "*") and nominal.measure == measure), None)
    return Threshold(threshold.value, threshold.measure, threshold.unit, threshold.source, threshold.crop) if threshold else None
