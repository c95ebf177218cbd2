"""Devices: where a person is signed in, what came of each try, and ending what should not last."""

import logging
import uuid

from flask import Blueprint, flash, g, redirect, render_template, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.logs import SECURITY
from bootmark.services.base import people, sign_ins
from bootmark.services.base.roles import Role
from bootmark.web.guard import db, member, on_farm, only, real_now, the_farm

blueprint = Blueprint("devices", __name__, template_folder=".")
log = logging.getLogger(SECURITY)


@blueprint.get("/f/<uuid:farm>/devices")
@on_farm
def page() -> str:
    account = member().account_id
    return render_template(
        "devices.html",
        sign_ins=sign_ins.listed(db(), account, real_now()),
        this=g.sign_in,
        events=sign_ins.events(db(), account),
    )


@blueprint.post("/f/<uuid:farm>/devices/<uuid:sign_in>")
@on_farm
def end(sign_in: uuid.UUID) -> Response:
    sign_ins.end(db(), member().account_id, sign_in, real_now())
    log.info({"event": "sign-in ended"})
    flash(say.line("That device is signed out."), "good")
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
    return redirect(url_for("farm.page", farm=the_farm().id))
