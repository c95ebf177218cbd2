"""Count: have I counted enough."""

import math
import uuid
from typing import Any

from flask import Blueprint, Response, g, jsonify, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.catalogue.model import Agent, Sampling
from bootmark.core.field import plans, stopping, weighed
from bootmark.core.field.count import dispersion, enemy_ratio
from bootmark.core.field.stopping import Rule
from bootmark.core.meanings import CATCHES, Age, Chosen, CountTool, DayPart, Measure, Pattern
from bootmark.core.messages import Says, says
from bootmark.core.types import Sample
from bootmark.say import count as count_words
from bootmark.services.base import ground
from bootmark.services.base.fields import MOST_OF_ONE_UNIT, Checks, Choice, Counts, Number, Text
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.handling import as_json
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.scouting import looks, photos, stops
from bootmark.services.treatment import thresholds
from bootmark.services.weather import blocks as block_weather
from bootmark.web import at_stop, field, forms
from bootmark.web.guard import db, member, now, on_farm, the_farm

MOST_POINTS = 40
"""Shown beside the tally at most."""
blueprint = Blueprint("count", __name__, template_folder=".")


def plan_for(agent: Agent, crop: str) -> dict[str, Any] | None:
    """What is counted, on how many units, and the threshold that it is held against. Traps are read in their register."""
    sampling = agent.sampling
    if sampling is None:
        return None
    nominal = agent.threshold(crop, sampling.measure)
    shown = {"unit": sampling.unit, "measure": sampling.measure, "units": sampling.units, "plan": sampling.plan, "when": sampling.when}
    rule = _rule(agent, nominal.value if nominal else None, shown["measure"])
    return shown | {
        "tool": sampling.tool,
        "how": _how(sampling),
        "threshold": as_json(nominal) if nominal else None,
        "enemy": agent.enemies[0].name if agent.enemies else "",
        "least": rule.least if rule else 1,
        "most": rule.most if rule else shown["units"],
        "usual": rule.usual if rule else shown["units"],
    }


def _how(plan: Sampling) -> str:
    """With what it is counted, in which part of the day and in what weather, in one line."""
    weather = [say.line("dry")] if plan.dry else []
    if plan.least_temp is not None:
        weather.append(say.line("from {least:temperature} on", least=plan.least_temp))
    part = [say.term(plan.part)] if plan.part != DayPart.ANY else []
    stroke = [plan.stroke] if plan.stroke else []
    return "; ".join([say.term(plan.tool), *stroke, *part, *weather])


def _off(agent: Agent, block: ground.Block) -> str:
    """Why a count that is made now would not hold, in words; empty where it would."""
    plan = agent.sampling
    weather = block_weather.at(db(), the_farm(), block, now()) or {}
    off = plans.off_plan(plan, "", now().hour, weather.get("temp"), weather.get("rain")) if plan else None
    return say.tongue().say(says(Says.OFF_NOW, off=off)) if off else ""


def _rule(agent: Agent, threshold: float | None, measure: object) -> Rule | None:
    """When a count may stop; none for traps, and where no threshold is known."""
    plan = agent.sampling
    if threshold is None or plan is None or measure != plan.measure:
        return None
    return stopping.rule(threshold, plan.measure, plan.taylor, plan.units, plan.per)


def _pattern(block: ground.Block) -> Pattern:
    """How the points lie: as the address asks, else by rows where their direction is told."""
    asked = request.args.get("pattern", "")
    if asked in tuple(Pattern):
        return Pattern(asked)
    return Pattern.ROWS if block.row_direction is not None else Pattern.ZIGZAG


def _field(block: ground.Block, units: int, pattern: Pattern) -> dict[str, Any] | None:
    """The block with the points at which its units are taken, in walking order, drawn beside the tally; None where it has no outline."""
    drawing = field.of(block)
    if drawing is None:
        return None
    return drawing.shape() | {"points": drawing.draw(ground.laid(the_farm(), block, min(units, MOST_POINTS), pattern))}


def _told_by_picture(stop: uuid.UUID) -> dict[str, Any]:
    """The unit that a picture of this stop told, as the address says; none where it says nothing that counts."""
    number, picture = request.args.get("told", type=int), request.args.get("picture", type=uuid.UUID)
    if number is None or not 0 <= number <= MOST_OF_ONE_UNIT or picture not in photos.of_stop(db(), stop):
        return {"told": None, "picture": ""}
    return {"told": number, "picture": str(picture)}


def _texts(plan: dict[str, Any]) -> dict[str, str]:
    """What the tally says of its plan whatever is counted."""
    threshold = plan["threshold"]
    facts = {**threshold, "measure": plan["measure"]} if threshold else {}
    return {
        "unit": plan["unit"].capitalize(),
        "axis": say.line("{unit} by {unit}", unit=plan["unit"]),
        "first": say.line("Count the first {unit}", unit=plan["unit"]),
        "threshold": say.line("{value:measured} {unit}", **facts) if threshold else "",
        "threshold_long": say.line("{value:measured} {unit} ({source:word})", **facts)
        if threshold
        else say.line("No threshold is known for this crop."),
    }


@blueprint.get("/f/<uuid:farm>/count")
@on_farm
def newest() -> str | AnyResponse:
    return at_stop.newest("count")


