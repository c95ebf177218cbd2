"""Wet bulb against the PsychroLib library; the shape of a day against Linvill's own terms."""

import datetime as dt
import itertools
import math
import unittest

import numpy as np
import psychrolib
from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.season import weather

psychrolib.SetUnitSystem(psychrolib.SI)
ZONE = dt.timezone(dt.timedelta(hours=1))


class WetBulb(unittest.TestCase):
    @settings(max_examples=120)
    @given(st.floats(-15, 45), st.floats(5, 100), st.sampled_from([101325.0, 95000.0]))
    def test_agrees_with_a_reference_library(self, temp: float, rh: float, pressure: float) -> None:
        expected = psychrolib.GetTWetBulbFromRelHum(temp, rh / 100, pressure)
        if abs(expected) <= 0.8:
            # Close to freezing a wet bulb and an iced one both solve the equation: ours must solve the library's own.
            humidity_ratio = psychrolib.GetHumRatioFromTWetBulb(temp, float(weather.wet_bulb(temp, rh, pressure)), pressure)
            self.assertAlmostEqual(humidity_ratio, psychrolib.GetHumRatioFromRelHum(temp, rh / 100, pressure), delta=5e-6)
            return
        self.assertAlmostEqual(float(weather.wet_bulb(temp, rh, pressure)), expected, delta=0.02)

    def test_saturated_air_dries_nothing(self) -> None:
        np.testing.assert_allclose(weather.delta_t([5.0, 20.0, 35.0], [100.0, 100.0, 100.0]), 0, atol=1e-6)
        np.testing.assert_allclose(weather.vpd([20.0], [100.0]), 0, atol=1e-12)

    def test_vapour_pressure_deficit_at_25_degrees(self) -> None:
        # Saturation at 25 C is 3.169 kPa (ASHRAE Fundamentals 2017, chapter 1, table 3).
        self.assertAlmostEqual(float(weather.vpd(25.0, 50.0)), 3.169 / 2, delta=0.002)

    def test_impossible_humidity(self) -> None:
        with self.assertRaises(ValueError):
            weather.delta_t(20.0, 101.0)


class Hours(unittest.TestCase):
    dates = tuple(dt.date(2026, 6, 15) + dt.timedelta(days=n) for n in range(4))
    low, high = (9.0, 11.0, 12.0, 8.0), (24.0, 27.0, 25.0, 20.0)

    def hours(self) -> np.ndarray:
        return weather.hourly_from_daily(self.dates, self.low, self.high, 46.2, 7.1, ZONE).reshape(4, 24)

    def test_each_day_reaches_its_extremes_and_keeps_within_them(self) -> None:
        hour_table = self.hours()
        for day in range(4):
            self.assertAlmostEqual(hour_table[day].max(), self.high[day], delta=0.3)
            self.assertLess(hour_table[day].min() - self.low[day], 1.2)
            self.assertGreaterEqual(hour_table[day].min(), min(self.low) - 1e-9)

    def test_the_warmest_hour_follows_linvill(self) -> None:
        # The sine peaks at (day length + 4) / 2 hours after sunrise (Linvill 1990, equation 1).
        for day, date in enumerate(self.dates):
            rise, fall = weather.sun_times(date, 46.2, 7.1)
            length = (fall - rise).total_seconds() / 3600
            peak = (rise.astimezone(ZONE) - dt.datetime.combine(date, dt.time(0), ZONE)).total_seconds() / 3600 + (length + 4) / 2
            self.assertLessEqual(abs(int(self.hours()[day].argmax()) - peak), 1.0)

    def test_nights_fall_steadily(self) -> None:
        evening = self.hours()[1][21:]
        self.assertTrue((np.diff(evening) < 0).all())

    def almanac(self, noon: dt.datetime, latitude: float) -> float:
        """Hours of day by the low-precision formulas of the Astronomical Almanac (page C24), declination at that noon."""
        days = (noon - dt.datetime(2000, 1, 1, 12, tzinfo=dt.UTC)).total_seconds() / 86400
        anomaly, mean = math.radians(357.528 + 0.9856003 * days), 280.460 + 0.9856474 * days
        ecliptic = math.radians(mean + 1.915 * math.sin(anomaly) + 0.020 * math.sin(2 * anomaly))
        declination = math.asin(math.sin(math.radians(23.439 - 4e-7 * days)) * math.sin(ecliptic))
        place = math.radians(latitude)
        cosine = (math.sin(math.radians(-0.833)) - math.sin(place) * math.sin(declination)) / (math.cos(place) * math.cos(declination))
        return 24 / math.pi * math.acos(min(1.0, max(-1.0, cosine)))

    def test_set_follows_rise_everywhere_and_days_are_as_long_as_the_almanac_has_them(self) -> None:
        dates = (dt.date(2026, 3, 20), dt.date(2026, 6, 21), dt.date(2026, 9, 23), dt.date(2026, 12, 21))
        for longitude, latitude, date in itertools.product(range(-180, 180, 15), (-66, -45, -30, -15, 0, 15, 30, 45, 60), dates):
            rise, fall = weather.sun_times(date, latitude, longitude)
            noon = dt.datetime.combine(date, dt.time(12), dt.UTC) - dt.timedelta(hours=longitude / 15)
            self.assertTrue(rise < noon < fall, (longitude, latitude, date))
            hours = (fall - rise).total_seconds() / 3600
            # Near the circle the sun grazes the horizon: a minute of its height is many of the clock.
            within = 2 / 60 if abs(latitude) < 66 else 0.5
            self.assertAlmostEqual(hours, self.almanac(noon, latitude), delta=within, msg=(longitude, latitude, date))

    def test_a_summer_s_day_far_from_greenwich_is_long(self) -> None:
        for latitude, longitude in ((39.7, -105.0), (42.3, -84.5), (40.8, 140.7), (-36.8, 174.8)):
            rise, fall = weather.sun_times(dt.date(2026, 6, 21), latitude, longitude)
            self.assertTrue(9 < (fall - rise).total_seconds() / 3600 < 16, (latitude, longitude))

    def test_polar_days_and_nights(self) -> None:
        rise, fall = weather.sun_times(dt.date(2026, 6, 21), 78.0, 15.0)
        self.assertEqual((fall - rise).total_seconds(), 24 * 3600)
        rise, fall = weather.sun_times(dt.date(2026, 12, 21), 78.0, 15.0)
        self.assertEqual(rise, fall)

    def test_lengths_must_agree(self) -> None:
        with self.assertRaises(ValueError):
            weather.hourly_from_daily(self.dates, self.low[:2], self.high, 46.2, 7.1, ZONE)
