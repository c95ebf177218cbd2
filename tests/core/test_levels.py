"""From prices to where to act."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.field import levels
from bootmark.core.field.levels import Terms

amounts = st.floats(0.01, 1000)


class Levels(unittest.TestCase):
    def test_the_action_threshold_comes_before_the_level_by_the_wait(self) -> None:
        """A level of 40, doubled in four days, four days until someone can spray and four until it bites: act at 10. By hand: 40 / 2^2."""
        self.assertEqual(levels.action_threshold(40, 4, 4, 4), 10)
        self.assertEqual(levels.action_threshold(40, 4, 0, 0), 40)
        for wrong in ((0, 4, 4, 4), (40, 0, 4, 4), (40, 4, -1, 4)):
            with self.assertRaises(ValueError):
                levels.action_threshold(*wrong)

    @given(amounts, amounts, amounts, amounts, st.floats(0.05, 1))
    def test_each_swing_holds_the_level_and_cost_moves_it_by_as_much(
        self, cost: float, value: float, injury: float, damage: float, efficacy: float
    ) -> None:
        terms = Terms(cost, value, injury, damage, efficacy)
        swings = {swing.term: swing for swing in levels.swings(terms)}
        for swing in swings.values():
            self.assertLessEqual(swing.low, terms.level * (1 + 1e-9))
            self.assertGreaterEqual(swing.high, terms.level * (1 - 1e-9))
        self.assertAlmostEqual(swings["cost"].high / terms.level, 1.25)
        self.assertAlmostEqual(swings["value"].high / terms.level, 1 / 0.75)

    def test_what_is_sold_for_its_looks_has_no_level(self) -> None:
        pests, crops = default().agents, default().crops
        for agent, crop, looks in (("codling-moth", "apple", False), ("codling-moth", None, False), ("codling-moth", "rose", True)):
            self.assertEqual(levels.sold_for_looks(pests[agent], crops[crop] if crop else None), looks, crop)

    def test_without_a_price_there_is_no_level(self) -> None:
        with self.assertRaises(ValueError):
            Terms(40, 0, 0.5, 0.4, 0.8).level  # noqa: B018 - it is the property that is asked
