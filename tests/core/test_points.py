"""Points of a count: as many as asked, all inside, the same again, and spread over the block."""

import math
import random
import unittest

from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, Polygon

from bootmark.core.field import count, points
from bootmark.core.meanings import Pattern


def star(corners: int, seed: int) -> list[tuple[float, float]]:
    """An outline without crossings: corners by their bearings, at random distances."""
    chance = random.Random(seed)
    bearings = sorted(chance.uniform(0, 2 * math.pi) for _ in range(corners))
    far = [chance.uniform(30, 200) for _ in range(corners)]
    return [(500 + r * math.cos(a), 300 + r * math.sin(a)) for a, r in zip(bearings, far, strict=True)]


class Points(unittest.TestCase):
    @given(st.integers(3, 12), st.integers(0, 10_000), st.integers(1, 60), st.sampled_from(list(Pattern)))
    def test_as_many_as_asked_inside_and_the_same_again(self, corners: int, seed: int, n: int, pattern: Pattern) -> None:
        outline = star(corners, seed)
        shape = Polygon(outline)
        if shape.area < 500 or not shape.is_valid:
            return
        walked = points.walk_points(outline, n, pattern, seed=seed)
        self.assertEqual(len(walked), n)
        self.assertTrue(all(shape.buffer(1e-6).covers(Point(point)) for point in walked))
        self.assertEqual(walked, points.walk_points(outline, n, pattern, seed=seed))

    def test_they_are_spread_over_the_whole_block(self) -> None:
        field = [(0.0, 0.0), (300.0, 0.0), (300.0, 100.0), (0.0, 100.0)]
        for pattern in (Pattern.ZIGZAG, Pattern.W, Pattern.ROWS, Pattern.EDGE):
            walked = points.walk_points(field, 24, pattern)
            for west in (0, 100, 200):
                share = sum(west <= x < west + 100 for x, _ in walked) / 24
                self.assertGreater(share, 0.2, (pattern, west))
        edge = points.walk_points(field, 20, Pattern.EDGE)
        near = sum(min(x, 300 - x, y, 100 - y) < 20 for x, y in edge)
        self.assertGreaterEqual(near, 10)

    def test_rows_run_as_they_are_told(self) -> None:
        walked = points.walk_points([(0, 0), (100, 0), (100, 100), (0, 100)], 25, Pattern.ROWS, direction=90)
        self.assertEqual(len({round(x) for x, _ in walked}), 5)

    def test_what_encloses_nothing_is_refused(self) -> None:
        for outline, n in (([(0, 0), (1, 1)], 5), ([(0, 0), (1, 1), (2, 2)], 5), ([(0, 0), (9, 0), (9, 9)], 0)):
            with self.assertRaises(ValueError):
                count.walk_points(outline, n)
