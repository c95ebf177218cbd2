"""Twelve invented farms over both hemispheres and five continents, a whole season each: dates in order, windows that close, suns that rise."""

import datetime as dt
import unittest
from collections import Counter

import numpy as np

from bootmark.core.catalogue import default
from bootmark.core.meanings import WindowClosed
from bootmark.core.season import degree_days, openings, phenology, windows
from bootmark.core.season.ahead import Weather

FARMS = (
    ("Tallow", 60, 25, 5, 12),
    ("Brant", 52, -2, 10, 8),
    ("Ferrin", 46, 7, 10.5, 11),
    ("Ossel", 40, -104, 12, 13),
    ("Marle", 35, 139, 16, 10),
    ("Quill", 28, 77, 21, 7),
    ("Sabe", 10, -84, 27, 2),
    ("Yarro", 0, 37, 18, 1),
    ("Nhamu", -20, 30, 23, 4),
    ("Kerrin", -34, 19, 17, 6),
    ("Oriel", -42, 147, 12, 5),
    ("Tessel", -45, 170, 10, 6),
)
"""Name, degrees north and east, mean of the year and half the swing between summer and winter, degrees C."""
START, END = dt.date(2021, 1, 1), dt.date(2026, 12, 31)


def climate(latitude: float, mean: float, swing: float) -> tuple[list[dt.date], np.ndarray]:
    """Six years of days with weather that lasts: means of days, degrees C."""
    rng = np.random.default_rng(11)
    dates = [START + dt.timedelta(days=n) for n in range((END - START).days + 1)]
    coldest = 20 if latitude >= 0 else 202
    place = np.array([date.timetuple().tm_yday for date in dates])
    strayed = np.zeros(len(dates))
    for day, shock in enumerate(rng.normal(0, 1.8, len(dates) - 1), 1):
        strayed[day] = 0.7 * strayed[day - 1] + shock
    return dates, mean - swing * np.cos(2 * np.pi * (place - coldest) / 365) + strayed


class Grid(unittest.TestCase):
    def test_a_whole_season_on_each(self) -> None:
        reasons: Counter[WindowClosed | None] = Counter()
        for name, latitude, _, mean, swing in FARMS:
            dates, means = climate(latitude, mean, swing)
            at = {date: place for place, date in enumerate(dates)}
            past = [self.part(dates, means, at[dt.date(year, 1, 1)], at[dt.date(year, 12, 31)]) for year in (2022, 2023, 2024)]
            for agent in default().agents.values():
                heat = agent.heat
                if heat is None or not heat.events:
                    continue
                start = at[self.biofix(heat.month_day, latitude, dates, means)]
                season = phenology.forecast(
                    heat,
                    self.part(dates, means, start, len(dates) - 1),
                    dates[start],
                    past_years=past,
                    as_of=END,
                    latitude=latitude,
                    draws=40,
                )
                with self.subTest(farm=name, agent=agent.id):
                    for event in season.events:
                        known = [day for day in (event.p10, event.p50, event.p90) if day]
                        self.assertEqual(known, sorted(known), event.id)
                    self.assertLess(season.on(season.dates[-1]).get("adult", 0.0) if heat.winter_stage not in ("", "adult") else 0.0, 0.35)
                    for control in (control for control in agent.controls if control.stages):
                        every = openings.spans(season, control, heat)
                        self.assertNotIn(season.dates[-1], [last for _, last in every], control.id)
                        closed = openings.why_closed(season, control, heat, after=season.dates[0])
                        self.assertEqual(closed is None, bool(every), control.id)
                        reasons[closed] += 1
        self.assertGreater(reasons[None], 500)
        self.assertTrue(set(reasons) <= {None, *WindowClosed})

    @staticmethod
    def part(dates: list[dt.date], means: np.ndarray, first: int, last: int) -> Weather:
        return Weather(tuple(dates[first : last + 1]), means[first : last + 1] - 5.5, means[first : last + 1] + 5.5)

    @staticmethod
    def biofix(month_day: tuple[int, int] | None, latitude: float, dates: list[dt.date], means: np.ndarray) -> dt.date:
        """The model's own day, turned round in the south; else the day on which a spring has 80 degree-days above 10 C."""
        if month_day:
            month, day = month_day
            return dt.date(2025, month if latitude >= 0 else (month + 5) % 12 + 1, day)
        first = dates.index(dt.date(2025, 1 if latitude >= 0 else 7, 1))
        sums = np.cumsum(degree_days.daily(means[first : first + 360] - 5.5, means[first : first + 360] + 5.5, 10.0))
        return dates[first + int((sums >= 80).argmax())]

    def test_no_hour_is_refused_for_a_wrong_sun(self) -> None:
        """At every farm some hour of a mild day suits a spray, and it lies in that place's own daylight."""
        for name, latitude, longitude, _, _ in FARMS:
            noon = dt.datetime(2026, 3, 21, 12, tzinfo=dt.UTC) - dt.timedelta(hours=round(longitude / 15))
            times = tuple(noon + dt.timedelta(hours=hour) for hour in range(-18, 18))
            hourly = windows.Hourly(times, [18.0] * 36, [60.0] * 36, [2.0] * 36, [0.0] * 36, latitude, longitude)
            zone = dt.timezone(dt.timedelta(hours=round(longitude / 15)))
            table = windows.hours(hourly, windows.limits_for("spray", zone=zone))
            suits = [time.astimezone(zone).hour for time, cell in zip(table.times, table.rows["light"], strict=True) if cell.state == "ok"]
            self.assertTrue({8, 12, 16} <= set(suits), name)
            self.assertTrue({0, 1, 2, 22, 23}.isdisjoint(suits), name)
