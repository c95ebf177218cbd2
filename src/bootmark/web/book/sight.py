"""A page of the log, made once for each state of the farm's rows."""

import datetime as dt
import uuid
from dataclasses import dataclass

from flask import g

from bootmark.services.base import ground, memo, stamp
from bootmark.services.base.ground import Block
from bootmark.services.base.stamp import Topic
from bootmark.services.book import log, records
from bootmark.services.book.log import Entry
from bootmark.web.guard import db

PAGE = 40
SHOWN = (Topic.PLACES, Topic.SCOUTING, Topic.TREATMENT, Topic.SEASONS)


@dataclass(frozen=True)
class Sight:
    """more: where the next page begins, None on the last; pairs: blocks and agents that were counted and called this year."""

    entries: list[Entry]
    total: int
    more: int | None
    blocks: list[str]
    conflicts: list[Entry]
    pairs: list[tuple[Block, str]]


_sights: memo.Kept[Sight] = memo.Kept(128)


def sight(block: str, kind: str, start: int, since: dt.datetime) -> Sight:
    """The entries of a block and kind, or of all where these are empty, from a place on. since: the beginning of the year."""
    key = (g.catalogue.hash, block, kind, start, since)
    return stamp.while_standing(db(), _sights, SHOWN, key, lambda: _made(block, kind, start, since))


def _made(block: str, kind: str, start: int, since: dt.datetime) -> Sight:
    names = {row.name: row.id for row in ground.all_blocks(db())}
    block_id: uuid.UUID | None = names.get(block)
    wanted = kind if kind in log.KINDS else ""
    total = log.total(db(), block_id, wanted)
    return Sight(
        entries=log.entries(db(), g.catalogue, block_id=block_id, kind=wanted, start=start, most=PAGE),
        total=total,
        more=start + PAGE if total > start + PAGE else None,
        blocks=list(names),
        conflicts=log.conflicts(db(), g.catalogue),
        pairs=records.counted_and_called(db(), since),
    )
