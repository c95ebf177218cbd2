"""When a count may stop: never below ten units, never on units that were picked, and in the end with a word."""

import math
import random
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.field import call, count, stopping, weighed
from bootmark.core.field.stopping import Word
from bootmark.core.meanings import Chosen, Measure, Side
from bootmark.core.messages import Says
from bootmark.core.types import CropState, Finding, Policy, Sample, StageNow, Taylor

RULE = stopping.rule(5.0, Measure.MEAN, Taylor(3.3, 1.5), 20)
SHARE = stopping.rule(0.05, Measure.PROPORTION)
MITE = Finding("two-spotted-spider-mite", "named", 0.95, True, "active")
counts = st.lists(st.integers(0, 80), min_size=1, max_size=60)


def decide(sample: Sample) -> Says:
    return call.decide(MITE, StageNow(), sample, None, None, CropState("raspberry"), Policy()).headline.kind


class Laws(unittest.TestCase):
    @given(counts)
    def test_nothing_is_said_below_ten_units_and_something_at_the_end_of_the_plan(self, seen: list[int]) -> None:
        told = stopping.word(RULE, seen)
        if len(seen) < 10:
            self.assertEqual(told, Word(Side.BETWEEN))
        if len(seen) >= RULE.most:
            self.assertNotEqual(told.side, Side.BETWEEN)

    @given(counts, st.integers(1, 40))
    def test_more_animals_never_speak_for_fewer(self, seen: list[int], more: int) -> None:
        # The same on every unit: an outlier alone also says that they clump, and so that less is known.
        self.assertGreaterEqual(stopping.evidence(SHARE, [1] * len(seen)), stopping.evidence(SHARE, seen))
        strewn = replace(RULE, clumping=0.5)
        even, shifted = [min(seen)] * len(seen), [min(seen) + more] * len(seen)
        self.assertGreater(stopping.evidence(strewn, shifted), stopping.evidence(strewn, even))

    @given(counts)
    def test_the_lines_are_where_the_word_changes(self, seen: list[int]) -> None:
        low, high = stopping.lines(RULE, seen, len(seen))
        average, told = sum(seen) / len(seen), stopping.evidence(RULE, seen)
        self.assertEqual(told <= stopping.BOUNDS[0], average <= low[-1] + 1e-9 or math.isclose(told, stopping.BOUNDS[0], abs_tol=1e-6))
        self.assertEqual(told >= stopping.BOUNDS[1], average >= high[-1] - 1e-9 or math.isclose(told, stopping.BOUNDS[1], abs_tol=1e-6))

    @given(st.floats(0.05, 50), st.floats(1.5, 6), st.floats(1.05, 1.9))
    def test_a_law_gives_back_its_own_variance(self, average: float, a: float, b: float) -> None:
        k = stopping.clumping(Taylor(a, b), average)
        self.assertTrue(math.isinf(k) or math.isclose(average + average**2 / k, a * average**b, rel_tol=1e-9))

    @given(st.floats(0.5, 8), st.floats(1.1, 1.8))
    def test_a_farm_s_own_law_comes_out_of_its_samples(self, a: float, b: float) -> None:
        pairs = [(average, a * average**b) for average in (0.2, 0.5, 1, 2, 4, 8, 16, 0.3, 0.8, 3, 6, 12)]
        own = stopping.fitted(pairs)
        assert own
        self.assertAlmostEqual(own.a, a, places=6)
        self.assertAlmostEqual(own.b, b, places=6)
        self.assertIsNone(stopping.fitted(pairs[:11]))
        self.assertIsNone(stopping.fitted([(4.0, 9.0)] * 20))


