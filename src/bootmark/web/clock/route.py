"""The demo clock: steps the farm's time forward and lets the stations catch up."""

import time

from flask import Blueprint, flash, redirect, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.services.base import farm_time, queue
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.work import on_farm as as_farm
from bootmark.web.guard import db, on_farm, only, the_farm

blueprint = Blueprint("clock", __name__)
PATIENCE_SECONDS = 4.0


@blueprint.post("/f/<uuid:farm>/clock")
@on_farm
def step() -> Response:
    farm = the_farm()
    only(SCOUTS)
    farm_time.step(db(), farm, request.form.get("by", ""), request.form.get("stood_at", ""))
    job = queue.defer(db(), queue.PULL, farm_id=str(farm.id))
    # The step must be seen by the worker before it can be waited for.
    db().commit()
    limit = time.monotonic() + PATIENCE_SECONDS
    while job and time.monotonic() < limit:
        with as_farm(farm.id) as other:
            if queue.finished(other, job):
                break
        time.sleep(0.03)
    else:
        if job:
            flash(say.line("The stations have not answered yet: readings of the last hours will follow."), "warn")
    back = request.form.get("back", "")
    safe = back.startswith(f"/f/{farm.id}/")
    return redirect(back if safe else url_for("round.page", farm=farm.id))
