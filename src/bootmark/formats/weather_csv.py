"""Daily weather from a CSV file with a header: what was understood, what is doubtful, what is refused and why."""

import csv
import datetime as dt
import itertools
import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from bootmark import say
from bootmark.core import units

NEEDED = ("date", "tmin", "tmax")
COLUMNS = (*NEEDED, "rain")
ORDERS = {"ymd": "year, month, day", "dmy": "day, month, year", "mdy": "month, day, year"}
UNITS = ("C", "F")
MOST_LINES = 400_000
MOST_LETTERS = 10_000
"""Of a line: a longer one is no line of readings."""
ENOUGH_LINES = 5_000
"""To tell the order of a date's parts: fourteen years of days."""
STEP_LINES = 10_000
LIMITS = (-60.0, 60.0)
MOST_RAIN = 1000.0
GUESSES = {
    "date": ("date", "day", "datum", "time"),
    "tmin": ("tmin", "temp_min", "min", "minimum", "t_min", "low"),
    "tmax": ("tmax", "temp_max", "max", "maximum", "t_max", "high"),
    "rain": ("rain", "precipitation", "prcp", "precip", "rainfall"),
}


class BadFile(ValueError):
    """The file as a whole can't be read; says why."""


@dataclass(frozen=True)
class Choices:
    """What the person said of the file. columns: our name to the header's; unit: C or F;
    order: of the date's parts; rain_unit: mm or in.
    """

    columns: dict[str, str]
    unit: str
    order: str = "ymd"
    rain_unit: str = "mm"


@dataclass(frozen=True)
class Day:
    line: int
    date: dt.date
    tmin: float
    tmax: float
    rain: float | None


@dataclass(frozen=True)
class Problem:
    """One line that is refused, or a doubt about it. raw: the line as it came; cells: the same taken apart, where it is refused."""

    line: int
    reason: str
    raw: str
    cells: tuple[str, ...] = ()


@dataclass(frozen=True)
class Reading:
    days: tuple[Day, ...]
    refused: tuple[Problem, ...]
    doubts: tuple[Problem, ...]
    gaps: tuple[tuple[dt.date, dt.date], ...]


def _text(content: bytes) -> str:
    if b"\0" in content:
        raise BadFile(say.line("This is not a text file: export the readings as CSV and send that."))
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return content.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise BadFile(say.line("The file's letters can't be read: save it as UTF-8."))


def _lines(content: bytes) -> list[str]:
    """The lines of a file, the header first. Raises BadFile."""
    text = _text(content)
    if not text.strip():
        raise BadFile(say.line("The file is empty: it needs a header line and a line for each day."))
    lines = text.splitlines()
    if len(lines) > MOST_LINES + 1:
        raise BadFile(
            say.line(
                "The file has {count:grouped} lines and {most_lines:grouped} is the most: split it by years.",
                count=len(lines),
                most_lines=MOST_LINES,
            )
        )
    long = next((number for number, line in enumerate(lines, 1) if len(line) > MOST_LETTERS), None)
    if long:
        raise BadFile(
            say.line(
                "Line {long} has {count:grouped} letters and {most_letters:grouped} is the most: that is no line of readings.",
                long=long,
                count=len(lines[long - 1]),
                most_letters=MOST_LETTERS,
            )
        )
    return lines


def _mark(header_line: str) -> str:
    """What parts the cells."""
    return max(",;\t", key=header_line.count)


def _cells(line: str, mark: str) -> list[str]:
    return next(csv.reader([line], delimiter=mark), [])


def _names(lines: Sequence[str]) -> list[str]:
    return [name.strip() for name in _cells(lines[0], _mark(lines[0]))]


def _rows(lines: Sequence[str]) -> Iterator[tuple[int, list[str], str]]:
    """Number, cells and text of each line below the header that holds something."""
    mark = _mark(lines[0])
    for number, line in enumerate(lines[1:], 2):
        if line.strip():
            yield number, _cells(line, mark), line


def header(content: bytes) -> list[str]:
    """The file's column names. Raises BadFile."""
    names = _names(_lines(content))
    if len(names) < 3:
        raise BadFile(say.line("The first line must name the columns: at least a date, a minimum and a maximum, parted by commas."))
    if any(re.fullmatch(r"[-+\d.,/ ]+", name) for name in names):
        raise BadFile(say.line("The first line holds numbers: the file needs a header line that names its columns."))
    return names


def guess(names: Sequence[str]) -> dict[str, str]:
    """Our columns found among a header's names."""
    choices: dict[str, str] = {}
    for ours, words in GUESSES.items():
        match = next((name for word in words for name in names if name.strip().lower() == word), None)
        match = match or next((name for word in words for name in names if word in name.lower() and name not in choices.values()), None)
        if match:
            choices[ours] = match
    return choices


