"""One agent's file: how its short rows are read into an Agent.

Where a value names no source of its own, that of its table holds, and where the table names
none, that of the file. A control that stands in controls.toml takes from there what is the
same on every pest: group, cautions, skill, tools.
"""

from collections.abc import Callable, Mapping
from typing import Any

from bootmark.core import units
from bootmark.core.catalogue import model
from bootmark.core.catalogue.model import (
    Agent,
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
from bootmark.core.catalogue.reader import COMMON_SOURCES, PROVENANCE, Reader
from bootmark.core.meanings import AgentKind, BiofixKind, ControlKind, Measure, Work

WORK_OF_KIND = {ControlKind.CONVENTIONAL: Work.SPRAY, ControlKind.SOFT: Work.SPRAY, ControlKind.LIVING: Work.RELEASE}
SHORT_CONTROL = ("stages", "timing", "success", "look_again_days")
SHORT_STAGE = ("id", "name", "stage", "heat", "spread", "source")
SHORT_EVENT = ("id", "name", "at", "spread", "stage", "source")


ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")


def _chained(reader: Reader, degree_days: Callable[[float], float]) -> list[Event]:
    """Events from durations: each stage begins when those before it have passed, generation after generation.

    Durations of one animal add up, and so do their variances.
    """
    rows = reader.list_of("stages", SHORT_STAGE)
    generations = int(reader.number("generations"))
    if not 1 <= generations <= len(ORDINALS):
        raise reader.fail(f"'generations' must be from 1 to {len(ORDINALS)}")
    at, variance, events = degree_days(reader.number("first", 0.0)), degree_days(reader.number("first_spread")) ** 2, []
    for ordinal in ORDINALS[:generations]:
        for row in rows:
            stage = row.one_of("stage", model.STAGES)
            name = f"Half are {row.text('name')}, {ordinal} generation"
            events.append(Event(f"{ordinal}-{row.text('id')}", name, at, variance**0.5, stage, row.source()))
            at += degree_days(row.number("heat"))
            variance += degree_days(row.number("spread")) ** 2
            row.done()
    return events


def _heat(reader: Reader) -> Heat:
    unit = reader.one_of("unit", ("C", "F"))

    def degree_days(value: float) -> float:
        return value if unit == "C" else units.difference_celsius(value)

    def temperature(value: float | None) -> float | None:
        return value if value is None or unit == "C" else units.celsius(value)

    events = _chained(reader, degree_days) if "stages" in reader.table else []
    for row in reader.list_of("events", SHORT_EVENT) if not events else ():
        at, spread = degree_days(row.number("at")), degree_days(row.number("spread"))
        events.append(Event(row.text("id"), row.text("name"), at, spread, row.one_of("stage", (*model.STAGES, "over")), row.source()))
        row.done()
    if [event.at for event in events] != sorted(event.at for event in events):
        raise reader.fail("events must stand in the order of their sums")
    lower, upper = temperature(reader.number("lower")), temperature(reader.number("upper", None))
    if lower is None or (upper is not None and upper <= lower):
        raise reader.fail("'upper' must be above 'lower'")
    month_day = reader.words("month_day", [])
    catch, winter = reader.words("catch", [2, 10]), reader.words("winter_after", [])
    code = reader.number("crop_code", None)
    egg, before = reader.number("egg", None), reader.number("adult_before_eggs", None)
    heat = Heat(
        lower=lower,
        upper=upper,
        method=reader.text("method", "single_sine"),
        cutoff=reader.text("cutoff", "horizontal"),
        biofix=reader.member("biofix", BiofixKind),
        biofix_name=reader.text("biofix_name"),
        month_day=(int(month_day[0]), int(month_day[1])) if month_day else None,
        events=tuple(events),
        egg=degree_days(egg) if egg else None,
        adult_before_eggs=degree_days(before) if before else None,
        source=reader.source(),
        catch=(int(catch[0]), int(catch[1])),
        crop_code=int(code) if code is not None else None,
        winter_stage=reader.one_of("winter_stage", (*model.STAGES, ""), ""),
        winter_after=(int(winter[0]), int(winter[1])) if winter else None,
    )
    if heat.biofix == BiofixKind.CROP and heat.crop_code is None:
        raise reader.fail("a biofix by the crop needs its 'crop_code'")
    if bool(heat.winter_stage) != bool(heat.winter_after):
        raise reader.fail("'winter_stage' and 'winter_after' belong together")
    reader.done()
    return heat


def _control(control_id: str, value: Any, top: Reader, shared: Mapping[str, Any]) -> Control:
    fields: dict[str, Any]
    if isinstance(value, list):
        if not len(SHORT_CONTROL) <= len(value) <= len(SHORT_CONTROL) + 1:
            raise top.fail(f"control {control_id!r} must be a list of {', '.join(SHORT_CONTROL)}, and a table of what differs")
        fields = dict(zip(SHORT_CONTROL, value, strict=False)) | (value[4] if len(value) > len(SHORT_CONTROL) else {})
    else:
        fields = value
    if isinstance(fields.get("stages"), str):
        fields = fields | {"stages": fields["stages"].split()}
    row = top.row("controls", control_id, shared.get(control_id, {}) | fields)
    kind = row.member("kind", ControlKind)
    control = Control(
        id=control_id,
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
        work=row.member("work", Work, WORK_OF_KIND.get(kind, Work.ANY)),
        lasts_days=int(row.number("lasts_days", 1)),
    )
    if kind == ControlKind.CONVENTIONAL and not (control.group and control.cautions):
        raise row.fail("a conventional control needs its resistance group and its cautions")
    unknown = set(control.stages) - set(model.STAGES)
    if unknown:
        raise row.fail(f"unknown stage {', '.join(sorted(unknown))}")
    row.done()
    return control


def _shows(sign: str, words: Any, top: Reader, signs: Mapping[str, Sign]) -> Shows:
    where = top.row("signs", sign, {})
    if sign not in signs:
        raise where.fail(f"unknown sign {sign!r}")
    if not isinstance(words, str) or not words:
        raise where.fail("say how often, then 'outlasts', 'confirms' or a source key where they hold")
    often, *rest = words.split()
    if often not in model.HOW_OFTEN:
        raise where.fail(f"{often!r} is not how often; it must be one of {', '.join(model.HOW_OFTEN)}")
    keys = [word for word in rest if word not in ("outlasts", "confirms")]
    if len(keys) > 1:
        raise where.fail(f"{' '.join(keys)!r}: one source key at most")
    return Shows(sign, often, "outlasts" in rest, "confirms" in rest, where.named(keys[0] if keys else top.own))


def _hosts(reader: Reader, crops: Mapping[str, Crop]) -> tuple[dict[str, str], str]:
    hosts = {}
    for usual in model.HOW_USUAL:
        for crop in reader.text(usual, "").split():
            if crop != "*" and crop not in crops:
                raise reader.fail(f"unknown crop {crop!r}")
            if crop in hosts:
                raise reader.fail(f"crop {crop!r} is listed twice")
            hosts[crop] = usual
    source = reader.source()
    reader.done()
    if not hosts:
        raise reader.fail("no crop is named")
    return hosts, source


def _span(reader: Reader, months: Any) -> frozenset[int]:
    """Months from a [first, last] pair; a first later than the last runs over the turn of the year."""
    if not isinstance(months, list) or len(months) != 2 or not all(isinstance(month, int) and 1 <= month <= 12 for month in months):
        raise reader.fail(f"months must be a pair of numbers from 1 to 12, not {months!r}")
    first, last = months
    return frozenset((first - 1 + n) % 12 + 1 for n in range((last - first) % 12 + 1))


def _life(life: Reader) -> dict[str, Any]:
    where, year = {}, {}
    for stage in model.STAGES:
        row = life.get(stage, list, None)
        if row is not None:
            if len(row) != 3 or not isinstance(row[2], str):
                raise life.fail(f"{stage!r} must be a list of first month, last month and where it lives")
            where[stage], year[stage] = row[2], _span(life, row[:2])
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
    )
    reader.done()
    return sampling


