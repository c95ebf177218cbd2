"""Round: where to walk today, why there, in which order, and what to carry."""

from flask import Blueprint, g, redirect, render_template, url_for
from werkzeug.wrappers import Response

from bootmark.services.scouting import looks, rounds
from bootmark.web import forms
from bootmark.web.drawing.plan import plan_svg
from bootmark.web.guard import db, now, on_farm, real_now, the_farm

blueprint = Blueprint("round", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/round")
@on_farm
def page() -> str:
    farm, today = the_farm(), now().date()
    walk, blocks = rounds.today(db(), farm, g.known, today, real_now())
    by_id = {str(block.id): block for block in blocks}
    shapes = [(str(block.id), block.name, block.place, block.outline) for block in blocks]
    order = [stop.block for stop in walk.stops]
    marks = {stop.block: "must" if stop.whys[0].weight >= 50 else "" for stop in walk.stops}
    first = max(walk.stops, key=lambda stop: stop.weight, default=None)
    return render_template(
        "round.html",
        walk=walk,
        by_id=by_id,
        crops=g.known.crops,
        plan=plan_svg(shapes, order, marks),
        first=first,
        opened=rounds.opened_today(db(), today),
        today=today,
        may_walk=g.member.role != "viewer",
    )


@blueprint.post("/f/<uuid:farm>/round/open")
@on_farm
def open_stop() -> Response:
    """Open a stop and go to its Look bench; pressed twice it opens once."""
    result = forms.send(looks.OpenStop)
    return redirect(url_for("look.page", farm=the_farm().id, stop=result["record_id"]))
