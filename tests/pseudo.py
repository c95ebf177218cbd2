"""A language that is no language: English with an accent on every letter and a third longer, to see that nothing is left out and all fits."""

import dataclasses
import datetime as dt
import gettext
import re
from collections.abc import Mapping
from typing import Any
from unittest import mock

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue import Catalogue
from bootmark.say import Tongue
from bootmark.say.formats import Formats

PLAIN = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"
ACCENTED = "åƀçđéƒğĥíĵķļɱñöþɋŕšţûṽŵẋýžÅƁÇĐÉƑĞĤÎĴĶĻṀÑÖÞɊŔŠŢÛṼŴẊÝŽ"
ACCENT = str.maketrans(PLAIN, ACCENTED)
KEPT = re.compile(r"(\{[^{}]*\}|&[a-z]+;|&#\d+;)")
"""Fields and entities stay as they are."""
LONGER = 1 / 3
WORDS = {
    "name", "sentence", "do", "yes", "no", "tell", "biofix_name", "unit", "plan", "when", "timing", "spares", "harms", "success", "cautions",
    "summary", "winters", "generations", "growth", "wild_hosts", "occurs", "said_wrongly", "leave_when", "where", "other_names", "notifiable",
    "answers", "skill", "winters_as", "region",
}  # fmt: skip
"""Fields of the catalogue that are read."""


def pseudo(text: str) -> str:
    if not any(letter.isalpha() for letter in KEPT.sub("", text)):
        return text
    said = "".join(part if KEPT.fullmatch(part) else part.translate(ACCENT) for part in KEPT.split(text))
    end = re.search(r"[\s.,:;?!]*$", said)
    assert end
    more = max(1, round(len(KEPT.sub("", text)) * LONGER))
    # In words of at most seven letters, as a sentence would be.
    padding = re.sub(r"(.{7})(?=.)", r"\1 ", "öñé" * (more // 3 + 1))[:more]
    gap = " " if more > 4 else ""
    return said[: end.start()] + gap + padding.strip() + said[end.start() :]


class Pseudo(gettext.NullTranslations):
    def gettext(self, message: str) -> str:
        return pseudo(message)

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:
        return pseudo(msgid1 if n == 1 else msgid2)


class PseudoFormats(Formats):
    def month(self, on: dt.date) -> str:
        return pseudo(f"{on:%B}")

    def short_month(self, on: dt.date) -> str:
        return pseudo(f"{on:%b}")

    def day(self, on: dt.date) -> str:
        return f"{on.day} {self.month(on)}"

    def full_day(self, on: dt.date) -> str:
        return f"{self.day(on)} {on.year}"

    def short_day(self, on: dt.date) -> str:
        return f"{on.day} {self.short_month(on)}"

    def weekday(self, on: dt.date) -> str:
        return f"{pseudo(f'{on:%a}')} {self.day(on)}"

    def weekday_name(self, on: dt.date) -> str:
        return pseudo(f"{on:%A}")

    def weekday_day(self, on: dt.date) -> str:
        return f"{self.weekday_name(on)} {self.day(on)}"

    def short_full_day(self, on: dt.date) -> str:
        return f"{self.short_day(on)} {on.year}"

    def both(self, words: list[str]) -> str:
        return pseudo(" and ").join(words)


def translated(value: Any, field: str = "") -> Any:
    """A part of the catalogue with all that is read put into the language."""
    if isinstance(value, str):
        return pseudo(value) if field in WORDS else value
    if isinstance(value, tuple):
        return tuple(translated(part, field) for part in value)
    if isinstance(value, Mapping):
        return {key: translated(part, field) for key, part in value.items()}
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        changed = {part.name: translated(getattr(value, part.name), part.name) for part in dataclasses.fields(value) if part.init}
        return dataclasses.replace(value, **changed)
    return value


def catalogue() -> Catalogue:
    shipped = catalogues.load()
    return dataclasses.replace(
        shipped,
        **{part: translated(getattr(shipped, part)) for part in ("agents", "signs", "looks", "crops")},
        hash="pseudo",
    )


def tongue(*, rtl: bool = False) -> Tongue:
    return Tongue("ar-x-pseudo" if rtl else "en-x-pseudo", Pseudo(), PseudoFormats(), rtl)


def shipped_as(entries: Catalogue) -> Any:
    """While this lasts, the shipped catalogue is this one."""
    catalogues.default.cache_clear()
    return mock.patch("bootmark.core.catalogue.compiled.kept", lambda files, read: entries)
