"""Counts and their limits, by law."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from bootmark.core.field import count
from bootmark.core.types import Sample

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
