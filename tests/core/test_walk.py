"""Today's walk: reasons, order, and what can wait."""

import datetime as dt
import math
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.field import walk, worth
from bootmark.core.field.walk import Wish
from bootmark.core.field.worth import BlockState, DueLook, OpenCase, Opening
from bootmark.core.messages import Says, says

TODAY = dt.date(2026, 6, 18)
YESTERDAY = TODAY - dt.timedelta(days=1)


class Reasons(unittest.TestCase):
    def test_a_due_look_outweighs_all_else(self) -> None:
        due = DueLook("x", "mites", TODAY, "fewer mites", True)
        state = BlockState("a", "A", (0, 0), TODAY - dt.timedelta(days=20), {"hot-and-dry": 9}, [due])
        whys = worth.whys(state, TODAY)
        self.assertEqual((whys[0].kind, whys[0].return_id), ("return", "x"))

    def test_a_look_that_is_still_ahead_waits(self) -> None:
        later = DueLook("x", "mites", TODAY + dt.timedelta(days=2), "fewer mites", True)
        walked = walk.plan([BlockState("a", "A", (0, 0), YESTERDAY, due=[later])], TODAY)
        self.assertEqual(walked.stops, ())
        self.assertIn(says(Says.LOOK_COMES, on=dt.date(2026, 6, 20)), walked.rest[0][1])

    def test_heat_quickens_the_rhythm(self) -> None:
        four_days = TODAY - dt.timedelta(days=4)
        self.assertFalse(worth.whys(BlockState("a", "A", (0, 0), four_days), TODAY))
        self.assertTrue(worth.whys(BlockState("a", "A", (0, 0), four_days, {"hot-and-dry": 9}), TODAY))

    def test_windows_and_open_cases(self) -> None:
        opening = Opening("codling moth", TODAY + dt.timedelta(days=3), TODAY + dt.timedelta(days=9))
        case = OpenCase("mites", "Lens on the underside", ("hand lens", "torch"), YESTERDAY)
        walked = walk.plan([BlockState("a", "A", (0, 0), YESTERDAY, cases=[case], openings=[opening])], TODAY)
        self.assertEqual([why.kind for why in walked.stops[0].whys], ["case", "window"])
        self.assertIn("torch", walked.carry)


def block(name: str, x: float, **more: Any) -> BlockState:
    return BlockState(name, name, (x, 0.0), None, **more)


class Cleanliness(unittest.TestCase):
    def test_clean_before_infested_outranks_the_shortest_way(self) -> None:
        closed, held = says(Says.LEFT_OUT), says(Says.NO_TIME)
        states = [
            block("held", 10, held=held),
            block("closed", 20, closed=closed),
            block("mites", 30, pests=["two-spotted-spider-mite"]),
            block("sound", 400),
            block("cuttings", 500, young=True),
        ]
        walked = walk.plan(states, TODAY)
        self.assertEqual([stop.block for stop in walked.stops], ["cuttings", "sound", "mites", "closed", "held"])
        self.assertEqual([stop.block for stop in walked.stops if stop.late], ["mites"])
        self.assertIn("disinfectant", walked.carry)
        # Young plants that bear a pest are no clean block.
        sick = [block("cuttings", 500, young=True, pests=["two-spotted-spider-mite"]), block("sound", 400)]
        self.assertEqual([stop.block for stop in walk.plan(sick, TODAY).stops], ["sound", "cuttings"])


class Wishes(unittest.TestCase):
    def test_with_little_time_what_weighs_most_for_its_minutes_is_walked_to(self) -> None:
        due = DueLook("x", "codling-moth", TODAY - dt.timedelta(days=3), "fewer", True)
        states = [block("due", 100, due=[due]), block("near", 10), block("far", 3000)]
        whole = walk.plan(states, TODAY)
        # By hand: 6,000 metres at sixty a minute and three looks of eight minutes.
        self.assertEqual((whole.minutes, whole.metres), (124, 6000))
        short = walk.plan(states, TODAY, wish=Wish(minutes=12))
        self.assertEqual([stop.block for stop in short.stops], ["due"])
        self.assertLessEqual(short.minutes, 12)
        self.assertIn(says(Says.NO_TIME), dict(short.rest)["far"])
        self.assertEqual(walk.plan(states, TODAY, wish=Wish(minutes=0)).stops, ())

    @given(st.integers(0, 200))
    def test_no_walk_is_longer_than_the_time_there_is(self, minutes: int) -> None:
        states = [block(str(n), 150.0 * n, cases=[OpenCase("mites", "x", (), TODAY)] * (n % 2)) for n in range(6)]
        walked = walk.plan(states, TODAY, wish=Wish(minutes=minutes))
        self.assertLessEqual(walked.minutes, minutes)
        self.assertEqual(len(walked.stops) + len(walked.rest), 6)

    def test_what_is_left_out_and_what_is_asked_for(self) -> None:
        states = [block("a", 10), BlockState("b", "b", (20, 0), TODAY)]
        walked = walk.plan(states, TODAY, wish=Wish(without=frozenset("a"), also=frozenset("b")))
        self.assertEqual([stop.block for stop in walked.stops], ["b"])
        self.assertEqual(walked.stops[0].whys[0].reason, says(Says.ASKED_FOR))
        self.assertEqual(walked.rest, (("a", (says(Says.LEFT_OUT),)),))


class Order(unittest.TestCase):
    @settings(max_examples=40)
    @given(st.lists(st.tuples(st.floats(0, 500), st.floats(0, 500)), min_size=1, max_size=9, unique=True))
    def test_every_block_once_and_no_crossing_left(self, points: list[tuple[float, float]]) -> None:
        blocks = [BlockState(str(n), str(n), point, None) for n, point in enumerate(points)]
        walked = walk.plan(blocks, TODAY)
        order = [stop.block for stop in walked.stops]
        self.assertEqual(sorted(order), sorted(block.id for block in blocks))

        def length(way: list[str]) -> float:
            line = [(0.0, 0.0), *(points[int(step)] for step in way), (0.0, 0.0)]
            return sum(math.dist(a, b) for a, b in zip(line, line[1:], strict=False))

        for first in range(len(order)):
            for last in range(first + 1, len(order)):
                turned = order[:first] + order[first : last + 1][::-1] + order[last + 1 :]
                self.assertGreaterEqual(length(turned), length(order) - 1e-6)
