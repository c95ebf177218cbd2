"""The outline of a block, as a field of a command: corners as longitude and latitude."""

from dataclasses import dataclass
from typing import Any

from pydantic_core import CoreSchema, core_schema

from bootmark import say
from bootmark.core.ground import outline
from bootmark.core.ground.outline import Fault, FaultKind
from bootmark.services.base.fields import Checks, Rule, wrong

SENTENCES = {
    FaultKind.CORNERS: "An outline needs at least three corners: this has {size:0}.",
    FaultKind.MANY: "The outline has {size:0} corners and {most} are the most: draw it more simply.",
    FaultKind.NUMBER: "Corner {place} is not two numbers: write longitude, then latitude.",
    FaultKind.METRES: "Corner {place} lies beyond the earth's degrees: metres of some projection? Save them as WGS84, in degrees.",
    FaultKind.POLE: "Corner {place} lies beside a pole: are longitude and latitude the wrong way round?",
    FaultKind.DATELINE: "The outline runs over the date line: cut it there into two blocks.",
    FaultKind.BARE: "These corners enclose no ground: give corners that do not lie on one line.",
    FaultKind.CROSSES: "The outline crosses itself at {north:5}, {east:5}: give its corners in the order in which you would walk round it.",
    FaultKind.SLIVER: "The outline is nowhere half a metre wide: it is a line there and back. Draw the block itself.",
    FaultKind.HUGE: "The outline encloses {size:area}, and {most_area:area} are the most of a block: is this a whole country?",
}


def sentence(fault: Fault) -> str:
    """What is wrong with an outline, in words."""
    east, north = fault.at or (0.0, 0.0)
    facts = {"place": fault.place, "size": fault.size, "most": outline.MOST_CORNERS, "most_area": outline.MOST_HECTARES}
    return say.line(SENTENCES[fault.kind], **facts, east=east, north=north)


@dataclass(frozen=True)
class Outline(Rule):
    """The corners of a block; they enclose ground, and the line does not cross itself. None at all where it is not drawn yet."""

    def inner(self) -> CoreSchema:
        corner = core_schema.list_schema(core_schema.float_schema(allow_inf_nan=False), min_length=2, max_length=2)
        return core_schema.list_schema(corner, max_length=outline.MOST_CORNERS)

    def read(self, value: Any, checks: Checks) -> list[list[float]]:
        if value == []:
            return []
        fault = outline.fault(value)
        if fault:
            raise wrong(sentence(fault))
        return [[float(corner[0]), float(corner[1])] for corner in value]
