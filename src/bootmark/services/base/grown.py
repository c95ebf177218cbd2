"""What grows on a block: its plantings as readers want them, without the words of commands."""

import datetime as dt
import uuid
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session
from sqlalchemy.orm.attributes import set_committed_value

from bootmark.core.catalogue import Agent, Catalogue
from bootmark.services.base import memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.store.models import Block, Planting, Stop
from bootmark.store.rows import of_farm, plain, row_of

_turned: memo.Kept[bool] = memo.Kept(256)


@dataclass(frozen=True)
class Grown:
    """A planting that stands on a block. part: which of it, in words; before: the planting that it was until apart_on; unchecked: the
    passport or supplier of a lot that nobody has looked through since it came."""

    id: uuid.UUID
    crop: str
    cultivar: str
    part: str
    since: dt.date | None
    harvest_from: dt.date | None
    before: uuid.UUID | None
    apart_on: dt.date | None
    height: float | None = None
    sold_as: str = ""
    worth: str = ""
    passport: str = ""
    unchecked: str = ""
    plants: int | None = None


def _day(text: str | None) -> dt.date | None:
    return dt.date.fromisoformat(text) if text else None


def standing(block: Block) -> list[Grown]:
    """What grows on a block today, the main planting first; nothing while it lies bare."""
    return [
        Grown(
            uuid.UUID(row["id"]),
            row["crop"],
            row["cultivar"],
            row["part"],
            _day(row["since"]),
            _day(row["harvest_from"]),
            uuid.UUID(row["before"]) if row.get("before") else None,
            _day(row.get("apart_on")),
            row.get("height"),
            row.get("sold_as", ""),
            row.get("worth", ""),
            row.get("passport", ""),
            row.get("unchecked", ""),
            row.get("plants"),
        )
        for row in block.standing
    ]


def crops(block: Block) -> frozenset[str]:
    """Every crop on a block; while it lies bare, the last that stood there."""
    return frozenset(row["crop"] for row in block.standing) or frozenset((block.crop,))


def lives_on(agent: Agent, block: Block) -> bool:
    """Whether an agent lives on anything that grows on a block."""
    return "*" in agent.hosts or not crops(block).isdisjoint(agent.hosts)


def is_bare(block: Block) -> bool:
    return not block.standing


def uses(catalogue: Catalogue, crop: str) -> tuple[bool, bool]:
    """Whether people, and whether stock, eat of a crop; a plant that nobody knows is taken to be eaten."""
    entry = catalogue.crops.get(crop)
    return (True, False) if entry is None else (bool(entry.eaten), entry.fed)


def eaten_and_fed(catalogue: Catalogue, block: Block) -> tuple[bool, bool]:
    """Whether people, and whether stock, eat of anything on a block: what is brought out there wets all of it."""
    each = [uses(catalogue, crop) for crop in crops(block)]
    return any(eaten for eaten, _ in each), any(fed for _, fed in each)


def as_planting(block: Block, planting: uuid.UUID | None) -> Block:
    """A block as a value in which one of its plantings is the main one; as it is where that does not stand there."""
    own = next((row for row in block.standing if row["id"] == str(planting)), None)
    value = plain(block)
    if own:
        rest = [row for row in block.standing if row is not own]
        _set(value, crop=own["crop"], cultivar=own["cultivar"], standing=[own, *rest])
    return value


def at_stop(session: Session, stop: Stop) -> Block:
    """The block of a stop, as a value, with what was looked at there as its main planting: also where that has gone since."""
    block = row_of(session, Block, stop.block_id)
    value = as_planting(block, stop.planting_id)
    if stop.planting_id and not any(row["id"] == str(stop.planting_id) for row in block.standing):
        planting = row_of(session, Planting, stop.planting_id)
        _set(value, crop=planting.crop, cultivar=planting.cultivar)
    return value


def _set(value: Block, **attributes: Any) -> None:
    for name, attribute in attributes.items():
        set_committed_value(value, name, attribute)


def stands(planting: Planting, day: dt.date) -> bool:
    """Whether a planting stands on a day."""
    return (planting.since is None or planting.since <= day) and (planting.until is None or day <= planting.until)


def _order(planting: Planting) -> tuple[bool, dt.date, str, str]:
    return bool(planting.part), planting.since or dt.date.min, planting.crop, str(planting.id)


def of_block(session: Session, block_id: uuid.UUID) -> list[Planting]:
    """Every planting that a block has had, has or is to have, the newest first."""
    rows = session.scalars(of_farm(Planting).where(Planting.block_id == block_id))
    return sorted(rows, key=lambda row: (row.until or dt.date.max, row.since or dt.date.min, row.crop), reverse=True)


def planting(session: Session, planting_id: uuid.UUID) -> Planting:
    """A planting of the farm. Raises NotHere."""
    return row_of(session, Planting, planting_id)


def on_day(session: Session, block_id: uuid.UUID, day: dt.date) -> list[Planting]:
    """The plantings that stand on a block on a day, the main one first: the one that has the whole of it, or has stood longest."""
    return sorted((row for row in of_block(session, block_id) if stands(row, day)), key=_order)


def _next_picking(catalogue: Catalogue, plantings: Sequence[Planting]) -> dt.date | None:
    """The first picking on a block; None where one of the plantings that is eaten has none told."""
    picked = [row for row in plantings if any(uses(catalogue, row.crop))] or list(plantings[:1])
    days = [row.harvest_from for row in picked if row.harvest_from]
    return min(days) if days and len(days) == len(picked) else None


def _row(planting: Planting) -> dict[str, Any]:
    return {
        "id": str(planting.id),
        "crop": planting.crop,
        "cultivar": planting.cultivar,
        "part": planting.part,
        "since": planting.since.isoformat() if planting.since else None,
        "harvest_from": planting.harvest_from.isoformat() if planting.harvest_from else None,
        "before": str(planting.grown_from) if planting.grown_from else None,
        "apart_on": planting.apart_on.isoformat() if planting.apart_on else None,
        "height": planting.height,
        "sold_as": planting.sold_as,
        "worth": planting.worth,
        "passport": planting.passport,
        "plants": planting.plants,
        "unchecked": "" if planting.checked_on else planting.passport or planting.supplier,
    }


def settle(block: Block, plantings: Iterable[Planting], day: dt.date, catalogue: Catalogue) -> bool:
    """Bring what a block says of its plantings up to a day. Returns whether anything changed."""
    now = sorted((row for row in plantings if stands(row, day) and not row.withdrawn), key=_order)
    rows = [_row(row) for row in now]
    if block.standing == rows:
        return False
    block.standing = rows
    if now:
        block.crop, block.cultivar = now[0].crop, now[0].cultivar
        block.harvest_from = _next_picking(catalogue, now)
    return True


def turn(session: Session, day: dt.date, catalogue: Catalogue) -> None:
    """Bring every block up to a day: what was to be planted stands, what was to go is gone.

    It is asked for by each page, and reads once for each day and each change of a place.
    """
    key = (stamp.of(session, Topic.PLACES), session.info["farm"], day)
    if _turned.get(key):
        return
    by_block: dict[uuid.UUID, list[Planting]] = {}
    for planting in session.scalars(of_farm(Planting)):
        by_block.setdefault(planting.block_id, []).append(planting)
    changed = [settle(block, by_block.get(block.id, ()), day, catalogue) for block in session.scalars(of_farm(Block))]
    if any(changed):
        session.flush()
    else:
        _turned.put(key, True)
