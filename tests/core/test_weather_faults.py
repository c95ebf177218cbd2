"""Normals, blending of stations, fills and flags, on series whose truth is known."""

import datetime as dt
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.season import blend, faults, gaps, normals
from bootmark.core.season.blend import Place

START = dt.date(2024, 1, 1)
DAYS = 731


def series(seed: int = 3) -> tuple[list[dt.date], np.ndarray, np.ndarray]:
    rng = np.random.default_rng(seed)
    dates = [START + dt.timedelta(days=n) for n in range(DAYS)]
    usual = 11 - 9 * np.cos(2 * np.pi * (np.arange(DAYS) - 20) / 365.25) + rng.normal(0, 1.5, DAYS)
    return dates, usual - 5, usual + 6


class Normals(unittest.TestCase):
    def test_a_pure_wave_is_found_again(self) -> None:
        dates, *_ = series()
        yday = np.array([day.timetuple().tm_yday for day in dates])
        wave = 10 - 8 * np.cos(2 * np.pi * (yday - 1) / 365.25)
        usual = normals.normals(dates, wave - 4, wave + 4)
        self.assertAlmostEqual(usual.on(dt.date(2025, 7, 2))[1], float(wave[dates.index(dt.date(2025, 7, 2))] + 4), places=6)
        self.assertAlmostEqual(usual.spread, 0.0, places=6)

    def test_holes_and_few_days(self) -> None:
        dates, low, high = series()
        low = low.copy()
        low[50:80] = np.nan
        self.assertAlmostEqual(normals.normals(dates, low, high).spread, 1.5, delta=0.2)
        with self.assertRaisesRegex(ValueError, "too few"):
            normals.normals(dates[:200], low[:200], high[:200])


class Blend(unittest.TestCase):
    here = Place(46.2, 7.1, 500.0)

    def test_a_degree_of_latitude(self) -> None:
        # A degree along a meridian is 111.2 km on a round earth of 6,371 km.
        self.assertAlmostEqual(blend.distance(self.here, Place(47.2, 7.1, 0.0)), 111_195, delta=10)

    def test_height_is_corrected_by_the_standard_atmosphere(self) -> None:
        # 6.5 degrees C for each kilometre (ISO 2533:1975).
        self.assertAlmostEqual(float(blend.blend([Place(46.2, 7.1, 1500.0)], [10.0], self.here)), 16.5)

    def test_a_silent_station_leaves_its_share_to_the_others(self) -> None:
        stations = [Place(46.21, 7.1, 500.0), Place(46.22, 7.1, 500.0)]
        mixed = blend.blend(stations, [[10.0, np.nan, np.nan], [20.0, 20.0, np.nan]], self.here)
        # Twice the distance is a quarter of the weight (Shepard 1968).
        self.assertAlmostEqual(float(mixed[0]), 12.0, places=2)
        self.assertEqual(float(mixed[1]), 20.0)
        self.assertTrue(np.isnan(mixed[2]))
        with self.assertRaises(ValueError):
            blend.blend([], [], self.here)

    @settings(max_examples=40)
    @given(st.lists(st.tuples(st.floats(46, 47), st.floats(7, 8), st.floats(-10, 40)), min_size=1, max_size=6))
    def test_at_one_height_it_stays_between_the_stations(self, rows: list[tuple[float, float, float]]) -> None:
        stations = [Place(lat, lon, 500.0) for lat, lon, _ in rows]
        temps = [temp for *_, temp in rows]
        mixed = float(blend.blend(stations, temps, self.here))
        self.assertTrue(min(temps) - 1e-9 <= mixed <= max(temps) + 1e-9)
        self.assertAlmostEqual(float(blend.weights(stations, self.here).sum()), 1.0)


