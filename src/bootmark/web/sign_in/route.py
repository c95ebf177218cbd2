"""Sign in and out, choose the farm, and say again who it is before signing."""

import logging
from typing import Any
from urllib.parse import urlsplit

from flask import Blueprint, jsonify, redirect, render_template, request, session, url_for
from flask_login import current_user, login_user
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.core.field.tour import Turn
from bootmark.logs import SECURITY
from bootmark.services import tour
from bootmark.services.base import people, sign_ins
from bootmark.services.base.people import Member
from bootmark.services.base.work import nobody
from bootmark.web import forms, guard, held
from bootmark.web.begin import route as begin
from bootmark.web.guard import User, asked_from, here, real_now, signed_in, token

blueprint = Blueprint("sign_in", __name__, template_folder=".")
log = logging.getLogger(SECURITY)


def _inside(target: str) -> str:
    """The address to go on to, only if it lies on this site."""
    parts = urlsplit(target)
    safe = target.startswith("/") and not target.startswith(("//", "/\\")) and not parts.netloc and target.isprintable()
    return target if safe else url_for("sign_in.start")


@blueprint.get("/")
def start() -> Any:
    if not current_user.is_authenticated:
        return redirect(url_for("sign_in.page"))
    return _farms()


@signed_in
def _farms() -> Any:
    with nobody() as db:
        farms = people.memberships(db, here().person.id)
    if len(farms) == 1:
        return redirect(url_for("round.page", farm=farms[0].farm_id))
    return _listed(farms)


@blueprint.get("/farms")
@signed_in
def farms() -> str:
    """Every farm that one is on, however many they are."""
    with nobody() as db:
        mine = people.memberships(db, here().person.id)
    return _listed(mine)


def _listed(farms: list[Member]) -> str:
    """Farms to choose from; of several the day on each, in the order in which nothing is carried from one to the next."""
    days = tour.today(farms, token(), default(), real_now()) if len(farms) > 1 else []
    shown = {row.member.farm_id for row in days}
    return render_template("farms.html", farms=[farm for farm in farms if farm.farm_id not in shown], days=days, Turn=Turn)


def _page(email: str, to: str, errors: dict[str, str]) -> str:
    own = request.form if request.method == "POST" else {}
    return render_template("sign_in.html", email=email, errors=forms.Errors(errors), to=to, form=own, held=own.get("held", ""))


@blueprint.get("/sign-in")
def page() -> str | Response:
    if begin.waits():
        return redirect(url_for("begin.page"))
    return _page("", request.args.get("next", ""), {})


@blueprint.post("/sign-in")
def enter() -> str | Response | tuple[str, int] | tuple[str, int, dict[str, str]]:
    email, to = request.form.get("email", ""), request.form.get("to", "")
    own_phone = (request.form.get("device", "").strip() or say.line("My phone")) if request.form.get("own_phone") else ""
    if not own_phone.isprintable():
        return _page(email, to, {"device": say.line("Name the phone in plain letters.")}), 400
    # Its own transaction: a failed try is counted whatever comes after it.
    with nobody() as db:
        attempt = sign_ins.check(db, email, request.form.get("password", ""), asked_from(), real_now())
        fresh = sign_ins.begin(db, attempt.person, asked_from(), real_now(), own_phone=own_phone) if attempt.person else ""
    if attempt.wait:
        log.warning({"event": "sign-in", "outcome": sign_ins.Outcome.SLOWED})
        return _page(email, to, {"email": guard.too_soon(attempt.wait)}), 429, {"Retry-After": str(attempt.wait)}
    if attempt.person is None:
        log.warning({"event": "sign-in", "outcome": sign_ins.Outcome.REFUSED})
        return _page(email, to, {"password": say.line("Address and password do not fit. Check both; the password minds capitals.")}), 400
    log.info({"event": "sign-in", "outcome": sign_ins.Outcome.SIGNED_IN})
    # Nothing of before is carried over: what somebody may have planted goes with it.
    session.clear()
    session.permanent = bool(own_phone)
    login_user(User(fresh))
    if form := held.opened(request.form.get("held", "")):
        return render_template("held.html", held=form)
    return redirect(_inside(to) if to else url_for("sign_in.start"))


@blueprint.post("/again")
@signed_in
def again() -> Response | tuple[Response, int]:
    """Say once more who it is, as before signing; JSON for a page that stays."""
    password = forms.posted().get("password")
    with nobody() as db:
        attempt = sign_ins.check(db, here().person.email, password if isinstance(password, str) else "", asked_from(), real_now())
        if attempt.person:
            sign_ins.asked(db, token(), attempt.person, asked_from(), real_now())
    if attempt.wait:
        return jsonify(errors={"password": guard.too_soon(attempt.wait)}), 429
    if attempt.person is None:
        log.warning({"event": "asked again", "outcome": sign_ins.Outcome.REFUSED})
        return jsonify(errors={"password": say.line("That is not your password: type it again.")}), 400
    log.info({"event": "asked again", "outcome": sign_ins.Outcome.ASKED})
    return jsonify(said=True)


@blueprint.post("/sign-out")
@signed_in
def out() -> Response:
    with nobody() as db:
        sign_ins.end(db, here().person.id, here().id, real_now())
    log.info({"event": "sign-out"})
    session.clear()
    return redirect(url_for("sign_in.page"))
