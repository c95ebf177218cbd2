"""Look: what is doing this."""

import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.case.answer import written
from bootmark.case.asked import AskedCase
from bootmark.core.catalogue.plants import understand
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import closed, findings, looks, photos, stops
from bootmark.services.scouting.stops import AtStop
from bootmark.services.treatment import weighing
from bootmark.web import at_stop, field, forms
from bootmark.web import bench as bench_parts
from bootmark.web.guard import at_most, db, member, now, on_farm, only, the_farm

blueprint = Blueprint("look", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/look")
@on_farm
def newest() -> str | AnyResponse:
    return at_stop.newest("look")


@blueprint.get("/f/<uuid:farm>/look/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    return _page(stop)


def _page(stop: uuid.UUID, errors: Mapping[str, str] | None = None) -> str:
    here = at_stop.find(stop)
    signs = here.look.signs if here.look else {}
    pick = bench_parts.pick_from(g.catalogue, here.block.crop)
    answered = looks.answered(db(), the_farm(), here.block, now(), signs, g.catalogue)
    bench = {
        "kind": looks.RecordLook.spec.kind,
        "v": looks.RecordLook.spec.v,
        "title": say.line("Look at {name}", name=here.block.name),
        "record": str(stops.child(stop, "look")),
        "payload": {"stop_id": str(stop)},
        "finding": url_for("look.finding", farm=the_farm().id, look=stops.child(stop, "look")),
        "base": str(here.look.command_id) if here.look else None,
        "signs": signs,
        "note": here.look.note if here.look else "",
        "ranked": bench_parts.ranked(answered),
        "draft": f"look/{stop}",
        "tools": bench_parts.tools_of(g.catalogue),
        "rank": url_for("look.rank", farm=the_farm().id, stop=stop),
        "onward": {
            "round": url_for("round.page", farm=the_farm().id),
            "count": url_for("count.page", farm=the_farm().id, stop=stop),
            "call": url_for("call.page", farm=the_farm().id, stop=stop),
        },
        "guide": url_for("guide.agent", farm=the_farm().id, agent="-"),
        "may": member().role in SCOUTS,
    } | pick.script
    return render_template(
        "look.html",
        here=here,
        bench=bench,
        pick=pick,
        photos=photos.of_stop(db(), stop),
        crop=g.catalogue.crops[here.block.crop],
        shut=closed.blocks(db(), g.catalogue, now()).get(here.block.id),
        drawing=drawing.shape() if (drawing := field.of(here.block)) else None,
        errors=forms.Errors(errors),
        placed=request.form if errors else _placed(here),
    )


def _placed(here: AtStop) -> dict[str, Any]:
    """Where a stop is in its block, as its form shows it."""
    stop = here.stop
    place = {name: "" if (degrees := getattr(stop, name)) is None else degrees for name in ("longitude", "latitude")}
    return place | {"where": stop.where, "flagged": stop.flagged}


@blueprint.post("/f/<uuid:farm>/look/<uuid:stop>/rank")
@on_farm
@at_most(1200)
def rank(stop: uuid.UUID) -> Response | tuple[Response, int]:
    """The whole case comes with its sequence number and goes back ranked; nothing is stored."""
    here = at_stop.find(stop)
    posted = forms.posted()
    signs = bench_parts.signs_sent(g.catalogue, posted)
    if signs is None:
        return jsonify(error=say.line("Signs are told as sign: seen, absent or unsure.")), 422
    carried = posted.get("tools")
    tools = frozenset(str(tool) for tool in carried) if isinstance(carried, list) else None
    answered = looks.answered(db(), the_farm(), here.block, now(), signs, g.catalogue, tools)
    if posted.get("as") == "case":
        return jsonify(_as_case(here, answered))
    return jsonify(seq=posted.get("seq", 0), **bench_parts.ranked(answered))


def _as_case(here: AtStop, answered: looks.Answered) -> dict[str, Any]:
    """The case as `./bootmark case` answers it (docs/case.md)."""
    case = answered.case
    asked_case = AskedCase(
        id=str(here.stop.id),
        case=case,
        plant=understand(case.crop, g.catalogue),
        crop=weighing.crop_state(db(), the_farm(), here.block, now().date()),
        policy=weighing.policy_of(the_farm()),
        samples={},
        month_given=True,
    )
    return written(asked_case, answered.ranking, answered.looks, answered.verdict, g.catalogue)


@blueprint.get("/f/<uuid:farm>/finding/<uuid:look>")
@on_farm
def finding(look: uuid.UUID) -> str:
    """One finding with its evidence, its earlier versions, and what was found of its agents on that block."""
    row = findings.of_look(db(), look)
    return render_template("finding.html", finding=row, catalogue=g.catalogue)


@blueprint.post("/f/<uuid:farm>/look/<uuid:stop>/place")
@on_farm
def place(stop: uuid.UUID) -> AnyResponse | tuple[str, int]:
    """Keep where in its block a stop is: row and plant, the device's place, a flag."""
    here = at_stop.find(stop).stop
    same = {"block_id": str(here.block_id), "return_id": here.return_id, "planting_id": here.planting_id}
    try:
        forms.send(looks.OpenStop, **{name: str(value) if value else None for name, value in same.items()})
    except Refused as error:
        return _page(stop, error.errors), 400
    flash(say.line("The place is kept."), "good")
    return redirect(url_for("look.page", farm=the_farm().id, stop=stop))


@blueprint.post("/f/<uuid:farm>/look/<uuid:stop>/photo")
@on_farm
@at_most(60)
def photo(stop: uuid.UUID) -> AnyResponse:
    at_stop.find(stop)
    only(SCOUTS)
    sent = request.files.get("photo")
    try:
        if sent is None or not sent.filename:
            raise Refused(photo=say.line("No picture was chosen: take one or choose a file first."))
        photos.attach(db(), member(), sent.read(), now(), stop=stop, keep_place="keep_place" in request.form)
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    return redirect(url_for("look.page", farm=the_farm().id, stop=stop))
