"""Stations and blocks as people keep them."""

import datetime as dt
import uuid
from collections.abc import Sequence
from typing import Annotated, Any

from bootmark import say
from bootmark.core.catalogue.model import PLACES
from bootmark.core.ground import plane
from bootmark.core.units import Quantity
from bootmark.services import plantings
from bootmark.services.base import ground, planned
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Choice, Crop, Day, Name, Number, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.outlines import Outline
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.states import StationKind
from bootmark.services.scouting import held
from bootmark.store.models import Block, Farm, Station
from bootmark.store.rows import of_farm

STATION_KINDS = (StationKind.OUTDOOR, StationKind.COVER)
BLOCK_WEATHER = ("station", "nearby")


class SaveStation(Command, kind="station.save", roles=KEEPERS):
    """Keep a weather station: where it stands and on which fixed offset its days run."""

    name: Name
    latitude: Annotated[float, Number(-90, 90, "degrees")]
    longitude: Annotated[float, Number(-180, 180, "degrees")]
    elevation: Annotated[float, Number(-500, 6000, measures=Quantity.LENGTH)]
    wind_height: Annotated[float, Number(0.5, 100, measures=Quantity.LENGTH)] = 2.0
    offset_minutes: Annotated[int, Number(-720, 840, "minutes", whole=True)]
    url: Annotated[str, Text(300, needed=False)] = ""
    kind: Annotated[str, Choice(STATION_KINDS, fallback=StationKind.OUTDOOR)] = StationKind.OUTDOOR


class SaveBlock(Command, kind="block.save", v=2, roles=KEEPERS):
    """Keep a block: its place, area and outline, and what mainly grows there; without a crop that stays as it is."""

    name: Name
    crop: Annotated[str | None, Crop(optional=True)] = None
    place: Annotated[str, Choice(PLACES)]
    cultivar: Annotated[str, Text(60, needed=False)] = ""
    area: Annotated[float | None, Number(0.0001, 10_000, optional=True, measures=Quantity.AREA)] = None
    outline: Annotated[list[list[float]], Outline()]
    harvest_from: Annotated[dt.date | None, Day(optional=True)] = None
    weather: Annotated[str, Choice(BLOCK_WEATHER, fallback="station")] = "station"
    elevation: Annotated[float | None, Number(-500, 6000, optional=True, measures=Quantity.LENGTH)] = None
    station_id: Annotated[uuid.UUID | None, RecordId("station", optional=True)] = None
    row_direction: Annotated[float | None, Number(0, 360, "degrees", optional=True)] = None
    row_spacing: Annotated[float | None, Number(0.05, 50, optional=True, measures=Quantity.LENGTH)] = None
    ended: Annotated[dt.date | None, Day(optional=True, past="end it on the day itself")] = None


def refuse_taken(context: Context, model: Any, what: str, name: str) -> None:
    """A name that another of the farm's records has is refused."""
    context.take_turns(f"names of {what}s")
    others = context.session.scalars(of_farm(model, model.id).where(model.name == name))
    if any(other != context.sent.record_id for other in others):
        context.errors["name"] = say.line("There is a {what} called {name} already: choose another name.", what=what, name=name)


@handles(SaveStation, Station)
def store_station(command: SaveStation, context: Context) -> Station:
    refuse_taken(context, Station, "station", command.name)
    if command.url and not command.url.startswith(("http://", "https://")):
        context.errors["url"] = say.line("{url} is not an address: it begins with http:// or https://.", url=command.url)
    return Station(**command.model_dump())


def _outline_in_degrees(payload: Any, farm: Farm) -> Any:
    """Until version 1 of it, a block's corners were metres east and south on the plan."""
    degrees = ground.in_degrees(farm, payload.get("outline")) if isinstance(payload, dict) else None
    return payload if degrees is None else payload | {"outline": degrees}


def _refuse_far(context: Context, outline: Sequence[Sequence[float]]) -> None:
    """A block lies about its farm: where it does not, longitude and latitude were exchanged, or the file is another farm's."""
    away = ground.away(context.farm, outline[0])
    if away <= ground.FURTHEST:
        return
    facts = {"away": away / 1000, "most": ground.FURTHEST / 1000}
    east, north = outline[0]
    if abs(east) <= 90 and ground.away(context.farm, (north, east)) <= ground.FURTHEST:
        context.errors["outline"] = say.line("It lies {away:0} km away: longitude comes first, then latitude. Exchange them.", **facts)
    else:
        context.errors["outline"] = say.line(
            "It lies {away:0} km from the farm, and {most:0} km are the most: is it another farm's?", **facts
        )


def said_of(block: Block) -> dict[str, Any]:
    """A block as its command says it: what a version keeps where another command changed it."""
    said = ("name", "place", "area", "outline", "weather", "elevation", "station_id", "row_direction", "row_spacing", "ended")
    return {name: getattr(block, name) for name in said}


def _grow(context: Context, block: Block) -> None:
    """What the block's form says of its crop becomes its planting; a block that has ended has nothing planned any more."""
    command = SaveBlock.read(context.sent.payload, context.checks)
    if command.crop:
        plantings.main_of(context, block, command.crop, command.cultivar, command.harvest_from)
    if block.ended:
        planned.take_back(context, block_id=block.id)


@handles(SaveBlock, Block, _grow, upgrades={1: _outline_in_degrees})
def store_block(command: SaveBlock, context: Context) -> Block:
    refuse_taken(context, Block, "block", command.name)
    before = context.session.get(Block, (context.farm_id, context.sent.record_id))
    area = command.area
    if command.outline:
        _refuse_far(context, command.outline)
        area = area if area is not None else round(plane.area(command.outline), 4)
    if area is None:
        context.errors["area"] = say.line("How large is it? Write its area, or draw its outline.")
    if command.crop is None and before is None:
        context.errors["crop"] = say.line("What grows there? Type two letters and choose from the list.")
    if command.ended and before and before.id in held.blocks(context.session):
        context.errors["ended"] = say.line("{block} is held after a report: it can't end before it is freed.", block=before.name)
    if command.station_id:
        context.get(Station, command.station_id, "station_id")
    row = Block(**command.model_dump(exclude={"area", "crop", "cultivar", "harvest_from"}), area=area)
    if before is None:
        row.crop, row.cultivar, row.harvest_from, row.standing, row.strips = command.crop or "", "", None, [], []
    return row
