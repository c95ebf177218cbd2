"""Counts and their limits, by law."""

import math
import random
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from bootmark.core.field import count
from bootmark.core.meanings import LimitMethod, Measure
from bootmark.core.types import Sample, Taylor

counts = st.lists(st.integers(0, 60), min_size=2, max_size=40)


class Intervals(unittest.TestCase):
    @given(counts)
    def test_the_estimate_lies_within(self, values: list[int]) -> None:
        for measure in ("mean", "proportion"):
            limits = count.interval({"counts": values, "measure": measure})
            self.assertLessEqual(limits.low, limits.estimate + 1e-12)
            self.assertGreaterEqual(limits.high, limits.estimate - 1e-12)
            self.assertGreaterEqual(limits.low, 0)

    @given(counts)
    def test_more_certainty_is_wider(self, values: list[int]) -> None:
        narrow, wide = count.interval({"counts": values}, level=0.8), count.interval({"counts": values}, level=0.99)
        self.assertGreaterEqual(wide.high - wide.low, narrow.high - narrow.low - 1e-9)

    def test_one_unit_tells_no_spread(self) -> None:
        self.assertEqual(count.interval({"counts": [7]}).high, math.inf)

    @given(st.floats(0.5, 0.999), st.integers(1, 400))
    def test_students_t_is_that_of_a_reference_library(self, level: float, degrees: int) -> None:
        """Against scipy.stats.t."""
        self.assertAlmostEqual(count.student_t(level, degrees) / float(stats.t.ppf(0.5 + level / 2, degrees)), 1, places=9)

    @given(st.integers(1, 300), st.floats(0, 1), st.floats(0.5, 0.999))
    def test_wilsons_limits_are_those_of_a_reference_library(self, units: int, share: float, level: float) -> None:
        """Against scipy.stats.binomtest."""
        hits = round(units * share)
        reference = stats.binomtest(hits, units).proportion_ci(level, method="wilson")
        low, high = count.wilson(hits, units, level)
        self.assertAlmostEqual(low, float(reference.low), places=9)
        self.assertAlmostEqual(high, float(reference.high), places=9)

    @given(counts)
    def test_all_that_there_are_have_no_limits(self, values: list[int]) -> None:
        for measure in ("mean", "proportion"):
            truth = count.interval({"counts": values, "measure": measure, "chosen": "all"})
            self.assertEqual((truth.low, truth.high, truth.method), (truth.estimate, truth.estimate, LimitMethod.ALL_COUNTED))
            self.assertEqual(truth.estimate, count.interval({"counts": values, "measure": measure}).estimate)

    def test_nothing_counted(self) -> None:
        with self.assertRaises(ValueError):
            count.interval({"counts": []})

    def test_bad_counts(self) -> None:
        for raw in ({"counts": [1, -1]}, {"counts": [1, 2], "enemies": [1]}):
            with self.assertRaises(ValueError):
                Sample.of(raw)


class Enemies(unittest.TestCase):
    def test_ratio(self) -> None:
        self.assertEqual(count.enemy_ratio({"counts": [4, 6], "enemies": [1, 0]}), 0.1)
        self.assertIsNone(count.enemy_ratio({"counts": [4, 6]}))
        self.assertEqual(count.enemy_ratio({"counts": [0, 0], "enemies": [1, 0]}), math.inf)

    def test_limits_of_a_ratio_by_hand(self) -> None:
        """Three units of 2, 4 and 3 pests with an enemy each: 1/3; rests 1/3, -1/3, 0; error sqrt(2/9/2/3) / 3, t of two degrees."""
        half = float(stats.t.ppf(0.95, 2)) * math.sqrt(1 / 27) / 3
        low, high = count.ratio_limits({"counts": [2, 4, 3], "enemies": [1, 1, 1]})
        self.assertAlmostEqual(low, 1 / 3 - half, places=9)
        self.assertAlmostEqual(high, 1 / 3 + half, places=9)
        self.assertEqual(count.ratio_limits({"counts": [0, 0], "enemies": [1, 0]}), (math.inf, math.inf))
        self.assertEqual(count.ratio_limits({"counts": [0, 0], "enemies": [0, 0]}), (0.0, 0.0))
        self.assertEqual(len(count.ratio_limits({"counts": [2, 4], "enemies": [1, 1]})), 2)
        for bad in ({"counts": [2], "enemies": [1]}, {"counts": [2, 4]}):
            with self.assertRaises(ValueError):
                count.ratio_limits(bad)


