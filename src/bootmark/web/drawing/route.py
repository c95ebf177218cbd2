"""Drawings by address, so that a browser keeps them."""

from flask import Blueprint, Response, abort, request

from bootmark.core.catalogue import default
from bootmark.core.catalogue.drawn import TOLD
from bootmark.drawing import eaten, stages
from bootmark.drawing.leaf import FORMS
from bootmark.drawing.plant import plant_svg
from bootmark.drawing.signs import USUAL, sign_svg

EATEN = (0, 5, 10, 20, 35, 50, 75)
"""Per cent of a leaf that is lost, as it is drawn to hold real ones against."""
blueprint = Blueprint("drawing", __name__)


def _svg(text: str) -> Response:
    answer = Response(text, mimetype="image/svg+xml")
    answer.headers["Cache-Control"] = "public, max-age=86400"
    return answer


@blueprint.get("/drawing/sign/<sign>.svg")
def sign(sign: str) -> Response:
    """leaf: a leaf form; severity: 0 to 1."""
    form, severity = request.args.get("leaf", "ovate"), request.args.get("severity", USUAL, type=float)
    if sign not in default().signs or form not in FORMS or not 0 <= severity <= 1:
        abort(404)
    return _svg(sign_svg(sign, form, severity))


@blueprint.get("/drawing/stage/<agent>/<stage>.svg")
def stage(agent: str, stage: str) -> Response:
    entry = default().agents.get(agent)
    marks = tuple(request.args.getlist("mark"))
    if entry is None or stage not in (*entry.stages, *stages.stages_of(entry)) or not set(marks) <= set(TOLD) or len(marks) > len(TOLD):
        abort(404)
    return _svg(stages.of_agent(entry, stage, marks))


@blueprint.get("/drawing/eaten/<int:percent>.svg")
def eaten_leaf(percent: int) -> Response:
    """leaf: a leaf form."""
    form = request.args.get("leaf", "ovate")
    if percent not in EATEN or form not in FORMS:
        abort(404)
    return _svg(eaten.eaten_svg(form, percent))


@blueprint.get("/drawing/plant.svg")
def plant_picture() -> Response:
    return _svg(plant_svg())
