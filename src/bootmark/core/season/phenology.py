"""Life stages against heat: dates of events, shares of the population, windows, and how sure they are."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.meanings import BiofixKind, DayKind
from bootmark.core.season import ahead, anchor, degree_days, shares
from bootmark.core.season import weather as weather_of
from bootmark.core.season.ahead import Weather
from bootmark.core.season.anchor import Sighting
from bootmark.core.season.dated import PERCENTS, EventDates, dated, sources

Array = NDArray[np.float64]
TWELVE = 12.0
"""Of the variance of what lies anywhere within a width: its square by this."""


@dataclass(frozen=True)
class Season:
    """A forecast over one span of days.

    heat: cumulative degree-days C, rows p10, p50, p90; phases: event id to share in that phase
    per day; passed: event id to share past that event;
    shares: stage to share per day, with "not yet" and "over" adding to one; low, high: the
    same at 10 and 90 per cent of draws; usual: the same for past years; sources: what share
    of the heat of the whole span came from where; kinds: the same day by day, one word a day;
    moved, surer, chance: what the sightings brought (anchor.Errors); winter: the day from which what winters stays as it is; chilled:
    whether winters there are cold enough for a model that counts on one.
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
    chance: float = 1.0
    winter: dt.date | None = None
    chilled: bool = True

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


def forecast(
    model: Heat,
    weather: Weather,
    biofix: dt.date,
    *,
    past_years: Sequence[Weather],
    as_of: dt.date,
    draws: int = 200,
    seed: int = 0,
    model_error: float | None = None,
    biofix_error: float | None = None,
    biofix_days: int = 1,
    sightings: Sequence[Sighting] = (),
    southern: bool = False,
    latitude: float | None = None,
) -> Season:
    """Dates of a model's events and shares of its stages, from the biofix to the end of that year.

    Parameters
    ----------
    model : sums, thresholds and events.
    weather : this year, at least from the biofix; days after as_of are taken as forecast, and what lies
        beyond is drawn from past_years in blocks of days.
    biofix : the day that the sums run from.
    past_years : years of daily extremes to go on with. Where there are none, the forecast ends with the weather that is given, and its
        error is taken to be wider: nothing tells what is usual there.
    as_of : today.
    draws, seed : how many futures are drawn, and from which numbers.
    model_error : share by which the model's sums err, the model's own where None.
    biofix_error : degree-days C by which the biofix errs, so that a date in the past is not told to the day; where None, none for a
        calendar day and judgement.BIOFIX_SPREAD for what somebody saw.
    biofix_days : days in which the biofix lies, itself the last of them: a trap read weekly was filled on any of seven.
    sightings : animals counted by stage on known days, which re-anchor it (anchor.py).
    southern : turns the model's wintering day round, where no latitude is given.
    latitude : degrees, north positive; where given, the day length there tells from when on what winters stays.

    Returns
    -------
    Season
        Event dates with p10, p50, p90; shares of stages for each day; windows.

    Raises
    ------
    ValueError
        Where there is no weather from the biofix on.

    Source
    ------
    Degree-day sums as degree_days.py; delays by cohorts as cohorts.py.
    """
    dates = _span(biofix)
    days = _days_with_weather(dates, weather)
    if not days:
        raise ValueError(f"there is no weather for {biofix:%-d %B %Y}, the day that heat is counted from")
    if not past_years:
        dates = dates[:days]
    start = weather.dates.index(biofix)

    low, high = (np.asarray(extremes, dtype=float)[start : start + days] for extremes in (weather.tmin, weather.tmax))
    this_year = _heat_by_day(model, low, high)
    past = _heat_of_past_years(model, past_years, dates)
    daily = _drawn_on(this_year, past, len(dates), draws, seed)

    winter = _winter_index(model, dates, southern, latitude)
    sums = np.cumsum(this_year)
    if biofix_error is None:
        biofix_error = 0.0 if model.biofix == BiofixKind.DATE else judgement.BIOFIX_SPREAD
    if model_error is None:
        model_error = model.error * (1.0 if past_years else judgement.NO_PAST_YEAR)
    prior = anchor.Prior(model_error, biofix_error, *_unseen(this_year, biofix_days))
    errors = anchor.weigh(model, _sums_on_sightings(sightings, sums, biofix, winter), prior, draws, seed + 1)
    cumulative = np.maximum(0.0, np.cumsum(daily, axis=1) * errors.factors + errors.shifts)
    past_cumulative = np.cumsum(past, axis=1)

    mean_daily = daily.mean(axis=0)
    kinds = _kinds(weather, start, days, as_of, len(dates))
    killed = _killed(mean_daily)
    in_phase = _phases(cumulative, model, winter)
    passed = np.cumsum(in_phase.mean(axis=1)[::-1], axis=0)[::-1][1:]
    in_phase = _alive(in_phase, cumulative, model, winter, killed)
    mean_phases = in_phase.mean(axis=1)
    by_draw = shares.by_stage(in_phase, model)
    usual_phases = np.zeros_like(mean_phases)
    if len(past):
        usual_phases = _alive(_phases(past_cumulative, model, winter), past_cumulative, model, winter, killed).mean(axis=1)
    return Season(
        dates=dates,
        heat=np.percentile(cumulative, PERCENTS, axis=0),
        events=tuple(dated(event, dates, cumulative, past_cumulative, kinds, mean_daily) for event in model.events if event.foretold),
        phases={event.id: row for event, row in zip(model.events, mean_phases[1:], strict=True)},
        passed={event.id: row for event, row in zip(model.events, passed, strict=True)},
        shares=shares.by_stage(mean_phases, model),
        low={stage: np.percentile(row, PERCENTS[0], axis=0) for stage, row in by_draw.items()},
        high={stage: np.percentile(row, PERCENTS[2], axis=0) for stage, row in by_draw.items()},
        usual=shares.by_stage(usual_phases, model),
        sources=sources(kinds, mean_daily, len(dates)),
        biofix=biofix,
        as_of=as_of,
        kinds=kinds,
        moved=errors.moved,
        surer=errors.surer,
        chance=errors.chance,
        winter=None if winter is None else dates[winter],
        chilled=model.winter_stage == "" or _chilled(past_years or [weather]),
    )


