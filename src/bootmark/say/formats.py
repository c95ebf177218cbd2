"""How days, numbers and measures are written and typed. The English way; another language brings its own."""

import datetime as dt
import math
import re
from dataclasses import dataclass
from enum import StrEnum

from bootmark.core import units
from bootmark.core.units import Quantity, Scale, System, Unit


class Days(StrEnum):
    """The order of a day's parts. FIGURES: the standard's, year first."""

    DAY_FIRST = "day-first"
    MONTH_FIRST = "month-first"
    FIGURES = "figures"


class Numbers(StrEnum):
    """How a number's whole and broken parts are set apart."""

    POINT = "point"
    COMMA = "comma"


DAYS = {
    Days.DAY_FIRST: {
        "day": "%-d %B",
        "full_day": "%-d %B %Y",
        "short_day": "%-d %b",
        "weekday": "%a %-d %B",
        "weekday_day": "%A %-d %B",
        "short_full_day": "%-d %b %Y",
    },
    Days.MONTH_FIRST: {
        "day": "%B %-d",
        "full_day": "%B %-d, %Y",
        "short_day": "%b %-d",
        "weekday": "%a, %B %-d",
        "weekday_day": "%A, %B %-d",
        "short_full_day": "%b %-d, %Y",
    },
    Days.FIGURES: {
        "day": "%m-%d",
        "full_day": "%Y-%m-%d",
        "short_day": "%m-%d",
        "weekday": "%a %m-%d",
        "weekday_day": "%A %m-%d",
        "short_full_day": "%Y-%m-%d",
    },
}
SIGNS = {Numbers.POINT: (",", "."), Numbers.COMMA: (".", ",")}
"""What parts thousands, and what parts the fraction."""
_SPACED = re.compile(r"(?<=\d)[ \u00a0\u202f](?=\d{3}(?!\d))")
_PLAIN = re.compile(r"[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?", re.IGNORECASE)
_UNSURE = re.compile(r"[+-]?[1-9]\d{0,2}[.,]\d{3}")
"""One sign before three figures: it may part thousands, or the fraction."""
_BY_COMMA = re.compile(r"[+-]?\d{1,3}(,\d{3})+(\.\d*)?")
_BY_POINT = re.compile(r"[+-]?\d{1,3}(\.\d{3})+(,\d*)?")


@dataclass(frozen=True)
class Formats:
    """Writes values into sentences, and reads numbers as they are typed."""

    system: System = System.METRIC
    scale: Scale = Scale.CELSIUS
    days: Days = Days.DAY_FIRST
    numbers: Numbers = Numbers.POINT

    @property
    def key(self) -> str:
        """What tells these formats from others; a form carries it, so that its numbers are read as they were typed."""
        return f"{self.system} {self.scale} {self.days} {self.numbers}"

    def _day(self, on: dt.date, how: str) -> str:
        return on.strftime(DAYS[self.days][how])

    def day(self, on: dt.date) -> str:
        return self._day(on, "day")

    def full_day(self, on: dt.date) -> str:
        return self._day(on, "full_day")

    def short_day(self, on: dt.date) -> str:
        return self._day(on, "short_day")

    def weekday(self, on: dt.date) -> str:
        return self._day(on, "weekday")

    def weekday_name(self, on: dt.date) -> str:
        return f"{on:%A}"

    def weekday_day(self, on: dt.date) -> str:
        return self._day(on, "weekday_day")

    def short_full_day(self, on: dt.date) -> str:
        return self._day(on, "short_full_day")

    def month(self, on: dt.date) -> str:
        return f"{on:%B}"

    def short_month(self, on: dt.date) -> str:
        return f"{on:%b}"

    def time(self, at: dt.time | dt.datetime) -> str:
        return f"{at:%H:%M}"

    def signed(self, number: str) -> str:
        """A number as Python writes it, with the signs of these formats."""
        grouping, point = SIGNS[self.numbers]
        return number.translate({ord(","): grouping, ord("."): point})

    def decimal(self, value: float, places: int) -> str:
        return self.signed(f"{value:.{places}f}")

    def short(self, value: float) -> str:
        """A number as counts are told: two figures below one, one place above, none where it is whole."""
        return self.signed(f"{value:.2g}" if abs(value) < 1 or math.isinf(value) else f"{value:.1f}".removesuffix(".0"))

    def figures(self, value: float) -> str:
        """A number with all its figures, six at the most."""
        return self.signed(f"{value:g}")

    def grouped(self, value: int) -> str:
        return self.signed(f"{value:,}")

    def percent(self, share: float) -> str:
        return f"{100 * share:.0f} %"

    def both(self, words: list[str]) -> str:
        return " and ".join(words)

    def unit(self, quantity: Quantity) -> Unit:
        return units.unit(quantity, self.system, self.scale)

    def amount(self, stored: float, quantity: Quantity, places: int | None = None) -> str:
        """A measure without its unit. stored: in the unit that is stored; places: its decimals, None: as short as counts are."""
        unit = self.unit(quantity)
        shown = unit.shown(stored)
        return self.short(shown) if places is None else self.decimal(shown, max(0, places + unit.more_places))

    def typed(self, stored: float, quantity: Quantity | None = None) -> str:
        """A number as one would type it into a form: at most six figures, nothing between thousands."""
        return self.signed(f"{self.unit(quantity).shown(stored) if quantity else stored:.6g}")

    def readings(self, text: str) -> tuple[float, ...]:
        """What a typed number may mean, the way of these formats first: none where it is no number, two where a sign can be read twice."""
        text = _SPACED.sub("", text.strip())
        fraction, thousands = text.replace(",", "."), re.sub("[.,]", "", text)
        if _UNSURE.fullmatch(text):
            both = (float(fraction), float(thousands))
            return both if SIGNS[self.numbers][1] in text else both[::-1]
        if _PLAIN.fullmatch(text):
            return (float(fraction),)
        if _BY_COMMA.fullmatch(text):
            return (float(text.replace(",", "")),)
        if _BY_POINT.fullmatch(text):
            return (float(text.replace(".", "").replace(",", ".")),)
        return ()
