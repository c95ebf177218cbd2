"""Reads the catalogue's TOML files and refuses a bad one by file and line of reasoning."""

import functools
import hashlib
import tomllib
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from bootmark.core import units
from bootmark.core.catalogue import model
from bootmark.core.catalogue.model import (
    Agent,
    Catalogue,
    Control,
    Crop,
    Enemy,
    Event,
    Heat,
    Look,
    LookAlike,
    NominalThreshold,
    Sampling,
    Shows,
    Sign,
)

HERE = Path(__file__).parent
WORK_OF_KIND = {"conventional": "spray", "soft": "spray", "living": "release"}
PROVENANCE = ("published", "common practice", "memory")


class CatalogueError(ValueError):
    """What is wrong in which file, in a sentence."""


class Reader:
    """One table of one file, read key by key; knows where it is, so that errors can say so."""

    def __init__(self, where: str, table: Mapping[str, Any], sources: Mapping[str, str] | None = None) -> None:
        self.where, self.table, self.sources, self.used = where, table, sources or {}, set[str]()

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

    def source(self) -> str:
        key = self.text("source")
        if key not in self.sources:
            raise self.fail(f"source {key!r} is not among this file's [sources]")
        return self.sources[key]

    def tables(self, key: str, default: Any = ...) -> list["Reader"]:
        return [Reader(f"{self.where} [{key} {n}]", row, self.sources) for n, row in enumerate(self.get(key, list, default), 1)]

    def sub(self, key: str, default: Any = ...) -> "Reader":
        return Reader(f"{self.where} [{key}]", self.get(key, dict, default), self.sources)

    def done(self) -> None:
        unknown = set(self.table) - self.used
        if unknown:
            raise self.fail(f"unknown key {', '.join(sorted(unknown))}")


def _heat(reader: Reader) -> Heat:
    unit = reader.one_of("unit", ("C", "F"))

    def degree_days(value: float) -> float:
        return value if unit == "C" else units.difference_celsius(value)

    def temperature(value: float | None) -> float | None:
        return value if value is None or unit == "C" else units.celsius(value)

    events = []
    for row in reader.tables("events"):
        at, spread = degree_days(row.number("at")), degree_days(row.number("spread"))
        events.append(Event(row.text("id"), row.text("name"), at, spread, row.one_of("stage", (*model.STAGES, "over")), row.source()))
        row.done()
    if [event.at for event in events] != sorted(event.at for event in events):
        raise reader.fail("events must stand in the order of their sums")
    lower, upper = temperature(reader.number("lower")), temperature(reader.number("upper", None))
    if lower is None or (upper is not None and upper <= lower):
        raise reader.fail("'upper' must be above 'lower'")
    month_day = reader.words("month_day", [])
    egg, before = reader.number("egg", None), reader.number("adult_before_eggs", None)
    heat = Heat(
        lower=lower,
        upper=upper,
        method=reader.text("method"),
        cutoff=reader.text("cutoff"),
        biofix=reader.one_of("biofix", ("date", "catch", "seen", "none")),
        biofix_name=reader.text("biofix_name"),
        month_day=(int(month_day[0]), int(month_day[1])) if month_day else None,
        events=tuple(events),
        egg=degree_days(egg) if egg else None,
        adult_before_eggs=degree_days(before) if before else None,
        source=reader.source(),
    )
    reader.done()
    return heat


def _control(row: Reader) -> Control:
    kind = row.one_of("kind", model.CONTROL_KINDS)
    control = Control(
        id=row.text("id"),
        kind=kind,
        name=row.text("name"),
        do=row.text("do"),
        stages=row.words("stages"),
        phases=row.words("phases", []),
        at_events=row.words("at_events", []),
        timing=row.text("timing"),
        spares=row.text("spares"),
        harms=row.words("harms", []),
        group=row.text("group", ""),
        spares_eggs=row.get("spares_eggs", bool, False),
        repeats=int(row.number("repeats", 1)),
        contact=row.get("contact", bool, False),
        look_again_days=int(row.number("look_again_days")),
        success=row.text("success"),
        skill=row.text("skill"),
        tools=row.words("tools", []),
        cautions=row.words("cautions", []),
        source=row.source(),
        harvest_days=int(row.number("harvest_days", 0)),
        reentry_hours=int(row.number("reentry_hours", 0)),
        work=row.one_of("work", model.WORK, WORK_OF_KIND.get(kind, "any")),
    )
    if kind == "conventional" and not (control.group and control.cautions):
        raise row.fail("a conventional control needs its resistance group and its cautions")
    unknown = set(control.stages) - set(model.STAGES)
    if unknown:
        raise row.fail(f"unknown stage {', '.join(sorted(unknown))}")
    row.done()
    return control


def _shows(row: Reader, signs: Mapping[str, Sign]) -> Shows:
    shows = Shows(
        row.one_of("sign", signs),
        row.one_of("often", model.HOW_OFTEN),
        row.get("outlasts", bool, False),
        row.get("confirms", bool, False),
        row.source(),
    )
    row.done()
    return shows


