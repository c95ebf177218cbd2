"""Growth of pests whose generations overlap: how fast, how many, when a threshold is passed, and what their enemies do."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.catalogue.lives import Life, lives
from bootmark.core.catalogue.model import Agent
from bootmark.core.season import cohorts, rates

Array = NDArray[np.float64]
CLOSE_ENOUGH = 0.01
"""Share of the answer to which the number of predators is searched."""
FAMILIAR = "predatory-mites"
DAYS_TO_CURE = 14
"""Days from a release by which the pest is to be below its ceiling, where it stood above it. Common practice, 2026-11-26."""


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


def life_of(agent: Agent | Life | str, crop: str = "") -> Life:
    """An agent's life table, on a plant where that is told.

    Raises KeyError where it has none: its generations do not overlap, or nothing is known.
    """
    if isinstance(agent, Life):
        return agent.on(crop)
    name = agent if isinstance(agent, str) else agent.id
    if name not in lives():
        raise KeyError(f"{name} has no growth model")
    return lives()[name].on(crop)


def enemy_of(agent: Agent | str) -> str:
    """The natural enemy that stands for those counted beside a pest: the first of its own that has an appetite; empty where none has.

    A parasitoid does not eat like a ladybird: an enemy without a life table counts for nothing here, rather than for another.
    """
    entry = agent if isinstance(agent, Agent) else default().agents.get(agent)
    return next((enemy.agent for enemy in entry.enemies if enemy.agent in lives()), "") if entry else ""


def _days(temps: ArrayLike) -> Array:
    """Temperatures as (days, 24) from hours (24 * n,), or as given where they have two axes already."""
    air = np.asarray(temps, dtype=float)
    if air.ndim == 1:
        if not len(air) or len(air) % rates.HOURS:
            raise ValueError(f"{len(air)} hours do not make whole days of 24")
        return air.reshape(-1, rates.HOURS)
    return air


def project(
    agent: Agent | Life | str,
    count: float,
    temps: ArrayLike,
    enemies: float = 0.0,
    *,
    threshold: float | None = None,
    enemy: str = "",
    crop: str = "",
    stages: Mapping[str, float] | None = None,
) -> Projection:
    """How a count goes on.

    The population is taken to have settled at the first week's temperatures, or to stand as it was counted by stage.

    Parameters
    ----------
    agent : an Agent, its id, or a life table.
    count : animals that feed, for each unit.
    temps : hourly temperatures from now on, degrees C, (24 * n,) or (n, 24), or daily extremes (n, 2).
    enemies : natural enemies for each unit, taken to stay as many.
    threshold : animals for each unit; none where None.
    enemy : whose appetite counts, otherwise the one that the catalogue names; none where that has no life table.
    crop : the plant that it lives on, which changes some life tables.
    stages : how many of each stage were counted, of those that were looked for; stages not looked for stand to them as when settled.

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
    life = life_of(agent, crop)
    days = _days(temps)
    mean = round(float(days[:7].mean()), 1)
    eats = enemy or (FAMILIAR if isinstance(agent, Life) else enemy_of(agent))
    course = _course(life, _start(life, count, mean, stages), days, lives().get(eats), float(enemies))
    reached = course >= threshold if threshold is not None else np.zeros(1, bool)
    return Projection(course, cohorts.doubling_days(life, mean), int(reached.argmax()) if reached.any() else None, life.source)


def _start(life: Life, count: float, mean: float, stages: Mapping[str, float] | None = None) -> Array:
    """A settled population of which so many feed; stages: what was counted instead of settled shares, by stage."""
    state = np.array(cohorts.settled(life, mean))
    for place, counted in _as_counted(life, state, stages or {}):
        state[place] = counted
    share = float(state @ cohorts.feeding(life))
    return np.asarray(state * (count / share if share > 0 else 0.0))


def _as_counted(life: Life, state: Array, stages: Mapping[str, float]) -> list[tuple[slice, Array]]:
    """Compartments of the stages that were looked for, so that they stand to each other as counted."""
    places = cohorts.places(life)
    looked_for = {stage: [places[name] for name in life.reached([stage])] for stage in stages if life.reached([stage])}
    settled = {stage: sum(float(state[place].sum()) for place in spans) for stage, spans in looked_for.items()}
    seen, all_settled = sum(stages[stage] for stage in looked_for), sum(settled.values())
    if len(looked_for) < 2 or seen <= 0 or all_settled <= 0:
        return []
    times = {stage: (stages[stage] / seen * all_settled) / settled[stage] if settled[stage] > 0 else 0.0 for stage in looked_for}
    return [(place, state[place] * times[stage]) for stage, spans in looked_for.items() for place in spans]


