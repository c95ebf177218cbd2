"""Versions of one record that stand side by side, made one field by field."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

Version = Mapping[str, Any]


@dataclass(frozen=True)
class Choice:
    """What the versions say otherwise. name: of its form's field; key: within a field of several; values: version number to what it says,
    None where it says nothing."""

    name: str
    field: str
    key: str
    values: dict[int, Any]


def side_by_side(versions: Sequence[Version]) -> list[Version]:
    """The version that counts, and those that stand beside it; nothing where there are none of these."""
    settled = {command for version in versions for command in version["merges"]}
    beside = [version for version in versions if version["conflict"] and str(version["command_id"]) not in settled]
    counts = next((version for version in versions if not version["conflict"]), None)
    return [counts, *beside] if counts and beside else []


def choices(beside: Sequence[Version]) -> list[Choice]:
    """Where they differ, in the order of their fields; a field of several, as signs, key by key."""
    fields = dict.fromkeys(field for version in beside for field in version["payload"])
    rows = []
    for field in fields:
        values = {version["number"]: version["payload"].get(field) for version in beside}
        if all(isinstance(value, Mapping) for value in values.values() if value is not None):
            keys = dict.fromkeys(key for value in values.values() for key in value or {})
            rows += [Choice(f"{field}.{key}", field, key, {n: (value or {}).get(key) for n, value in values.items()}) for key in keys]
        else:
            rows.append(Choice(field, field, "", values))
    return [row for row in rows if any(value != next(iter(row.values.values())) for value in row.values.values())]


def merged(beside: Sequence[Version], chosen: Mapping[str, str]) -> dict[str, Any]:
    """The payload that the choices make. chosen: of each choice the number of a version; the one that counts where none is named."""
    payload = {field: dict(value) if isinstance(value, Mapping) else value for field, value in beside[0]["payload"].items()}
    for choice in choices(beside):
        number = next((n for n in choice.values if str(n) == chosen.get(choice.name)), beside[0]["number"])
        value = choice.values[number]
        if not choice.key:
            payload[choice.field] = value
        elif value is None:
            payload.setdefault(choice.field, {}).pop(choice.key, None)
        else:
            payload.setdefault(choice.field, {})[choice.key] = value
    return payload
