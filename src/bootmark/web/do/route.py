"""Do: what to apply, where, how, and whether it is safe to start."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, abort, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark.services import block_weather, calls, rounds, timing
from bootmark.services.commands import Refused
from bootmark.services.farm_time import zone
from bootmark.services.stops import child
from bootmark.store.models import Block, TreatmentRow
from bootmark.web import forms
from bootmark.web.drawing.plan import plan_svg
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("do", __name__, template_folder=".")
UNITS = ("L", "ml", "kg", "g", "bottles", "hours")
SIGNERS = ("owner", "applicator")


@blueprint.get("/f/<uuid:farm>/do")
@on_farm
def page() -> str:
    planned = timing.planned(db(), the_farm(), g.known, now())
    due = [one for one in planned if not one.late and (one.treatment.on - now().date()).days <= 0]
    later = [one for one in planned if not one.late and one not in due]
    return render_template(
        "do.html", due=due, later=later, late=[one for one in planned if one.late], local=zone(the_farm()), may=member().role in SIGNERS
    )


def _card(treatment: uuid.UUID, errors: dict[str, str] | None = None) -> str:
    farm, at = the_farm(), now()
    row = db().get(TreatmentRow, (farm.id, treatment))
    if row is None:
        abort(404)
    block = db().get_one(Block, (farm.id, row.block_id))
    one = timing.one(db(), farm, g.known, row, block, at)
    blocks = [(str(each.id), each.name, each.place, each.outline) for each in rounds.blocks_of(db(), farm)]
    form: Any = request.form if request.method == "POST" else None
    blocked = one.control.kind == "conventional" and not member().qualified
    return render_template(
        "job_card.html",
        one=one,
        checks=calls.checks(one.control),
        weather=block_weather.at(db(), farm, block, at),
        hour=one.state_at(at),
        plan=plan_svg(blocks, (), {str(block.id): "must"}),
        errors=errors or {},
        form=form,
        record_id=child(treatment, "application"),
        unit_pairs=[(unit, unit) for unit in UNITS],
        may=member().role in SIGNERS and not blocked and row.state == "planned",
        blocked=blocked,
        start=(at - dt.timedelta(hours=1)).strftime("%Y-%m-%dT%H:%M"),
        end=at.strftime("%Y-%m-%dT%H:%M"),
    )


@blueprint.get("/f/<uuid:farm>/do/<uuid:treatment>")
@on_farm
def card(treatment: uuid.UUID) -> str:
    return _card(treatment)


@blueprint.post("/f/<uuid:farm>/do/<uuid:treatment>")
@on_farm
def sign(treatment: uuid.UUID) -> Response | tuple[str, int]:
    def moment(name: str) -> str:
        try:
            return dt.datetime.fromisoformat(request.form.get(name, "")).replace(tzinfo=zone(the_farm())).isoformat()
        except ValueError:
            return request.form.get(name, "")

    payload = {
        "treatment_id": str(treatment),
        "started_at": moment("started_at"),
        "finished_at": moment("finished_at"),
        "amount": request.form.get("amount", ""),
        "amount_unit": request.form.get("amount_unit", ""),
        "area": request.form.get("area", ""),
        "note": request.form.get("note", ""),
        "checks": request.form.getlist("checks"),
    }
    try:
        forms.send("application.record", payload)
    except Refused as error:
        return _card(treatment, error.errors), 400
    flash("Signed. The return look stands on the round of its day.", "good")
    return redirect(url_for("do.page", farm=the_farm().id))
