"""Biofixes, chained stages, wintering, sightings that re-anchor, and the best day for a control."""

import datetime as dt
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.special import ndtr
from scipy.stats import dirichlet_multinomial

from bootmark.core import judgement
from bootmark.core.catalogue import default
from bootmark.core.season import anchor, biofix, killing, phenology, shares
from bootmark.core.season.anchor import Sighting
from bootmark.core.season.biofix import Check
from bootmark.core.season.phenology import Season
from tests.core.test_season import BIOFIX, MOTH, year

WHITE = default().agent("imported-cabbageworm")
ARMY = default().agent("fall-armyworm")
assert MOTH.heat and WHITE.heat and ARMY.heat


def season(agent: str = "codling-moth", days_known: int = 170, **words: object) -> Season:
    heat = default().agent(agent).heat
    assert heat
    as_of = dt.date(2026, 1, 1) + dt.timedelta(days=days_known - 1)
    return phenology.forecast(
        heat,
        year(2026, 0.0, days_known),
        BIOFIX,
        past_years=(year(2024, -1), year(2025, 1)),
        as_of=as_of,
        **words,  # type: ignore[arg-type]
    )


class Biofixes(unittest.TestCase):
    def checks(self, *caught: int, every: int = 3) -> list[Check]:
        return [Check(dt.date(2026, 5, 1) + dt.timedelta(days=every * n), one) for n, one in enumerate(caught)]

    def test_one_stray_moth_is_no_biofix(self) -> None:
        # "First of two checks running with a catch" is how the trade tells a flight from a stray (common practice).
        self.assertIsNone(biofix.sustained_catch(self.checks(0, 1, 0, 0), 2, 10))
        biofix_day = biofix.sustained_catch(self.checks(0, 1, 0, 2, 3, 4), 2, 10)
        assert biofix_day
        self.assertEqual(biofix_day.on, dt.date(2026, 5, 10))
        self.assertEqual(biofix_day.why.facts["caught"], ("2", "3"))

    def test_checks_too_far_apart_do_not_count_as_running(self) -> None:
        self.assertIsNone(biofix.sustained_catch(self.checks(2, 3, every=14), 2, 10))

    def test_traps_of_one_day_are_one_check(self) -> None:
        day = dt.date(2026, 5, 4)
        self.assertIsNone(biofix.sustained_catch([Check(day, 1), Check(day, 2)], 2, 10))
        with self.assertRaises(ValueError):
            biofix.sustained_catch([], 0, 5)

    def test_each_trap_speaks_for_itself(self) -> None:
        """A moth in each of two traps is a stray in each, not two checks running."""
        day = dt.date(2026, 5, 4)
        apart = [Check(day, 1, "one"), Check(day + dt.timedelta(days=3), 0, "one"), Check(day, 0, "two")]
        apart.append(Check(day + dt.timedelta(days=3), 1, "two"))
        self.assertIsNone(biofix.sustained_catch(apart, 2, 10))
        proposal = biofix.sustained_catch([*apart, Check(day + dt.timedelta(days=6), 2, "two")], 2, 10)
        assert proposal
        self.assertEqual((proposal.since, proposal.on), (dt.date(2026, 5, 5), dt.date(2026, 5, 7)))

    def test_each_model_has_its_own_rule(self) -> None:
        # Nine moths or more in two nights begin the count for black cutworm; the first male for San Jose scale (from memory).
        cutworm, scale = (default().agent(agent).heat for agent in ("black-cutworm", "san-jose-scale"))
        assert cutworm and scale and MOTH.heat
        nightly = self.checks(0, 3, 4, 5, 0, every=1)
        found = biofix.sustained_catch(nightly, *cutworm.catch, least=cutworm.catch_least, nights=cutworm.catch_nights)
        assert found
        self.assertEqual((found.on, found.why.facts["caught"]), (dt.date(2026, 5, 4), 9))
        slow = self.checks(0, 12, every=6)
        self.assertIsNone(biofix.sustained_catch(slow, *cutworm.catch, least=cutworm.catch_least, nights=cutworm.catch_nights))
        heavy = biofix.sustained_catch(self.checks(0, 30, every=6), *cutworm.catch, least=9, nights=2)
        assert heavy
        self.assertEqual(heavy.since, dt.date(2026, 5, 2))
        first = biofix.sustained_catch(self.checks(0, 0, 1, 0), *scale.catch, least=scale.catch_least, nights=scale.catch_nights)
        assert first
        self.assertEqual(first.on, dt.date(2026, 5, 7))
        self.assertIsNone(biofix.sustained_catch(self.checks(0, 0, 1, 0), *MOTH.heat.catch))

    def test_the_calendar_turns_round_in_the_south(self) -> None:
        heat = default().agent("cabbage-maggot").heat
        assert heat
        self.assertEqual(biofix.calendar_day(heat, False, dt.date(2026, 6, 1)), dt.date(2026, 3, 1))
        self.assertEqual(biofix.calendar_day(heat, True, dt.date(2026, 6, 1)), dt.date(2025, 9, 1))
        assert MOTH.heat
        self.assertIsNone(biofix.calendar_day(MOTH.heat, False, dt.date(2026, 6, 1)))

    def test_the_crop_sets_it(self) -> None:
        assert MOTH.heat
        hangs = replace(MOTH.heat, biofix="crop", crop_code=65)
        noted = [(dt.date(2026, 4, 20), 61), (dt.date(2026, 5, 2), 67), (dt.date(2026, 5, 9), 69), (dt.date(2025, 4, 25), 65)]
        self.assertEqual(biofix.season_begins(dt.date(2026, 6, 18), False), dt.date(2026, 1, 1))
        # A southern season that began in spring goes on past new year.
        self.assertLess(biofix.season_begins(dt.date(2026, 1, 20), True), dt.date(2025, 9, 1))
        biofix_day = biofix.crop_event(hangs, noted, dt.date(2026, 1, 1))
        assert biofix_day
        self.assertEqual(biofix_day.on, dt.date(2026, 5, 2))
        self.assertIsNone(biofix.crop_event(MOTH.heat, noted, dt.date(2026, 1, 1)))