def _eaten(prey: float, heat: float, eater: Life) -> float:
    """Prey that one predator takes in a day at a density, by Holling's disc."""
    return heat * eater.searches * prey / (1 + eater.searches / eater.eats * prey) if prey > 0 else 0.0


def _kept(eaten: float, total: float) -> float:
    """Share that is left of prey of which so many would be met by a search at random.

    Prey and enemies sit in patches, so that many of an enemy's meetings fall on the same leaf: the negative binomial of May (1978), "Host-
    parasitoid systems in patchy environments", Journal of Animal Ecology 47: 833-844, from memory.
    """
    return float((1 + eaten / total / judgement.PATCHY) ** -judgement.PATCHY) if total > 0 else 1.0


def _course(life: Life, state: Array, days: Array, eater: Life | None, enemies: float) -> Array:
    feeds = cohorts.feeding(life)
    warmth, vigour = rates.daily(life, days), rates.daily_vigour(life, days)
    hunger = rates.daily(eater, days) if eater else np.zeros(len(days))
    course = []
    for day in range(len(days)):
        course.append(float(state @ feeds))
        total = float(state.sum())
        taken = enemies * _eaten(total, float(hunger[day]), eater) if eater else 0.0
        state = cohorts.day(life, state[None, :] * _kept(taken, total), float(warmth[day]), vigour=float(vigour[day]))[0]
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
    warmth, vigour, hunger = rates.daily(life, days), rates.daily_vigour(life, days), rates.daily(eater, days)
    thrives = rates.daily_vigour(eater, days)
    course: list[tuple[float, float]] = []
    for day in range(len(days)):
        hunters[-1] += (releases or {}).get(day, 0.0)
        active, total = float(hunters @ eats), float(state.sum())
        course.append((float(state @ feeds), active))
        own = _eaten(total, float(hunger[day]), eater)
        fed = own / (eater.eats * float(hunger[day])) if hunger[day] > 0 else 1.0
        kept = _kept(active * own, total)
        state = cohorts.day(life, state[None, :] * kept, float(warmth[day]), vigour=float(vigour[day]))[0]
        hunters = hunters * np.where(eats > 0, np.exp(-judgement.STARVES * float(hunger[day]) * (1 - fed)), 1.0)
        hunters = cohorts.day(eater, hunters[None, :], float(hunger[day]), laying=fed, vigour=float(thrives[day]))[0]
    rows = np.array(course)
    return Together(rows[:, 0], rows[:, 1])


def release_needed(
    agent: Agent | Life | str,
    count: float,
    temps: ArrayLike,
    *,
    ceiling: float,
    predator: Life | str = "",
    predators: float = 0.0,
    crop: str = "",
) -> float:
    """Fewest adult predators to let go today, for each unit, that keep the pest at or below a ceiling on every day.

    Parameters
    ----------
    agent : the pest: an Agent, its id or a life table.
    count : animals that feed, for each unit, today.
    temps : as in project.
    ceiling : pests for each unit. Where there are more already, they must not become more than they are on any day, and be at or below the
        ceiling from two weeks on.
    predator, predators : which is let go, otherwise the pest's own enemy; and how many are there today.
    crop : the plant that it lives on.

    Returns
    -------
    float
        Zero where those that are there do it; never below one for ten (above the ceiling: a cure) or twenty (below it) of the pest;
        infinite where even 20 for each unit do not.

    Raises
    ------
    ValueError
        For a pest none of whose enemies has a life table.

    Source
    ------
    As together, with a release on day 0. One to ten or twenty: common practice, no source.
    """
    hunter = predator or enemy_of(agent if not isinstance(agent, Life) else "")
    if not hunter:
        raise ValueError("no enemy of this pest has a life table: say which predator is let go")
    prey = life_of(agent, crop)

    def held(released: float) -> bool:
        course = together(prey, hunter, count, predators, temps, {0: released}).prey
        return bool((course <= max(ceiling, count) + 1e-9).all() and (course[DAYS_TO_CURE:] <= ceiling).all())

    if held(0.0):
        return 0.0
    if not held(judgement.MOST_RELEASED):
        return float("inf")
    low, high = 0.0, judgement.MOST_RELEASED
    while high - low > CLOSE_ENOUGH * max(1.0, high):
        middle = (low + high) / 2
        low, high = (low, middle) if held(middle) else (middle, high)
    return max(high, count / (judgement.CURE_RATIO if count > ceiling else judgement.HOLD_RATIO))
