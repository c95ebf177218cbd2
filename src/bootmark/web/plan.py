"""The farm's blocks as shapes of its plan."""

import uuid
from collections.abc import Iterable, Sequence
from typing import Any

from bootmark import say
from bootmark.core.units import Quantity
from bootmark.drawing.plan import Shape
from bootmark.services.base import ground
from bootmark.services.base.ground import Block
from bootmark.services.base.work import Farm


def shapes(farm: Farm, blocks: Iterable[Block]) -> tuple[Shape, ...]:
    """What the plan draws of blocks: id, name, place and outline in metres. One whose outline can't be drawn is left out."""
    return tuple((str(block.id), block.name, block.place, corners) for block in blocks if (corners := ground.on_plan(farm, block)))


STEP = 0.001
"""Degrees over which the plan's metres are measured for a device that tells its place."""


def board_of(
    farm: Farm, blocks: Iterable[Block], points: Sequence[Sequence[float]], own: uuid.UUID | None = None, *, spot: bool = False
) -> dict[str, Any]:
    """What a drawing board is given: what is drawn, the other blocks to draw it to, and what a degree and a unit are there.

    points: metres on the plan; own: the block that is drawn; spot: whether one point is all.
    """
    origin, unit = ground.origin(farm), say.tongue().formats.unit(Quantity.AREA)
    [(east, _), (_, south)] = origin.to_plan([(origin.longitude + STEP, origin.latitude), (origin.longitude, origin.latitude - STEP)])
    return {
        "points": [list(point) for point in points],
        "others": [{"name": name, "points": corners} for id_, name, _, corners in shapes(farm, blocks) if id_ != str(own)],
        "spot": spot,
        "origin": {"latitude": origin.latitude, "longitude": origin.longitude, "east": east / STEP, "north": south / STEP},
        "unit": {"symbol": unit.symbol, "times": unit.times},
    }
