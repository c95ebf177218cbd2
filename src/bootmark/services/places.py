"""Stations, blocks and the dates from which heat is counted."""

from sqlalchemy import select

from bootmark.services.commands import Context, Fields, Json, Refused, kind
from bootmark.services.field import SCOUTS, local_day
from bootmark.store.models import Biofix, Block, Station

PLACES = ("field", "orchard", "tunnel", "greenhouse", "bed", "container")
STATION_KINDS = ("outdoor", "cover")
BLOCK_WEATHER = ("station", "nearby")
KEEPERS = ("owner", "adviser")


@kind("station.save", Station, KEEPERS)
def station_save(context: Context) -> Json:
    """Keep a weather station: where it stands and on which fixed offset its days run."""
    fields = Fields(context.sent.payload)
    columns: Json = {
        "name": fields.text("name", most=60),
        "latitude": fields.number("latitude", -90, 90, "degrees"),
        "longitude": fields.number("longitude", -180, 180, "degrees"),
        "elevation": fields.number("elevation", -500, 6000, "m"),
        "offset_minutes": int(fields.number("offset_minutes", -720, 840, "minutes")),
        "url": fields.text("url", most=300, needed=False),
        "kind": fields.one_of("kind", STATION_KINDS) if context.sent.payload.get("kind") else "outdoor",
    }
    named = select(Station.id).where(Station.farm_id == context.farm_id, Station.name == columns["name"])
    other = context.session.scalars(named).first()
    if other and other != context.sent.record_id:
        fields.errors["name"] = f"There is a station called {columns['name']} already: choose another name."
    if columns["url"] and not columns["url"].startswith(("http://", "https://")):
        fields.errors["url"] = f"{columns['url']} is not an address: it begins with http:// or https://."
    fields.done()
    return columns


@kind("block.save", Block, KEEPERS)
def block_save(context: Context) -> Json:
    """Keep a block: its crop, place, area and outline on the farm's plan."""
    payload = context.sent.payload
    fields = Fields(payload)
    crop = fields.text("crop", most=80)
    if crop and crop not in context.catalogue.crops:
        fields.errors["crop"] = f"{crop} is not a crop that Bootmark knows: type two letters and choose one from the list."
    columns: Json = {
        "name": fields.text("name", most=60),
        "crop": crop,
        "place": fields.one_of("place", PLACES),
        "cultivar": fields.text("cultivar", most=60, needed=False),
        "area": fields.number("area", 0.0001, 10_000, "ha"),
        "harvest_from": fields.day("harvest_from") if payload.get("harvest_from") else None,
        "weather": fields.one_of("weather", BLOCK_WEATHER) if payload.get("weather") else "station",
        "elevation": fields.number("elevation", -500, 6000, "m") if str(payload.get("elevation") or "").strip() else None,
    }
    outline = payload.get("outline")
    corners = isinstance(outline, list) and len(outline) >= 3 and all(isinstance(one, list) and len(one) == 2 for one in outline)
    if not corners:
        fields.errors["outline"] = "A block's outline needs at least three corners, each as [x, y] in metres."
    fields.done()
    station = context.get(Station, payload["station_id"], "station_id") if payload.get("station_id") else None
    return {**columns, "outline": outline, "station_id": station.id if station else None}


@kind("biofix.set", Biofix, SCOUTS)
def biofix_set(context: Context) -> Json:
    """Set the day from which an agent's heat is counted on a block."""
    payload = context.sent.payload
    fields = Fields(payload)
    agent_id = fields.one_of("agent", [agent.id for agent in context.catalogue.agents.values() if agent.heat and agent.heat.events])
    on = fields.day("on")
    basis = fields.text("basis", most=200)
    today = local_day(context)
    if "on" not in fields.errors and on > today:
        fields.errors["on"] = f"{on:%-d %B %Y} is still ahead: heat is counted from a day that has been, {today:%-d %B} at the latest."
    elif "on" not in fields.errors and (today - on).days > 366 * 5:
        fields.errors["on"] = f"{on:%-d %B %Y} is more than five years back: check the year."
    fields.done()
    block = context.get(Block, payload.get("block_id"), "block_id")
    agent = context.catalogue.agent(agent_id)
    if block.crop not in agent.hosts and "*" not in agent.hosts:
        raise Refused(agent=f"{agent.name} does not live on {context.catalogue.crops[block.crop].name.lower()}.")
    return {"block_id": block.id, "agent": agent_id, "on": on, "basis": basis}
