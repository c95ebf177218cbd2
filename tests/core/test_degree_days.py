"""Degree-days against numerical integration of the same curve, and by law."""

import itertools
import unittest
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import fixed_quad, quad

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
    @settings(max_examples=150)
    @given(temperature, temperature, temperature, st.floats(0, 15), st.floats(1, 25), st.sampled_from(dd.CUTOFFS), st.booleans())
    def test_curves(self, cutoff_name: float, two: float, tomorrow: float, lower: float, span: float, cutoff: str, bounded: bool) -> None:
        low, high = min(cutoff_name, two), max(cutoff_name, two)
        upper = lower + span if bounded else None
        for shape, single, double in (("sine", "single_sine", "double_sine"), ("triangle", "single_triangle", "double_triangle")):
            first = integral(shape, low, high, lower, upper, cutoff)
            second = integral(shape, min(tomorrow, high), max(tomorrow, high), lower, upper, cutoff)
            expected_single, expected_double = max(first, 0.0), 0.5 * (max(first, 0.0) + max(second, 0.0))
            self.assertAlmostEqual(float(dd.daily(low, high, lower, upper, method=single, cutoff=cutoff)), expected_single, delta=1e-6)
            heat = float(dd.daily(low, high, lower, upper, method=double, cutoff=cutoff, tmin_next=tomorrow))
            self.assertAlmostEqual(heat, expected_double, delta=1e-6)


def rates(temps: np.ndarray, lower: np.ndarray, upper: np.ndarray, cutoff: str) -> np.ndarray:
    """As rate, for arrays."""
    over = {"horizontal": upper - lower, "intermediate": 2 * upper - lower - temps, "vertical": np.zeros_like(temps)}[cutoff]
    return np.where(temps <= lower, 0.0, np.where(temps <= upper, temps - lower, over))


class TenThousandDays(unittest.TestCase):
    @settings(max_examples=10)
    @given(st.integers(0, 2**32 - 1))
    def test_every_method_within_a_millionth_of_scipys_integral(self, seed: int) -> None:
        """Ten times a thousand random days: Gauss-Legendre over each piece of the curve between its crossings of the thresholds."""
        rng = np.random.default_rng(seed)
        ends = np.sort(rng.uniform(-25, 45, (2, 1000)), axis=0)
        low, high = ends
        lower, span = float(rng.uniform(0, 15)), float(rng.uniform(1, 25))
        thresholds = np.array([lower, lower + span])[:, None]
        share = np.clip((thresholds - low) / np.maximum(high - low, 1e-12), 0, 1)
        for shape in ("sine", "triangle"):
            cuts = np.vstack([np.zeros(1000), np.arccos(1 - 2 * share) / np.pi if shape == "sine" else share, np.ones(1000)])
            for cutoff in dd.CUTOFFS:
                pieces = [self.piece(shape, low, high, one, two, lower, span, cutoff) for one, two in zip(cuts, cuts[1:], strict=False)]
                whole = np.sum([fixed_quad(piece, 0, 1, n=24)[0] for piece in pieces], axis=0)
                heat = dd.daily(low, high, lower, lower + span, method=f"single_{shape}", cutoff=cutoff)
                np.testing.assert_allclose(heat, np.maximum(whole, 0) if cutoff == "intermediate" else whole, atol=1e-6)

    def piece(self, shape: str, low: Any, high: Any, a: Any, b: Any, lower: float, span: float, cutoff: str) -> Any:
        """The rate along one piece of every day's rise, from 0 to 1 within it."""

        def along(u: np.ndarray) -> np.ndarray:
            part = a[:, None] + (b - a)[:, None] * u[None, :]
            if shape == "sine":
                temps = ((low + high) / 2)[:, None] - ((high - low) / 2)[:, None] * np.cos(np.pi * part)
            else:
                temps = low[:, None] + (high - low)[:, None] * part
            return (b - a)[:, None] * rates(temps, np.full_like(temps, lower), np.full_like(temps, lower + span), cutoff)

        return along


