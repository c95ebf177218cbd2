"""Stages, windows, programme, gaps and spells."""

import datetime as dt
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.core.catalogue import default
from bootmark.core.messages import Says
from bootmark.core.season import degree_days, gaps, openings, phenology, programme, windows
from bootmark.core.season.ahead import Weather
from bootmark.core.season.phenology import Season
from bootmark.core.season.spells import spells

MOTH = default().agent("codling-moth")
MITE = default().agent("two-spotted-spider-mite")
BIOFIX = dt.date(2026, 5, 10)


def year(number: int, warmer: float = 0.0, days: int = 365) -> Weather:
    dates = tuple(dt.date(number, 1, 1) + dt.timedelta(days=n) for n in range(days))
    mean = 10.5 - 10 * np.cos(2 * np.pi * (np.arange(days) - 20) / 365) + warmer
    return Weather(dates, mean - 6, mean + 6)


def season(warmer: float = 0.0, days_known: int = 170, past: tuple[Weather, ...] | None = None) -> Season:
    assert MOTH.heat
    past = (year(2024, -1), year(2025, 1)) if past is None else past
    return phenology.forecast(
        MOTH.heat, year(2026, warmer, days_known), BIOFIX, past_years=past, as_of=dt.date(2026, 1, 1) + dt.timedelta(days=days_known - 1)
    )


class Forecast(unittest.TestCase):
    def test_shares_add_to_one_on_every_day(self) -> None:
        outlook = season()
        np.testing.assert_allclose(sum(outlook.shares.values()), 1, atol=1e-9)
        np.testing.assert_allclose(sum(outlook.usual.values()), 1, atol=1e-9)
        for row in outlook.shares.values():
            self.assertGreaterEqual(row.min(), -1e-12)

    def test_with_the_whole_year_known_dates_follow_the_sums(self) -> None:
        assert MOTH.heat
        whole = year(2026)
        start = whole.dates.index(BIOFIX)
        heat = np.cumsum(
            degree_days.daily(np.asarray(whole.tmin)[start:], np.asarray(whole.tmax)[start:], MOTH.heat.lower, MOTH.heat.upper)
        )
        outlook = season(days_known=365)
        for event in outlook.events:
            model = next(event_row for event_row in MOTH.heat.events if event_row.id == event.id)
            if not (heat >= model.at).any():
                self.assertIsNone(event.p50)
                continue
            exact = BIOFIX + dt.timedelta(days=int((heat >= model.at).argmax()))
            assert event.p50
            self.assertLessEqual(abs((event.p50 - exact).days), 1)

    def test_quantiles_stand_in_order_and_widen_ahead(self) -> None:
        events = [event for event in season().events if event.p90]
        for event in events:
            assert event.p10 and event.p50 and event.p90
            self.assertLessEqual(event.p10, event.p50)
            self.assertLessEqual(event.p50, event.p90)
        first, last = events[0], events[-1]
        assert first.p90 and first.p10 and last.p90 and last.p10
        self.assertGreater((last.p90 - last.p10).days, (first.p90 - first.p10).days)

    def test_a_warm_year_is_early(self) -> None:
        warm, cold = season(2.0).events[2], season(-2.0).events[2]
        assert warm.days_early is not None and cold.days_early is not None
        self.assertGreater(warm.days_early, 3)
        self.assertLess(cold.days_early, -3)

    def test_the_same_seed_gives_the_same_season(self) -> None:
        np.testing.assert_array_equal(season().heat, season().heat)

    def test_sources_of_heat_add_to_one(self) -> None:
        outlook = season()
        self.assertAlmostEqual(sum(outlook.sources.values()), 1.0, places=6)
        self.assertGreater(outlook.sources["past years"], 0.3)

    def test_refusals(self) -> None:
        assert MOTH.heat
        with self.assertRaisesRegex(ValueError, "no weather for 10 May 2026"):
            phenology.forecast(MOTH.heat, year(2025), BIOFIX, past_years=[year(2024)], as_of=BIOFIX)
        # Without a past year it ends with what is known.
        self.assertEqual(season(past=()).dates[-1], dt.date(2026, 6, 19))

    def test_a_leap_day_in_the_past_is_borne(self) -> None:
        leap = Weather(tuple(dt.date(2024, 1, 1) + dt.timedelta(days=n) for n in range(366)), np.full(366, 5.0), np.full(366, 20.0))
        self.assertEqual(len(season(past=(leap,)).dates), 236)


