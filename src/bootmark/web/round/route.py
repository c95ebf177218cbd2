"""Round: where to walk today, why there, in which order, and what to carry."""

from flask import Blueprint, g, redirect, render_template, url_for
from werkzeug.wrappers import Response

from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.scouting import looks
from bootmark.web import forms
from bootmark.web.guard import member, now, on_farm, the_farm
from bootmark.web.round.sight import sight

blueprint = Blueprint("round", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/round")
@on_farm
def page() -> str:
    seen = sight(now().date())
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
    """Open a stop and go to its Look bench; pressed twice it opens once."""
    result = forms.send(looks.OpenStop)
    return redirect(url_for("look.page", farm=the_farm().id, stop=result["record_id"]))
