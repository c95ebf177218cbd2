"""What the tally says of a count so far."""

import math
import unittest

from bootmark.core.field import stopping
from bootmark.core.field.count import enemy_ratio, interval
from bootmark.core.meanings import Chosen, LimitMethod, Measure, Side
from bootmark.core.types import Interval, Sample
from bootmark.say import ENGLISH
from bootmark.say.count import reading

RULE = stopping.rule(5.0, Measure.MEAN)


def told(sample: Sample, rule: stopping.Rule | None = RULE) -> dict[str, str]:
    word = stopping.of_sample(rule, sample) if rule else None
    ratio = enemy_ratio(sample)
    return reading(ENGLISH, interval(sample), ratio, sample.unit, sample, word, rule)


class Tally(unittest.TestCase):
    def test_it_says_so_and_what_was_counted(self) -> None:
        words = told(Sample("leaf", (1, 0) * 10, (0, 1) * 10))
        self.assertEqual((words["title"], words["text"]), ("Enough: too few to matter", "The count lies below both lines."))
        self.assertEqual((words["ratio_text"], words["method"]), ("1.00", "Student's t"))
        words = told(Sample("leaf", (60,) * 12))
        self.assertEqual((words["title"], words["text"]), ("Enough: it matters", "The count lies above both lines."))
        words = reading(
            ENGLISH,
            Interval(0.2, 0.1, 0.3, 20, 0.9, LimitMethod.WILSON),
            None,
            "leaf",
            Sample("leaf", (1,), measure="proportion"),
            None,
            None,
        )
        self.assertEqual((words["title"], words["text"], words["summary"]), ("Counted", "", "20 % (10 % to 30 %) of 20, by leaf"))

    def test_below_ten_units_nothing_and_at_the_end_of_a_plan_that_it_is_not_sure(self) -> None:
        words = told(Sample("leaf", (60,) * 9))
        self.assertEqual((words["title"], words["text"]), ("Keep counting", "Nothing is told below 10."))
        ends = {told(Sample("leaf", (count,) * RULE.most))["title"] for count in range(3, 7)}
        self.assertIn("The plan ends: likelier it matters", ends)
        self.assertEqual(stopping.word(RULE, [5] * RULE.most).side, Side.ABOVE)

    def test_picked_units_are_kept_and_all_there_are_is_the_truth(self) -> None:
        self.assertIn("held against no threshold", told(Sample("leaf", (60,) * 12, chosen=Chosen.PICKED))["text"])
        words = told(Sample("plant", (6, 5), chosen=Chosen.ALL))
        self.assertEqual((words["title"], words["text"]), ("Enough: it matters", "All that there are: this is the truth."))

    def test_one_unit_alone_has_no_upper_limit_and_only_helpers_no_ratio(self) -> None:
        words = told(Sample("leaf", (4,)))
        self.assertEqual(words["summary"], "4 for each leaf (0 to any number) on 1")
        self.assertEqual(words["ratio_text"], "Not counted yet.")
        only = reading(ENGLISH, interval(Sample("leaf", (4,))), math.inf, "leaf", Sample("leaf", (4,)), None, None)
        self.assertEqual(only["ratio_text"], "Only helpers were found.")
