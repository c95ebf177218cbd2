"""Repeats of a treatment: the longest of what label, material and eggs ask; never past a season, a harvest, or the day that is too late."""

import datetime as dt
import unittest
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.catalogue.bbch import scale_of
from bootmark.core.catalogue.crop_heat import crops, read
from bootmark.core.catalogue.reader import CatalogueError
from bootmark.core.field import harvest
from bootmark.core.messages import Says
from bootmark.core.season import crop, killing, programme
from tests.core.test_season import MITE, MOTH, season, year

START = dt.date(2026, 7, 1)
WARM = [(18.0, 32.0)] * 40
SOAP = MITE.control("insecticidal-soap")
STICKY = replace(SOAP, id="insecticidal-soap", lasts_days=14, gap_days=5)


class Repeats(unittest.TestCase):
    def gaps(self, control: object = SOAP, **words: object) -> list[int]:
        plan = programme.build(MITE, control, START, WARM, **words)  # type: ignore[arg-type]
        return [step.gap for step in plan if step.kind == "treatment" and step.ordinal]

    def last_word(self, control: object, **words: object) -> Says:
        plan = programme.build(MITE, control, START, WARM, **words)  # type: ignore[arg-type]
        return plan[-1].why.kind

    def test_never_sooner_than_the_label_and_the_material_allow(self) -> None:
        self.assertEqual(programme.least_gap(STICKY), 14)
        self.assertEqual(programme.least_gap(replace(SOAP, gap_days=None)), judgement.UNKNOWN_GAP_DAYS)
        self.assertTrue(all(gap >= programme.least_gap(SOAP) for gap in self.gaps()))
        for agent in default().agents.values():
            for control in agent.controls:
                plan = programme.build(agent, control, START, WARM)
                repeats = [step.gap for step in plan if step.kind == "treatment" and step.ordinal]
                self.assertTrue(all(gap >= programme.least_gap(control) for gap in repeats), (agent.id, control.id))

    def test_no_more_than_the_season_allows(self) -> None:
        twice = replace(SOAP, season_most=2)
        self.assertEqual(len(self.gaps(twice)), 1)
        self.assertEqual(self.gaps(twice, done=1), [])
        self.assertEqual(self.last_word(twice, done=1), Says.REPEAT_NO_MORE)

    def test_never_past_the_harvest_less_its_interval(self) -> None:
        waits = replace(SOAP, harvest_days=7)
        picking = START + dt.timedelta(days=14)
        self.assertEqual(len(self.gaps(waits, harvest=picking)), 1)
        self.assertEqual(self.last_word(waits, harvest=picking), Says.REPEAT_PAST_HARVEST)
        self.assertEqual(len(self.gaps(waits, harvest=START + dt.timedelta(days=60))), 2)

    def test_too_late_is_said_and_not_sprayed(self) -> None:
        """Eggs spared today lay themselves in eight days of heat: two uses three weeks apart can't hold them."""
        slow = replace(SOAP, gap_days=21)
        self.assertEqual(self.gaps(slow), [])
        plan = programme.build(MITE, slow, START, WARM)
        self.assertEqual(plan[-1].why.kind, Says.REPEAT_TOO_LATE)
        self.assertLess(plan[-1].why.facts["latest"], 21)
        self.assertEqual(programme.latest_repeat(MOTH, WARM), None)

    def test_what_kills_grown_animals_follows_the_flight_and_not_the_hatch(self) -> None:
        flies = replace(SOAP, stages=("adult",), gap_days=6)
        self.assertEqual(self.gaps(flies), [6, 6])

    def test_two_best_days_lie_as_far_apart_as_the_material_lasts(self) -> None:
        outlook = season()
        control = replace(MOTH.control("granulovirus"), gap_days=None)
        for lasts in (7, 14):
            best = killing.best_days(outlook, MOTH, control, after=outlook.as_of, treatments=2, lasts_days=lasts)
            assert best and len(best.days) == 2
            self.assertGreaterEqual((best.days[1] - best.days[0]).days, lasts)

    @settings(max_examples=40)
    @given(st.lists(st.floats(0, 30), min_size=1, max_size=20), st.integers(1, 20))
    def test_protection_ends_with_its_days_with_rain_or_with_new_leaves(self, rain: list[float], lasts: int) -> None:
        control = replace(SOAP, lasts_days=lasts)
        days = programme.protected_days(control, rain)
        self.assertTrue(1 <= days <= lasts)
        if days < lasts:
            self.assertGreaterEqual(sum(rain[:days]), judgement.WASHED_OFF_MM)
        self.assertLessEqual(programme.protected_days(control, rain, [False, True]), max(2, min(2, lasts)))


