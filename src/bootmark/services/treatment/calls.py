"""Calls, the treatments that they plan, and treatments as done."""

import datetime as dt
import uuid
from collections.abc import Sequence
from typing import Annotated, Any

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import ENGINE, judgement
from bootmark.core.catalogue import Agent, Catalogue, Control
from bootmark.core.field import call, called, harvest
from bootmark.core.ground import strips
from bootmark.core.meanings import Activity, Chosen, ControlKind, DecisionKind, Measure, StepKind, VerdictKind, Work
from bootmark.core.messages import Says, says
from bootmark.core.season import programme
from bootmark.core.types import ACTING, Answered, CropState, Decision, Done, Finding, Policy, Sample, StageNow
from bootmark.core.units import Quantity
from bootmark.services.base import ground, grown, memo, planned, stamp
from bootmark.services.base.command import Command, Forbidden, Refused
from bootmark.services.base.farm_time import zone
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Choice, Moment, Number, RecordId, Text, Ticks
from bootmark.services.base.handling import Context, Json, as_json, handles
from bootmark.services.base.roles import SCOUTS, SIGNERS
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import TreatmentState, VisitState
from bootmark.services.scouting import growth, held, holds, picking
from bootmark.services.seasons import crop_stages, forecasts, traps
from bootmark.services.treatment import thresholds
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Application, Block, DecisionRow, Farm, Look, ReturnVisit, SampleRow, Stop, TreatmentRow
from bootmark.store.rows import NotHere, of_farm, row_of

UNITS = ("L", "ml", "kg", "g", "bottles", "hours")
UNTICKED = "Tick each check before you sign."
LATE_CLOCK = dt.timedelta(minutes=5)
MOST_OF_AREA = 1.05
"""Share of a block's area that may be signed for: edges are treated too. Judgement, no source."""


def policy_of(farm: Farm) -> Policy:
    order = farm.policy.get("order")
    own = None if order is None else tuple(map(ControlKind, order))
    refuses = frozenset(map(ControlKind, farm.policy.get("refuses", ())))
    return Policy(own, refuses, bool(farm.policy.get("certified")), bool(farm.policy.get("to_nature")))


def crop_state(session: Session, farm: Farm, block: Block, day: dt.date) -> CropState:
    hemisphere = "north" if farm.latitude >= 0 else "south"
    in_flower, on_hold = crop_stages.in_flower(session, farm, block, day), block.id in held.blocks(session)
    return CropState(block.crop, picking.days_to(block, day), in_flower, day.month, hemisphere, farm.region, on_hold=on_hold)


def finding_of(look: Look, agent: str, catalogue: Catalogue, answers: Sequence[Answered] = (), region: str = "") -> Finding:
    """One agent of a look, as its newest version tells it. answers: what came back from outside, in the order of their days."""
    working = look.working
    named = agent in working["verdict"]["agents"]
    finding = Finding(
        agent=agent,
        verdict=VerdictKind(working["verdict"]["kind"]) if named else VerdictKind.NEEDS_A_LOOK,
        probability=working["chances"].get(agent, 0.0),
        confirmed=agent in working["confirmed"],
        activity=Activity(working["activity"].get(agent, Activity.NOT_KNOWN)),
        next_look=working["next_look"],
    )
    # Looks of before version 0.5 kept no dangers.
    dangers = {line["agent"]: Says(line["kind"]) for line in working["verdict"].get("dangers", ())}
    finding = called.with_signs(finding, look.signs, working["verdict"]["agents"], dangers, catalogue)
    for answer in answers:
        finding = called.settled(finding, answer, region, catalogue)
    return finding


def sample_of(row: SampleRow) -> Sample:
    """A kept count as the core takes it."""
    return Sample(row.unit, tuple(row.counts), tuple(row.enemies), Measure(row.measure), chosen=Chosen(row.chosen))


