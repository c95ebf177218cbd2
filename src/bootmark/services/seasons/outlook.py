"""What a forecast means beside itself: the same pest in other years, and the day on which each control does most."""

import datetime as dt
import uuid
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from sqlalchemy.orm import Session

from bootmark.core.catalogue import Control
from bootmark.core.meanings import WindowClosed
from bootmark.core.season import killing, openings, phenology
from bootmark.core.season.daily import same_day
from bootmark.core.season.killing import Best
from bootmark.core.season.phenology import Season
from bootmark.services.seasons.forecasts import Ask
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Biofix, Farm
from bootmark.store.rows import of_farm

MOST_YEARS = 6
YEAR_DRAWS = 40
TIMED = ("physical", "living", "soft", "conventional")
"""Kinds of control that a day decides; cultural acts are not hurried for (common practice, no source)."""


@dataclass(frozen=True)
class Year:
    """A past year: the day its heat is counted from, whether that was set then, the day of each event, and its shares by stage.

    first: the day of the first share, as a day of this year.
    """

    year: int
    biofix: dt.date
    own: bool
    events: dict[str, dt.date | None]
    first: dt.date
    shares: Mapping[str, np.ndarray]


@dataclass(frozen=True)
class Chance:
    """When a control does most: the best day, the best two, its window where that is open or ahead, and why it has none."""

    control: Control
    best: Best | None
    twice: Best | None
    window: tuple[dt.date, dt.date] | None
    closed: WindowClosed | None = None


def biofixes_by_year(session: Session, block: uuid.UUID, agent: str) -> dict[int, dt.date]:
    """The day last set in each year."""
    mine = of_farm(Biofix, Biofix.on).where(Biofix.block_id == block, Biofix.agent == agent)
    rows = session.execute(mine.order_by(Biofix.on, Biofix.seen_at))
    return {on.year: on for (on,) in rows}


def years(session: Session, farm: Farm, question: Ask, set_then: Mapping[int, dt.date]) -> list[Year]:
    """Past years on their own weather, the newest first, from their own biofix where one was set, else from this year's day."""
    assert question.agent.heat
    kept = block_weather.record_of(session, farm, question.block)
    if kept is None:
        return []
    past = kept.years(question.biofix)
    rows = []
    for weather in past[:MOST_YEARS]:
        year = weather.dates[len(weather.dates) // 2].year
        on = set_then.get(year) or same_day(question.biofix, year)
        if on not in weather.dates or year == question.biofix.year:
            continue
        forecast = phenology.forecast(
            question.agent.heat, weather, on, past_years=past, as_of=weather.dates[-1], draws=YEAR_DRAWS, latitude=farm.latitude
        )
        events = {event.id: event.p50 for event in forecast.events}
        rows.append(Year(year, on, year in set_then, events, same_day(on, question.biofix.year), forecast.shares))
    return rows


def chances(question: Ask, season: Season, today: dt.date, lasts: int | None) -> list[Chance]:
    """When each control that is timed by a stage does most. lasts: days on which it kills, the catalogue's where None."""
    chances_of = []
    for control in question.agent.controls:
        if control.kind not in TIMED or not control.stages:
            continue
        best = killing.best_days(season, question.agent, control, after=today, lasts_days=lasts)
        span = openings.window(season, control, question.agent.heat, after=today) if question.agent.heat else None
        closed = openings.why_closed(season, control, question.agent.heat, after=today) if question.agent.heat else None
        if best or span or closed:
            twice = killing.best_days(season, question.agent, control, after=today, lasts_days=lasts, treatments=2) if best else None
            chances_of.append(Chance(control, best, twice, span if span and span[1] >= today else None, closed))
    return chances_of
