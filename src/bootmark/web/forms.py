"""A form as a command: the ids that make a second press harmless travel in hidden fields."""

import datetime as dt
import uuid
from typing import Any

from flask import g, request

from bootmark.core.catalogue import default
from bootmark.services import commands
from bootmark.services.commands import Refused, Sent
from bootmark.web import guard


def send(kind: str, payload: dict[str, Any], *, seen_at: dt.datetime | None = None) -> dict[str, Any]:
    """Carry out the command that the posted form stands for. Raises Refused."""
    try:
        command_id, record_id = uuid.UUID(request.form["command_id"]), uuid.UUID(request.form["record_id"])
        base = int(request.form.get("base_version") or 0)
        told_at = dt.datetime.fromisoformat(request.form["seen_at"]) if request.form.get("seen_at") else guard.now()
    except (KeyError, ValueError) as error:
        raise Refused(form="This page has grown old: load it again and send it once more.") from error
    sent = Sent(command_id, kind, record_id, base, seen_at or told_at, payload)
    return commands.handle(guard.db(), guard.the_farm(), guard.member(), default(), sent, guard.real_now())


def open_stop(stop: Any, *worn: str) -> None:
    """Tell the rail which stop is open and which lugs are done for it."""
    g.stop, g.worn = stop, worn
