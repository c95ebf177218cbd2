"""What the fields of a farm and of its people may hold, beside those that every command knows."""

import unicodedata
import zoneinfo
from dataclasses import dataclass
from typing import Any

from pydantic_core import CoreSchema, core_schema

from bootmark import say
from bootmark.services.base import people
from bootmark.services.base.fields import Checks, Rule, Text, said, wrong
from bootmark.services.owning import lands

NO_ADDRESS = "That is no mail address: it has a name, an @ and a host with a dot."
NO_ZONE = "There is no time zone {zone}: give one such as Europe/Vienna."
JOINERS = "\u200c\u200d"
"""They shape letters of some scripts, and are seen by what they do."""


def unseen(name: str) -> bool:
    """Whether a name holds what can't be seen, or turns what follows round."""
    return any(unicodedata.category(letter) in ("Cc", "Cf", "Co", "Cn") and letter not in JOINERS for letter in name)


@dataclass(frozen=True)
class Called(Text):
    """A name, of letters that can be seen."""

    most: int = 80

    def read(self, value: Any, checks: Checks) -> str:
        name = super().read(value, checks)
        if unseen(name):
            raise wrong(say.line("This holds letters that can't be seen, or that turn others round: write it again by hand."))
        if name and not name.strip(JOINERS):
            raise wrong(say.line("This is empty: write something here."))
        return name


@dataclass(frozen=True)
class Mail(Text):
    """A mail address, folded as it is looked up."""

    most: int = people.MOST_LETTERS

    def read(self, value: Any, checks: Checks) -> str:
        typed = super().read(value, checks)
        if typed and not people.is_address(typed):
            raise wrong(say.line(NO_ADDRESS))
        return people.folded(typed)


@dataclass(frozen=True)
class Region(Rule):
    """A country, or a part of one; empty where the farm does not say."""

    def inner(self) -> CoreSchema:
        return core_schema.str_schema(max_length=6)

    def read(self, value: Any, checks: Checks) -> str:
        if value and not (isinstance(value, str) and lands.is_region(value)):
            raise wrong(say.line("There is no country or part of one with this code: choose it from the list."))
        return value or ""


@dataclass(frozen=True)
class Currency(Rule):
    """Money's code; empty where the farm does not say."""

    def inner(self) -> CoreSchema:
        return core_schema.str_schema(max_length=3)

    def read(self, value: Any, checks: Checks) -> str:
        if value and not (isinstance(value, str) and value in dict(lands.currencies())):
            raise wrong(say.line("There is no money with this code: choose it from the list."))
        return value or ""


@dataclass(frozen=True)
class Zone(Rule):
    """A time zone of the tz database."""

    def inner(self) -> CoreSchema:
        return core_schema.str_schema(max_length=60)

    def read(self, value: Any, checks: Checks) -> str:
        if not isinstance(value, str) or value not in zoneinfo.available_timezones():
            raise wrong(say.line(NO_ZONE, zone=said(value)))
        return value
