"""Crops whose stages are told by heat, for bloom, petal fall and harvest. Standard library only."""

import functools
import tomllib
from dataclasses import dataclass
from pathlib import Path

from bootmark.core import units
from bootmark.core.catalogue.bbch import LAST
from bootmark.core.catalogue.reader import PROVENANCE, Reader

FILE = Path(__file__).with_name("crop_heat.toml")


@dataclass(frozen=True)
class CropHeat:
    """Sums of a crop's stages.

    lower, upper: degrees C; month_day: the day in the north from which heat is counted, None where it is that of sowing; stages: BBCH code
    to degree-days C, rising; error: share by which these are off, one standard deviation.
    """

    lower: float
    upper: float | None
    method: str
    month_day: tuple[int, int] | None
    stages: dict[int, float]
    error: float
    source: str

    def at(self, code: int) -> float:
        """Degree-days C at a code, between two stages by a straight line; from nought before the first, as the last after it."""
        before = max(((step, sums) for step, sums in self.stages.items() if step <= code), default=(0, 0.0))
        after = min(((step, sums) for step, sums in self.stages.items() if step >= code), default=before)
        share = (code - before[0]) / (after[0] - before[0]) if after[0] > before[0] else 0.0
        return before[1] + share * (after[1] - before[1])


def read(crop: str, table: dict[str, object]) -> CropHeat:
    """One crop. Raises CatalogueError naming it and what is wrong."""
    row = Reader(f"crop_heat.toml [{crop}]", table)
    unit = row.one_of("unit", ("C", "F"))
    lower, upper, day = row.number("lower"), row.number("upper", None), row.words("month_day", [])
    sums = {int(code): float(value) for code, value in row.get("stages", dict).items()}
    in_celsius = unit == "C"
    heat = CropHeat(
        lower if in_celsius else units.celsius(lower),
        upper if in_celsius or upper is None else units.celsius(upper),
        row.text("method", "single_sine"),
        (int(day[0]), int(day[1])) if day else None,
        {code: value if in_celsius else units.difference_celsius(value) for code, value in sums.items()},
        row.number("error"),
        row.text("source"),
    )
    row.done()
    codes = list(heat.stages)
    if not codes or codes != sorted(codes) or list(heat.stages.values()) != sorted(heat.stages.values()) or codes[-1] > LAST:
        raise row.fail(f"codes, up to {LAST}, and their sums must rise together")
    if not heat.source.startswith(PROVENANCE):
        raise row.fail(f"source must begin with {', '.join(PROVENANCE)}")
    return heat


@functools.cache
def crops() -> dict[str, CropHeat]:
    """Crops with a heat model, by their ids."""
    return {crop: read(crop, table) for crop, table in tomllib.loads(FILE.read_text("utf-8")).items()}
