"""Weather files: understood, doubted, refused by line."""

import datetime as dt
import unittest

from bootmark.formats import weather_csv
from bootmark.formats.weather_csv import BadFile, Choices

COLUMNS = {"date": "date", "tmin": "tmin", "tmax": "tmax", "rain": "rain"}


def read(lines: str, unit: str = "C", order: str = "ymd") -> weather_csv.Reading:
    return weather_csv.read(f"date,tmin,tmax,rain\n{lines}".encode(), Choices(COLUMNS, unit, order))


class Understood(unittest.TestCase):
    def test_units_and_orders(self) -> None:
        celsius, fahrenheit = read("2026-06-01,10,20,1.5"), read("2026-06-01,50,68,1.5", "F")
        self.assertAlmostEqual(fahrenheit.days[0].tmin, celsius.days[0].tmin)
        self.assertAlmostEqual(fahrenheit.days[0].tmax, celsius.days[0].tmax)
        self.assertEqual(read("03/04/2026,1,2,", order="dmy").days[0].date, dt.date(2026, 4, 3))
        self.assertEqual(read("03/04/2026,1,2,", order="mdy").days[0].date, dt.date(2026, 3, 4))

    def test_an_order_is_taken_only_where_no_doubt_is_left(self) -> None:
        self.assertEqual(weather_csv.guess_order(b"date,a,b\n2026/06/01,1,2\n", "date"), "ymd")
        self.assertEqual(weather_csv.guess_order(b"date,a,b\n25.06.2026,1,2\n", "date"), "dmy")
        self.assertIsNone(weather_csv.guess_order(b"date,a,b\n05/06/2026,1,2\n", "date"))

    def test_columns_are_found_by_name(self) -> None:
        guess = weather_csv.guess(["date", "precipitation", "temp_max", "temp_min", "wind"])
        self.assertEqual(guess, {"date": "date", "tmin": "temp_min", "tmax": "temp_max", "rain": "precipitation"})

    def test_semicolons_and_decimal_commas(self) -> None:
        reading = weather_csv.read(b"date;tmin;tmax;rain\n2026-06-01;10,5;20,5;\n", Choices(COLUMNS, "C"))
        self.assertEqual((reading.days[0].tmin, reading.days[0].tmax), (10.5, 20.5))


class Refused(unittest.TestCase):
    def test_each_bad_line_has_its_reason_and_the_rest_stays(self) -> None:
        reading = read(
            "2026-06-01,10,20,\n2026-06-02,21,20,\n2026-02-30,1,2,\n2026-06-03,x,20,\n2026-06-04,5,99,\n2026-06-05,8,19,-3\n2026-06-06,8,19,0"
        )
        self.assertEqual([day.date.day for day in reading.days], [1, 6])
        self.assertEqual([problem.line for problem in reading.refused], [3, 4, 5, 6, 7])
        for problem, words in zip(
            reading.refused, ("above the maximum", "not a day", "not a number", "can't be air", "of rain can't be"), strict=True
        ):
            self.assertIn(words, problem.reason)

    def test_repeated_days(self) -> None:
        reading = read("2026-06-01,10,20,\n2026-06-01,10,20,\n2026-06-01,11,20,")
        self.assertEqual(len(reading.days), 1)
        self.assertIn("twice with the same", reading.doubts[0].reason)
        self.assertIn("told on line 2", reading.refused[0].reason)

    def test_gaps_are_told(self) -> None:
        reading = read("2026-06-01,10,20,\n2026-06-05,10,20,")
        self.assertEqual(reading.gaps, ((dt.date(2026, 6, 2), dt.date(2026, 6, 4)),))

    def test_whole_files(self) -> None:
        for content, words in (
            (b"", "empty"),
            (b"2026-06-01,10,20\n2026-06-02,11,21\n", "header line"),
            (b"date\n2026", "name the columns"),
            (b"\0\1\2\3", "not a text file"),
        ):
            with self.assertRaisesRegex(BadFile, words):
                weather_csv.header(content)
        with self.assertRaisesRegex(BadFile, "which column holds the tmax"):
            weather_csv.read(b"date,tmin,x\n2026-06-01,1,2\n", Choices({"date": "date", "tmin": "tmin"}, "C"))
        with self.assertRaisesRegex(BadFile, "400,000"):
            weather_csv.header(b"date,a,b\n" + b"2026-06-01,1,2\n" * 400_001)


class Cells(unittest.TestCase):
    def test_a_line_of_a_megabyte_is_refused_by_its_number(self) -> None:
        for long in ('"' + "x" * 1_000_000 + '"', "x" * 200_000):
            for content in (f"date,tmin,tmax\n2026-06-01,1,2\n2026-06-02,{long},3\n", f"date,tmin,{long}\n2026-06-01,1,2\n"):
                with self.assertRaises(BadFile) as caught:
                    weather_csv.header(content.encode())
                self.assertRegex(str(caught.exception), r"^Line [13] has \d+0?,\d{3}.* letters and 10,000 is the most")

    def test_a_nul_anywhere_is_no_text(self) -> None:
        with self.assertRaises(BadFile):
            weather_csv.header(b"date,tmin,tmax\n" + b"2026-06-01,1,2\n" * 1_000 + b"\0")

    def test_a_refused_line_comes_apart_as_it_was(self) -> None:
        mixed = weather_csv.read(b"date;tmin;tmax;rain\n2026-06-01;9,5;-1,5;=cmd\n", Choices(COLUMNS, "C"))
        self.assertEqual([problem.cells for problem in mixed.refused], [("2026-06-01", "9,5", "-1,5", "=cmd")])


class WholeFaults(unittest.TestCase):
    """A file's faults as the issue names them: each has its own clear answer."""

    CHOICES = weather_csv.Choices({"date": "date", "tmin": "tmin", "tmax": "tmax"}, "C")

    def test_thirty_february_and_a_minimum_above_the_maximum(self) -> None:
        reading = weather_csv.read(b"date,tmin,tmax\n2024-02-30,1,9\n2024-03-01,12,3\n2024-03-02,1,9\n", self.CHOICES)
        self.assertEqual([refusal.line for refusal in reading.refused], [2, 3])
        self.assertIn("2024-02-30 is not a day", reading.refused[0].reason)
        self.assertIn("The minimum 12 is above the maximum 3", reading.refused[1].reason)
        self.assertEqual(len(reading.days), 1)

    def test_a_year_that_is_missing_is_one_gap(self) -> None:
        rows = [f"{year}-{month:02}-15,1,9" for year in (2021, 2023) for month in range(1, 13)]
        content = ("date,tmin,tmax\n2021-12-31,1,9\n2023-01-01,1,9\n" + "\n".join(rows) + "\n").encode()
        reading = weather_csv.read(content, self.CHOICES)
        self.assertIn((dt.date(2022, 1, 1), dt.date(2022, 12, 31)), reading.gaps)

    def test_four_hundred_thousand_rows_are_read_and_more_are_refused_with_the_number(self) -> None:
        row = b"2024-03-01,1,9\n"
        reading = weather_csv.read(b"date,tmin,tmax\n" + row * 400_000, self.CHOICES)
        self.assertEqual((len(reading.days), len(reading.doubts)), (1, 399_999))
        with self.assertRaisesRegex(weather_csv.BadFile, "400,002 lines and 400,000 is the most: split it by years"):
            weather_csv.read(b"date,tmin,tmax\n" + row * 400_001, self.CHOICES)
