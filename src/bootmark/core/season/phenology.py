"""Life stages against heat: dates of events, shares of the population, windows, and how sure they are."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Control, Event, Heat
from bootmark.core.meanings import ControlKind, DayKind
from bootmark.core.season import ahead, anchor, degree_days, shares
from bootmark.core.season.ahead import Weather
from bootmark.core.season.anchor import Sighting

Array = NDArray[np.float64]
SOURCES = tuple(DayKind)
PERCENTS = (10.0, 50.0, 90.0)


@dataclass(frozen=True)
class EventDates:
    """One event: dates by which it has come with 10, 50 and 90 per cent chance; None where not within the year.

    usual: the same event's median date in past years; days_early: positive where this year is ahead; sources: what share of
    the heat up to the even-chance date, or to the end of the season, was measured, filled, forecast, or drawn from past years.
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


@dataclass(frozen=True)
class Season:
    """A forecast over one span of days.

    heat: cumulative degree-days C, rows p10, p50, p90; phases: event id to share in that phase
    per day; passed: event id to share past that event;
    shares: stage to share per day, with "not yet" and "over" adding to one; low, high: the
    same at 10 and 90 per cent of draws; usual: the same for past years; sources: what share
    of the heat of the whole span came from where; kinds: the same day by day, one word a day;
    moved, surer: what the sightings brought (anchor.Errors).
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
    kinds: tuple[str, ...] = ()
    moved: float = 0.0
    surer: float = 0.0

    def index(self, day: dt.date) -> int:
        return min(max((day - self.dates[0]).days, 0), len(self.dates) - 1)

    def on(self, day: dt.date) -> dict[str, float]:
        """Shares of stages on a day, adding to one."""
        here = self.index(day)
        return {stage: float(row[here]) for stage, row in self.shares.items()}


def _whole(years: Array) -> Array:
    """Rows of years without holes: a missing day is the mean of the other years', one that all lack lies between the days beside it."""
    measured = ~np.isnan(years)
    count = measured.sum(axis=0)
    mean = np.where(measured, years, 0.0).sum(axis=0) / np.maximum(count, 1)
    places = np.arange(years.shape[1])
    mean = np.interp(places, places[count > 0], mean[count > 0]) if count.any() else mean
    return np.where(measured, years, mean)


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
    model_error: float = judgement.CALIBRATION_SPREAD,
    biofix_error: float = judgement.BIOFIX_SPREAD,
    sightings: Sequence[Sighting] = (),
    southern: bool = False,
) -> Season:
    """Dates of a model's events and shares of its stages, from the biofix to the end of that year.

    Parameters
    ----------
    model : sums, thresholds and events.
    weather : this year, at least from the biofix; days after as_of are taken as forecast, and what lies
        beyond is drawn from past_years in blocks of days.
    biofix : the day that the sums run from.
    past_years : years of daily extremes to go on with.
    as_of : today.
    draws, seed : how many futures are drawn, and from which numbers.
    model_error : share by which the model's sums err (3 per cent where nothing else is said: judgement, no source).
    biofix_error : days by which the biofix errs, so that a date in the past is not told to the day.
    sightings : animals counted by stage on known days, which re-anchor it (anchor.py).
    southern : turns the model's wintering day round.

    Returns
    -------
    Season
        Event dates with p10, p50, p90; shares of stages for each day; windows.

    Raises
    ------
    ValueError
        Where there is no weather from the biofix on, or no past year to go on with.

    Source
    ------
    Degree-day sums as degree_days.py; delays by cohorts as cohorts.py.
    """
    dates = _span(biofix)
    days = _days_with_weather(dates, weather)
    if not days:
        raise ValueError(f"there is no weather for {biofix:%-d %B %Y}, the day that heat is counted from")
    if not past_years and days < len(dates):
        raise ValueError("there is no past year to go on with after the last reading")
    start = weather.dates.index(biofix)

    low, high = (np.asarray(extremes, dtype=float)[start : start + days] for extremes in (weather.tmin, weather.tmax))
    this_year = _heat_by_day(model, low, high)
    past = _heat_of_past_years(model, past_years, dates)
    daily = _drawn_on(this_year, past, len(dates), draws, seed)

    winter = _winter_index(model, dates, southern)
    sums = np.cumsum(this_year)
    errors = anchor.weigh(model, _sums_on_sightings(sightings, sums, biofix, winter), model_error, biofix_error, draws, seed + 1)
    cumulative = np.maximum(0.0, np.cumsum(daily, axis=1) * errors.factors + errors.shifts)
    past_cumulative = np.cumsum(past, axis=1)

    mean_daily = daily.mean(axis=0)
    kinds = _kinds(weather, start, days, as_of, len(dates))
    in_phase = _phases(cumulative, model, winter)
    mean_phases = in_phase.mean(axis=1)
    by_draw = shares.by_stage(in_phase, model)
    usual_phases = _phases(past_cumulative, model, winter).mean(axis=1) if len(past) else np.zeros_like(mean_phases)
    return Season(
        dates=dates,
        heat=np.percentile(cumulative, PERCENTS, axis=0),
        events=tuple(_dated(event, dates, cumulative, past_cumulative, kinds, mean_daily) for event in model.events),
        phases={event.id: row for event, row in zip(model.events, mean_phases[1:], strict=True)},
        passed={event.id: row for event, row in zip(model.events, np.cumsum(mean_phases[::-1], axis=0)[::-1][1:], strict=True)},
        shares=shares.by_stage(mean_phases, model),
        low={stage: np.percentile(row, PERCENTS[0], axis=0) for stage, row in by_draw.items()},
        high={stage: np.percentile(row, PERCENTS[2], axis=0) for stage, row in by_draw.items()},
        usual=shares.by_stage(usual_phases, model),
        sources=_sources(kinds, mean_daily, len(dates)),
        biofix=biofix,
        as_of=as_of,
        kinds=kinds,
        moved=errors.moved,
        surer=errors.surer,
    )


