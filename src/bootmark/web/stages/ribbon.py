"""A ribbon as the page shows it: what is out there, what comes, and the days behind it."""

import datetime as dt
import uuid
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from flask import g

from bootmark import say
from bootmark.core.catalogue import Control, bbch
from bootmark.core.catalogue.model import MANY
from bootmark.core.meanings import DayKind
from bootmark.core.season import openings
from bootmark.core.season.phenology import Season
from bootmark.core.units import Quantity
from bootmark.drawing.axes import Axis
from bootmark.services.base import ground, memo
from bootmark.services.seasons import crop_stages, traps
from bootmark.services.seasons.forecasts import Ask, Pair
from bootmark.services.seasons.results import Listed
from bootmark.services.treatment import timing
from bootmark.web.guard import db
from bootmark.web.stages.svg import STAGE_WORDS, Marks, ribbon_svg, season_axis, spoken

BACK_DAYS, AHEAD_DAYS = 62, 70
TREATED_DAYS = 300
KINDS: dict[str, str] = {DayKind.MEASURED: "m", DayKind.FORECAST: "f", DayKind.PAST_YEARS: "p"}
"""One letter a day for the script; every way of filling is one more."""
FILLED = "i"


@dataclass(frozen=True)
class Around:
    """What stands beside the forecasts of a farm this year, by block and agent."""

    treatments: Mapping[Pair, Sequence[tuple[dt.date, bool]]] = field(default_factory=dict)
    catches: Mapping[Pair, Sequence[tuple[dt.date, int]]] = field(default_factory=dict)
    stages: Mapping[uuid.UUID, Sequence[tuple[dt.date, int]]] = field(default_factory=dict)


def around(today: dt.date, hanging: list[traps.Hanging]) -> Around:
    stages = {block.id: crop_stages.noted(db(), block) for block in ground.blocks(db())}
    return Around(timing.treated_since(db(), today - dt.timedelta(days=TREATED_DAYS)), traps.catches(hanging), stages)


def window_name(control: Control | None) -> str:
    """What a window is called. A spray is not named before a call carries it."""
    if control is None:
        return ""
    return control.name if control.unsprayed else say.line("{reached} can be reached", reached=_reached(control))


def _reached(control: Control) -> str:
    """Who is reached: the one phase that the control is bound to, or all of its stages."""
    if len(control.phases) == 1 and control.phases[0].endswith(tuple(MANY[stage] for stage in control.stages)):
        return say.line(control.phases[0].replace("-", " "))
    return say.tongue().formats.both([say.line(MANY[stage]) for stage in control.stages])


def pace(days_early: int | None) -> str:
    """How this year runs against the usual one."""
    if days_early is None:
        return ""
    if not days_early:
        return say.line("as usual")
    if days_early > 0:
        return say.many("{of} day early", "{of} days early", days_early)
    return say.many("{of} day late", "{of} days late", -days_early)


def axis_of(today: dt.date) -> Axis:
    return season_axis(today - dt.timedelta(days=BACK_DAYS), today + dt.timedelta(days=AHEAD_DAYS))


def marks_of(
    ask: Ask, around_: Around, today: dt.date, window: tuple[dt.date, dt.date] | None, name: str, before: Season | None = None
) -> Marks:
    pair = (ask.block.id, ask.agent.id)
    this_year = [stage for stage in around_.stages.get(ask.block.id, ()) if stage[0].year == today.year]
    bloom = bbch.bloom(this_year)
    return Marks(
        window=window,
        window_name=name,
        treatments=around_.treatments.get(pair, ()),
        sightings=tuple(sighting.on for sighting in ask.sightings),
        catches=around_.catches.get(pair, ()),
        bloom=(bloom[0], bloom[1] or today) if bloom else None,
        harvest=ask.block.harvest_from,
        before=before,
    )


