"""Heat models: what share an event is told for, stages that end, broods that follow, winters by day length, windows that close."""

import datetime as dt
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import norm

from bootmark.core import judgement
from bootmark.core.catalogue import default, loader
from bootmark.core.catalogue.heat import Event, Heat
from bootmark.core.meanings import BiofixKind, WindowClosed
from bootmark.core.season import openings, phenology, shares, weather
from bootmark.core.season.ahead import Weather
from bootmark.core.season.phenology import Season
from tests.core.test_season import year

MODELLED = [agent for agent in default().agents.values() if agent.heat and agent.heat.events]
NEW_YEAR = dt.date(2026, 1, 1)


def heat_of(agent: str) -> Heat:
    heat = default().agent(agent).heat
    assert heat
    return heat


def season(agent: str, biofix: dt.date = NEW_YEAR, warmer: float = 0.0, latitude: float | None = 46.0, **words: object) -> Season:
    past = (year(2024, warmer - 1), year(2025, warmer + 1))
    as_of = dt.date(2026, 12, 31)
    return phenology.forecast(heat_of(agent), year(2026, warmer), biofix, past_years=past, as_of=as_of, latitude=latitude, **words)  # type: ignore[arg-type]


class Quantiles(unittest.TestCase):
    def test_the_first_are_not_half(self) -> None:
        """Where a work tells the first beetle, half of them come a good deal later."""
        model = heat_of("emerald-ash-borer")
        first = next(event for event in model.events if event.id == "adults")
        self.assertEqual(first.quantile, judgement.QUANTILES["first"])
        self.assertAlmostEqual(float(norm.cdf(first.at, first.middle, first.spread)), first.quantile, places=9)
        self.assertAlmostEqual(float(shares.passed(first.at, model)[0]), first.quantile, places=9)

    def test_a_date_is_that_of_the_share_it_is_told_for(self) -> None:
        whole = season("pine-needle-scale")
        hatch = next(event for event in whole.events if event.id == "hatch")
        assert hatch.p50 and hatch.begins and hatch.ends
        self.assertAlmostEqual(float(whole.passed["hatch"][whole.index(hatch.p50)]), judgement.QUANTILES["first"], delta=0.06)
        self.assertLessEqual(hatch.p50, hatch.begins)
        self.assertLess(hatch.begins, hatch.ends)

    def test_no_text_of_an_event_carries_a_number_of_its_own(self) -> None:
        for agent in MODELLED:
            for event in agent.heat.events if agent.heat else ():
                self.assertNotRegex(event.name, r"\d", agent.id)

    def test_no_text_of_the_catalogue_tells_heat_in_a_unit_of_its_own(self) -> None:
        """Units are the farm's: a sum that stands in a sentence can't be turned into them."""
        for path in sorted(loader.HERE.rglob("*.toml")):
            if path.name not in ("lives.toml", "crop_heat.toml", "sources.toml"):
                self.assertNotRegex(path.read_text("utf-8"), r"degree-days|DD [CF]\b", path.name)

    def test_every_model_states_its_error_and_where_it_holds(self) -> None:
        for agent in MODELLED:
            assert agent.heat
            self.assertTrue(agent.heat.region, agent.id)
            caught = agent.heat.biofix == BiofixKind.CATCH
            self.assertTrue(0.05 <= agent.heat.error <= (0.08 if caught else 0.12), agent.id)

    def test_the_sums_are_those_that_are_remembered(self) -> None:
        """Degree-days F from 1 January or March as kept by plant clinics of northeastern North America (from memory)."""
        for agent, event, lower, fahrenheit in (
            ("apple-maggot", "adults", 50, 900),
            ("euonymus-scale", "hatch", 50, 406),
            ("euonymus-scale", "second", 50, 1923),
            ("pine-needle-scale", "second", 50, 1349),
            ("european-corn-borer", "moths", 50, 374),
            ("spongy-moth", "hatch", 50, 192),
            ("tent-caterpillar", "hatch", 50, 92),
            ("seedcorn-maggot", "second", 39, 1080),
        ):
            model = heat_of(agent)
            at = next(told.at for told in model.events if told.id == event)
            self.assertAlmostEqual(model.lower, (lower - 32) / 1.8, places=6)
            self.assertAlmostEqual(at * 1.8, fahrenheit, places=6, msg=agent)
        self.assertEqual(heat_of("european-corn-borer").method, "modified_average")


