"""Look: what is doing this."""

import uuid
from typing import Any

from flask import Blueprint, Response, abort, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark.core.catalogue.model import PARTS, Catalogue
from bootmark.core.types import STATES
from bootmark.services import field, photos, stops
from bootmark.services.commands import Refused
from bootmark.store.models import Photo
from bootmark.web import at_stop
from bootmark.web.drawing.plant import label, plant_parts
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("look", __name__, template_folder=".")
ALWAYS = ("leaf-still-green-and-working", "soil-dry-a-finger-deep", "soil-sodden", "perks-up-hours-after-water", "irrigation-not-running")


def signs_for(known: Catalogue, crop: str) -> list[Any]:
    """Signs that any cause on this crop can leave, in the catalogue's order."""
    wanted = {sign for agent in known.on(crop) for sign in agent.shows} | set(ALWAYS)
    return [sign for sign in known.signs.values() if sign.id in wanted]


@blueprint.get("/f/<uuid:farm>/look")
@on_farm
def newest() -> str | AnyResponse:
    return at_stop.newest("look")


@blueprint.get("/f/<uuid:farm>/look/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    here = at_stop.find(stop)
    told = here.look.signs if here.look else {}
    signs = signs_for(g.known, here.block.crop)
    ranked = field.draft(db(), the_farm(), here.block, now(), told, g.known)
    bench = {
        "stop": str(stop),
        "look": str(stops.child(stop, "look")),
        "version": here.look.version if here.look else 0,
        "signs": told,
        "note": here.look.note if here.look else "",
        "ranked": ranked,
        "names": {sign.id: sign.name for sign in signs},
        "parts": {sign.id: sign.part for sign in signs},
        "glance": [sign.id for sign in signs if sign.look == "glance"],
        "rank": url_for("look.rank", farm=the_farm().id, stop=stop),
        "count": url_for("count.page", farm=the_farm().id, stop=stop),
        "call": url_for("call.page", farm=the_farm().id, stop=stop),
        "now": now().isoformat() if the_farm().clock_at else "",
        "block": here.block.name,
        "may": member().role in field.SCOUTS,
    }
    used = [part for part in PARTS if any(sign.part == part for sign in signs)]
    return render_template(
        "look.html",
        here=here,
        bench=bench,
        signs=signs,
        parts=used,
        plant=[(part, body) for part, body in plant_parts()],
        labels={part: label(part) for part in used},
        photos=stops.photos(db(), the_farm(), stop),
        photo_id=uuid.uuid4(),
        crop=g.known.crops[here.block.crop],
    )


@blueprint.post("/f/<uuid:farm>/look/<uuid:stop>/rank")
@on_farm
def rank(stop: uuid.UUID) -> Response | tuple[Response, int]:
    """The whole case comes with its sequence number and goes back ranked; nothing is stored."""
    here = at_stop.find(stop)
    told = request.get_json(silent=True) or {}
    signs = told.get("signs")
    if not isinstance(signs, dict) or any(sign not in g.known.signs or state not in STATES for sign, state in signs.items()):
        return jsonify(error="Signs are told as sign: seen, absent or unsure."), 422
    return jsonify(seq=told.get("seq", 0), **field.draft(db(), the_farm(), here.block, now(), signs, g.known))


@blueprint.post("/f/<uuid:farm>/look/<uuid:stop>/photo")
@on_farm
def photo(stop: uuid.UUID) -> AnyResponse:
    at_stop.find(stop)
    if member().role not in field.SCOUTS:
        abort(403)
    sent = request.files.get("photo")
    try:
        if sent is None or not sent.filename:
            raise Refused(photo="No picture was chosen: take one or choose a file first.")
        photos.attach(
            db(), member(), uuid.UUID(request.form["photo_id"]), sent.read(), now(), stop=stop, keep_place="keep_place" in request.form
        )
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
    except (KeyError, ValueError):
        abort(400)
    return redirect(url_for("look.page", farm=the_farm().id, stop=stop))


@blueprint.get("/f/<uuid:farm>/photo/<uuid:photo>.jpg")
@on_farm
def picture(photo: uuid.UUID) -> Response:
    found = db().get(Photo, (the_farm().id, photo))
    if found is None:
        abort(404)
    answer = Response(found.content, mimetype="image/jpeg")
    answer.headers["Cache-Control"] = "private, max-age=86400"
    return answer