def _caught(session: Session, block: Block, agent: Agent, day: dt.date) -> Sample | None:
    """What the register says of an agent whose threshold is a trap's: each trap's own catch of a week, where it matters.

    Fewer in the traps do not say that there are few on the plants: these are counted.
    """
    line = agent.threshold(block.crop, Measure.TRAP)
    rates = traps.weekly(traps.register(session, day), block.id, agent.id, day) if line else ()
    return Sample("trap", rates, measure=Measure.TRAP) if line and rates and sum(rates) / len(rates) >= line.value else None


def stage_now(
    session: Session, farm: Farm, block: Block, agent_id: str, day: dt.date, catalogue: Any, sample: SampleRow | None = None
) -> StageNow:
    """Where the population stands, as far as heat tells it, with the first window that its controls share; how soon it passes its
    threshold, as counted."""
    agent = catalogue.agent(agent_id)
    comes = growth.days_to_threshold(session, farm, block, agent, sample, day)
    season = forecasts.of_block(session, farm, block, agent, day)
    if season is None:
        return StageNow(today=day, days_to_threshold=comes)
    forecast = season.forecast
    spans = {control.id: forecasts.window_of(forecast, control, agent.heat, day) for control in agent.controls if control.stages}
    windows = {control: span for control, span in spans.items() if span and agent.control(control).kind != ControlKind.CULTURAL}
    open_now = [span for span in windows.values() if span[1] >= day]
    return StageNow(forecast.on(day), day, min(open_now or windows.values(), default=None), comes, windows)


def done_on(session: Session, farm: Farm, block: Block, agent: str, day: dt.date, catalogue: Catalogue) -> list[Done]:
    """What was carried out against an agent on a block's ground within a season, whatever the block was called then."""
    since = dt.datetime.combine(day - dt.timedelta(days=judgement.SEASON_DAYS), dt.time(), dt.UTC)
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    columns = (TreatmentRow.block_id, TreatmentRow.control, Application.finished_at)
    rows = session.execute(
        of_farm(Application, *columns).join(TreatmentRow, joined).where(TreatmentRow.agent == agent, Application.finished_at > since)
    )
    spans, done = strips.spans(ground.strips_of(block)), []
    for where, control, finished in rows:
        on = finished.astimezone(zone(farm)).date()
        if on <= day and any(str(where) == span.block and span.holds(on) for span in spans):
            judged = on + dt.timedelta(days=catalogue.agent(agent).control(control).look_again_days)
            done.append(Done(agent, control, on, judged))
    return done


def consider(
    session: Session, farm: Farm, catalogue: Any, look: Look, agent: str, sample: SampleRow | None, day: dt.date
) -> tuple[Decision, Json]:
    """The core's decision with everything that went into it."""
    stop = session.get_one(Stop, (farm.id, look.stop_id))
    block = grown.at_stop(session, stop)
    finding = finding_of(look, agent, catalogue, holds.answers_to(session, look.id), farm.region)
    # The farm's own thresholds and clumping stand before the catalogue's.
    own = thresholds.own(session, catalogue)
    stage = stage_now(session, farm, block, agent, day, own, sample)
    counted = sample_of(sample) if sample else _caught(session, block, own.agent(agent), day)
    crop, policy = crop_state(session, farm, block, day), policy_of(farm)
    already = done_on(session, farm, block, agent, day, catalogue)
    decision = call.decide(finding, stage, counted, None, None, crop, policy, catalogue=own, done=already)
    inputs = {"finding": finding, "stage": stage, "sample": counted, "crop": crop, "policy": policy, "done": already}
    pinned = {"look": str(look.version_id), "sample": str(sample.version_id) if sample else None, "block": str(block.version_id)}
    return decision, {
        "inputs": as_json(inputs),
        "result": as_json(decision),
        "versions": pinned,
        "catalogue": catalogue.hash,
        "engine": ENGINE,
    }


RESTS_ON = (Topic.PLACES, Topic.WEATHER, Topic.SEASONS, Topic.RESULTS, Topic.TREATMENT, Topic.SCOUTING)
_decisions: memo.Kept[Decision] = memo.Kept(256)


