"""Crop stages as noted on blocks: flowering and a soybean's nodes follow from them."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import bbch, crop_heat
from bootmark.core.field import soybean
from bootmark.core.season import crop
from bootmark.core.season.crop import StageDates
from bootmark.services.base import memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Day, Note, Number, RecordId
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, CropStage, Farm
from bootmark.store.rows import of_farm

SOYBEAN = "soybean"
_foretold: memo.Kept[list[StageDates]] = memo.Kept(256)
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


def in_flower(session: Session, farm: Farm, block: Block, day: dt.date) -> bool:
    """Whether a block's crop is in flower on a day: by what was noted this year; where nothing was, whether by heat it may be.

    Bees are not to pay for a stage that nobody noted.
    """
    this_year = [stage for stage in noted(session).get(block.id, []) if stage[0].year == day.year]
    if this_year:
        return bbch.in_flower(this_year, day)
    dates = {stage.code: stage for stage in foretold(session, farm, block, day)}
    opens, ends = dates.get(bbch.FLOWERING.start), dates.get(bbch.FLOWERING.stop - 1)
    return bool(opens and opens.p10 and opens.p10 <= day and (ends is None or ends.p90 is None or day <= ends.p90))


def foretold(session: Session, farm: Farm, block: Block, day: dt.date) -> list[StageDates]:
    """The stages of a block's crop that are still to come, by heat; none where its crop has no model, or nothing tells where it stands."""
    model = crop_heat.crops().get(block.crop)
    if model is None or not block_weather.tells_heat(session, farm, block):
        return []
    begun = crop.starts(model, noted(session).get(block.id, []), day, farm.latitude < 0)
    if begun is None:
        return []
    weather, past = block_weather.series(session, farm, block, day, begun[0])
    if not weather.dates or weather.dates[0] != begun[0]:
        return []
    key = (block.id, block.crop, day)

    def read() -> list[StageDates]:
        stages = noted(session).get(block.id, [])
        return crop.foretell(model, weather, stages, past_years=past, as_of=day, latitude=farm.latitude)

    return stamp.while_standing(session, _foretold, (Topic.SEASONS, *block_weather.READ), key, read)


def next_nodes(rows: list[CropStage], ahead: int = 3) -> list[tuple[int, soybean.NodeDate]]:
    """The dates of a soybean's next nodes, in the way of counting of the last note; none before nodes were counted."""
    counted = [row for row in rows if row.node is not None]
    if not counted:
        return []
    way = counted[-1].counted
    noted = [(row.on, soybean.convert(int(row.node or 0), row.counted, way)) for row in counted if row.on.year == counted[-1].on.year]
    top = max(noted)[1]
    return [(top + n, soybean.node_date(noted, top + n)) for n in range(1, ahead + 1)]
