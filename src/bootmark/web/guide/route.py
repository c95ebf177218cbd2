"""Guide: the reference that a scout opens in the field."""

import datetime as dt
import itertools
from collections import Counter
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, abort, g, render_template, request

from bootmark import say
from bootmark.core.catalogue import guide
from bootmark.core.catalogue.drawn import differing
from bootmark.core.catalogue.flowering import YEAR, in_order, months_at
from bootmark.core.catalogue.model import PARTS, Agent, Sign
from bootmark.core.catalogue.shapes import STAGES
from bootmark.core.catalogue.values import values_of
from bootmark.core.field import likeliest
from bootmark.core.field.likeliest import Leaver
from bootmark.core.types import Case
from bootmark.drawing import stages
from bootmark.drawing.leaf import FORMS
from bootmark.drawing.plant import Part, parts, shape_of
from bootmark.drawing.signs import takes_form
from bootmark.say.drawn import described
from bootmark.services.base import ground, grown
from bootmark.services.seasons import forecasts
from bootmark.web.guard import db, now, on_farm, the_farm
from bootmark.web.guide.svg import wheel_svg

ANY_PLANT = "a plant"
MOST_SIGNS, MOST_LEAVERS = 24, 12
blueprint = Blueprint("guide", __name__, template_folder=".")
KINDS = {
    "insect": "Insects",
    "mite": "Mites",
    "beneficial": "Helpers",
    "mollusc": "Slugs and snails",
    "vertebrate": "Mammals and birds",
    "disease": "Diseases that look like it",
    "disorder": "Disorders that look like it",
    "normal": "Normal for the season",
}


def hemisphere() -> str:
    return "north" if the_farm().latitude >= 0 else "south"


def _here(months: frozenset[int]) -> frozenset[int]:
    """Months as they fall at this farm."""
    return months if hemisphere() == "north" else frozenset((month + 5) % 12 + 1 for month in months)


def _events(agent: Agent, today: dt.date) -> tuple[str, list[tuple[str, dt.date]]]:
    """The block that the days hold for, and this year's median day of each event; none without a season to count from."""
    for block in ground.blocks(db()):
        if not grown.crops(block).isdisjoint(agent.hosts):
            season = forecasts.of_block(db(), the_farm(), block, agent, today)
            if season:
                days = [(event.name, event.p50) for event in season.forecast.events if event.p50 and event.p50.year == today.year]
                return block.name, days
    return "", []


@blueprint.get("/f/<uuid:farm>/guide")
@on_farm
def page() -> str:
    words = request.args.get("q", "")[:80]
    crop = request.args.get("crop", "")
    agents = list(g.catalogue.agents.values())
    if words.strip():
        agents = guide.search(g.catalogue, words)
    if crop in g.catalogue.crops:
        here = {agent.id for agent in g.catalogue.on(crop)}
        agents = [agent for agent in agents if agent.id in here]
    groups = [(say.line(title), [agent for agent in agents if agent.kind == kind]) for kind, title in KINDS.items()]
    if not words.strip():
        groups = [(title, _in_order(members, crop)) for title, members in groups]
    crops = [*dict.fromkeys(crop for block in ground.blocks(db()) for crop in sorted(grown.crops(block)))]
    others = sorted((entry for entry in g.catalogue.crops.values() if entry.id not in crops), key=lambda entry: entry.name)
    seen = _seen_there(crop)
    return render_template(
        "guide.html",
        seen=seen,
        year=_year_of(crop),
        groups=[group for group in groups if group[1] and (words.strip() or not seen.part)],
        words=words,
        crop=crop,
        total=len(agents),
        crops=[g.catalogue.crops[entry] for entry in crops] + others,
        face=face,
    )


def _in_order(agents: list[Agent], crop: str) -> list[Agent]:
    return guide.most_usual(agents, crop) if crop in g.catalogue.crops else sorted(agents, key=lambda agent: agent.name)