class WorkedExamples(unittest.TestCase):
    def test_one_degree_above_for_a_day_is_one_degree_day(self) -> None:
        # The definition as Zalom et al. (1983) print it: 24 hours with the temperature one degree above the threshold.
        self.assertAlmostEqual(float(dd.hourly([11.0] * 24, 10.0)[0]), 1.0)
        for method in dd.METHODS:
            self.assertAlmostEqual(float(dd.daily(11.0, 11.0, 10.0, method=method)), 1.0)

    def test_the_simple_average(self) -> None:
        # Herms (2004), "Using degree-days and plant phenology to predict pest activity", from memory: a day of 70 and 50 F
        # above 50 F has (70 + 50) / 2 - 50 = 10 degree-days F.
        heat = dd.daily(units.celsius(50), units.celsius(70), units.celsius(50), method="average")
        self.assertAlmostEqual(units.difference_fahrenheit(float(heat)), 10.0)

    def test_the_modified_average_of_maize(self) -> None:
        """McMaster and Wilhelm (1997), "Growing degree-days: one equation, two interpretations", method 2, from memory: 86/50 in degrees F."""
        for low, high, heat in ((40, 90, 18.0), (55, 70, 12.5), (60, 95, 23.0), (30, 45, 0.0), (87, 99, 36.0)):
            days = dd.daily(units.celsius(low), units.celsius(high), units.celsius(50), units.celsius(86), method="modified_average")
            self.assertAlmostEqual(float(days) * 1.8, heat, places=9, msg=f"{low} to {high}")

    def test_a_day_whose_mean_is_the_threshold(self) -> None:
        # Baskerville and Emin (1969): with the mean at the threshold, heat is the half range over pi. 60 and 40 F above 50 F: 3.18.
        heat = dd.daily(units.celsius(40), units.celsius(60), units.celsius(50))
        self.assertAlmostEqual(units.difference_fahrenheit(float(heat)), 10 / np.pi)
        # Single triangle, Zalom et al. (1983): (maximum - threshold) squared over twice the range: 100 / 40 = 2.5.
        heat = dd.daily(units.celsius(40), units.celsius(60), units.celsius(50), method="single_triangle")
        self.assertAlmostEqual(units.difference_fahrenheit(float(heat)), 2.5)


class Laws(unittest.TestCase):
    @given(temperature, temperature, st.floats(0, 15), st.floats(1, 25), st.sampled_from(dd.METHODS))
    def test_cutoffs_only_take_away_and_in_order(self, cutoff_name: float, two: float, lower: float, span: float, method: str) -> None:
        low, high = min(cutoff_name, two), max(cutoff_name, two)
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

    def test_a_missing_extreme_is_missing_heat_by_every_method(self) -> None:
        gone = np.nan
        low, high = [10.0, gone, 12.0, gone, 5.0], [25.0, 20.0, gone, gone, 35.0]
        for method, cutoff, upper in itertools.product(dd.METHODS, dd.CUTOFFS, (None, 30.0)):
            heat = dd.daily(low, high, 10.0, upper, method=method, cutoff=cutoff)
            # Half of a day of two halves hangs on the night after it.
            missing = [method.startswith("double"), True, True, True, False]
            self.assertEqual(np.isnan(heat).tolist(), missing, (method, cutoff, upper))

    def test_the_nights_after_must_be_as_many_as_the_days(self) -> None:
        with self.assertRaises(ValueError):
            dd.daily([5.0, 6.0], [20.0, 21.0], 10.0, method="double_sine", tmin_next=[6.0])

    def test_shapes_and_missing_days(self) -> None:
        heat = dd.daily([[5.0, np.nan], [8.0, 9.0]], [[20.0, 22.0], [18.0, 19.0]], 10.0)
        self.assertEqual(heat.shape, (2, 2))
        self.assertTrue(np.isnan(heat[0, 1]))
        self.assertFalse(np.isnan(heat[1]).any())

    def test_a_regions_days_are_each_what_they_are_alone(self) -> None:
        rng = np.random.default_rng(5)
        low = rng.uniform(-5, 20, (7, 5000))
        high = low + rng.uniform(0, 20, low.shape)
        self.assertGreater(low.size, 2 * dd.PIECE)
        for method in dd.METHODS:
            whole = dd.daily(low, high, 10.0, 30.0, method=method, cutoff="vertical")
            self.assertEqual(whole.shape, low.shape)
            rows = [dd.daily(one, two, 10.0, 30.0, method=method, cutoff="vertical") for one, two in zip(low, high, strict=True)]
            np.testing.assert_array_equal(whole, rows)

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
