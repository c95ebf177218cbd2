"""What can be put right of a kept record: a form made from its command's own fields."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from bootmark import say
from bootmark.services.base.fields import Counts, Day, Flag, Number, Rule, Text, rule_of
from bootmark.services.base.work import Session
from bootmark.services.book import records
from bootmark.services.book.records import Shaken
from bootmark.services.kinds import KINDS
from bootmark.web import forms

CORRECTED = ("sample.record", "trap.check", "stage.sighting", "crop.stage", "biofix.set")
"""Kinds of records that are put right here; others have a screen of their own where they are changed."""
LABELS = {
    "unit": "Unit",
    "counts": "Counted, unit by unit",
    "enemies": "Helpers beside them, unit by unit",
    "on": "On",
    "caught": "Caught",
    "new_lure": "It got a new lure",
    "code": "Stage (BBCH)",
    "node": "Top node",
    "note": "Note",
    "basis": "What it rests on",
}
SHOWN = (Number, Day, Flag, Text, Counts)
"""Rules whose fields can be typed anew; what a record is about stays."""


SHAKEN = {
    Shaken.LOOK: "The look that this call rests on was changed since.",
    Shaken.COUNT: "The count that this call rests on was corrected since.",
    Shaken.WITHDRAWN: "The count that this call rests on was withdrawn.",
}


@dataclass(frozen=True)
class Entry:
    """A field of the form. how: the type of its input."""

    name: str
    label: str
    value: str
    how: str = "text"


def entries(kind: str, payload: Mapping[str, Any]) -> list[Entry]:
    """What can be put right, with what stands there."""
    shown: list[Entry] = []
    for name, field in KINDS[kind].command.model_fields.items():
        rule = rule_of(field.annotation, field.metadata)
        if rule is None:
            value = payload.get(name) or {}
            shown += [Entry(f"{name}.{key}", say.line(key).capitalize(), str(value.get(key, ""))) for key in value]
        elif isinstance(rule, SHOWN) and name in LABELS:
            shown.append(_entry(name, rule, payload.get(name)))
    return shown


def _entry(name: str, rule: Rule, value: Any) -> Entry:
    label = say.line(LABELS[name])
    if isinstance(rule, Flag):
        return Entry(name, label, "yes" if value else "", "checkbox")
    if isinstance(rule, Counts):
        return Entry(name, label, " ".join(str(count) for count in value or ()))
    if isinstance(rule, Number):
        return Entry(name, label, "" if value is None else say.tongue().formats.typed(value, rule.measures))
    return Entry(name, label, "" if value is None else str(value), "date" if isinstance(rule, Day) else "text")


def corrected(kind: str, payload: Mapping[str, Any]) -> dict[str, Any]:
    """A record's payload as the posted form puts it right; what the form does not ask stays. Raises Refused."""
    asked = {entry.name.split(".")[0] for entry in entries(kind, payload)}
    return {**payload, **{name: value for name, value in forms.typed(KINDS[kind].command).items() if name in asked}}


def shaken(session: Session, call: Any) -> list[str]:
    """What has changed of that on which a call rests, in words; nothing where there is no call."""
    return [say.line(SHAKEN[what]) for what in records.shaken(session, call)] if call else []