class Flags(unittest.TestCase):
    def setUp(self) -> None:
        self.dates, self.low, self.high = series()
        self.usual = normals.normals(self.dates, self.low, self.high)

    def kinds(self, low: np.ndarray, high: np.ndarray) -> dict[int, str]:
        return {(flag.date - START).days: flag.kind for flag in faults.of_days(self.dates, low, high, self.usual)}

    def test_a_sound_series_has_no_flag(self) -> None:
        for seed in range(3, 8):
            dates, low, high = series(seed)
            self.assertEqual(faults.of_days(dates, low, high, normals.normals(dates, low, high)), [], seed)

    def test_each_fault_is_found_on_its_days_and_nowhere_else(self) -> None:
        high = self.high.copy()
        high[200] += 25
        self.assertEqual(self.kinds(self.low, high), {200: "spike"})
        low, high = self.low.copy(), self.high.copy()
        low[300:305], high[300:305] = 8.0, 15.0
        self.assertEqual(self.kinds(low, high), dict.fromkeys(range(300, 305), "stuck"))
        low, high = self.low.copy(), self.high.copy()
        low[150:160], high[150:160] = low[150:160] * 1.8 + 32, high[150:160] * 1.8 + 32
        self.assertEqual(self.kinds(low, high), dict.fromkeys(range(150, 160), "unit"))
        flag = faults.of_days(self.dates, low, high, self.usual)[0]
        assert flag.tmin is not None
        self.assertAlmostEqual(flag.tmin, float(self.low[150]), places=6)
        low, high = self.low.copy(), self.high.copy()
        low[90], high[90] = high[90], low[90]
        self.assertEqual(self.kinds(low, high), {90: "crossed"})

    def test_a_clock_that_has_shifted(self) -> None:
        start = dt.datetime(2026, 6, 1, tzinfo=dt.UTC)
        times = [start + dt.timedelta(hours=n) for n in range(24 * 12)]
        solar = np.array([(time.hour + 7.1 / 15) % 24 for time in times])
        sound = 18 + 7 * np.cos((solar - 15) * np.pi / 12) + 0.01 * np.arange(len(times))
        self.assertEqual(faults.of_hours(times, sound, 7.1), [])
        shifted = np.concatenate([sound[: 24 * 5], np.roll(sound[24 * 5 :], 6)])
        days = {flag.date.day for flag in faults.of_hours(times, shifted, 7.1) if flag.kind == "clock"}
        self.assertTrue(days >= {7, 8, 9, 10}, days)
        self.assertFalse(days & {1, 2, 3, 4})

    def test_a_sensor_that_does_not_move(self) -> None:
        start = dt.datetime(2026, 6, 1, tzinfo=dt.UTC)
        times = [start + dt.timedelta(hours=n) for n in range(48)]
        temps = 18 + 7 * np.cos((np.arange(48) - 15) * np.pi / 12)
        temps[10:20] = 21.0
        self.assertEqual([flag.kind for flag in faults.of_hours(times, temps, 0.0)], ["stuck"])

    def test_the_warmest_hour_of_a_wave(self) -> None:
        self.assertAlmostEqual(faults.warmest_hour(np.cos((np.arange(24) - 14.5) * np.pi / 12)), 14.5)


class Fills(unittest.TestCase):
    def test_a_neighbour_comes_before_past_years_and_is_set_off(self) -> None:
        days = {START + dt.timedelta(days=n): (5.0 + n % 3, 15.0 + n % 3) for n in range(60) if not 40 <= n < 50}
        neighbour = {START + dt.timedelta(days=n): (7.0 + n % 3, 16.0 + n % 3) for n in range(60) if n != 45}
        past = {((START + dt.timedelta(days=n)).month, (START + dt.timedelta(days=n)).day): (1.0, 2.0) for n in range(60)}
        filled = gaps.fill(days, [past], neighbour)
        self.assertEqual(len(filled.dates), 60)
        self.assertAlmostEqual(float(np.asarray(filled.tmin)[41]), 5.0 + 41 % 3)
        self.assertEqual((filled.kind[41], filled.kind[45]), (gaps.NEIGHBOUR, gaps.NORMALS))
        self.assertEqual(
            gaps.runs(days, START + dt.timedelta(days=62)),
            [
                (START + dt.timedelta(days=40), START + dt.timedelta(days=49)),
                (START + dt.timedelta(days=60), START + dt.timedelta(days=61)),
            ],
        )

    def test_a_stranger_fills_nothing(self) -> None:
        days = {START + dt.timedelta(days=n): (5.0, 15.0) for n in range(20) if not 8 <= n < 14}
        neighbour = {START + dt.timedelta(days=n): (7.0, 16.0) for n in range(20)}
        self.assertEqual(len(gaps.fill(days, [], neighbour).dates), 8)
