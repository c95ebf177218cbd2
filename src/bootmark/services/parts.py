"""Blocks divided and joined: closings, waits for harvest, holds and a season's uses follow the ground."""

import datetime as dt
import uuid
from typing import Annotated, Any

from bootmark import say
from bootmark.core.ground import outline, parts, strips
from bootmark.core.ground.parts import Divided, PartsFault
from bootmark.core.units import Quantity
from bootmark.services import places, plantings
from bootmark.services.base import deriving, ground, planned
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Name, Number, RecordId
from bootmark.services.base.handling import Context, Json, handles
from bootmark.services.base.outlines import sentence
from bootmark.services.base.points import Points
from bootmark.services.base.roles import KEEPERS
from bootmark.store.models import Block, Trap
from bootmark.store.rows import of_farm

SENTENCES = {
    PartsFault.MISSES: "The line does not cut the block: draw it from one side to another.",
    PartsFault.PIECES: "The line cuts the block into more than two: draw one cut, then the next.",
    PartsFault.APART: "These blocks do not touch: what lies apart stays two blocks.",
    PartsFault.HOLE: "Together they would enclose ground that is neither: draw its outline anew.",
}
HANDED = ("place", "weather", "elevation", "station_id", "row_direction", "row_spacing")
"""What a piece has of the block that it is cut from."""


class DivideBlock(Command, kind="block.divide", roles=KEEPERS):
    """Cut a piece off a block: along a line, of which it is the smaller part; or, where nothing is drawn, by its area."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    name: Name
    line: Annotated[list[list[float]], Points(optional=True)]
    area: Annotated[float | None, Number(0.0001, 10_000, optional=True, measures=Quantity.AREA)] = None


class JoinBlocks(Command, kind="block.join", roles=KEEPERS):
    """Take another block into this one; the other ends."""

    other_id: Annotated[uuid.UUID, RecordId("block")]


def _piece(command: DivideBlock, block: Block, context: Context) -> dict[str, Any]:
    """The outline and area of what is cut off, and of what is left."""
    if block.outline:
        cut = parts.divide(block.outline, command.line) if command.line else PartsFault.MISSES
        if not isinstance(cut, Divided):
            context.errors["line"] = say.line(SENTENCES[cut])
            context.refuse_what_is_wrong()
            raise AssertionError("unreachable")
        fault = outline.fault(cut.piece) or outline.fault(cut.rest)
        if fault:
            context.errors["line"] = sentence(fault)
            context.refuse_what_is_wrong()
        area = round(block.area * cut.share, 4)
        return {"piece": [list(corner) for corner in cut.piece], "rest": [list(corner) for corner in cut.rest], "area": area}
    if command.area is None or command.area >= block.area:
        context.errors["area"] = say.line(
            "How large is the piece? {block} has {area:area}, and something has to be left.", block=block.name, area=block.area
        )
        context.refuse_what_is_wrong()
    return {"piece": [], "rest": [], "area": command.area}


def _divided(context: Context, piece: Block) -> None:
    """The block loses what was cut off; what grows on the piece and the traps in it are the piece's own."""
    command = DivideBlock.read(context.sent.payload, context.checks)
    block: Block = context.get(Block, command.block_id, "block_id")
    cut = _piece(command, block, context)
    left = {"outline": cut["rest"], "area": round(block.area - cut["area"], 4)}
    deriving.change(context, Block, block.id, places.said_of(block) | left)
    plantings.hand_on(context, block, piece)
    if piece.outline:
        _take_traps(context, block, piece)


def _take_traps(context: Context, block: Block, piece: Block) -> None:
    """Traps that hang in a piece hang in it by name too."""
    from shapely import Point, Polygon

    own = ground.origin(context.farm)
    inside = Polygon(own.to_plan(piece.outline))
    for trap in context.session.scalars(of_farm(Trap).where(Trap.block_id == block.id)):
        if inside.covers(Point(own.to_plan([(trap.longitude, trap.latitude)])[0])):
            _move_trap(context, trap, piece)


