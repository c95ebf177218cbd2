"""Reads one table of one catalogue file key by key, so that each error can name its file and place."""

import difflib
from collections.abc import Iterable, Mapping
from enum import StrEnum
from typing import Any, TypeVar

Member = TypeVar("Member", bound=StrEnum)
PROVENANCE = ("published", "as remembered", "common practice", "memory")


class CatalogueError(ValueError):
    """What is wrong in which file, in a sentence."""


def nearest(word: str, words: Iterable[str]) -> str:
    """What somebody may have meant who typed a word that is not among these; empty where nothing is like it."""
    alike = difflib.get_close_matches(word, [str(other) for other in words], n=2)
    return f"; did you mean {' or '.join(alike)}?" if alike else ""


class Reader:
    """One table. sources: keys of sources.toml to what they stand for; own: the key that holds where nothing else is said."""

    def __init__(self, where: str, table: Mapping[str, Any], sources: Mapping[str, str] | None = None, own: str = "") -> None:
        self.where, self.table, self.sources, self.own, self.used = where, table, sources or {}, own, set[str]()

    def fail(self, text: str) -> CatalogueError:
        return CatalogueError(f"{self.where}: {text}")

    def get(self, key: str, kind: type | tuple[type, ...], default: Any = ...) -> Any:
        self.used.add(key)
        if key not in self.table:
            if default is ...:
                raise self.fail(f"{key!r} is missing")
            return default
        value = self.table[key]
        if not isinstance(value, kind) or (isinstance(value, bool) and kind is not bool):
            raise self.fail(f"{key!r} must be {getattr(kind, '__name__', 'a number')}, not {value!r}")
        return value

    def text(self, key: str, default: Any = ...) -> str:
        return str(self.get(key, str, default))

    def number(self, key: str, default: Any = ...) -> Any:
        value = self.get(key, (int, float), default)
        return float(value) if value is not None else None

    def words(self, key: str, default: Any = ...) -> tuple[str, ...]:
        return tuple(self.get(key, list, default))

    def one_of(self, key: str, allowed: Any, default: Any = ...) -> str:
        value = self.text(key, default)
        if value not in allowed:
            raise self.fail(f"{key!r} is {value!r}; it must be one of {', '.join(allowed)}")
        return value

    def member(self, key: str, of: type[Member], default: Any = ...) -> Member:
        """A member of an enumeration, by its word."""
        return of(self.one_of(key, tuple(of), default))

    def named(self, key: str) -> str:
        """What a source key stands for."""
        if key not in self.sources:
            raise self.fail(f"source {key!r} is not in sources.toml{nearest(key, self.sources)}")
        return self.sources[key]

    def source(self) -> str:
        return self.named(self.text("source", self.own or ...))

    def row(self, key: str, place: object, table: Mapping[str, Any]) -> "Reader":
        return Reader(f"{self.where} [{key} {place}]", table, self.sources, self.own)

    def sub(self, key: str, default: Any = ...) -> "Reader":
        return Reader(f"{self.where} [{key}]", self.get(key, dict, default), self.sources, self.own)

    def rows(self, key: str) -> list["Reader"]:
        """The tables of a list."""
        tables = self.get(key, list, [])
        for place, table in enumerate(tables, 1):
            if not isinstance(table, dict):
                raise self.fail(f"row {place} of {key!r} must be a table, as {{ name = value }}")
        return [self.row(key, place, table) for place, table in enumerate(tables, 1)]

    def tables(self, key: str) -> dict[str, "Reader"]:
        """The tables of a table, by their names."""
        named = self.get(key, dict)
        for name, table in named.items():
            if not isinstance(table, dict):
                raise self.fail(f"{key} {name!r} must be a table, as {{ name = value }}")
        return {name: self.row(key, name, table) for name, table in named.items()}

    def done(self) -> None:
        unknown = set(self.table) - self.used
        if unknown:
            raise self.fail(f"unknown key {', '.join(sorted(unknown))}{nearest(min(unknown), self.used)}")
