"""Every id that the catalogue ever gave, in the order in which they came: an id never changes its meaning and never comes back as another.

`ids.txt` only grows. A line that begins with a version seals all lines above it with their hash, so that none is changed unseen.
"""

import hashlib
from collections.abc import Iterator
from pathlib import Path

from bootmark.core.catalogue.model import Catalogue

FILE = Path(__file__).with_name("ids.txt")
SEAL = "# "


def of(catalogue: Catalogue) -> Iterator[str]:
    """Each id of a catalogue with what it is an id of: "agent codling-moth"."""
    for kind, entries in (("agent", catalogue.agents), ("sign", catalogue.signs), ("look", catalogue.looks), ("crop", catalogue.crops)):
        yield from (f"{kind} {entry}" for entry in entries)
    yield from (f"control {agent.id}/{control.id}" for agent in catalogue.agents.values() for control in (*agent.controls, *agent.retired))


def given(lines: list[str]) -> list[str]:
    return [line for line in lines if not line.startswith(SEAL)]


def seal(version: str, lines: list[str]) -> str:
    """The line that seals what stands above it."""
    content = hashlib.sha256("\n".join(given(lines)).encode()).hexdigest()[:16]
    return f"{SEAL}{version} {len(given(lines))} {content}"


def grown(lines: list[str], catalogue: Catalogue, version: str = "") -> list[str]:
    """The list with the ids that are new at its end and, where a version is named that has no seal yet, that seal."""
    listed = set(given(lines))
    lines = [*lines, *(name for name in of(catalogue) if name not in listed)]
    sealed = not version or any(line.startswith(f"{SEAL}{version} ") for line in lines)
    return lines if sealed else [*lines, seal(version, lines)]


def faults(lines: list[str], catalogue: Catalogue) -> list[str]:
    """What is wrong with the list: an id that is missing, one that went without an alias, a seal that does not fit, one given twice."""
    ids, present = given(lines), set(of(catalogue))
    missing = [f"{name} is not in ids.txt: add it at the end" for name in sorted(present - set(ids))]
    gone = [name for name in ids if name not in present and name.removeprefix("agent ") not in catalogue.aliases]
    lost = [f"{name} has gone: an entry that is retired stands in aliases.toml with what it became" for name in gone]
    broken = [
        f"{line}: a line above it was changed" for place, line in enumerate(lines)
        if line.startswith(SEAL) and line != seal(line.split()[1], lines[:place])
    ]  # fmt: skip
    return [*missing, *lost, *broken, *(f"{name} stands twice" for name in sorted({name for name in ids if ids.count(name) > 1}))]
