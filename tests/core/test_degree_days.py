"""Degree-days against numerical integration of the same curve, and by law."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad

from bootmark.core import units
from bootmark.core.season import degree_days as dd

temperature = st.floats(-25, 45, allow_nan=False)


def rate(temp: float, lower: float, upper: float | None, cutoff: str) -> float:
    """Degrees of development at one moment, straight from the definition of each cut-off."""
    if temp <= lower:
        return 0.0
    if upper is None or temp <= upper:
        return temp - lower
    return {"horizontal": upper - lower, "intermediate": 2 * upper - lower - temp, "vertical": 0.0}[cutoff]


def curve(shape: str, low: float, high: float, part: float) -> float:
    """Temperature at a part (0 to 1) of a rise from the minimum to the maximum."""
    if shape == "sine":
        return (low + high) / 2 - (high - low) / 2 * np.cos(np.pi * part)
    return low + (high - low) * part


def integral(shape: str, low: float, high: float, lower: float, upper: float | None, cutoff: str) -> float:
    """Mean of the rate over a rise, cut at the thresholds so that the quadrature meets no corner."""
    cuts = {0.0, 1.0}
    for threshold in (lower, upper):
        if threshold is not None and low < threshold < high:
            share = (threshold - low) / (high - low)
            cuts.add(float(np.arccos(1 - 2 * share) / np.pi) if shape == "sine" else share)
    edges = sorted(cuts)
    pieces = zip(edges, edges[1:], strict=False)
    return sum(quad(lambda part: rate(curve(shape, low, high, part), lower, upper, cutoff), a, b, epsabs=1e-10)[0] for a, b in pieces)


class AgainstIntegration(unittest.TestCase):
    @settings(max_examples=150, deadline=None)
    @given(temperature, temperature, temperature, st.floats(0, 15), st.floats(1, 25), st.sampled_from(dd.CUTOFFS), st.booleans())
    def test_curves(self, one: float, two: float, tomorrow: float, lower: float, span: float, cutoff: str, bounded: bool) -> None:
        low, high = min(one, two), max(one, two)
        upper = lower + span if bounded else None
        for shape, single, double in (("sine", "single_sine", "double_sine"), ("triangle", "single_triangle", "double_triangle")):
            first = integral(shape, low, high, lower, upper, cutoff)
            second = integral(shape, min(tomorrow, high), max(tomorrow, high), lower, upper, cutoff)
            expected_single, expected_double = max(first, 0.0), 0.5 * (max(first, 0.0) + max(second, 0.0))
            self.assertAlmostEqual(float(dd.daily(low, high, lower, upper, method=single, cutoff=cutoff)), expected_single, delta=1e-6)
            found = float(dd.daily(low, high, lower, upper, method=double, cutoff=cutoff, tmin_next=tomorrow))
            self.assertAlmostEqual(found, expected_double, delta=1e-6)


class Laws(unittest.TestCase):
    @given(temperature, temperature, st.floats(0, 15), st.floats(1, 25), st.sampled_from(dd.METHODS))
    def test_cutoffs_only_take_away_and_in_order(self, one: float, two: float, lower: float, span: float, method: str) -> None:
        low, high = min(one, two), max(one, two)
        free = float(dd.daily(low, high, lower, method=method))
        horizontal, intermediate, vertical = (
            float(dd.daily(low, high, lower, lower + span, method=method, cutoff=name)) for name in dd.CUTOFFS
        )
        self.assertLessEqual(horizontal, free + 1e-9)
        self.assertLessEqual(vertical, horizontal + 1e-9)
        self.assertLessEqual(intermediate, horizontal + 1e-9)
        self.assertGreaterEqual(min(horizontal, intermediate, vertical), -1e-9)

    @given(st.lists(temperature, min_size=24, max_size=24), st.floats(0, 15))
    def test_hourly_is_the_mean_excess(self, hours: list[float], lower: float) -> None:
        expected = sum(max(0.0, hour - lower) for hour in hours) / 24
        self.assertAlmostEqual(float(dd.hourly(hours, lower)[0]), expected, places=9)

    def test_a_still_day_counts_its_level(self) -> None:
        for method in dd.METHODS:
            self.assertEqual(float(dd.daily(15.0, 15.0, 10.0, method=method)), 5.0)
            self.assertEqual(float(dd.daily(5.0, 5.0, 10.0, method=method)), 0.0)

    def test_shapes_and_missing_days(self) -> None:
        found = dd.daily([[5.0, np.nan], [8.0, 9.0]], [[20.0, 22.0], [18.0, 19.0]], 10.0)
        self.assertEqual(found.shape, (2, 2))
        self.assertTrue(np.isnan(found[0, 1]))
        self.assertFalse(np.isnan(found[1]).any())

    def test_the_last_night_of_a_series_repeats_its_own_minimum(self) -> None:
        series = dd.daily([5.0, 9.0], [20.0, 22.0], 10.0, method="double_sine")
        given_next = dd.daily([5.0, 9.0], [20.0, 22.0], 10.0, method="double_sine", tmin_next=[9.0, 9.0])
        np.testing.assert_allclose(series, given_next)


class Refusals(unittest.TestCase):
    def test_what_makes_no_sense(self) -> None:
        for call in (
            lambda: dd.daily(20, 10, 10),
            lambda: dd.daily(10, 20, 10, 10),
            lambda: dd.daily(10, 20, 10, method="guess"),
            lambda: dd.daily(10, 20, 10, 30, cutoff="none"),
            lambda: dd.daily([1, 2], [3], 10),
            lambda: dd.hourly([1.0] * 25, 10),
        ):
            with self.assertRaises(ValueError):
                call()

    def test_fahrenheit_edges(self) -> None:
        self.assertAlmostEqual(units.celsius(88), 31.1, places=1)
        self.assertAlmostEqual(units.difference_celsius(250), 138.9, places=1)