class Plans(unittest.TestCase):
    def test_tallies_against_a_plan(self) -> None:
        plan = {"threshold": 5, "measure": "mean", "units": 20, "taylor": (3.3, 1.5)}
        for tallies, kind in (([60] * 9, "keep counting"), ([60] * 10, "above"), ([0] * 10, "below"), ([5] * 40, "planned end")):
            stop = count.stopping(plan, tallies)
            self.assertEqual(stop.kind, kind)
            self.assertEqual(len(stop.low), max(stop.units, len(tallies)))
        # A smaller plan may stop sooner, a surer one later.
        self.assertEqual(count.stopping(plan | {"smallest": 4}, [60] * 4).kind, "above")
        tenths = [count.stopping({"threshold": 0.1, "measure": "proportion", "error": error}, [0] * 30).kind for error in (0.2, 0.0001)]
        self.assertEqual(tenths, ["below", "keep counting"])
        for wrong in ({"threshold": 0}, {"threshold": 5, "error": 0.6}, {"threshold": 2, "measure": "proportion"}):
            with self.assertRaises(ValueError):
                count.stopping(wrong, [1] * 12)

    def test_units_for_a_precision(self) -> None:
        """By hand: a m^(b-2) / D^2 = 3 x 4^-0.5 / 0.0625 = 24, and (1 - p) / (p D^2) = 0.8 / 0.0125 = 64."""
        self.assertEqual(count.sample_size(4.0, 0.25, taylor=Taylor(3.0, 1.5)), 24)
        self.assertEqual(count.sample_size(0.2, 0.25, measure=Measure.PROPORTION), 64)
        for average, precision in ((0, 0.25), (4, 0), (-1, 0.2)):
            with self.assertRaises(ValueError):
                count.sample_size(average, precision)

    def test_a_law_from_samples(self) -> None:
        drawn = random.Random(3)
        samples = [
            [drawn.choice((0, 0, 0, round(4 * level))) for _ in range(400)] for level in (0.5, 1, 2, 3, 5, 8, 12, 16, 20, 25, 30, 40)
        ]
        law = count.taylor_fit(samples)
        assert law
        # One leaf in four bears four times the level: the variance is three times the mean squared.
        self.assertAlmostEqual(law.b, 2.0, delta=0.1)
        self.assertAlmostEqual(law.a, 3.0, delta=0.5)
        self.assertIsNone(count.taylor_fit(samples[:5]))


class Heaps(unittest.TestCase):
    def test_animals_strewn_at_random_are_a_hot_spot_one_walk_in_twenty_at_most(self) -> None:
        drawn = np.random.default_rng(11)
        for average in (0.5, 3.0, 20.0):
            told = sum(count.dispersion(drawn.poisson(average, 25).tolist()).heaped for _ in range(600))
            self.assertLessEqual(told / 600, 0.05, average)

    def test_a_heap_is_told_and_never_on_nine_points(self) -> None:
        self.assertTrue(count.dispersion([40, 30, *[0] * 18]).heaped)
        self.assertTrue(count.dispersion([40, 30, *[0] * 8]).heaped, "ten points are enough")
        self.assertFalse(count.dispersion([40, 30, *[0] * 7]).heaped)
        self.assertFalse(count.dispersion([1, *[0] * 19]).heaped, "one animal lies nowhere in heaps")
        with self.assertRaises(ValueError):
            count.dispersion([4])

    @given(st.lists(st.integers(0, 40), min_size=3, max_size=40))
    def test_the_index_is_that_of_the_chi_square_of_a_reference_library(self, seen: list[int]) -> None:
        """Against scipy.stats.chisquare: chi2 = I (N - 1) + n - N."""
        if sum(seen) < 2:
            self.assertEqual(count.dispersion(seen).index, 1.0)
            return
        chi = float(stats.chisquare(seen).statistic)
        self.assertAlmostEqual(count.dispersion(seen).index, (chi - len(seen) + sum(seen)) / (sum(seen) - 1), places=7)
        self.assertAlmostEqual(count.dispersion(seen).chance, float(stats.chi2.sf(chi, len(seen) - 1)), delta=0.03)
