"""How days, numbers and shares are written. The English way; another language brings its own."""

import datetime as dt
import math


class Formats:
    """Writes values into sentences."""

    def day(self, on: dt.date) -> str:
        return f"{on:%-d %B}"

    def full_day(self, on: dt.date) -> str:
        return f"{on:%-d %B %Y}"

    def short_day(self, on: dt.date) -> str:
        return f"{on:%-d %b}"

    def weekday(self, on: dt.date) -> str:
        return f"{on:%a %-d %B}"

    def weekday_name(self, on: dt.date) -> str:
        return f"{on:%A}"

    def weekday_day(self, on: dt.date) -> str:
        return f"{on:%A %-d %B}"

    def short_full_day(self, on: dt.date) -> str:
        return f"{on:%-d %b %Y}"

    def month(self, on: dt.date) -> str:
        return f"{on:%B}"

    def short_month(self, on: dt.date) -> str:
        return f"{on:%b}"

    def time(self, at: dt.time | dt.datetime) -> str:
        return f"{at:%H:%M}"

    def decimal(self, value: float, places: int) -> str:
        return f"{value:.{places}f}"

    def short(self, value: float) -> str:
        """A number as counts are told: two figures below one, one place above, none where it is whole."""
        return f"{value:.2g}" if abs(value) < 1 or math.isinf(value) else f"{value:.1f}".removesuffix(".0")

    def percent(self, share: float) -> str:
        return f"{100 * share:.0f} %"

    def both(self, words: list[str]) -> str:
        return " and ".join(words)