def considered(session: Session, farm: Farm, catalogue: Any, look: Look, agent: str, sample: SampleRow | None, day: dt.date) -> Decision:
    """The core's decision as a page shows it, made once while what it rests on stands."""
    key = (catalogue.hash, look.version_id, agent, sample.version_id if sample else None, day)

    def made() -> Decision:
        return consider(session, farm, catalogue, look, agent, sample, day)[0]

    return stamp.while_standing(session, _decisions, RESTS_ON, key, made)


def _book(context: Context, decision: DecisionRow, due: dt.date, look_for: str, application_id: uuid.UUID | None) -> None:
    context.session.add(
        ReturnVisit(
            farm_id=context.farm_id,
            id=context.derived_id("return", 0),
            block_id=decision.block_id,
            agent=decision.agent,
            decision_id=decision.id,
            application_id=application_id,
            due_on=due,
            look_for=look_for,
            state=VisitState.BOOKED,
        )
    )


def _plan(context: Context, row: DecisionRow) -> None:
    """Derive the treatments, or the look that a call without one books. A revised call withdraws its old plan."""
    planned.take_back(context, decision_id=row.id)
    if row.kind == DecisionKind.REPORT:
        holds.begin(context, row)
    day = context.today
    result = row.working["result"]
    if not row.control:
        days = 7 if row.working.get("instead") else result["look_again_days"]
        if days is not None:
            _book(context, row, day + dt.timedelta(days=days), say.shown(result["look_again_for"]), None)
        return
    agent = context.catalogue.agent(row.agent)
    control = agent.control(row.control)
    block = context.get(Block, row.block_id, "block_id")
    season = forecasts.of_block(context.session, context.farm, block, agent, day)
    span = forecasts.window_of(season.forecast, control, agent.heat, day) if season else None
    start = max(day, span[0]) if span and span[1] >= day else day
    until = span[1] if span and span[1] >= day else None
    ahead = block_weather.days_ahead(context.session, context.farm, block, start)
    done = _uses_this_season(context.session, context.farm, block, control.id, day)
    fed = grown.eaten_and_fed(context.catalogue, block)[1]
    plan = programme.build(agent, control, start, ahead, until, harvest=block.harvest_from, done=done, fed=fed)
    steps = [step for step in plan if step.kind == StepKind.TREATMENT]
    for step in steps:
        context.session.add(
            TreatmentRow(
                farm_id=context.farm_id,
                id=context.derived_id("treatment", step.ordinal),
                decision_id=row.id,
                decision_version=row.version,
                block_id=row.block_id,
                agent=row.agent,
                control=row.control,
                ordinal=step.ordinal,
                on=step.on,
                not_after=until,
                why=say.tongue().say(step.why, context.catalogue),
                state=TreatmentState.PLANNED,
            )
        )


def _uses_this_season(session: Session, farm: Farm, block: Block, control: str, day: dt.date) -> int:
    """How often a material was used on a block within a year: what its label counts by the season, on any ground of it."""
    since = dt.datetime.combine(day - dt.timedelta(days=judgement.SEASON_DAYS), dt.time(), dt.UTC)
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    rows = of_farm(Application, TreatmentRow.block_id, Application.finished_at).join(TreatmentRow, joined)
    used = session.execute(rows.where(TreatmentRow.control == control, Application.finished_at > since)).all()
    done = [(str(where), finished.astimezone(zone(farm)).date()) for where, finished in used]
    return strips.most(ground.strips_of(block), lambda span: sum(where == span.block and span.holds(on) for where, on in done))


class MakeDecision(Command, kind="decision.make", roles=SCOUTS):
    """Make the call on an agent of a look; a control chosen must be one that is on offer."""

    look_id: Annotated[uuid.UUID, RecordId("look")]
    agent: Annotated[str, AgentField()]
    sample_id: Annotated[uuid.UUID | None, RecordId("count", optional=True)] = None
    control: Annotated[str, Text(80, needed=False)] = ""
    instead: Annotated[str, Choice(("", DecisionKind.LEAVE), fallback="")] = ""


