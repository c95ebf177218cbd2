"""Guide: the reference that a scout opens in the field."""

import datetime as dt
from collections import Counter
from typing import Any

from flask import Blueprint, abort, g, render_template, request

from bootmark import say
from bootmark.core.catalogue import guide
from bootmark.core.catalogue.model import PARTS, STAGES, Agent
from bootmark.drawing.leaf import FORMS
from bootmark.drawing.signs import takes_form
from bootmark.services.base import ground
from bootmark.services.seasons import forecasts
from bootmark.web.guard import db, now, on_farm, the_farm
from bootmark.web.guide.svg import wheel_svg

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
        if block.crop in agent.hosts:
            found = forecasts.of_block(db(), the_farm(), block, agent, today)
            if found:
                days = [(event.name, event.p50) for event in found.forecast.events if event.p50 and event.p50.year == today.year]
                return block.name, days
    return "", []


@blueprint.get("/f/<uuid:farm>/guide")
@on_farm
def page() -> str:
    words = request.args.get("q", "")[:80]
    crop = request.args.get("crop", "")
    agents = list(g.known.agents.values())
    if words.strip():
        agents = guide.search(g.known, words)
    if crop in g.known.crops:
        here = {agent.id for agent in g.known.on(crop)}
        agents = [agent for agent in agents if agent.id in here]
    groups = [(say.line(title), [agent for agent in agents if agent.kind == kind]) for kind, title in KINDS.items()]
    if not words.strip():
        groups = [(title, sorted(found, key=lambda agent: agent.name)) for title, found in groups]
    crops = [*dict.fromkeys(block.crop for block in ground.blocks(db()))]
    others = sorted((one for one in g.known.crops.values() if one.id not in crops), key=lambda one: one.name)
    return render_template(
        "guide.html",
        groups=[group for group in groups if group[1]],
        words=words,
        crop=crop,
        total=len(agents),
        crops=[g.known.crops[one] for one in crops] + others,
        face=face,
    )


def face(agent: Agent) -> tuple[str, str]:
    """What stands for an agent in a list: the drawing of a stage, or of its most telling sign."""
    stage = next((one for one in ("adult", "larva", "nymph") if one in agent.stages), "")
    if stage and agent.body != "none":
        return "stage", stage
    shows = sorted(agent.shows.values(), key=lambda show: (not show.confirms, -show.chance))
    return "sign", shows[0].sign


@blueprint.get("/f/<uuid:farm>/guide/agent/<agent>")
@on_farm
def agent(agent: str) -> str:
    if agent not in g.known.agents and agent not in g.known.aliases:
        abort(404)
    one = g.known.agent(agent)
    today = now().date()
    where, events = _events(one, today)
    stages = {stage: _here(one.year[stage]) for stage in STAGES if stage in one.year}
    rest = frozenset(range(1, 13)) - frozenset[int]().union(*stages.values()) if stages else frozenset[int]()
    winter = (one.winters_as, rest | (stages.get(one.winters_as) or frozenset())) if one.winters_as in stages else None
    shows = sorted(one.shows.values(), key=lambda shows: (not shows.confirms, -shows.chance))
    sources = [value.source for values in (shows, one.controls, one.thresholds, one.enemies) for value in values]
    return render_template(
        "agent.html",
        agent=one,
        known=g.known,
        shows=shows,
        wheel=wheel_svg(say.line("The year of the {agent} at this farm", agent=one.in_sentence), stages, winter, today, events)
        if stages
        else "",
        events=events,
        where=where,
        leaf=leaf_of(one),
        hosts=_hosts(one),
        listed=one.listed_in(the_farm().region),
        rests_on=Counter(source.split(":")[0].split(",")[0] for source in sources).most_common(),
    )


def leaf_of(agent: Agent) -> str:
    """The leaf form of the crop that it is most often on: one of this farm's if there is one."""
    mine = [block.crop for block in ground.blocks(db()) if block.crop in agent.hosts]
    crops = mine or [crop for crop in agent.hosts if crop in g.known.crops]
    return g.known.crops[crops[0]].leaf if crops else "ovate"


def _hosts(agent: Agent) -> list[tuple[str, str]]:
    found = []
    for usual in ("often", "sometimes", "seldom", "rarely"):
        names = [
            g.known.crops[crop].name.lower() if crop != "*" else say.line("any crop") for crop, one in agent.hosts.items() if one == usual
        ]
        if names:
            found.append((usual, ", ".join(names)))
    return found


@blueprint.get("/f/<uuid:farm>/guide/apart")
@on_farm
def apart() -> str:
    wanted = [name for name in dict.fromkeys(request.args.getlist("agent")) if name in g.known.agents][: guide.MOST_APART]
    agents = tuple(g.known.agents[one] for one in wanted)
    rows = guide.apart(g.known, agents) if len(agents) > 1 else ()
    everyone = sorted(g.known.agents.values(), key=lambda one: one.name)
    return render_template("apart.html", agents=agents, rows=rows, everyone=everyone, most=guide.MOST_APART, face=face)


@blueprint.get("/f/<uuid:farm>/guide/drawings")
@on_farm
def drawings() -> str:
    form = request.args.get("leaf", "ovate")
    severity = request.args.get("severity", 0.6, type=float)
    if form not in FORMS or not 0 <= severity <= 1:
        abort(404)
    by_part: list[tuple[str, list[Any]]] = [(part, [sign for sign in g.known.signs.values() if sign.part == part]) for part in PARTS]
    bodies: dict[str, Agent] = {}
    for one in g.known.agents.values():
        if one.stages and one.body != "none":
            bodies.setdefault(one.body, one)
    words = {"by_part": by_part, "form": form, "forms": list(FORMS), "severity": severity, "bodies": bodies}
    return render_template("drawings.html", takes_form=takes_form, **words)
