"""Today's walk: reasons, order, and what can wait."""

import datetime as dt
import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.field import walk
from bootmark.core.field.walk import BlockState, DueLook, OpenCase, Opening
from bootmark.core.messages import Says, says

TODAY = dt.date(2026, 6, 18)
YESTERDAY = TODAY - dt.timedelta(days=1)


class Reasons(unittest.TestCase):
    def test_a_due_look_outweighs_all_else(self) -> None:
        due = DueLook("x", "mites", TODAY, "fewer mites", True)
        state = BlockState("a", "A", (0, 0), TODAY - dt.timedelta(days=20), {"hot-and-dry": 9}, [due])
        whys = walk.whys(state, TODAY)
        self.assertEqual((whys[0].kind, whys[0].return_id), ("return", "x"))

    def test_a_look_that_is_still_ahead_waits(self) -> None:
        later = DueLook("x", "mites", TODAY + dt.timedelta(days=2), "fewer mites", True)
        walked = walk.plan([BlockState("a", "A", (0, 0), YESTERDAY, due=[later])], TODAY)
        self.assertEqual(walked.stops, ())
        self.assertIn(says(Says.LOOK_COMES, on=dt.date(2026, 6, 20)), walked.rest[0][1])

    def test_heat_quickens_the_rhythm(self) -> None:
        four_days = TODAY - dt.timedelta(days=4)
        self.assertFalse(walk.whys(BlockState("a", "A", (0, 0), four_days), TODAY))
        self.assertTrue(walk.whys(BlockState("a", "A", (0, 0), four_days, {"hot-and-dry": 9}), TODAY))

    def test_windows_and_open_cases(self) -> None:
        opening = Opening("codling moth", TODAY + dt.timedelta(days=3), TODAY + dt.timedelta(days=9))
        case = OpenCase("mites", "Lens on the underside", ("hand lens", "torch"), YESTERDAY)
        walked = walk.plan([BlockState("a", "A", (0, 0), YESTERDAY, cases=[case], openings=[opening])], TODAY)
        self.assertEqual([why.kind for why in walked.stops[0].whys], ["case", "window"])
        self.assertIn("torch", walked.carry)


class Order(unittest.TestCase):
    @settings(max_examples=40)
    @given(st.lists(st.tuples(st.floats(0, 500), st.floats(0, 500)), min_size=1, max_size=9, unique=True))
    def test_every_block_once_and_no_crossing_left(self, points: list[tuple[float, float]]) -> None:
        blocks = [BlockState(str(n), str(n), point, None) for n, point in enumerate(points)]
        walked = walk.plan(blocks, TODAY)
        order = [stop.block for stop in walked.stops]
        self.assertEqual(sorted(order), sorted(block.id for block in blocks))

        def length(way: list[str]) -> float:
            line = [(0.0, 0.0), *(points[int(step)] for step in way)]
            return sum(math.dist(a, b) for a, b in zip(line, line[1:], strict=False))

        for first in range(len(order)):
            for last in range(first + 1, len(order)):
                turned = order[:first] + order[first : last + 1][::-1] + order[last + 1 :]
                self.assertGreaterEqual(length(turned), length(order) - 1e-6)
