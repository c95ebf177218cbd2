"""Schools of control: what each leaves, and that none keeps anybody from reporting."""

import unittest

from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import REPORT
from bootmark.core.field import call, schools
from bootmark.core.field.choices import choices
from bootmark.core.field.schools import POLICIES, School
from bootmark.core.meanings import Activity, ControlKind, DecisionKind, VerdictKind
from bootmark.core.messages import Says
from bootmark.core.types import CropState, Decision, Finding, Policy, Sample, StageNow

CATALOGUE = default()
CROPS = ("pear", "potato", "cabbage", "rose")


class Schools(unittest.TestCase):
    def test_every_school_is_told_and_uses_each_kind_or_refuses_it(self) -> None:
        self.assertEqual(set(POLICIES), set(School))
        for school, policy in POLICIES.items():
            used = {kind for kind in ControlKind if policy.uses(kind)}
            self.assertEqual(used | policy.refuses, set(ControlKind), school)
            self.assertFalse(used & policy.refuses, school)

    def test_from_nature_to_conventional_more_is_left(self) -> None:
        steps = (School.NATURE, School.HAND, School.SOFT, School.CONVENTIONAL)
        left = [schools.reach(POLICIES[school], CROPS, CATALOGUE) for school in steps]
        self.assertEqual([reach.controls for reach in left], sorted(reach.controls for reach in left))
        self.assertEqual((left[0].controls, left[0].bare), (0, left[0].pests))
        self.assertEqual((left[-1].controls, left[-1].bare), (left[-1].of, 0))
        self.assertEqual({reach.pests for reach in left}, {left[0].pests})

    def test_no_crops_have_no_pests(self) -> None:
        self.assertEqual(schools.reach(POLICIES[School.SOFT], (), CATALOGUE), schools.Reach(0, 0, 0, 0))


class Called(unittest.TestCase):
    def decided(self, school: School, agent: str = "two-spotted-spider-mite", crop: str = "raspberry", region: str = "") -> Decision:
        verdict = VerdictKind.MUST_BE_REPORTED if region else VerdictKind.NAMED
        finding = Finding(agent, verdict, 0.99, True, Activity.ACTIVE)
        sample = Sample("leaf", (30,) * 20)
        state = CropState(crop, days_to_harvest=60, month=7, region=region)
        return call.decide(finding, StageNow(), sample, None, None, state, POLICIES[school], catalogue=CATALOGUE)

    def test_what_is_left_to_nature_is_left(self) -> None:
        decision = self.decided(School.NATURE)
        self.assertEqual((decision.kind, decision.headline.kind), (DecisionKind.LEAVE, Says.CALL_NATURE))
        self.assertFalse(any(choice.offered for choice in decision.choices))

    def test_a_certifier_s_list_rules_beside_what_it_lists_and_only_there(self) -> None:
        cautions = {
            school: {caution.kind for caution in self.decided(school).cautions} for school in (School.ORGANIC, School.SOFT, School.HAND)
        }
        self.assertIn(Says.CERTIFIER, cautions[School.ORGANIC])
        self.assertNotIn(Says.CERTIFIER, cautions[School.SOFT] | cautions[School.HAND])

    def test_nothing_of_a_kind_that_a_school_refuses_is_offered(self) -> None:
        for school, policy in POLICIES.items():
            for choice in self.decided(school).choices:
                kind = CATALOGUE.agent("two-spotted-spider-mite").control(choice.control).kind
                self.assertFalse(choice.offered and not policy.uses(kind), (school, choice.control))

    def test_no_school_keeps_from_reporting(self) -> None:
        for school in School:
            decision = self.decided(school, "plum-curculio", "pear", "AT")
            self.assertEqual(decision.kind, DecisionKind.REPORT, school)
            offers = choices(CATALOGUE.agent("plum-curculio"), StageNow(), CropState("pear", region="AT"), POLICIES[school])
            self.assertEqual([choice.control for choice in offers if choice.control == REPORT and choice.offered], [REPORT])

    def test_a_policy_of_its_own_is_no_school(self) -> None:
        self.assertFalse(Policy().to_nature or Policy(order=()).to_nature)
        self.assertEqual([school for school, policy in POLICIES.items() if policy.to_nature], [School.NATURE])