@handles(MakeDecision, DecisionRow, _plan)
def store_decision(command: MakeDecision, context: Context) -> DecisionRow:
    agent, control = command.agent, command.control
    look: Look = context.get(Look, command.look_id, "look_id")
    stop: Stop = context.get(Stop, look.stop_id, "stop_id")
    sample: SampleRow | None = context.get(SampleRow, command.sample_id, "sample_id") if command.sample_id else None
    if sample and sample.agent != agent:
        raise Refused(sample_id=say.line("That count is of another animal."))
    if sample and sample.stop_id != look.stop_id:
        raise Refused(sample_id=say.line("That count was made at another stop: count here, or make the call there."))
    decision, working = consider(context.session, context.farm, context.catalogue, look, agent, sample, context.today)
    kind, headline = decision.kind, decision.headline
    if command.instead and decision.kind in ACTING:
        kind, headline, control = DecisionKind.LEAVE, says(Says.CALL_LEFT), ""
        working["instead"] = DecisionKind.LEAVE
    elif control:
        offered = {choice.control for choice in decision.choices if choice.offered}
        if decision.kind not in ACTING or control not in offered:
            raise Refused(control=say.line("That control is not on offer here: the call does not carry it."))
        chosen = context.catalogue.agent(agent).control(control)
        block = grown.at_stop(context.session, stop)
        stage = stage_now(context.session, context.farm, block, agent, context.today, context.catalogue)
        kind, headline = call.act_kind(chosen, stage), says(Says.CALL_CHOSEN, agent=agent, control=control)
    elif decision.kind in ACTING:
        control = next(choice.control for choice in decision.choices if choice.offered)
    return DecisionRow(
        look_id=look.id,
        sample_id=sample.id if sample else None,
        block_id=stop.block_id,
        agent=agent,
        kind=kind,
        headline=say.tongue().say(headline, context.catalogue),
        control=control,
        working=working,
    )


def checks(control: Any) -> tuple[str, ...]:
    """What whoever signs has to have checked."""
    spraying = control.work in (Work.SPRAY, Work.EVENING_SPRAY)
    first = (say.line("I have read the label, and it allows this here."), say.line("I wear what the label asks for.")) if spraying else ()
    return (*first, *control.cautions)


def _done(context: Context, row: Application) -> None:
    """The treatment is done: book its return look, and move later treatments of the plan by the delay."""
    treatment: TreatmentRow = context.get(TreatmentRow, row.treatment_id, "treatment_id")
    done_on = row.finished_at.astimezone(zone(context.farm)).date()
    if treatment.state == TreatmentState.PLANNED:
        delay = done_on - treatment.on
        following = context.session.scalars(
            of_farm(TreatmentRow).where(
                TreatmentRow.decision_id == treatment.decision_id,
                TreatmentRow.decision_version == treatment.decision_version,
                TreatmentRow.ordinal > treatment.ordinal,
                TreatmentRow.state == TreatmentState.PLANNED,
            )
        )
        for later in following:
            later.on = later.on + delay
    treatment.state = TreatmentState.DONE
    control = context.catalogue.agent(treatment.agent).control(treatment.control)
    decision = context.get(DecisionRow, treatment.decision_id, "decision_id")
    earlier = context.session.scalars(
        of_farm(ReturnVisit).where(ReturnVisit.application_id == row.id, ReturnVisit.state == VisitState.BOOKED)
    )
    for visit in earlier:
        visit.state = VisitState.WITHDRAWN
    _book(context, decision, done_on + dt.timedelta(days=control.look_again_days), control.success, row.id)


