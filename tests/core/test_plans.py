"""Whether a count was made as its plan has it."""

import unittest

from bootmark.core.catalogue import default
from bootmark.core.catalogue.model import Sampling
from bootmark.core.field import call
from bootmark.core.field.plans import in_part, off_plan
from bootmark.core.meanings import Activity, CountTool, DayPart, DecisionKind, Measure, OffPlan, VerdictKind
from bootmark.core.types import CropState, Finding, Policy, Sample, StageNow

NET = Sampling("sweep", Measure.MEAN, 40, "Forty sweeps.", "", "", tool=CountTool.NET, dry=True, least_temp=15.0)
TORCH = Sampling("plant", Measure.MEAN, 20, "By torch.", "", "", part=DayPart.NIGHT)
BY_EYE = Sampling("leaf", Measure.MEAN, 20, "By eye.", "", "")


class Plans(unittest.TestCase):
    def test_no_sweeping_wet_or_cold(self) -> None:
        self.assertIsNone(off_plan(NET, "", 14, 20.0, 0.0))
        self.assertEqual(off_plan(NET, "", 14, 20.0, 1.0), OffPlan.WET)
        self.assertEqual(off_plan(NET, "", 14, 14.9, 0.0), OffPlan.COLD)
        self.assertIsNone(off_plan(NET, "", 14), "weather that nobody knows accuses nobody")

    def test_night_feeders_are_counted_by_night(self) -> None:
        self.assertEqual([off_plan(TORCH, "", hour) for hour in (22, 3)], [None, None])
        self.assertEqual([off_plan(TORCH, "", hour) for hour in (9, 20)], [OffPlan.HOUR] * 2)

    def test_another_tool_does_not_do_but_a_lens_sees_what_the_eye_does(self) -> None:
        self.assertEqual(off_plan(NET, "tray", 14), OffPlan.TOOL)
        self.assertIsNone(off_plan(BY_EYE, "lens", 14))
        mites = default().agent("two-spotted-spider-mite").sampling
        assert mites
        self.assertEqual(off_plan(mites, "eye", 14), OffPlan.TOOL)

    def test_the_parts_of_a_day(self) -> None:
        hours = {part: {hour for hour in range(24) if in_part(part, hour)} for part in DayPart}
        self.assertEqual(len(hours[DayPart.ANY]), 24)
        self.assertFalse(hours[DayPart.MORNING] & hours[DayPart.EVENING] or hours[DayPart.MORNING] & hours[DayPart.NIGHT])
        self.assertIn(0, hours[DayPart.NIGHT])

    def test_what_does_not_hold_meets_no_threshold_either_way(self) -> None:
        mite = Finding("two-spotted-spider-mite", VerdictKind.NAMED, 0.99, True, Activity.ACTIVE)
        for counts in ((30,) * 20, (0,) * 40):
            for off in OffPlan:
                sample = Sample("leaf", counts, off=off)
                decision = call.decide(mite, StageNow(), sample, None, None, CropState("raspberry", 60), Policy())
                self.assertEqual(decision.kind, DecisionKind.LOOK_AGAIN, (counts, off))
                self.assertEqual([choice for choice in decision.choices if choice.offered], [])
