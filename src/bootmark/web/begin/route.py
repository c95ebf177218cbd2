"""The beginning: on an installation without accounts, the code that its start printed makes the first account and farm."""

import hmac
import logging
import math
import os
import uuid
from collections.abc import Mapping

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from flask_login import login_user
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.logs import SECURITY
from bootmark.services.base import passwords, sign_ins
from bootmark.services.base.command import Refused
from bootmark.services.base.work import nobody
from bootmark.services.owning import founding, lands
from bootmark.services.owning.founding import Beginning
from bootmark.web import forms, guard
from bootmark.web.guard import User, asked_from, real_now

blueprint = Blueprint("begin", __name__, template_folder=".")
log = logging.getLogger(SECURITY)
CODE = "BOOTMARK_FIRST_CODE"


def waits() -> bool:
    """Whether this installation waits for its first account, and may get it here."""
    if not os.environ.get(CODE):
        return False
    with nobody() as db:
        return founding.is_empty(db)


def _page(errors: Mapping[str, str] | None = None) -> str:
    form = request.form if errors else {}
    return render_template("begin.html", errors=forms.Errors(errors), form=form, hint=passwords.hint())


@blueprint.get("/begin")
def page() -> str | Response:
    return _page() if waits() else redirect(url_for("sign_in.page"))


def _degrees(name: str) -> float:
    """Degrees as typed, not a number where they can't be read."""
    try:
        return float(request.form.get(name, "").strip().replace(",", "."))
    except ValueError:
        return math.nan


def _code_errors() -> dict[str, str]:
    """What is wrong with the code. A transaction of its own: a wrong one is counted whatever comes."""
    key = f"begin:{asked_from().address}"
    typed = request.form.get("code", "").strip().upper().replace(" ", "").replace("-", "")
    wanted = os.environ.get(CODE, "").replace("-", "")
    with nobody() as tries:
        if wait := sign_ins.waits(tries, key, sign_ins.PAIR, real_now()):
            return {"code": guard.too_soon(wait)}
        if hmac.compare_digest(typed.encode(), wanted.encode()):
            return {}
        sign_ins.failed(tries, key, real_now())
    return {"code": say.line("That is not the code. It stands on the terminal where Bootmark was started.")}


@blueprint.post("/begin")
def enter() -> Response | tuple[str, int]:
    if not waits():
        abort(404)
    latitude, longitude = _degrees("latitude"), _degrees("longitude")
    is_place = abs(latitude) <= 90 and abs(longitude) <= 180
    zone = lands.zone_at(latitude, longitude) if is_place else "Etc/UTC"
    form = request.form
    beginning = Beginning(form.get("name", ""), (latitude, longitude), zone, form.get("person", ""), form.get("email", ""))
    try:
        if errors := _code_errors():
            raise Refused(**errors)
        with nobody() as db:
            farm = uuid.uuid4()
            person = founding.begin_first(db, farm, beginning, form.get("password", ""))
            fresh = sign_ins.begin(db, person, asked_from(), real_now()) if person else ""
    except Refused as error:
        return _page(error.errors), 400
    if not fresh:
        return redirect(url_for("sign_in.page"))
    log.info({"event": "first account made"})
    session.clear()
    login_user(User(fresh))
    return redirect(url_for("farm.page", farm=farm))
