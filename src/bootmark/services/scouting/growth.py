"""What overlapping generations do in the days ahead, said at a call."""

import datetime as dt

import numpy as np
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Agent
from bootmark.core.catalogue.lives import lives
from bootmark.core.meanings import Measure
from bootmark.core.season import growth
from bootmark.services.base import memo, stamp
from bootmark.services.weather import blocks as block_weather
from bootmark.services.weather.blocks import READ
from bootmark.store.models import Block, Farm, SampleRow

WEEK = 7
AHEAD = 40
RELEASE = "release-predatory-mites"
RELEASE_BY = 14
_outlooks: memo.Kept[list[str]] = memo.Kept(256)


def outlook(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> list[str]:
    """Sentences: how fast it doubles in the week ahead, when a count passes the threshold with and without the enemies counted
    beside it, and how many predators would hold it.

    Empty for an agent without a growth model.
    """
    if agent.id not in lives() or not agent.is_pest:
        return []
    counted = (sample.measure, tuple(sample.counts), tuple(sample.enemies)) if sample else None
    key = (block.id, agent.id, counted, day)
    return stamp.while_standing(session, _outlooks, READ, key, lambda: _outlook(session, farm, block, agent, sample, day))


def _outlook(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> list[str]:
    temps = np.asarray(block_weather.days_ahead(session, farm, block, day, AHEAD))
    mean = float(temps[:WEEK].mean())
    counted = sample if sample and sample.measure == Measure.MEAN and sample.counts else None
    here = sum(counted.counts) / len(counted.counts) if counted else 1.0
    threshold = next(
        (nominal for crop in (block.crop, "*") for nominal in agent.thresholds if nominal.crop == crop and nominal.measure == Measure.MEAN),
        None,
    )
    limit = threshold.value if threshold else None
    free = growth.project(agent, here, temps, threshold=limit)
    if not np.isfinite(free.doubling):
        return [say.line("At the week's mean of {mean:0} °C it does not multiply.", mean=mean)]
    lines = [
        say.line(
            "At the week's mean of {mean:0} °C it doubles in about {doubling:0} days where nothing eats it.",
            mean=mean,
            doubling=free.doubling,
        )
    ]
    if threshold is None or counted is None or here <= 0:
        return lines
    enemies = sum(counted.enemies) / len(counted.enemies) if counted.enemies else 0.0
    if here < threshold.value and free.reaches is not None:
        on = day + dt.timedelta(days=free.reaches)
        lines.append(
            say.line(
                "From {here:1} it passes {value:g} {unit} about {on:day}, with no enemies.",
                here=here,
                value=threshold.value,
                unit=threshold.unit,
                on=on,
            )
        )
    if enemies:
        lines.append(_held(growth.project(agent, here, temps, enemies, threshold=threshold.value), here, enemies, threshold.value, day))
    if any(control.id == RELEASE for control in agent.controls):
        needed = growth.release_needed(agent.id, growth.FAMILIAR, here, enemies, temps, threshold.value, RELEASE_BY)
        lines.append(_release(needed, threshold.unit))
    return lines


def _held(with_enemies: growth.Projection, here: float, enemies: float, limit: float, day: dt.date) -> str:
    week = with_enemies.density[WEEK]
    if week < here:
        text = "With the {enemies:2g} enemies counted on each it falls to {week:1} in a week."
    elif here < limit and with_enemies.reaches is None:
        text = "With the {enemies:2g} enemies counted on each it stays below the threshold for {ahead} days."
    elif here < limit:
        text = "With the {enemies:2g} enemies counted on each it passes the threshold about {on:day}."
    else:
        text = "With the {enemies:2g} enemies counted on each it still grows to {week:1} in a week."
    return say.line(text, enemies=enemies, week=week, ahead=AHEAD, on=day + dt.timedelta(days=int(with_enemies.reaches or 0)))


def _release(needed: float | None, unit: str) -> str:
    each = unit.rsplit(" per ", maxsplit=1)[-1]
    if needed is None:
        return say.line("No release in reach holds it within {days} days: bring the numbers down first.", days=RELEASE_BY)
    if needed == 0:
        return say.line("Predatory mites that are there hold it within {days} days: none need be let go.", days=RELEASE_BY)
    return say.line(
        "About {needed:2g} predatory mites for each {each}, let go today, hold it within {days} days.",
        needed=needed,
        each=each,
        days=RELEASE_BY,
    )
