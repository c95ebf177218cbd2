"""What follows from a control: when again, and when to look whether it worked."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.lives import lives
from bootmark.core.catalogue.model import Agent, Control
from bootmark.core.meanings import StepKind
from bootmark.core.messages import Message, Says, says
from bootmark.core.season import cohorts, degree_days

PADDED_DAYS = 120


@dataclass(frozen=True)
class Step:
    """One dated act. ordinal: 0 for the first; gap: days since the one before; why: of a look, what shows that the act worked."""

    ordinal: int
    kind: StepKind
    on: dt.date
    gap: int
    why: Message


def _padded(temps: Sequence[tuple[float, float]] | ArrayLike) -> NDArray[np.float64]:
    """Daily extremes with the last day standing for those after it."""
    extremes = np.asarray(temps, dtype=float)
    return np.vstack([extremes, np.repeat(extremes[-1:], PADDED_DAYS, axis=0)])


def hatch_days(agent: Agent, temps: Sequence[tuple[float, float]] | ArrayLike, share: float = 1.0) -> int | None:
    """Days until eggs laid today have hatched, at daily extremes given from today on.

    temps: (days, 2), degrees C, minimum and maximum; the last day stands for all after it.
    share: of the egg's heat sum. None where the agent's egg sum is not known or it is too cold
    for any heat. Source: the catalogue's egg sum, by its own method and thresholds.
    """
    if agent.heat is None or agent.heat.egg is None:
        return None
    padded = _padded(temps)
    heat = degree_days.daily(
        padded[:, 0], padded[:, 1], agent.heat.lower, agent.heat.upper, method=agent.heat.method, cutoff=agent.heat.cutoff
    )
    reached = np.cumsum(heat) >= agent.heat.egg * share
    return int(reached.argmax()) + 1 if reached.any() else None


def simulated_gaps(agent: Agent, control: Control, temps: Sequence[tuple[float, float]] | ArrayLike) -> list[int] | None:
    """Days between repeats that leave the fewest after two generations, for a pest whose generations overlap and whose eggs are spared.

    temps: (days, 2), degrees C, minimum and maximum from the first treatment on. None for a pest that has no life table or no eggs to
    hide in, for one that is told by its season, and where it is too cold for two generations. Source: core/season/cohorts.py.
    """
    life = lives().get(agent.id)
    seasonal = agent.heat is not None and bool(agent.heat.events)
    if life is None or seasonal or control.repeats < 2 or not control.spares_eggs or life.spans[0].stage != "egg":
        return None
    kill = cohorts.Kill(dict.fromkeys(life.reached(control.stages), judgement.EFFICACY), lasts=control.lasts_days)
    try:
        days = cohorts.best_schedule(life, _padded(temps), control.repeats, kill)
    except ValueError:
        return None
    return np.diff(days).tolist()


def build(
    agent: Agent, control: Control, start: dt.date, temps: Sequence[tuple[float, float]] | ArrayLike, until: dt.date | None = None
) -> list[Step]:
    """Treatments and return looks of one control from its first day on.

    A control that spares eggs is repeated when the eggs laid before it have hatched, as computed at these
    temperatures; where generations overlap, when a simulation says that repeats leave the fewest. Each
    treatment books a look, and a look always comes before the next treatment.

    Parameters
    ----------
    agent : whose life table sets the repeats.
    control : one of the agent's own.
    start : day of the first treatment.
    temps : daily extremes from start on, degrees C.
    until : end of the stage window; repeats after it are left out.

    Returns
    -------
    list of Step
        In the order of their days.
    """
    extremes = np.asarray(temps, dtype=float)
    simulated = simulated_gaps(agent, control, extremes)
    steps, day, gap = [], start, 0
    why = says(Says.CONTROL_TIMING, agent=agent.id, control=control.id)
    success = says(Says.FOR_SUCCESS, agent=agent.id, control=control.id)
    for ordinal in range(control.repeats if control.spares_eggs else 1):
        if ordinal:
            from_here = extremes[min((day - start).days, len(extremes) - 1) :]
            gap, why = _repeat(agent, control, from_here, simulated[ordinal - 1] if simulated else None)
            day = day + dt.timedelta(days=gap)
            if until and day > until:
                break
        steps.append(Step(ordinal, StepKind.TREATMENT, day, gap, why))
    treatments = list(steps)
    for place, step in enumerate(treatments):
        after = step.on + dt.timedelta(days=control.look_again_days)
        following = treatments[place + 1].on if place + 1 < len(treatments) else None
        if following and after >= following:
            after = max(step.on + dt.timedelta(days=1), following - dt.timedelta(days=1))
        steps.append(Step(step.ordinal, StepKind.RETURN, after, (after - step.on).days, success))
    return sorted(steps, key=lambda step: (step.on, step.kind))


def _repeat(agent: Agent, control: Control, temps: ArrayLike, simulated: int | None) -> tuple[int, Message]:
    """Days to the next treatment, and why."""
    hatch = hatch_days(agent, temps)
    if simulated:
        kind = Says.REPEAT_SIMULATED if hatch else Says.REPEAT_SIMULATED_UNTIMED
        return simulated, says(kind, hatch=hatch or 0, days=simulated)
    days = min(max(hatch or control.look_again_days, judgement.LEAST_GAP_DAYS), judgement.MOST_GAP_DAYS)
    return days, says(Says.REPEAT_HATCH, hatch=hatch) if hatch else says(Says.REPEAT_INTERVAL)
