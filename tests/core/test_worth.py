"""What a look is worth: the chance that a decision is due, times the cost of being late."""

import datetime as dt
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.field import worth
from bootmark.core.field.worth import BlockState, DueLook, Growing, NextDoor, OpenCase, Opening
from bootmark.core.messages import Says

TODAY = dt.date(2026, 6, 18)


def ago(days: int) -> dt.date:
    return TODAY - dt.timedelta(days=days)


def state(looked: int = 1, **more: Any) -> BlockState:
    return BlockState("a", "A", (0, 0), ago(looked), **more)


def kinds(block: BlockState) -> list[Says]:
    return [why.reason.kind for why in worth.whys(block, TODAY)]


class Worth(unittest.TestCase):
    def test_two_reasons_are_worth_more_than_each_and_less_than_their_sum(self) -> None:
        opening = Opening("codling-moth", ago(1), TODAY)
        due = DueLook("x", "codling-moth", TODAY, "fewer", True)
        each = [worth.together(worth.whys(state(due=[due]), TODAY)), worth.together(worth.whys(state(openings=[opening]), TODAY))]
        both = worth.together(worth.whys(state(due=[due], openings=[opening]), TODAY))
        # By hand: 1 - 0.4 x 0.65 = 0.74.
        self.assertAlmostEqual(both, 74.0)
        self.assertTrue(max(each) < both < sum(each))

    def test_a_window_that_closes_outweighs_one_with_days_left(self) -> None:
        closing, wide = (worth.whys(state(openings=[Opening("x", ago(9), ago(-left))]), TODAY)[0].weight for left in (1, 20))
        self.assertGreater(closing, wide)

    def test_a_case_whose_animal_can_t_be_reached_before_next_month_waits_for_one_that_can(self) -> None:
        case = OpenCase("x", "lens", (), TODAY)

        def weight(*openings: Opening) -> float:
            whys = worth.whys(state(cases=[case], openings=openings), TODAY)
            return next(why.weight for why in whys if why.reason.kind == Says.TELL_WHAT_IT_IS)

        later = weight(Opening("x", ago(-30), ago(-40)))
        self.assertLess(later, weight())
        self.assertEqual(weight(), weight(Opening("x", ago(2), ago(-9))))
        self.assertEqual(weight(), weight(Opening("another", ago(-30), ago(-40))), "another's window says nothing of it")

    def test_what_grows_to_its_threshold_calls_before_it_is_passed(self) -> None:
        near, far = (worth.whys(state(grows=[Growing("mites", days)]), TODAY) for days in (0.5, 2.5))
        self.assertGreater(near[0].weight, far[0].weight)
        self.assertEqual(worth.whys(state(grows=[Growing("mites", 9.0)]), TODAY), ())

    def test_a_finding_next_door_calls_until_somebody_has_looked(self) -> None:
        beside = [NextDoor("codling-moth", "B", ago(2))]
        self.assertEqual(kinds(state(5, next_door=beside)), [Says.FOUND_BESIDE])
        self.assertEqual(kinds(state(1, next_door=beside)), [])

    def test_earlier_years_add_to_a_walk_and_send_nobody_twice_in_three_days(self) -> None:
        self.assertEqual(kinds(state(4, history=["codling-moth"])), [Says.FOUND_BEFORE])
        self.assertEqual(kinds(state(1, history=["codling-moth"])), [])

    @given(st.integers(0, 400), st.integers(0, 400), st.booleans())
    def test_longer_unseen_is_never_worth_less(self, one_age: int, other_age: int, hot: bool) -> None:
        spells = {"hot-and-dry": 9} if hot else {}
        low, high = (worth.together(worth.whys(state(days, spells=spells), TODAY)) for days in sorted((one_age, other_age)))
        self.assertLessEqual(low, high)
        self.assertTrue(0 <= low <= high <= 100)
