"""Where a pest starts to matter here: what the catalogue says, what the farm says, and what its own prices say."""

import uuid
from collections.abc import Mapping
from dataclasses import asdict

from flask import Blueprint, abort, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import Agent
from bootmark.core.field import levels
from bootmark.core.field.levels import Terms
from bootmark.core.meanings import CATCHES, Measure
from bootmark.services.base import people
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import DERIVED
from bootmark.services.base.roles import KEEPERS
from bootmark.services.treatment import thresholds
from bootmark.web import forms
from bootmark.web.guard import db, on_farm, only, the_farm
from bootmark.web.threshold.svg import swings_svg

blueprint = Blueprint("threshold", __name__, template_folder=".")
TERMS = ("cost", "value", "injury", "damage", "efficacy")
FIGURES = 3
"""Of a level that are shown: its terms are never known to more."""
WAITS = ("doubling", "wait", "bite")


def _numbers() -> dict[str, float]:
    """What was typed of prices and waits. Raises Refused, field by field."""
    numbers, errors = {}, {}
    for name in (*TERMS, *WAITS):
        typed = request.args.get(name, "").strip()
        if not typed and name in WAITS:
            continue
        readings = say.tongue().formats.readings(typed)
        if len(readings) != 1:
            errors[name] = say.line("{typed} is not one number: write it without signs between thousands.", typed=typed or "-")
        else:
            numbers[name] = readings[0]
    if errors:
        raise Refused(**errors)
    return numbers


def _worked(agent: Agent, crop: str) -> dict[str, object]:
    """The injury level from the farm's own prices, the threshold before it, and what moves it."""
    if not request.args.get("cost"):
        return {}
    if levels.sold_for_looks(agent, g.catalogue.crops.get(crop)):
        raise Refused(cost=say.line("What is sold for its looks loses by blemishes, not by yield: no level can be worked from it."))
    numbers = _numbers()
    try:
        terms = Terms(*(numbers[name] for name in TERMS))
        level, swings = terms.level, levels.swings(terms)
        waits = (numbers.get(name, 0.0) for name in WAITS[1:])
        act = levels.action_threshold(level, numbers["doubling"], *waits) if "doubling" in numbers else None
    except ValueError as error:
        sentence = say.line("Each number lies above nought, and the share kept off is at most 1: without a price there is no level.")
        raise Refused(cost=sentence) from error
    return {"level": _short(level), "act": _short(act) if act else None, "swings": swings_svg(level, swings), "terms": asdict(terms)}


def _short(number: float) -> float:
    return float(f"{number:.{FIGURES}g}")


def _page(agent_id: str, errors: Mapping[str, str] | None = None) -> str:
    only(KEEPERS)
    if agent_id not in g.catalogue.agents:
        abort(404)
    agent, crop = g.catalogue.agent(agent_id), request.values.get("crop", "*")
    plan, measures = agent.sampling, thresholds.measures_of(agent)
    asked = request.values.get("measure", "")
    measure = Measure(asked) if asked in measures else plan.measure if plan else measures[0]
    farm_own = thresholds.own(db(), g.catalogue).agent(agent_id)
    # Prices weigh animals on plants: what a trap draws from afar is worth none of them.
    priced = measure not in CATCHES
    try:
        worked, wrong = _worked(agent, crop) if priced else {}, {}
    except Refused as error:
        worked, wrong = {}, error.errors
    return render_template(
        "threshold.html",
        agent=agent,
        crop=crop,
        measure=measure,
        measures=[(each, say.term(each)) for each in measures],
        priced=priced,
        elsewhere=farm_own.threshold(crop, Measure.TRAP) if measure == Measure.DISRUPTED else None,
        unit=plan.unit if plan else "",
        of_what=thresholds.unit_of(agent, measure),
        nominal=agent.threshold(crop, measure),
        own=[row for row in thresholds.rows(db(), agent_id) if row.crop in (crop, "*") and row.measure == measure],
        record=uuid.uuid5(DERIVED, f"threshold/{the_farm().id}/{agent_id}/{crop}/{measure}"),
        names=people.names(db()),
        errors=forms.Errors(errors),
        wrong=forms.Errors(wrong),
        form=request.form if errors else {},
        asked=request.args,
        **worked,
    )


@blueprint.get("/f/<uuid:farm>/threshold/<agent>")
@on_farm
def page(agent: str) -> str:
    return _page(agent)


@blueprint.post("/f/<uuid:farm>/threshold/<agent>")
@on_farm
def save(agent: str) -> Response | tuple[str, int]:
    only(KEEPERS)
    try:
        forms.send(thresholds.SetThreshold, agent=agent)
    except Refused as error:
        return _page(agent, error.errors), 400
    flash(say.line("From now on the farm's own threshold is what counts are held against."), "good")
    crop, measure = request.form.get("crop", "*"), request.form.get("measure")
    return redirect(url_for("threshold.page", farm=the_farm().id, agent=agent, crop=crop, measure=measure))
