"""What a person may call against the rules, and what no reason allows."""

import datetime as dt
import unittest
from dataclasses import replace

from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.field import call, overruled, proofs
from bootmark.core.meanings import Activity, ControlKind, DecisionKind, VerdictKind
from bootmark.core.messages import Says
from bootmark.core.types import CropState, Decision, Finding, Policy, Sample, StageNow

CATALOGUE = default()
MITE = "two-spotted-spider-mite"
FEW = Sample("leaf", (0, 1) * 20, (0,) * 40)
MANY = Sample("leaf", (30, 40) * 10, (0,) * 20)
PROVED = Finding(MITE, VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
FAR = CropState("raspberry", days_to_harvest=60, month=6)
TOUCHES_NOTHING = {DecisionKind.LEAVE, DecisionKind.LOOK_AGAIN, DecisionKind.SEND_A_SAMPLE, DecisionKind.REFER, DecisionKind.REPORT}


def overruling(
    finding: Finding, sample: Sample | None, crop: CropState = FAR, stage: StageNow | None = None
) -> tuple[Decision, overruled.Instead]:
    stage = stage or StageNow()
    decision = call.decide(finding, stage, sample, None, None, crop, Policy(), catalogue=CATALOGUE)
    return decision, overruled.instead(finding, stage, sample, crop, Policy(), decision, catalogue=CATALOGUE)


def may(
    finding: Finding = PROVED, sample: Sample | None = FEW, crop: CropState = FAR, policy: Policy | None = None
) -> tuple[DecisionKind, set[DecisionKind], set[str]]:
    """What is called, what may be called instead, and which controls may be carried out all the same."""
    policy = policy or Policy()
    decision = call.decide(finding, StageNow(), sample, None, None, crop, policy, catalogue=CATALOGUE)
    instead = overruled.instead(finding, StageNow(), sample, crop, policy, decision, catalogue=CATALOGUE)
    return decision.kind, {called.kind for called in instead.calls}, {choice.control for choice in instead.controls}


class Overruled(unittest.TestCase):
    def test_a_leave_may_become_a_control(self) -> None:
        kind, kinds, controls = may()
        self.assertEqual(kind, DecisionKind.LEAVE)
        self.assertIn("insecticidal-soap", controls)
        self.assertNotIn(DecisionKind.LEAVE, kinds)
        self.assertLessEqual({DecisionKind.LOOK_AGAIN, DecisionKind.REFER, DecisionKind.HARVEST_FIRST, DecisionKind.SALVAGE}, kinds)

    def test_an_act_may_be_left(self) -> None:
        kind, kinds, controls = may(sample=MANY)
        self.assertEqual(kind, DecisionKind.ACT_NOW)
        self.assertIn(DecisionKind.LEAVE, kinds)
        self.assertNotIn("insecticidal-soap", controls, "it is on offer already")

    def test_nothing_is_done_on_an_unproved_name(self) -> None:
        for finding in (replace(PROVED, confirmed=False), replace(PROVED, verdict=VerdictKind.CANNOT_TELL, confirmed=False)):
            _, kinds, controls = may(finding)
            self.assertEqual(controls, set())
            self.assertLessEqual(kinds, TOUCHES_NOTHING)

    def test_nothing_is_done_against_a_helper_or_what_is_over(self) -> None:
        ladybird = next(agent.id for agent in CATALOGUE.agents.values() if not agent.is_pest and "ladybird" in agent.id)
        self.assertEqual(may(replace(PROVED, agent=ladybird, verdict=VerdictKind.HELP_HAS_COME), None)[2], set())
        self.assertEqual(may(replace(PROVED, activity=Activity.DEAD), Sample("leaf", (0,) * 20))[2], set())

    def test_intervals_and_bees_stand_whoever_calls(self) -> None:
        agent = CATALOGUE.agent(MITE)
        _, _, controls = may(crop=replace(FAR, days_to_harvest=0, in_flower=True))
        for control in (agent.control(control) for control in controls):
            self.assertFalse(control.sprayed and control.harvest_days, control.id)
            self.assertNotIn("bees", control.harms, control.id)
        self.assertEqual(
            [control for control in may(crop=replace(FAR, days_to_harvest=None))[2] if agent.control(control).harvest_days], []
        )

    def test_only_what_is_eaten_is_harvested_first_and_only_what_may_be_listed_is_reported(self) -> None:
        self.assertIn(DecisionKind.HARVEST_FIRST, may()[1])
        bare = replace(PROVED, agent="bagworm")
        self.assertNotIn(DecisionKind.HARVEST_FIRST, may(bare, Sample("plant", (0,) * 30), CropState("birch", month=6))[1])
        kin = [agent.id for agent in CATALOGUE.agents.values() if proofs.listed_kin(agent, "raspberry", "", CATALOGUE)]
        mite = DecisionKind.REPORT in may()[1]
        self.assertEqual(mite, MITE in kin)
        fruit_fly = next(agent for agent in kin if CATALOGUE.agent(agent).is_pest)
        self.assertIn(DecisionKind.REPORT, may(replace(PROVED, agent=fruit_fly, confirmed=False), None)[1])

    def test_two_bottles_are_two_calls(self) -> None:
        bottles = [control.id for control in CATALOGUE.agent(MITE).controls if control.sprayed][:2]
        self.assertEqual(overruled.apart(MITE, tuple(bottles), CATALOGUE), tuple(bottles))
        self.assertFalse(any(CATALOGUE.agent(MITE).control(control).unsprayed for control in bottles))

    def test_what_speaks_against_a_control_stays_beside_it(self) -> None:
        for sample, reason in ((None, Says.CONTROL_COUNT_FIRST), (MANY, Says.CONTROL_TOO_MANY)):
            reasons = {choice.control: choice.reason.kind for choice in overruling(PROVED, sample)[1].controls}
            self.assertIn(reason, reasons.values())
            self.assertEqual({reasons[control] for control in reasons}, {reason})

    def test_no_reason_lifts_a_window_that_has_closed(self) -> None:
        today, moth = dt.date(2026, 8, 20), replace(PROVED, agent="codling-moth")
        closed = (today - dt.timedelta(40), today - dt.timedelta(20))
        agent = CATALOGUE.agent("codling-moth")
        staged = {control.id for control in agent.controls if control.stages}
        stage = StageNow(today=today, window=closed, windows=dict.fromkeys(staged, closed))
        crop = CropState("apple", days_to_harvest=60, month=8)
        lifted = {choice.control for choice in overruling(moth, None, crop, stage)[1].controls}
        self.assertFalse(lifted & staged, "past its window")
        open_now = {choice.control for choice in overruling(moth, None, crop)[1].controls}
        self.assertTrue(open_now & staged, "the same with no window known")

    def test_no_refusal_but_those_two_is_lifted(self) -> None:
        for sample in (None, FEW, MANY):
            for crop in (FAR, replace(FAR, days_to_harvest=1), replace(FAR, in_flower=True), replace(FAR, height=6.0, reach=2.0)):
                decision, instead = overruling(replace(PROVED, stages=frozenset({"egg"})), sample, crop)
                refused = {
                    choice.control for choice in decision.choices if not choice.offered and choice.reason.kind not in overruled.LIFTED
                }
                self.assertFalse(refused & {choice.control for choice in instead.controls})

    def test_each_call_books_the_look_that_is_its_own(self) -> None:
        looks = {called.kind: called for called in overruling(PROVED, MANY, replace(FAR, days_to_harvest=4))[1].calls}
        self.assertEqual(looks[DecisionKind.REFER].look_again_for.kind, Says.FOR_ADVISER)
        self.assertEqual(looks[DecisionKind.REFER].look_again_days, judgement.ADVISER_DAYS)
        self.assertEqual(looks[DecisionKind.HARVEST_FIRST].look_again_days, 4)
        self.assertEqual(looks[DecisionKind.LEAVE].look_again_days, judgement.INSTEAD_LOOK_DAYS)
        self.assertEqual(len(looks), len({called.follows.facts["decision_kind"] for called in looks.values()}))

    def test_a_living_one_out_of_a_sprayer_goes_along_with_nothing(self) -> None:
        virus = next(control for control in CATALOGUE.agent("codling-moth").controls if "granulo" in control.id)
        self.assertEqual((virus.kind, virus.unsprayed), (ControlKind.LIVING, False))

    def test_a_held_block_is_touched_by_nobody(self) -> None:
        _, kinds, controls = may(crop=replace(FAR, on_hold=True))
        self.assertEqual(controls, set())
        self.assertLessEqual(kinds, TOUCHES_NOTHING)

    def test_a_report_is_a_duty(self) -> None:
        beetle = replace(PROVED, agent="japanese-beetle", verdict=VerdictKind.MUST_BE_REPORTED)
        kind, kinds, controls = may(beetle, None)
        self.assertEqual((kind, kinds, controls), (DecisionKind.REPORT, set(), set()))

    def test_the_policy_is_changed_under_farm_and_not_at_a_stop(self) -> None:
        gentle = Policy((ControlKind.CULTURAL, ControlKind.PHYSICAL, ControlKind.LIVING))
        agent = CATALOGUE.agent(MITE)
        self.assertEqual([control for control in may(policy=gentle)[2] if agent.control(control).sprayed], [])

    def test_what_kills_what_the_other_brings_is_kept_apart(self) -> None:
        agent = CATALOGUE.agent(MITE)
        release = next(control for control in agent.controls if control.brings)
        kills = next(control for control in agent.controls if release.brings in control.harms)
        hose = next(control for control in agent.controls if control.kind in (ControlKind.CULTURAL, ControlKind.PHYSICAL))
        self.assertEqual(overruled.apart(MITE, (release.id, kills.id), CATALOGUE), (release.id, kills.id))
        self.assertIsNone(overruled.apart(MITE, (hose.id, release.id), CATALOGUE))
