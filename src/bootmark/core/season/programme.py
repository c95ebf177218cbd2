"""What follows from a control: when again, and when to look whether it worked."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from bootmark.core.catalogue.model import Agent, Control
from bootmark.core.season import degree_days

LEAST_GAP_DAYS = 3
MOST_GAP_DAYS = 21


@dataclass(frozen=True)
class Step:
    """One dated act. ordinal: 0 for the first; gap: days since the one before; why: in a sentence."""

    ordinal: int
    kind: str
    on: dt.date
    gap: int
    why: str


def hatch_days(agent: Agent, temps: Sequence[tuple[float, float]] | ArrayLike, share: float = 1.0) -> int | None:
    """Days until eggs laid today have hatched, at daily extremes given from today on.

    temps: (days, 2), degrees C, minimum and maximum; the last day stands for all after it.
    share: of the egg's heat sum. None where the agent's egg sum is not known or it is too cold
    for any heat. Source: the catalogue's egg sum, by its own method and thresholds.
    """
    if agent.heat is None or agent.heat.egg is None:
        return None
    extremes = np.asarray(temps, dtype=float)
    padded = np.vstack([extremes, np.repeat(extremes[-1:], 120, axis=0)])
    heat = degree_days.daily(
        padded[:, 0], padded[:, 1], agent.heat.lower, agent.heat.upper, method=agent.heat.method, cutoff=agent.heat.cutoff
    )
    reached = np.cumsum(heat) >= agent.heat.egg * share
    return int(reached.argmax()) + 1 if reached.any() else None


def build(
    agent: Agent, control: Control, start: dt.date, temps: Sequence[tuple[float, float]] | ArrayLike, until: dt.date | None = None
) -> list[Step]:
    """Treatments and return looks of one control from its first day on.

    temps: daily extremes from start on, degrees C. A control that spares eggs is repeated when
    the eggs laid before it have hatched, as computed at these temperatures; repeats after until
    (the end of the stage window) are left out. Each treatment books a look, and a look always
    comes before the next treatment.
    """
    extremes = np.asarray(temps, dtype=float)
    steps, day, gap = [], start, 0
    why = control.timing
    for ordinal in range(control.repeats if control.spares_eggs else 1):
        if ordinal:
            from_here = extremes[min((day - start).days, len(extremes) - 1) :]
            hatch = hatch_days(agent, from_here)
            gap = min(max(hatch or control.look_again_days, LEAST_GAP_DAYS), MOST_GAP_DAYS)
            day = day + dt.timedelta(days=gap)
            if until and day > until:
                break
            reckoned = f"Eggs it spared hatch in {hatch} days at these temperatures" if hatch else "The catalogue's interval"
            why = f"{reckoned}; young ones are killed before they lay."
        steps.append(Step(ordinal, "treatment", day, gap, why))
    treatments = list(steps)
    for place, step in enumerate(treatments):
        after = step.on + dt.timedelta(days=control.look_again_days)
        following = treatments[place + 1].on if place + 1 < len(treatments) else None
        if following and after >= following:
            after = max(step.on + dt.timedelta(days=1), following - dt.timedelta(days=1))
        steps.append(Step(step.ordinal, "return", after, (after - step.on).days, control.success))
    return sorted(steps, key=lambda step: (step.on, step.kind))
