"""The farm's blocks as shapes of its plan."""

from collections.abc import Iterable

from bootmark.drawing.plan import Shape
from bootmark.services.base import ground
from bootmark.services.base.ground import Block


def shapes(blocks: Iterable[Block]) -> tuple[Shape, ...]:
    """What the plan draws of blocks: id, name, place and outline in metres. One whose outline can't be drawn is left out."""
    return tuple(
        (str(block.id), block.name, block.place, tuple((x, y) for x, y in block.outline)) for block in blocks if ground.drawable(block)
    )
