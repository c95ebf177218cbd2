"""Leaves of which a known share is eaten: the share is reckoned from the drawing itself."""

import unittest

from bootmark.drawing.eaten import NEAR, eaten
from bootmark.drawing.leaf import FORMS
from bootmark.web.drawing.route import EATEN


class Eaten(unittest.TestCase):
    def test_each_leaf_has_lost_what_it_says(self) -> None:
        for form in FORMS:
            for percent in EATEN:
                lost = eaten(form, percent / 100).lost
                self.assertLessEqual(abs(lost - percent / 100), 2 * NEAR, (form, percent, lost))

    def test_the_same_seed_gives_the_same_leaf_and_an_odd_share_is_refused(self) -> None:
        self.assertEqual(eaten("ovate", 0.35).draw(), eaten("ovate", 0.35).draw())
        self.assertNotEqual(eaten("ovate", 0.35).draw(), eaten("ovate", 0.35, 2).draw())
        for share in (-0.1, 0.95):
            with self.assertRaises(ValueError):
                eaten("ovate", share)
