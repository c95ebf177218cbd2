"""What keeps a forecast from being made: no weather, or nothing to count its heat from."""

import datetime as dt
from collections.abc import Sequence
from typing import Any, NamedTuple

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Agent
from bootmark.core.season import biofix
from bootmark.services.base import ground, grown
from bootmark.services.seasons import forecasts
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, Farm

UNDER_COVER = "Under cover: a station outside does not tell its heat. Put a logger inside, and choose it as the block's station."


class Waiting(NamedTuple):
    """A pest whose season on a block has nothing to be counted from yet."""

    block: str
    agent: str
    why: str


def with_events(catalogue: Any, crop: str) -> list[Agent]:
    """The pests of a crop whose season is told from heat."""
    return [agent for agent in catalogue.on(crop) if agent.heat and agent.heat.events]


def waiting(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, day: dt.date) -> list[Waiting]:
    """Pests that are watched or often met on a block, and wait for a biofix or for weather."""
    have, watched = forecasts.biofixes(session, day), forecasts.watched(session, day)
    modelled = {crop: with_events(catalogue, crop) for crop in {crop for block in blocks for crop in grown.crops(block)}}
    waits = []
    for block in blocks:
        if grown.is_bare(block):
            continue
        block_id, crops = block.id, sorted(grown.crops(block))
        for agent in {agent.id: agent for crop in crops for agent in modelled[crop]}.values():
            usual = (block_id, agent.id) in watched or any(agent.hosts.get(crop) == "often" for crop in crops)
            if not usual or (block_id, agent.id) in have or not agent.heat:
                continue
            if block_weather.station_of(session, farm, block) is None:
                waits.append(Waiting(block.name, agent.name, say.line("No weather station.")))
            elif not block_weather.tells_heat(session, farm, block):
                waits.append(Waiting(block.name, agent.name, say.line(UNDER_COVER)))
            elif biofix.calendar_day(agent.heat, farm.latitude < 0, day) is None:
                waits.append(
                    Waiting(block.name, agent.name, say.line("Set the biofix: {biofix_name}.", biofix_name=agent.heat.biofix_name.lower()))
                )
    return waits


def weatherless(session: Session, farm: Farm, blocks: Sequence[Block]) -> str:
    """Why nothing can be told at all, where there is no weather; empty where there is."""
    if not ground.stations(session):
        return say.line("This farm has no weather station: stages run on heat, so nothing can be told before there is one.")
    records = [record for block in blocks if (record := block_weather.record_of(session, farm, block))]
    if not any(record.days for record in records):
        return say.line("The station has no readings yet: send a file of past days, or give it an address or a key.")
    return ""


def young(session: Session, farm: Farm, blocks: Sequence[Block], day: dt.date) -> str:
    """That no past year is known, where it is so: today's stage is told, and nothing of the days ahead."""
    records = [record for block in blocks if (record := block_weather.record_of(session, farm, block))]
    if not any(record.days for record in records) or any(record.years(day) for record in records):
        return ""
    return say.line(
        "There is no whole past year of readings yet: stages are told up to the last day that is known or foretold, with a wider error, "
        "and no date beyond it. Send a file of one or more years."
    )
