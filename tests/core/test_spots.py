"""Hot spot or everywhere: what is told, how large, and in which rows."""

import random
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.field.count import walk_points
from bootmark.core.field.spots import spot

FIELD = [(0.0, 0.0), (100.0, 0.0), (100.0, 100.0), (0.0, 100.0)]
"""A hectare."""
GRID = [(10.0 + 20 * (n % 5), 10.0 + 20 * (n // 5)) for n in range(25)]


class Spots(unittest.TestCase):
    def test_one_corner_is_a_spot_with_its_margin(self) -> None:
        counts = [40 if x < 40 and y < 40 else 0 for x, y in GRID]
        told = spot(FIELD, GRID, counts, 5.0, 1.0, laid=25, direction=0.0, spacing=2.0)
        assert told
        # By hand: four hot points of 20 m squares and the four whose middle lies within 24 m of one; each stands for 0.04 ha.
        self.assertEqual((told.points, told.of), (8, 25))
        self.assertAlmostEqual(told.area, 8 * 0.04)
        # The spot reaches to x = 50 and half a margin of 12 m beyond: rows of two metres from the west edge.
        self.assertEqual(told.rows, (1, 32))

    def test_everywhere_or_nowhere_is_no_spot(self) -> None:
        for counts in ([9] * 25, [0] * 25, [30 if n % 2 else 0 for n in range(25)], [40] + [0] * 8):
            self.assertIsNone(spot(FIELD, GRID[: len(counts)], counts, 5.0, 1.0, laid=25))

    def test_a_count_that_ended_early_speaks_for_its_part(self) -> None:
        counts = [0] * 10 + [40, 50]
        whole, half = (spot(FIELD, GRID[:12], counts, 5.0, 1.0, laid=laid) for laid in (12, 24))
        assert whole and half
        self.assertLess(half.area, whole.area)

    def test_counts_and_points_go_together(self) -> None:
        with self.assertRaises(ValueError):
            spot(FIELD, GRID, [1, 2], 5.0, 1.0, laid=25)

    @settings(max_examples=30)
    @given(st.integers(0, 10_000), st.integers(10, 40))
    def test_a_spot_is_never_larger_than_its_block(self, seed: int, n: int) -> None:
        rng = random.Random(seed)
        counts = [rng.choice((0, 0, 0, 0, rng.randint(0, 80))) for _ in range(n)]
        told = spot(FIELD, walk_points(FIELD, n), counts, 5.0, 1.0, laid=n, direction=90.0, spacing=1.5)
        if told:
            self.assertTrue(0 < told.area <= 1.0 and told.rows)
            first, last = told.rows or (0, 0)
            self.assertTrue(1 <= first <= last <= 67)
