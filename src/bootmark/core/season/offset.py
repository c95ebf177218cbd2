"""How good a model was in past years, and what that says of its sums on one farm."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.season import anchor
from bootmark.core.season.anchor import Prior, Sighting

DRAWS = 800


@dataclass(frozen=True)
class YearOff:
    """How far a year stood off its model by what was seen.

    off: share of the heat of the last sighting's day, positive where the animals were ahead of the model; error: one standard deviation;
    heat: degree-days C by which they were ahead.
    """

    off: float
    error: float
    heat: float


@dataclass(frozen=True)
class Offset:
    """What to make of a model's sums on a farm. times: as large as they are told; error: of one year, with what is left unsure of it;
    unsure: of the factor itself, one standard deviation; years: that it rests on."""

    times: float
    error: float
    unsure: float
    years: int


def of_year(model: Heat, heat_on: Sequence[tuple[Sighting, float, float | None]]) -> YearOff | None:
    """What one year's sightings say by themselves: a prior so wide that it says next to nothing.

    heat_on: as anchor.weigh takes it. None without a sighting. Source: as anchor.py.
    """
    if not heat_on or heat_on[-1][1] <= 0:
        return None
    errors = anchor.weigh(model, heat_on, Prior(judgement.WIDE_ERROR, 0.0), DRAWS, seed=0)
    last = heat_on[-1][1]
    ahead = last * (errors.factors - 1) + errors.shifts
    return YearOff(float(ahead.mean() / last), float(max(ahead.std() / last, judgement.LEAST_ERROR)), float(ahead.mean()))


def combined(model: Heat, years: Sequence[YearOff]) -> Offset | None:
    """A farm's own factor from several years: each weighed by how sure it is, and all against the model as it is told.

    Half of the variance of a model's error is taken to be the place's own, which stays from year to year, half the year's (judgement, no
    source). None without a year.
    """
    if not years:
        return None
    half = model.error**2 / 2
    weights = np.array([1 / (year.error**2 + half) for year in years])
    precision = 1 / half + weights.sum()
    ahead = float((weights * np.log1p([max(year.off, -judgement.WIDE_ERROR) for year in years])).sum() / precision)
    unsure = float(precision**-0.5)
    return Offset(float(np.exp(-ahead)), float(np.hypot(unsure, half**0.5)), unsure, len(years))


def applied(model: Heat, times: float, error: float) -> Heat:
    """A model with its sums so many times as large, and the error that is left. Raises ValueError for a factor that is none."""
    if times <= 0 or not 0 < error < 1:
        raise ValueError("a factor lies above nothing, and an error between 0 and 1")
    events = tuple(replace(event, at=event.at * times, spread=event.spread * times) for event in model.events)
    egg = None if model.egg is None else model.egg * times
    return replace(model, events=events, egg=egg, error=error)
