"""The call: leaving it is the default, and nothing is treated on a symptom."""

import datetime as dt
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.field import call, identify
from bootmark.core.messages import Says
from bootmark.core.types import ACTING, DECISIONS, CropState, Decision, Finding, Policy, Sample, StageNow

TODAY = dt.date(2026, 6, 18)
MITE = Finding("two-spotted-spider-mite", "named", 0.95, True, "active")
RASPBERRY = CropState("raspberry")


def many(mean: int, enemies: int = 0) -> Sample:
    counts = (mean, mean + 2, max(0, mean - 2), mean + 1, max(0, mean - 1)) * 4
    return Sample("leaf", counts, tuple([enemies] * 20))


def decide(finding: Finding = MITE, sample: Sample | None = None, stage: StageNow | None = None, **more: object) -> Decision:
    crop = more.get("crop", RASPBERRY)
    policy = more.get("policy", Policy())
    assert isinstance(crop, CropState) and isinstance(policy, Policy)
    return call.decide(finding, stage or StageNow(today=TODAY), sample, None, None, crop, policy)


class LeaveIt(unittest.TestCase):
    def test_rose_circles_end_in_leave_it(self) -> None:
        case = {"crop": "rose", "signs": {"circles-cut-from-the-edge": "seen"}}
        verdict = identify.verdict(case, identify.suspects(case))
        decision = decide(Finding(verdict.agents[0], verdict.kind, verdict.probability, True), crop=CropState("rose"))
        self.assertEqual(decision.kind, "leave")
        self.assertEqual(decision.headline.kind, Says.CALL_HARMLESS)
        self.assertFalse(decision.choices)

    def test_stippling_alone_never_ends_in_a_spray(self) -> None:
        for crop in ("raspberry", "hop", "rose", "pear", "bean", "cucumber"):
            for month in range(1, 13):
                case = {"crop": crop, "month": month, "weather": {"hot-and-dry": 20}, "signs": {"stippling": "seen"}}
                ranking = identify.suspects(case)
                verdict = identify.verdict(case, ranking)
                for suspect in ranking.suspects:
                    finding = Finding(suspect.agent, verdict.kind, suspect.probability, suspect.confirmed)
                    decision = decide(finding, many(40), crop=CropState(crop))
                    offered = [default().agent(suspect.agent).control(choice.control).kind for choice in decision.choices if choice.offered]
                    self.assertFalse({"soft", "conventional"} & set(offered), (crop, month, suspect.agent))

    def test_too_few(self) -> None:
        decision = decide(sample=many(1))
        self.assertEqual(decision.kind, "leave")
        self.assertEqual(decision.headline.kind, Says.CALL_FEW)

    def test_helpers_are_winning(self) -> None:
        self.assertEqual(decide(sample=many(9, enemies=2)).kind, "leave")
        self.assertIn(decide(sample=many(9, enemies=0)).kind, ACTING)

    def test_a_handful_of_animals_never_decides_by_its_enemies(self) -> None:
        for counts, enemies in (((6,), (1,)), ((8,) * 9, (2,) * 9), ((9, *[0] * 19), (0,) * 20)):
            decision = decide(sample=Sample("leaf", counts, enemies))
            self.assertNotEqual(decision.headline.kind, Says.CALL_HELP, counts)
        self.assertEqual(decide(sample=Sample("leaf", (6,), (1,))).kind, "look again")

    def test_finished_dead_and_parasitised(self) -> None:
        for activity in ("finished", "dead", "parasitised"):
            self.assertEqual(decide(replace(MITE, activity=activity), None).kind, "leave")

    def test_single_parasitised_or_dead_ones_do_not_end_an_attack(self) -> None:
        for activity, field, few, most in (("dead", "dead", 20, 2000), ("parasitised", "parasitised", 1, 500)):
            finding = replace(MITE, activity=activity)
            self.assertEqual(decide(finding, many(20)).headline.kind, Says.CALL_ENDED, "how many is not known: count them")
            self.assertEqual(decide(finding, replace(many(20), **{field: few})).kind, "act now")
            self.assertEqual(decide(finding, replace(many(20), **{field: most})).kind, "leave")
        self.assertEqual(decide(replace(MITE, activity="finished"), many(20)).kind, "act now", "live ones were counted")

    def test_what_is_at_work_is_not_too_late_while_anything_reaches_it(self) -> None:
        maggot = Finding("cabbage-maggot", "named", 0.9, True, "active")
        closed = {name: (dt.date(2026, 5, 1), dt.date(2026, 5, 20)) for name in ("covers", "nematodes-root", "spinosad-drench")}
        stage = StageNow({"pupa": 0.9, "larva": 0.1}, TODAY, (dt.date(2026, 5, 1), dt.date(2026, 5, 20)), windows=closed)
        sample = Sample("plant", (1,) * 15 + (0,) * 5, (), "proportion")
        decision = decide(maggot, sample, stage, crop=CropState("cabbage", days_to_harvest=60))
        self.assertEqual(decision.kind, "act now")
        offered = {choice.control for choice in decision.choices if choice.offered}
        self.assertIn("spinosad-drench", offered)
        self.assertNotIn("nematodes-root", offered, "they kill young maggots, which were due in May")


