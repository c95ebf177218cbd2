"""GHCN-Daily files: the two text formats give the same days, and what is broken is refused with the reason."""

import unittest

from bootmark.formats import ghcn, weather_csv
from bootmark.formats.weather_csv import BadFile, Choices

STATION = "XX000012345"


def month(element: str, values: list[int], flags: dict[int, str] | None = None, stamp: str = "202606") -> str:
    """One fixed-width line as the readme lays it out: a value and three flags for each of 31 days."""
    cells = "".join(f"{values[day] if day < len(values) else -9999:5d}{(flags or {}).get(day, '   ')}" for day in range(31))
    return f"{STATION}{stamp}{element}{cells}"


def long(rows: list[tuple[str, str, int, str]]) -> bytes:
    return "".join(f"{STATION},{date},{element},{value},,{flag},S,\n" for date, element, value, flag in rows).encode()


class Understood(unittest.TestCase):
    def test_both_formats_give_the_same_days(self) -> None:
        fixed = "\n".join((month("TMAX", [215, 220]), month("TMIN", [101, -7]), month("PRCP", [0, 34]), month("SNOW", [0, 0]))).encode()
        rows = [("20260601", "TMAX", 215, ""), ("20260602", "TMAX", 220, ""), ("20260601", "TMIN", 101, ""), ("20260602", "TMIN", -7, "")]
        rows += [("20260601", "PRCP", 0, ""), ("20260602", "PRCP", 34, "")]
        self.assertEqual(ghcn.table(fixed), ghcn.table(long(rows)))
        table = ghcn.table(fixed)
        assert table
        columns = {"date": "date", "tmin": "tmin", "tmax": "tmax", "rain": "rain"}
        reading = weather_csv.read(table, Choices(columns, ghcn.UNITS["unit"], ghcn.UNITS["order"]))
        self.assertEqual([(day.date.isoformat(), day.tmin, day.tmax, day.rain) for day in reading.days][1], ("2026-06-02", -0.7, 22.0, 3.4))

    def test_missing_values_and_failed_checks_are_left_out(self) -> None:
        fixed = "\n".join((month("TMAX", [215, 999, 220], {1: " I "}), month("TMIN", [101, 90, -9999]))).encode()
        self.assertEqual(ghcn.table(fixed), b"date,tmin,tmax,rain\n2026-06-01,10.1,21.5,\n2026-06-02,9.0,,\n2026-06-03,,22.0,\n")

    def test_february_has_no_thirtieth(self) -> None:
        table = ghcn.table((month("TMAX", [100] * 31, stamp="202402") + "\n" + month("TMIN", [0] * 31, stamp="202402")).encode())
        assert table
        self.assertIn(b"2024-02-29", table)
        self.assertNotIn(b"2024-02-30", table)

    def test_another_table_is_left_to_its_own_reader(self) -> None:
        self.assertIsNone(ghcn.table(b"date,tmin,tmax\n2026-06-01,1,2\n"))
        self.assertIsNone(ghcn.table("datum,köld\n".encode()))


class Refused(unittest.TestCase):
    def test_reasons(self) -> None:
        good = month("TMAX", [215])
        for content, words in (
            (good + "\nnonsense", "Line 2 is not"),
            (good + "\n" + good.replace(STATION, "XX000099999"), "2 stations"),
            (month("SNOW", [1]), "no minimum or maximum"),
            (good.replace("202606", "202613"), "month 13"),
            (good.replace("  215", "  2x5"), "not a GHCN-Daily line|whole number"),
        ):
            with self.subTest(words=words), self.assertRaisesRegex(BadFile, words):
                ghcn.table((month("TMIN", [100]) + "\n" + content).encode() if "2x5" in content else content.encode())
