"""When an event of a heat model comes: its dates over many courses of the season, and what they rest on."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Event
from bootmark.core.meanings import DayKind

Array = NDArray[np.float64]
SOURCES = tuple(DayKind)
PERCENTS = (10.0, 50.0, 90.0)


@dataclass(frozen=True)
class EventDates:
    """One event: dates by which it has come with 10, 50 and 90 per cent chance; None where not within the year.

    What the dates tell is how sure its year is, of the share of the animals that the event is told for (Event.quantile). usual: the same
    event's median date in past years; days_early: positive where this year is ahead; sources: what share of the heat up to the even-chance
    date, or to the end of the season, was measured, filled, forecast, or drawn from past years; begins, ends: the days on which a tenth
    and nine tenths of this year's animals come to it, if the year is the middle one: how far they are apart from each other.
    """

    id: str
    name: str
    stage: str
    p10: dt.date | None
    p50: dt.date | None
    p90: dt.date | None
    usual: dt.date | None
    days_early: int | None
    sources: Mapping[str, float] = field(default_factory=dict)
    begins: dt.date | None = None
    ends: dt.date | None = None


def crossed(cumulative: Array, at: float) -> Array:
    """Days, as a number with its part of a day, until a sum is reached, per row; the number of days where it is not.

    The heat of a day is taken to come evenly.
    """
    reached = cumulative >= at
    there = reached.any(axis=-1)
    day = np.where(there, reached.argmax(axis=-1), cumulative.shape[-1] - 1)
    after = np.take_along_axis(cumulative, day[..., None], axis=-1)[..., 0]
    before = np.where(day > 0, np.take_along_axis(cumulative, np.maximum(day - 1, 0)[..., None], axis=-1)[..., 0], 0.0)
    part = np.clip((at - before) / np.maximum(after - before, 1e-9), 0.0, 1.0 - 1e-9)
    return np.asarray(np.where(there, day + part, float(cumulative.shape[-1])))


def date_at(dates: Sequence[dt.date], index: float) -> dt.date | None:
    return dates[int(index)] if index < len(dates) else None


def dated(
    event: Event, dates: Sequence[dt.date], cumulative: Array, past_cumulative: Array, kinds: Sequence[str], mean_daily: Array
) -> EventDates:
    """One event's dates over the draws, and its usual date over past years."""
    early, _, late = np.percentile(crossed(cumulative, event.at), PERCENTS)
    # The middle of few hundred draws is a day off now and then; the mean course is not.
    course = cumulative.mean(axis=0)
    middle = min(max(float(crossed(course, event.at)), early), late)
    usual_index = float(np.median(crossed(past_cumulative, event.at))) if len(past_cumulative) else float(len(dates))
    p50, usual = date_at(dates, middle), date_at(dates, usual_index)
    # From the day nearest to the early moment to that of the late one: so about four in five true days lie between, both counted.
    p10 = date_at(dates, min(np.floor(early + 0.5), np.floor(middle)))
    p90 = date_at(dates, max(np.floor(late), np.floor(middle))) if late < len(dates) else None
    tenth = judgement.TENTH * event.spread
    begins, ends = (date_at(dates, float(crossed(course, event.middle + way))) for way in (-tenth, tenth))
    ahead = (usual - p50).days if usual and p50 else None
    return EventDates(event.id, event.name, event.stage, p10, p50, p90, usual, ahead, sources(kinds, mean_daily, middle), begins, ends)


def sources(kinds: Sequence[str], mean_daily: Array, until: float) -> dict[str, float]:
    """Share of the heat up to a day (its place) that was measured, filled, forecast, and drawn from past years."""
    end = min(round(until) + 1, len(kinds))
    total = float(mean_daily[:end].sum()) or 1.0
    shares: dict[str, float] = dict.fromkeys(SOURCES, 0.0)
    for kind, heat in zip(kinds[:end], mean_daily, strict=False):
        shares[kind if kind in shares else DayKind.FILLED] += float(heat) / total
    return shares
