"""The Guide's way in without a name: what can be seen on a part, and who leaves it. From descriptions in the catalogue."""

import unittest

from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import PARTS
from bootmark.core.field.likeliest import leavers, signs_on

CATALOGUE = default()


class Likeliest(unittest.TestCase):
    def test_signs_of_a_part_are_of_that_part_and_of_that_plant(self) -> None:
        for crop in ("pear", "maize", "potato", "a plant"):
            everything = {sign.id for sign in signs_on({"crop": crop})}
            for part in PARTS:
                signs = signs_on({"crop": crop}, part)
                self.assertTrue(all(sign.part == part for sign in signs))
                self.assertLessEqual({sign.id for sign in signs}, everything)
        self.assertNotIn("silk-cut", {sign.id for sign in signs_on({"crop": "pear"})})

    def test_what_is_usual_in_that_month_comes_first(self) -> None:
        fruit = {month: [sign.id for sign in signs_on({"crop": "pear", "month": month}, "fruit")] for month in (1, 7)}
        self.assertLess(fruit[7].index("fruit-entry-hole-with-frass"), 6)
        self.assertEqual(set(fruit[1]), set(fruit[7]))

    def test_who_leaves_it_is_named_likeliest_first_with_shares_of_one(self) -> None:
        rows = leavers({"crop": "pear", "month": 7}, "fruit-entry-hole-with-frass")
        self.assertIn(rows[0].agent.id, ("codling-moth", "any-fruit-moth"))
        self.assertAlmostEqual(sum(row.share for row in rows), 1.0)
        self.assertEqual([row.share for row in rows], sorted((row.share for row in rows), reverse=True))
        self.assertTrue(all("fruit-entry-hole-with-frass" in row.agent.shows for row in rows))
        self.assertEqual(leavers({"crop": "pear"}, "no-such-sign"), [])