class Harvest(unittest.TestCase):
    def test_picked_on_monday_and_wednesday_with_an_interval_of_a_day(self) -> None:
        monday, wednesday = dt.date(2026, 6, 15), dt.date(2026, 6, 17)
        after_picking, tuesday = (harvest.whole_days(day, wednesday) for day in (monday, monday + dt.timedelta(days=1)))
        assert after_picking is not None and tuesday is not None
        self.assertGreaterEqual(after_picking, 1)
        self.assertLess(tuesday, 1)

    def test_what_stock_eats_keeps_its_own_interval_and_an_unknown_is_no_nought(self) -> None:
        control = replace(SOAP, harvest_days=3, feed_days=14)
        self.assertEqual([harvest.wanted_days(control, *uses) for uses in ((True, False), (False, True), (True, True))], [3, 14, 14])
        unknown = replace(control, feed_days=None)
        self.assertEqual(harvest.wanted_days(unknown, False, True), judgement.UNKNOWN_HARVEST_DAYS)
        self.assertEqual([harvest.intervals_known(unknown, *uses) for uses in ((True, False), (True, True))], [True, False])
        self.assertEqual(harvest.wanted_days(control, False, False), 0)
        pasture = default().crops["pasture"]
        self.assertTrue(pasture.fed and not pasture.eaten)

    def test_once_picking_has_begun_and_none_is_booked_it_is_nought(self) -> None:
        self.assertEqual(harvest.whole_days(dt.date(2026, 6, 20), dt.date(2026, 6, 17)), 0)
        self.assertIsNone(harvest.whole_days(dt.date(2026, 6, 20), None))

    @settings(max_examples=50)
    @given(st.integers(0, 60), st.integers(0, 60))
    def test_who_waits_for_the_first_picking_has_kept_the_interval(self, days: int, wait: int) -> None:
        picking = START + dt.timedelta(days=wait)
        left = harvest.whole_days(START, picking)
        assert left is not None
        if days:
            self.assertEqual(left >= days, picking >= harvest.first_picking(START, days))


class Crops(unittest.TestCase):
    def test_stages_come_in_order_with_limits_and_a_note_takes_the_place_of_all_before(self) -> None:
        past = (year(2024, -1), year(2025, 1))
        for name, model in crops().items():
            sown = [] if model.month_day else [(dt.date(2026, 4, 20), 0)]
            as_of = dt.date(2026, 5, 20)
            dates = crop.foretell(model, year(2026, 0, 140), sown, past_years=past, as_of=as_of, latitude=46.0)
            middles = [stage.p50 for stage in dates if stage.p50]
            self.assertEqual(middles, sorted(middles), name)
            self.assertTrue(all(stage.p10 <= stage.p50 <= stage.p90 for stage in dates if stage.p10 and stage.p50 and stage.p90), name)
        apple = crops()["apple"]
        plain, noted = (
            {stage.code: stage for stage in crop.foretell(apple, year(2026, 0, 140), notes, past_years=past, as_of=as_of, latitude=46.0)}
            for notes in ([], [(dt.date(2026, 5, 18), 65)])
        )
        # Full flower was seen ten days after the model had it: what follows moves by about as much.
        assert plain[69].p50 and noted[69].p50
        self.assertTrue(4 <= (noted[69].p50 - plain[69].p50).days <= 14)
        self.assertNotIn(60, noted)

    def test_maize_is_told_as_its_hybrids_are(self) -> None:
        # A hybrid of 2,700 degree-days F (86/50) silks at about 1,400 and emerges at about 115 (extension tables, from memory).
        maize = crops()["maize"]
        self.assertEqual([round(maize.at(code) * 1.8) for code in (9, 65, 89)], [115, 1400, 2700])
        self.assertAlmostEqual(maize.at(63) * 1.8, 1365, delta=1)

    def test_without_a_note_a_sown_crop_is_not_foretold_and_the_south_is_half_a_year_away(self) -> None:
        self.assertIsNone(crop.starts(crops()["potato"], [], dt.date(2026, 5, 1), False))
        self.assertEqual(crop.starts(crops()["apple"], [], dt.date(2026, 10, 1), True), (dt.date(2026, 7, 1), 0.0))

    def test_every_code_is_a_step_of_its_scale(self) -> None:
        for name, model in crops().items():
            self.assertEqual(set(model.stages) - set(scale_of(name).steps), set(), name)

    def test_a_bad_table_is_refused_by_name(self) -> None:
        good = {"unit": "C", "lower": 7, "error": 0.1, "source": "memory", "stages": {"9": 100, "65": 500}}
        read("made-up", {**good})
        for wrong, words in (
            ({"stages": {"9": 500, "65": 100}}, "rise together"),
            ({"source": "a friend"}, "source"),
            ({"colour": 1}, "unknown"),
        ):
            with self.assertRaisesRegex(CatalogueError, words):
                read("made-up", {**good, **wrong})
