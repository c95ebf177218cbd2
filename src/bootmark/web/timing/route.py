"""Timing: which hours, which control, in which order."""

from flask import Blueprint, render_template

from bootmark.services.base.roles import SIGNERS
from bootmark.web.guard import member, now, on_farm
from bootmark.web.timing.sight import sight

blueprint = Blueprint("timing", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/timing")
@on_farm
def page() -> str:
    return render_template("timing.html", shown=sight(now()), today=now().date(), may_do=member().role in SIGNERS)
