"""How days, numbers and measures are written, and numbers read as they were typed."""

import datetime as dt
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bootmark import say
from bootmark.core.units import Quantity, Scale, System
from bootmark.say import Tongue
from bootmark.say.formats import Days, Formats, Numbers

POINT, COMMA = Formats(), Formats(numbers=Numbers.COMMA)
AMERICAN = Formats(System.US, Scale.FAHRENHEIT, Days.MONTH_FIRST)
JUNE = dt.date(2026, 6, 18)
any_formats = st.builds(Formats, st.sampled_from(System), st.sampled_from(Scale), st.sampled_from(Days), st.sampled_from(Numbers))


class Typed(unittest.TestCase):
    def test_a_number_is_read_as_it_was_meant_and_twice_where_nobody_can_say(self) -> None:
        for text, by_point, by_comma in (
            ("2.5", (2.5,), (2.5,)),
            ("2,5", (2.5,), (2.5,)),
            (" -0,125 ", (-0.125,), (-0.125,)),
            ("1,234", (1234.0, 1.234), (1.234, 1234.0)),
            ("1.234", (1.234, 1234.0), (1234.0, 1.234)),
            ("0.234", (0.234,), (0.234,)),
            ("1,234.5", (1234.5,), (1234.5,)),
            ("1.234,5", (1234.5,), (1234.5,)),
            ("1,234,567", (1234567.0,), (1234567.0,)),
            ("12 345,6", (12345.6,), (12345.6,)),
            ("12\u202f345", (12345.0,), (12345.0,)),
            (".5", (0.5,), (0.5,)),
            ("1e-05", (1e-05,), (1e-05,)),
        ):
            self.assertEqual((POINT.readings(text), COMMA.readings(text)), (by_point, by_comma), text)
        for text in ("", "x", "1,23,4", "1.2.3", "12,34.5", "nan", "inf", "1_000", "--2", "2 5"):
            self.assertEqual(POINT.readings(text), (), text)

    @given(any_formats, st.floats(-1e9, 1e9))
    def test_what_stands_in_a_field_is_read_back(self, formats: Formats, value: float) -> None:
        readings = formats.readings(formats.typed(value))
        self.assertTrue(readings)
        self.assertAlmostEqual(readings[0], value, delta=max(abs(value) * 1e-5, 1e-9))


class Written(unittest.TestCase):
    def test_days(self) -> None:
        ways = [Formats(days=days) for days in Days]
        self.assertEqual([way.full_day(JUNE) for way in ways], ["18 June 2026", "June 18, 2026", "2026-06-18"])
        self.assertEqual([way.day(JUNE) for way in ways], ["18 June", "June 18", "06-18"])

    def test_measures(self) -> None:
        # 10 m/s = 22.37 mph, 25.4 mm = 1 in, 1 ha = 2.471 acres: from memory.
        for formats, texts in (
            (POINT, ["18 °C", "3.0 m/s", "25.4 mm", "1 ha", "100 degree-days C"]),
            (AMERICAN, ["64 °F", "7 mph", "1.00 in", "2.5 ac", "180 degree-days F"]),
            (COMMA, ["18 °C", "3,0 m/s", "25,4 mm", "1 ha", "100 degree-days C"]),
        ):
            tongue = Tongue(formats=formats)
            self.assertEqual(
                [
                    tongue.measure(18, Quantity.TEMPERATURE, 0),
                    tongue.measure(3, Quantity.WIND, 1),
                    tongue.measure(25.4, Quantity.RAIN, 1),
                    tongue.measure(1, Quantity.AREA),
                    tongue.measure(100, Quantity.HEAT, 0),
                ],
                texts,
            )

    def test_sentences_measure_as_whoever_reads_them_does(self) -> None:
        text = "{temp:temperature0}, {warmer:warmth1} above, {area:area} and {on:day}"
        facts = {"temp": 20.0, "warmer": 2.0, "area": 0.5, "on": JUNE}
        own = say.ENGLISH.in_formats(System.US, Scale.FAHRENHEIT, Days.MONTH_FIRST, Numbers.COMMA)
        self.assertEqual(say.ENGLISH.line(text, **facts), "20 °C, 2.0 °C above, 0.5 ha and 18 June")
        self.assertEqual(own.line(text, **facts), "68 °F, 3,6 °F above, 1,2 ac and June 18")
        self.assertNotEqual(own.voice, say.ENGLISH.voice)