@blueprint.get("/f/<uuid:farm>/count/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    here = at_stop.find(stop)
    catalogue = thresholds.own(db(), g.catalogue)
    booked = [here.visit.agent] if here.visit else []
    agents = list(dict.fromkeys(agent_id for agent_id in (*here.named, *booked, *here.samples) if catalogue.agent(agent_id).is_pest))
    chosen = request.args.get("agent") or (agents[0] if agents else "")
    # None found is half of scouting: whatever lives on the crop may be counted, named here or not.
    others = [agent for agent in catalogue.on(here.block.crop) if agent.is_pest and agent.sampling and agent.id not in agents]
    agent = catalogue.agents.get(chosen)
    trap_offered = bool(agent and any(threshold.measure in CATCHES for threshold in agent.thresholds))
    plan = plan_for(agent, here.block.crop) if agent else None
    there = looks.all_there_are(db(), here.stop, agent, plan["unit"]) if agent and plan else None
    few = there is not None and plan is not None and there <= plan["usual"]
    if plan and there:
        plan |= {name: min(plan[name], there) for name in ("least", "usual", "most")}
    bench = None
    if agent and plan:
        before = here.samples.get(agent.id)
        same = before if before and before.measure == plan["measure"] else None
        bench = {
            "stop": str(stop),
            "sample": str(stops.child(stop, "sample", agent.id)),
            "kind": looks.RecordSample.spec.kind,
            "v": looks.RecordSample.spec.v,
            "base": str(before.command_id) if before else None,
            "kept": before is not None,
            "agent": agent.id,
            "name": agent.name,
            "chosen": same.chosen if same else Chosen.ALL if few else Chosen.PLAN,
            "pattern": str(_pattern(here.block)) if ground.on_plan(the_farm(), here.block) else "",
            "tool": (same.tool if same else "") or plan["tool"],
            "ages": same.ages if same else {},
            "dead": same.dead if same else None,
            "parasitised": same.parasitised if same else None,
            "counts": same.counts if same else [],
            "pictures": same.pictures if same else [],
            **_told_by_picture(stop),
            "own": url_for("count.page", farm=the_farm().id, stop=stop, agent=agent.id),
            "enemies": same.enemies if same else [],
            "plan": plan,
            "title": say.line("Count of {agent}", agent=agent.name),
            "texts": _texts(plan),
            "read": url_for("count.read", farm=the_farm().id),
            "call": url_for("call.page", farm=the_farm().id, stop=stop, agent=agent.id) if agent.id in here.spoken_of else "",
            "may": member().role in SCOUTS,
            "field": _field(here.block, plan["most"], _pattern(here.block)),
        }
    return render_template(
        "count.html",
        here=here,
        agents=agents,
        others=sorted(((other.id, other.name) for other in others), key=lambda other: other[1]),
        agent=agent,
        bench=bench,
        trap_offered=trap_offered,
        keeper=member().role in KEEPERS,
        few=there if few else None,
        off=_off(agent, here.block) if agent and bench else "",
        tools=[(str(tool), say.term(tool)) for tool in CountTool],
        ages=[(str(age), say.term(age).lower(), age == Age.EGGS) for age in Age],
        ways=[(str(way), say.term(way)) for way in Chosen],
        patterns=[(str(pattern), say.term(pattern)) for pattern in Pattern],
        pattern=_pattern(here.block),
    )


@blueprint.post("/f/<uuid:farm>/count/read")
@on_farm
def read() -> Response | tuple[Response, int]:
    """What a count says so far: the estimate with its limits, against the threshold. Nothing is stored."""
    posted, checks = forms.posted(), Checks(g.catalogue, now().date())
    try:
        counts = {name: Counts(needed=name == "counts").read(posted.get(name), checks) for name in ("counts", "enemies")}
        ways = {"measure": Choice(looks.MEASURES), "chosen": Choice(tuple(Chosen), fallback=Chosen.PLAN)}
        sample = Sample.of(counts | {name: rule.read(posted.get(name), checks) for name, rule in ways.items()})
        unit = Text(40, needed=False).read(posted.get("unit"), checks)
        threshold = None if posted.get("threshold") is None else Number(0, 1e6).read(posted["threshold"], checks)
        named = AgentField().read(posted["agent"], checks) if posted.get("agent") else ""
        agent = thresholds.own(db(), g.catalogue).agents.get(named)
        rule, word = weighed.against(agent, sample, threshold) if threshold and agent and sample.counts else (None, None)
        estimate = weighed.limits(sample, rule)
    except ValueError as error:
        return jsonify(error=str(error)), 422
    ratio = enemy_ratio(sample)
    high = estimate.high if math.isfinite(estimate.high) else None
    texts = count_words.reading(say.tongue(), estimate, ratio, unit, sample, word, rule)
    low_line, high_line = stopping.lines(rule, sample.counts, max(rule.most, len(sample.counts))) if rule else ((), ())
    heaped = sample.chosen == Chosen.PLAN and sample.measure == Measure.MEAN and len(sample.counts) > 1 and dispersion(sample.counts).heaped
    texts["pattern_text"] = say.line("They lie in heaps: look where, it may be a hot spot.") if heaped else ""
    lines = {"low_line": low_line, "high_line": high_line, "least": rule.least if rule else 0}
    return jsonify(seq=posted.get("seq", 0), estimate=estimate.estimate, low=estimate.low, high=high, **lines, **texts)
