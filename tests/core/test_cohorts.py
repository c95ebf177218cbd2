"""Overlapping generations: laws of the simulation, and the trade's rule for contact treatments against mites coming out of it."""

import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.catalogue.lives import Life, Span, lives
from bootmark.core.season import cohorts, rates
from bootmark.core.season.cohorts import Kill

SPIDER_MITE = lives()["two-spotted-spider-mite"]

CONTACT = Kill({"nymph": 0.95, "young adult": 0.95, "adult": 0.95})
"""A contact spray that spares eggs."""


class Laws(unittest.TestCase):
    @settings(max_examples=20)
    @given(st.floats(5, 40), st.floats(0, 0.3))
    def test_numbers_stay_above_nothing_and_enemies_never_help(self, temp: float, eaten: float) -> None:
        start = cohorts.settled(SPIDER_MITE)
        free = cohorts.simulate(SPIDER_MITE, np.full(20, temp), start)
        held = cohorts.simulate(SPIDER_MITE, np.full(20, temp), start, eaten=eaten)
        for row in free.stages.values():
            self.assertTrue((row >= -1e-12).all())
        self.assertTrue((held.total <= free.total + 1e-12).all())

    def test_without_births_and_deaths_nobody_is_lost(self) -> None:
        life = Life(
            10, 30, 45, (Span("egg", 50, 5, False), Span("larva", 90, 9, True)), eggs=0.0, adult_heat=1e12, survive=1.0, source="made up"
        )
        start = np.zeros(15)
        start[0] = 1.0
        course = cohorts.simulate(life, np.full(40, 20.0), start)
        np.testing.assert_allclose(course.total[0], 1.0, atol=1e-9)
        self.assertGreater(course.stages["adult"][0, -1], 0.999)

    def test_a_stage_lasts_its_heat_on_average(self) -> None:
        # Mean of a sum of equal exponential delays: 50 degree-days at 10 a day are five days.
        life = Life(10, 30, 45, (Span("egg", 50, 10, False),), eggs=0.0, adult_heat=1e12, survive=1.0, source="made up")
        start = np.zeros(11)
        start[0] = 1.0
        still = cohorts.simulate(life, np.full(40, 20.0), start).stages["egg"][0]
        self.assertAlmostEqual(float(still.sum() - 0.5), 5.0, delta=0.15)

    def test_below_the_threshold_nothing_moves(self) -> None:
        start = cohorts.settled(SPIDER_MITE)
        course = cohorts.simulate(SPIDER_MITE, np.full(10, 8.0), start)
        np.testing.assert_allclose(course.total[0], 1.0)
        self.assertEqual(cohorts.doubling_days(SPIDER_MITE, 8.0), float("inf"))

    def test_what_is_refused(self) -> None:
        start = cohorts.settled(SPIDER_MITE)
        with self.assertRaises(ValueError):
            cohorts.simulate(SPIDER_MITE, np.full(10, 20.0), start, [(0, 3)])
        with self.assertRaises(ValueError):
            cohorts.best_schedule(SPIDER_MITE, np.full(10, 20.0), 3, CONTACT)


class Mites(unittest.TestCase):
    def test_it_doubles_faster_in_the_warm(self) -> None:
        days = [cohorts.doubling_days(SPIDER_MITE, temp) for temp in (15, 18, 22, 25, 28, 31)]
        self.assertEqual(days, sorted(days, reverse=True))
        # About two to four days at 25 C (memory of life tables; no single source).
        self.assertTrue(2 < days[3] < 4, days[3])

    def test_two_thirds_of_a_growing_population_are_eggs(self) -> None:
        # Stable age distribution of a growing colony: about 66 % eggs (Carey 1982, from memory).
        self.assertAlmostEqual(float(cohorts.settled(SPIDER_MITE, 25.0)[:12].sum()), 0.66, delta=0.05)

    def test_the_rule_of_thumb_comes_out_of_the_simulation(self) -> None:
        """Three treatments some days to a week apart in warm weather where eggs survive; longer gaps in the cool (common practice)."""
        warm = np.diff(cohorts.best_schedule(SPIDER_MITE, np.full(40, 25.0), 3, CONTACT))
        cool = np.diff(cohorts.best_schedule(SPIDER_MITE, np.full(80, 18.0), 3, CONTACT))
        self.assertTrue(((warm >= 3) & (warm <= 8)).all(), warm)
        self.assertTrue((cool > warm).all(), (warm, cool))

    def test_what_is_eaten_decides_and_not_heads_on_the_last_day(self) -> None:
        """In the cool 0, 14, 32 leaves the fewest on the last day and costs nearly twice the feeding of 0, 8, 16 until then."""
        temps, start = np.full(60, 18.0), cohorts.settled(SPIDER_MITE, 18.0)
        best = cohorts.best_schedule(SPIDER_MITE, temps, 3, CONTACT)
        course = cohorts.simulate(SPIDER_MITE, temps[:50], start, [best, (0, 14, 32), (0, 8, 16)], CONTACT)
        chosen, late, early = course.feeding
        self.assertGreater(late, 1.5 * early)
        self.assertLessEqual(chosen, early * 1.05)

    def test_heat_takes_eggs_and_young_and_not_pace_alone(self) -> None:
        whitefly = lives()["greenhouse-whitefly"]
        self.assertGreater(float(rates.heat(whitefly, 30.0)), 0.9 * float(rates.heat(whitefly, 25.0)))
        self.assertGreater(cohorts.doubling_days(whitefly, 30.0), 1.2 * cohorts.doubling_days(whitefly, 25.0))
        self.assertEqual([float(rates.vigour(whitefly, temp)) for temp in (20.0, whitefly.wanes, whitefly.barren, 45.0)], [1, 1, 0, 0])

    def test_one_treatment_alone_is_overtaken(self) -> None:
        start, temps = cohorts.settled(SPIDER_MITE, 25.0), np.full(30, 25.0)
        course = cohorts.simulate(SPIDER_MITE, temps, start, [(), (0,), (0, 6, 13)], CONTACT)
        none, once, thrice = course.total[:, 21]
        self.assertGreater(none, once)
        self.assertGreater(once, 20 * thrice)