class Chains(unittest.TestCase):
    def test_generations_follow_each_other_by_the_published_sum(self) -> None:
        assert ARMY.heat
        at = {event.id: event.at for event in ARMY.heat.events}
        # du Plessis et al. (2020): egg to adult 391 degree-days C above 12.6.
        self.assertAlmostEqual(at["first-moths"] - at["first-eggs"], 390.8, delta=1.0)
        self.assertAlmostEqual(at["second-eggs"] - at["first-eggs"], 390.8 + 45, delta=1.0)
        spreads = [event.spread for event in ARMY.heat.events]
        self.assertEqual(spreads, sorted(spreads))

    @settings(max_examples=30)
    @given(st.floats(0, 3000), st.floats(0, 1500))
    def test_shares_add_to_one_with_and_without_winter(self, heat: float, held: float) -> None:
        assert WHITE.heat
        for value in (None, min(heat, held)):
            rows = shares.phases(heat, WHITE.heat, value)
            self.assertAlmostEqual(float(rows.sum()), 1.0, places=9)
            self.assertGreaterEqual(float(rows.min()), -1e-12)

    def test_nobody_who_comes_to_the_wintering_stage_after_its_day_leaves_it(self) -> None:
        outlook = season("imported-cabbageworm", 365)
        turn = outlook.index(dt.date(2026, 9, 1))
        for ordinal in ("first", "second", "third", "fourth"):
            on_that_day = float(outlook.passed[f"{ordinal}-pupae"][turn])
            self.assertLessEqual(float(outlook.passed[f"{ordinal}-butterflies"][-1]), on_that_day + 1e-6, ordinal)
        assert WHITE.heat
        free = replace(WHITE.heat, winter_stage="", winter_after=None)
        going_on = phenology.forecast(free, year(2026), BIOFIX, past_years=(year(2024),), as_of=dt.date(2026, 12, 31))
        self.assertGreater(outlook.shares["pupa"][-1], going_on.shares["pupa"][-1] + 0.05)


