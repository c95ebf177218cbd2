"""What an act on a block was about."""

import datetime as dt
import uuid

from bootmark import say
from bootmark.services.base import grown
from bootmark.services.base.handling import Context
from bootmark.store.models import Block, Planting


def planting(context: Context, block: Block, planting_id: uuid.UUID | None, day: dt.date) -> uuid.UUID | None:
    """The planting that is named, else the main one that stood on the block on a day; None where nothing did."""
    if planting_id is None:
        standing = grown.on_day(context.session, block.id, day)
        return standing[0].id if standing else None
    row: Planting = context.get(Planting, planting_id, "planting_id")
    if row.block_id != block.id:
        context.errors["planting_id"] = say.line("That grows on another block.")
    return row.id
