"""Hours to work in, at the limits themselves. The limits are common practice, no source (core/judgement/hours.py)."""

import datetime as dt
import unittest
from zoneinfo import ZoneInfo

from bootmark.core.meanings import Light
from bootmark.core.messages import Says
from bootmark.core.season import weather, windows
from bootmark.core.season.windows import Constraints, Hourly

START = dt.datetime(2026, 6, 18, tzinfo=dt.UTC)
HOUR = dt.timedelta(hours=1)
HERE = (46.2, 7.1)
ANY_TIME = Constraints(daylight=Light.ANY)


def hours(times: list[dt.datetime], **columns: list[float]) -> Hourly:
    usual = {"temp": 18.0, "rh": 60.0, "wind": 2.0, "rain": 0.0}
    temp, rh, wind, rain = (columns.get(name, [value] * len(times)) for name, value in usual.items())
    return Hourly(tuple(times), temp, rh, wind, rain, *HERE)


def said(row: str, column: str, values: list[float], limits: Constraints = ANY_TIME) -> list[tuple[str, Says]]:
    """What one limit says of hours that differ in one column alone."""
    table = windows.hours(hours([START + n * HOUR for n in range(len(values))], **{column: values}), limits)
    return [(cell.state, cell.reasons[0].kind) for cell in table.rows[row]]


class Limits(unittest.TestCase):
    def test_wind_at_each_of_its_three_limits(self) -> None:
        self.assertEqual(
            said("wind", "wind", [0.79, 0.8, 4.0, 4.01, 5.5, 5.51]),
            [
                ("no", Says.WIND_STILL),
                ("ok", Says.WIND),
                ("ok", Says.WIND),
                ("caution", Says.WIND_NEAR),
                ("caution", Says.WIND_NEAR),
                ("no", Says.WIND_OVER),
            ],
        )

    def test_temperature_at_both_of_its_limits(self) -> None:
        self.assertEqual([state for state, _ in said("temperature", "temp", [7.9, 8.0, 26.0, 26.1])], ["no", "ok", "ok", "no"])
        release = windows.limits_for("release")
        self.assertEqual([state for state, _ in said("temperature", "temp", [11.9, 12.0, 30.0, 30.1], release)], ["no", "ok", "ok", "no"])

    def test_drying_between_its_limits(self) -> None:
        """Delta T of 18 C air rises as it dries; each case is what it says by the wet bulb, which is checked on its own."""
        humidity = [98.0, 60.0, 30.0, 5.0]
        stays_wet, good, fast, too_fast = weather.delta_t([18.0] * 4, humidity).tolist()
        self.assertTrue(stays_wet < 2.0 <= good <= 8.0 < fast <= 10.0 < too_fast)
        wanted = [("caution", Says.STAYS_WET), ("ok", Says.DRYING), ("caution", Says.DRYING_FAST), ("no", Says.DRIES_AWAY)]
        self.assertEqual(said("drying", "rh", humidity), wanted)

    def test_what_was_not_measured_is_never_right(self) -> None:
        gone = float("nan")
        for row, column, state in (("wind", "wind", "no"), ("temperature", "temp", "caution"), ("drying", "rh", "caution")):
            usual = {"wind": 2.0, "temp": 18.0, "rh": 60.0}[column]
            cells = said(row, column, [usual, gone, usual])
            self.assertEqual([cells[0][0], cells[1], cells[2][0]], ["ok", (state, Says.HOUR_UNKNOWN), "ok"])
        rain = said("rain", "rain", [0.0, gone, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.5])
        self.assertEqual(rain[0], ("no", Says.HOUR_UNKNOWN))
        self.assertEqual(rain[1], ("no", Says.HOUR_UNKNOWN))
        self.assertEqual(rain[2], ("ok", Says.DRY))
        self.assertEqual(rain[8], ("no", Says.RAIN))

    def test_under_cover_still_air_and_rain_do_not_refuse_and_an_open_tunnel_drifts(self) -> None:
        """Common practice, no source."""
        gone = float("nan")
        times = [START + (10 + n) * HOUR for n in range(5)]
        weather_inside = {"wind": [0.0, 2.0, 5.0, 9.0, gone], "rain": [3.0] * 5}
        states = {
            place: [cell.state for cell in windows.hours(hours(times, **weather_inside), windows.under_cover(ANY_TIME, place)).overall]
            for place in ("field", "tunnel", "greenhouse")
        }
        self.assertEqual(states["field"], ["no"] * 5)
        self.assertEqual(states["tunnel"], ["ok", "ok", "caution", "no", "caution"])
        self.assertEqual(states["greenhouse"], ["ok"] * 5)

    def test_a_drop_is_no_rain_and_more_is(self) -> None:
        dry_after = [0.0] * 5
        self.assertEqual(said("rain", "rain", [0.2, *dry_after])[0], ("ok", Says.DRY))
        self.assertEqual(said("rain", "rain", [0.3, *dry_after])[0], ("no", Says.RAIN))
        self.assertEqual(said("rain", "rain", [1.0, *dry_after])[0], ("no", Says.RAIN))

    def test_four_hours_without_rain_and_a_forecast_that_reaches_so_far(self) -> None:
        later = said("rain", "rain", [0.0, 0.0, 0.0, 0.0, 0.0, 0.5, 0.0, 0.0, 0.0, 0.0])
        self.assertEqual([kind for _, kind in later[:6]], [Says.DRY, *[Says.RAIN_LATER] * 4, Says.RAIN])
        self.assertEqual([state for state, _ in later[6:]], ["caution"] * 4, "what lies beyond the forecast is not known to be dry")
        release = said("rain", "rain", [0.0, 0.0, 0.5, 0.0, 0.0], windows.limits_for("release"))
        self.assertEqual([state for state, _ in release], ["ok", "no", "no", "ok", "caution"])

    def test_the_first_of_two_showers_is_the_one_that_washes_off(self) -> None:
        times = [START + n * HOUR for n in range(8)]
        table = windows.hours(hours(times, rain=[0.0, 0.0, 1.0, 0.0, 1.0, 0.0, 0.0, 0.0]), ANY_TIME)
        self.assertEqual([table.rows["rain"][n].reasons[0].facts["hours"] for n in (0, 1, 3)], [2, 1, 1])

    def test_work_that_no_weather_forbids(self) -> None:
        limits = windows.limits_for("look")
        self.assertEqual((limits.wind, limits.temp, limits.delta_t, limits.rain_free), (None, None, None, 0))
        self.assertEqual([state for state, _ in said("rain", "rain", [0.0, 0.5], limits)], ["ok", "no"])


