"""The phone's outbox arrives here: a batch of commands, each with its own result."""

from flask import Blueprint, jsonify, request
from werkzeug.wrappers import Response

from bootmark.core.catalogue import default
from bootmark.services import commands
from bootmark.web.guard import db, member, on_farm, real_now, the_farm

blueprint = Blueprint("sync", __name__)
MOST_COMMANDS = 200


@blueprint.post("/f/<uuid:farm>/sync")
@on_farm
def receive() -> Response | tuple[Response, int]:
    told = request.get_json(silent=True)
    batch = told.get("commands") if isinstance(told, dict) else None
    if not isinstance(batch, list) or len(batch) > MOST_COMMANDS:
        return jsonify(error=f"Send {{commands: [...]}} with at most {MOST_COMMANDS} commands."), 422
    results = commands.sync(db(), the_farm(), member(), default(), batch, real_now())
    if len(results) == 1 and results[0]["status"] == "other content":
        return jsonify(results=results), 409
    return jsonify(results=results)