class LookFirst(unittest.TestCase):
    def test_unconfirmed_looks_again(self) -> None:
        decision = decide(replace(MITE, confirmed=False, next_look="lens-on-underside"), many(30))
        self.assertEqual(decision.kind, "look again")
        self.assertEqual(decision.choices, ())

    def test_uncounted_counts_first(self) -> None:
        self.assertEqual(decide(sample=None).kind, "look again")

    def test_limits_on_both_sides_count_more(self) -> None:
        decision = decide(sample=Sample("leaf", (0, 14, 3, 9, 1)))
        self.assertEqual(decision.kind, "look again")


class Act(unittest.TestCase):
    def test_above_the_threshold_the_policy_orders_the_choices(self) -> None:
        first = decide(sample=many(12), policy=Policy(order=("living", "soft", "conventional"))).choices
        self.assertEqual(first[0].control, "release-predatory-mites")
        refused = {choice.control: choice for choice in decide(sample=many(12), policy=Policy(refuses=frozenset({"conventional"}))).choices}
        self.assertFalse(refused["acequinocyl"].offered)

    def test_a_window_ahead_is_waited_for(self) -> None:
        moth = Finding("codling-moth", "named", 0.95, True, "active")
        span = (TODAY + dt.timedelta(days=5), TODAY + dt.timedelta(days=20))
        windows = {"granulovirus": span, "chlorantraniliprole": span}
        policy = Policy(order=("living", "conventional"))
        decision = decide(
            moth,
            Sample("trap", (8, 9, 7, 8), (), "trap"),
            StageNow({}, TODAY, span, windows=windows),
            crop=CropState("pear"),
            policy=policy,
        )
        self.assertEqual(decision.kind, "act in window")
        self.assertEqual((decision.headline.facts["first"], decision.headline.facts["last"]), span)

    def test_harvest_and_flowers_close_choices(self) -> None:
        beetle = Finding("colorado-potato-beetle", "named", 0.95, True, "active")
        larvae = StageNow({"larva": 0.9}, TODAY)
        sample = Sample("plant", (5, 4, 6, 5, 7, 5) * 2)
        near = {choice.control: choice for choice in decide(beetle, sample, larvae, crop=CropState("potato", days_to_harvest=5)).choices}
        self.assertFalse(near["chlorantraniliprole"].offered)
        self.assertTrue(near["pick-beetles"].offered)
        bloom = {choice.control: choice for choice in decide(beetle, sample, larvae, crop=CropState("potato", 60, in_flower=True)).choices}
        self.assertEqual(bloom["spinosad"].reason.kind, Says.CONTROL_BEES)

    def test_what_works_on_small_ones_is_not_offered_where_most_are_large(self) -> None:
        """Common practice: what has to be eaten kills the first instars, large larvae live on."""
        asked = default().agent("diamondback-moth").control("bt-kurstaki").needs_absent
        moth = Finding("diamondback-moth", "named", 0.95, True, "active", absent=frozenset(asked))
        for ages, reason in (
            ({}, Says.CONTROL_TIMING),
            ({"small": 4, "large": 8}, Says.CONTROL_LARGE),
            ({"small": 8, "large": 8}, Says.CONTROL_TIMING),
            # Nine say nothing yet.
            ({"large": 9}, Says.CONTROL_TIMING),
            ({"eggs": 40, "large": 12}, Says.CONTROL_LARGE),
        ):
            sample = Sample("plant", (3,) * 40, ages=ages)
            choices = {choice.control: choice.reason.kind for choice in decide(moth, sample, crop=CropState("cabbage", 60)).choices}
            self.assertEqual(choices["bt-kurstaki"], reason, ages)
            self.assertNotIn(Says.CONTROL_LARGE, [kind for control, kind in choices.items() if control != "bt-kurstaki"])

    def test_small_larvae_in_the_hand_open_a_window_that_a_model_has_closed(self) -> None:
        beetle, last = Finding("colorado-potato-beetle", "named", 0.95, True, "active"), TODAY - dt.timedelta(days=3)
        stage = StageNow({"larva": 0.9}, TODAY, windows={"spinosad": (last - dt.timedelta(days=6), last)})
        for ages, reason in (
            ({}, Says.CONTROL_LATE),
            ({"small": 30, "large": 5}, Says.CONTROL_TIMING),
            ({"large": 30}, Says.CONTROL_LARGE),
        ):
            sample = Sample("plant", (4,) * 20, ages=ages)
            choices = {choice.control: choice.reason.kind for choice in decide(beetle, sample, stage, crop=CropState("potato", 60)).choices}
            self.assertEqual(choices["spinosad"], reason, ages)

    def test_cautions_come_with_every_control(self) -> None:
        decision = decide(sample=many(12), crop=CropState("raspberry", days_to_harvest=60))
        self.assertEqual(decision.cautions[0], call.LABEL_FIRST)
        cautions = [caution.facts.get("caution") for caution in decision.cautions]
        self.assertIn("The label is the law: crop, rate, number and harvest interval.", cautions)


