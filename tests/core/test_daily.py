"""A station's days: what fills, blends, cuts and warms them keeps what is known."""

import datetime as dt
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.season.blend import Place
from bootmark.core.season.daily import DailySeries, by_month_day, same_day, warmed

FIRST = dt.date(2024, 1, 1)
extremes = st.tuples(st.floats(-30, 20), st.floats(0, 20)).map(lambda pair: (pair[0], pair[0] + pair[1]))
series = st.dictionaries(st.integers(0, 900).map(lambda n: FIRST + dt.timedelta(days=n)), extremes, max_size=40).map(DailySeries)
HERE, FAR = Place(46.2, 7.1, 500.0), Place(46.4, 7.3, 500.0)


def whole(years: int, first: int = 2023) -> DailySeries:
    days = (dt.date(first, 1, 1) + dt.timedelta(days=n) for n in range(365 * years))
    return DailySeries({day: (float(day.month), float(day.month + 8)) for day in days})


class Known(unittest.TestCase):
    @given(series)
    def test_filling_keeps_every_known_day_up_to_where_it_ends(self, days: DailySeries) -> None:
        filled = days.filled()
        for day, low, high, kind in zip(filled.dates, np.asarray(filled.tmin), np.asarray(filled.tmax), filled.kind, strict=True):
            if day in days.days:
                self.assertEqual(((low, high), kind), (days.days[day], "measured"))
            else:
                self.assertEqual(kind, "line")

    @given(series, series)
    def test_later_days_stand_in_place_of_earlier_ones(self, early: DailySeries, late: DailySeries) -> None:
        both = early.then(late).days
        self.assertEqual(both, {**early.days, **late.days})

    @given(series, st.integers(0, 900), st.integers(0, 900))
    def test_a_stretch_holds_its_days_and_no_other(self, days: DailySeries, start: int, length: int) -> None:
        first = FIRST + dt.timedelta(days=start)
        end = first + dt.timedelta(days=length)
        self.assertEqual(set(days.between(first, end).days), {day for day in days.days if first <= day < end})

    @given(series)
    def test_a_station_on_the_spot_blends_to_itself(self, days: DailySeries) -> None:
        mixed = DailySeries.blended([HERE, FAR], [days, DailySeries()], HERE)
        for day, (low, high) in days.days.items():
            self.assertAlmostEqual(mixed.days[day][0], low)
            self.assertAlmostEqual(mixed.days[day][1], high)

    def test_rain_is_the_nearest_stations_that_measured_it(self) -> None:
        near, far = DailySeries({FIRST: (1, 2)}, {FIRST: None}), DailySeries({FIRST: (1, 2)}, {FIRST: 4.5})
        self.assertEqual(DailySeries.blended([HERE, FAR], [near, far], HERE).rain, {FIRST: 4.5})


class Years(unittest.TestCase):
    def test_whole_years_before_this_one_the_newest_first(self) -> None:
        short = {dt.date(2021, 1, 1) + dt.timedelta(days=n): (0.0, 1.0) for n in range(200)}
        years = DailySeries({**short, **whole(2).days}).years(dt.date(2025, 5, 1))
        self.assertEqual([year.dates[0].year for year in years], [2024, 2023])
        self.assertEqual(DailySeries().years(FIRST), [])

    def test_warmer_days_from_one_on(self) -> None:
        year = whole(1).years(dt.date(2024, 1, 1))[0]
        since = warmed(year, 2.0, dt.date(2023, 7, 1))
        step = np.asarray(since.tmax) - np.asarray(year.tmax)
        self.assertEqual((step[: 31 * 5].max(), step[-1], len(since.dates)), (0.0, 2.0, 365))
        self.assertTrue((np.asarray(warmed(year, -1.0).tmin) == np.asarray(year.tmin) - 1).all())

    def test_the_same_day_in_other_years(self) -> None:
        self.assertEqual(same_day(dt.date(2024, 2, 29), 2023), dt.date(2023, 2, 28))
        self.assertEqual(same_day(dt.date(2024, 6, 3), 2020), dt.date(2020, 6, 3))
        self.assertEqual(by_month_day(whole(1).years(dt.date(2024, 1, 1))[0])[(6, 3)], (6.0, 14.0))

    def test_spells_are_read_from_known_days_only(self) -> None:
        days = DailySeries({FIRST: (1, 25), FIRST + dt.timedelta(days=2): (2, 26)}, {FIRST: 3.0})
        self.assertEqual(days.spell(FIRST + dt.timedelta(days=3), 3), [(25, 3.0), (26, None)])
