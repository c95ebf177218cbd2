"""One agent's file: how its tables are read into an Agent.

Where a value names no source of its own, that of its table holds, and where the table names
none, that of the file. A control that stands in controls.toml takes from there what is the
same on every pest: group, cautions, skill, tools.
"""

from collections.abc import Mapping
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue import hosts as plant_hosts
from bootmark.core.catalogue import model
from bootmark.core.catalogue.heat import read_heat
from bootmark.core.catalogue.hosts import with_shared
from bootmark.core.catalogue.model import (
    Agent,
    Closed,
    Control,
    Crop,
    Enemy,
    Look,
    LookAlike,
    NominalThreshold,
    Sampling,
    Shows,
    Sign,
)
from bootmark.core.catalogue.reader import Reader, nearest
from bootmark.core.catalogue.shapes import STAGES
from bootmark.core.meanings import MATERIALS, AgentKind, ControlKind, CountTool, DayPart, Measure, Spared, Work
from bootmark.core.types import Taylor

WORK_OF_KIND = {ControlKind.CONVENTIONAL: Work.SPRAY, ControlKind.SOFT: Work.SPRAY, ControlKind.LIVING: Work.RELEASE}


def _whole(row: Reader, key: str) -> int | None:
    number = row.number(key, None)
    if number is not None and number < 1:
        raise row.fail(f"{key!r} is a whole number from 1 on, or left out where it is not known")
    return None if number is None else int(number)


def _days(row: Reader, key: str) -> int | None:
    number = row.number(key, None)
    if number is not None and number < 0:
        raise row.fail(f"{key!r} is a number of days, or left out where it is not known")
    return None if number is None else int(number)


def _control(control_id: str, own: Reader, top: Reader, shared: Mapping[str, Any], crops: Mapping[str, Crop]) -> Control:
    row = top.row("controls", control_id, {**shared.get(control_id, {}), **own.table})
    if "kind" not in row.table:
        raise row.fail(f"it is not in controls.toml, so it must say everything, 'kind' first{nearest(control_id, shared)}")
    kind = row.member("kind", ControlKind)
    if kind == ControlKind.CONVENTIONAL:
        for interval in ("harvest_days", "reentry_hours"):
            if interval not in row.table:
                raise row.fail(f"{interval!r} is missing: an unknown interval is not nought")
    control = Control(
        id=control_id,
        kind=kind,
        name=row.text("name"),
        do=row.text("do"),
        stages=row.words("stages", []),
        phases=row.words("phases", []),
        at_events=row.words("at_events", []),
        timing=row.text("timing"),
        spares=row.text("spares"),
        harms=tuple(_spared(row, "harms", word) for word in row.words("harms", [])),
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
        harvest_days=_interval(row, "harvest_days", kind),
        reentry_hours=_interval(row, "reentry_hours", kind),
        work=row.member("work", Work, WORK_OF_KIND.get(kind, Work.ANY)),
        lasts_days=int(row.number("lasts_days", 1)),
        months=span(row, list(row.words("months"))) if "months" in row.table else frozenset(),
        not_with=row.words("not_with", []),
        keeps_out=row.get("keeps_out", bool, False),
        targets=row.words("targets", []),
        not_on=row.words("not_on", []),
        needs=row.words("needs", []),
        needs_absent=row.words("needs_absent", []),
        by_hand=row.get("by_hand", bool, False),
        small=row.get("small", bool, False),
        final=row.get("final", bool, False),
        retired=row.get("retired", bool, False),
        closed=_waits(row, crops) if "closed" in row.table else {},
        marks=with_shared(row.words("marks", []), crops),
        brings=_spared(row, "brings", row.text("brings")) if "brings" in row.table else None,
        gap_days=_whole(row, "gap_days"),
        season_most=_whole(row, "season_most"),
        feed_days=_days(row, "feed_days"),
        plant_back_days=_days(row, "plant_back_days"),
    )
    if kind == ControlKind.CONVENTIONAL and not (control.group and control.cautions):
        raise row.fail("a conventional control needs its resistance group and its cautions")
    unknown = set(control.stages) - set(STAGES)
    if unknown:
        raise row.fail(f"unknown stage {', '.join(sorted(unknown))}")
    row.done()
    return control


def _shows(sign: str, row: Reader, signs: Mapping[str, Sign]) -> Shows:
    if sign not in signs:
        raise row.fail(f"unknown sign {sign!r}{nearest(sign, signs)}")
    often, outlasts, confirms = row.one_of("often", judgement.HOW_OFTEN), row.get("outlasts", bool, False), row.get("confirms", bool, False)
    shows = Shows(sign, often, outlasts, confirms, row.source())
    row.done()
    return shows


