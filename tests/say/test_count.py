"""What the tally says of a count so far."""

import math
import unittest

from bootmark.core.field.count import interval, side
from bootmark.core.meanings import LimitMethod, Measure, Side
from bootmark.core.types import Interval, Sample
from bootmark.say import ENGLISH
from bootmark.say.count import reading


def limits(low: float, high: float) -> Interval:
    return Interval((low + high) / 2, low, high, 20, 0.9, LimitMethod.STUDENT)


class Tally(unittest.TestCase):
    def test_a_count_lies_below_above_or_on_both_sides(self) -> None:
        for low, high, lies in ((1, 4.9, Side.BELOW), (5, 9, Side.ABOVE), (4.9, 5, Side.BETWEEN), (1, 5, Side.BETWEEN), (5, 5, Side.ABOVE)):
            self.assertEqual(side(limits(low, high), 5), lies, (low, high))

    def test_it_says_so_and_what_was_counted(self) -> None:
        reading_words = reading(ENGLISH, limits(1, 3), 0.25, "leaf", Measure.MEAN, 5)
        self.assertEqual(
            (reading_words["title"], reading_words["text"]), ("Enough: too few to matter", "The whole band lies below the threshold.")
        )
        self.assertEqual(
            (reading_words["summary"], reading_words["ratio_text"], reading_words["method"]),
            ("2 for each leaf (1 to 3) on 20", "0.25", "Student's t"),
        )
        reading_words = reading(ENGLISH, limits(0.1, 0.3), None, "leaf", Measure.PROPORTION, None)
        self.assertEqual(
            (reading_words["title"], reading_words["text"], reading_words["summary"]), ("Counted", "", "20 % (10 % to 30 %) of 20, by leaf")
        )

    def test_one_unit_alone_has_no_upper_limit_and_only_helpers_no_ratio(self) -> None:
        estimate = interval(Sample("leaf", (4,)))
        reading_words = reading(ENGLISH, estimate, math.inf, "leaf", Measure.MEAN, 5)
        self.assertEqual(reading_words["summary"], "4 for each leaf (0 to any number) on 1")
        self.assertEqual((reading_words["title"], reading_words["ratio_text"]), ("Keep counting", "Only helpers were found."))
        self.assertEqual(reading(ENGLISH, estimate, None, "leaf", Measure.MEAN, 5)["ratio_text"], "Not counted yet.")