def days_told(season: Season, axis: Axis) -> dict[str, Any]:
    """The days of an axis for the script: shares in hundredths, heat low, middle and high, and where each day's heat comes from."""
    first = max((axis.first - season.dates[0]).days, 0)
    last = min((axis.last - season.dates[0]).days + 1, len(season.dates))
    stages = [stage for stage in season.shares if float(np.max(season.shares[stage][first:last], initial=0)) >= 0.005]
    unit = say.tongue().formats.unit(Quantity.HEAT)
    return {
        "first": season.dates[first].isoformat() if first < last else "",
        "offset": (season.dates[first] - axis.first).days if first < last else 0,
        "axis": axis.days,
        "stages": {stage: np.rint(100 * season.shares[stage][first:last]).astype(int).tolist() for stage in stages},
        "heat": [np.rint(unit.times * row[first:last]).astype(int).tolist() for row in season.heat],
        "unit": say.tongue().symbol(Quantity.HEAT),
        "kinds": "".join(KINDS.get(kind, FILLED) for kind in season.kinds[first:last]),
        "words": {stage: say.line(STAGE_WORDS.get(stage, stage)) for stage in stages},
    }


_drawn: memo.Kept[dict[str, Any]] = memo.Kept(600)
"""Ribbons as they were drawn, about twenty kilobytes each."""

Load = Callable[[Sequence[Listed]], Mapping[Pair, Season]]


def _drawing_of(ask: Ask, around_: Around, today: dt.date) -> tuple[Any, ...]:
    """Changes with anything that a ribbon shows: its forecast's key stands for weather, biofix and sightings."""
    marks = marks_of(ask, around_, today, None, "")
    block = ask.block
    shown = tuple(marks.treatments), tuple(marks.catches), marks.bloom, marks.harvest
    return block.farm_id, block.id, ask.agent.id, ask.key, block.name, block.crop, *shown


def views(listed: Sequence[Listed], load: Load, around_: Around, today: dt.date) -> list[dict[str, Any]]:
    """Ribbons in their order; only those that were not drawn as they are now are loaded and drawn. One that can't be made is left out.

    What is stored for yesterday's readings is shown until it has been made anew, and is not kept as today's.
    """
    keys = {row.pair: _drawing_of(row.ask, around_, today) for row in listed}
    kept = {row.pair: drawn for row in listed if row.fresh and (drawn := _drawn.get(keys[row.pair]))}
    new = [row for row in listed if row.pair not in kept]
    seasons = load(new) if new else {}
    for row in new:
        if row.pair in seasons:
            kept[row.pair] = view(row.ask, seasons[row.pair], around_, today)
            if row.fresh:
                _drawn.put(keys[row.pair], kept[row.pair])
    return [{**kept[row.pair], "block": row.ask.block, "agent": row.ask.agent} for row in listed if row.pair in kept]


def view(
    ask: Ask, season: Season, around_: Around, today: dt.date, axis: Axis | None = None, before: Season | None = None
) -> dict[str, Any]:
    """Everything that a ribbon's template says of one agent on one block."""
    axis = axis or axis_of(today)
    control, span = openings.leading_window(season, ask.agent, after=today) or (None, None)
    coming = next((event for event in season.events if event.p50 and event.p50 >= today), None)
    name = window_name(control)
    title = say.line("{agent} on {block}: {stages} today", agent=ask.agent.name, block=ask.block.name, stages=spoken(season.on(today)))
    return {
        "block": ask.block,
        "agent": ask.agent,
        "biofix": ask.biofix,
        "basis": ask.basis,
        "waited": ask.days,
        "forecast": season,
        "coming": coming,
        "pace": pace(coming.days_early) if coming else "",
        "window": span,
        "window_name": name,
        "today": spoken(season.on(today)),
        "heat": float(season.heat[1][season.index(today)]),
        "days": days_told(season, axis),
        "now": min(max((today - axis.first).days, 0), axis.days),
        "svg": ribbon_svg(season, axis, today, title, marks_of(ask, around_, today, span, name, before)),
        "crop": g.catalogue.crops[ask.block.crop],
    }
