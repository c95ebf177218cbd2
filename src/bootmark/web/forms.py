"""A form as a command: the ids that make a second press harmless travel in hidden fields.

The time of the act is that of the press: a page may have stood open since yesterday.
"""

import datetime as dt
import math
import uuid
from collections.abc import Collection, Mapping
from typing import Any

from flask import flash, g, request

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.services import writing
from bootmark.services.base.command import Command, Refused
from bootmark.services.base.farm_time import zone
from bootmark.services.base.handling import Json, Sent
from bootmark.services.kinds import KINDS
from bootmark.web import guard

MOST_PLACE = 1_000_000
OLD_PAGE = "This page has grown old: load it again and send it once more."
OTHER_UNITS = "Units or numbers are written in another way since this page was loaded: look at each number, then send it again."


class Errors(dict[str, str]):
    """What is wrong with a form, field to sentence. What no field has shown is printed by the form itself."""

    def __init__(self, errors: Mapping[str, str] | None = None) -> None:
        super().__init__(errors or {})
        self.shown: set[str] = set()

    def take(self, name: str) -> str | None:
        """What a field shows beside itself."""
        self.shown.add(name)
        return self.get(name)

    def left(self, but: Collection[str] = ()) -> list[str]:
        return [sentence for name, sentence in self.items() if name not in self.shown and name not in but]


def send(command: type[Command], **more: Any) -> Json:
    """Carry out the command that the posted form stands for; more: fields that the form does not hold as such. Raises Refused."""
    return send_as_kept(command.spec.kind, typed(command) | more)


def typed(command: type[Command]) -> dict[str, Any]:
    """The posted form as a payload of a command. Raises Refused where its numbers were shown in other units than they would be read in."""
    if request.form.get("written", (key := say.tongue().formats.key)) != key:
        raise Refused(form=say.line(OTHER_UNITS))
    return command.of_form(request.form)


def send_as_kept(kind: str, payload: Any, merges: tuple[uuid.UUID, ...] = (), **more: Any) -> Json:
    """The same with a payload as it was kept before: versions are kept in the present shape. merges: commands taken up in it."""
    base = request.form.get("base") or None
    return send_with(kind, payload, request.form.get("command_id", ""), request.form.get("record_id", ""), base, merges, **more)


def send_with(
    kind: str,
    payload: Any,
    command_id: str,
    record_id: str,
    base: str | None = None,
    merges: tuple[uuid.UUID, ...] = (),
    **more: Any,
) -> Json:
    """The same by ids that are told: a form may stand for several commands. more: reason and withdrawn. Raises Refused."""
    raw = {"kind": kind, "v": KINDS[kind].command.spec.v, "payload": payload, "base": base, "merges": [str(merged) for merged in merges]}
    raw |= more
    try:
        sent = Sent.of(raw | {"command_id": command_id, "record_id": record_id}, guard.now())
    except Refused as error:
        raise Refused(form=say.line(OLD_PAGE)) from error
    return writing.handle(guard.db(), guard.the_farm(), guard.member(), default(), sent, guard.real_now())


def flash_kept(text: str, result: Json) -> None:
    """Say on the next page that a record was kept, with the way to put it right."""
    message: Any = [text, result["record_id"]]
    flash(message, "good")


def ids_of(command_id: str, number: int) -> tuple[str, str]:
    """Ids of the command and the record of one of several that a form stands for: the same at each press."""
    try:
        whole = uuid.UUID(command_id)
    except ValueError:
        return "", ""
    return str(uuid.uuid5(whole, f"command {number}")), str(uuid.uuid5(whole, f"record {number}"))


def record_id() -> uuid.UUID | None:
    """The record that a form was about, where it names one."""
    try:
        return uuid.UUID(request.form.get("record_id", ""))
    except ValueError:
        return None


def posted() -> dict[str, Any]:
    """The JSON object that was posted; an empty one where something else came."""
    body = request.get_json(silent=True)
    return body if isinstance(body, dict) else {}


def asked(name: str, low: float, high: float) -> float:
    """A number that the address asks for, brought between two limits; 0 where it is none."""
    number = request.args.get(name, 0.0, type=float)
    return min(max(number, low), high) if number is not None and math.isfinite(number) else 0.0


def from_place() -> int:
    """Where a list that is shown in parts begins, from the address."""
    return int(asked("from", 0, MOST_PLACE))


def moment(name: str) -> str:
    """A local day and time of a form with the farm's zone; as it was typed where it can't be read."""
    try:
        return dt.datetime.fromisoformat(request.form.get(name, "")).replace(tzinfo=zone(guard.the_farm())).isoformat()
    except ValueError:
        return request.form.get(name, "")


def open_stop(stop: Any, *worn: str) -> None:
    """Tell the rail which stop is open and which lugs are done for it."""
    g.stop, g.worn = stop, worn
