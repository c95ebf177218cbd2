"""The outline of a block, as a field of a command."""

from collections.abc import Collection
from dataclasses import dataclass
from typing import Any

from pydantic_core import CoreSchema, core_schema

from bootmark import say
from bootmark.services.base.fields import Checks, Rule, wrong

MOST_CORNERS = 500
FURTHEST = 1_000_000.0
"""Metres from the farm's origin at which a corner may lie."""


@dataclass(frozen=True)
class Outline(Rule):
    """The corners of a block in metres on the farm's plan; they enclose ground, and the line does not cross itself."""

    def inner(self) -> CoreSchema:
        corner = core_schema.list_schema(core_schema.float_schema(allow_inf_nan=False), min_length=2, max_length=2)
        return core_schema.list_schema(corner, min_length=3, max_length=MOST_CORNERS)

    def read(self, value: Any, checks: Checks) -> list[list[float]]:
        fault = corners_fault(value)
        if fault:
            raise wrong(fault)
        corners: list[list[float]] = value
        if _crosses(corners):
            raise wrong(say.line("The outline crosses itself: give its corners in the order in which you would walk round it."))
        return corners


def corners_fault(value: Any) -> str:
    """Why corners can't be drawn; empty where they can. Those that cross themselves can, and are refused for another reason."""
    if not isinstance(value, list) or len(value) < 3:
        return say.line("A block's outline needs at least three corners, each as [x, y] in metres.")
    if len(value) > MOST_CORNERS:
        return say.line(
            "The outline has {count} corners and {most_corners} are the most: draw it more simply.",
            count=len(value),
            most_corners=MOST_CORNERS,
        )
    for place, corner in enumerate(value, 1):
        numbers = isinstance(corner, list) and len(corner) == 2 and all(type(metres) in (int, float) for metres in corner)
        if not numbers or not all(abs(metres) <= FURTHEST for metres in corner):
            return say.line("Corner {place} is not [x, y] in metres: write two numbers up to {furthest:0}.", place=place, furthest=FURTHEST)
    return "" if _area(value) > 0 else say.line("These corners enclose no ground: give corners that do not lie on one line.")


def _area(corners: Collection[list[float]]) -> float:
    """Area enclosed, in square metres; the shoelace formula."""
    ring = list(corners)
    return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(ring, ring[1:] + ring[:1], strict=True))) / 2


def _crosses(corners: list[list[float]]) -> bool:
    from shapely import LinearRing  # loaded here: only a block that is saved needs it

    return not LinearRing(corners).is_simple
