"""Trap register: where each trap hangs, what it caught, what it waits for."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, abort, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark.core.field import traps as rules
from bootmark.services import field, rounds, traps
from bootmark.services.commands import Refused
from bootmark.store.season_models import Trap
from bootmark.web import forms
from bootmark.web.drawing.plan import plan_svg
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.trap.svg import catches_svg

blueprint = Blueprint("trap", __name__, template_folder=".")


def _hanging(today: dt.date) -> list[traps.Hanging]:
    """Traps that wait come first, the longest wait leading."""
    found = traps.register(db(), the_farm(), today)
    return sorted(found, key=lambda one: (min((due.on for due in one.due), default=dt.date.max), one.trap.name))


def _plan(hanging: list[traps.Hanging], today: dt.date) -> str:
    blocks = rounds.blocks_of(db(), the_farm())
    spots = [(one.trap.x, one.trap.y, one.trap.name, any(due.on <= today for due in one.due)) for one in hanging]
    return plan_svg([(str(block.id), block.name, block.place, block.outline) for block in blocks], spots=spots)


def _page(errors: dict[str, str] | None = None, form: Any = None, wrong: str = "") -> str:
    today, farm = now().date(), the_farm()
    hanging = _hanging(today)
    return render_template(
        "traps.html",
        hanging=hanging,
        plan=_plan(hanging, today),
        blocks={block.id: block for block in rounds.blocks_of(db(), farm)},
        proposals=traps.proposals(db(), farm, g.known, today, hanging),
        waiting=[one for one in hanging if any(due.on <= today for due in one.due)],
        kinds=rules.KINDS,
        today=today,
        errors=errors or {},
        form=form,
        wrong=wrong,
        may=member().role in field.SCOUTS,
    )


@blueprint.get("/f/<uuid:farm>/traps")
@on_farm
def page() -> str:
    return _page()


def _edit(trap: Trap | None, errors: dict[str, str] | None = None) -> str:
    agents = sorted(
        ((agent.id, agent.name) for agent in g.known.agents.values() if agent.is_pest and agent.kind in ("insect", "mite")),
        key=lambda pair: pair[1],
    )
    shown = request.form if errors else {}
    today, farm = now().date(), the_farm()
    checks = next((one for one in traps.register(db(), farm, today, ended=True) if trap and one.trap.id == trap.id), None)
    return render_template(
        "trap.html",
        trap=trap,
        form=shown,
        errors=errors or {},
        agents=agents,
        kinds=list(rules.KINDS.items()),
        blocks=[(str(block.id), block.name, rounds.middle(block)) for block in rounds.blocks_of(db(), farm)],
        checks=checks.checks if checks else (),
        svg=catches_svg([(row.on, row.caught) for row in checks.checks], today) if checks and checks.checks else "",
        lure_days=rules.LURE_DAYS,
        check_days=rules.CHECK_DAYS,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/traps/new")
@on_farm
def new() -> str:
    return _edit(None)


@blueprint.get("/f/<uuid:farm>/traps/<uuid:trap>")
@on_farm
def one(trap: uuid.UUID) -> str:
    found = db().get(Trap, (the_farm().id, trap))
    if found is None:
        abort(404)
    return _edit(found)


@blueprint.post("/f/<uuid:farm>/traps")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    names = ("name", "block_id", "agent", "kind", "x", "y", "set_on", "lure_on", "lure_days", "check_days")
    payload: dict[str, Any] = {name: request.form.get(name, "") for name in names}
    payload["ended"] = request.form.get("ended") == "yes"
    record = request.form.get("record_id", "")
    try:
        result = forms.send("trap.save", payload)
    except Refused as error:
        found = db().get(Trap, (the_farm().id, uuid.UUID(record))) if record else None
        return _edit(found, error.errors), 400
    if result["status"] == "conflict":
        flash("Somebody else changed this trap meanwhile: both versions are kept, and the Book shows them.", "warn")
    return redirect(url_for("trap.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/traps/<uuid:trap>/check")
@on_farm
def check(trap: uuid.UUID) -> AnyResponse | tuple[str, int]:
    payload = {
        "trap_id": str(trap),
        "on": request.form.get("on", ""),
        "caught": request.form.get("caught", ""),
        "new_lure": request.form.get("new_lure") == "yes",
        "note": request.form.get("note", ""),
    }
    try:
        forms.send("trap.check", payload)
    except Refused as error:
        return _page(error.errors, request.form, str(trap)), 400
    return redirect(url_for("trap.page", farm=the_farm().id, _anchor=f"t-{trap}"))
