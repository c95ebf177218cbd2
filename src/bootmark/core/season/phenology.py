"""Life stages against heat: dates of events, shares of the population, windows, and how sure they are."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr

from bootmark.core.catalogue.model import Agent, Control, Heat
from bootmark.core.season import ahead, degree_days
from bootmark.core.season.ahead import Weather

Array = NDArray[np.float64]
CALIBRATION_SPREAD = 0.03
PERCENTS = (10.0, 50.0, 90.0)
WINDOW_SHARE = 0.25
EVENT_SPAN = (0.04, 0.8)
NOT_YET, OVER = "not yet", "over"


@dataclass(frozen=True)
class EventDates:
    """One event: dates by which it has come with 10, 50 and 90 per cent chance; None where not within the year.

    usual: the same event's median date in past years; days_early: positive where this year is ahead.
    """

    id: str
    name: str
    stage: str
    p10: dt.date | None
    p50: dt.date | None
    p90: dt.date | None
    usual: dt.date | None
    days_early: int | None


@dataclass(frozen=True)
class Season:
    """A forecast over one span of days.

    heat: cumulative degree-days C, rows p10, p50, p90; phases: event id to share in that phase
    per day; passed: event id to share past that event;
    shares: stage to share per day, with "not yet" and "over" adding to one; low, high: the
    same at 10 and 90 per cent of draws; usual: the same for past years; sources: what share
    of the heat so far and ahead (to the last p50 event) came from where.
    """

    dates: tuple[dt.date, ...]
    heat: Array
    events: tuple[EventDates, ...]
    phases: Mapping[str, Array]
    passed: Mapping[str, Array]
    shares: Mapping[str, Array]
    low: Mapping[str, Array]
    high: Mapping[str, Array]
    usual: Mapping[str, Array]
    sources: Mapping[str, float]
    biofix: dt.date
    as_of: dt.date

    def index(self, day: dt.date) -> int:
        return min(max((day - self.dates[0]).days, 0), len(self.dates) - 1)

    def on(self, day: dt.date) -> dict[str, float]:
        """Shares of stages on a day, adding to one."""
        here = self.index(day)
        return {stage: float(row[here]) for stage, row in self.shares.items()}


def _passed(heat: Array, model: Heat) -> Array:
    """Share of the population past each event: (events, ...), never rising from one event to the next."""
    passed = np.stack([ndtr((heat - event.at) / event.spread) for event in model.events])
    return np.minimum.accumulate(passed, axis=0)


def _phases(heat: Array, model: Heat) -> Array:
    """Share in each phase: rows "not yet", then one per event; over rows they add to one."""
    passed = _passed(heat, model)
    following = np.concatenate([passed[1:], np.zeros_like(passed[:1])])
    return np.concatenate([1 - passed[:1], passed - following])


def _by_stage(phases: Array, model: Heat) -> dict[str, Array]:
    shares = {NOT_YET: phases[0].copy()}
    for event, row in zip(model.events, phases[1:], strict=True):
        shares[event.stage] = shares.get(event.stage, 0) + row
    return shares


def _first_day(cumulative: Array, at: float) -> NDArray[np.int64]:
    """Index of the first day at or above a sum, per row; the number of days where there is none."""
    reached = cumulative >= at
    return np.asarray(np.where(reached.any(axis=-1), reached.argmax(axis=-1), cumulative.shape[-1]))


def _date(dates: Sequence[dt.date], index: float) -> dt.date | None:
    whole = round(index)
    return dates[whole] if whole < len(dates) else None


def forecast(
    model: Heat,
    weather: Weather,
    biofix: dt.date,
    *,
    past_years: Sequence[Weather],
    as_of: dt.date,
    draws: int = 200,
    seed: int = 0,
    model_error: float = CALIBRATION_SPREAD,
) -> Season:
    """Dates of a model's events and shares of its stages, from the biofix to the end of that year.

    weather: this year, at least from the biofix; days after as_of are taken as forecast, and
    what lies beyond is drawn from past_years in blocks of days. Every draw also carries an error
    of the model's sums (3 per cent where nothing else is said: judgement, no source), so that a date in the past is not
    told to the day. Raises ValueError where there is no weather from the biofix on, or no past
    year to go on with.
    """
    last = biofix.replace(month=12, day=31) if biofix.month <= 6 else biofix + dt.timedelta(days=300)
    dates = tuple(biofix + dt.timedelta(days=n) for n in range((last - biofix).days + 1))
    here = {day: place for place, day in enumerate(weather.dates)}
    known = 0
    while known < len(dates) and dates[known] in here:
        known += 1
    if not known:
        raise ValueError(f"there is no weather for {biofix:%-d %B %Y}, the day that heat is counted from")
    if not past_years and known < len(dates):
        raise ValueError("there is no past year to go on with after the last reading")

    def heat(low: Array, high: Array) -> Array:
        return degree_days.daily(low, high, model.lower, model.upper, method=model.method, cutoff=model.cutoff)

    start = here[biofix]
    now = heat(np.asarray(weather.tmin, dtype=float)[start : start + known], np.asarray(weather.tmax, dtype=float)[start : start + known])
    past = np.stack([heat(*ahead.aligned(year, dates)) for year in past_years]) if past_years else np.empty((0, len(dates)))
    if len(past):
        past = np.where(np.isnan(past), np.nanmean(past, axis=0), past)
    daily = np.tile(now, (draws, 1))
    if known < len(dates):
        daily = np.concatenate([daily, ahead.draws_of(past, now, draws, seed)], axis=1)
    error = np.exp(np.random.default_rng(seed + 1).normal(0, model_error, (draws, 1)))
    cumulative = np.cumsum(daily, axis=1) * error
    past_cumulative = np.cumsum(past, axis=1)

    events = []
    for event in model.events:
        quantiles = np.percentile(_first_day(cumulative, event.at), PERCENTS)
        # The middle of few hundred draws is a day off now and then; the mean course is not.
        middle = float(_first_day(cumulative.mean(axis=0), event.at))
        quantiles[1] = np.clip(middle, quantiles[0], quantiles[2])
        usual = float(np.median(_first_day(past_cumulative, event.at))) if len(past) else float(len(dates))
        dated = [_date(dates, index) for index in quantiles]
        usual_date = _date(dates, usual)
        early = (usual_date - dated[1]).days if usual_date and dated[1] else None
        events.append(EventDates(event.id, event.name, event.stage, dated[0], dated[1], dated[2], usual_date, early))

    in_phase = _phases(cumulative, model)
    mean_phases = in_phase.mean(axis=1)
    by_draw = _by_stage(in_phase, model)
    usual_phases = _phases(past_cumulative, model).mean(axis=1) if len(past) else np.zeros_like(mean_phases)
    return Season(
        dates=dates,
        heat=np.percentile(cumulative, PERCENTS, axis=0),
        events=tuple(events),
        phases={event.id: row for event, row in zip(model.events, mean_phases[1:], strict=True)},
        passed={event.id: row for event, row in zip(model.events, np.cumsum(mean_phases[::-1], axis=0)[::-1][1:], strict=True)},
        shares=_by_stage(mean_phases, model),
        low={stage: np.percentile(row, PERCENTS[0], axis=0) for stage, row in by_draw.items()},
        high={stage: np.percentile(row, PERCENTS[2], axis=0) for stage, row in by_draw.items()},
        usual=_by_stage(usual_phases, model),
        sources=_sources(weather, start, known, now, daily.mean(axis=0), as_of),
        biofix=biofix,
        as_of=as_of,
    )


def _sources(weather: Weather, start: int, known: int, now: Array, mean_daily: Array, as_of: dt.date) -> dict[str, float]:
    """Share of the year's heat that was measured, filled, forecast, and drawn from past years."""
    total = float(mean_daily.sum()) or 1.0
    kinds = weather.kind or tuple("measured" if day <= as_of else "forecast" for day in weather.dates)
    shares = dict.fromkeys(("measured", "filled", "forecast"), 0.0)
    for kind, heat in zip(kinds[start : start + known], now, strict=True):
        shares[kind] += float(heat) / total
    return shares | {"past years": max(0.0, 1 - sum(shares.values()))}


