"""Blocks that nobody goes into after a spray: from the end of the work, by the longest interval, and closed where it is not known."""

import datetime as dt
import unittest
from dataclasses import replace
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.field import closed
from bootmark.core.field.closed import Early, Sprayed
from bootmark.core.field.walk import plan
from bootmark.core.field.worth import BlockState
from bootmark.core.messages import Says
from bootmark.say import ENGLISH

ZONE = dt.timezone(dt.timedelta(hours=2))
NOON = dt.datetime(2026, 6, 18, 12, tzinfo=ZONE)


def at(hour: int, minute: int = 0, *, day: int = 18) -> dt.datetime:
    return dt.datetime(2026, 6, day, hour, minute, tzinfo=ZONE)


def spray(began: dt.datetime, ended: dt.datetime, hours: int | None, block: str = "a") -> Sprayed:
    return Sprayed(block, "codling-moth", "granulovirus", began, ended, hours)


class Closed(unittest.TestCase):
    def test_it_runs_from_the_end_and_while_the_work_runs(self) -> None:
        # Begun 07:40, ended 10:10, twelve hours: closed until 22:10.
        one_spray = [spray(at(7, 40), at(10, 10), 12)]
        for when, is_closed in ((at(7, 39), False), (at(7, 40), True), (at(9), True), (at(22, 9), True), (at(22, 10), False)):
            self.assertEqual("a" in closed.blocks(one_spray, when), is_closed, when)
        self.assertIn("Closed until 22:10", ENGLISH.say(closed.blocks(one_spray, NOON)["a"]))

    def test_the_longest_of_all_counts_and_each_block_has_its_own(self) -> None:
        sprays = [spray(at(7), at(8), 24), spray(at(10), at(11), 4), spray(at(6), at(7), 4, "b"), spray(at(6), at(7), 48, "c")]
        shut = closed.blocks(sprays, NOON)
        self.assertEqual(set(shut), {"a", "c"})
        self.assertEqual(shut["a"].facts["until"], at(8, day=19))
        self.assertIn("Closed until 19 June, 08:00", ENGLISH.say(shut["a"]))

    def test_an_unknown_interval_is_not_nought(self) -> None:
        shut = closed.blocks([spray(at(7), at(8), None), spray(at(10), at(11), 24)], NOON)
        self.assertEqual(shut["a"].kind, Says.CLOSED_UNKNOWN)
        self.assertIn("Read its label first", ENGLISH.say(shut["a"]))
        self.assertEqual(closed.blocks([spray(at(7), at(8), 0)], NOON), {})

    @given(st.lists(st.tuples(st.integers(-200, 20), st.integers(0, 10), st.one_of(st.none(), st.integers(0, 96))), max_size=6))
    def test_more_sprays_never_open_a_block(self, rows: list[tuple[int, int, int | None]]) -> None:
        sprays = [
            spray(NOON + dt.timedelta(hours=began), NOON + dt.timedelta(hours=began + lasted), hours) for began, lasted, hours in rows
        ]
        for count in range(len(sprays)):
            self.assertLessEqual(set(closed.blocks(sprays[:count], NOON)), set(closed.blocks(sprays, NOON)))


class Labelled(unittest.TestCase):
    def labelled(self, hours: float | None, **more: Any) -> list[Sprayed]:
        return [replace(spray(at(7, 40), at(10, 10), None), hours=hours, labelled=True, **more)]

    def test_it_is_closed_while_it_is_being_done(self) -> None:
        rows = [replace(spray(at(7, 40), at(10), 4), ended=None)]
        self.assertEqual(closed.blocks(rows, at(7, 30)), {})
        for when in (at(7, 40), at(12), at(12, day=19)):
            self.assertEqual(
                ENGLISH.say(closed.blocks(rows, when)["a"]), "Closed: codling moth granulovirus is being done here since 07:40."
            )
        over = [*rows, spray(at(6), at(7), 96)]
        self.assertEqual(closed.blocks(over, NOON)["a"].kind, Says.BEING_DONE)

    def test_hands_wait_longer_than_feet(self) -> None:
        rows = self.labelled(12, hand_hours=72)
        self.assertEqual(closed.hand_work(rows, NOON), {}, "nobody is in there at all")
        night = at(22, 10)
        self.assertEqual((closed.blocks(rows, night), set(closed.hand_work(rows, night))), ({}, {"a"}))
        self.assertIn("before 21 June, 10:10", ENGLISH.say(closed.hand_work(rows, night)["a"]))
        self.assertEqual(closed.hand_work(rows, at(10, 10, day=21)), {})

    def test_until_dry_is_four_hours_at_the_least(self) -> None:
        rows = self.labelled(0, dries=True)
        self.assertIn("until it is dry, 14:10 at the earliest", ENGLISH.say(closed.blocks(rows, NOON)["a"]))
        self.assertEqual(closed.blocks(rows, at(14, 10)), {})
        self.assertIn("Closed until 22:10 by the label", ENGLISH.say(closed.blocks(self.labelled(12, dries=True), NOON)["a"]))

    def test_the_label_s_hours_stand_and_an_unread_one_is_not_nought(self) -> None:
        self.assertEqual(closed.blocks(self.labelled(1), NOON), {})
        self.assertEqual(closed.blocks([spray(at(7, 40), at(10, 10), None)], at(9, day=20))["a"].kind, Says.CLOSED_UNKNOWN)

    def test_early_entry_is_said_only_where_the_label_allows_it(self) -> None:
        rows = self.labelled(12, early=Early(60, "coveralls, gloves, boots"))
        text = ENGLISH.say(closed.blocks(rows, NOON)["a"])
        self.assertIn("Before that 60 minutes a day at most, in this: coveralls, gloves, boots.", text)
        self.assertNotIn("minutes a day", ENGLISH.say(closed.blocks(self.labelled(12), NOON)["a"]))


class Walked(unittest.TestCase):
    def test_nobody_is_sent_into_a_closed_block_before_the_others(self) -> None:
        shut = closed.blocks([spray(at(7), at(8), 24)], NOON)["a"]
        states = [
            BlockState("a", "A", (0, 0), None, closed=shut),
            BlockState("b", "B", (900, 0), None),
            BlockState("c", "C", (500, 0), None, held=shut),
        ]
        walked = plan(states, NOON.date())
        self.assertEqual([stop.block for stop in walked.stops], ["b", "a", "c"])
        self.assertEqual([stop.closed is not None for stop in walked.stops], [False, True, False])
        looked = [BlockState("a", "A", (0, 0), NOON.date(), closed=shut)]
        self.assertEqual(plan(looked, NOON.date()).rest, (("a", (shut,)),))