class Sightings(unittest.TestCase):
    day = dt.date(2026, 6, 10)

    def test_the_likelihood_is_the_libraries(self) -> None:
        expected = np.array([0.5, 0.3, 0.2])
        worth = (1 - judgement.CLUMPED) / judgement.CLUMPED
        for counts in ([3, 1, 0], [0, 0, 7]):
            theirs = float(dirichlet_multinomial.logpmf(counts, worth * expected, sum(counts)))
            coefficient = float(
                dirichlet_multinomial.logpmf(counts, [1e9 * p for p in expected], sum(counts)) - np.dot(counts, np.log(expected))
            )
            self.assertAlmostEqual(float(anchor.likelihood(counts, expected)), theirs - coefficient, places=4)

    def test_a_sighting_ahead_of_the_forecast_brings_its_dates_forward(self) -> None:
        before = season()
        ahead = season(sightings=[Sighting(self.day, {"adult": 2, "egg": 14, "larva": 24})])
        behind = season(sightings=[Sighting(self.day, {"adult": 40, "egg": 4})])
        hatch = {
            name: next(event.p50 for event in found.events if event.id == "hatch")
            for name, found in (("b", before), ("a", ahead), ("l", behind))
        }
        assert hatch["a"] and hatch["b"] and hatch["l"]
        self.assertLess(hatch["a"], hatch["b"])
        self.assertGreater(hatch["l"], hatch["b"])
        self.assertGreater(ahead.moved, 0)
        self.assertLess(behind.moved, 0)
        self.assertTrue(0 <= ahead.surer < 1)

    def test_it_counts_for_as_much_as_its_sample_is_worth(self) -> None:
        moved = [season(sightings=[Sighting(self.day, {"egg": n, "larva": 9 * n})]).moved for n in (1, 4, 30)]
        self.assertEqual(moved, sorted(moved))
        self.assertGreater(moved[2], 1.5 * moved[0])

    def test_one_that_fits_makes_surer_and_moves_little(self) -> None:
        plain = season()
        shown = {stage: share for stage, share in plain.on(self.day).items() if stage not in ("not yet", "over")}
        total = sum(shown.values())
        outlook = season(sightings=[Sighting(self.day, {stage: round(60 * share / total) for stage, share in shown.items()})])
        self.assertLess(abs(outlook.moved), 6)
        self.assertGreater(outlook.surer, 0.1)

    def test_shares_still_add_to_one(self) -> None:
        outlook = season(sightings=[Sighting(self.day, {"larva": 20})])
        np.testing.assert_allclose(sum(outlook.shares.values()), 1, atol=1e-9)

    def test_three_samples_move_it_most_of_the_way(self) -> None:
        """Forty animals on each of three days that stand 80 degree-days C ahead of the model, or behind it."""
        assert MOTH.heat
        plain, rng = season(), np.random.default_rng(3)
        stages = ("adult", "egg", "larva", "pupa")
        for off in (80.0, -80.0):
            samples = []
            for days in (0, 4, 8):
                on = self.day + dt.timedelta(days=days)
                rows = shares.by_stage(shares.phases(float(plain.heat[1][plain.index(on)]) + off, MOTH.heat), MOTH.heat)
                there = np.array([float(rows[stage]) for stage in stages])
                drawn = rng.multinomial(40, there / there.sum())
                samples.append(Sighting(on, dict(zip(stages, map(int, drawn), strict=True))))
            moved = season(sightings=samples)
            self.assertGreater(moved.moved / off, 0.6)
            self.assertLess(moved.chance, judgement.ODD_SIGHTING)

    def test_a_stage_that_nobody_looked_for_is_no_nought(self) -> None:
        looked, not_looked = (season(sightings=[Sighting(self.day, seen)]) for seen in ({"egg": 20, "larva": 0}, {"egg": 20}))
        self.assertLess(looked.moved, not_looked.moved - 3)
        self.assertLess(abs(not_looked.moved), 6)

    def test_what_can_not_be_is_said_and_not_swallowed(self) -> None:
        self.assertLess(season(sightings=[Sighting(self.day, {"pupa": 40})]).chance, 1 / 400)
        self.assertLess(season(sightings=[Sighting(self.day, {"egg": 1, "larva": 60})]).chance, 1 / 400)
        self.assertGreater(season(sightings=[Sighting(self.day, {"adult": 10, "egg": 9, "larva": 3})]).chance, 0.1)
        self.assertEqual(season().chance, 1.0)

    def test_generations_that_overlap_are_re_anchored_too(self) -> None:
        warm = dt.date(2026, 6, 15)
        plain = season("diamondback-moth")
        early = season("diamondback-moth", sightings=[Sighting(warm, {"egg": 2, "larva": 30, "pupa": 8}) for _ in range(2)])
        self.assertNotEqual(round(early.moved, 1), 0.0)
        self.assertNotEqual(early.on(warm), plain.on(warm))

    def test_one_outside_the_known_days_is_left_aside(self) -> None:
        self.assertEqual(season(sightings=[Sighting(dt.date(2026, 9, 1), {"larva": 20})]).moved, 0.0)

    def test_an_empty_one_is_refused(self) -> None:
        for counts in ({}, {"larva": 0}, {"larva": -1, "egg": 5}):
            with self.assertRaises(ValueError):
                Sighting(self.day, counts)


