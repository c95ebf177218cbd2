"""How far ahead event dates can be told: each year of an open daily series foretold from the others.

For every year, every event (each 100 degree-days F from 200 to 1,600 above 10 C from 1 March, single sine) and every
lead, the forecast knows the weather up to that many days before the event came, and the other years whole. Prints the mean
absolute error beside smoothed climatology and last week's rate carried on, computed in the same run, and how many true dates
lay between p10 and p90. The series is the one that vega_datasets carries (daily extremes, 2012 to 2015).

Then, with the weather of a whole year known, how many true dates lie between p10 and p90 where each model's sums err as it says of
itself, half as much and twice as much: what is left of the doubt is the model's own.

    python bench/hindcast.py
"""

import csv
import datetime as dt
import statistics
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import vega_datasets
from numpy.typing import NDArray

from bootmark.core import judgement
from bootmark.core.catalogue import Heat, default
from bootmark.core.catalogue.heat import Event
from bootmark.core.meanings import BiofixKind
from bootmark.core.season import degree_days, phenology
from bootmark.core.season.ahead import Weather

SERIES = Path(vega_datasets.__file__).parent / "_data" / "seattle-weather.csv"
LEADS = (7, 14, 28)
SUMS_F = tuple(range(200, 1601, 100))
LOWER, UPPER = 10.0, None
START = (3, 1)
SMOOTH_DAYS = 15
Array = NDArray[np.float64]


def years() -> dict[int, Weather]:
    rows: dict[int, list[tuple[dt.date, float, float]]] = {}
    with SERIES.open() as file:
        for row in csv.DictReader(file):
            day = dt.date.fromisoformat(row["date"].replace("/", "-"))
            rows.setdefault(day.year, []).append((day, float(row["temp_min"]), float(row["temp_max"])))
    return {
        year: Weather(tuple(day for day, _, _ in days), tuple(low for _, low, _ in days), tuple(high for _, _, high in days))
        for year, days in rows.items()
    }


def model() -> Heat:
    events = tuple(Event(str(at), f"{at} degree-days F", at / 1.8, 1.0, "adult", "memory") for at in SUMS_F)
    fields = dict.fromkeys(Heat.__dataclass_fields__)
    answers = {"lower": LOWER, "upper": UPPER, "method": "single_sine", "cutoff": "horizontal", "events": events, "biofix_name": "1 March"}
    return Heat(**(fields | answers))  # type: ignore[arg-type]


def daily(weather: Weather) -> Array:
    """Heat of each day from 1 March on."""
    start = weather.dates.index(dt.date(weather.dates[0].year, *START))
    return degree_days.daily(np.asarray(weather.tmin)[start:], np.asarray(weather.tmax)[start:], LOWER, UPPER)


def until(weather: Weather, day: dt.date) -> Weather:
    days_known = weather.dates.index(day) + 1
    return Weather(weather.dates[:days_known], np.asarray(weather.tmin)[:days_known], np.asarray(weather.tmax)[:days_known])


def reached(so_far: float, ahead: Array, at: float) -> int:
    """Days from the last known day until the sum is reached."""
    total = so_far + np.cumsum(ahead)
    return int((total >= at).argmax()) + 1 if (total >= at).any() else len(ahead) + 1


def climatology(past: list[Array], days_known: int) -> Array:
    """Smoothed mean of the other years' heat on the days ahead."""
    length = min(len(year) for year in past)
    mean = np.mean([year[:length] for year in past], axis=0)
    padded = np.pad(mean, SMOOTH_DAYS, mode="edge")
    smooth = np.convolve(padded, np.ones(2 * SMOOTH_DAYS + 1) / (2 * SMOOTH_DAYS + 1), mode="valid")
    return np.asarray(smooth[days_known:])


@dataclass(frozen=True)
class Row:
    """One lead: mean absolute errors in days, and the share of true dates between p10 and p90."""

    lead: int
    events: int
    ours: float
    climatology: float
    last_week: float
    held: float


