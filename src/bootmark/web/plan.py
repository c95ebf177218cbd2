"""The farm's blocks as shapes of its plan."""

from collections.abc import Iterable

from bootmark.drawing.plan import Shape
from bootmark.services.base import ground
from bootmark.services.base.ground import Block
from bootmark.services.base.work import Farm


def shapes(farm: Farm, blocks: Iterable[Block]) -> tuple[Shape, ...]:
    """What the plan draws of blocks: id, name, place and outline in metres. One whose outline can't be drawn is left out."""
    return tuple((str(block.id), block.name, block.place, corners) for block in blocks if (corners := ground.on_plan(farm, block)))
