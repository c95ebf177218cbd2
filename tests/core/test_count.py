"""Counts and their limits, by law."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.field import count
from bootmark.core.types import Sample

counts = st.lists(st.integers(0, 60), min_size=2, max_size=40)


class Intervals(unittest.TestCase):
    @given(counts)
    def test_the_estimate_lies_within(self, values: list[int]) -> None:
        for measure in ("mean", "proportion"):
            found = count.interval({"counts": values, "measure": measure})
            self.assertLessEqual(found.low, found.estimate + 1e-12)
            self.assertGreaterEqual(found.high, found.estimate - 1e-12)
            self.assertGreaterEqual(found.low, 0)

    @given(counts)
    def test_more_certainty_is_wider(self, values: list[int]) -> None:
        narrow, wide = count.interval({"counts": values}, level=0.8), count.interval({"counts": values}, level=0.99)
        self.assertGreaterEqual(wide.high - wide.low, narrow.high - narrow.low - 1e-9)

    def test_one_unit_tells_no_spread(self) -> None:
        self.assertEqual(count.interval({"counts": [7]}).high, math.inf)

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
