"""What a ribbon is drawn with: thinned curves stay true, dashes lie on their curve, textures inside what they fill."""

import re
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Point

from bootmark.drawing import strokes

BASE, HIGH = 112.0, 30.0
shares = st.lists(st.floats(0, 1), min_size=2, max_size=140).map(lambda row: np.clip(np.convolve(row, np.ones(5) / 5, "same"), 0, 1))


def curve(row: np.ndarray) -> np.ndarray:
    return np.column_stack([64 + 6.5 * np.arange(len(row)), BASE - HIGH * row])


def segments(d: str) -> list[np.ndarray]:
    """The polylines of a path of M, l and h pieces."""
    problems = []
    for piece in d.split("M")[1:]:
        numbers = [float(word) for word in re.findall(r"-?[\d.]+", piece)]
        if "h" in piece:
            numbers = [*numbers, 0.0]
        problems.append(np.cumsum(np.reshape(numbers, (-1, 2)), axis=0))
    return problems


class Strokes(unittest.TestCase):
    @given(shares)
    @settings(max_examples=60)
    def test_a_thinned_curve_lies_on_the_reckoned_one_and_leaves_out_only_what_lies_on_the_base(self, row: np.ndarray) -> None:
        points = curve(row)
        drawn = segments(strokes.lines(strokes.humps(points, BASE)))
        for specimen in drawn:
            inside = (points[:, 0] >= specimen[0, 0] - 0.1) & (points[:, 0] <= specimen[-1, 0] + 0.1)
            self.assertLess(LineString(specimen).hausdorff_distance(LineString(points[inside])), 0.5)
        shown = np.zeros(len(points), bool)
        for specimen in drawn:
            shown |= (points[:, 0] >= specimen[0, 0] - 0.1) & (points[:, 0] <= specimen[-1, 0] + 0.1)
        self.assertTrue((points[~shown, 1] >= BASE - strokes.NOTHING).all())

    @given(shares, st.floats(1, 30), st.floats(1, 30))
    @settings(max_examples=60)
    def test_dashes_lie_on_their_curve_and_leave_gaps(self, row: np.ndarray, on: float, off: float) -> None:
        points = curve(row)
        whole = LineString(points)
        ends = -np.inf
        for segment in segments(strokes.dashes(points, BASE, on, off)):
            self.assertLess(max(whole.distance(Point(place)) for place in segment), 0.3)
            self.assertGreater(segment[0, 0], ends + 0.5)
            ends = segment[-1, 0]

    @given(shares, st.sampled_from(("egg", "larva", "nymph", "pupa")))
    @settings(max_examples=60)
    def test_a_texture_stays_inside_what_it_fills(self, row: np.ndarray, stage: str) -> None:
        humps = strokes.humps(curve(row), BASE)
        d = re.search(r' d="([^"]*)"', strokes.texture(stage, strokes.under(humps, BASE)))
        shapes = [stroke.buffer(0.4) for stroke in strokes.under(humps, BASE)]
        for piece_of_line in segments(d.group(1)) if d else []:
            self.assertTrue(
                any(shape.contains(LineString(piece_of_line) if len(piece_of_line) > 1 else Point(piece_of_line[0])) for shape in shapes)
            )

    def test_a_full_lane_is_textured_all_over_and_an_adult_is_plain(self) -> None:
        humps = strokes.humps(curve(np.ones(100)), BASE)
        for stage in ("egg", "larva", "nymph", "pupa"):
            d = re.search(r' d="([^"]*)"', strokes.texture(stage, strokes.under(humps, BASE)))
            assert d
            places = np.array([segment[0] for segment in segments(d.group(1))])
            wide = np.histogram(places[:, 0], np.linspace(64, 64 + 6.5 * 99, 20))[0]
            self.assertTrue((wide > 0).all(), stage)
        self.assertEqual(strokes.texture("adult", strokes.under(humps, BASE)), "")

    def test_nothing_is_drawn_of_nothing(self) -> None:
        points = curve(np.zeros(50))
        self.assertEqual((strokes.humps(points, BASE), strokes.dashes(points, BASE, 5, 5)), ([], ""))
        self.assertEqual(strokes.humps(points[:0], BASE), [])
