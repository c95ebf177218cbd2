"""Stages: where each pest is, and what comes next."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark.services import field, results, rounds, traps
from bootmark.services.commands import Refused
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.stages.sight import Filters, screen, sight

blueprint = Blueprint("stages", __name__, template_folder=".")


def _filters() -> Filters:
    return Filters(*(request.args.get(name, "") for name in Filters._fields))


def _page(errors: dict[str, str] | None = None, form: Any = None) -> str:
    today, filters = now().date(), _filters()
    seen, run = sight(today, filters)
    return render_template(
        "stages.html",
        seen=seen,
        run=run,
        filters=filters,
        errors=errors or {},
        form=form,
        may=member().role in field.SCOUTS,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/stages")
@on_farm
def page() -> str:
    return _page()


@blueprint.get("/f/<uuid:farm>/stages/part")
@on_farm
def part() -> str:
    """The next ribbons, as one scrolls."""
    today, farm, filters = now().date(), the_farm(), _filters()
    start = max(request.args.get("from", 0, type=int), 0)
    shown = filters.of(results.listing(db(), farm, rounds.blocks_of(db(), farm), g.known, today))
    return screen(shown, filters, today, start, traps.register(db(), farm, today))


@blueprint.get("/f/<uuid:farm>/stages/progress")
@on_farm
def progress() -> AnyResponse:
    run = results.newest_run(db(), the_farm())
    return jsonify(
        {"total": run.total if run else 0, "done": run.done if run else 0, "finished": run is None or run.finished_at is not None}
    )


@blueprint.post("/f/<uuid:farm>/stages/biofix")
@on_farm
def set_biofix() -> AnyResponse | tuple[str, int]:
    payload = {name: request.form.get(name, "") for name in ("block_id", "agent", "on", "basis")}
    try:
        forms.send("biofix.set", payload)
    except Refused as error:
        return _page(error.errors, request.form), 400
    block = uuid.UUID(payload["block_id"])
    flash(f"Heat is counted from {dt.date.fromisoformat(payload['on']):%-d %B}.", "good")
    return redirect(url_for("season.page", farm=the_farm().id, block=block, agent=payload["agent"]))
