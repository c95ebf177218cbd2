"""Crop stages as noted on blocks: flowering and a soybean's nodes follow from them."""

import datetime as dt
import uuid

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.catalogue import bbch
from bootmark.core.field import soybean
from bootmark.services import memo
from bootmark.services.commands import Context, Fields, Json, kind
from bootmark.services.field import SCOUTS, local_day
from bootmark.store.models import Block, Farm
from bootmark.store.season_models import CropStage

SOYBEAN = "soybean"


@kind("crop.stage", CropStage, SCOUTS)
def crop_stage(context: Context) -> Json:
    """Note the stage of a block's crop by its BBCH code; for a soybean its top node too."""
    payload = context.sent.payload
    fields = Fields(payload)
    on = fields.day("on")
    code = fields.number("code", 0, bbch.LAST)
    note = fields.text("note", most=300, needed=False)
    node = int(fields.number("node", 0, 40)) if str(payload.get("node") or "").strip() else None
    counted = fields.one_of("counted", soybean.COUNTS) if node is not None else ""
    if "code" not in fields.errors and code != int(code):
        fields.errors["code"] = f"{code:g} is not a BBCH code: it has two figures, 0 to 99."
    if "on" not in fields.errors and on > local_day(context):
        fields.errors["on"] = f"{on:%-d %B} is still ahead: note what stands today or stood before."
    block: Block = context.get(Block, payload.get("block_id"), "block_id")
    if node is not None and block.crop != SOYBEAN:
        fields.errors["node"] = "Nodes are counted on soybeans: leave this empty here."
    fields.done()
    return {"block_id": block.id, "on": on, "code": int(code), "node": node, "counted": counted, "note": note}


def noted(session: Session, farm: Farm) -> dict[uuid.UUID, list[tuple[dt.date, int]]]:
    """Days and codes of every block, in order of days."""
    return memo.once(session, ("crop stages", farm.id), lambda: _noted(session, farm))


def _noted(session: Session, farm: Farm) -> dict[uuid.UUID, list[tuple[dt.date, int]]]:
    found: dict[uuid.UUID, list[tuple[dt.date, int]]] = {}
    for row in rows(session, farm):
        found.setdefault(row.block_id, []).append((row.on, row.code))
    return found


def rows(session: Session, farm: Farm, block: Block | None = None) -> list[CropStage]:
    wanted = [CropStage.farm_id == farm.id, *([CropStage.block_id == block.id] if block else [])]
    return list(session.scalars(select(CropStage).where(*wanted).order_by(CropStage.on, CropStage.seen_at)))


def in_flower(session: Session, farm: Farm, block: Block, day: dt.date) -> bool:
    """Whether a block's crop is in flower on a day, by what was noted this year."""
    this_year = [one for one in noted(session, farm).get(block.id, []) if one[0].year == day.year]
    return bbch.in_flower(this_year, day)


def next_nodes(found: list[CropStage], ahead: int = 3) -> list[tuple[int, soybean.NodeDate]]:
    """The dates of a soybean's next nodes, in the way of counting of the last note; none before nodes were counted."""
    counted = [row for row in found if row.node is not None]
    if not counted:
        return []
    way = counted[-1].counted
    told = [(row.on, soybean.convert(int(row.node or 0), row.counted, way)) for row in counted if row.on.year == counted[-1].on.year]
    top = max(told)[1]
    return [(top + n, soybean.node_date(told, top + n)) for n in range(1, ahead + 1)]