def _move_trap(context: Context, trap: Trap, to: Block) -> None:
    said = ("name", "agent", "kind", "longitude", "latitude", "set_on", "lure_on", "lure_days", "check_days", "ended")
    deriving.change(context, Trap, trap.id, {name: getattr(trap, name) for name in said} | {"block_id": to.id})


@handles(DivideBlock, Block, _divided, keeps=places.said_of)
def store_piece(command: DivideBlock, context: Context) -> Block:
    block: Block = context.get(Block, command.block_id, "block_id")
    context.take_turns("parts of blocks")
    if context.session.get(Block, (context.farm_id, context.sent.record_id)):
        context.errors["block_id"] = say.line("This piece has been cut already: change it on its own page.")
    places.refuse_taken(context, Block, "block", command.name)
    if block.ended:
        context.errors["block_id"] = say.line("{block} is no block any more.", block=block.name)
    cut = _piece(command, block, context)
    context.refuse_what_is_wrong()
    handed = {name: getattr(block, name) for name in HANDED}
    piece = Block(name=command.name, outline=cut["piece"], area=cut["area"], ended=None, standing=[], **handed)
    piece.crop, piece.cultivar, piece.harvest_from = block.crop, block.cultivar, block.harvest_from
    piece.strips = ground.kept_strips(strips.cut(str(context.sent.record_id), ground.strips_of(block), plantings.farm_day(context)))
    return piece


def _together(block: Block, other: Block, context: Context) -> Json:
    """Outline and area of two blocks as one."""
    corners: list[list[float]] = []
    if bool(block.outline) != bool(other.outline):
        undrawn = other if block.outline else block
        context.errors["other_id"] = say.line("{block} is not drawn yet: draw it first, or both can't be one.", block=undrawn.name)
    elif block.outline:
        joined = parts.join(block.outline, other.outline)
        if isinstance(joined, PartsFault):
            context.errors["other_id"] = say.line(SENTENCES[joined])
        else:
            corners = [list(corner) for corner in joined]
    return {"outline": corners, "area": round(block.area + other.area, 4)}


def _joined(context: Context, block: Block) -> None:
    """The other block ends; what was planned, booked, hung and planted there goes over."""
    command = JoinBlocks.read(context.sent.payload, context.checks)
    other: Block = context.get(Block, command.other_id, "other_id")
    _name_parts(context, block, other)
    plantings.hand_on(context, other, block, part=other.name)
    planned.move(context, other.id, block.id)
    for trap in context.session.scalars(of_farm(Trap).where(Trap.block_id == other.id)):
        _move_trap(context, trap, block)
    deriving.change(context, Block, other.id, places.said_of(other) | {"ended": plantings.farm_day(context)})


def _name_parts(context: Context, block: Block, other: Block) -> None:
    """Where the two bear different crops, what had the whole of the block has a part of it now."""
    if {(row["crop"], row["cultivar"]) for row in block.standing} == {(row["crop"], row["cultivar"]) for row in other.standing}:
        return
    plantings.name_part(context, block, block.name)


@handles(JoinBlocks, Block, _joined, keeps=places.said_of)
def store_joined(command: JoinBlocks, context: Context) -> Block:
    block: Block = context.get(Block, context.sent.record_id, "block_id")
    other: Block = context.get(Block, command.other_id, "other_id")
    context.take_turns("parts of blocks")
    if other.id == block.id or other.ended or block.ended:
        context.errors["other_id"] = say.line("Choose another block that is still one.")
    elif other.place != block.place:
        context.errors["other_id"] = say.line(
            "One is {here:word} and the other {there:word}: they can't be one block.", here=block.place, there=other.place
        )
    context.refuse_what_is_wrong()
    together = _together(block, other, context)
    context.refuse_what_is_wrong()
    today: dt.date = plantings.farm_day(context)
    strips_now = strips.joined(str(block.id), ground.strips_of(block), ground.strips_of(other), today)
    return Block(**places.said_of(block) | together, strips=ground.kept_strips(strips_now))