def _span(biofix: dt.date) -> tuple[dt.date, ...]:
    """The days of a forecast: to the end of the biofix's year, or 300 days on where it lies in the second half."""
    last = biofix.replace(month=12, day=31) if biofix.month <= 6 else biofix + dt.timedelta(days=judgement.SPAN_DAYS)
    return tuple(biofix + dt.timedelta(days=n) for n in range((last - biofix).days + 1))


def _days_with_weather(dates: Sequence[dt.date], weather: Weather) -> int:
    """How many days from the biofix on have weather, without a hole."""
    there = set(weather.dates)
    return next((place for place, day in enumerate(dates) if day not in there), len(dates))


def _heat_by_day(model: Heat, low: Array, high: Array) -> Array:
    """Degree-days C of each day as the model counts them; low, high: degrees C, same shape."""
    return degree_days.daily(low, high, model.lower, model.upper, method=model.method, cutoff=model.cutoff)


def _heat_of_past_years(model: Heat, past_years: Sequence[Weather], dates: Sequence[dt.date]) -> Array:
    """Degree-days C of the same days in past years, (years, days), without holes."""
    if not past_years:
        return np.empty((0, len(dates)))
    return _whole(np.stack([_heat_by_day(model, *ahead.aligned(year, dates)) for year in past_years]))


def _drawn_on(this_year: Array, past: Array, days: int, draws: int, seed: int) -> Array:
    """This year's heat, gone on with from past years: (draws, days), the same in every draw as far as there is weather."""
    daily = np.tile(this_year, (draws, 1))
    if len(this_year) == days:
        return daily
    return np.concatenate([daily, ahead.draws_of(past, this_year, draws, seed)], axis=1)


def _sums_on_sightings(
    sightings: Sequence[Sighting], sums: Array, biofix: dt.date, winter: int | None
) -> list[tuple[Sighting, float, float | None]]:
    """Sightings on days with weather, in order, with the sum of their day and that of the wintering day, None before it."""
    placed = [(sighting, (sighting.on - biofix).days) for sighting in sorted(sightings, key=lambda sighting: sighting.on)]
    return [
        (sighting, float(sums[place]), float(sums[winter]) if winter is not None and winter <= place else None)
        for sighting, place in placed
        if 0 <= place < len(sums)
    ]


def _phases(cumulative: Array, model: Heat, winter: int | None) -> Array:
    """Share in each phase by draw and day; from the wintering day on what winters stays as it is."""
    return shares.phases(cumulative, model, None if winter is None else cumulative[:, winter : winter + 1])


def _dated(
    event: Event, dates: Sequence[dt.date], cumulative: Array, past_cumulative: Array, kinds: Sequence[str], mean_daily: Array
) -> EventDates:
    """One event's dates over the draws, and its usual date over past years."""
    quantiles = np.percentile(_first_day(cumulative, event.at), PERCENTS)
    # The middle of few hundred draws is a day off now and then; the mean course is not.
    middle = float(_first_day(cumulative.mean(axis=0), event.at))
    quantiles[1] = np.clip(middle, quantiles[0], quantiles[2])
    usual_index = float(np.median(_first_day(past_cumulative, event.at))) if len(past_cumulative) else float(len(dates))
    p10, p50, p90, usual = (_date(dates, index) for index in (*quantiles, usual_index))
    early = (usual - p50).days if usual and p50 else None
    return EventDates(event.id, event.name, event.stage, p10, p50, p90, usual, early, _sources(kinds, mean_daily, middle))


def _winter_index(model: Heat, dates: Sequence[dt.date], southern: bool) -> int | None:
    """The place of the day from which the wintering stage stays as it is; None where the model has none, or the span ends before."""
    if model.winter_after is None:
        return None
    month, day = model.winter_after
    month = (month + 5) % 12 + 1 if southern else month
    return next((place for place, date in enumerate(dates) if (date.month, date.day) == (month, day)), None)


def _kinds(weather: Weather, start: int, measured_days: int, as_of: dt.date, days: int) -> tuple[str, ...]:
    """Where each day's heat comes from, in one word."""
    kinds = weather.kind or tuple(DayKind.MEASURED if day <= as_of else DayKind.FORECAST for day in weather.dates)
    return (*kinds[start : start + measured_days], *((DayKind.PAST_YEARS,) * (days - measured_days)))


def _sources(kinds: Sequence[str], mean_daily: Array, until: float) -> dict[str, float]:
    """Share of the heat up to a day (its place) that was measured, filled, forecast, and drawn from past years."""
    end = min(round(until) + 1, len(kinds))
    total = float(mean_daily[:end].sum()) or 1.0
    shares: dict[str, float] = dict.fromkeys(SOURCES, 0.0)
    for kind, heat in zip(kinds[:end], mean_daily, strict=False):
        shares[kind if kind in shares else DayKind.FILLED] += float(heat) / total
    return shares


def window(
    season: Season, control: Control, model: Heat, *, share: float = judgement.WINDOW_SHARE, after: dt.date | None = None
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
        days = (
            np.any([(row >= judgement.EVENT_SPAN[0]) & (row <= judgement.EVENT_SPAN[1]) for row in met], axis=0)
            if met
            else np.zeros(0, bool)
        )
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
