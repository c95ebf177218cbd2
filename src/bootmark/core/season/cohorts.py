"""A population with overlapping generations: cohorts that pass through stages by heat, lay eggs, are eaten and are treated.

Each stage is a row of equal compartments, so that its duration has a spread (an Erlang distribution: k compartments give a
coefficient of variation of 1 / sqrt(k)); a compartment passes on what the day's heat is of its own sum. This is the
distributed-delay form of Manetsch (1976, IEEE Transactions on Systems, Man, and Cybernetics 6: 547-553, from memory).
"""

import functools
import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.lives import Life
from bootmark.core.season import rates

Array = NDArray[np.float64]
SUBSTEPS = 8
GENERATIONS = 2
GAPS = range(3, 22)
LEAST_VIGOUR = 0.01


@dataclass(frozen=True)
class Kill:
    """What one treatment does: share killed of each span of the life table and of the "adult", and for how many days."""

    shares: Mapping[str, float]
    lasts: int = 1


@dataclass(frozen=True)
class Course:
    """Days from the start; numbers by stage per day; feeding: animals that fed, summed over days. Leading axes as schedules."""

    stages: Mapping[str, Array]
    feeding: Array

    @property
    def active(self) -> Array:
        """All that feed, per day."""
        return np.asarray(sum(row for stage, row in self.stages.items() if stage not in ("egg", "pupa")))

    @property
    def total(self) -> Array:
        return np.asarray(sum(self.stages.values()))


def places(life: Life) -> dict[str, slice]:
    """Where each stage's compartments stand in the state; the laying adult stands last."""
    slices, start = {}, 0
    for span in life.spans:
        slices[span.stage] = slice(start, start + span.compartments)
        start += span.compartments
    return slices | {"adult": slice(start, start + 1)}


@functools.lru_cache(maxsize=512)
def settled(life: Life, temp: float = judgement.REFERENCE, days: int = 90) -> Array:
    """The shares of compartments to which a population left alone settles at one temperature; they add to one.

    Kept: treat it as read-only.
    """
    state = np.zeros(sum(span.compartments for span in life.spans) + 1)
    state[-1] = 1.0
    for _ in range(days):
        state = day(life, state[None, :], float(rates.heat(life, temp)), vigour=float(rates.vigour(life, temp)))[0]
        state /= state.sum()
    return state


def feeding(life: Life) -> Array:
    """One for compartments that feed, nothing for the others; the laying adult feeds."""
    return np.array([float(span.feeds) for span in life.spans for _ in range(span.compartments)] + [1.0])


@functools.cache
def _pace(life: Life) -> Array:
    """Share of each young compartment that passes on for a degree-day."""
    return np.concatenate([np.full(span.compartments, span.compartments / span.heat) for span in life.spans])


def day(life: Life, state: Array, heat: float, *, laying: float = 1.0, vigour: float = 1.0) -> Array:
    """One day of a state of (schedules, compartments).

    laying: share of the young that adults have food to lay; vigour: what the heat leaves of eggs, and its root of survival (rates.vigour).
    """
    young = _pace(life)
    lost_young = -np.log(life.survive * np.sqrt(max(vigour, LEAST_VIGOUR))) / life.generation
    for _ in range(SUBSTEPS):
        part = heat / SUBSTEPS
        passing = state[:, :-1] * np.minimum(1.0, young * part)
        laid = state[:, -1] * life.eggs * laying * vigour * part
        after = state.copy()
        after[:, :-1] -= passing
        after[:, 1:] += passing
        after[:, :-1] *= np.exp(-lost_young * part)
        after[:, -1] *= np.exp(-part / life.adult_heat)
        after[:, 0] += laid
        state = after
    return state