def window(
    season: Season, control: Control, model: Heat, *, share: float = WINDOW_SHARE, after: dt.date | None = None
) -> tuple[dt.date, dt.date] | None:
    """First and last day on which a control can do its work.

    A control bound to an event (the hatching of larvae that bore in within hours) has the days
    on which 4 to 80 per cent have passed that event; any other the days on which at least a
    share of the population is in a stage or phase that it kills. The span that is under way or
    comes next after the given day; where all are past, the last one; None where a control is
    bound to no stage or the share is never reached.
    """
    if control.at_events:
        met = [season.passed[event] for event in control.at_events if event in season.passed]
        days = np.any([(row >= EVENT_SPAN[0]) & (row <= EVENT_SPAN[1]) for row in met], axis=0) if met else np.zeros(0, bool)
    else:
        wanted = set(control.phases) or {event.id for event in model.events if event.stage in control.stages}
        rows = [season.phases[phase] for phase in sorted(wanted) if phase in season.phases]
        days = np.sum(rows, axis=0) >= share if rows else np.zeros(0, bool)
    inside = np.concatenate([[False], days, [False]])
    edges = np.flatnonzero(np.diff(inside.astype(int)))
    spans = [(season.dates[first], season.dates[last - 1]) for first, last in zip(edges[::2], edges[1::2], strict=True)]
    if not spans:
        return None
    return next((span for span in spans if after is None or span[1] >= after), spans[-1])


def leading_window(season: Season, agent: Agent, *, after: dt.date) -> tuple[Control, tuple[dt.date, dt.date]] | None:
    """The control whose window a day more or less decides, with that window; None where none is open or ahead.

    One bound to an event or a phase leads any other; among equals the window that closes or
    opens first. Cultural acts have no window worth hurrying for (common practice, no source).
    """
    if agent.heat is None:
        return None
    spans = [(control, window(season, control, agent.heat, after=after)) for control in agent.controls if control.kind != "cultural"]
    timed = [(control, span) for control, span in spans if span and span[1] >= after]
    return min(timed, key=lambda pair: (not (pair[0].at_events or pair[0].phases), pair[1]), default=None)