class Ends(unittest.TestCase):
    def test_adults_of_a_flight_die(self) -> None:
        for agent in ("onion-maggot", "western-cherry-fruit-fly", "emerald-ash-borer", "spongy-moth", "viburnum-leaf-beetle"):
            with self.subTest(agent=agent):
                self.assertLess(season(agent).on(dt.date(2026, 12, 31)).get("adult", 0.0), 0.02)

    def test_beetles_that_winter_in_the_soil_are_no_longer_on_the_crop(self) -> None:
        late = season("colorado-potato-beetle", dt.date(2026, 5, 25)).on(dt.date(2026, 12, 31))
        self.assertLess(late.get("adult", 0.0), 0.02)
        self.assertGreater(late["over"], 0.5)

    def test_what_winters_stays_and_what_does_not_dies_of_the_cold(self) -> None:
        cold = season("bagworm", warmer=-3.0)
        self.assertLess(cold.on(dt.date(2026, 12, 31)).get("larva", 0.0), 0.02)
        self.assertGreater(season("bagworm", warmer=4.0).on(dt.date(2026, 12, 31))["egg"], 0.5)

    def test_shares_add_to_one_to_the_end(self) -> None:
        for agent in MODELLED:
            whole = season(agent.id, dt.date(2026, 4, 20))
            np.testing.assert_allclose(sum(whole.shares.values()), 1.0, atol=1e-9, err_msg=agent.id)

    def test_later_broods_come_in_the_warm_and_not_in_the_cold(self) -> None:
        for agent, event in (
            ("codling-moth", "second-hatch"),
            ("oriental-fruit-moth", "third-hatch"),
            ("european-corn-borer", "second-hatch"),
            ("cabbage-maggot", "autumn-maggots"),
        ):
            start = dt.date(2026, 5, 1) if heat_of(agent).month_day is None else dt.date(2026, *heat_of(agent).month_day)
            warm, cold = (season(agent, start, warmer).passed[event][-1] for warmer in (4.0, -4.0))
            self.assertGreater(float(warm), 0.3, agent)
            self.assertLess(float(cold), 0.1, agent)


class Winters(unittest.TestCase):
    def test_day_length_is_the_suns(self) -> None:
        # Forsythe et al. (1995) against the almanac of the astral library: within seven minutes below 60 degrees.
        for latitude in (-45.0, -10.0, 0.0, 25.0, 46.0, 58.0):
            for day in (20, 80, 140, 172, 230, 300, 355):
                rise, fall = weather.sun_times(dt.date(2026, 1, 1) + dt.timedelta(days=day - 1), latitude, 7.0)
                hours = (fall - rise).total_seconds() / 3600
                self.assertAlmostEqual(float(weather.day_length(day, latitude)), hours, delta=7 / 60)
        self.assertEqual([float(weather.day_length(day, 75.0)) for day in (172, 355)], [24.0, 0.0])

    def test_shorter_days_come_later_in_the_south_and_half_a_year_away_below_the_equator(self) -> None:
        start = dt.date(2026, 5, 1)
        north, south = (season("codling-moth", start, latitude=latitude).winter for latitude in (52.0, 42.0))
        assert north and south
        self.assertEqual({north.month, south.month}, {8})
        self.assertGreater(north, south)
        spring = dt.date(2025, 10, 15)
        days = tuple(dt.date(2025, 7, 1) + dt.timedelta(days=n) for n in range(365))
        mean = 15 - 6 * np.cos(2 * np.pi * (np.arange(365) - 15) / 365)
        turned = Weather(days, mean - 6, mean + 6)
        below = phenology.forecast(heat_of("codling-moth"), turned, spring, past_years=[turned], as_of=days[-1], latitude=-36.0)
        assert below.winter
        self.assertIn(below.winter.month, (1, 2))
        self.assertEqual(below.dates[-1], dt.date(2026, 6, 30))

    def test_where_no_day_is_long_enough_the_calendar_tells(self) -> None:
        self.assertEqual(season("codling-moth", dt.date(2026, 5, 1), latitude=5.0).winter, dt.date(2026, 8, 20))


class Windows(unittest.TestCase):
    def test_none_runs_into_the_end_of_the_year_and_each_that_is_empty_says_why(self) -> None:
        for agent in MODELLED:
            assert agent.heat
            whole = season(agent.id, dt.date(2026, 4, 20) if agent.heat.month_day is None else NEW_YEAR)
            for control in agent.controls:
                every = openings.spans(whole, control, agent.heat)
                self.assertNotIn(whole.dates[-1], [last for _, last in every], (agent.id, control.id))
                if control.stages and not every:
                    self.assertIsNotNone(openings.why_closed(whole, control, agent.heat, after=NEW_YEAR), (agent.id, control.id))

    def test_a_place_without_winter_has_no_dates_from_a_model_that_counts_on_one(self) -> None:
        moth = default().agent("codling-moth")
        assert moth.heat
        hot = season("codling-moth", dt.date(2026, 3, 1), warmer=18.0)
        control = moth.control("pick-up-fruit")
        self.assertFalse(hot.chilled)
        self.assertEqual(openings.why_closed(hot, control, moth.heat, after=NEW_YEAR), WindowClosed.NO_CHILL)
        cold = season("codling-moth", dt.date(2026, 6, 20), warmer=-11.0)
        self.assertEqual(openings.why_closed(cold, control, moth.heat, after=NEW_YEAR), WindowClosed.NOT_HERE)
        usual = season("codling-moth", dt.date(2026, 5, 10))
        self.assertEqual(openings.why_closed(usual, control, moth.heat, after=dt.date(2026, 12, 1)), WindowClosed.PAST)

    def test_generations_that_run_together_have_no_dates(self) -> None:
        moth = default().agent("diamondback-moth")
        assert moth.heat
        warm = season("diamondback-moth", dt.date(2026, 3, 1), warmer=12.0)
        control = moth.control("bt-kurstaki")
        self.assertEqual(openings.why_closed(warm, control, moth.heat, after=dt.date(2026, 9, 1)), WindowClosed.OVERLAP)
        self.assertIsNone(openings.window(warm, control, moth.heat, after=dt.date(2026, 9, 1)))

    def test_an_event_that_winter_stopped_holds_no_window_open(self) -> None:
        maggot = default().agent("cabbage-maggot")
        assert maggot.heat
        colder = (season("cabbage-maggot", dt.date(2026, 3, 1), warmer=-degrees / 2) for degrees in range(20))
        low, high = judgement.EVENT_SPAN
        cold = next(course for course in colder if low < course.passed["autumn-flight"][-1] < high)
        self.assertLess(max(last for _, last in openings.spans(cold, maggot.control("covers"), maggot.heat)), dt.date(2026, 11, 1))


