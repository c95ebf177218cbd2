"""Stages: where each pest is, and what comes next."""

import datetime as dt
import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import SCOUTS
from bootmark.services.seasons import biofixes, results, traps
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.stages.sight import Filters, screen, sight

blueprint = Blueprint("stages", __name__, template_folder=".")


def _filters() -> Filters:
    return Filters(*(request.args.get(name, "") for name in Filters._fields))


def _page(errors: Mapping[str, str] | None = None, form: Any = None) -> str:
    today, filters = now().date(), _filters()
    seen, run = sight(today, filters)
    return render_template(
        "stages.html",
        seen=seen,
        run=run,
        filters=filters,
        errors=forms.Errors(errors),
        form=form,
        may=member().role in SCOUTS,
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
    start = forms.from_place()
    shown = filters.of(results.listing(db(), farm, ground.blocks(db()), g.catalogue, today))
    return screen(shown, filters, today, start, traps.register(db(), today))


@blueprint.get("/f/<uuid:farm>/stages/progress")
@on_farm
def progress() -> AnyResponse:
    run = results.newest_run(db())
    return jsonify(
        {"total": run.total if run else 0, "done": run.done if run else 0, "finished": run is None or run.finished_at is not None}
    )


@blueprint.post("/f/<uuid:farm>/stages/biofix")
@on_farm
def set_biofix() -> AnyResponse | tuple[str, int]:
    try:
        result = forms.send(biofixes.SetBiofix)
    except Refused as error:
        return _page(error.errors, request.form), 400
    form = request.form
    forms.flash_kept(say.line("Heat is counted from {begun:day}.", begun=dt.date.fromisoformat(form["on"])), result)
    return redirect(url_for("season.page", farm=the_farm().id, block=uuid.UUID(form["block_id"]), agent=form["agent"]))
