"""The call and the count at their limits: on the last day, at the threshold itself, with just as many as are wanted."""

import datetime as dt
import math
import unittest
from dataclasses import replace

from scipy import stats

from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.field import call, count
from bootmark.core.field.choices import choices as offers
from bootmark.core.meanings import Activity, Chosen, ControlKind, DecisionKind, LimitMethod, Measure
from bootmark.core.messages import Says
from bootmark.core.types import Choice, CropState, Decision, Done, Finding, Policy, Sample, StageNow, Threshold

TODAY = dt.date(2026, 6, 18)
DAY = dt.timedelta(days=1)
BEETLE = default().agent("colorado-potato-beetle")
MITE = Finding("two-spotted-spider-mite", "named", 0.95, True, "active")
POTATO = CropState("potato", days_to_harvest=60)
LARVAE = StageNow({"larva": 0.9}, TODAY)
MANY = Sample("leaf", (12, 14, 10, 13, 11) * 4)
SPRAYS = Policy(order=(ControlKind.SOFT, ControlKind.CONVENTIONAL))


def choices(stage: StageNow = LARVAE, crop: CropState = POTATO) -> dict[str, Choice]:
    return {choice.control: choice for choice in offers(BEETLE, stage, crop, Policy())}


def decide(sample: Sample | None, stage: StageNow | None = None, finding: Finding = MITE, **more: object) -> Decision:
    crop, policy = more.get("crop", CropState("raspberry")), more.get("policy", Policy())
    assert isinstance(crop, CropState) and isinstance(policy, Policy)
    return call.decide(finding, stage or StageNow(today=TODAY), sample, None, None, crop, policy)


class InHand(unittest.TestCase):
    def test_all_grown_are_adults_and_anything_else_feeds(self) -> None:
        bare = Finding("colorado-potato-beetle", "named", 0.95, True, "active")
        for ages, stages in (
            ({}, {"larva"}),
            ({"adults": 10}, {"adult"}),
            ({"adults": 9}, {"larva"}),
            ({"adults": 8, "large": 2}, {"larva"}),
            ({"eggs": 50, "adults": 10}, {"adult"}),
        ):
            self.assertEqual(call.in_hand(bare, BEETLE, Sample("plant", (2,) * 5, ages=ages)).stages, stages, ages)
        seen = replace(bare, stages=frozenset({"egg"}))
        self.assertEqual(call.in_hand(seen, BEETLE, Sample("plant", (2,) * 5, ages={"adults": 10})).stages, {"egg"})
        self.assertEqual(call.in_hand(bare, BEETLE, Sample("trap", (9,), measure=Measure.TRAP)).stages, frozenset())
        self.assertEqual(call.in_hand(bare, BEETLE, Sample("trap", (9,), measure=Measure.DISRUPTED)).stages, frozenset())

    def test_ages_speak_from_ten_told_apart_on(self) -> None:
        bare = Finding("colorado-potato-beetle", "named", 0.95, True, "active")
        for small, large, share in ((0, 9, None), (0, 10, 1.0), (5, 5, 0.5), (9, 0, None), (10, 0, 0.0)):
            ages = {"small": small, "large": large}
            self.assertEqual(call.in_hand(bare, BEETLE, Sample("plant", (5,) * 5, ages=ages)).large, share, ages)


