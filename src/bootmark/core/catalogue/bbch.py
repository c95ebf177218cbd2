"""Crop stages by BBCH code: what a crop calls its steps, and what hangs on them. Standard library only."""

import datetime as dt
import functools
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from bootmark.core.catalogue.reader import CatalogueError

FILE = Path(__file__).with_name("bbch.toml")
FLOWERING = range(60, 70)
LAST = 99


@dataclass(frozen=True)
class Scale:
    """steps: code to what it is called, in order; own: whether they are the crop's own or the general ones."""

    steps: dict[int, str]
    own: bool

    def name(self, code: int) -> str:
        """What a code is called: the last step at or before it."""
        reached = [step for step in self.steps if step <= code]
        return self.steps[max(reached)] if reached else self.steps[min(self.steps)]


@functools.cache
def _scales() -> tuple[dict[str, Scale], Scale]:
    raw = tomllib.loads(FILE.read_text("utf-8"))
    general = Scale({10 * int(code): str(name) for code, name in raw["principal"].items()}, False)
    scales: dict[str, Scale] = {}
    for group, table in raw["scales"].items():
        steps = {int(code): str(name) for code, name in table.items() if code != "crops"}
        if list(steps) != sorted(steps) or not all(0 <= code <= LAST for code in steps):
            raise CatalogueError(f"bbch.toml [scales.{group}]: codes must rise from 0 to {LAST}")
        for crop in table["crops"]:
            if crop in scales:
                raise CatalogueError(f"bbch.toml [scales.{group}]: {crop} stands in two scales")
            scales[crop] = Scale(steps, True)
    return scales, general


def scale_of(crop: str) -> Scale:
    """The scale of a crop; the principal stages, which hold for any, where it has none of its own."""
    own, general = _scales()
    return own.get(crop, general)


def principal(code: int) -> str:
    """The principal stage of a code. Raises ValueError outside 0 to 99."""
    if not 0 <= code <= LAST:
        raise ValueError(f"{code} is not a BBCH code: it has two figures, 0 to {LAST}")
    return _scales()[1].steps[10 * (code // 10)]


def in_flower(noted: Sequence[tuple[dt.date, int]], day: dt.date) -> bool:
    """Whether a crop flowers on a day by what was noted last: a code from 60 to 69.

    noted: days and codes, in any order; what was noted later than the day does not count.
    """
    so_far = [(on, code) for on, code in noted if on <= day]
    return bool(so_far) and max(so_far)[1] in FLOWERING


def bloom(noted: Sequence[tuple[dt.date, int]]) -> tuple[dt.date, dt.date | None] | None:
    """First day noted in flower and first day noted after it; None where no flower was noted, an open end where none after it was."""
    flowering = sorted(on for on, code in noted if code in FLOWERING)
    if not flowering:
        return None
    after = sorted(on for on, code in noted if code >= FLOWERING.stop and on > flowering[0])
    return flowering[0], after[0] if after else None