class StageWindows(unittest.TestCase):
    def test_a_control_bound_to_hatching_ends_before_the_larvae_do(self) -> None:
        outlook = season()
        assert MOTH.heat
        bound = openings.window(outlook, MOTH.control("granulovirus"), MOTH.heat, after=dt.date(2026, 6, 1))
        loose = openings.window(outlook, MOTH.control("pick-up-fruit"), MOTH.heat, after=dt.date(2026, 6, 1))
        assert bound and loose
        self.assertLess(bound[1], loose[1])
        # The trade's rule for first hatch is 250 DD F (138.9 C) after the biofix; memory, no source.
        opened = float(outlook.heat[1][outlook.index(bound[0])])
        self.assertAlmostEqual(opened, 138.9, delta=14)

    def test_the_window_that_a_day_decides_leads(self) -> None:
        outlook = season()
        leading = openings.leading_window(outlook, MOTH, after=dt.date(2026, 6, 1))
        assert leading
        self.assertTrue(leading[0].at_events)
        self.assertGreaterEqual(leading[1][1], dt.date(2026, 6, 1))
        self.assertIsNone(openings.leading_window(outlook, MOTH, after=dt.date(2026, 12, 31)))
        self.assertIsNone(openings.leading_window(outlook, default().agent("pear-psylla"), after=dt.date(2026, 6, 1)))


def hours(count: int = 48, **column: float | list[float]) -> windows.Hourly:
    start = dt.datetime(2026, 6, 18, 0, tzinfo=dt.UTC)
    times = tuple(start + dt.timedelta(hours=n) for n in range(count))
    values = {"temp": 18.0, "rh": 60.0, "wind": 2.0, "rain": 0.0, **column}
    filled = {name: value if isinstance(value, list) else [value] * count for name, value in values.items()}
    return windows.Hourly(times, **filled, latitude=46.2, longitude=7.1)