def _species(top: Reader) -> model.Species | None:
    if "species" not in top.table:
        return None
    row = top.sub("species")
    species = model.Species(row.text("matters", ""), row.text("tells", ""))
    row.done()
    return species


def _spared(row: Reader, key: str, word: str) -> Spared:
    if word not in tuple(Spared):
        raise row.fail(f"{key!r} names {word!r}{nearest(word, Spared)}; it is one of {', '.join(Spared)}")
    return Spared(word)


def _interval(row: Reader, key: str, kind: ControlKind) -> int | None:
    """Of a material none where nobody says it: an unknown interval is not nought. What is no material has none to keep."""
    value = row.number(key, None)
    if value is None:
        return None if kind in MATERIALS else 0
    return int(value)


def _waits(row: Reader, crops: Mapping[str, Crop]) -> dict[str, Closed]:
    waits = {plant: _closed(closed) for plant, closed in row.tables("closed").items()}
    return {other: closed for plant, closed in waits.items() for other in with_shared((plant,), crops)} | waits


def _closed(row: Reader) -> Closed:
    closed = Closed(span(row, row.get("months", list)), row.text("why"))
    row.done()
    return closed


def span(reader: Reader, months: Any) -> frozenset[int]:
    """Months from a [first, last] pair; a first later than the last runs over the turn of the year."""
    if not isinstance(months, list) or len(months) != 2 or not all(isinstance(month, int) and 1 <= month <= 12 for month in months):
        raise reader.fail(f"months must be a pair of numbers from 1 to 12, not {months!r}")
    first, last = months
    return frozenset((first - 1 + n) % 12 + 1 for n in range((last - first) % 12 + 1))


def _life(life: Reader) -> dict[str, Any]:
    where, year = {}, {}
    for stage in STAGES:
        if stage in life.table:
            row = life.sub(stage)
            where[stage], year[stage] = row.text("where", ""), span(row, row.get("months", list))
            row.done()
    stages = {
        "stages": tuple(where),
        "where": where,
        "year": year,
        "winters": life.text("winters"),
        "winters_as": life.one_of("winters_as", (*where, ""), ""),
        "generations": life.text("generations"),
        "life_source": life.source(),
    }
    life.done()
    return stages


def _sampling(reader: Reader) -> Sampling:
    sampling = Sampling(
        reader.text("unit"),
        Measure(reader.one_of("measure", (Measure.MEAN, Measure.PROPORTION))),
        int(reader.number("units")),
        reader.text("plan"),
        reader.text("when"),
        reader.source(),
        int(reader.number("per", 1.0)),
        _taylor(reader),
        tool=reader.member("tool", CountTool, CountTool.EYE),
        stroke=reader.text("stroke", ""),
        part=reader.member("part", DayPart, DayPart.ANY),
        dry=bool(reader.get("dry", bool, False)),
        least_temp=reader.number("least_temp", None),
    )
    reader.done()
    return sampling


def _taylor(reader: Reader) -> Taylor | None:
    if reader.get("taylor", dict, None) is None:
        return None
    row = reader.sub("taylor")
    law = Taylor(row.number("a"), row.number("b"))
    row.source()
    row.done()
    return law


def _look_alikes(top: Reader, looks: Mapping[str, Look]) -> tuple[LookAlike, ...]:
    look_alikes = []
    for other, row in top.tables("look_alikes").items():
        look_alikes.append(LookAlike(other, row.text("tell"), row.one_of("look", looks)))
        row.done()
    return tuple(look_alikes)


def _places(top: Reader) -> dict[str, float]:
    """How much likelier it is in a place than in the open."""
    places = {place: float(times) for place, times in top.get("places", dict, {}).items()}
    if set(places) - set(model.PLACES):
        raise top.fail(f"unknown place {', '.join(sorted(set(places) - set(model.PLACES)))}")
    return places


def _thresholds(top: Reader, crops: Mapping[str, Crop]) -> tuple[NominalThreshold, ...]:
    """Nominal thresholds; that of a crop holds on those that share all with it, where they have none of their own."""
    rows = top.rows("thresholds")
    own = {row.text("crop") for row in rows}
    thresholds = []
    for row in rows:
        measure, crop = row.member("measure", Measure), row.text("crop")
        value, unit, source = row.number("value"), row.text("unit"), row.source()
        plants = [plant for plant in with_shared((crop,), crops) if plant == crop or plant not in own]
        thresholds += [NominalThreshold(plant, value, measure, unit, source) for plant in plants]
        row.done()
    return tuple(thresholds)