class RecordApplication(Command, kind="application.record", roles=SIGNERS, signs=True):
    """Sign for a treatment as done: when, how much, on what area, with the checks ticked."""

    treatment_id: Annotated[uuid.UUID, RecordId("treatment")]
    started_at: Annotated[dt.datetime, Moment()]
    finished_at: Annotated[dt.datetime, Moment()]
    amount: Annotated[float, Number(0.001, 100_000)]
    amount_unit: Annotated[str, Choice(UNITS)]
    area: Annotated[float, Number(0.0001, 100_000, measures=Quantity.AREA)]
    note: Annotated[str, Text(needed=False)] = ""
    aired_hours: Annotated[float | None, Number(0, 1_000, "hours", optional=True)] = None
    checks: Annotated[list[str], Ticks()]


def _unticked(payload: Any, context: Context) -> dict[str, str]:
    """Checks that are not ticked, whatever else is wrong."""
    try:
        treatment = row_of(context.session, TreatmentRow, uuid.UUID(payload["treatment_id"]))
        wanted = checks(context.catalogue.agent(treatment.agent).control(treatment.control))
        return {"checks": say.line(UNTICKED)} if set(wanted) - set(payload["checks"]) else {}
    except (NotHere, KeyError, TypeError, ValueError, AttributeError):
        return {}


def _refuse_before_harvest(context: Context, block: Block, control: Control, done: dt.date) -> None:
    """Nothing is signed whose interval ends after the next picking: that day is moved first, so that pickers see it."""
    left, before = harvest.whole_days(done, block.harvest_from), picking.keeps_until(control, block, context.catalogue, done)
    if before is None or left is None or left >= (before - done).days - 1:
        return
    context.errors["treatment_id"] = say.line(
        "{block} is to be picked on {picking:day}, and after this not before {before:day}: move the picking under Farm, then sign.",
        block=block.name,
        picking=max(block.harvest_from or done, done),
        before=before,
    )


@handles(RecordApplication, Application, _done, beside=_unticked)
def store_application(command: RecordApplication, context: Context) -> Application:
    treatment: TreatmentRow = context.get(TreatmentRow, command.treatment_id, "treatment_id")
    control = context.catalogue.agent(treatment.agent).control(treatment.control)
    if control.kind == ControlKind.CONVENTIONAL and not context.member.qualified:
        raise Forbidden(role=say.line("This material takes a qualified applicator: ask one to sign."))
    done = context.session.scalars(of_farm(Application).where(Application.treatment_id == treatment.id)).one_or_none()
    if treatment.state == TreatmentState.WITHDRAWN or (done and done.id != context.sent.record_id):
        raise Refused(treatment_id=say.line("This has been done or withdrawn already: nothing is left to sign."))
    block: Block = context.get(Block, treatment.block_id, "block_id")
    hold = held.blocks(context.session).get(block.id)
    if hold:
        raise Refused(treatment_id=say.tongue().say(hold, context.catalogue))
    if command.finished_at < command.started_at:
        began = command.started_at.astimezone(zone(context.farm))
        context.errors["finished_at"] = say.line("It ended before it began ({began:time}): give a later time.", began=began)
    elif command.finished_at > context.sent.seen_at + LATE_CLOCK:
        context.errors["finished_at"] = say.line("That is still ahead: sign when it is done.")
    if command.area > block.area * MOST_OF_AREA:
        context.errors["area"] = say.line(
            "{area:area} is more than the block has: write a number up to {most:area}.", area=command.area, most=block.area
        )
    wanted = checks(control)
    if set(wanted) - set(command.checks):
        context.errors["checks"] = say.line(UNTICKED)
    _refuse_before_harvest(context, block, control, command.finished_at.astimezone(zone(context.farm)).date())
    context.refuse_what_is_wrong()
    working = {
        "checks": list(wanted),
        "language": say.tongue().language,
        "weather": as_json(block_weather.at(context.session, context.farm, block, command.started_at)),
        "control": as_json(control),
        "catalogue": context.catalogue.hash,
        "engine": ENGINE,
    }
    return Application(**command.model_dump(exclude={"checks"}), working=working)
