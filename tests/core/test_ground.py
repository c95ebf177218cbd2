"""Outlines in degrees and the plan in metres: laws, and the geodesic's published example."""

import math
import unittest
from typing import Any

from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import Polygon

from bootmark.core.ground import outline, plane
from bootmark.core.ground.outline import FaultKind
from bootmark.core.ground.plane import Origin

HERE = Origin(46.2, 7.1)
places = st.builds(Origin, st.floats(-70, 70), st.floats(-179, 179))
spots = st.tuples(st.floats(-20_000, 20_000), st.floats(-20_000, 20_000))


def drawn(*points: tuple[float, float], origin: Origin = HERE) -> list[list[float]]:
    return [list(corner) for corner in origin.to_degrees(points)]


class Plane(unittest.TestCase):
    def test_the_published_geodesic(self) -> None:
        # Flinders Peak to Buninyong, 54,972.271 m: the worked example of Vincenty's formula (Geoscience Australia), from memory.
        flinders = (144 + 25 / 60 + 29.52440 / 3600, -(37 + 57 / 60 + 3.72030 / 3600))
        buninyong = (143 + 55 / 60 + 35.38390 / 3600, -(37 + 39 / 60 + 10.15610 / 3600))
        self.assertAlmostEqual(plane.distance(flinders, buninyong), 54_972.271, places=2)

    @given(places, spots)
    def test_a_spot_of_the_plan_comes_back_and_lies_as_far_away_as_it_is_drawn(self, origin: Origin, spot: tuple[float, float]) -> None:
        [corner] = origin.to_degrees([spot])
        [(x, y)] = origin.to_plan([corner])
        self.assertAlmostEqual(x, spot[0], places=2)
        self.assertAlmostEqual(y, spot[1], places=2)
        self.assertAlmostEqual(plane.distance((origin.longitude, origin.latitude), corner), math.hypot(*spot), delta=0.01)

    @given(places, spots, st.floats(1, 900), st.floats(1, 900))
    def test_areas_are_those_of_the_plan(self, origin: Origin, spot: tuple[float, float], wide: float, high: float) -> None:
        x, y = spot
        corners = drawn((x, y), (x + wide, y), (x + wide, y + high), (x, y + high), origin=origin)
        # The projection stretches areas by a few parts in a million at twenty kilometres.
        self.assertAlmostEqual(plane.area(corners) / (wide * high / 10_000), 1.0, places=4)

    def test_north_is_up_and_east_is_right(self) -> None:
        [(x, y)] = HERE.to_plan([(7.101, 46.201)])
        self.assertTrue(x > 0 > y)


class Faults(unittest.TestCase):
    def test_each_fault_has_its_kind(self) -> None:
        cases: tuple[tuple[Any, FaultKind], ...] = (
            (None, FaultKind.CORNERS),
            (drawn((0, 0), (9, 0)), FaultKind.CORNERS),
            (drawn(*((math.cos(n), math.sin(n)) for n in range(501))), FaultKind.MANY),
            ([[7, 46], [7, math.inf], [8, 46]], FaultKind.NUMBER),
            ([[2_600_000, 1_200_000]] * 3, FaultKind.METRES),
            ([[7.1, 89.0], [97.1, 89.0], [-172.9, 89.0]], FaultKind.POLE),
            ([[179.99, 1.0], [-179.99, 1.0], [-179.99, 1.01]], FaultKind.DATELINE),
            ([[7.1, 46.2]] * 4, FaultKind.BARE),
            (drawn((0, 0), (90, 90), (90, 0), (0, 90)), FaultKind.CROSSES),
            (drawn((0, 0), (400, 0), (400, 0.4), (0, 0.4)), FaultKind.SLIVER),
            (drawn((0, 0), (20_000, 0), (20_000, 20_000), (0, 20_000)), FaultKind.HUGE),
        )
        for corners, kind in cases:
            fault = outline.fault(corners)
            self.assertEqual(fault and fault.kind, kind)
        self.assertIsNone(outline.fault(drawn((0, 0), (400, 0), (400, 0.6), (0, 0.6))))

    def test_where_it_crosses_is_told(self) -> None:
        fault = outline.fault(drawn((0, 0), (90, 90), (90, 0), (0, 90)))
        assert fault and fault.at
        [(x, y)] = HERE.to_plan([fault.at])
        self.assertAlmostEqual(x, 45, places=1)
        self.assertAlmostEqual(y, 45, places=1)

    def test_a_crossing_among_a_hundred_thousand_sides_is_told(self) -> None:
        # A spring round a circle: each loop crosses the one before it.
        turns = [n / 50_000 * math.tau for n in range(50_000)]
        spring = [(500 * math.cos(t) + 40 * math.cos(900 * t), 500 * math.sin(t) + 40 * math.sin(900 * t)) for t in turns]
        fault = outline.fault(drawn(*spring), most=100_000)
        self.assertEqual(fault and fault.kind, FaultKind.CROSSES)

    @given(st.lists(st.tuples(st.integers(-999, 999), st.integers(-999, 999)), min_size=3, max_size=9, unique=True))
    def test_what_is_taken_encloses_ground_and_does_not_cross(self, corners: list[tuple[int, int]]) -> None:
        fault = outline.fault(drawn(*corners))
        if fault is None:
            self.assertTrue(Polygon(corners).is_valid)
        elif fault.kind == FaultKind.CROSSES:
            self.assertFalse(Polygon(corners).is_valid)
        else:
            self.assertIn(fault.kind, (FaultKind.BARE, FaultKind.SLIVER))
            self.assertTrue(Polygon(corners).buffer(-0.3).is_empty)

    @given(st.integers(501, 3000), st.floats(50, 3000))
    def test_an_outline_of_many_corners_is_drawn_with_fewer_and_says_how_far_it_is_off(self, count: int, radius: float) -> None:
        circle = [(radius * math.cos(math.tau * n / count), radius * math.sin(math.tau * n / count)) for n in range(count)]
        simpler, off = outline.simpler(HERE.to_degrees(circle))
        self.assertLessEqual(len(simpler), outline.MOST_CORNERS)
        assume(off < radius / 4)
        before, after = Polygon(circle), Polygon(HERE.to_plan(simpler))
        self.assertLess(before.hausdorff_distance(after), off + 0.02)
        self.assertIsNone(outline.fault(simpler))