def run() -> list[Row]:
    series = years()
    heat = {year: daily(weather) for year, weather in series.items()}
    wanted = model()
    rows = []
    for lead in LEADS:
        errors: dict[str, list[float]] = {"ours": [], "climatology": [], "last_week": []}
        held = []
        for year, weather in series.items():
            past = [other for one, other in heat.items() if one != year]
            others = [one for name, one in series.items() if name != year]
            sums = np.cumsum(heat[year])
            biofix = dt.date(year, *START)
            for event in wanted.events:
                true = int((sums >= event.at).argmax())
                days_known = true - lead + 1
                if sums[-1] < event.at or days_known < 8:
                    continue
                as_of, date = biofix + dt.timedelta(days=days_known - 1), biofix + dt.timedelta(days=true)
                season = phenology.forecast(
                    wanted, until(weather, as_of), biofix, past_years=others, as_of=as_of, model_error=0.0, biofix_error=0.0
                )
                moment = next(dated for dated in season.events if dated.id == event.id)
                p10, p50, p90 = (quantile or dt.date(year, 12, 31) for quantile in (moment.p10, moment.p50, moment.p90))
                errors["ours"].append(abs((p50 - date).days))
                held.append(p10 <= date <= p90)
                so_far = float(sums[days_known - 1])
                errors["climatology"].append(abs(reached(so_far, climatology(past, days_known), event.at) - lead))
                rate = heat[year][days_known - 7 : days_known].mean()
                errors["last_week"].append(abs((event.at - so_far) / rate - lead) if rate > 0.05 else 60.0)
        means = {name: statistics.fmean(values) for name, values in errors.items()}
        rows.append(Row(lead, len(held), **means, held=statistics.fmean(held)))
    return rows


TRUTHS, TIMES = 60, (0.5, 1.0, 2.0)


def coverage() -> dict[float, tuple[int, float]]:
    """For each multiple of the models' own error: how many true dates were drawn, and the share of them between p10 and p90."""
    series = years()
    rng = np.random.default_rng(20261126)
    held: dict[float, list[bool]] = {times: [] for times in TIMES}
    for agent in default().agents.values():
        heat = agent.heat
        if heat is None or not heat.events:
            continue
        weather = series[2015]
        biofix = dt.date(2015, *(heat.month_day or (4, 15)))
        season = phenology.forecast(heat, weather, biofix, past_years=[series[2014]], as_of=dt.date(2015, 12, 31), latitude=47.0)
        start = weather.dates.index(biofix)
        low, high = np.asarray(weather.tmin)[start:], np.asarray(weather.tmax)[start:]
        sums = np.cumsum(degree_days.daily(low, high, heat.lower, heat.upper, method=heat.method, cutoff=heat.cutoff))
        shift = 0.0 if heat.biofix == BiofixKind.DATE else judgement.BIOFIX_SPREAD
        foretold = {event.id: event for event in heat.events if event.foretold}
        for dated in season.events:
            if not dated.p10 or not dated.p90:
                continue
            for times in TIMES:
                factors = np.exp(rng.normal(0, times * heat.error, TRUTHS))
                true = (sums * factors[:, None] + rng.normal(0, times * shift, (TRUTHS, 1)) >= foretold[dated.id].at).argmax(axis=1)
                dates = (biofix + dt.timedelta(days=int(day)) for day in true)
                held[times] += [dated.p10 <= date <= dated.p90 for date in dates]
    return {times: (len(rows), statistics.fmean(rows)) for times, rows in held.items()}


def main() -> None:
    print("lead  events  Bootmark  climatology  last week  p10-p90 holds")
    for row in run():
        line_text = f"{row.ours:>9.2f} d{row.climatology:>11.2f} d{row.last_week:>9.2f} d"
        print(f"{row.lead:>4}{row.events:>8}{line_text}{row.held:>14.0%}")
    print("truth drawn with the models' own error, times: share between p10 and p90, of so many")
    for times, (count, share) in coverage().items():
        print(f"{times:>5.1f}{share:>8.1%}{count:>9}")


if __name__ == "__main__":
    main()