def guess_order(content: bytes, column: str) -> str | None:
    """The order of a date's parts where the file leaves no doubt, None where a person has to say."""
    lines = _lines(content)
    place = _names(lines).index(column)
    possible = set(ORDERS)
    for _, cells, _ in itertools.islice(_rows(lines), ENOUGH_LINES):
        parts = re.findall(r"\d+", cells[place])[:3] if place < len(cells) else []
        if len(parts) == 3:
            possible = {order for order in possible if _date(parts, order)}
    return possible.pop() if len(possible) == 1 else None


def _date(parts: Sequence[str], order: str) -> dt.date | None:
    values = dict(zip(order, parts, strict=True))
    if len(values["y"]) != 4:
        return None
    try:
        return dt.date(int(values["y"]), int(values["m"]), int(values["d"]))
    except ValueError:
        return None


def _number(text: str) -> float | None:
    try:
        return float(text.strip().replace(",", "."))
    except ValueError:
        return None


def _read_row(cells: Sequence[str], places: dict[str, int], choices: Choices, line: int) -> Day | str:
    """A day, or the reason why the line is refused."""

    def cell(name: str) -> str:
        return cells[places[name]].strip() if name in places and places[name] < len(cells) else ""

    parts = re.findall(r"\d+", cell("date"))[:3]
    day = _date(parts, choices.order) if len(parts) == 3 else None
    if day is None:
        return say.line("{cell:word} is not a day in the order {order:word}.", cell=cell("date") or "Nothing", order=ORDERS[choices.order])
    values = {}
    for name in ("tmin", "tmax"):
        value = _number(cell(name))
        if value is None:
            text = "The minimum is {value:word}: not a number." if name == "tmin" else "The maximum is {value:word}: not a number."
            return say.line(text, value=cell(name) or "empty")
        values[name] = units.celsius(value) if choices.unit == "F" else value
        if not LIMITS[0] <= values[name] <= LIMITS[1]:
            return say.line(
                "{value} °{unit} can't be air near the ground: {least:g} to {most:g} °C is taken.",
                value=cell(name),
                unit=choices.unit,
                least=LIMITS[0],
                most=LIMITS[1],
            )
    if values["tmin"] > values["tmax"]:
        return say.line(
            "The minimum {low} is above the maximum {high}: are the columns the right way round?", low=cell("tmin"), high=cell("tmax")
        )
    rain = _number(cell("rain")) if cell("rain") else None
    if rain is not None and choices.rain_unit == "in":
        rain *= 25.4
    if rain is not None and not 0 <= rain <= MOST_RAIN:
        return say.line("{value} of rain can't be: 0 to {most:g} mm is taken.", value=cell("rain"), most=MOST_RAIN)
    return Day(line, day, values["tmin"], values["tmax"], rain)


def read(content: bytes, choices: Choices, step: Callable[[int], None] | None = None) -> Reading:
    """Read a whole file as the choices say. Raises BadFile where a needed column is not named or not there.

    step: told now and then how far it is, in per cent.
    """
    lines = _lines(content)
    names = _names(lines)
    missing = [name for name in NEEDED if choices.columns.get(name) not in names]
    if missing:
        raise BadFile(say.line("Say which column holds the {columns}.", columns=", ".join(missing)))
    places = {ours: names.index(theirs) for ours, theirs in choices.columns.items() if theirs in names}
    days: dict[dt.date, Day] = {}
    refused, doubts = [], []
    for line, cells, raw in _rows(lines):
        if step and line % STEP_LINES == 0:
            step(100 * line // len(lines))
        reading = _read_row(cells, places, choices, line)
        if isinstance(reading, str):
            refused.append(Problem(line, reading, raw, tuple(cells)))
            continue
        before = days.get(reading.date)
        if before is None:
            days[reading.date] = reading
        elif (before.tmin, before.tmax, before.rain) == (reading.tmin, reading.tmax, reading.rain):
            doubts.append(Problem(line, say.line("{date:full} is told twice with the same values: taken once.", date=reading.date), raw))
        else:
            reason = say.line(
                "{date:full} was told on line {line} with other values: that one is kept.", date=reading.date, line=before.line
            )
            refused.append(Problem(line, reason, raw, tuple(cells)))
    ordered = [days[day] for day in sorted(days)]
    for reading in ordered:
        if reading.tmin == reading.tmax:
            doubts.append(Problem(reading.line, say.line("{date:full} has one value for minimum and maximum.", date=reading.date), ""))
        elif reading.tmax - reading.tmin > 35:
            doubts.append(
                Problem(
                    reading.line,
                    say.line("{date:full} spans {span:0} °C: check it.", date=reading.date, span=reading.tmax - reading.tmin),
                    "",
                )
            )
    day = dt.timedelta(days=1)
    gaps = [(before.date + day, after.date - day) for before, after in itertools.pairwise(ordered) if after.date - before.date > day]
    return Reading(tuple(ordered), tuple(refused), tuple(doubts), tuple(gaps))
