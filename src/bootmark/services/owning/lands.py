"""Countries, their parts, currencies and time zones, by name and by code. Source: ISO 3166-1, 3166-2 and 4217, the tz database."""

import functools
import gettext
import zoneinfo
from collections.abc import Callable, Iterable
from typing import Any

import pycountry
from timezonefinder import TimezoneFinder

from bootmark import say


@functools.cache
def _spoken(standard: str, language: str) -> Callable[[str], str]:
    """The names of a standard in a language, as the library has them; as they stand where it does not."""
    return gettext.translation(standard, pycountry.LOCALES_DIR, [language.replace("-", "_")], fallback=True).gettext


def _by_name(rows: Iterable[tuple[str, str]]) -> tuple[tuple[str, str], ...]:
    return tuple(sorted(rows, key=lambda row: row[1]))


def countries() -> tuple[tuple[str, str], ...]:
    """Code and name in the page's language, by name."""
    return _countries(say.tongue().language)


@functools.cache
def _countries(language: str) -> tuple[tuple[str, str], ...]:
    spoken = _spoken("iso3166-1", language)
    return _by_name((land.alpha_2, spoken(getattr(land, "common_name", land.name))) for land in pycountry.countries)


def parts(country: str) -> tuple[tuple[str, str], ...]:
    """Code and name of a country's highest subdivisions, by name; none where it has none or is not known."""
    spoken = _spoken("iso3166-2", say.tongue().language)
    rows = pycountry.subdivisions.get(country_code=country) or ()  # type: ignore[no-untyped-call]
    return _by_name((row.code, spoken(row.name)) for row in rows if not row.parent_code)


def currencies() -> tuple[tuple[str, str], ...]:
    """Code and name, by code."""
    spoken = _spoken("iso4217", say.tongue().language)
    return tuple(sorted((money.alpha_3, spoken(money.name)) for money in pycountry.currencies))


def _part(code: str) -> Any:
    """A subdivision by its code; None where there is none."""
    return pycountry.subdivisions.get(code=code)  # type: ignore[no-untyped-call]


def is_region(code: str) -> bool:
    """Whether it is a country, or a part of one, in the standard's own letters: the library takes others for the same."""
    if "-" not in code:
        return code in dict(countries())
    part = _part(code)
    return part is not None and part.code == code


def named(region: str) -> str:
    """A region in words; empty where none is told, itself where it is no code."""
    if not is_region(region):
        return region
    country = dict(countries())[region[:2]]
    part = _part(region) if "-" in region else None
    return f"{_spoken('iso3166-2', say.tongue().language)(part.name)}, {country}" if part else country


def zones() -> tuple[str, ...]:
    """Every time zone that a farm may keep, by name."""
    return tuple(
        sorted(zone for zone in zoneinfo.available_timezones() if "/" in zone and not zone.startswith(("Etc/", "SystemV/", "US/")))
    )


@functools.cache
def _finder() -> TimezoneFinder:
    return TimezoneFinder()


def zone_at(latitude: float, longitude: float) -> str:
    """The time zone of a place, degrees. At sea it is the nautical one."""
    return _finder().timezone_at(lat=latitude, lng=longitude) or "Etc/UTC"
