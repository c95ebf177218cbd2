"""What a person keeps of the own account: how screens are liked, where one is signed in, what came of each try, the password."""

import logging
import uuid
from dataclasses import asdict

from flask import Blueprint, flash, g, jsonify, redirect, render_template, request, session, url_for
from flask_login import login_user
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.logs import SECURITY
from bootmark.services.base import passwords, people, sign_ins
from bootmark.services.base.preferences import Preferences, keep
from bootmark.services.base.roles import Role
from bootmark.services.base.work import nobody
from bootmark.web import forms, ways
from bootmark.web.guard import User, asked_from, db, member, on_farm, only, real_now, the_farm, token, too_soon

blueprint = Blueprint("devices", __name__, template_folder=".")
log = logging.getLogger(SECURITY)
LIKES = (
    ("sun", "Black on white, for full sun"),
    ("large", "Larger letters"),
    ("left", "On a phone, what you press lies at the left thumb"),
)


@blueprint.get("/f/<uuid:farm>/devices")
@on_farm
def page() -> str:
    return _page({})


def _page(errors: dict[str, str]) -> str:
    account = member().account_id
    return render_template(
        "devices.html",
        errors=forms.Errors(errors),
        choices=LIKES,
        ways=ways.choices(say.line("the farm's way")),
        hint=passwords.hint(),
        sign_ins=sign_ins.listed(db(), account, real_now()),
        this=g.sign_in,
        events=sign_ins.events(db(), account),
    )


@blueprint.get("/f/<uuid:farm>/devices/mine.json")
@on_farm
def mine() -> Response:
    """Everything that is kept of whoever asks, beside what they wrote on farms."""
    account = member().account_id
    kept = {
        "name": g.person.name,
        "email": g.person.email,
        "likes": asdict(g.preferences),
        "farms": [{"farm": row.farm, "role": row.role, "qualified": row.qualified} for row in people.memberships(db(), account)],
        "terms": [asdict(row) for row in people.everybody(db()) if row.account_id == account],
        "signed_in": [asdict(row) for row in sign_ins.listed(db(), account, real_now())],
        "tries": [asdict(row) for row in sign_ins.events(db(), account)],
    }
    answer = jsonify(kept)
    answer.headers["Content-Disposition"] = 'attachment; filename="bootmark-you.json"'
    return answer


@blueprint.post("/f/<uuid:farm>/devices/likes")
@on_farm
def preferences() -> Response:
    chosen = dict.fromkeys(request.form.getlist("likes"), True)
    keep(db(), token(), Preferences.of({**request.form, **chosen}), real_now())
    flash(say.line("Kept, for every device of yours."), "good")
    return redirect(url_for("devices.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/devices/<uuid:sign_in>")
@on_farm
def end(sign_in: uuid.UUID) -> Response:
    sign_ins.end(db(), member().account_id, sign_in, real_now())
    log.info({"event": "sign-in ended"})
    flash(say.line("That device is signed out."), "good")
    return redirect(url_for("devices.page", farm=the_farm().id))


def _password_errors(now_given: str, fresh: str) -> dict[str, str]:
    """What is wrong with a change of password, field to sentence. A transaction of its own: a failed try is counted whatever comes."""
    fault = passwords.fault(fresh, (g.person.name, *g.person.email.split("@"), the_farm().name))
    if fault:
        return {"fresh": passwords.sentence(fault, len(fresh))}
    if fresh == now_given:
        return {"fresh": say.line("That is the password that you have now.")}
    with nobody() as tries:
        attempt = sign_ins.check(tries, g.person.email, now_given, asked_from(), real_now())
    if attempt.wait:
        return {"password": too_soon(attempt.wait)}
    return {} if attempt.person else {"password": say.line("That is not your password: type it again.")}


@blueprint.post("/f/<uuid:farm>/devices/password")
@on_farm
def password() -> Response | tuple[str, int]:
    fresh = request.form.get("fresh", "")
    errors = _password_errors(request.form.get("password", ""), fresh)
    if errors:
        return _page(errors), 400
    this = next(sign_in for sign_in in sign_ins.listed(db(), member().account_id, real_now()) if sign_in.id == g.sign_in)
    new_token = passwords.change(db(), g.person, this, token(), fresh, asked_from(), real_now())
    log.info({"event": "password changed"})
    is_permanent = session.permanent
    session.clear()
    session.permanent = is_permanent
    login_user(User(new_token))
    flash(say.line("Your password is changed. Every other device is signed out."), "good")
    return redirect(url_for("devices.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/people/<uuid:account>/sign-out")
@on_farm
def sign_out_member(account: uuid.UUID) -> Response:
    """The owner signs a member out, on every device."""
    only({Role.OWNER})
    ended = sign_ins.end_all_of_member(db(), account, real_now())
    log.info({"event": "member signed out", "sign_ins": ended})
    name = people.names(db()).get(account, say.line("Nobody here"))
    flash(
        say.many(
            "{name} was signed in on {of} device, and is so no more.",
            "{name} was signed in on {of} devices, and is so no more.",
            ended,
            name=name,
        ),
        "good",
    )
    return redirect(url_for("people.page", farm=the_farm().id))