class Sources(unittest.TestCase):
    def test_every_date_says_where_its_heat_came_from(self) -> None:
        outlook = season()
        for event in outlook.events:
            self.assertAlmostEqual(sum(event.sources.values()), 1.0, places=6)
        self.assertGreater(outlook.events[0].sources["measured"], outlook.events[-1].sources["measured"])
        self.assertEqual(len(outlook.kinds), len(outlook.dates))


class BestDays(unittest.TestCase):
    def test_one_level_generation_by_hand(self) -> None:
        """Larvae feed from 100 to 200 degree-days; a control of a day that kills them all does best when most have come and few have fed."""
        outlook = season("codling-moth", 365)
        sure = replace(outlook, heat=np.tile(outlook.heat[1], (3, 1)))
        control = replace(MOTH.control("granulovirus"), at_events=(), phases=("hatch",), stages=("larva",))
        best = killing.best_days(sure, MOTH, control, after=BIOFIX, lasts_days=1, efficacy=1.0)
        assert best
        assert MOTH.heat
        events = {event.id: event for event in MOTH.heat.events}
        day = outlook.index(best.days[0])
        ranks = np.linspace(-2.2, 2.2, 200)
        weights = np.exp(-(ranks**2) / 2)

        def spared(on: int) -> float:
            here = [np.searchsorted(outlook.heat[1], events["hatch"].at - z * events["hatch"].spread) for z in ranks]
            gone = [np.searchsorted(outlook.heat[1], events["leaving"].at - z * events["leaving"].spread) for z in ranks]
            return float(sum(w * (g - on) for w, h, g in zip(weights, here, gone, strict=True) if h <= on < g) / weights.sum())

        around = max(range(day - 25, day + 25), key=spared)
        self.assertLessEqual(abs(around - day), 2)

    def test_a_longer_lasting_control_is_begun_earlier_and_spares_more(self) -> None:
        outlook = season("codling-moth", 365)
        control = replace(MOTH.control("granulovirus"), at_events=(), phases=("hatch",))
        short, long = (killing.best_days(outlook, MOTH, control, after=BIOFIX, lasts_days=n) for n in (1, 21))
        assert short and long
        self.assertLess(long.days[0], short.days[0])
        self.assertGreater(long.saved, short.saved)
        self.assertGreater(short.saved, short.on_first_day)

    def test_two_treatments_spare_more_than_one(self) -> None:
        outlook = season()
        control = MOTH.control("granulovirus")
        day_first, two = (killing.best_days(outlook, MOTH, control, after=outlook.as_of, treatments=n, lasts_days=7) for n in (1, 2))
        assert day_first and two
        self.assertEqual(len(set(two.days)), 2)
        self.assertGreater(two.saved, day_first.saved)
        self.assertLessEqual(two.saved, 1.0)

    def test_none_where_there_is_nothing_to_gain(self) -> None:
        outlook = season()
        self.assertIsNone(killing.best_days(outlook, default().agent("pear-psylla"), MOTH.control("granulovirus"), after=outlook.as_of))
        with self.assertRaises(ValueError):
            killing.best_days(outlook, MOTH, MOTH.control("granulovirus"), after=outlook.as_of, efficacy=0.0)

    def test_the_stages_that_feed_are_told_by_the_catalogue(self) -> None:
        self.assertEqual(default().agent("colorado-potato-beetle").feeds, ("larva",))
        for scale in ("pine-needle-scale", "oystershell-scale", "euonymus-scale", "san-jose-scale"):
            self.assertIn("adult", default().agent(scale).feeds, "females suck sap as their young do (common practice, no source)")
        for agent in default().agents.values():
            if agent.is_pest:
                self.assertTrue(agent.feeds and (agent.is_kind or set(agent.feeds) <= set(agent.stages)), agent.id)

    def test_ranks_are_the_models_own_spread(self) -> None:
        assert MOTH.heat
        event = MOTH.heat.events[2]
        self.assertAlmostEqual(float(shares.passed(event.at, MOTH.heat)[2]), float(ndtr(0.0)), places=9)
