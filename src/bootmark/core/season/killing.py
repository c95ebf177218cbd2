"""The best day for a control: what it would kill, against what has fed already.

Each animal is followed by its rank in the population (an early one stays early) through three courses of the season, the
earliest in ten, the middle and the latest in ten, weighed 3, 4 and 3 (Swanson's rule, from memory).
"""

import datetime as dt
import itertools
from collections.abc import Collection, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.catalogue.model import Agent, Control
from bootmark.core.season.phenology import Season
from bootmark.core.season.programme import least_gap

Array = NDArray[np.float64]
RANKS = 39
COURSES = (0.3, 0.4, 0.3)


@dataclass(frozen=True)
class Best:
    """days: of each treatment; saved: share of the generation's feeding that they spare the crop; on_first_day: the same for one
    treatment on the first day that could be chosen, for comparison."""

    days: tuple[dt.date, ...]
    saved: float
    on_first_day: float


def _entries(season: Season, model: Heat) -> Array:
    """Place of the day on which each animal comes to each event: (courses, ranks, events); the number of days where it does not."""
    ranks = ndtri((np.arange(RANKS) + 0.5) / RANKS)
    at = np.array([event.middle for event in model.events]) - np.outer(ranks, [event.spread for event in model.events])
    at = np.maximum.accumulate(at, axis=1)
    return np.stack([np.searchsorted(np.maximum.accumulate(course), at) for course in season.heat]).astype(float)


def best_days(
    season: Season,
    agent: Agent,
    control: Control,
    *,
    after: dt.date,
    treatments: int = 1,
    lasts_days: int | None = None,
    efficacy: float = judgement.EFFICACY,
) -> Best | None:
    """The day, or days, on which a control spares the crop most of the feeding of the generation that is or comes next.

    after: the first day that can be chosen; lasts_days: days on which it kills, the catalogue's where None. None where the agent has
    no heat model, the control reaches no stage that is still to come, or nothing is left that would feed.
    Raises ValueError for fewer than one treatment or an efficacy outside 0 to 1.
    """
    if treatments < 1 or not 0 < efficacy <= 1:
        raise ValueError("give at least one treatment, and an efficacy above 0 and up to 1")
    model = agent.heat
    if model is None or not model.events:
        return None
    entries = _entries(season, model)
    days = len(season.dates)
    first = season.index(after)
    feeding = _generation(season, model, agent.feeds, first)
    if not feeding:
        return None
    begins, ends = entries[..., min(feeding)], _end(entries, max(feeding), days)
    candidates = np.arange(first, min(first + judgement.AHEAD_DAYS, days))
    killed = _killed(entries, model, control, candidates, lasts_days or control.lasts_days, feeding, days)
    length = np.maximum(ends - np.maximum(begins, first), 0.0)
    weights = np.asarray(COURSES)[:, None] / RANKS
    whole = float((weights * length).sum())
    if whole <= 0 or not np.isfinite(killed).any():
        return None
    # What each treatment alone would spare of each animal's feeding: (candidates, courses, ranks).
    spared = np.clip(ends - np.maximum(killed, np.maximum(begins, first)), 0.0, length)
    chosen = _choose(spared, weights, treatments, efficacy, max(least_gap(control), lasts_days or 1))
    worth = _worth(spared, weights, chosen, efficacy) / whole
    return Best(tuple(season.dates[int(candidates[n])] for n in sorted(chosen)), worth, _worth(spared, weights, (0,), efficacy) / whole)


def _generation(season: Season, model: Heat, feeds: Collection[str], first: int) -> list[int]:
    """Places of the events of the first run of feeding phases that is not nearly over on a day."""
    runs: list[list[int]] = []
    for place, event in enumerate(model.events):
        if event.stage in feeds:
            if runs and runs[-1][-1] == place - 1:
                runs[-1].append(place)
            else:
                runs.append([place])
    for run in runs:
        following = model.events[run[-1] + 1].id if run[-1] + 1 < len(model.events) else ""
        if not following or float(season.passed[following][first]) < judgement.GENERATION_PASSED:
            return run
    return []


def _end(entries: Array, place: int, days: int) -> Array:
    return entries[..., place + 1] if place + 1 < entries.shape[-1] else np.full(entries.shape[:-1], float(days))


def _killed(
    entries: Array, model: Heat, control: Control, candidates: NDArray[np.int64], lasts: int, feeding: list[int], days: int
) -> Array:
    """Place of the day on which a treatment on each candidate day kills each animal, infinite where it does not.

    Shape (candidates, courses, ranks).
    """
    times = np.full((len(candidates), *entries.shape[:2]), np.inf)
    start = candidates[:, None, None].astype(float)
    last = max(feeding)
    for place, event in enumerate(model.events):
        if place > last:
            break
        if control.at_events:
            if event.id not in control.at_events:
                continue
            here, gone = entries[..., place], entries[..., place] + 1
        elif event.id in control.phases or (not control.phases and event.stage in control.stages):
            here, gone = entries[..., place], _end(entries, place, days)
        else:
            continue
        meets = np.maximum(start, here)
        hit = (meets < start + lasts) & (meets < gone)
        times = np.where(hit, np.minimum(times, meets), times)
    return times


def _worth(spared: Array, weights: Array, chosen: Sequence[int], efficacy: float) -> float:
    """Feeding spared by several treatments: each kills its share of those that the earlier ones left."""
    left, total = np.ones(weights.shape[:1] + spared.shape[-1:]), 0.0
    for n in sorted(chosen):
        reached = np.where(spared[n] > 0, efficacy, 0.0)
        total += float((weights * left * reached * spared[n]).sum())
        left = left * (1 - reached)
    return total


def _choose(spared: Array, weights: Array, treatments: int, efficacy: float, apart: int) -> tuple[int, ...]:
    """Places of the best candidate days, so many days apart at least: one after the other, then each moved while that gains."""
    chosen: list[int] = []

    def free(others: Sequence[int]) -> list[int]:
        return [n for n in range(len(spared)) if all(abs(n - other) >= apart for other in others)]

    for _ in range(treatments):
        candidates = free(chosen)
        if not candidates:
            break
        chosen.append(max(candidates, key=lambda n: _worth(spared, weights, (*chosen, n), efficacy)))
    for place in itertools.islice(itertools.cycle(range(len(chosen))), 2 * treatments if len(chosen) > 1 else 0):
        others = chosen[:place] + chosen[place + 1 :]
        chosen[place] = max(free(others), key=lambda n: _worth(spared, weights, (*others, n), efficacy))
    return tuple(chosen)
