"""Cold air near the ground, wind at another height, and hours too far ahead to be sure of."""

import datetime as dt
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.messages import Says
from bootmark.core.season import weather, windows
from tests.core.test_season import hours

SPRAY = windows.limits_for("spray")


def inversion(hourly: windows.Hourly, limits: windows.Constraints = SPRAY) -> list[str]:
    return [str(cell.state) for cell in windows.hours(hourly, limits).rows["inversion"]]


class Inversion(unittest.TestCase):
    """18 June at 46 N, 7 E: up at about 3:40, down at about 19:25 UTC."""

    def test_dawn_and_dusk_in_little_wind_refuse_and_midday_does_not(self) -> None:
        states = inversion(hours(24, wind=0.9))
        self.assertEqual([states[hour] for hour in (2, 4, 5, 7, 12, 17, 19, 22)], ["no", "no", "no", "ok", "ok", "ok", "no", "no"])
        self.assertEqual(set(inversion(hours(24, wind=1.5))), {"ok"})

    def test_cloud_keeps_the_ground_warm_and_an_unknown_sky_is_taken_to_be_clear(self) -> None:
        still = hours(24, wind=0.9)
        self.assertEqual(inversion(replace(still, cloud=[1.0] * 24))[22], "ok")
        self.assertEqual(inversion(replace(still, cloud=[0.1] * 24))[22], "no")
        self.assertEqual(inversion(replace(still, cloud=[float("nan")] * 24))[22], "no")
        self.assertEqual(inversion(replace(still, wind=[float("nan")] * 24))[22], "no")

    def test_two_heights_outrank_the_rule(self) -> None:
        calm = hours(24, wind=0.9)
        self.assertEqual(set(inversion(replace(calm, temp_above=[17.0] * 24))), {"ok"})
        warmer = windows.hours(replace(hours(24, wind=3.0), temp_above=[19.5] * 24), SPRAY).rows["inversion"]
        self.assertEqual({(str(cell.state), cell.reasons[0].kind) for cell in warmer}, {("no", Says.INVERSION_MEASURED)})

    def test_no_wind_is_never_good_for_spraying_and_a_closed_house_has_none(self) -> None:
        for hour in windows.hours(hours(24, wind=0.0), SPRAY).overall:
            self.assertEqual(hour.state, "no")
        self.assertNotIn("inversion", windows.hours(hours(24), windows.under_cover(SPRAY, "greenhouse")).rows)
        self.assertIn("inversion", windows.hours(hours(24), windows.under_cover(SPRAY, "tunnel")).rows)
        self.assertNotIn("inversion", windows.hours(hours(24), windows.limits_for("release")).rows)


class Height(unittest.TestCase):
    def test_as_printed(self) -> None:
        # Allen et al. (1998), FAO Irrigation and Drainage Paper 56, table 2.9: factors of equation 47 by height.
        for height, factor in ((1.0, 1.178), (2.0, 1.0), (3.0, 0.921), (5.0, 0.838), (10.0, 0.748)):
            self.assertAlmostEqual(float(weather.wind_at(1.0, height)), factor, delta=0.003)
        with self.assertRaises(ValueError):
            weather.wind_at(3.0, 0.1)

    def test_limits_hold_at_two_metres(self) -> None:
        # Six at ten metres are four and a half at two: with care, where six at two would refuse.
        high = windows.hours(replace(hours(24, wind=6.0), wind_height=10.0), SPRAY).rows["wind"]
        self.assertEqual({str(cell.state) for cell in high}, {"caution"})
        self.assertEqual({str(cell.state) for cell in windows.hours(hours(24, wind=6.0), SPRAY).rows["wind"]}, {"no"})


class FarAhead(unittest.TestCase):
    def test_beyond_the_third_day_no_hour_is_right_and_each_tells_its_chance(self) -> None:
        table = windows.hours(hours(110), SPRAY)
        near, far = table.overall[:72], table.overall[72:]
        self.assertIn("ok", {str(cell.state) for cell in near})
        self.assertNotIn("ok", {str(cell.state) for cell in far})
        told = [float(str(cell.reasons[0].facts["chance"])) for cell in far if cell.reasons[0].kind == Says.WILL_DO]
        self.assertTrue(told and all(0 < chance < 1 for chance in told))
        self.assertFalse(any(start >= table.times[72] for start, _ in table.spans(1)))

    @settings(max_examples=20)
    @given(st.floats(1.5, 3.5))
    def test_what_stands_near_a_limit_is_less_likely(self, wind: float) -> None:
        def chance(value: float) -> float:
            cells = windows.hours(hours(110, wind=value), SPRAY).overall
            return float(str(next(cell.reasons[0].facts["chance"] for cell in cells[72:] if cell.reasons[0].kind == Says.WILL_DO)))

        middle = 3.15
        self.assertGreaterEqual(chance(middle) + 1e-9, chance(wind))
        self.assertTrue(np.isfinite(chance(wind)))

    def test_missing_hours_are_never_right_however_far(self) -> None:
        gone = hours(110, wind=float("nan"))
        self.assertEqual({str(cell.state) for cell in windows.hours(gone, SPRAY).overall}, {"no"})
        self.assertEqual(gone.times[0].tzinfo, dt.UTC)
