"""What grows on a block: crops planted, harvested for good, one after the other or several at once."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated, Any

from bootmark import say
from bootmark.core.meanings import SoldAs, Worth
from bootmark.core.units import Quantity
from bootmark.services.base import deriving, farm_time, grown
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Crop, Day, Flag, Number, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import KEEPERS
from bootmark.services.scouting import held
from bootmark.store.models import Block, Planting
from bootmark.store.rows import of_farm

LOT = ("supplier", "origin", "passport", "checked_on", "gone_to")
"""What is said of a lot that was bought, or is sold."""
SAID = ("block_id", "crop", "cultivar", "part", "since", "until", "harvest_from", "height", "plants", "sold_as", "worth", *LOT)
"""What a command says of a planting."""


class SavePlanting(Command, kind="planting.save", roles=KEEPERS):
    """Keep a crop on a block from a day on; follows: it comes after what stands there, which ends the day before."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    crop: Annotated[str, Crop()]
    cultivar: Annotated[str, Text(60, needed=False)] = ""
    part: Annotated[str, Text(60, needed=False)] = ""
    since: Annotated[dt.date | None, Day(optional=True)] = None
    until: Annotated[dt.date | None, Day(optional=True)] = None
    harvest_from: Annotated[dt.date | None, Day(optional=True)] = None
    follows: Annotated[bool, Flag()] = False
    height: Annotated[float | None, Number(0.05, 60, optional=True, measures=Quantity.LENGTH)] = None
    plants: Annotated[int | None, Number(1, 10_000_000, "plants", whole=True, optional=True)] = None
    sold_as: Annotated[str, Choice(("", *SoldAs), fallback="")] = ""
    worth: Annotated[str, Choice(("", *Worth), fallback="")] = ""
    supplier: Annotated[str, Text(120, needed=False)] = ""
    origin: Annotated[str, Text(120, needed=False)] = ""
    passport: Annotated[str, Text(60, needed=False)] = ""
    checked_on: Annotated[dt.date | None, Day(past="look them through first", optional=True)] = None
    gone_to: Annotated[str, Text(120, needed=False)] = ""
    came_from: Annotated[uuid.UUID | None, RecordId("planting", optional=True)] = None

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.since and self.until and self.until < self.since:
            yield (
                "until",
                say.line("It stood to {until:day} and was planted on {since:day}: one is wrong.", until=self.until, since=self.since),
            )
        if self.since and self.harvest_from and self.harvest_from < self.since:
            yield (
                "harvest_from",
                say.line("It is picked on {on:day} and planted on {since:day}: one is wrong.", on=self.harvest_from, since=self.since),
            )
        if self.follows and not self.since:
            yield "since", say.line("Since when does it stand there? What was before ends the day before.")


def farm_day(context: Context) -> dt.date:
    """The farm's day, also where what is kept was done earlier."""
    return farm_time.now(context.farm, context.real_now).date()


def settle(context: Context, block: Block) -> None:
    """Bring what a block says of its plantings up to the farm's day."""
    grown.settle(block, grown.of_block(context.session, block.id), farm_day(context), context.catalogue)


def _overlap(first: Planting | SavePlanting, second: Planting) -> bool:
    begins = (first.since or dt.date.min) <= (second.until or dt.date.max)
    return begins and (second.since or dt.date.min) <= (first.until or dt.date.max)


def _standing_with(command: SavePlanting, context: Context) -> list[Planting]:
    """Plantings of the same ground at the same time: neither says which part it has."""
    others = grown.of_block(context.session, command.block_id)
    return [row for row in others if row.id != context.sent.record_id and not command.part and not row.part and _overlap(command, row)]


def _ends_before(command: SavePlanting, row: Planting) -> bool:
    return command.follows and command.since is not None and (row.since or dt.date.min) < command.since


def _follow(context: Context, row: Planting) -> None:
    """End what the planting follows, and bring the block up to date."""
    command = SavePlanting.read(context.sent.payload, context.checks)
    for other in _standing_with(command, context):
        if _ends_before(command, other) and command.since:
            end(context, other, command.since - dt.timedelta(days=1))
    block: Block = context.get(Block, row.block_id, "block_id")
    settle(context, block)


def end(context: Context, planting: Planting, until: dt.date) -> None:
    """A planting stands no longer than to a day."""
    deriving.change(context, Planting, planting.id, said_of(planting) | {"until": until})