class Daylight(unittest.TestCase):
    rise, fall = weather.sun_times(START.date(), *HERE)

    def light(self, work: str, *times: dt.datetime) -> list[str]:
        return [cell.state for cell in windows.hours(hours(list(times)), windows.limits_for(work)).rows["light"]]

    def test_from_half_an_hour_before_sunrise_to_sunset(self) -> None:
        half, second = dt.timedelta(minutes=30), dt.timedelta(seconds=1)
        times = (self.rise - half - second, self.rise - half, self.fall, self.fall + second)
        self.assertEqual(self.light("spray", *times), ["no", "ok", "ok", "no"])

    def test_an_evening_begins_two_hours_before_sunset_and_ends_one_after(self) -> None:
        second = dt.timedelta(seconds=1)
        times = (self.fall - 2 * HOUR - second, self.fall - 2 * HOUR, self.fall + HOUR, self.fall + HOUR + second)
        self.assertEqual(self.light("evening spray", *times), ["no", "ok", "ok", "no"])


class Days(unittest.TestCase):
    def test_a_window_holds_from_its_first_local_day_to_its_last_and_may_be_open_on_one_side(self) -> None:
        zone = ZoneInfo("Europe/Zurich")
        times = [dt.datetime(2026, 6, 18, 0, tzinfo=zone) + n * HOUR for n in (-1, 0, 23, 24)]
        day = dt.date(2026, 6, 18)
        for first, last, states in (
            (day, day, ["no", "ok", "ok", "no"]),
            (day, None, ["no", "ok", "ok", "ok"]),
            (None, day, ["ok", "ok", "ok", "no"]),
        ):
            limits = windows.limits_for("spray", not_before=first, not_after=last, zone=zone)
            self.assertEqual([cell.state for cell in windows.hours(hours(times), limits).rows["stage"]], states)

    def test_spans_end_with_their_last_hour_and_stretches_break_where_hours_are_missing(self) -> None:
        times = [START + n * HOUR for n in (0, 1, 2, 3, 4, 5, 6, 9, 10, 11, 12, 13)]
        wind = [9.0, 2.0, 2.0, 2.0, 9.0, 9.0, 2.0, 2.0, 2.0, 2.0, 2.0, 2.0]
        table = windows.hours(hours(times, wind=wind), Constraints(daylight=Light.ANY, rain_free=0))
        self.assertEqual(table.spans(3)[0], (START + HOUR, START + 4 * HOUR))
        ends = [(start, end) for start, end, _ in table.stretches()]
        self.assertIn((START + 6 * HOUR, START + 7 * HOUR), ends)
        self.assertIn((START + 9 * HOUR, START + 14 * HOUR), ends)

    def test_all_that_forbids_an_hour_is_said_and_nothing_that_does_not(self) -> None:
        times = [START]
        table = windows.hours(hours(times, wind=[9.0], temp=[31.0], rh=[50.0], rain=[0.0]), Constraints(daylight=Light.ANY, rain_free=0))
        self.assertEqual({reason.kind for reason in table.overall[0].reasons}, {Says.WIND_OVER, Says.HOT})
        near = windows.hours(hours(times, wind=[5.0]), Constraints(daylight=Light.ANY, rain_free=0))
        self.assertEqual((near.overall[0].state, [reason.kind for reason in near.overall[0].reasons]), ("caution", [Says.WIND_NEAR]))
        calm = windows.hours(hours(times), Constraints(daylight=Light.ANY, rain_free=0))
        self.assertEqual(calm.overall[0].reasons, ())

    def test_a_span_must_be_as_long_as_asked_for_wherever_it_begins(self) -> None:
        wind = [9.0] * 5 + [2.0] * 2 + [9.0] * 3
        times = [START + n * HOUR for n in range(10)]
        table = windows.hours(hours(times, wind=wind), Constraints(daylight=Light.ANY, rain_free=0))
        self.assertEqual(table.spans(3), [])
        self.assertEqual(table.spans(2), [(START + 5 * HOUR, START + 7 * HOUR)])

    def test_a_stretch_ends_where_another_limit_takes_over(self) -> None:
        times = [START + n * HOUR for n in range(4)]
        table = windows.hours(
            hours(times, wind=[9.0, 9.0, 2.0, 2.0], temp=[18.0, 18.0, 31.0, 31.0]), Constraints(daylight=Light.ANY, rain_free=0)
        )
        self.assertEqual(
            [(start, end) for start, end, _ in table.stretches()], [(START, START + 2 * HOUR), (START + 2 * HOUR, START + 4 * HOUR)]
        )
