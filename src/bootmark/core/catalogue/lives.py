"""Life tables: pests whose generations overlap, and predatory mites that eat them. Standard library only."""

import functools
import tomllib
from collections.abc import Collection
from dataclasses import dataclass, replace
from pathlib import Path

from bootmark.core.catalogue.reader import PROVENANCE, Reader

FILE = Path(__file__).with_name("lives.toml")


@dataclass(frozen=True)
class Span:
    """One stage: degree-days C that it lasts on average, compartments, whether it feeds."""

    stage: str
    heat: float
    compartments: int
    feeds: bool


@dataclass(frozen=True)
class Life:
    """A life cycle by heat.

    lower, optimum, lethal: degrees C of no, fastest and again no development; spans: the young stages in order, the last
    of them the adult before her first young; eggs: young of an adult for each degree-day C, both sexes counted;
    adult_heat: mean degree-days C that a laying adult lives; survive: share of young that come through without enemies or
    treatment; eats: prey that a predator takes for each degree-day C where there is plenty; searches: share of a leaf that it
    searches for each degree-day C. source: what the numbers rest on. wanes, barren: degrees C between which eggs and survival fall
    from all to none, the lethal temperature where nothing is said; hosts: what is otherwise on a plant: times as many eggs, as much of the
    young that comes through, as fast.
    """

    lower: float
    optimum: float
    lethal: float
    spans: tuple[Span, ...]
    eggs: float
    adult_heat: float
    survive: float
    source: str
    eats: float = 0.0
    searches: float = 0.0
    wanes: float = 0.0
    barren: float = 0.0
    hosts: tuple[tuple[str, tuple[float, float, float]], ...] = ()

    def on(self, crop: str) -> "Life":
        """The life table as it is on a plant."""
        eggs, survive, pace = dict(self.hosts).get(crop, (1.0, 1.0, 1.0))
        spans = tuple(replace(span, heat=span.heat / pace) for span in self.spans)
        return replace(self, eggs=self.eggs * eggs, survive=min(1.0, self.survive * survive), spans=spans)

    @property
    def generation(self) -> float:
        """Degree-days C from egg to first egg."""
        return sum(span.heat for span in self.spans)

    def reached(self, stages: Collection[str]) -> list[str]:
        """Its spans, the laying adult among them, that the catalogue calls by one of these stages: a young adult is an adult."""
        names = {span.stage: span.stage.removeprefix("young ") for span in self.spans} | {"adult": "adult"}
        return [span for span, stage in names.items() if stage in stages]


def _span(row: Reader) -> Span:
    span = Span(row.text("stage"), row.number("heat"), int(row.number("compartments")), row.get("feeds", bool))
    row.done()
    return span


def _host(name: str, row: Reader) -> tuple[str, tuple[float, float, float]]:
    factors = (row.number("eggs", 1.0), row.number("survive", 1.0), row.number("pace", 1.0))
    row.done()
    if min(factors) <= 0:
        raise row.fail("what a plant changes is a factor above 0")
    return name, factors


def read(name: str, table: dict[str, object]) -> Life:
    """One life table. Raises CatalogueError naming the entry and what is wrong."""
    row = Reader(f"lives.toml [{name}]", table)
    spans = tuple(_span(span) for span in row.rows("spans"))
    life = Life(
        row.number("lower"),
        row.number("optimum"),
        row.number("lethal"),
        spans,
        row.number("eggs"),
        row.number("adult_heat"),
        row.number("survive"),
        row.text("source"),
        row.number("eats", 0.0),
        row.number("searches", 0.0),
        row.number("wanes", row.number("optimum")),
        row.number("barren", row.number("lethal")),
        tuple(_host(name, host) for name, host in sorted(row.tables("hosts").items())) if "hosts" in table else (),
    )
    row.done()
    if not life.lower < life.optimum < life.lethal:
        raise row.fail("lower, optimum and lethal must rise in this order")
    if not life.wanes < life.barren <= life.lethal:
        raise row.fail("wanes must lie below barren, and barren at most at lethal")
    if not spans or any(span.heat <= 0 or span.compartments < 1 for span in spans):
        raise row.fail("a span lasts some degree-days and has at least one compartment")
    if not 0 < life.survive <= 1 or life.eggs < 0 or life.adult_heat <= 0:
        raise row.fail("survive is a share; eggs and adult_heat can't be below nothing")
    if not life.source.startswith(PROVENANCE):
        raise row.fail(f"source must begin with {', '.join(PROVENANCE)}")
    return life


@functools.cache
def lives() -> dict[str, Life]:
    """Agents with a life table, by their ids in the catalogue."""
    return {name: read(name, table) for name, table in tomllib.loads(FILE.read_text("utf-8")).items()}
