"""The farm's blocks and stations, as every use case reads them."""

import uuid

from sqlalchemy.orm import Session

from bootmark.services.base import memo
from bootmark.store.models import Block, Station
from bootmark.store.rows import of_farm, row_of

__all__ = ["Block", "Station", "block", "blocks", "middle", "station", "stations"]


def blocks(session: Session) -> list[Block]:
    """The farm's blocks by name."""
    return memo.once(session, ("blocks",), lambda: list(session.scalars(of_farm(Block).order_by(Block.name))))


def block(session: Session, block_id: uuid.UUID) -> Block:
    """A block of the farm. Raises NotHere."""
    return row_of(session, Block, block_id)


def stations(session: Session) -> list[Station]:
    """The farm's stations by name."""
    return memo.once(session, ("stations",), lambda: list(session.scalars(of_farm(Station).order_by(Station.name))))


def station(session: Session, station_id: uuid.UUID) -> Station:
    """A station of the farm. Raises NotHere."""
    return row_of(session, Station, station_id)


def middle(block: Block) -> tuple[float, float]:
    """The middle of a block's corners on the plan."""
    return (sum(x for x, _ in block.outline) / len(block.outline), sum(y for _, y in block.outline) / len(block.outline))
