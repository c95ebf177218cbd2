"""Readings that stations send by themselves: POST with the station's key, JSON in, JSON out."""

import uuid

from flask import Blueprint, jsonify, request
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.services.base import farm_time, sign_ins
from bootmark.services.base.command import Refused
from bootmark.services.base.work import farm_of, on_farm
from bootmark.services.weather import pushed
from bootmark.web.guard import csrf, real_now

blueprint = Blueprint("push", __name__)
MOST_BYTES = 1_000_000


@blueprint.post("/push/<uuid:farm>/<uuid:station>")
@csrf.exempt
def receive(farm: uuid.UUID, station: uuid.UUID) -> tuple[AnyResponse, int]:
    """Hourly readings of one station. Wrong keys are counted like wrong passwords, so that nobody tries them all."""
    if (request.content_length or 0) > MOST_BYTES:
        return jsonify(
            {
                "error": say.line(
                    "{content_length} bytes were sent and {most_bytes} are the most: send fewer readings at once.",
                    content_length=request.content_length,
                    most_bytes=MOST_BYTES,
                )
            }
        ), 413
    kind, _, key = request.headers.get("Authorization", "").partition(" ")
    address = f"push:{request.remote_addr}"
    with on_farm(farm) as session:
        seconds = sign_ins.waits(session, address, sign_ins.KEY, real_now())
        if seconds:
            return jsonify(
                {"error": say.line("Too many wrong keys came from here: wait {seconds} seconds.", seconds=seconds), "wait": seconds}
            ), 429
        row = pushed.station_by_key(session, farm, station, key.strip()) if kind.lower() == "bearer" and key.strip() else None
        if row is None:
            sign_ins.failed(session, address, real_now())
            return jsonify({"error": say.line("No station here has this key: send it as 'Authorization: Bearer KEY'.")}), 401
        posted = request.get_json(silent=True)
        try:
            answer = pushed.store(session, row, posted, farm_time.now(farm_of(session), real_now()))
        except Refused as error:
            return jsonify({"error": " ".join(error.errors.values())}), 400
    return jsonify(answer), 207 if answer["refused"] else 200