def _enemies(top: Reader) -> tuple[Enemy, ...]:
    enemies = []
    for row in top.rows("enemies"):
        enemies.append(Enemy(row.text("agent"), "", row.number("ratio"), row.source()))
        row.done()
    return tuple(enemies)


def _cited(raw: Mapping[str, Any]) -> set[str]:
    """The keys of all sources that a file names."""
    keys: set[str] = set()
    parts: list[Any] = [raw]
    while parts:
        part = parts.pop()
        if isinstance(part, dict):
            keys |= {part["source"]} if isinstance(part.get("source"), str) else set()
            parts += [value for value in part.values() if isinstance(value, dict | list)]
        else:
            parts += [value for value in part if isinstance(value, dict | list)]
    return keys


def _feeds(top: Reader) -> tuple[str, ...]:
    """Stages that do the harm; every pest tells them, since they can't be read out of a sentence."""
    feeds = top.words("feeds", [])
    if not feeds and top.text("kind") in model.PEST_KINDS:
        raise top.fail('a pest tells which stages feed, for example feeds = ["larva"]')
    if not set(feeds) <= set(STAGES):
        raise top.fail(f"'feeds' must be of {', '.join(STAGES)}")
    return feeds


def read_agent(
    file: str,
    raw: Mapping[str, Any],
    signs: Mapping[str, Sign],
    looks: Mapping[str, Look],
    crops: Mapping[str, Crop],
    shared: Mapping[str, Any],
    sources: Mapping[str, str],
    regions: Mapping[str, list[str]],
) -> Agent:
    """Read one entry. file: its name, for errors; shared: controls that stand for all pests. Raises CatalogueError."""
    top = Reader(file, raw, sources, raw.get("source", ""))
    own, cited = top.source(), _cited(raw)
    hosts, habits, hosts_source = plant_hosts.read(
        top.sub("hosts"), file.removesuffix(".toml"), raw.get("kind") == AgentKind.DISEASE, crops
    )
    answers = {look: str(means) for look, means in top.get("looks", dict).items()}
    for look in answers:
        if look not in looks:
            raise top.fail(f"unknown look {look!r}{nearest(look, looks)}")
    favoured = {weather: float(times) for weather, times in top.get("favoured", dict, {}).items()}
    colours = top.words("colours", [])
    controls = [_control(control, row, top, shared, crops) for control, row in top.tables("controls").items()]
    agent = Agent(
        id=top.text("id"),
        kind=top.member("kind", AgentKind),
        name=top.text("name"),
        scientific=top.text("scientific"),
        other_names=top.words("other_names"),
        order=top.text("order"),
        family=top.text("family"),
        body=top.one_of("body", model.BODIES),
        colours=(colours[0], colours[1]) if len(colours) == 2 else ("", ""),
        summary=top.text("summary"),
        harmful_stage=top.text("harmful_stage"),
        feeds=_feeds(top),
        hosts=hosts,
        shows={sign: _shows(sign, row, signs) for sign, row in top.tables("signs").items()},
        answers=answers,
        look_alikes=_look_alikes(top, looks),
        months=span(top, top.words("months") and list(top.words("months"))),
        favoured=favoured,
        places=_places(top),
        heat=read_heat(top.sub("heat")) if "heat" in raw else None,
        growth=top.text("growth"),
        sampling=_sampling(top.sub("sampling")) if "sampling" in raw else None,
        thresholds=_thresholds(top, crops),
        enemies=_enemies(top),
        controls=tuple(control for control in controls if not control.retired),
        retired=tuple(control for control in controls if control.retired),
        wild_hosts=top.text("wild_hosts"),
        occurs=top.text("occurs"),
        notifiable=top.words("notifiable", []),
        said_wrongly=top.text("said_wrongly"),
        leave_when=top.text("leave_when"),
        cosmetic=top.get("cosmetic", bool, False),
        source=own,
        hosts_source=hosts_source,
        sources={key: text for key, text in sources.items() if key in cited},
        of=top.text("of", ""),
        habits=habits,
        species=_species(top),
        sample=top.text("sample", ""),
        hurts=top.text("hurts", ""),
        generic=top.get("generic", bool, False),
        brief=top.get("brief", bool, False),
        eats=top.words("eats", []),
        listed=frozenset(
            code for place in top.words("notifiable", []) for name, codes in regions.items() if place.startswith(name) for code in codes
        ),
        **_life(top.sub("life")),
    )
    if agent.id != file.removesuffix(".toml"):
        raise top.fail(f"the id {agent.id!r} must be the file's name")
    top.done()
    return agent