def _look_alikes(top: Reader, looks: Mapping[str, Look]) -> tuple[LookAlike, ...]:
    look_alikes = []
    for other, row in top.get("look_alikes", dict).items():
        if not isinstance(row, list) or len(row) != 2:
            raise top.fail(f"look-alike {other!r} must be a list of the look and the tell")
        if row[0] not in looks:
            raise top.fail(f"look-alike {other!r}: unknown look {row[0]!r}")
        look_alikes.append(LookAlike(other, row[1], row[0]))
    return tuple(look_alikes)


def _places(top: Reader) -> dict[str, float]:
    """How much likelier it is in a place than in the open."""
    places = {place: float(times) for place, times in top.get("places", dict, {}).items()}
    if set(places) - set(model.PLACES):
        raise top.fail(f"unknown place {', '.join(sorted(set(places) - set(model.PLACES)))}")
    return places


def _thresholds(top: Reader) -> tuple[NominalThreshold, ...]:
    rows = top.list_of("thresholds", ("crop", "value", "measure", "unit", "source"))
    return tuple(
        NominalThreshold(row.text("crop"), row.number("value"), row.member("measure", Measure), row.text("unit"), row.source())
        for row in rows
    )


def _feeds(top: Reader) -> tuple[str, ...]:
    """Stages that do the harm; every pest tells them, since they can't be read out of a sentence."""
    feeds = top.words("feeds", [])
    if not feeds and top.text("kind") in model.PEST_KINDS:
        raise top.fail('a pest tells which stages feed, for example feeds = ["larva"]')
    if not set(feeds) <= set(model.STAGES):
        raise top.fail(f"'feeds' must be of {', '.join(model.STAGES)}")
    return feeds


