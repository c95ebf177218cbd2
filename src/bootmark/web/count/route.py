"""Count: have I counted enough."""

import math
import uuid
from typing import Any

from flask import Blueprint, Response, g, jsonify, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.catalogue.model import Agent
from bootmark.core.field.count import enemy_ratio, interval
from bootmark.core.meanings import Measure, SignState
from bootmark.core.types import Sample
from bootmark.say import count as count_words
from bootmark.services.base.fields import Checks, Choice, Counts, Number, Text
from bootmark.services.base.handling import as_json
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import looks, stops
from bootmark.web import at_stop, forms
from bootmark.web.guard import member, now, on_farm, the_farm

blueprint = Blueprint("count", __name__, template_folder=".")


def plan_for(agent: Agent, crop: str, trap: bool) -> dict[str, Any] | None:
    """What is counted, on how many units, and the threshold that it is held against."""
    if trap:
        nominal = agent.threshold(crop, Measure.TRAP)
        plan = say.line("Every lure trap of this block: males since the last check, for each week.")
        shown = {"unit": "trap", "measure": "trap", "units": 4, "plan": plan, "when": say.line("Weekly, at the trap.")}
    elif agent.sampling:
        sampling = agent.sampling
        nominal = agent.threshold(crop, sampling.measure)
        shown = {"unit": sampling.unit, "measure": sampling.measure, "units": sampling.units, "plan": sampling.plan, "when": sampling.when}
    else:
        return None
    return shown | {
        "threshold": as_json(nominal) if nominal else None,
        "enemy": agent.enemies[0].name if agent.enemies and not trap else "",
    }


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
    catalogue = g.catalogue
    booked = [here.visit.agent] if here.visit else []
    agents = list(dict.fromkeys(agent_id for agent_id in (*here.named, *booked, *here.samples) if catalogue.agent(agent_id).is_pest))
    chosen = request.args.get("agent") or (agents[0] if agents else "")
    agent = catalogue.agents.get(chosen)
    trap_offered = bool(agent and any(threshold.measure == Measure.TRAP for threshold in agent.thresholds))
    trapped = bool(here.look and here.look.signs.get("males-in-its-lure-trap") == SignState.SEEN)
    trap = trap_offered and request.args.get("trap", "1" if trapped else "0") == "1"
    plan = plan_for(agent, here.block.crop, trap) if agent else None
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
            "counts": same.counts if same else [],
            "enemies": same.enemies if same else [],
            "plan": plan,
            "title": say.line("Count of {agent}", agent=agent.name),
            "texts": _texts(plan),
            "read": url_for("count.read", farm=the_farm().id),
            "call": url_for("call.page", farm=the_farm().id, stop=stop, agent=agent.id),
            "may": member().role in SCOUTS,
        }
    return render_template("count.html", here=here, agents=agents, agent=agent, bench=bench, trap=trap, trap_offered=trap_offered)


@blueprint.post("/f/<uuid:farm>/count/read")
@on_farm
def read() -> Response | tuple[Response, int]:
    """What a count says so far: the estimate with its limits, against the threshold. Nothing is stored."""
    posted, checks = forms.posted(), Checks(g.catalogue, now().date())
    try:
        counts = {name: Counts(needed=name == "counts").read(posted.get(name), checks) for name in ("counts", "enemies")}
        sample = Sample.of({**counts, "measure": Choice(looks.MEASURES).read(posted.get("measure"), checks)})
        unit = Text(40, needed=False).read(posted.get("unit"), checks)
        threshold = None if posted.get("threshold") is None else Number(0, 1e6).read(posted["threshold"], checks)
        estimate = interval(sample)
    except ValueError as error:
        return jsonify(error=str(error)), 422
    ratio = enemy_ratio(sample)
    high = estimate.high if math.isfinite(estimate.high) else None
    texts = count_words.reading(say.tongue(), estimate, ratio, unit, sample.measure, threshold)
    return jsonify(seq=posted.get("seq", 0), estimate=estimate.estimate, low=estimate.low, high=high, **texts)
