"""What overlapping generations do in the days ahead, said at a call."""

import datetime as dt

import numpy as np
from sqlalchemy.orm import Session

from bootmark.core.catalogue import Agent
from bootmark.core.season import cohorts
from bootmark.services import weather
from bootmark.store.models import Block, Farm, SampleRow

WEEK = 7
AHEAD = 40


def outlook(session: Session, farm: Farm, block: Block, agent: Agent, sample: SampleRow | None, day: dt.date) -> list[str]:
    """Sentences: how fast it doubles in the week ahead, and when a count passes the threshold if nothing eats it.

    Empty for an agent without a growth model. Means of daily extremes stand for the temperature of a day.
    """
    life = cohorts.LIVES.get(agent.id)
    if life is None:
        return []
    temps = np.mean(weather.days_ahead(session, farm, block, day, AHEAD), axis=1)
    mean = float(temps[:WEEK].mean())
    days = cohorts.doubling_days(life, mean)
    if not np.isfinite(days):
        return [f"At the week's mean of {mean:.0f} C it does not multiply."]
    told = [f"At the week's mean of {mean:.0f} C it doubles in about {days:.0f} days where nothing eats it."]
    threshold = next((one for crop in (block.crop, "*") for one in agent.thresholds if one.crop == crop and one.measure == "mean"), None)
    if threshold and sample and sample.measure == "mean" and sample.counts:
        here = sum(sample.counts) / len(sample.counts)
        if 0 < here < threshold.value:
            passed = cohorts.threshold_day(life, temps, here, threshold.value)
            if passed is not None:
                on = day + dt.timedelta(days=passed)
                told.append(f"From {here:.1f} it passes {threshold.value:g} {threshold.unit} about {on:%-d %B}.")
    return told
