"""What the stand itself says to a call, at its very limits."""

import datetime as dt
import unittest
from dataclasses import replace
from typing import Any

from bootmark.core import judgement
from bootmark.core.field import call
from bootmark.core.field.conditions import limits
from bootmark.core.meanings import Activity, Condition, ControlKind, DecisionKind, LimitMethod, Measure, VerdictKind, Worth
from bootmark.core.messages import Says
from bootmark.core.types import CropState, Decision, Finding, Interval, Policy, Sample, StageNow

TODAY = dt.date(2026, 6, 18)
BEETLE = Finding("colorado-potato-beetle", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE, stages=frozenset({"larva"}))
BORER = Finding("european-corn-borer", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
NONE_OF_MANY = Sample("plant", (0,) * 150, measure=Measure.PROPORTION)


def share(low: float, estimate: float | None = None) -> Interval:
    return Interval(low if estimate is None else estimate, low, 0.9, 40, 0.9, LimitMethod.WILSON)


def called(finding: Finding, crop: str, sample: Sample = NONE_OF_MANY, stage: StageNow | None = None, **stand: Any) -> Decision:
    state = CropState(crop, **{"days_to_harvest": 90, "month": 6} | stand)
    return call.decide(finding, stage or StageNow(today=TODAY), sample, None, None, state, Policy())


class Ripe(unittest.TestCase):
    def test_the_last_day_and_the_least_share_still_count(self) -> None:
        near, weak = judgement.HARVEST_NEAR_DAYS, judgement.WEAK_STALKS
        for days, low, kind in (
            (near, weak, DecisionKind.HARVEST_FIRST),
            (near + 1, weak, DecisionKind.LEAVE),
            (near, weak - 0.01, DecisionKind.LEAVE),
        ):
            self.assertEqual(called(BORER, "maize", days_to_harvest=days, weak_stalks=share(low)).kind, kind, (days, low))

    def test_the_look_comes_when_it_is_in(self) -> None:
        for days, look in ((0, 1), (1, 1), (6, 6)):
            self.assertEqual(called(BORER, "maize", days_to_harvest=days, weak_stalks=share(0.5)).look_again_days, look)

    def test_a_storm_hurries_on_the_estimate(self) -> None:
        unsure = share(0.02, 0.12)
        for storm, kind in ((None, DecisionKind.LEAVE), (TODAY, DecisionKind.HARVEST_FIRST)):
            self.assertEqual(called(BORER, "maize", days_to_harvest=9, weak_stalks=unsure, storm=storm).kind, kind)


class Leaves(unittest.TestCase):
    def test_the_limit_goes_by_the_stage_and_by_the_lower_one_where_nobody_noted_it(self) -> None:
        before, after = judgement.LEAF_LOSS["potato"]
        few = Sample("plant", (0,) * 40)
        for flowered, low, acts in (
            (False, before, True), (False, before - 0.01, False), (False, after, False), (True, after, True), (True, after - 0.01, False),
            (None, after, True), (None, after - 0.01, False),
        ):  # fmt: skip
            decision = called(BEETLE, "potato", few, leaf_loss=share(low), flowered=flowered)
            self.assertEqual(decision.kind != DecisionKind.LEAVE, acts, (flowered, low))
            told = Says.LEAVES_LOST if acts else Says.LEAVES_SPARED
            self.assertIn(told, [reason.kind for reason in (*decision.reasons_for, *decision.reasons_against)])

    def test_leaves_are_told_within_nought_and_one(self) -> None:
        for units in ([100] * 3, [0, 100], [0] * 5, [75] * 20):
            told = limits(Condition.LEAVES, units)
            self.assertTrue(0 <= told.low <= told.estimate <= told.high <= 1, units)
        self.assertEqual(limits(Condition.STALKS, [1, 0, 0, 0]).method, LimitMethod.WILSON)


class High(unittest.TestCase):
    def test_a_firm_is_asked_only_where_neither_hand_nor_sprayer_reaches(self) -> None:
        mites = Finding("two-spotted-spider-mite", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
        bottles = Policy(refuses=frozenset({ControlKind.CULTURAL, ControlKind.LIVING, ControlKind.SOFT, ControlKind.CONVENTIONAL}))
        for reach, firm in ((3.0, True), (8.0, False)):
            crop = CropState("apple", days_to_harvest=90, month=6, height=6.0, reach=reach)
            decision = call.decide(mites, StageNow(today=TODAY), Sample("leaf", (30,) * 30), None, None, crop, bottles)
            self.assertFalse([choice.control for choice in decision.choices if choice.offered], reach)
            self.assertEqual(decision.headline.kind == Says.CALL_FIRM, firm, reach)

    def cautions(self, **stand: Any) -> set[Says]:
        mites = Finding("two-spotted-spider-mite", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
        return {caution.kind for caution in called(mites, "raspberry", Sample("leaf", (20,) * 20), reach=9.0, **stand).cautions}

    def test_nobody_climbs_and_a_line_is_kept_away_from(self) -> None:
        self.assertIn(Says.NO_LADDER, self.cautions(height=judgement.TALL_METRES))
        self.assertNotIn(Says.NO_LADDER, self.cautions(height=judgement.TALL_METRES - 0.1))
        self.assertIn(Says.LINE_OVERHEAD, self.cautions(lines_near=True))
        self.assertNotIn(Says.LINE_OVERHEAD, self.cautions(lines_near=False))

    def test_what_is_high_is_asked_for_before_it_is_referred(self) -> None:
        worm = Finding("bagworm", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
        many = Sample("plant", (30,) * 20)
        asked = called(worm, "birch", many, height=12.0)
        self.assertEqual((asked.kind, asked.look_again_days), (DecisionKind.LOOK_AGAIN, 1))
        self.assertEqual(called(worm, "birch", many, height=12.0, reach=4.0).kind, DecisionKind.REFER)
        self.assertEqual(called(worm, "birch", many, height=12.0, reach=4.0, worth=Worth.REPLACED).kind, DecisionKind.REFER)


class Windows(unittest.TestCase):
    def test_a_window_that_ends_today_is_open_today(self) -> None:
        past = replace(BEETLE, stages=frozenset(), activity=Activity.NOT_KNOWN)
        many = Sample("plant", (12,) * 20)
        for last, late in ((TODAY, False), (TODAY - dt.timedelta(days=1), True)):
            stage = StageNow(today=TODAY, window=(TODAY - dt.timedelta(days=9), last))
            decision = called(replace(past, stages=frozenset({"adult"})), "potato", many, stage)
            self.assertEqual(Says.STAGE_OVER in [reason.kind for reason in decision.reasons_against], late, last)