@dataclass(frozen=True)
class PlantYear:
    """When a plant is in leaf, flowers and fruits here, as names of months, and what of it is eaten. in_leaf: empty where it always is."""

    in_leaf: list[str]
    flowers: list[str]
    fruits: list[str]
    eaten: tuple[str, ...]


def _year_of(crop: str) -> PlantYear | None:
    entry = g.catalogue.crops.get(crop)
    if entry is None:
        return None
    in_leaf = _months_here(entry.in_leaf)
    return PlantYear(in_leaf if len(in_leaf) < len(YEAR) else [], _months_here(entry.flowers), _months_here(entry.fruits), entry.eaten)


def _months_here(months: frozenset[int]) -> list[str]:
    formats = say.tongue().formats
    return [formats.short_month(dt.date(2001, month, 1)) for month in in_order(months_at(months, the_farm().latitude))]


@dataclass(frozen=True)
class SeenThere:
    """The plant to point at, and what can be seen on the part that was pointed to. leavers: of the sign that was chosen."""

    crop: str
    plant: list[Part]
    leaf: str
    part: str
    signs: list[Sign]
    sign: Sign | None
    leavers: list[Leaver]


def _seen_there(crop: str) -> SeenThere:
    entry = g.catalogue.crops.get(crop)
    plant, today = parts(shape_of(entry)), now().date()
    part = request.args.get("part", "")
    part = part if part in PARTS else ""
    sign = g.catalogue.signs.get(request.args.get("sign", ""))
    case = Case(crop or ANY_PLANT, month=today.month, hemisphere=hemisphere(), place=entry.place if entry else "")
    return SeenThere(
        crop=crop,
        plant=list(plant),
        leaf=entry.leaf if entry else "ovate",
        part=sign.part if sign and not part else part,
        signs=likeliest.signs_on(case, part, catalogue=g.catalogue)[:MOST_SIGNS] if part and not sign else [],
        sign=sign,
        leavers=likeliest.leavers(case, sign.id, catalogue=g.catalogue)[:MOST_LEAVERS] if sign else [],
    )


def face(agent: Agent) -> tuple[str, str]:
    """What stands for an agent in a list: the drawing of the stage that does the harm, or of its most telling sign."""
    for stage in stages.stages_of(agent)[:1]:
        return "stage", stage
    shows = sorted(agent.shows.values(), key=lambda show: (not show.confirms, -show.chance))
    return "sign", shows[0].sign


@blueprint.get("/f/<uuid:farm>/guide/agent/<agent>")
@on_farm
def agent(agent: str) -> str:
    if agent not in g.catalogue.agents and agent not in g.catalogue.aliases:
        abort(404)
    entry = g.catalogue.agent(agent)
    today = now().date()
    where, events = _events(entry, today)
    year = {stage: _here(entry.year[stage]) for stage in STAGES if stage in entry.year}
    rest = frozenset(range(1, 13)) - frozenset[int]().union(*year.values()) if year else frozenset[int]()
    winter = (entry.winters_as, rest | (year.get(entry.winters_as) or frozenset())) if entry.winters_as in year else None
    kind = g.catalogue.agents.get(entry.of)
    # What tells it from the rest of its kind comes first.
    shows = sorted(entry.shows.values(), key=lambda shows: (not shows.confirms, bool(kind and shows.sign in kind.shows), -shows.chance))
    values = list(values_of(entry, g.catalogue))
    return render_template(
        "agent.html",
        agent=entry,
        catalogue=g.catalogue,
        shows=shows,
        wheel=wheel_svg(say.line("The year of the {agent} at this farm", agent=entry.in_sentence), year, winter, today, events)
        if year
        else "",
        events=events,
        where=where,
        leaf=leaf_of(entry),
        hosts=_hosts(entry),
        kind=kind,
        stages=stages.stages_of(entry),
        members=sorted(g.catalogue.members(entry.id), key=lambda member: member.name),
        listed=entry.listed_in(the_farm().region),
        rests_on=Counter(value.source.partition(":")[0] for value in values).most_common(),
        values=[(group, list(members)) for group, members in itertools.groupby(values, key=lambda value: value.group)],
    )