def simulate(
    life: Life,
    temps: ArrayLike,
    start: ArrayLike,
    treatments: Sequence[Sequence[int]] = ((),),
    kill: Kill | None = None,
    eaten: float = 0.0,
) -> Course:
    """Day by day from a state of compartments.

    temps: degrees C, as rates.daily takes them: daily means (days,), extremes (days, 2) or hours (days, 24).

    treatments: one schedule a row, each the days on which a treatment is done; eaten: share of what feeds that enemies
    take each day. Raises ValueError where a treatment is planned and no kill is told.
    """
    days = np.asarray(temps, dtype=float)
    places_of = places(life)
    if any(treatments) and kill is None:
        raise ValueError("a treatment needs to say what it kills")
    state = np.tile(np.asarray(start, dtype=float), (len(treatments), 1))
    keep = np.ones_like(state[0])
    for stage, share in (kill.shares if kill else {}).items():
        keep[places_of[stage]] = 1 - share
    hit = np.zeros((len(treatments), len(days)), dtype=bool)
    for row, planned in enumerate(treatments):
        for on in planned:
            hit[row, on : on + (kill.lasts if kill else 1)] = True
    feeds = feeding(life)
    course: dict[str, list[Array]] = {stage: [] for stage in places_of}
    fed = np.zeros(len(treatments))
    for here, (heat, vigour) in enumerate(zip(rates.daily(life, days), rates.daily_vigour(life, days), strict=True)):
        state = np.where(hit[:, here : here + 1], state * keep, state)
        state = state * (1 - eaten * feeds)
        for stage, place in places_of.items():
            course[stage].append(state[:, place].sum(axis=1))
        fed += state @ feeds
        state = day(life, state, float(heat), vigour=float(vigour))
    return Course({stage: np.stack(rows, axis=1) for stage, rows in course.items()}, fed)


def doubling_days(life: Life, temp: float, eaten: float = 0.0) -> float:
    """Days in which a settled population doubles at one mean temperature; infinite where it does not grow."""
    course = simulate(life, np.full(41, temp), settled(life, temp), eaten=eaten)
    growth = float(np.log(course.total[0, 40] / course.total[0, 20]) / 20)
    return float(np.log(2) / growth) if growth > 1e-6 else float("inf")


def best_schedule(
    life: Life, temps: ArrayLike, count: int, kill: Kill, *, gaps: range = GAPS, start: ArrayLike | None = None
) -> tuple[int, ...]:
    """Days of a number of treatments, the first on day 0, that leave the least feeding until two generations' heat has passed, and after.

    temps: from the first treatment on, degrees C, as rates.daily takes them. Every choice of gaps is simulated. Counted are the days on
    which animals fed, and what those that are left on the last day, eggs too, would feed in one generation more: what they eat, not their
    heads on one day, is what the crop loses; and a schedule that only holds them down while it lasts is not the best.
    Judged after two generations since that is as far as a programme of contact treatments is planned (judgement, no source).
    Raises ValueError where the days given hold less than two generations' heat, or no schedule fits into them.
    """
    days = np.asarray(temps, dtype=float)
    warmth = rates.daily(life, days)
    enough = np.cumsum(warmth) >= GENERATIONS * life.generation
    if not enough.any():
        raise ValueError(f"{len(days)} days at these temperatures hold less than {GENERATIONS} generations")
    last = int(enough.argmax()) + 1
    days = days[:last]
    state = settled(life, round(float(days[:7].mean()), 1)) if start is None else np.asarray(start, dtype=float)
    schedules = [tuple(int(day) for day in np.cumsum((0, *steps))) for steps in itertools.product(gaps, repeat=count - 1)]
    schedules = [schedule for schedule in schedules if schedule[-1] < len(days) - 1]
    if not schedules:
        raise ValueError(f"{count} treatments so far apart do not fit into {GENERATIONS} generations")
    course = simulate(life, days, state, schedules, kill)
    generation_days = life.generation / max(float(warmth[:last].mean()), 1e-9)
    return schedules[int((course.feeding + course.total[:, -1] * generation_days).argmin())]
