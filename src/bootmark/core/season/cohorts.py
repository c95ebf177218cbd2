"""A population with overlapping generations: cohorts that pass through stages by heat, lay eggs, are eaten and are treated.

Each stage is a row of equal compartments, so that its duration has a spread (an Erlang distribution: k compartments give a
coefficient of variation of 1 / sqrt(k)); a compartment passes on what the day's heat is of its own sum. This is the
distributed-delay form of Manetsch (1976, IEEE Transactions on Systems, Man, and Cybernetics 6: 547-553, from memory).
"""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]
SUBSTEPS = 8
GENERATIONS = 2
GAPS = range(3, 22)


@dataclass(frozen=True)
class Span:
    """One stage: degree-days C that it lasts on average, compartments, whether it feeds."""

    stage: str
    heat: float
    compartments: int
    feeds: bool


@dataclass(frozen=True)
class Life:
    """A life cycle by heat above one threshold.

    spans: the young stages in order, the last of them the adult before her first egg; eggs: laid by an adult for each
    degree-day C, both sexes counted; adult_heat: mean degree-days C that a laying adult lives; survive: share of young that
    come through without enemies or treatment. source: what the numbers rest on.
    """

    lower: float
    upper: float
    spans: tuple[Span, ...]
    eggs: float
    adult_heat: float
    survive: float
    source: str

    @property
    def generation(self) -> float:
        """Degree-days C from egg to first egg."""
        return sum(span.heat for span in self.spans)

    def heat(self, temp: ArrayLike) -> Array:
        """Degree-days C of days at these mean temperatures, any shape; none above the upper threshold is added."""
        return np.asarray(np.clip(np.asarray(temp, dtype=float), self.lower, self.upper) - self.lower)


SPIDER_MITE = Life(
    lower=11.7,
    upper=35.0,
    spans=(Span("egg", 55.0, 12, False), Span("nymph", 70.0, 14, True), Span("young adult", 18.0, 6, True)),
    eggs=0.45,
    adult_heat=130.0,
    survive=0.75,
    source="memory: egg to adult in about 125 degree-days C above 11.7 C, some 60 eggs in a life, half of them sons",
)


LIVES = {"two-spotted-spider-mite": SPIDER_MITE}
"""Agents with a growth model, by their ids in the catalogue."""


@dataclass(frozen=True)
class Kill:
    """What one treatment does: share killed of each stage ("egg", "nymph", "young adult", "adult"), and for how many days."""

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
        return np.asarray(sum(row for stage, row in self.stages.items() if stage != "egg"))

    @property
    def total(self) -> Array:
        return np.asarray(sum(self.stages.values()))


def _places(life: Life) -> dict[str, slice]:
    """Where each stage's compartments stand in the state; the laying adult stands last."""
    found, start = {}, 0
    for span in life.spans:
        found[span.stage] = slice(start, start + span.compartments)
        start += span.compartments
    return found | {"adult": slice(start, start + 1)}


def settled(life: Life, temp: float = 22.0, days: int = 90) -> Array:
    """The shares of compartments to which a population left alone settles at one temperature; they add to one."""
    state = np.zeros(sum(span.compartments for span in life.spans) + 1)
    state[-1] = 1.0
    for _ in range(days):
        state = _day(life, state[None, :], float(life.heat(temp)))[0]
        state /= state.sum()
    return state


def _day(life: Life, state: Array, heat: float) -> Array:
    """One day of a state of (schedules, compartments)."""
    young = np.concatenate([np.full(span.compartments, span.compartments / span.heat) for span in life.spans])
    lost_young = -np.log(life.survive) / life.generation
    for _ in range(SUBSTEPS):
        part = heat / SUBSTEPS
        passing = state[:, :-1] * np.minimum(1.0, young * part)
        laid = state[:, -1] * life.eggs * part
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
    """Day by day at daily mean temperatures (days,), degrees C, from a state of compartments.

    treatments: one schedule a row, each the days on which a treatment is done; eaten: share of what feeds that enemies
    take each day. Raises ValueError where a treatment is planned and no kill is told.
    """
    days = np.asarray(temps, dtype=float)
    places = _places(life)
    if any(treatments) and kill is None:
        raise ValueError("a treatment needs to say what it kills")
    state = np.tile(np.asarray(start, dtype=float), (len(treatments), 1))
    keep = np.ones_like(state[0])
    for stage, share in (kill.shares if kill else {}).items():
        keep[places[stage]] = 1 - share
    hit = np.zeros((len(treatments), len(days)), dtype=bool)
    for row, planned in enumerate(treatments):
        for day in planned:
            hit[row, day : day + (kill.lasts if kill else 1)] = True
    feeds = np.zeros_like(keep)
    for span in life.spans:
        feeds[places[span.stage]] = float(span.feeds)
    feeds[places["adult"]] = 1.0
    told: dict[str, list[Array]] = {stage: [] for stage in places}
    feeding = np.zeros(len(treatments))
    for day, heat in enumerate(life.heat(days)):
        state = np.where(hit[:, day : day + 1], state * keep, state)
        state = state * (1 - eaten * feeds)
        for stage, place in places.items():
            told[stage].append(state[:, place].sum(axis=1))
        feeding += state @ feeds
        state = _day(life, state, float(heat))
    return Course({stage: np.stack(rows, axis=1) for stage, rows in told.items()}, feeding)


def doubling_days(life: Life, temp: float, eaten: float = 0.0) -> float:
    """Days in which a settled population doubles at one mean temperature; infinite where it does not grow."""
    course = simulate(life, np.full(41, temp), settled(life, temp), eaten=eaten)
    growth = float(np.log(course.total[0, 40] / course.total[0, 20]) / 20)
    return float(np.log(2) / growth) if growth > 1e-6 else float("inf")


def threshold_day(life: Life, temps: ArrayLike, per_unit: float, threshold: float, eaten: float = 0.0) -> int | None:
    """Days until what feeds on a unit has grown from one density to another; None where it has not within the days given."""
    days = np.asarray(temps, dtype=float)
    state = settled(life, float(days[:7].mean()))
    course = simulate(life, days, state, eaten=eaten)
    active = course.active[0]
    reached = active >= active[0] * threshold / per_unit
    return int(reached.argmax()) if reached.any() else None


def best_schedule(
    life: Life, temps: ArrayLike, count: int, kill: Kill, *, gaps: range = GAPS, start: ArrayLike | None = None
) -> tuple[int, ...]:
    """Days of a number of treatments, the first on day 0, that leave the fewest when two generations' heat has passed.

    temps: daily mean temperatures from the first treatment on, degrees C. Every choice of gaps is simulated. Counted is
    the whole population, eggs too: a schedule that only holds it down while it lasts is not the best. Judged after two
    generations since that is as far as a programme of contact treatments is planned (judgement, no source).
    Raises ValueError where the days given hold less than two generations' heat.
    """
    days = np.asarray(temps, dtype=float)
    enough = np.cumsum(life.heat(days)) >= GENERATIONS * life.generation
    if not enough.any():
        raise ValueError(f"{len(days)} days at these temperatures hold less than {GENERATIONS} generations")
    days = days[: int(enough.argmax()) + 1]
    state = settled(life, float(days[:7].mean())) if start is None else np.asarray(start, dtype=float)
    schedules = [tuple(int(day) for day in np.cumsum((0, *steps))) for steps in itertools.product(gaps, repeat=count - 1)]
    schedules = [one for one in schedules if one[-1] < len(days) - 1]
    course = simulate(life, days, state, schedules, kill)
    return schedules[int(course.total[:, -1].argmin())]
