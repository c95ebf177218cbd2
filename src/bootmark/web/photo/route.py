"""Photographs: one that waited on a phone arrives here, by itself; and each is shown from here."""

import uuid

from flask import Blueprint, Response, jsonify, request

from bootmark import say
from bootmark.services import writing
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.handling import believed, device_moment
from bootmark.services.base.roles import DESK, SCOUTS
from bootmark.services.scouting import photos, pictured, tagged
from bootmark.services.scouting.measuring import Asked, outline_of
from bootmark.web.guard import at_most, db, member, now, on_farm, only, real_now, the_farm

blueprint = Blueprint("photo", __name__)


def _id(name: str) -> uuid.UUID | None:
    text = request.form.get(name)
    try:
        return uuid.UUID(text) if text else None
    except ValueError as error:
        raise Refused(**{name: say.line("This is no {name} of this farm.", name=name)}) from error


@blueprint.post("/f/<uuid:farm>/photo")
@on_farm
@at_most(60)
def receive() -> tuple[Response, int]:
    """One photograph for a stop or an enquiry. The same bytes for the same place are stored once, however often they come."""
    sent = request.files.get("photo")
    taken, sent_at = (device_moment(request.form.get(name)) for name in ("seen_at", "sent_at"))
    try:
        stop, enquiry, treatment = _id("stop"), _id("enquiry"), _id("treatment")
        only(DESK if enquiry else SCOUTS)
        if sent is None or sum(map(bool, (stop, enquiry, treatment))) != 1:
            raise Refused(photo=say.line("Send one picture as photo, with the stop, the enquiry or the treatment that it belongs to."))
        asked, tag = Asked.read(request.form), request.form.get("tag", "").strip()
        if len(tag) > tagged.MOST_TAG:
            raise Refused(tag=say.line("A tag has up to {most} letters: shorten it.", most=tagged.MOST_TAG))
        seen_at = believed(taken + writing.off_by(the_farm(), sent_at, real_now()), now()) if taken else now()
        place = "keep_place" in request.form
        belongs = {"stop": stop, "enquiry": enquiry, "treatment": treatment}
        photo = photos.attach(db(), member(), sent.read(), seen_at, **belongs, keep_place=place, asked=asked, tag=tag)
    except Refused as error:
        return jsonify(status="refused", errors=error.errors), 403 if isinstance(error, Forbidden) else 422
    return jsonify(status="stored", record_id=str(photo)), 200


@blueprint.get("/f/<uuid:farm>/photo/<uuid:photo>/measured.jpg")
@on_farm
@at_most(60)
def measured(photo: uuid.UUID) -> Response:
    """What was measured on a photograph, laid over it."""
    answer = Response(pictured.drawn_over(db(), photo, outline_of(request.args.get("outline", ""))), mimetype="image/jpeg")
    answer.headers["Cache-Control"] = "private, max-age=86400"
    return answer


@blueprint.get("/f/<uuid:farm>/photo/<uuid:photo>.jpg")
@on_farm
def picture(photo: uuid.UUID) -> Response:
    answer = Response(photos.content(db(), photo), mimetype="image/jpeg")
    answer.headers["Cache-Control"] = "private, max-age=86400, immutable"
    return answer
