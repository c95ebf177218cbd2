"""What follows from a control: when again, and when to look whether it worked."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.lives import lives
from bootmark.core.catalogue.model import Agent, Control
from bootmark.core.field import harvest
from bootmark.core.meanings import StepKind
from bootmark.core.messages import Fact, Message, Says, says
from bootmark.core.season import cohorts, degree_days, rates

PADDED_DAYS = 120


@dataclass(frozen=True)
class Step:
    """One dated act. ordinal: 0 for the first; gap: days since the one before; why: of a look, what shows that the act worked."""

    ordinal: int
    kind: StepKind
    on: dt.date
    gap: int
    why: Message


@dataclass(frozen=True)
class Limits:
    """What binds the repeats of a control.

    until: end of the stage window; harvest: the day of the next picking, cut or grazing, None where none is near; done: how often the
    material was used on this ground this season already; fed: whether stock eats of the crop.
    """

    until: dt.date | None = None
    harvest: dt.date | None = None
    done: int = 0
    fed: bool = False


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
        gaps = range(least_gap(control), max(cohorts.GAPS.stop, least_gap(control) + 8))
        days = cohorts.best_schedule(life, _padded(temps), control.repeats, kill, gaps=gaps)
    except ValueError:
        return None
    return np.diff(days).tolist()


def least_gap(control: Control) -> int:
    """Days that must lie between two uses of a control: what its label asks for, and what it still does.

    Where the label's days are not known, a week for what is sprayed (common practice, no source): an unknown is never a nought.
    """
    asked = control.gap_days or (judgement.UNKNOWN_GAP_DAYS if control.sprayed else judgement.LEAST_GAP_DAYS)
    return max(asked, control.lasts_days, judgement.LEAST_GAP_DAYS)


def latest_repeat(agent: Agent, temps: ArrayLike) -> int | None:
    """Days from a treatment by which its repeat must have been: then what was spared as an egg lays itself.

    temps: (days, 2), degrees C, from the treatment on. None where the agent's life table is not known, or it is too cold for a generation.
    """
    life = lives().get(agent.id)
    if life is None:
        return None
    reached = np.cumsum(rates.daily(life, _padded(temps))) >= life.generation
    return int(reached.argmax()) if reached.any() else None


def protected_days(control: Control, rain: Sequence[float], new_leaves: Sequence[bool] = ()) -> int:
    """Days from a treatment on which it still protects.

    rain: mm of rain and of water from overhead on each day after it; new_leaves: whether leaves have unfolded that it did not wet, by day.
    A systemic one follows into new leaves: say none. 25 mm wash off what is on the leaf (common practice, no source).
    """
    washed = next((day for day, total in enumerate(np.cumsum(rain), 1) if total >= judgement.WASHED_OFF_MM), control.lasts_days)
    grown = next((day for day, unfolded in enumerate(new_leaves, 1) if unfolded), control.lasts_days)
    return min(control.lasts_days, washed, grown)


def build(
    agent: Agent,
    control: Control,
    start: dt.date,
    temps: Sequence[tuple[float, float]] | ArrayLike,
    until: dt.date | None = None,
    *,
    harvest: dt.date | None = None,
    done: int = 0,
    fed: bool = False,
) -> list[Step]:
    """Treatments and return looks of one control from its first day on.

    A control that spares eggs is repeated when the eggs laid before it have hatched, as computed at these temperatures; where generations
    overlap, when a simulation says that repeats leave the least feeding; one that kills grown animals only, as long as it lasts. A repeat
    is never before the label and the material itself allow it (least_gap), never past the harvest less its interval, never one more than
    the season allows, and never so late that what was spared lays already: then the look before it says that this material alone can't
    do it. Each treatment books a look, and a look always comes before the next treatment.

    Parameters
    ----------
    agent : whose life table sets the repeats.
    control : one of the agent's own.
    start : day of the first treatment.
    temps : daily extremes from start on, degrees C.
    until : end of the stage window; repeats after it are left out.
    harvest : day of the next picking.
    done : how often the material was used on this ground this season.
    fed : whether stock grazes the crop or is fed with it.

    Returns
    -------
    list of Step
        In the order of their days.
    """
    extremes = np.asarray(temps, dtype=float)
    limits = Limits(until, harvest, done, fed)
    simulated = simulated_gaps(agent, control, extremes)
    day, stopped = start, None
    steps = [Step(0, StepKind.TREATMENT, start, 0, says(Says.CONTROL_TIMING, agent=agent.id, control=control.id))]
    for ordinal in range(1, control.repeats if control.spares_eggs else 1):
        from_here = extremes[min((day - start).days, len(extremes) - 1) :]
        gap, why = _repeat(agent, control, from_here, simulated[ordinal - 1] if simulated else None)
        following = day + dt.timedelta(days=gap)
        stopped = _stopped(agent, control, following, gap, from_here, ordinal, limits)
        if stopped:
            break
        day = following
        steps.append(Step(ordinal, StepKind.TREATMENT, day, gap, why))
    return sorted([*steps, *_looks(agent, control, steps, stopped)], key=lambda step: (step.on, step.kind))


def _looks(agent: Agent, control: Control, treatments: Sequence[Step], stopped: Message | None) -> list[Step]:
    """A look after each treatment and before the next; the last says why no more follow, where one was to."""
    success = says(Says.FOR_SUCCESS, agent=agent.id, control=control.id)
    looks = []
    for place, step in enumerate(treatments):
        after = step.on + dt.timedelta(days=control.look_again_days)
        following = treatments[place + 1].on if place + 1 < len(treatments) else None
        if following and after >= following:
            after = max(step.on + dt.timedelta(days=1), following - dt.timedelta(days=1))
        looks.append(Step(step.ordinal, StepKind.RETURN, after, (after - step.on).days, success if following or not stopped else stopped))
    return looks


def _stopped(agent: Agent, control: Control, on: dt.date, gap: int, temps: ArrayLike, ordinal: int, limits: Limits) -> Message | None:
    """Why a repeat on that day is not given; None where it may be, or where it has nothing left to do."""
    name: dict[str, Fact] = {"agent": agent.id, "control": control.id}
    if limits.until and on > limits.until:
        return says(Says.REPEAT_PAST_WINDOW, on=limits.until, **name)
    if control.season_most is not None and limits.done + ordinal + 1 > control.season_most:
        return says(Says.REPEAT_NO_MORE, most=control.season_most, **name)
    wanted = harvest.wanted_days(control, fed=limits.fed)
    left = harvest.whole_days(on, limits.harvest)
    if limits.harvest and left is not None and control.sprayed and left < wanted:
        return says(Says.REPEAT_PAST_HARVEST, on=limits.harvest, days=wanted, **name)
    latest = latest_repeat(agent, temps)
    return says(Says.REPEAT_TOO_LATE, latest=latest, days=gap, **name) if latest is not None and gap > latest else None


def _repeat(agent: Agent, control: Control, temps: ArrayLike, simulated: int | None) -> tuple[int, Message]:
    """Days to the next treatment, and why: the longest of what the label asks, what the material still does, and what the eggs take."""
    least = least_gap(control)
    hatch = hatch_days(agent, temps)
    if set(control.stages) == {"adult"}:
        return least, says(Says.REPEAT_INTERVAL)
    if simulated:
        kind = Says.REPEAT_SIMULATED if hatch else Says.REPEAT_SIMULATED_UNTIMED
        days, why = simulated, says(kind, hatch=hatch or 0, days=max(simulated, least))
    else:
        days = min(max(hatch or control.look_again_days, judgement.LEAST_GAP_DAYS), judgement.MOST_GAP_DAYS)
        why = says(Says.REPEAT_HATCH, hatch=hatch) if hatch else says(Says.REPEAT_INTERVAL)
    return (days, why) if days >= least else (least, says(Says.REPEAT_LEAST, days=least))