class Laws(unittest.TestCase):
    @given(
        st.sampled_from(sorted(default().agents)),
        st.sampled_from(["named", "needs a look", "cannot tell"]),
        st.booleans(),
        st.sampled_from(["active", "finished", "not known"]),
        st.lists(st.integers(0, 30), max_size=12),
    )
    def test_only_confirmed_pests_are_acted_on(self, agent: str, verdict: str, confirmed: bool, activity: str, counts: list[int]) -> None:
        sample = Sample("unit", tuple(counts)) if counts else None
        decision = decide(Finding(agent, verdict, 0.9, confirmed, activity), sample, crop=CropState("pear"))
        self.assertIn(decision.kind, DECISIONS)
        if decision.kind in ACTING and default().agent(agent).is_pest:
            self.assertTrue(confirmed and verdict == "named")
            # What can hurt people is kept off without a count; live ones that were counted are not over.
            self.assertTrue(default().agent(agent).hurts or (counts and (activity != "finished" or sum(counts))))
        self.assertTrue(decision.reasons_for or decision.reasons_against or decision.would_change)


class InjuryLevel(unittest.TestCase):
    def test_formula(self) -> None:
        # EIL = C / (V I D K): 24 per ha, 0.2 per kg, 0.5 injury units, 30 kg lost a unit, 0.8 averted.
        self.assertAlmostEqual(call.economic_injury_level(24, 0.2, 0.5, 30, 0.8), 24 / (0.2 * 0.5 * 30 * 0.8))

    @given(st.floats(0.1, 100), st.floats(0.1, 100), st.floats(1.1, 5))
    def test_dearer_control_waits_longer_and_dearer_crops_less(self, cost: float, value: float, times: float) -> None:
        base = call.economic_injury_level(cost, value, 1, 1, 0.9)
        self.assertGreater(call.economic_injury_level(cost * times, value, 1, 1, 0.9), base)
        self.assertLess(call.economic_injury_level(cost, value * times, 1, 1, 0.9), base)

    def test_refusals(self) -> None:
        for terms in ((0, 1, 1, 1, 0.5), (1, 1, 1, 1, 1.2)):
            with self.assertRaises(ValueError):
                call.economic_injury_level(*terms)
