"""Growth of pests whose generations overlap: how fast, how many, when a threshold is passed, and what their enemies do."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.lives import Life, lives
from bootmark.core.catalogue.model import Agent
from bootmark.core.meanings import AgentKind
from bootmark.core.season import cohorts, rates

Array = NDArray[np.float64]
CLOSE_ENOUGH = 0.01
"""Share of the answer to which the number of predators is searched."""
FAMILIAR = "predatory-mites"
OTHERS = "ladybirds"


@dataclass(frozen=True)
class Projection:
    """density: animals that feed, for each unit, by day, day 0 first; doubling: days in which a settled population doubles at
    the first week's temperatures, infinite where it does not grow; reaches: days until the threshold, None where it is not
    reached within the days given; source: what the life table rests on."""

    density: Array
    doubling: float
    reaches: int | None
    source: str


@dataclass(frozen=True)
class Together:
    """Prey that feed and predators that eat, for each unit, by day."""

    prey: Array
    predators: Array


def life_of(agent: Agent | Life | str) -> Life:
    """An agent's life table. Raises KeyError where it has none: its generations do not overlap, or nothing is known."""
    if isinstance(agent, Life):
        return agent
    name = agent if isinstance(agent, str) else agent.id
    if name not in lives():
        raise KeyError(f"{name} has no growth model")
    return lives()[name]


def enemy_of(agent: Agent | str) -> str:
    """The natural enemy with a life table that stands for those counted beside a pest."""
    if isinstance(agent, Agent):
        return next(
            (enemy.agent for enemy in agent.enemies if enemy.agent in lives()), FAMILIAR if agent.kind == AgentKind.MITE else OTHERS
        )
    return FAMILIAR if agent.endswith("mite") else OTHERS


def _days(temps: ArrayLike) -> Array:
    """Temperatures as (days, 24) from hours (24 * n,), or as given where they have two axes already."""
    air = np.asarray(temps, dtype=float)
    if air.ndim == 1:
        if not len(air) or len(air) % rates.HOURS:
            raise ValueError(f"{len(air)} hours do not make whole days of 24")
        return air.reshape(-1, rates.HOURS)
    return air


def project(
    agent: Agent | Life | str, count: float, temps: ArrayLike, enemies: float = 0.0, *, threshold: float | None = None, enemy: str = ""
) -> Projection:
    """How a count goes on.

    The population is taken to have settled at the first week's temperatures.

    Parameters
    ----------
    agent : an Agent, its id, or a life table.
    count : animals that feed, for each unit.
    temps : hourly temperatures from now on, degrees C, (24 * n,) or (n, 24), or daily extremes (n, 2).
    enemies : natural enemies for each unit, taken to stay as many.
    threshold : animals for each unit; none where None.
    enemy : whose appetite counts, otherwise the one that the catalogue names.

    Returns
    -------
    Projection
        Density by day, doubling time, and the day on which it reaches the threshold.

    Raises
    ------
    KeyError
        For an agent without a life table.
    ValueError
        For a count or enemies below nothing, or hours that don't make whole days.

    Source
    ------
    Distributed delays (Manetsch 1976), rates by Briere et al. (1999), Holling's disc (1959) for what enemies eat.
    """
    if count < 0 or enemies < 0:
        raise ValueError("a count can't be below nothing")
    life = life_of(agent)
    days = _days(temps)
    mean = round(float(days[:7].mean()), 1)
    eater = lives()[enemy or (FAMILIAR if isinstance(agent, Life) else enemy_of(agent))]
    course = _course(life, count, days, eater, np.full(len(days), float(enemies)), mean)
    reached = course >= threshold if threshold is not None else np.zeros(1, bool)
    return Projection(course, cohorts.doubling_days(life, mean), int(reached.argmax()) if reached.any() else None, life.source)