class Kinds(unittest.TestCase):
    def test_a_spot_changes_a_spray_alone(self) -> None:
        told = {kind: call.on_spot(kind) for kind in DecisionKind}
        self.assertEqual({kind for kind, spot in told.items() if spot != kind}, {DecisionKind.ACT_NOW})
        self.assertEqual(told[DecisionKind.ACT_NOW], DecisionKind.SPOT_TREAT)

    def test_an_attack_is_over_at_its_very_share(self) -> None:
        for activity, gone, share in (("dead", "dead", judgement.DEAD_SHARE), ("parasitised", "parasitised", judgement.PARASITISED_SHARE)):
            ended = round(share * 100)
            for more, kind in ((0, Says.CALL_OVER), (-1, None)):
                sample = Sample("leaf", (5,) * ((100 - ended) // 5), **{gone: ended + more})
                headline = decide(sample, finding=replace(MITE, activity=Activity(activity))).headline.kind
                self.assertEqual(headline == Says.CALL_OVER, kind == Says.CALL_OVER, (activity, more))

    def test_what_was_looked_at_is_said(self) -> None:
        """Plants by a sample, all of them, or traps."""
        moth = Finding("codling-moth", "named", 0.95, True, "active")
        few = Sample("leaf", (0,) * 20 + (1,))
        for sample, finding, said in (
            (few, MITE, Says.COUNTED),
            (replace(few, chosen=Chosen.ALL), MITE, Says.COUNTED_ALL),
            (Sample("trap", (8, 9), measure=Measure.TRAP), moth, Says.CAUGHT),
        ):
            reasons = decide(sample, finding=finding, crop=CropState("apple", 60)).reasons_for
            self.assertIn(said, [reason.kind for reason in reasons])

    def test_whose_order_it_was_is_said(self) -> None:
        for policy, headline in ((Policy(), Says.CALL_NOW_ADVISED), (SPRAYS, Says.CALL_NOW)):
            self.assertEqual(decide(MANY, policy=policy).headline.kind, headline)

    def test_what_only_mars_is_left_below_the_line_of_a_count(self) -> None:
        """A trap's catch is no number of blemishes."""
        agent = next(agent for agent in default().agents.values() if agent.cosmetic and agent.sampling and agent.is_pest)
        caught = replace(agent.thresholds[0], measure=Measure.TRAP, value=77.0, crop="nothing")
        catalogue = default()
        own = replace(catalogue, agents={**catalogue.agents, agent.id: replace(agent, thresholds=(caught, *agent.thresholds))})
        finding, crop = Finding(agent.id, "named", 0.95, True, "active"), CropState(next(iter(agent.hosts)), 60)
        decision = call.decide(finding, StageNow(today=TODAY), None, None, None, crop, Policy(), catalogue=own)
        below = [reason.facts["value"] for reason in decision.would_change if reason.kind == Says.COSMETIC_BELOW]
        self.assertEqual(below, [agent.thresholds[0].value])


class Offers(unittest.TestCase):
    def test_a_control_is_offered_on_the_last_day_of_its_window_and_late_on_the_next(self) -> None:
        for last, reason in ((TODAY, Says.CONTROL_TIMING), (TODAY - DAY, Says.CONTROL_LATE)):
            spinosad = choices(StageNow({}, TODAY, windows={"spinosad": (TODAY - 9 * DAY, last)}))["spinosad"]
            self.assertEqual((spinosad.offered, spinosad.reason.kind), (last == TODAY, reason))
        self.assertEqual(spinosad.reason.facts["on"], last)

    def test_a_stage_is_present_from_one_in_ten_on(self) -> None:
        for share, offered in ((judgement.PRESENT_SHARE, True), (judgement.PRESENT_SHARE - 0.01, False)):
            self.assertEqual(choices(StageNow({"adult": 0.8, "larva": share}, TODAY))["spinosad"].offered, offered)
        self.assertTrue(choices(StageNow({}, TODAY))["spinosad"].offered, "no stage is known: none speaks against it")

    def test_the_interval_to_harvest_may_just_be_kept(self) -> None:
        for days, offered in ((14, True), (13, False)):
            product = choices(crop=replace(POTATO, days_to_harvest=days))["chlorantraniliprole"]
            self.assertEqual(product.offered, offered)
        self.assertEqual(
            (product.reason.kind, product.reason.facts["days"], product.reason.facts["wanted"]), (Says.CONTROL_HARVEST, 13, 14)
        )

    def test_flowers_close_only_what_harms_bees(self) -> None:
        self.assertEqual([choices(crop=replace(POTATO, in_flower=bloom))["spinosad"].offered for bloom in (False, True)], [True, False])
        self.assertTrue(choices(crop=replace(POTATO, in_flower=True))["chlorantraniliprole"].offered)


class Waits(unittest.TestCase):
    """When the next look is booked."""

    def test_a_threshold_that_comes_soon_shortens_the_wait(self) -> None:
        few = Sample("leaf", (0, 1, 0, 0, 1) * 4)
        for comes, days in ((None, 7), (9.0, 7), (7.0, 6), (6.5, 6), (4.0, 3), (1.0, 1), (0.5, 1)):
            decision = decide(few, StageNow(today=TODAY, days_to_threshold=comes))
            self.assertEqual((decision.headline.kind, decision.look_again_days), (Says.CALL_FEW, days), comes)
            self.assertEqual([why.kind for why in decision.reasons_against], [Says.PASSES_SOON] if comes and comes <= 7 else [])

    def test_close_to_the_threshold_growth_decides_when_to_count_again(self) -> None:
        # Four mites a leaf at 30 C double in two days: they pass five tomorrow.
        wide = Sample("leaf", (0, 14, 3, 2, 1) * 2)
        for comes, days in ((None, judgement.CLOSE_LOOK_DAYS), (1.0, 1), (2.5, 2)):
            decision = decide(wide, StageNow(today=TODAY, days_to_threshold=comes))
            self.assertEqual((decision.headline.kind, decision.look_again_days), (Says.CALL_CLOSE, days))

    def test_each_call_has_its_own(self) -> None:
        wide = Sample("leaf", (0, 14, 3, 9, 1) * 2)
        cosmetic = Finding("citrus-leafminer", "named", 0.95, True, "active")
        harmless = Finding("leafcutter-bee", "named", 0.95, True)
        for decision, headline, days in (
            (decide(None), Says.CALL_COUNT, 1),
            (decide(MANY, finding=replace(MITE, confirmed=False)), Says.CALL_UNPROVED, 1),
            (decide(MANY, finding=replace(MITE, verdict="must be reported")), Says.CALL_REPORT, 1),
            (decide(wide), Says.CALL_CLOSE, judgement.CLOSE_LOOK_DAYS),
            (decide(None, finding=replace(MITE, activity="finished")), Says.CALL_OVER, judgement.OVER_LOOK_DAYS),
            (decide(MANY, finding=cosmetic), Says.CALL_COSMETIC, judgement.HARMLESS_LOOK_DAYS),
            (decide(MANY, finding=harmless), Says.CALL_HARMLESS, judgement.HARMLESS_LOOK_DAYS),
            (decide(replace(MANY, enemies=(2,) * 20)), Says.CALL_HELP, judgement.HELPED_LOOK_DAYS),
        ):
            self.assertEqual((decision.headline.kind, decision.look_again_days), (headline, days))

    def test_where_nothing_may_be_used_picking_comes_first_within_two_weeks_and_an_adviser_beyond(self) -> None:
        conventional = Policy(order=(ControlKind.CONVENTIONAL,))
        beetle = Finding(BEETLE.id, "named", 0.95, True, "active")
        for days, kind, wait in ((13, "harvest first", 13), (1, "harvest first", 1)):
            decision = decide(MANY, LARVAE, beetle, crop=replace(POTATO, days_to_harvest=days), policy=conventional)
            self.assertEqual((decision.kind, decision.look_again_days), (kind, wait))
        for days, kind in ((14, "harvest first"), (60, "refer")):
            decision = decide(MANY, LARVAE, beetle, crop=replace(POTATO, days_to_harvest=days), policy=Policy(order=()))
            self.assertEqual(decision.kind, kind)
        far = decide(MANY, LARVAE, beetle, crop=replace(POTATO, days_to_harvest=15), policy=Policy(order=()))
        self.assertEqual((far.kind, far.look_again_days), ("refer", judgement.ADVISER_DAYS))

    def test_what_was_counted_is_there_whatever_the_model_says(self) -> None:
        """A model that says "not yet", or "over", denies no larva in the hand."""
        beetle = Finding(BEETLE.id, "named", 0.95, True, "active")
        first, second = TODAY + 4 * DAY, TODAY + 9 * DAY
        over = (TODAY - 20 * DAY, TODAY - 2 * DAY)
        for window, policy in (((first, second), SPRAYS), (over, Policy())):
            stage = StageNow({"egg": 1.0}, TODAY, window, windows={"spinosad": window, "chlorantraniliprole": window})
            self.assertEqual(decide(MANY, stage, beetle, crop=POTATO, policy=policy).kind, "act now")
        # Small larvae were due weeks ago: what kills only those is late, whatever stands there.
        late = [choice for choice in decide(MANY, stage, beetle, crop=POTATO).choices if choice.reason.kind == Says.CONTROL_LATE]
        self.assertEqual({choice.control for choice in late}, {"spinosad", "chlorantraniliprole"})

    def test_moths_in_a_trap_wait_for_the_window_and_are_late_after_it(self) -> None:
        moth = Finding("codling-moth", "named", 0.95, True)
        caught = Sample("trap", (12, 9, 14, 11), measure=Measure.TRAP)
        apple = CropState("apple", days_to_harvest=90)
        first, second = TODAY + 4 * DAY, TODAY + 9 * DAY
        ahead = StageNow({}, TODAY, (first, second), windows={"granulovirus": (first, second)})
        decision = decide(caught, ahead, moth, crop=apple, policy=Policy(order=(ControlKind.LIVING, ControlKind.SOFT)))
        self.assertEqual((decision.kind, decision.look_again_days), ("act in window", 4))
        ended = (TODAY - 20 * DAY, TODAY - 2 * DAY)
        decision = decide(caught, StageNow({}, TODAY, ended, windows={"granulovirus": ended}), moth, crop=apple)
        self.assertEqual((decision.headline.kind, decision.look_again_days), (Says.CALL_LATE, judgement.OVER_LOOK_DAYS))
        self.assertEqual(decision.reasons_against[-1].facts["on"], TODAY - 2 * DAY)

    def test_an_unknown_harvest_is_asked_for_before_anything_with_an_interval(self) -> None:
        beetle = Finding(BEETLE.id, "named", 0.95, True, "active")
        decision = decide(MANY, LARVAE, beetle, crop=replace(POTATO, days_to_harvest=None), policy=SPRAYS)
        self.assertEqual((decision.kind, decision.headline.kind), ("look again", Says.CALL_ASK_HARVEST))
        self.assertFalse(any(choice.offered for choice in decision.choices))
        # Nobody eats an elm: nothing waits for its harvest.
        elm = Finding("elm-leaf-beetle", "named", 0.95, True, "active")
        shoots = Sample("shoot", (1,) * 40, measure=Measure.PROPORTION)
        decision = decide(shoots, StageNow(today=TODAY), elm, crop=CropState("elm"), policy=Policy(order=(ControlKind.CONVENTIONAL,)))
        self.assertEqual(decision.kind, "act now")

    def test_the_most_welcome_control_leads(self) -> None:
        decision = decide(MANY)
        offered = [choice.control for choice in decision.choices if choice.offered]
        self.assertEqual(decision.headline.facts["control"], offered[0])
        self.assertEqual(decision.headline.facts["choices"], len(offered))
        self.assertNotEqual(offered[0], offered[-1])


class Acts(unittest.TestCase):
    """What kind of act a control is."""

    def test_living_ones_are_released_unless_they_are_sprayed(self) -> None:
        release = default().agent(MITE.agent).control("release-predatory-mites")
        now = StageNow(today=TODAY)
        for control, kind in (
            (release, "release"),
            (replace(release, tools=("sprayer",)), "act now"),
            (replace(release, kind=ControlKind.CULTURAL), "cultural act"),
            (replace(release, kind=ControlKind.SOFT), "act now"),
        ):
            self.assertEqual(call.act_kind(control, now), kind)

    def test_a_window_that_opens_today_is_not_waited_for(self) -> None:
        spinosad = BEETLE.control("spinosad")
        for first, kind in ((TODAY + DAY, "act in window"), (TODAY, "act now"), (TODAY - DAY, "act now")):
            self.assertEqual(call.act_kind(spinosad, StageNow({}, TODAY, (first, TODAY + 9 * DAY))), kind)

    def test_a_window_that_closes_today_is_not_over(self) -> None:
        beetle, last = Finding(BEETLE.id, "named", 0.95, True, "active"), (TODAY - 9 * DAY, TODAY)
        today = StageNow({}, TODAY, last, windows={"spinosad": last, "chlorantraniliprole": last})
        self.assertEqual(decide(MANY, today, beetle, crop=POTATO, policy=SPRAYS).kind, "act now")
        one_is_over = replace(today, windows={"spinosad": (TODAY - 9 * DAY, TODAY - DAY), "chlorantraniliprole": last})
        decision = decide(MANY, one_is_over, beetle, crop=POTATO, policy=SPRAYS)
        self.assertEqual((decision.kind, decision.headline.facts["control"]), ("act now", "chlorantraniliprole"))

    def test_what_is_no_pest_gets_its_own_remedy_and_a_disease_the_label(self) -> None:
        for agent in ("water-shortage", "apple-scab"):
            entry = default().agent(agent)
            finding = Finding(agent, "not a pest", 0.9, True, seen=frozenset({"soil-dry-a-finger-deep"}))
            decision = decide(None, finding=finding, crop=CropState("apple"))
            remedy = entry.control(decision.choices[0].control)
            self.assertTrue(decision.choices[0].offered)
            self.assertIn(remedy.kind, (ControlKind.CULTURAL, ControlKind.PHYSICAL))
            first = next(control for control in entry.controls if control.kind in (ControlKind.CULTURAL, ControlKind.PHYSICAL))
            self.assertEqual(remedy.id, first.id)
            self.assertEqual(decision.cautions[0], call.LABEL_FIRST)

    def test_the_cautions_of_a_disease_s_remedy_come_with_it(self) -> None:
        decision = decide(None, finding=Finding("fire-blight", "not a pest", 0.9, True), crop=CropState("pear"))
        remedy = default().agent("fire-blight").control(decision.choices[0].control)
        self.assertTrue(remedy.cautions)
        self.assertEqual([caution.facts["caution"] for caution in decision.cautions[1:]], list(remedy.cautions))

    def test_what_has_only_sprays_is_referred_and_offers_none(self) -> None:
        scab = default().agent("apple-scab")
        sprays = tuple(control for control in scab.controls if control.kind in (ControlKind.SOFT, ControlKind.CONVENTIONAL))
        other = replace(default(), agents={**default().agents, scab.id: replace(scab, controls=sprays)})
        finding = Finding(scab.id, "not a pest", 0.9, True)
        decision = call.decide(finding, StageNow(today=TODAY), None, None, None, CropState("apple"), Policy(), catalogue=other)
        self.assertEqual((decision.kind, decision.choices), ("refer", ()))

    def test_a_threshold_of_another_measure_is_no_threshold(self) -> None:
        trap = Threshold(5.0, "trap", "moths per week", "this test")
        decision = call.decide(MITE, StageNow(today=TODAY), MANY, trap, None, CropState("raspberry"), Policy())
        self.assertEqual((decision.kind, decision.headline.kind), ("refer", Says.CALL_NO_THRESHOLD))

    def test_injury_needs_every_term_above_nothing_and_all_of_it_may_be_averted(self) -> None:
        self.assertEqual(call.economic_injury_level(10, 2, 1, 1, 1), 5)
        with self.assertRaises(ValueError):
            call.economic_injury_level(-1, 2, 1, 1, 1)


class Helpers(unittest.TestCase):
    def test_three_times_the_threshold_no_number_of_helpers_is_waited_for(self) -> None:
        for mites, kind in ((15, Says.CALL_HELP), (16, None)):
            decision = decide(Sample("leaf", (mites,) * 20, (mites,) * 20))
            self.assertEqual(decision.headline.kind == Says.CALL_HELP, kind == Says.CALL_HELP, mites)
            against = [reason.kind for reason in decision.reasons_against]
            self.assertEqual(Says.HELP_TOO_LATE in against, kind is None)

    def test_a_ratio_that_is_unsure_or_of_plants_and_not_of_pests_decides_nothing(self) -> None:
        # Fifteen predators on one leaf of twenty: three for each twenty mites, and most leaves have none.
        lumped = decide(Sample("leaf", (8,) * 20, (24, *[0] * 19)))
        self.assertIn(Says.HELP_UNSURE, [change.kind for change in lumped.would_change])
        self.assertNotEqual(lumped.headline.kind, Says.CALL_HELP)
        shares = Threshold(0.3, "proportion", "of leaves", "this test")
        sample = Sample("leaf", (1, 0) * 20, (5, 5) * 20, "proportion")
        decision = call.decide(MITE, StageNow(today=TODAY), sample, shares, None, CropState("raspberry"), Policy())
        self.assertNotEqual(decision.headline.kind, Says.CALL_HELP)

    def test_ten_units_and_ten_animals_are_enough_to_be_held_by_just_the_wanted_ratio(self) -> None:
        """Ten leaves, a hundred mites, ten predators: the ratio of 0.1 that holds them."""
        held = decide(Sample("leaf", (10,) * 10, (1,) * 10))
        self.assertEqual(held.headline.kind, Says.CALL_HELP)
        fewer = decide(Sample("leaf", (10,) * 10, (1,) * 9 + (0,)))
        self.assertNotEqual(fewer.headline.kind, Says.CALL_HELP)

    def test_nine_units_or_nine_animals_decide_nothing(self) -> None:
        line = Threshold(0.5, "mean", "mites per leaf", "this test")
        for counts, enemies, kind in (
            ((10,) * 9, (9,) * 9, Says.MORE_UNITS),
            ((1, 0, 1, 0, 1, 0, 1, 0, 1, 0), (0, 1) * 4 + (0, 0), Says.HELP_TOO_FEW),
            ((1, 0, 1, 0, 1, 0, 1, 0, 1, 0), (1, 0) * 5, Says.HELP_FEWER),
        ):
            sample = Sample("leaf", counts, enemies)
            decision = call.decide(MITE, StageNow(today=TODAY), sample, line, None, CropState("raspberry"), Policy())
            self.assertIn(kind, [change.kind for change in decision.would_change], counts)

    def test_the_first_enemy_of_the_entry_is_the_one_that_is_asked_for(self) -> None:
        mite = default().agent(MITE.agent)
        ladybirds = replace(mite.enemies[0], agent="ladybirds", name="Ladybirds", ratio=9.0)
        other = replace(default(), agents={**default().agents, mite.id: replace(mite, enemies=(mite.enemies[0], ladybirds))})
        sample = replace(MANY, enemies=(2,) * 20)
        decision = call.decide(MITE, StageNow(today=TODAY), sample, None, None, CropState("raspberry"), Policy(), catalogue=other)
        self.assertEqual(decision.headline.kind, Says.CALL_HELP)

    def test_a_confirmed_one_at_work_is_said_to_be(self) -> None:
        for activity, kind in (("active", Says.CONFIRMED_ACTIVE), ("not known", Says.CONFIRMED)):
            decision = decide(MANY, finding=replace(MITE, activity=activity))
            self.assertEqual(decision.reasons_for[0].kind, kind)


class Counts(unittest.TestCase):
    def test_a_proportion_counts_units_that_have_any(self) -> None:
        limits = count.interval(Sample("plant", (0, 3, 0, 1, 0), (), "proportion"))
        reference = stats.binomtest(2, 5).proportion_ci(0.9, method="wilson")
        self.assertAlmostEqual(limits.estimate, 0.4)
        self.assertAlmostEqual(limits.low, reference.low)
        self.assertAlmostEqual(limits.high, reference.high)

    def test_a_mean_has_the_limits_of_a_reference_library(self) -> None:
        for counts in ((1, 0, 2, 1), (3, 9, 4, 6, 8, 2), (0, 0, 1)):
            mean, error = sum(counts) / len(counts), stats.sem(counts)
            low, high = stats.t.interval(0.9, len(counts) - 1, mean, error)
            limits = count.interval(Sample("leaf", counts))
            self.assertAlmostEqual(limits.low, max(0.0, low), places=9)
            self.assertAlmostEqual(limits.high, high, places=9)
            self.assertEqual(limits.method, LimitMethod.STUDENT)

    def test_equal_counts_vary_as_chance_would_have_them(self) -> None:
        """Four leaves with four each: a Poisson's error of the mean is the root of 4 / 4, t is 2.353 for three degrees."""
        limits = count.interval(Sample("leaf", (4,) * 4))
        self.assertEqual(limits.method, LimitMethod.POISSON_EQUAL)
        self.assertAlmostEqual(limits.low, 4 - 2.353, places=3)
        self.assertAlmostEqual(limits.high, 4 + 2.353, places=3)

    def test_enemies_without_pests_and_neither(self) -> None:
        for pests, enemies, ratio in (((0, 0), (0, 3), math.inf), ((0, 0), (0, 0), 0.0), ((4, 1), (), None)):
            self.assertEqual(count.enemy_ratio(Sample("leaf", pests, enemies)), ratio)

    def test_one_unit_tells_no_upper_limit(self) -> None:
        limits = count.interval(Sample("leaf", (7,)))
        self.assertEqual((limits.estimate, limits.low, limits.high, limits.units), (7, 0.0, math.inf, 1))


class AlreadyDone(unittest.TestCase):
    def test_what_is_never_counted_is_waited_for_too(self) -> None:
        pest = next(agent for agent in default().agents.values() if agent.is_pest and agent.sampling is None and agent.controls)
        done = Done(pest.id, pest.controls[0].id, TODAY, TODAY + dt.timedelta(days=5))
        finding = Finding(pest.id, "named", 0.95, True, "active")
        kinds = [
            call.decide(finding, StageNow(today=TODAY), None, None, None, CropState("rose", 60), Policy(), done=rows).headline.kind
            for rows in ((done,), ())
        ]
        self.assertEqual([kind == Says.CALL_WORKING for kind in kinds], [True, False])

    def test_what_is_a_matter_of_looks_is_acted_on_where_a_count_says_so(self) -> None:
        leafminer, larvae = Finding("citrus-leafminer", "named", 0.95, True, "active"), StageNow({"larva": 0.9}, TODAY)
        for sample, acts in ((None, False), (Sample("leaf", (1,) * 45 + (0,) * 5, (), "proportion"), True)):
            decision = call.decide(leafminer, larvae, sample, None, None, CropState("lemon", 90), Policy())
            self.assertEqual(decision.headline.kind != Says.CALL_COSMETIC, acts)

    def test_a_look_that_nobody_knows_asks_for_the_live_animal(self) -> None:
        for look, says_kind in (("lens-on-underside", Says.TAKE_LOOK), ("a-look-of-long-ago", Says.LIVE_PROOF), ("", Says.LIVE_PROOF)):
            finding = replace(MITE, confirmed=False, next_look=look)
            decision = call.decide(finding, StageNow(today=TODAY), None, None, None, CropState("raspberry"), Policy())
            self.assertEqual([change.kind for change in decision.would_change], [says_kind], look)

    def test_a_certifier_is_asked_only_where_what_is_offered_is_listed(self) -> None:
        for refuses, asked in ((frozenset(), True), (frozenset(set(ControlKind) - {ControlKind.PHYSICAL}), False)):
            policy = Policy(refuses=refuses, certified=True)
            decision = call.decide(MITE, StageNow(today=TODAY), MANY, None, None, CropState("raspberry", 90), policy)
            self.assertTrue(any(choice.offered for choice in decision.choices))
            self.assertEqual(Says.CERTIFIER in [caution.kind for caution in decision.cautions], asked, refuses)

    def test_what_was_done_is_waited_for_until_it_can_be_judged(self) -> None:
        soap = Done(MITE.agent, "insecticidal-soap", TODAY - dt.timedelta(days=1), TODAY + dt.timedelta(days=2))
        for done, day, waits in (
            ((soap,), TODAY, True),
            ((soap,), soap.judged_from, False),
            ((replace(soap, agent="codling-moth"),), TODAY, False),
            ((), TODAY, False),
        ):
            stage = StageNow(today=day)
            decision = call.decide(MITE, stage, MANY, None, None, CropState("raspberry"), Policy(), done=done)
            self.assertEqual(decision.headline.kind == Says.CALL_WORKING, waits, (done, day))
            if waits:
                self.assertEqual((decision.kind, decision.look_again_days), ("look again", 2))
                self.assertFalse(decision.choices)