def leaf_of(agent: Agent) -> str:
    """The leaf form of the crop that it is most often on: one of this farm's if there is one."""
    mine = [crop for block in ground.blocks(db()) for crop in sorted(grown.crops(block)) if crop in agent.hosts]
    crops = mine or [crop for crop in agent.hosts if crop in g.catalogue.crops]
    return g.catalogue.crops[crops[0]].leaf if crops else "ovate"


def _hosts(agent: Agent) -> list[tuple[str, str]]:
    """Its hosts by how usual. What holds for a whole habit or family is told of that, not of each crop."""
    hosts = []
    for usual in ("often", "sometimes", "seldom", "rarely"):
        names = [say.line("any {habit}", habit=say.line(wide)) for wide, how_usual in agent.habits.items() if how_usual == usual]
        for crop, how_usual in agent.hosts.items():
            entry = g.catalogue.crops.get(crop)
            covered = entry and usual == (agent.habits.get(entry.family) or agent.habits.get(entry.habit))
            if how_usual == usual and not covered:
                names.append(entry.name.lower() if entry else say.line("any crop"))
        if names:
            hosts.append((usual, ", ".join(names)))
    return hosts


@blueprint.get("/f/<uuid:farm>/guide/apart")
@on_farm
def apart() -> str:
    wanted = [name for name in dict.fromkeys(request.args.getlist("agent")) if name in g.catalogue.agents][: guide.MOST_APART]
    agents = tuple(g.catalogue.agents[agent] for agent in wanted)
    rows = guide.apart(g.catalogue, agents) if len(agents) > 1 else ()
    everyone = sorted(g.catalogue.agents.values(), key=lambda agent: agent.name)
    return render_template(
        "apart.html", agents=agents, rows=rows, everyone=everyone, most=guide.MOST_APART, face=face, shown=_side_by_side(agents)
    )


@dataclass(frozen=True)
class SideBySide:
    """Agents in one stage, with what is drawn differently. marks: names of what differs; words: of each agent, in that order."""

    stage: str
    marks: tuple[str, ...]
    words: tuple[tuple[str, ...], ...]


def _begun(words: str) -> str:
    return words[:1].upper() + words[1:]


def _side_by_side(agents: tuple[Agent, ...]) -> list[SideBySide]:
    """The stages that all of them have, what does the harm first."""
    if len(agents) < 2:
        return []
    sheets = []
    for stage in stages.stages_of(agents[0]):
        if stage in ("egg", "pupa") or not all(stage in stages.stages_of(agent) for agent in agents):
            continue
        drawings = [stages.drawn_of(agent, stage) for agent in agents]
        body, *others = {agent.body for agent in agents}
        described_by = (
            {}
            if others
            else {name: [_begun(described(say.tongue(), drawn, name, body)) for drawn in drawings] for name in differing(drawings)}
        )
        # Two yellows are one word, and no difference that a reader could see.
        marks = tuple(name for name, words in described_by.items() if len(set(words)) > 1)
        sheets.append(SideBySide(stage, marks, tuple(tuple(described_by[name][place] for name in marks) for place in range(len(agents)))))
    return sheets


@blueprint.get("/f/<uuid:farm>/guide/drawings")
@on_farm
def drawings() -> str:
    form = request.args.get("leaf", "ovate")
    severity = request.args.get("severity", 0.6, type=float)
    if form not in FORMS or not 0 <= severity <= 1:
        abort(404)
    by_part: list[tuple[str, list[Any]]] = [(part, [sign for sign in g.catalogue.signs.values() if sign.part == part]) for part in PARTS]
    bodies: dict[str, Agent] = {}
    for agent in g.catalogue.agents.values():
        if agent.stages and agent.body != "none":
            bodies.setdefault(agent.body, agent)
    words = {"by_part": by_part, "form": form, "forms": list(FORMS), "severity": severity, "bodies": bodies}
    return render_template("drawings.html", takes_form=takes_form, **words)