class Errors(unittest.TestCase):
    """Two numbers: how far animals of a year are apart, and how far a year is off."""

    def test_four_in_five_true_dates_lie_between(self) -> None:
        rng = np.random.default_rng(7)
        inside = []
        for agent in ("codling-moth", "onion-maggot", "bagworm"):
            model = heat_of(agent)
            start = NEW_YEAR if model.month_day else dt.date(2026, 5, 1)
            whole = season(agent, start)
            sums = whole.heat[1]
            shift = 0.0 if model.biofix == BiofixKind.DATE else judgement.BIOFIX_SPREAD
            for event in whole.events:
                if not event.p10 or not event.p90:
                    continue
                at = next(told.at for told in model.events if told.id == event.id)
                true = sums * np.exp(rng.normal(0, model.error, (200, 1))) + rng.normal(0, shift, (200, 1)) >= at
                inside += [event.p10 <= whole.dates[place] <= event.p90 for place in true.argmax(axis=1)]
        self.assertTrue(0.75 <= float(np.mean(inside)) <= 0.85, float(np.mean(inside)))

    def test_days_between_checks_add_to_the_doubt_and_bring_it_forward(self) -> None:
        start = dt.date(2026, 5, 10)
        daily, weekly = (season("codling-moth", start, biofix_days=days) for days in (1, 7))
        widths = []
        for before, after in zip(daily.events[:7], weekly.events[:7], strict=True):
            assert before.p50 and after.p50 and before.p10 and before.p90 and after.p10 and after.p90
            self.assertLess(after.p50, before.p50)
            widths.append(((before.p90 - before.p10).days, (after.p90 - after.p10).days))
        self.assertGreater(sum(after for _, after in widths), sum(before for before, _ in widths))

    def test_the_spread_of_animals_does_not_move_the_year(self) -> None:
        model = heat_of("codling-moth")
        narrow = replace(model, events=tuple(replace(event, spread=event.spread / 3) for event in model.events))
        start, past = dt.date(2026, 5, 10), (year(2024, -1), year(2025, 1))
        wide, tight = (
            phenology.forecast(heat, year(2026), start, past_years=past, as_of=dt.date(2026, 12, 31), latitude=46.0).events[2]
            for heat in (model, narrow)
        )
        self.assertEqual((wide.p10, wide.p50, wide.p90), (tight.p10, tight.p50, tight.p90))
        assert wide.begins and wide.ends and tight.begins and tight.ends
        self.assertGreater(wide.ends - wide.begins, 2 * (tight.ends - tight.begins))

    def test_a_young_station_tells_today_with_a_wider_error_and_nothing_ahead(self) -> None:
        today = dt.date(2026, 6, 20)
        young = phenology.forecast(heat_of("codling-moth"), year(2026, 0, 171), dt.date(2026, 5, 10), past_years=(), as_of=today)
        old = season("codling-moth", dt.date(2026, 5, 10))
        self.assertEqual(young.dates[-1], today)
        self.assertAlmostEqual(young.on(today)["larva"], old.on(today)["larva"], delta=0.05)
        place = young.index(today)
        self.assertGreater(
            young.high["larva"][place] - young.low["larva"][place], 1.2 * (old.high["larva"][place] - old.low["larva"][place])
        )
        self.assertIsNone(young.events[-1].p50)

    @settings(max_examples=25)
    @given(st.floats(50, 900), st.floats(5, 80), st.sampled_from(sorted(judgement.QUANTILES)))
    def test_the_middle_follows_from_the_share(self, at: float, spread: float, mark: str) -> None:
        event = Event("first", "First", at, spread, "adult", "memory", judgement.QUANTILES[mark])
        self.assertAlmostEqual(float(norm.cdf(at, event.middle, spread)), event.quantile, places=9)
