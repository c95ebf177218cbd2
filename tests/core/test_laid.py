"""A picture laid by its spots: the spots come to lie where they are, and what would turn it into nonsense is refused."""

import math
import unittest

from hypothesis import assume, given
from hypothesis import strategies as st

from bootmark.core.ground import laid
from bootmark.core.ground.laid import LaidFault, Matrix

pixels = st.tuples(st.floats(0, 1600), st.floats(0, 1200))


def brought(lies: Matrix, spot: tuple[float, float]) -> tuple[float, float]:
    a, b, c, d, e, f = lies
    return (a * spot[0] + c * spot[1] + e, b * spot[0] + d * spot[1] + f)


class Laid(unittest.TestCase):
    @given(st.lists(pixels, min_size=2, max_size=3), st.floats(0.1, 3), st.floats(-math.pi, math.pi), st.floats(-900, 900))
    def test_a_picture_from_above_comes_to_lie_where_it_was_taken(
        self, marks: list[tuple[float, float]], metres: float, turn: float, east: float
    ) -> None:
        assume(all(math.dist(marks[a], marks[b]) > 200 for a in range(len(marks)) for b in range(a)))
        cos, sin = metres * math.cos(turn), metres * math.sin(turn)
        truth: Matrix = (cos, sin, -sin, cos, east, 40.0)
        lies = laid.matrix(marks, [brought(truth, mark) for mark in marks], 1600)
        assume(lies != LaidFault.LINE)
        assert not isinstance(lies, LaidFault)
        for number, right in zip(lies, truth, strict=True):
            self.assertAlmostEqual(number, right, delta=1e-4 * (1 + abs(right)))

    def test_each_fault_has_its_kind(self) -> None:
        corners = [(0.0, 0.0), (1000.0, 0.0), (0.0, 800.0)]
        for marks, points, fault in (
            (corners[:1], corners[:1], LaidFault.COUNT),
            (corners, corners[:2], LaidFault.COUNT),
            ([(0, 0), (20, 0)], [(0, 0), (90, 0)], LaidFault.NEAR),
            ([(0, 0), (900, 0)], [(0, 0), (3, 0)], LaidFault.NEAR),
            ([(0, 0), (500, 0), (1000, 4)], corners, LaidFault.LINE),
            (corners, [(0, 0), (500, 0), (0, -400)], LaidFault.MIRRORED),
            (corners, [(0, 0), (500, 0), (0, 80)], LaidFault.STRETCHED),
        ):
            self.assertEqual(laid.matrix(marks, points, 1000), fault, (marks, points))
        self.assertNotIsInstance(laid.matrix(corners, [(0, 0), (500, 0), (0, 110)], 1000), LaidFault)
