"""Drawings by address, so that a browser keeps them."""

from flask import Blueprint, Response, abort

from bootmark.core.catalogue import default
from bootmark.web.drawing.plant import plant_svg
from bootmark.web.drawing.signs import DRAWN, sign_svg

blueprint = Blueprint("drawing", __name__)


def _svg(text: str) -> Response:
    answer = Response(text, mimetype="image/svg+xml")
    answer.headers["Cache-Control"] = "public, max-age=86400"
    return answer


@blueprint.get("/drawing/sign/<sign>.svg")
def sign(sign: str) -> Response:
    if sign not in DRAWN or sign not in default().signs:
        abort(404)
    return _svg(sign_svg(sign))


@blueprint.get("/drawing/plant.svg")
def plant_picture() -> Response:
    return _svg(plant_svg())
