"""GHCN-Daily, the open archive of daily station weather, in its two text formats, as the table that weather_csv reads.

Station files (.dly): fixed columns, one line a month and element: id (11), year (4), month (2), element (4), then for each
of 31 days a value (5) and three flags. Long CSV (by station or by year): id, date as yyyymmdd, element, value and three
flags, one line a value, without a header. Temperatures are tenths of a degree C, rain tenths of a millimetre; -9999 stands
for no value; a quality flag says that a check failed. Source: the readme of GHCN-Daily version 3 (NOAA NCEI), from memory.
"""

import calendar
import csv
import io
import re
from collections.abc import Iterator

from bootmark import say
from bootmark.formats.weather_csv import BadFile

ELEMENTS = {"TMIN": "tmin", "TMAX": "tmax", "PRCP": "rain"}
MISSING = -9999
DAYS = 31
FIRST, WIDTH = 21, 8
DLY = re.compile(r"^[A-Z]{2}[A-Z0-9_\-]{9}\d{6}[A-Z0-9]{4}[ \-\d]{5}")
LONG = re.compile(r"^[A-Z]{2}[A-Z0-9_\-]{9},\d{8},[A-Z0-9]{4},-?\d+,")
UNITS = {"unit": "C", "order": "ymd"}
"""What the format itself says, so that nobody has to."""

Value = tuple[str, str, str, float]


def _from_dly(lines: list[str]) -> Iterator[Value]:
    """Station, date, column and value of each day that has one and passed its checks."""
    for number, line in enumerate(lines, 1):
        if not line.strip():
            continue
        if not DLY.match(line):
            raise BadFile(say.line("Line {number} is not a GHCN-Daily line: {line}.", number=number, line=repr(line[:40])))
        column = ELEMENTS.get(line[17:21])
        if column is None:
            continue
        year, month = int(line[11:15]), int(line[15:17])
        if not 1 <= month <= 12:
            raise BadFile(say.line("Line {number} tells month {month}.", number=number, month=month))
        for day in range(calendar.monthrange(year, month)[1]):
            cell = line[FIRST + WIDTH * day : FIRST + WIDTH * (day + 1)].ljust(WIDTH)
            value = _whole(cell[:5], number)
            if value != MISSING and cell[6] == " ":
                yield line[:11], f"{year:04}-{month:02}-{day + 1:02}", column, value / 10


def _from_long(lines: list[str]) -> Iterator[Value]:
    for number, cells in enumerate(csv.reader(lines), 1):
        if not cells:
            continue
        if len(cells) < 4 or not re.fullmatch(r"\d{8}", cells[1]):
            raise BadFile(say.line("Line {number} is not a GHCN-Daily line: {cells}.", number=number, cells=repr(",".join(cells)[:40])))
        column, failed = ELEMENTS.get(cells[2]), cells[5].strip() if len(cells) > 5 else ""
        value = _whole(cells[3], number)
        if column and value != MISSING and not failed:
            day = cells[1]
            yield cells[0], f"{day[:4]}-{day[4:6]}-{day[6:]}", column, value / 10


def _whole(text: str, line: int) -> int:
    try:
        return int(text) if text.strip() else MISSING
    except ValueError as error:
        raise BadFile(say.line("Line {line} holds {text} where a whole number stands.", line=line, text=repr(text.strip()))) from error


def table(content: bytes) -> bytes | None:
    """The file as date, tmin, tmax, rain in degrees C and mm; None where it is in neither format.

    A day that lacks an extreme stands there with an empty cell. Raises BadFile for a broken line, for several stations
    in one file, and where there is no temperature.
    """
    try:
        text = content.decode("ascii")
    except UnicodeDecodeError:
        return None
    lines = text.splitlines()
    first = next((line for line in lines if line.strip()), "")
    values = _from_dly(lines) if DLY.match(first) else _from_long(lines) if LONG.match(first) else None
    if values is None:
        return None
    days: dict[str, dict[str, float]] = {}
    stations = set()
    for station, date, column, value in values:
        stations.add(station)
        days.setdefault(date, {})[column] = value
    if len(stations) > 1:
        raise BadFile(
            say.line(
                "The file holds {count} stations ({names}): send one station at a time.",
                count=len(stations),
                names=", ".join(sorted(stations)[:3]),
            )
        )
    if not any("tmin" in day or "tmax" in day for day in days.values()):
        raise BadFile(say.line("The file holds no minimum or maximum temperature (TMIN, TMAX)."))
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["date", "tmin", "tmax", "rain"])
    for date in sorted(days):
        day = days[date]
        writer.writerow([date, *(day.get(name, "") for name in ("tmin", "tmax", "rain"))])
    return out.getvalue().encode()
