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
from bootmark.services.base import acted_on, grown, memo, stamp
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
_kept: memo.Kept[dict[uuid.UUID | None, list[tuple[dt.date, int]]]] = memo.Kept(64)


class NoteCropStage(Command, kind="crop.stage", roles=SCOUTS):
    """Note the stage of a block's crop by its BBCH code; for a soybean its top node too. planting_id: of which crop in a mixed bed."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    planting_id: Annotated[uuid.UUID | None, RecordId("planting", optional=True)] = None
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
    planting_id = acted_on.planting(context, block, command.planting_id, command.on)
    if command.node is not None and grown.as_planting(block, planting_id).crop != SOYBEAN:
        context.errors["node"] = say.line("Nodes are counted on soybeans: leave this empty here.")
    counted = command.counted if command.node is not None else ""
    return CropStage(**command.model_dump(exclude={"counted", "planting_id"}), counted=counted, planting_id=planting_id)


def noted(session: Session, block: Block) -> list[tuple[dt.date, int]]:
    """Days and codes of what mainly grows on a block, in order of days; with those of before its ground was part of this block."""
    by_planting = stamp.while_standing(session, _kept, (Topic.SEASONS,), "noted", lambda: _noted(session))
    main = next(iter(grown.standing(block)), None)
    if main is None:
        return []
    earlier = [stage for stage in by_planting.get(main.before, []) if main.apart_on is None or stage[0] <= main.apart_on]
    return sorted([*earlier, *by_planting.get(main.id, [])], key=lambda stage: stage[0])


def _noted(session: Session) -> dict[uuid.UUID | None, list[tuple[dt.date, int]]]:
    by_planting: dict[uuid.UUID | None, list[tuple[dt.date, int]]] = {}
    for row in session.scalars(of_farm(CropStage).order_by(CropStage.on, CropStage.seen_at)):
        by_planting.setdefault(row.planting_id, []).append((row.on, row.code))
    by_planting.pop(None, None)
    return by_planting


def rows(session: Session, block: Block) -> list[CropStage]:
    """What was noted of what mainly grows on a block, in order of days."""
    main = next(iter(grown.standing(block)), None)
    wanted = CropStage.planting_id == main.id if main else CropStage.block_id == block.id
    return list(session.scalars(of_farm(CropStage).where(wanted).order_by(CropStage.on, CropStage.seen_at)))


def flowered(session: Session, block: Block, day: dt.date) -> bool | None:
    """Whether a block's crop has come to flower, or is past it; None where nothing was noted this year."""
    this_year = [stage for stage in noted(session, block) if stage[0].year == day.year and stage[0] <= day]
    return this_year[-1][1] >= bbch.FLOWERING.start if this_year else None


def in_flower(session: Session, farm: Farm, block: Block, day: dt.date) -> bool:
    """Whether any crop on a block is in flower on a day: by what was noted this year; where nothing was, whether by heat it may be.

    Bees are not to pay for a stage that nobody noted.
    """
    each = [grown.as_planting(block, planting.id) for planting in grown.standing(block)] or [block]
    return any(_in_flower(session, farm, planted, day) for planted in each)


def _in_flower(session: Session, farm: Farm, block: Block, day: dt.date) -> bool:
    this_year = [stage for stage in noted(session, block) if stage[0].year == day.year]
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
    begun = crop.starts(model, noted(session, block), day, farm.latitude < 0)
    if begun is None:
        return []
    weather, past = block_weather.series(session, farm, block, day, begun[0])
    if not weather.dates or weather.dates[0] != begun[0]:
        return []
    planting = next((planting.id for planting in grown.standing(block)), None)
    key = (block.id, block.crop, planting, day)

    def read() -> list[StageDates]:
        return crop.foretell(model, weather, noted(session, block), past_years=past, as_of=day, latitude=farm.latitude)

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
