"""Crop stages as noted on blocks: flowering and a soybean's nodes follow from them."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import bbch
from bootmark.core.field import soybean
from bootmark.services.base import memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Day, Note, Number, RecordId
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, CropStage
from bootmark.store.rows import of_farm

SOYBEAN = "soybean"
_kept: memo.Kept[dict[uuid.UUID, list[tuple[dt.date, int]]]] = memo.Kept(64)


class NoteCropStage(Command, kind="crop.stage", roles=SCOUTS):
    """Note the stage of a block's crop by its BBCH code; for a soybean its top node too."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    on: Annotated[dt.date, Day(past="note what stands today or stood before")]
    code: Annotated[int, Number(0, bbch.LAST, whole=True, not_whole="a BBCH code has two figures, 0 to 99")]
    node: Annotated[int | None, Number(0, 40, whole=True, optional=True)] = None
    counted: Annotated[str, Choice(("", *soybean.COUNTS), fallback="")] = ""
    note: Note = ""

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.node is not None and not self.counted:
            yield "counted", say.line("Say how the nodes were counted: {ways}.", ways=" or ".join(soybean.COUNTS))


@handles(NoteCropStage, CropStage)
def store_crop_stage(command: NoteCropStage, context: Context) -> CropStage:
    block: Block = context.get(Block, command.block_id, "block_id")
    if command.node is not None and block.crop != SOYBEAN:
        context.errors["node"] = say.line("Nodes are counted on soybeans: leave this empty here.")
    return CropStage(**command.model_dump(exclude={"counted"}), counted=command.counted if command.node is not None else "")


def noted(session: Session) -> dict[uuid.UUID, list[tuple[dt.date, int]]]:
    """Days and codes of every block, in order of days."""
    return stamp.while_standing(session, _kept, (Topic.SEASONS,), "noted", lambda: _noted(session))


def _noted(session: Session) -> dict[uuid.UUID, list[tuple[dt.date, int]]]:
    by_block: dict[uuid.UUID, list[tuple[dt.date, int]]] = {}
    for row in rows(session):
        by_block.setdefault(row.block_id, []).append((row.on, row.code))
    return by_block


def rows(session: Session, block: Block | None = None) -> list[CropStage]:
    noted = of_farm(CropStage).order_by(CropStage.on, CropStage.seen_at)
    return list(session.scalars(noted.where(CropStage.block_id == block.id) if block else noted))


def in_flower(session: Session, block: Block, day: dt.date) -> bool:
    """Whether a block's crop is in flower on a day, by what was noted this year."""
    this_year = [stage for stage in noted(session).get(block.id, []) if stage[0].year == day.year]
    return bbch.in_flower(this_year, day)


def next_nodes(rows: list[CropStage], ahead: int = 3) -> list[tuple[int, soybean.NodeDate]]:
    """The dates of a soybean's next nodes, in the way of counting of the last note; none before nodes were counted."""
    counted = [row for row in rows if row.node is not None]
    if not counted:
        return []
    way = counted[-1].counted
    noted = [(row.on, soybean.convert(int(row.node or 0), row.counted, way)) for row in counted if row.on.year == counted[-1].on.year]
    top = max(noted)[1]
    return [(top + n, soybean.node_date(noted, top + n)) for n in range(1, ahead + 1)]