def _agent(path: Path, signs: Mapping[str, Sign], looks: Mapping[str, Look], crops: Mapping[str, Crop]) -> Agent:
    try:
        raw = tomllib.loads(path.read_text("utf-8"))
    except tomllib.TOMLDecodeError as error:
        raise CatalogueError(f"{path.name}: {error}") from error
    sources = raw.get("sources", {})
    top = Reader(path.name, raw, sources)
    top.used.add("sources")
    for key, text in sources.items():
        if not text.startswith(PROVENANCE):
            raise top.fail(f"source {key!r} must begin with {', '.join(PROVENANCE)}")
    hosts = {}
    for row in top.tables("hosts"):
        crop = row.text("crop")
        if crop != "*" and crop not in crops:
            raise row.fail(f"unknown crop {crop!r}")
        hosts[crop] = row.one_of("usual", model.HOW_USUAL)
        row.source()
        row.done()
    shown = [_shows(row, signs) for row in top.tables("signs")]
    if len({one.sign for one in shown}) != len(shown):
        raise top.fail("a sign is listed twice")
    answers = {}
    for row in top.tables("looks"):
        answers[row.one_of("look", looks)] = row.text("means")
    life = top.sub("life")
    months = top.sub("months")
    sampling = top.sub("sampling") if "sampling" in raw else None
    agent = Agent(
        id=top.text("id"),
        kind=top.one_of("kind", model.KINDS),
        name=top.text("name"),
        scientific=top.text("scientific"),
        other_names=top.words("other_names"),
        order=top.text("order"),
        family=top.text("family"),
        summary=top.text("summary"),
        harmful_stage=top.text("harmful_stage"),
        hosts=hosts,
        shows={one.sign: one for one in shown},
        answers=answers,
        look_alikes=tuple(LookAlike(row.text("agent"), row.text("tell"), row.one_of("look", looks)) for row in top.tables("look_alikes")),
        stages=life.words("stages"),
        where=life.get("where", dict),
        winters=life.text("winters"),
        generations=life.text("generations"),
        months=frozenset(int(month) for month in months.words("north")),
        favoured={row.text("weather"): row.number("times") for row in top.tables("favoured", [])},
        heat=_heat(top.sub("heat")) if "heat" in raw else None,
        growth=top.text("growth"),
        sampling=Sampling(
            sampling.text("unit"),
            sampling.one_of("measure", ("mean", "proportion")),
            int(sampling.number("units")),
            sampling.text("plan"),
            sampling.text("when"),
            sampling.source(),
        )
        if sampling
        else None,
        thresholds=tuple(
            NominalThreshold(
                row.text("crop"), row.number("value"), row.one_of("measure", ("mean", "proportion", "trap")), row.text("unit"), row.source()
            )
            for row in top.tables("thresholds", [])
        ),
        enemies=tuple(Enemy(row.text("agent"), row.text("name"), row.number("ratio"), row.source()) for row in top.tables("enemies", [])),
        controls=tuple(_control(row) for row in top.tables("controls")),
        wild_hosts=top.text("wild_hosts"),
        occurs=top.text("occurs"),
        notifiable=top.words("notifiable"),
        said_wrongly=top.text("said_wrongly"),
        leave_when=top.text("leave_when"),
        cosmetic=top.get("cosmetic", bool, False),
        sources=sources,
    )
    if agent.id != path.stem:
        raise top.fail(f"the id {agent.id!r} must be the file's name")
    if not life.source() or not months.source():
        raise top.fail("life and months need a source")
    top.done()
    return agent


def _signs(raw: Mapping[str, Any]) -> dict[str, Sign]:
    signs = {}
    for sign_id, table in raw.items():
        row = Reader(f"signs.toml [{sign_id}]", table)
        signs[sign_id] = Sign(
            sign_id,
            row.text("name"),
            row.text("sentence"),
            row.one_of("part", model.PARTS),
            row.text("look"),
            row.number("leak", 0.02),
            row.get("live", bool, False),
        )
        row.done()
    return signs


def _looks(raw: Mapping[str, Any], signs: Mapping[str, Sign]) -> dict[str, Look]:
    looks = {}
    for look_id, table in raw.items():
        row = Reader(f"looks.toml [{look_id}]", table)
        answered = tuple(sign.id for sign in signs.values() if sign.look == look_id)
        looks[look_id] = Look(
            look_id,
            row.text("name"),
            row.text("do"),
            int(row.number("seconds")),
            row.words("tools", []),
            row.get("night", bool, False),
            row.text("yes", ""),
            row.text("no", ""),
            answered,
        )
        row.done()
    for sign in signs.values():
        if sign.look not in looks:
            raise CatalogueError(f"signs.toml [{sign.id}]: unknown look {sign.look!r}")
    return looks


def _crops(raw: Mapping[str, Any]) -> dict[str, Crop]:
    return {crop_id: Crop(crop_id, row["name"], row["family"], row["group"], row["place"]) for crop_id, row in raw.items()}


def load(folder: Path = HERE) -> Catalogue:
    """Read and check a catalogue folder. Raises CatalogueError naming the file and what is wrong."""
    files = sorted(folder.rglob("*.toml"))
    digest = hashlib.sha256(b"\0".join(path.read_bytes() for path in files)).hexdigest()
    common = {path.stem: tomllib.loads(path.read_text("utf-8")) for path in files if path.parent == folder}
    signs = _signs(common["signs"])
    looks = _looks(common["looks"], signs)
    crops = _crops(common["crops"])
    agents = {}
    for path in files:
        if path.parent != folder:
            agent = _agent(path, signs, looks, crops)
            agents[agent.id] = agent
    for agent in agents.values():
        for other in agent.look_alikes:
            if other.agent not in agents and other.agent not in common.get("aliases", {}):
                raise CatalogueError(f"{agent.id}.toml: look-alike {other.agent!r} is not in the catalogue")
    return Catalogue(agents, signs, looks, crops, digest[:16], common.get("aliases", {}))


@functools.cache
def default() -> Catalogue:
    """The catalogue that ships with Bootmark."""
    return load()