def _chilled(years: Sequence[Weather]) -> bool:
    """Whether the coldest month of the usual year is a winter."""
    coldest = []
    for year in years:
        mean = (np.asarray(year.tmin, dtype=float) + np.asarray(year.tmax, dtype=float)) / 2
        width = min(judgement.COLD_DAYS, len(mean))
        coldest.append(np.nanmin(np.convolve(mean, np.ones(width) / width, mode="valid")))
    return float(np.median(coldest)) <= judgement.COLD_MONTH


def _span(biofix: dt.date) -> tuple[dt.date, ...]:
    """The days of a forecast: to the end of the half-year after the biofix's own, when nothing grows on either side of the equator."""
    last = biofix.replace(month=12, day=31) if biofix.month <= 6 else dt.date(biofix.year + 1, 6, 30)
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


def sums_at(
    model: Heat, weather: Weather, biofix: dt.date, sightings: Sequence[Sighting], latitude: float
) -> list[tuple[Sighting, float, float | None]]:
    """Sightings in order, each with the degree-days C of its day and of the wintering day, None before it: what anchor.weigh takes."""
    dates = _span(biofix)
    days = _days_with_weather(dates, weather)
    start = weather.dates.index(biofix)
    low, high = (np.asarray(extremes, dtype=float)[start : start + days] for extremes in (weather.tmin, weather.tmax))
    sums = np.cumsum(_heat_by_day(model, low, high))
    return _sums_on_sightings(sightings, sums, biofix, _winter_index(model, dates, False, latitude))


def _phases(cumulative: Array, model: Heat, winter: int | None) -> Array:
    """Share in each phase by draw and day; from the wintering day on what winters stays as it is."""
    return shares.phases(cumulative, model, _held(cumulative, winter))


def _alive(rows: Array, cumulative: Array, model: Heat, winter: int | None, killed: Array) -> Array:
    return shares.alive(rows, cumulative, model, _held(cumulative, winter), killed)


def _held(cumulative: Array, winter: int | None) -> Array | None:
    return None if winter is None else cumulative[:, winter : winter + 1]


def stirring(daily: Array) -> NDArray[np.bool_]:
    """Days on which there is heat enough for anything to move, up to the end of the warm season. daily: degree-days C of the middle course.

    A warm week in winter opens nothing again.
    """
    width = min(judgement.STIRS_DAYS, len(daily))
    mean = np.convolve(np.pad(daily, (width // 2, width - 1 - width // 2), mode="edge"), np.ones(width) / width, mode="valid")
    warm = mean >= judgement.STIRS
    edges = np.flatnonzero(np.diff(np.concatenate([[False], warm, [False]]).astype(int)))
    if not len(edges):
        return np.asarray(warm)
    longest = int((edges[1::2] - edges[::2]).argmax())
    return np.asarray(warm & (np.arange(len(daily)) < edges[1::2][longest]))


def _killed(daily: Array) -> Array:
    """Share that the cold has killed by each day of what does not winter: within a month of the end of the warm season."""
    warm = np.flatnonzero(stirring(daily))
    since = np.arange(len(daily)) - (warm[-1] if len(warm) else len(daily))
    return np.clip(since / judgement.COLD_DAYS, 0.0, 1.0)


def _unseen(this_year: Array, days: int) -> tuple[float, float]:
    """Degree-days C that may have gone before a biofix that lies within so many days: their mean, and their standard deviation.

    Any of the days is as likely; the days before are taken to have been as warm as those after.
    """
    if days <= 1:
        return 0.0, 0.0
    width = (days - 1) * float(this_year[: max(days, 7)].mean())
    return width / 2, width / np.sqrt(TWELVE)


def _shortening(dates: Sequence[dt.date], latitude: float, below: float) -> int | None:
    """The place of the first of the shortening days that has less daylight, hours; None where no day of the year has more."""
    longest = weather_of.day_length(172 if latitude >= 0 else 355, latitude)
    if longest <= below:
        return None
    hours = weather_of.day_length(np.array([day.timetuple().tm_yday for day in dates], dtype=float), latitude)
    shorter = (hours[1:] < hours[:-1]) & (hours[1:] < below)
    return int(shorter.argmax()) + 1 if shorter.any() else None


def _winter_index(model: Heat, dates: Sequence[dt.date], southern: bool, latitude: float | None) -> int | None:
    """The place of the day from which the wintering stage stays as it is; None where the model has none, or the span ends before."""
    if model.winter_after is None:
        return None
    if latitude is not None and model.winter_below is not None:
        shortening = _shortening(dates, latitude, model.winter_below)
        if shortening is not None:
            return shortening
    month, day = model.winter_after
    month = (month + 5) % 12 + 1 if (southern if latitude is None else latitude < 0) else month
    return next((place for place, date in enumerate(dates) if (date.month, date.day) == (month, day)), None)


def _kinds(weather: Weather, start: int, measured_days: int, as_of: dt.date, days: int) -> tuple[str, ...]:
    """Where each day's heat comes from, in one word."""
    kinds = weather.kind or tuple(DayKind.MEASURED if day <= as_of else DayKind.FORECAST for day in weather.dates)
    return (*kinds[start : start + measured_days], *((DayKind.PAST_YEARS,) * (days - measured_days)))