def read_agent(
    file: str,
    raw: Mapping[str, Any],
    signs: Mapping[str, Sign],
    looks: Mapping[str, Look],
    crops: Mapping[str, Crop],
    shared: Mapping[str, Any],
) -> Agent:
    """Read one entry. file: its name, for errors. Raises CatalogueError."""
    sources = {**COMMON_SOURCES, **raw.get("sources", {})}
    top = Reader(file, raw, sources, raw.get("source", ""))
    top.used.update(("sources", "source"))
    for key, text in sources.items():
        if not text.startswith(PROVENANCE):
            raise top.fail(f"source {key!r} must begin with {', '.join(PROVENANCE)}")
    own = top.source()
    hosts, hosts_source = _hosts(top.sub("hosts"), crops)
    answers = {look: str(means) for look, means in top.get("looks", dict).items()}
    for look in answers:
        if look not in looks:
            raise top.fail(f"unknown look {look!r}")
    favoured = {weather: float(times) for weather, times in top.get("favoured", dict, {}).items()}
    colours = top.words("colours", [])
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
        shows={sign: _shows(sign, words, top, signs) for sign, words in top.get("signs", dict).items()},
        answers=answers,
        look_alikes=_look_alikes(top, looks),
        months=_span(top, top.words("months") and list(top.words("months"))),
        favoured=favoured,
        places=_places(top),
        heat=_heat(top.sub("heat")) if "heat" in raw else None,
        growth=top.text("growth"),
        sampling=_sampling(top.sub("sampling")) if "sampling" in raw else None,
        thresholds=_thresholds(top),
        enemies=tuple(
            Enemy(row.text("agent"), "", row.number("ratio"), row.source()) for row in top.list_of("enemies", ("agent", "ratio", "source"))
        ),
        controls=tuple(_control(control, value, top, shared) for control, value in top.get("controls", dict).items()),
        wild_hosts=top.text("wild_hosts"),
        occurs=top.text("occurs"),
        notifiable=top.words("notifiable", []),
        said_wrongly=top.text("said_wrongly"),
        leave_when=top.text("leave_when"),
        cosmetic=top.get("cosmetic", bool, False),
        source=own,
        hosts_source=hosts_source,
        sources=sources,
        **_life(top.sub("life")),
    )
    if agent.id != file.removesuffix(".toml"):
        raise top.fail(f"the id {agent.id!r} must be the file's name")
    top.done()
    return agent
