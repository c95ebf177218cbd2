"""A block as it is drawn small beside a tally or a stop, with what brings places on earth to the drawing."""

from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core.ground.plane import Corner
from bootmark.services.base import ground
from bootmark.services.base.ground import Block
from bootmark.services.base.handling import Json
from bootmark.services.scouting import flags
from bootmark.web.guard import db, now, the_farm

SIDE, EDGE = 300.0, 12.0
"""How large a block is drawn, and its margin."""
STEP = 1e-3
"""Degrees over which a degree's length is taken."""


@dataclass(frozen=True)
class Field:
    """A block's drawing. corners: in metres on the plan; left, top: its box; scale: points for each metre."""

    block: Block
    corners: tuple[Corner, ...]
    left: float
    top: float
    scale: float

    def draw(self, places: Sequence[Corner]) -> list[list[float]]:
        """Places on the plan, metres, as they lie on the drawing."""
        return [[round(EDGE + self.scale * (x - self.left), 1), round(EDGE + self.scale * (y - self.top), 1)] for x, y in places]

    def shape(self) -> Json:
        """The outline and its box as SVG takes them, the block's flags, and what brings a longitude and a latitude to the drawing."""
        drawn = self.draw(self.corners)
        wide, tall = (max(value) + EDGE for value in zip(*drawn, strict=True))
        places = [flag.place for flag in flags.standing(db(), now().date()).get(self.block.id, ()) if flag.place]
        return {
            "outline": "M" + "L".join(f"{x} {y}" for x, y in drawn) + "Z",
            "box": f"0 0 {wide:.0f} {tall:.0f}",
            "flags": self.draw(ground.origin(the_farm()).to_plan(places)),
            "on_earth": self._on_earth(),
        }

    def _on_earth(self) -> dict[str, float]:
        longitude, latitude = self.block.outline[0][0], self.block.outline[0][1]
        (x, y), (east, _), (_, north) = ground.origin(the_farm()).to_plan(
            [[longitude, latitude], [longitude + STEP, latitude], [longitude, latitude + STEP]]
        )
        return {
            "longitude": longitude,
            "latitude": latitude,
            "x": EDGE + self.scale * (x - self.left),
            "y": EDGE + self.scale * (y - self.top),
            "east": self.scale * (east - x) / STEP,
            "north": self.scale * (north - y) / STEP,
        }


def of(block: Block) -> Field | None:
    """A block's drawing; None where it has no outline that can be drawn."""
    corners = ground.on_plan(the_farm(), block)
    if not corners:
        return None
    left, top = min(x for x, _ in corners), min(y for _, y in corners)
    longest = max(*(x - left for x, _ in corners), *(y - top for _, y in corners), 1.0)
    return Field(block, corners, left, top, SIDE / longest)
