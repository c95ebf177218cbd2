"""Treatments as done, and signed for."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated, Any

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import ENGINE
from bootmark.core.catalogue import Control
from bootmark.core.field import harvest
from bootmark.core.meanings import ControlKind, Work
from bootmark.core.units import Quantity
from bootmark.services.base import planned
from bootmark.services.base.command import Command, Forbidden, Refused
from bootmark.services.base.farm_time import zone
from bootmark.services.base.fields import Checks, Choice, Flag, Moment, Number, RecordId, Text, Ticks
from bootmark.services.base.handling import Context, as_json, handles
from bootmark.services.base.roles import SIGNERS
from bootmark.services.base.states import TreatmentState, VisitState
from bootmark.services.scouting import held, picking
from bootmark.services.treatment.looks_booked import book
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Application, BegunWork, Block, DecisionRow, ReturnVisit, TreatmentRow
from bootmark.store.rows import NotHere, of_farm, row_of

UNITS = ("L", "ml", "kg", "g", "bottles", "hours")
UNTICKED = "Tick each check before you sign."
LATE_CLOCK = dt.timedelta(minutes=5)
MOST_OF_AREA = 1.05
"""Share of a block's area that may be signed for: edges are treated too. Judgement, no source."""


def is_sprayed_out(control: Control) -> bool:
    """Whether it is brought out as a spray, living ones too: a label says who goes in when."""
    return control.work in (Work.SPRAY, Work.EVENING_SPRAY)


def checks(control: Any) -> tuple[str, ...]:
    """What whoever signs has to have checked."""
    read, worn = say.line("I have read the label, and it allows this here."), say.line("I wear what the label asks for.")
    first = (read, worn) if is_sprayed_out(control) else ()
    return (*first, *control.cautions)


def _done(context: Context, row: Application) -> None:
    """The treatment is done: book its return look, and move later treatments with the same control by the delay."""
    treatment: TreatmentRow = context.get(TreatmentRow, row.treatment_id, "treatment_id")
    done_on = row.finished_at.astimezone(zone(context.farm)).date()
    if treatment.state == TreatmentState.PLANNED:
        delay = done_on - treatment.on
        following = context.session.scalars(
            of_farm(TreatmentRow).where(
                TreatmentRow.decision_id == treatment.decision_id,
                TreatmentRow.decision_version == treatment.decision_version,
                TreatmentRow.control == treatment.control,
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
    book(context, decision, done_on + dt.timedelta(days=control.look_again_days), control.success, row.id)


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
    label_hours: Annotated[float | None, Number(0, 1_000, "hours", optional=True)] = None
    hand_hours: Annotated[float | None, Number(0, 1_000, "hours", optional=True)] = None
    until_dry: Annotated[bool, Flag()] = False
    early_minutes: Annotated[int | None, Number(1, 480, "minutes", whole=True, optional=True)] = None
    early_wear: Annotated[str, Text(200, needed=False)] = ""
    checks: Annotated[list[str], Ticks()]

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.hand_hours is not None and self.hand_hours < (self.label_hours or 0):
            yield "hand_hours", say.line("Hand work waits at least as long as walking in: give no fewer hours.")
        if self.early_minutes and not self.early_wear:
            yield "early_wear", say.line("Write what the label asks to wear: without it nobody goes in early.")
        if self.early_wear and not self.early_minutes:
            yield "early_minutes", say.line("Write for how many minutes a day the label allows it.")


class BeginWork(Command, kind="application.begin", roles=SIGNERS):
    """Begin a treatment: nobody goes into its block until it is signed for, or withdrawn."""

    treatment_id: Annotated[uuid.UUID, RecordId("treatment")]
    began_at: Annotated[dt.datetime, Moment()]


def _refuse_unqualified(context: Context, control: Control) -> None:
    if control.kind == ControlKind.CONVENTIONAL and not context.member.qualified:
        raise Forbidden(role=say.line("This material takes a qualified applicator: ask one to sign."))


@handles(BeginWork, BegunWork)
def store_begun(command: BeginWork, context: Context) -> BegunWork:
    treatment: TreatmentRow = context.get(TreatmentRow, command.treatment_id, "treatment_id")
    if context.sent.withdrawn:
        return BegunWork(**command.model_dump())
    _refuse_unqualified(context, context.catalogue.agent(treatment.agent).control(treatment.control))
    context.take_turns(f"the begin of {treatment.id}")
    before = begun(context.session, treatment.id)
    if before and before.id != context.sent.record_id:
        since = before.began_at.astimezone(zone(context.farm))
        raise Refused(treatment_id=say.line("This is being done already, since {since:time}: sign when it has ended.", since=since))
    block: Block = context.get(Block, treatment.block_id, "block_id")
    hold = held.blocks(context.session).get(block.id)
    if hold:
        raise Refused(treatment_id=say.tongue().say(hold, context.catalogue))
    if treatment.state != TreatmentState.PLANNED:
        context.errors["treatment_id"] = say.line("This has been done or withdrawn already: there is nothing to begin.")
    if command.began_at > context.sent.seen_at + LATE_CLOCK:
        context.errors["began_at"] = say.line("That is still ahead: begin when you begin.")
    return BegunWork(**command.model_dump())


def running(session: Session) -> frozenset[uuid.UUID]:
    """Treatments that are being done."""
    return frozenset(session.scalars(planned.being_done(BegunWork.treatment_id)))


def begun(session: Session, treatment_id: uuid.UUID) -> BegunWork | None:
    """The begin of a treatment that is not signed for; None where nobody has begun it."""
    return session.scalars(planned.being_done(BegunWork).where(BegunWork.treatment_id == treatment_id)).first()


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
    _refuse_unqualified(context, control)
    done = context.session.scalars(of_farm(Application).where(Application.treatment_id == treatment.id)).one_or_none()
    gone = treatment.state == TreatmentState.WITHDRAWN and not begun(context.session, treatment.id)
    if gone or (done and done.id != context.sent.record_id):
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
