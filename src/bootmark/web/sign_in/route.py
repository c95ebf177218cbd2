"""Sign in and out, and choose the farm."""

import uuid
from urllib.parse import urlsplit

from flask import Blueprint, redirect, render_template, request, url_for
from flask_login import current_user, login_required, login_user, logout_user
from werkzeug.wrappers import Response

from bootmark.services.base import people
from bootmark.services.base.people import TooManyAttempts
from bootmark.services.base.work import nobody
from bootmark.web import forms
from bootmark.web.guard import User, real_now

blueprint = Blueprint("sign_in", __name__, template_folder=".")


def _inside(target: str) -> str:
    """The address to go on to, only if it lies on this site."""
    parts = urlsplit(target)
    safe = target.startswith("/") and not target.startswith(("//", "/\\")) and not parts.netloc
    return target if safe else url_for("sign_in.start")


@blueprint.get("/")
def start() -> str | Response:
    if not current_user.is_authenticated:
        return redirect(url_for("sign_in.page"))
    with nobody() as db:
        farms = people.memberships(db, uuid.UUID(current_user.id))
    if len(farms) == 1:
        return redirect(url_for("round.page", farm=farms[0].farm_id))
    return render_template("farms.html", farms=farms)


@blueprint.get("/sign-in")
def page() -> str:
    return render_template("sign_in.html", email="", errors=forms.Errors(), to=request.args.get("next", ""))


@blueprint.post("/sign-in")
def enter() -> str | Response | tuple[str, int]:
    email, to = request.form.get("email", ""), request.form.get("to", "")
    try:
        # Its own transaction: a failed try is counted whatever comes after it.
        with nobody() as db:
            person = people.sign_in(db, email, request.form.get("password", ""), request.remote_addr or "", real_now())
    except TooManyAttempts:
        errors = forms.Errors({"email": "Too many tries for this address: wait a quarter of an hour, then try again."})
        return render_template("sign_in.html", email=email, errors=errors, to=to), 429
    if person is None:
        errors = forms.Errors({"password": "Address and password do not fit. Check both; the password minds capitals."})
        return render_template("sign_in.html", email=email, errors=errors, to=to), 400
    login_user(User(str(person.id)))
    return redirect(_inside(to) if to else url_for("sign_in.start"))


@blueprint.post("/sign-out")
@login_required
def out() -> Response:
    logout_user()
    return redirect(url_for("sign_in.page"))
