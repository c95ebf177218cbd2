"""The farm's blocks and stations, as every use case reads them."""

import uuid
from typing import TypeVar

from sqlalchemy.orm import Session

from bootmark.services.base import memo, stamp
from bootmark.services.base.outlines import corners_fault
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Station
from bootmark.store.rows import of_farm, plain, row_of

__all__ = ["Block", "Station", "block", "blocks", "drawable", "middle", "station", "stations"]


_blocks: memo.Kept[list[Block]] = memo.Kept(64)
_stations: memo.Kept[list[Station]] = memo.Kept(64)
Named = TypeVar("Named", Block, Station)


def _by_name(session: Session, model: type[Named]) -> list[Named]:
    return [plain(row) for row in session.scalars(of_farm(model).order_by(model.name))]


def blocks(session: Session) -> list[Block]:
    """The farm's blocks by name, as values: to be shown and reckoned with, not to be changed."""
    return stamp.while_standing(session, _blocks, (Topic.PLACES,), "blocks", lambda: _by_name(session, Block))


def block(session: Session, block_id: uuid.UUID) -> Block:
    """A block of the farm. Raises NotHere."""
    return row_of(session, Block, block_id)


def stations(session: Session) -> list[Station]:
    """The farm's stations by name, as values."""
    return stamp.while_standing(session, _stations, (Topic.PLACES,), "stations", lambda: _by_name(session, Station))


def station(session: Session, station_id: uuid.UUID) -> Station:
    """A station of the farm. Raises NotHere."""
    return row_of(session, Station, station_id)


def drawable(block: Block) -> bool:
    """Whether a block's stored outline can be drawn; one that can't takes no page of others down."""
    return not corners_fault(block.outline)


def middle(block: Block) -> tuple[float, float]:
    """The middle of a block's corners on the plan; the plan's own corner where they can't be read."""
    if not drawable(block):
        return (0.0, 0.0)
    return (sum(x for x, _ in block.outline) / len(block.outline), sum(y for _, y in block.outline) / len(block.outline))
