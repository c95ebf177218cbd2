"""Season forecasts of an agent on a block, computed once for each state of biofix and weather."""

import datetime as dt
from collections import OrderedDict
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.core.catalogue import Agent, Control, Heat
from bootmark.core.season import biofix, phenology
from bootmark.core.season.phenology import Season
from bootmark.services import weather
from bootmark.store.models import Biofix, Block, Farm, FindingRow

SEASON_DAYS = 300
DRAWS = 120
_KEPT = 256
_seasons: OrderedDict[tuple[Any, ...], Season] = OrderedDict()


@dataclass(frozen=True)
class Found:
    """A forecast with the biofix it rests on."""

    biofix: dt.date
    basis: str
    forecast: Season


def biofixes(session: Session, farm: Farm, day: dt.date) -> dict[tuple[Any, str], Biofix]:
    """The newest biofix of each block and agent that this season's heat can be counted from."""
    rows = session.scalars(
        select(Biofix)
        .where(Biofix.farm_id == farm.id, Biofix.on <= day, Biofix.on > day - dt.timedelta(days=SEASON_DAYS))
        .order_by(Biofix.on, Biofix.seen_at)
    )
    return {(row.block_id, row.agent): row for row in rows}


def watched(session: Session, farm: Farm, day: dt.date) -> set[tuple[Any, str]]:
    """Block and agent where its season matters: a biofix was set there this season, or it was found there before.

    An agent that only could be on the crop is not watched: the catalogue holds dozens for each.
    """
    found = session.execute(
        select(FindingRow.block_id, FindingRow.agent).where(FindingRow.farm_id == farm.id, FindingRow.confirmed).distinct()
    )
    return {(block, agent) for block, agent in found} | set(biofixes(session, farm, day))


def of_block(
    session: Session, farm: Farm, block: Block, agent: Agent, day: dt.date, known_biofixes: dict[tuple[Any, str], Biofix] | None = None
) -> Found | None:
    """An agent's season on a block as of a day; None without a heat model, a biofix, a station or weather."""
    if agent.heat is None or not agent.heat.events:
        return None
    station = weather.station_of(session, farm, block)
    if station is None:
        return None
    set_by_hand = (known_biofixes if known_biofixes is not None else biofixes(session, farm, day)).get((block.id, agent.id))
    on = set_by_hand.on if set_by_hand else biofix.calendar_day(agent.heat, farm.latitude < 0, day)
    if on is None:
        return None
    told, past, key = weather.series(session, station, day, on)
    if not told.dates or told.dates[0] != on or not past:
        return None
    key = (*key, agent.id, on)
    if key not in _seasons:
        _seasons[key] = phenology.forecast(agent.heat, told, on, past_years=past, as_of=day, draws=DRAWS)
        while len(_seasons) > _KEPT:
            _seasons.popitem(last=False)
    basis = set_by_hand.basis if set_by_hand else f"{agent.heat.biofix_name}, the model's own day"
    return Found(on, basis, _seasons[key])


def window_of(forecast: Season, control: Control, heat: Heat | None, day: dt.date) -> tuple[dt.date, dt.date] | None:
    return phenology.window(forecast, control, heat, after=day) if heat else None
