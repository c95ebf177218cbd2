"""Round: where to walk today, why there, in which order, and what to carry."""

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.scouting import closed, looks
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.round.sight import sight

blueprint = Blueprint("round", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/round")
@on_farm
def page() -> str:
    seen = sight(now())
    return render_template(
        "round.html",
        seen=seen,
        walk=seen.walk,
        crops=g.catalogue.crops,
        may_walk=member().role in SCOUTS,
        keeper=member().role in KEEPERS,
    )


@blueprint.post("/f/<uuid:farm>/round/open")
@on_farm
def open_stop() -> Response:
    """Open a stop and go to its Look bench; pressed twice it opens once. Nobody is sent into a block that is closed."""
    block = request.form.get("block_id", "")
    shut = {str(place): why for place, why in closed.blocks(db(), g.catalogue, now()).items()}
    if block in shut:
        flash(say.tongue().say(shut[block]), "bad")
        return redirect(url_for("round.page", farm=the_farm().id))
    result = forms.send(looks.OpenStop)
    return redirect(url_for("look.page", farm=the_farm().id, stop=result["record_id"]))
