"""What overlapping generations do in the days ahead, said at a call."""

import datetime as dt

import numpy as np
from numpy.typing import NDArray
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue import Agent, default
from bootmark.core.catalogue.lives import lives
from bootmark.core.field.count import interval
from bootmark.core.meanings import COVERED, Chosen, Measure
from bootmark.core.season import growth
from bootmark.core.types import Sample, Threshold
from bootmark.services.base import memo, stamp
from bootmark.services.weather import blocks as block_weather
from bootmark.services.weather.blocks import READ
from bootmark.store.models import Block, Farm, SampleRow

Array = NDArray[np.float64]
WEEK = 7
AHEAD = 40
_outlooks: memo.Kept[list[str]] = memo.Kept(256)


def outlook(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> list[str]:
    """Sentences: how fast it doubles in the week ahead, when a count passes the threshold with and without the enemies counted
    beside it, and how many predators would hold it.

    Empty for an agent without a growth model.
    """
    if agent.id not in lives() or not agent.is_pest:
        return []
    if block.place in COVERED and not block_weather.tells_heat(session, farm, block):
        return [say.line("Under cover, without a logger inside, nothing is told of how fast it grows.")]
    counted = (sample.measure, tuple(sample.counts), tuple(sample.enemies)) if sample else None
    key = (block.id, agent.id, counted, day)
    return stamp.while_standing(session, _outlooks, READ, key, lambda: _outlook(session, farm, block, agent, sample, day))


def _outlook(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> list[str]:
    temps = np.asarray(block_weather.days_ahead(session, farm, block, day, AHEAD))
    mean = float(temps[:WEEK].mean())
    counted = sample if sample and sample.measure == Measure.MEAN and sample.counts else None
    here = sum(counted.counts) / len(counted.counts) if counted else 1.0
    threshold = limit(agent, block.crop)
    free = growth.project(agent, here, temps, threshold=threshold.value if threshold else None, crop=block.crop)
    if not np.isfinite(free.doubling):
        return [say.line("At the week's mean of {mean:temperature0} it does not multiply.", mean=mean)]
    lines = [
        say.line(
            "At the week's mean of {mean:temperature0} it doubles in about {doubling:0} days where nothing eats it.",
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
        eaten = growth.project(agent, here, temps, enemies, threshold=threshold.value, crop=block.crop)
        lines.append(_held(eaten, here, enemies, threshold.value, day))
    if any(control.brings for control in agent.controls) and growth.enemy_of(agent):
        lines.append(_release(agent, here, enemies, temps, threshold, block.crop))
    return lines


def days_to_threshold(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> float | None:
    """Days until what was counted passes the threshold by itself, at the count's upper limit; None where it does not, or nobody can tell.

    The limit and not the estimate: a look that comes a day early costs less than one that comes too late.
    """
    nominal = limit(agent, block.crop)
    counted = sample is not None and sample.measure == Measure.MEAN and bool(sample.counts) and sample.chosen != Chosen.PICKED
    if agent.id not in lives() or nominal is None or sample is None or not counted:
        return None
    if block.place in COVERED and not block_weather.tells_heat(session, farm, block):
        return None
    high = interval(Sample(sample.unit, tuple(sample.counts), tuple(sample.enemies))).high
    temps = np.asarray(block_weather.days_ahead(session, farm, block, day, AHEAD))
    reaches = growth.project(agent, high, temps, threshold=nominal.value, crop=block.crop).reaches
    return None if reaches is None else float(reaches)


def limit(agent: Agent, crop: str) -> Threshold | None:
    """The threshold of a mean, the crop's own before that of any."""
    return agent.threshold(crop, Measure.MEAN)


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


def _release(agent: Agent, here: float, enemies: float, temps: Array, threshold: Threshold, crop: str) -> str:
    """How many of the pest's own enemy would hold it, or bring it down, said against the threshold."""
    needed = growth.release_needed(agent, here, temps, ceiling=threshold.value, predators=enemies, crop=crop)
    hunter = default().agent(growth.enemy_of(agent)).name.split(" (")[0].lower()
    facts = {
        "needed": needed, "each": threshold.unit.rsplit(" per ", maxsplit=1)[-1], "value": threshold.value, "hunter": hunter,
        "days": growth.DAYS_TO_CURE, "here": here,
    }  # fmt: skip
    above = here > threshold.value
    if needed == float("inf"):
        return say.line("No release in reach holds it: bring the numbers down first.")
    if needed == 0:
        text = "The {hunter} that are there bring it below {value:g} within {days} days: none need be let go."
        return say.line(
            text if above else "The {hunter} that are there keep it below {value:g} on every day: none need be let go.", **facts
        )
    text = "About {needed:2g} {hunter} for each {each}, let go today, bring it from {here:1} below {value:g} within {days} days."
    return say.line(text if above else "About {needed:2g} {hunter} for each {each}, let go today, keep it below {value:g}.", **facts)