def _start(life: Life, count: float, mean: float) -> Array:
    """A settled population of which so many feed."""
    state = cohorts.settled(life, mean)
    share = float(state @ cohorts.feeding(life))
    return np.asarray(state * (count / share if share > 0 else 0.0))


def _eaten(prey: float, heat: float, eater: Life) -> float:
    """Prey that one predator takes in a day at a density, by Holling's disc."""
    return heat * eater.searches * prey / (1 + eater.searches / eater.eats * prey) if prey > 0 else 0.0


def _course(life: Life, count: float, days: Array, eater: Life, enemies: Array, mean: float) -> Array:
    state, feeds = _start(life, count, mean), cohorts.feeding(life)
    warmth, hunger = rates.daily(life, days), rates.daily(eater, days)
    course = []
    for day in range(len(days)):
        course.append(float(state @ feeds))
        total = float(state.sum())
        taken = enemies[day] * _eaten(total, float(hunger[day]), eater)
        state = cohorts.day(life, state[None, :] * np.exp(-taken / total if total > 0 else 0.0), float(warmth[day]))[0]
    return np.array(course)


def together(
    prey: Life | str, predator: Life | str, count: float, predators: float, temps: ArrayLike, releases: Mapping[int, float] | None = None
) -> Together:
    """Prey and predators day by day, both growing: predators lay as they eat, and die or leave as they starve.

    count, predators: animals that feed, for each unit; temps: as project takes them; releases: day to adult predators let go
    for each unit. Source: as project; numbers of starving and leaving are judgement, no source.
    """
    life, eater = life_of(prey), life_of(predator)
    if eater.eats <= 0:
        raise ValueError("this life table tells no appetite: it is not a predator's")
    days = _days(temps)
    mean = round(float(days[:7].mean()), 1)
    state, feeds = _start(life, count, mean), cohorts.feeding(life)
    hunters = _start(eater, predators, mean)
    eats = cohorts.feeding(eater)
    warmth, hunger = rates.daily(life, days), rates.daily(eater, days)
    course: list[tuple[float, float]] = []
    for day in range(len(days)):
        hunters[-1] += (releases or {}).get(day, 0.0)
        active, total = float(hunters @ eats), float(state.sum())
        course.append((float(state @ feeds), active))
        own = _eaten(total, float(hunger[day]), eater)
        fed = own / (eater.eats * float(hunger[day])) if hunger[day] > 0 else 1.0
        state = cohorts.day(life, state[None, :] * np.exp(-active * own / total if total > 0 else 0.0), float(warmth[day]))[0]
        hunters = hunters * np.where(eats > 0, np.exp(-judgement.STARVES * float(hunger[day]) * (1 - fed)), 1.0)
        hunters = cohorts.day(eater, hunters[None, :], float(hunger[day]), laying=fed)[0]
    rows = np.array(course)
    return Together(rows[:, 0], rows[:, 1])


def release_needed(
    prey: Life | str, predator: Life | str, count: float, predators: float, temps: ArrayLike, ceiling: float, by_day: int
) -> float | None:
    """Fewest adult predators to let go today, for each unit, that hold the prey at or below a ceiling on a day and after.

    Parameters
    ----------
    prey, predator : life tables or ids of agents.
    count, predators : animals for each unit that are there today.
    temps : as in project.
    ceiling : prey for each unit.
    by_day : days from today.

    Returns
    -------
    float or None
        Zero where those that are there do it; None where even 20 for each unit do not.

    Source
    ------
    As project, with a release on day 0.
    """

    def held(released: float) -> bool:
        course = together(prey, predator, count, predators, temps, {0: released})
        return bool((course.prey[by_day:] <= ceiling).all())

    if held(0.0):
        return 0.0
    if not held(judgement.MOST_RELEASED):
        return None
    low, high = 0.0, judgement.MOST_RELEASED
    while high - low > CLOSE_ENOUGH * max(1.0, high):
        middle = (low + high) / 2
        low, high = (low, middle) if held(middle) else (middle, high)
    return high
