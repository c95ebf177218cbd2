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
def countries() -> tuple[tuple[str, str], ...]:
    """Code and name, by name."""
    return tuple(
        sorted(((land.alpha_2, getattr(land, "common_name", land.name)) for land in pycountry.countries), key=lambda land: land[1])
    )


@functools.cache
def parts(country: str) -> tuple[tuple[str, str], ...]:
    """Code and name of a country's highest subdivisions, by name; none where it has none or is not known."""
    rows = pycountry.subdivisions.get(country_code=country) or ()  # type: ignore[no-untyped-call]
    return tuple(sorted(((row.code, row.name) for row in rows if not row.parent_code), key=lambda row: row[1]))


@functools.cache
def currencies() -> tuple[tuple[str, str], ...]:
    """Code and name, by code."""
    return tuple(sorted((money.alpha_3, money.name) for money in pycountry.currencies))


def _part(code: str) -> Any:
    """A subdivision by its code; None where there is none."""
    return pycountry.subdivisions.get(code=code)  # type: ignore[no-untyped-call]


def is_region(code: str) -> bool:
    """Whether it is a country, or a part of one."""
    country, dash, _ = code.partition("-")
    return pycountry.countries.get(alpha_2=country) is not None and (not dash or _part(code) is not None)


def named(region: str) -> str:
    """A region in words; empty where none is told, itself where it is no code."""
    if not is_region(region):
        return region
    country = dict(countries())[region[:2]]
    part = _part(region) if "-" in region else None
    return f"{_spoken('iso3166-2', _language())(part.name)}, {country}" if part else country


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
