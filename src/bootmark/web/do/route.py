"""Do: what to apply, where, how, and whether it is safe to start."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.meanings import ControlKind
from bootmark.core.messages import Message
from bootmark.core.units import Quantity
from bootmark.drawing.plan import plan_svg
from bootmark.services.base import ground, grown
from bootmark.services.base.command import Refused
from bootmark.services.base.farm_time import zone
from bootmark.services.base.roles import SIGNERS
from bootmark.services.base.states import TreatmentState
from bootmark.services.book import records
from bootmark.services.scouting import closed, picking
from bootmark.services.scouting.stops import child
from bootmark.services.treatment import applications, protection, timing
from bootmark.services.weather import blocks as block_weather
from bootmark.web import forms
from bootmark.web.book import corrections
from bootmark.web.guard import ask_who, db, member, now, on_farm, the_farm
from bootmark.web.plan import shapes, things

blueprint = Blueprint("do", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/do")
@on_farm
def page() -> str:
    planned = timing.planned(db(), the_farm(), g.catalogue, now())
    shut = closed.blocks(db(), g.catalogue, now())
    running = applications.running(db())
    free = [entry for entry in planned if not entry.late and not entry.hold and entry.block.id not in shut]
    due = [entry for entry in free if (entry.treatment.on - now().date()).days <= 0]
    being_done = [entry for entry in planned if entry.treatment.id in running]
    later = [entry for entry in planned if not entry.late and entry not in (*due, *being_done)]
    return render_template(
        "do.html",
        being_done=being_done,
        due=due,
        later=later,
        shut=shut,
        late=[entry for entry in planned if entry.late and entry not in being_done],
        no_picking=_no_picking(),
        hand_work=_hand_work(),
        standing=protection.standing(db(), the_farm(), g.catalogue, now().date()),
        local=zone(the_farm()),
        may=member().role in SIGNERS,
    )


def _no_picking() -> list[tuple[str, Message]]:
    """Blocks that may not be picked today, by name, each with why."""
    names = {block.id: block.name for block in ground.blocks(db())}
    kept = picking.blocks(db(), the_farm(), g.catalogue, now().date())
    return sorted((names[block], row.why) for block, row in kept.items())


def _hand_work() -> list[tuple[str, Message]]:
    """Blocks in which hands do no work now though people may walk there, by name, each with why."""
    names = {block.id: block.name for block in ground.blocks(db())}
    return sorted((names[block], why) for block, why in closed.hand_work(db(), g.catalogue, now()).items() if block in names)


def _card(treatment: uuid.UUID, errors: dict[str, str] | None = None) -> str:
    farm, at = the_farm(), now()
    planned = timing.of_treatment(db(), farm, g.catalogue, treatment, at)
    row, block = planned.treatment, planned.block
    begun = applications.begun(db(), treatment)
    form: Any = request.form if request.method == "POST" else None
    blocked = planned.control.kind == ControlKind.CONVENTIONAL and not member().qualified
    return render_template(
        "job_card.html",
        planned=planned,
        checks=applications.checks(planned.control),
        weather=block_weather.at(db(), farm, block, at),
        hour=planned.state_at(at),
        keeps=picking.keeps_until(planned.control, block, g.catalogue, at.date()),
        next_picking=block.harvest_from,
        fed=planned.control.sprayed and grown.eaten_and_fed(g.catalogue, block)[1],
        plan=plan_svg(
            shapes(the_farm(), ground.blocks(db())), (), {str(block.id): "must"}, things=things(the_farm(), ground.features(db()))
        ),
        errors=forms.Errors(errors),
        form=form,
        record_id=child(treatment, "application"),
        v=applications.RecordApplication.spec.v,
        unit_pairs=[(unit, unit) for unit in applications.UNITS],
        may=member().role in SIGNERS and not (blocked or planned.hold) and (row.state == TreatmentState.PLANNED or begun is not None),
        blocked=blocked,
        shaken=corrections.shaken(db(), records.call(db(), row.decision_id)),
        shut=closed.blocks(db(), g.catalogue, at).get(block.id),
        spraying=applications.is_sprayed_out(planned.control),
        edge=ground.edge(block) if planned.control.disrupts else None,
        begun=begun,
        begun_id=begun.id if begun else uuid.uuid4(),
        area_times=say.tongue().formats.unit(Quantity.AREA).times,
        start=(begun.began_at.astimezone(zone(farm)) if begun else at - dt.timedelta(hours=1)).strftime("%Y-%m-%dT%H:%M"),
        end=at.strftime("%Y-%m-%dT%H:%M"),
    )


@blueprint.get("/f/<uuid:farm>/do/<uuid:treatment>")
@on_farm
def card(treatment: uuid.UUID) -> str:
    return _card(treatment)


@blueprint.post("/f/<uuid:farm>/do/<uuid:treatment>/begin")
@on_farm
def begin(treatment: uuid.UUID) -> Response | tuple[str, int]:
    """Close the block while the work goes on, or say that it was not begun."""
    stopped = bool(request.form.get("stopped"))
    before = applications.begun(db(), treatment)
    began = before.began_at if stopped and before else now()
    more: dict[str, Any] = {"withdrawn": True, "reason": say.line("It was not begun.")} if stopped else {}
    try:
        forms.send_as_kept(applications.BeginWork.spec.kind, {"treatment_id": str(treatment), "began_at": began.isoformat()}, **more)
    except Refused as error:
        return _card(treatment, error.errors), 400
    flash(say.line("Nobody is sent into the block until you sign.") if not stopped else say.line("The block is open again."), "good")
    return redirect(url_for("do.card", farm=the_farm().id, treatment=treatment))


@blueprint.post("/f/<uuid:farm>/do/<uuid:treatment>")
@on_farm
def sign(treatment: uuid.UUID) -> Response | tuple[str, int]:
    times = {name: forms.moment(name) for name in ("started_at", "finished_at")}
    try:
        ask_who()
        forms.send(applications.RecordApplication, treatment_id=str(treatment), checks=request.form.getlist("checks"), **times)
    except Refused as error:
        return _card(treatment, error.errors), 400
    flash(say.line("Signed. The return look stands on the round of its day."), "good")
    return redirect(url_for("do.page", farm=the_farm().id))
