"""Several farms on one day: nothing is carried from one to the next."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.field.tour import FarmDay, Turn, ordered


class Tour(unittest.TestCase):
    def test_clean_before_infested_before_held_whatever_presses(self) -> None:
        farms = [
            FarmDay("held", 95.0, 9, pests=False, held=True),
            FarmDay("mites", 90.0, 5, pests=True, held=False),
            FarmDay("calm", 0.0, 0, pests=False, held=False),
            FarmDay("due", 60.0, 3, pests=False, held=False),
        ]
        self.assertEqual([farm.id for farm in ordered(farms)], ["due", "calm", "mites", "held"])

    @given(st.lists(st.builds(FarmDay, st.text(max_size=3), st.floats(0, 100), st.integers(0, 9), st.booleans(), st.booleans())))
    def test_no_clean_farm_comes_after_one_that_is_not(self, farms: list[FarmDay]) -> None:
        turns = [farm.turn for farm in ordered(farms)]
        self.assertEqual(turns, sorted(turns))
        self.assertEqual(len(turns), len(farms))
        self.assertTrue(all((farm.turn == Turn.HELD) == farm.held for farm in farms))