class Hours(unittest.TestCase):
    def states(self, table: windows.HourTable, row: str) -> set[str]:
        return {cell.state for cell in table.rows[row]}

    def test_each_limit_refuses_with_its_reason(self) -> None:
        limits = windows.limits_for("spray")
        for column, value, row, kind in (
            ("wind", 9.0, "wind", Says.WIND_OVER),
            ("wind", 0.2, "wind", Says.WIND_STILL),
            ("temp", 31.0, "temperature", Says.HOT),
            ("temp", 3.0, "temperature", Says.COLD),
            ("rain", 2.0, "rain", Says.RAIN),
        ):
            table = windows.hours(hours(**{column: value}), limits)
            self.assertEqual(self.states(table, row), {"no"})
            reason = table.rows[row][5].reasons[0]
            self.assertEqual((reason.kind, *reason.facts.values()), (kind, value))
            self.assertEqual({cell.state for cell in table.overall}, {"no"})

    def test_rain_later_washes_off(self) -> None:
        rain = [0.0] * 48
        rain[20] = 3.0
        cells = windows.hours(hours(rain=rain), windows.limits_for("spray")).rows["rain"]
        self.assertEqual([cells[n].state for n in (15, 16, 19, 20, 21)], ["ok", "no", "no", "no", "ok"])

    def test_dry_air_and_daylight(self) -> None:
        table = windows.hours(hours(temp=25.0, rh=18.0), windows.limits_for("spray"))
        self.assertEqual(self.states(table, "drying"), {"no"})
        light = [cell.state for cell in table.rows["light"][:24]]
        # 18 June at 46 N: up before 4 UTC, down after 19 UTC.
        self.assertEqual((light[1], light[12], light[22]), ("no", "ok", "no"))

    def test_the_window_and_the_evening(self) -> None:
        limits = windows.limits_for("evening spray", not_before=dt.date(2026, 6, 19), not_after=dt.date(2026, 6, 19))
        table = windows.hours(hours(72), limits)
        self.assertEqual({cell.state for cell in table.rows["stage"][:24]}, {"no"})
        self.assertEqual({cell.state for cell in table.rows["stage"][24:48]}, {"ok"})
        spans = table.spans(2)
        self.assertEqual(len(spans), 1)
        self.assertEqual(spans[0][0].date(), dt.date(2026, 6, 19))
        self.assertGreaterEqual(spans[0][0].hour, 17)

    def test_overall_is_the_worst(self) -> None:
        table = windows.hours(hours(wind=[5.0] * 48), windows.limits_for("spray"))
        for place, cell in enumerate(table.overall):
            worst = max((row[place].state for row in table.rows.values()), key=lambda state: windows.RANK[state])
            self.assertEqual(cell.state, worst)

    def test_stretches_cover_every_hour_once(self) -> None:
        table = windows.hours(hours(), windows.limits_for("spray"))
        stretches = table.stretches()
        self.assertEqual(stretches[0][0], table.times[0])
        self.assertEqual(sum(int((end - start).total_seconds() // 3600) for start, end, _ in stretches), len(table.times))
        for earlier, two in zip(stretches, stretches[1:], strict=False):
            self.assertEqual(earlier[1], two[0])

    def test_refusals(self) -> None:
        bad = hours()
        with self.assertRaises(ValueError):
            windows.hours(
                windows.Hourly(tuple(t.replace(tzinfo=None) for t in bad.times), bad.temp, bad.rh, bad.wind, bad.rain),
                windows.Constraints(),
            )
        with self.assertRaises(ValueError):
            windows.hours(windows.Hourly(bad.times, [1.0], bad.rh, bad.wind, bad.rain), windows.Constraints())


class Programme(unittest.TestCase):
    def test_heat_spaces_the_repeats(self) -> None:
        soap = MITE.control("insecticidal-soap")
        start = dt.date(2026, 7, 1)
        warm = programme.build(MITE, soap, start, [(18, 32)] * 30)
        cool = programme.build(MITE, soap, start, [(12, 24)] * 30)
        gaps_of = [[step.gap for step in plan if step.kind == "treatment" and step.ordinal] for plan in (warm, cool)]
        self.assertEqual(len(gaps_of[0]), 2)
        # Three treatments about five and seven days apart in warm weather where eggs survive (common practice, no source).
        self.assertTrue(all(4 <= gap <= 8 for gap in gaps_of[0]), gaps_of[0])
        self.assertLess(max(gaps_of[0]), min(gaps_of[1]))

    def test_where_generations_overlap_the_simulation_spaces_the_repeats_and_elsewhere_the_hatch(self) -> None:
        warm = [(18.0, 32.0)] * 30
        whitefly, thrips, aphid = (
            default().agent(value) for value in ("greenhouse-whitefly", "western-flower-thrips", "green-peach-aphid")
        )
        for agent, control in ((MITE, "insecticidal-soap"), (whitefly, "soap"), (thrips, "spinosad")):
            gaps = programme.simulated_gaps(agent, agent.control(control), warm)
            assert gaps, agent.id
            plan = programme.build(agent, agent.control(control), dt.date(2026, 7, 1), warm)
            self.assertEqual([step.gap for step in plan if step.kind == "treatment"], [0, *gaps])
            self.assertIn(plan[2].why.kind, (Says.REPEAT_SIMULATED, Says.REPEAT_SIMULATED_UNTIMED))
        # A soap against aphids spares no eggs that could be waited for, and a moth is told by its season.
        self.assertIsNone(programme.simulated_gaps(aphid, aphid.control("soap"), warm))
        self.assertIsNone(programme.simulated_gaps(MOTH, MOTH.control("granulovirus"), warm))
        self.assertIsNone(programme.simulated_gaps(MITE, MITE.control("insecticidal-soap"), [(2.0, 5.0)] * 30))

    def test_hatch_follows_the_egg_sum(self) -> None:
        # 90 DD F are 50 DD C; at a steady 21.67 C, 10 above the 11.67 C threshold, that is five days.
        self.assertEqual(programme.hatch_days(MITE, [(21.67, 21.67)]), 5)
        self.assertIsNone(programme.hatch_days(MITE, [(2.0, 5.0)]))

    @settings(max_examples=30)
    @given(st.floats(8, 20), st.floats(2, 15))
    def test_a_look_follows_each_treatment_and_comes_before_the_next(self, low: float, span: float) -> None:
        for agent in default().agents.values():
            for control in agent.controls:
                plan = programme.build(agent, control, dt.date(2026, 6, 1), [(low, low + span)] * 10)
                kinds = [step.kind for step in plan]
                self.assertEqual(kinds, ["treatment", "return"] * (len(kinds) // 2))

    def test_repeats_stop_with_the_window(self) -> None:
        plan = programme.build(MOTH, MOTH.control("granulovirus"), dt.date(2026, 6, 1), [(10, 22)] * 30, until=dt.date(2026, 6, 3))
        self.assertEqual([step.kind for step in plan], ["treatment", "return"])


class Gaps(unittest.TestCase):
    def days(self, missing: set[int]) -> dict[dt.date, tuple[float, float]]:
        return {dt.date(2026, 6, 1) + dt.timedelta(days=n): (5.0 + n, 15.0 + n) for n in range(20) if n not in missing}

    def test_short_gaps_follow_a_line_and_are_marked(self) -> None:
        filled = gaps.fill(self.days({4, 5, 6}))
        np.testing.assert_allclose(filled.tmin, np.arange(20) + 5.0)
        self.assertEqual([n for n, kind in enumerate(filled.kind) if kind == gaps.LINE], [4, 5, 6])

    def test_long_gaps_take_past_years_or_end_the_series(self) -> None:
        missing = set(range(5, 12))
        self.assertEqual(len(gaps.fill(self.days(missing)).dates), 5)
        past = {(6, day): (1.0, 2.0) for day in range(1, 31)}
        filled = gaps.fill(self.days(missing), [past])
        self.assertEqual(len(filled.dates), 20)
        self.assertEqual(np.asarray(filled.tmax)[7], 2.0)


class Spells(unittest.TestCase):
    def test_hot_and_dry(self) -> None:
        self.assertEqual(spells([(20, 0.0)] + [(28, 0.0)] * 9)["hot-and-dry"], 9)
        self.assertNotIn("hot-and-dry", spells([(28, 0.0)] * 9 + [(28, 5.0)]))

    def test_a_week_of_rain(self) -> None:
        self.assertEqual(spells([(18, 4.0)] * 6 + [(18, 0.0)])["week-of-rain"], 6)
