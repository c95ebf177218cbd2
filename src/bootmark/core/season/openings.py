"""When a control can do its work: its windows in a season, and why there is none."""

import datetime as dt
from collections.abc import Collection

import numpy as np
from numpy.typing import NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.catalogue.model import Agent, Control
from bootmark.core.meanings import ControlKind, WindowClosed
from bootmark.core.season.phenology import Season, stirring

Array = NDArray[np.float64]


def _apart(season: Season, model: Heat, wanted: Collection[str]) -> NDArray[np.bool_]:
    """Days until two generations are in the wanted phases at once: no date is told of generations that run into each other."""
    by_generation: dict[int, Array] = {}
    for event in model.events:
        if event.id in wanted:
            row = season.phases[event.id]
            by_generation[event.generation] = by_generation.get(event.generation, np.zeros_like(row)) + row
    if len(by_generation) < 2:
        return np.ones(len(season.dates), bool)
    second = np.sort(np.stack([*by_generation.values()]), axis=0)[-2]
    return np.logical_and.accumulate(second < judgement.SECOND_GENERATION)


def _wanted(control: Control, model: Heat) -> set[str]:
    """Phases of which a control kills the animals."""
    return set(control.phases) or {event.id for event in model.events if event.stage in control.stages}


def spans(season: Season, control: Control, model: Heat, *, share: float = judgement.WINDOW_SHARE) -> list[tuple[dt.date, dt.date]]:
    """Every stretch of days of the span on which a control can do its work, in order.

    A control bound to an event (the hatching of larvae that bore in within hours) has the days on which 4 to 80 per cent have passed
    that event; any other the days on which at least a share of the population is in a stage or phase that it kills. Animals that stay
    for winter are no reason to act on any day sooner than on another: they close it.
    """
    days = np.zeros(len(season.dates), bool)
    wanted = _wanted(control, model)
    if control.at_events:
        for row in (season.passed[event] for event in control.at_events if event in season.passed):
            going_on = np.diff(row, prepend=0.0) >= judgement.GOES_ON
            days |= going_on & (row >= judgement.EVENT_SPAN[0]) & (row <= judgement.EVENT_SPAN[1])
    else:
        rows = [season.phases[phase] for phase in sorted(wanted) if phase in season.phases]
        days = np.sum(rows, axis=0) >= share if rows else days
        days = days & _apart(season, model, wanted)
    days = days & stirring(np.diff(season.heat[1], prepend=0.0)) & season.chilled
    if season.winter is not None and not control.at_events:
        following = [event.stage for event in model.events[1:]] + [""]
        waiting = {
            event.id
            for event, after in zip(model.events, following, strict=True)
            if event.stage == model.winter_stage and after != event.stage
        }
        rows = [season.phases[phase] for phase in sorted(wanted - waiting) if phase in season.phases]
        late = np.arange(len(season.dates)) >= season.index(season.winter)
        days &= ~late | (np.sum(rows, axis=0) >= share if rows else False)
    inside = np.concatenate([[False], days, [False]])
    edges = np.flatnonzero(np.diff(inside.astype(int)))
    return [(season.dates[first], season.dates[last - 1]) for first, last in zip(edges[::2], edges[1::2], strict=True)]


def window(
    season: Season, control: Control, model: Heat, *, share: float = judgement.WINDOW_SHARE, after: dt.date | None = None
) -> tuple[dt.date, dt.date] | None:
    """First and last day on which a control can do its work (spans).

    The span that is under way or comes next after the given day; where all are past, the last one; None where a control is bound to no
    stage, the share is never reached, or generations have run into each other.
    """
    every = spans(season, control, model, share=share)
    ahead_of = next((span for span in every if after is None or span[1] >= after), None)
    past = every and _apart(season, model, _wanted(control, model)).all()
    return ahead_of or (every[-1] if past else None)


def why_closed(season: Season, control: Control, model: Heat, *, after: dt.date) -> WindowClosed | None:
    """Why a control has no window on or after a day; None where it has one, or is bound to no stage."""
    every = spans(season, control, model)
    if not control.stages or any(last >= after for _, last in every):
        return None
    if every and _apart(season, model, _wanted(control, model)).all():
        return WindowClosed.PAST
    if not season.chilled:
        return WindowClosed.NO_CHILL
    wanted = _wanted(control, model)
    return WindowClosed.NOT_HERE if _apart(season, model, wanted).all() else WindowClosed.OVERLAP


def near(span: tuple[dt.date, dt.date] | None, day: dt.date) -> bool:
    """Whether a window calls for somebody: it is open, or opens within two weeks. Judgement, no source."""
    return span is not None and (span[0] - day).days <= judgement.WINDOW_NEAR_DAYS


def leading_window(season: Season, agent: Agent, *, after: dt.date) -> tuple[Control, tuple[dt.date, dt.date]] | None:
    """The control whose window a day more or less decides, with that window; None where none is open or ahead.

    One bound to an event or a phase leads any other; among equals the window that closes or
    opens first. Cultural acts have no window worth hurrying for (common practice, no source).
    """
    if agent.heat is None:
        return None
    spans = [
        (control, window(season, control, agent.heat, after=after)) for control in agent.controls if control.kind != ControlKind.CULTURAL
    ]
    timed = [(control, span) for control, span in spans if span and span[1] >= after]
    return min(timed, key=lambda pair: (not (pair[0].at_events or pair[0].phases), pair[1]), default=None)