def said_of(planting: Planting) -> dict[str, Any]:
    """What a command would say of a planting as it is."""
    return {name: getattr(planting, name) for name in SAID}


@handles(SavePlanting, Planting, _follow)
def store_planting(command: SavePlanting, context: Context) -> Planting:
    block: Block = context.get(Block, command.block_id, "block_id")
    context.take_turns(f"plantings of {block.id}")
    before = context.session.get(Planting, (context.farm_id, context.sent.record_id))
    if before and before.block_id != block.id:
        context.errors["block_id"] = say.line("A planting stays on its block: add another there.")
    if block.ended and not before:
        context.errors["block_id"] = say.line("{block} is no block any more: nothing is planted there.", block=block.name)
    blocking = [row for row in _standing_with(command, context) if not _ends_before(command, row)]
    if blocking and not context.sent.withdrawn:
        context.errors["part"] = say.line(
            "{crop} stands on all of the block then: say which part this one has, or that it follows.",
            crop=context.catalogue.crops[blocking[0].crop].name,
        )
    said = command.model_dump(include=set(SAID))
    hold = held.blocks(context.session).get(block.id)
    if hold and command.gone_to and not (before and before.gone_to == command.gone_to):
        context.errors["gone_to"] = say.tongue().say(hold, context.catalogue)
    if command.came_from:
        return Planting(**said | _of_lot(command, context), grown_from=command.came_from, apart_on=command.since or context.today)
    return Planting(**said)


def _of_lot(command: SavePlanting, context: Context) -> dict[str, Any]:
    """What a lot that came from another block brings along, where the form says nothing else. Nothing leaves a block that is held."""
    lot: Planting = context.get(Planting, command.came_from or uuid.UUID(int=0), "came_from")
    hold = held.blocks(context.session).get(lot.block_id)
    if hold:
        context.errors["came_from"] = say.tongue().say(hold, context.catalogue)
    if lot.id == context.sent.record_id or lot.crop != command.crop:
        context.errors["came_from"] = say.line("A lot comes from another planting of the same crop.")
    return {name: getattr(command, name) or getattr(lot, name) for name in ("supplier", "origin", "passport", "checked_on")}


def main_of(context: Context, block: Block, crop: str, cultivar: str, harvest_from: dt.date | None) -> None:
    """What a block's own form says of its crop: a new block's first planting, or the main one put right."""
    rows = grown.on_day(context.session, block.id, context.today)
    payload = {"block_id": block.id, "crop": crop, "cultivar": cultivar, "harvest_from": harvest_from}
    fields = SavePlanting.model_fields
    blank = {name: None if fields[name].is_required() else fields[name].default for name in SAID}
    if not rows:
        has_any = context.session.scalars(of_farm(Planting, Planting.id).where(Planting.block_id == block.id)).first()
        since = context.today if has_any else None
        deriving.change(context, Planting, context.derived_id("planting", 0), blank | payload | {"since": since})
    elif any(getattr(rows[0], name) != value for name, value in payload.items()):
        main = rows[0]
        deriving.change(context, Planting, main.id, said_of(main) | payload)
    settle(context, block)


def hand_on(context: Context, from_block: Block, to: Block, part: str = "") -> None:
    """What grows on a block, or is to, grows from today on a block that has taken its ground: as plantings of their own."""
    today, present = farm_day(context), grown.of_block(context.session, to.id)
    for ordinal, row in enumerate(grown.of_block(context.session, from_block.id)):
        same = any((other.crop, other.cultivar, other.since) == (row.crop, row.cultivar, row.since) for other in present)
        if row.withdrawn or same or (row.until and row.until < today):
            continue
        # How many of them have come along nobody has counted.
        payload = said_of(row) | {"block_id": to.id, "part": row.part or part, "plants": None}
        record_id = context.derived_id(f"planting of {to.id}", ordinal)
        deriving.change(context, Planting, record_id, payload, grown_from=row.id, apart_on=today)
    settle(context, to)


def name_part(context: Context, block: Block, part: str) -> None:
    """What has had the whole of a block has a part of it from now on, by a name."""
    for row in grown.on_day(context.session, block.id, farm_day(context)):
        if not row.part:
            deriving.change(context, Planting, row.id, said_of(row) | {"part": part})
