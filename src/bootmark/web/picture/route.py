"""A picture of the farm, laid under the plan by two or three of its spots."""

import json
import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.meanings import Form
from bootmark.services import pictures
from bootmark.services.base import ground
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.work import NotHere
from bootmark.web import forms
from bootmark.web.guard import at_most, db, member, on_farm, only, real_now, the_farm
from bootmark.web.plan import board_of, in_degrees, posted

blueprint = Blueprint("picture", __name__, template_folder=".")


def _page(errors: Mapping[str, str] | None = None, sent: Mapping[str, str] | None = None) -> str:
    only(KEEPERS)
    laid, shown = pictures.newest(db()), request.form if errors else {}
    image_id = shown.get("image_id") or request.args.get("image") or (str(laid.image_id) if laid else "")
    image = pictures.image(db(), _id(image_id)) if image_id else None
    own = laid if laid and image and laid.image_id == image.id else None
    return render_template(
        "picture.html",
        laid=laid,
        image=image,
        marks=_marks_board(image, _read(shown.get("marks"), own.marks if own else [])) if image else None,
        board=_plan_board(own, shown),
        errors=forms.Errors(errors),
        sent=forms.Errors(sent),
        form=shown,
    )


def _id(text: str) -> uuid.UUID:
    """Raises NotHere where it is none."""
    try:
        return uuid.UUID(text)
    except ValueError as error:
        raise NotHere("plan_image") from error


def _marks_board(image: Any, marks: Any) -> dict[str, Any]:
    """What the board over the picture is given: pixels are its metres."""
    under = {"href": url_for("picture.show", farm=the_farm().id, image=image.id), "width": image.width, "height": image.height}
    focus = [[0, 0], [image.width, image.height]]
    return board_of(the_farm(), (), marks, form=Form.SPOTS, focus=focus) | {"under": under, "field": "marks"}


def _plan_board(own: Any, shown: Mapping[str, str]) -> dict[str, Any]:
    stands = [list(point) for point in ground.origin(the_farm()).to_plan(own.points)] if own else []
    return board_of(the_farm(), ground.blocks(db()), posted(the_farm(), shown.get("outline"), stands), form=Form.SPOTS)


def _read(text: str | None, else_: Any) -> Any:
    try:
        return json.loads(text) if text else else_
    except ValueError:
        return else_


@blueprint.get("/f/<uuid:farm>/farm/picture")
@on_farm
def page() -> str:
    return _page()


@blueprint.post("/f/<uuid:farm>/farm/picture/image")
@on_farm
@at_most(12)
def receive() -> AnyResponse | tuple[str, int]:
    only(KEEPERS)
    picture = request.files.get("picture")
    try:
        if not picture:
            raise Refused(picture=say.line("Choose a picture first."))
        image = pictures.take_in(db(), member(), picture.read(), real_now())
    except Refused as error:
        return _page(sent={"picture": " ".join(error.errors.values())}), 400
    return redirect(url_for("picture.page", farm=the_farm().id, image=image))


@blueprint.post("/f/<uuid:farm>/farm/picture")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    only(KEEPERS)
    try:
        points = in_degrees(the_farm(), request.form.get("outline"))
        result = forms.send(pictures.LayPicture, marks=_read(request.form.get("marks"), []), points=points)
    except Refused as error:
        return _page(error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else laid the picture otherwise meanwhile: both versions are kept, and the Book shows them."), "warn")
    return redirect(url_for("farm.page", farm=the_farm().id))


@blueprint.get("/f/<uuid:farm>/farm/picture/<uuid:image>.jpg")
@on_farm
def show(image: uuid.UUID) -> Response:
    answer = Response(pictures.image(db(), image).content, mimetype="image/jpeg")
    answer.headers["Cache-Control"] = "private, max-age=86400, immutable"
    return answer
