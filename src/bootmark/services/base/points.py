"""Places on the plan, as a field of a command: longitude and latitude."""

from dataclasses import dataclass
from typing import Any

from pydantic_core import CoreSchema, core_schema

from bootmark import say
from bootmark.core.ground import outline
from bootmark.services.base.fields import Checks, Rule, wrong
from bootmark.services.base.outlines import sentence

MOST_POINTS = 500
MOST_MARKS, MOST_PIXELS = 3, 100_000


@dataclass(frozen=True)
class Points(Rule):
    """Places as longitude and latitude. optional: there may be none."""

    optional: bool = False

    def inner(self) -> CoreSchema:
        pair = core_schema.list_schema(core_schema.float_schema(allow_inf_nan=False), min_length=2, max_length=2)
        return core_schema.list_schema(pair, min_length=0 if self.optional else 1, max_length=MOST_POINTS)

    def read(self, value: Any, checks: Checks) -> list[list[float]]:
        if self.optional and value in (None, []):
            return []
        if not isinstance(value, list) or not value:
            raise wrong(say.line("Nothing is drawn: press on the plan where it is."))
        if len(value) > MOST_POINTS:
            raise wrong(say.line("It has {count} points, and {most} are the most.", count=len(value), most=MOST_POINTS))
        fault = outline.places_fault(value)
        if fault:
            raise wrong(sentence(fault))
        return [[float(place[0]), float(place[1])] for place in value]


@dataclass(frozen=True)
class Marks(Rule):
    """Spots on a picture, pixels right and down."""

    def inner(self) -> CoreSchema:
        pair = core_schema.list_schema(core_schema.float_schema(allow_inf_nan=False), min_length=2, max_length=2)
        return core_schema.list_schema(pair, max_length=MOST_MARKS)

    def read(self, value: Any, checks: Checks) -> list[list[float]]:
        if not isinstance(value, list) or len(value) > MOST_MARKS or not all(map(_is_spot, value)):
            raise wrong(say.line("Press two or three spots on the picture."))
        return [[float(right), float(down)] for right, down in value]


def _is_spot(mark: Any) -> bool:
    return isinstance(mark, list) and len(mark) == 2 and all(type(pixel) in (int, float) and 0 <= pixel <= MOST_PIXELS for pixel in mark)
