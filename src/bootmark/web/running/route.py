"""How it runs: version, what is ill, the queue, the room that is taken, and each station's last word. For owners."""

from flask import Blueprint, render_template

from bootmark.services.base import ground
from bootmark.services.base.roles import Role
from bootmark.services.owning import running
from bootmark.web.guard import db, on_farm, only, real_now

blueprint = Blueprint("running", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/running")
@on_farm
def page() -> str:
    only({Role.OWNER})
    return render_template("running.html", running=running.running(db(), real_now()), stations=ground.stations(db()))
