"""Calls, and the treatments or looks that they plan."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated, Any

from bootmark import say
from bootmark.core import judgement
from bootmark.core.field import call, overruled
from bootmark.core.meanings import DecisionKind, StepKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.season import programme
from bootmark.core.types import ACTING
from bootmark.core.units import Quantity
from bootmark.services.base import grown, planned
from bootmark.services.base.command import Command, Refused
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Checks, Choice, Number, RecordId, Text, Ticks
from bootmark.services.base.handling import Context, as_json, handles
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.base.states import CallState, TreatmentState
from bootmark.services.scouting import holds
from bootmark.services.seasons import forecasts
from bootmark.services.treatment.looks_booked import book
from bootmark.services.treatment.weighing import Considered, consider, stage_now, uses_this_season
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, DecisionRow, Farm, Look, SampleRow, Stop, TreatmentRow

STEPS_OF_ONE = 100
"""Treatments of one control of a call at most: each control's are numbered from a hundred of its own."""


def _plan(context: Context, row: DecisionRow) -> None:
    """Derive the treatments, or the look that a call without one books. A revised call withdraws its old plan.

    A call that is only proposed plans nothing, and leaves what was signed before as it is; a report holds its block at once.
    """
    if row.kind == DecisionKind.REPORT:
        holds.begin(context, row)
    if row.state == CallState.PROPOSED:
        return
    planned.take_back(context, decision_id=row.id)
    if not row.control:
        booked = row.working["booked"]
        if booked["look_again_days"] is not None:
            due = context.today + dt.timedelta(days=booked["look_again_days"])
            book(context, row, due, say.shown(booked["look_again_for"]), None)
        return
    for place, control in enumerate((row.control, *row.also)):
        _plan_control(context, row, control, place * STEPS_OF_ONE)


def _plan_control(context: Context, row: DecisionRow, control_id: str, first: int) -> None:
    """The treatments of one control of a call. first: the place from which its steps are numbered."""
    day, agent = context.today, context.catalogue.agent(row.agent)
    control = agent.control(control_id)
    block = context.get(Block, row.block_id, "block_id")
    season = forecasts.of_block(context.session, context.farm, block, agent, day)
    span = forecasts.window_of(season.forecast, control, agent.heat, day) if season else None
    start = max(day, span[0]) if span and span[1] >= day else day
    until = span[1] if span and span[1] >= day else None
    ahead = block_weather.days_ahead(context.session, context.farm, block, start)
    done = uses_this_season(context.session, context.farm, block, control.id, day)
    fed = grown.eaten_and_fed(context.catalogue, block)[1]
    plan = programme.build(agent, control, start, ahead, until, harvest=block.harvest_from, done=done, fed=fed)
    for step in plan:
        if step.kind == StepKind.TREATMENT:
            context.session.add(
                TreatmentRow(
                    farm_id=context.farm_id,
                    id=context.derived_id("treatment", first + step.ordinal),
                    decision_id=row.id,
                    decision_version=row.version,
                    block_id=row.block_id,
                    agent=row.agent,
                    control=control_id,
                    ordinal=first + step.ordinal,
                    on=step.on,
                    not_after=until,
                    why=say.tongue().say(step.why, context.catalogue),
                    state=TreatmentState.PLANNED,
                    spot=row.spot,
                    spot_area=row.spot_area,
                )
            )


class MakeDecision(Command, kind="decision.make", v=2, roles=SCOUTS):
    """Make the call on an agent of a look: as the rules say, or instead of them with a reason."""

    look_id: Annotated[uuid.UUID, RecordId("look")]
    agent: Annotated[str, AgentField()]
    sample_id: Annotated[uuid.UUID | None, RecordId("count", optional=True)] = None
    control: Annotated[str, Text(80, needed=False)] = ""
    instead: Annotated[str, Choice(("", *DecisionKind), fallback="")] = ""
    why: Annotated[str, Text(300, needed=False)] = ""
    also: Annotated[list[str], Ticks()] = []  # noqa: RUF012
    spot: Annotated[str, Text(120, needed=False)] = ""
    spot_area: Annotated[float | None, Number(0.0001, 100_000, optional=True, measures=Quantity.AREA)] = None

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.instead and len(self.why) < judgement.LEAST_WHY:
            yield "why", say.line("Say in a few words why you call it otherwise: whoever reads it later has only them.")
        if self.instead and self.control:
            yield "instead", say.line("Choose one: a control, or a call without one.")
        if self.also and not self.control:
            yield "also", say.line("Choose the first control before what goes along with it.")
        if bool(self.spot) != (self.spot_area is not None):
            yield "spot", say.line("A spot has both: which part of the block it is, and its area.")
        if self.instead and self.spot:
            yield "spot", say.line("A spot goes with a control: this call has none.")


