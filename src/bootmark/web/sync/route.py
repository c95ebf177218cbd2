"""The phone's outbox arrives here: a batch of commands, each with its own result."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, g, jsonify, request
from werkzeug.wrappers import Response

from bootmark.core.catalogue import default
from bootmark.services import writing
from bootmark.services.base import work
from bootmark.services.base.command import Answer
from bootmark.web.guard import real_now, signed_in, token

blueprint = Blueprint("sync", __name__)
MOST_COMMANDS = 200


@blueprint.post("/f/<uuid:farm>/sync")
@signed_in
def receive(farm: uuid.UUID) -> Response | tuple[Response, int]:
    with work.at_work(farm, token(), real_now()) as here:
        member = here.member
    told = request.get_json(silent=True)
    batch = told.get("commands") if isinstance(told, dict) else None
    if not isinstance(batch, list) or len(batch) > MOST_COMMANDS:
        return jsonify(error=f"Send {{commands: [...]}} with at most {MOST_COMMANDS} commands."), 422
    results = writing.sync(farm, member, default(), batch, real_now(), _sent_at(told))
    for result in results:
        if result["status"] == Answer.FAULT:
            result["request"] = g.request_id
    if len(results) == 1 and results[0]["status"] == Answer.OTHER_CONTENT:
        return jsonify(results=results), 409
    return jsonify(results=results)


def _sent_at(told: Any) -> dt.datetime | None:
    """When the device says that it sends; None where it does not say so with its zone."""
    try:
        moment = dt.datetime.fromisoformat(told["sent_at"])
    except (KeyError, TypeError, ValueError):
        return None
    return moment if moment.tzinfo else None
