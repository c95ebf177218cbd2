"""The phone's outbox arrives here: a batch of commands, each with its own result."""

import uuid

from flask import Blueprint, g, jsonify
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.services import writing
from bootmark.services.base import work
from bootmark.services.base.command import Answer
from bootmark.services.base.handling import device_moment
from bootmark.web import forms
from bootmark.web.guard import real_now, signed_in, token

blueprint = Blueprint("sync", __name__)
MOST_COMMANDS = 200


@blueprint.post("/f/<uuid:farm>/sync")
@signed_in
def receive(farm: uuid.UUID) -> Response | tuple[Response, int]:
    with work.at_work(farm, token(), real_now()) as here:
        member = here.member
    body = forms.posted()
    batch = body.get("commands")
    if not isinstance(batch, list) or len(batch) > MOST_COMMANDS:
        return jsonify(error=say.line("Send {{commands: [...]}} with at most {most_commands} commands.", most_commands=MOST_COMMANDS)), 422
    results = writing.sync(farm, member, default(), batch, real_now(), device_moment(body.get("sent_at")))
    for result in results:
        if result["status"] == Answer.FAULT:
            result["request"] = g.request_id
    if len(results) == 1 and results[0]["status"] == Answer.OTHER_CONTENT:
        return jsonify(results=results), 409
    return jsonify(results=results)