def _of_first_version(payload: Any, _: Farm) -> Any:
    """Until version 0.10 a call was left against the advice without a reason."""
    left = isinstance(payload, dict) and payload.get("instead")
    return payload | {"control": "", "why": "Not told: called before reasons were asked for."} if left else payload


@handles(MakeDecision, DecisionRow, _plan, upgrades={1: _of_first_version})
def store_decision(command: MakeDecision, context: Context) -> DecisionRow:
    look: Look = context.get(Look, command.look_id, "look_id")
    stop: Stop = context.get(Stop, look.stop_id, "stop_id")
    sample: SampleRow | None = context.get(SampleRow, command.sample_id, "sample_id") if command.sample_id else None
    if sample and sample.agent != command.agent:
        raise Refused(sample_id=say.line("That count is of another animal."))
    if sample and sample.stop_id != look.stop_id:
        raise Refused(sample_id=say.line("That count was made at another stop: count here, or make the call there."))
    weighed, working = consider(context.session, context.farm, context.catalogue, look, command.agent, sample, context.today)
    block = grown.at_stop(context.session, stop)
    kind, headline, control = _called(command, weighed, context, block)
    books = weighed.instead.of(command.instead) or weighed.decision
    working["booked"] = {"look_again_days": books.look_again_days, "look_again_for": as_json(books.look_again_for)}
    if command.instead:
        working["instead"] = command.instead
    _refuse_what_does_not_go_along(command, weighed, context)
    if command.spot_area is not None and command.spot_area > block.area:
        context.errors["spot_area"] = say.line(
            "{area:area} is more than the block has: write a number up to {most:area}.", area=command.spot_area, most=block.area
        )
    context.refuse_what_is_wrong()
    if command.spot and not control:
        raise Refused(spot=say.line("A spot goes with a control: this call has none."))
    waits = context.farm.calls_signed and context.member.role not in KEEPERS
    return DecisionRow(
        look_id=look.id,
        sample_id=sample.id if sample else None,
        block_id=stop.block_id,
        agent=command.agent,
        kind=call.on_spot(kind) if command.spot else kind,
        headline=say.tongue().say(headline, context.catalogue),
        control=control,
        working=working,
        state=CallState.PROPOSED if waits else CallState.CALLED,
        why=command.why,
        also=command.also,
        spot=command.spot,
        spot_area=command.spot_area,
    )


def _called(command: MakeDecision, weighed: Considered, context: Context, block: Block) -> tuple[DecisionKind, Message, str]:
    """What is called, as it is said, and the control that it carries. Raises Refused."""
    decision, instead, agent = weighed.decision, weighed.instead, command.agent
    if command.instead:
        otherwise = instead.of(command.instead)
        if otherwise is None:
            raise Refused(instead=say.line("That can't be called here instead: the call stands, or its controls are chosen from."))
        return otherwise.kind, otherwise.headline, ""
    offered = [choice.control for choice in decision.choices if choice.offered] if decision.kind in ACTING else []
    if not command.control:
        return decision.kind, decision.headline, offered[0] if offered else ""
    all_the_same = command.control in {choice.control for choice in instead.controls}
    if command.control not in offered and not all_the_same:
        raise Refused(control=say.line("That control is not on offer here: the call does not carry it."))
    if all_the_same and len(command.why) < judgement.LEAST_WHY:
        raise Refused(why=say.line("Say in a few words why you call it otherwise: whoever reads it later has only them."))
    chosen = context.catalogue.agent(agent).control(command.control)
    stage = stage_now(context.session, context.farm, block, agent, context.today, context.catalogue)
    headline = says(Says.CALL_CHOSEN_ALL_THE_SAME if all_the_same else Says.CALL_CHOSEN, agent=agent, control=command.control)
    return call.act_kind(chosen, stage), headline, command.control


def _refuse_what_does_not_go_along(command: MakeDecision, weighed: Considered, context: Context) -> None:
    """Further controls are on offer too, come out of no bottle, and do the first no harm."""
    if not command.also:
        return
    entry = context.catalogue.agent(command.agent)
    may = {choice.control for choice in (*weighed.decision.choices, *weighed.instead.controls) if choice.offered}
    may = {control for control in may if entry.control(control).unsprayed}
    if not set(command.also) <= may - {command.control} or len(set(command.also)) < len(command.also):
        context.errors["also"] = say.line("What goes along must be on offer here too, and not out of a bottle.")
        return
    beside = overruled.apart(command.agent, (command.control, *command.also), context.catalogue)
    if beside:
        first, second = (entry.control(control).name for control in beside)
        context.errors["also"] = say.line(
            "Not together: {first} and {second}. One kills what the other brings.", first=first, second=second
        )