class Words(unittest.TestCase):
    def test_one_bad_leaf_or_nine_end_no_count(self) -> None:
        for units in (1, 9):
            self.assertEqual(stopping.word(RULE, [60] * units).side, Side.BETWEEN)
            self.assertEqual(decide(Sample("leaf", (60,) * units)), Says.CALL_UNITS)
        self.assertEqual(stopping.word(RULE, [60] * 10).side, Side.ABOVE)
        self.assertEqual(stopping.word(RULE, [0] * 10).side, Side.BELOW)

    def test_five_in_a_hundred_takes_about_as_many_units_as_the_books_say(self) -> None:
        # By the normal approximation a fixed plan for 2.5 against 10 % with these errors takes 135 units: worked by hand.
        self.assertEqual(round(stopping.fixed_units(0.05, Measure.PROPORTION, math.inf)), 135)
        self.assertEqual((SHARE.least, SHARE.most), (10, 177))
        self.assertEqual(stopping.word(SHARE, [0] * 40).side, Side.BETWEEN)
        self.assertEqual(stopping.word(SHARE, [0] * 60).side, Side.BELOW)

    def test_twelve_bad_leaves_and_thirty_by_the_plan(self) -> None:
        picked = Sample("leaf", (20,) * 12, chosen=Chosen.PICKED)
        self.assertEqual(stopping.of_sample(RULE, picked).side, Side.BETWEEN)
        self.assertEqual(decide(picked), Says.CALL_PICKED)
        planned = Sample("leaf", (0, 1) * 15)
        self.assertEqual(decide(planned), Says.CALL_FEW)

    def test_where_fewer_than_ten_exist_all_of_them_are_the_truth(self) -> None:
        for counts, side in (((5, 5, 5), Side.ABOVE), ((5, 5, 4), Side.BELOW)):
            self.assertEqual(stopping.of_sample(RULE, Sample("plant", counts, chosen=Chosen.ALL)).side, side)
        self.assertNotEqual(decide(Sample("leaf", (9, 9, 9), chosen=Chosen.ALL)), Says.CALL_UNITS)

    def test_leaves_of_one_plant_are_told_together(self) -> None:
        rule = stopping.rule(5.0, Measure.MEAN, Taylor(3.3, 1.5), per=5)
        self.assertEqual((rule.least, rule.most % 5), (50, 0))
        self.assertEqual(stopping.word(rule, [60] * 49).side, Side.BETWEEN)
        self.assertEqual(stopping.word(rule, [60] * 50).side, Side.ABOVE)
        # Half a plant is not told: what is on it waits.
        self.assertEqual(stopping.evidence(rule, [0] * 50), stopping.evidence(rule, [0] * 50 + [900, 900]))

    def test_fruits_of_one_tree_tell_less_than_as_many_of_as_many_trees(self) -> None:
        rule, rng = stopping.rule(0.05, Measure.PROPORTION, units=300, per=10), random.Random(20261127)

        def walked(share: float) -> stopping.Word:
            """Ten fruits on tree after tree; trees differ by a beta law whose correlation within a tree is 0.05."""
            seen: list[int] = []
            together = 1 / 0.05 - 1
            while True:
                tree = rng.betavariate(share * together, (1 - share) * together)
                for _ in range(10):
                    seen.append(int(rng.random() < tree))
                    word = stopping.word(rule, seen)
                    if word.side != Side.BETWEEN:
                        return word

        many, few = ([walked(share).side for _ in range(600)] for share in (0.1, 0.025))
        self.assertLessEqual(many.count(Side.BELOW) / 600, 0.02)
        self.assertLessEqual(few.count(Side.ABOVE) / 600, 0.05)
        told = Sample("fruit", (1,) * 15 + (0,) * 285, measure=Measure.PROPORTION)
        alone, alike = (weighed.limits(told, each) for each in (stopping.rule(0.05, Measure.PROPORTION), rule))
        self.assertEqual(alone.estimate, alike.estimate)
        self.assertLess(alike.low, alone.low)
        self.assertGreater(alike.high, alone.high)

    def test_the_end_of_a_plan_says_what_costs_less_if_it_is_wrong(self) -> None:
        ended = {stopping.word(RULE, [count] * RULE.most) for count in range(3, 7)}
        self.assertIn(Word(Side.ABOVE, ended=True), ended)
        rule, told = weighed.against(default().agent(MITE.agent), Sample("leaf", (5,) * 20), 5.0)
        assert rule
        self.assertEqual(told, Word(Side.ABOVE, ended=True))

    def test_traps_are_no_sample_of_others(self) -> None:
        agent = default().agent("codling-moth")
        for caught, side in (((4,), Side.BELOW), ((5,), Side.ABOVE), ((0,), Side.BELOW), ((4, 5), Side.BELOW), ((4, 7), Side.ABOVE)):
            self.assertEqual(weighed.against(agent, Sample("trap", caught, measure=Measure.TRAP), 5.0), (None, Word(side)))

    def test_where_none_was_found_a_clumped_pest_may_have_been_missed(self) -> None:
        """By hand at 90 %: strewn at random -ln(0.1) / 20 = 0.115; with k 0.5, 0.5 (0.1^(-1 / 10) - 1) = 0.1295."""
        nothing = Sample("leaf", (0,) * 20)
        clumped = replace(RULE, clumping=0.5)
        for rule, high in ((None, 0.1151), (replace(RULE, clumping=math.inf), 0.1151), (clumped, 0.1295)):
            self.assertAlmostEqual(weighed.limits(nothing, rule).high, high, 4)
        some = Sample("leaf", (0, 1) * 10)
        self.assertEqual(weighed.limits(some, clumped), count.interval(some))

    def test_where_none_is_tolerated_the_first_ends_the_count(self) -> None:
        agent = default().agent(MITE.agent)
        for counts, side in (((0, 0, 0), Side.BELOW), ((0, 1), Side.ABOVE)):
            self.assertEqual(weighed.against(agent, Sample("leaf", counts), 0.0), (None, Word(side)))

    def test_a_plan_of_another_measure_lends_nothing(self) -> None:
        aphid = default().agent("green-peach-aphid")
        rule, _ = weighed.against(aphid, Sample("leaf", (1,) * 12, measure=Measure.PROPORTION), 0.3)
        assert rule and aphid.sampling
        self.assertEqual(rule, stopping.rule(0.3, Measure.PROPORTION))
        own, _ = weighed.against(aphid, Sample("leaf", (1,) * 12), 10.0)
        assert own
        self.assertEqual((own.per, own.least), (3, 30))

    def test_a_threshold_that_is_none_is_refused(self) -> None:
        for value, measure in ((0.0, Measure.MEAN), (1.0, Measure.PROPORTION), (math.inf, Measure.MEAN), (-2.0, Measure.MEAN)):
            with self.assertRaises(ValueError):
                stopping.rule(value, measure)

    def test_a_crop_s_own_threshold_stands_before_that_of_any(self) -> None:
        for agent in default().agents.values():
            for row in agent.thresholds:
                own = agent.threshold(row.crop, row.measure)
                assert own
                self.assertEqual(own.crop, row.crop, agent.id)
