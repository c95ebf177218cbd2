"""One agent on one block through its season: what if, other years, what was seen, the best day for each control."""

import datetime as dt
import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core import judgement
from bootmark.core.catalogue import Agent
from bootmark.core.season import openings
from bootmark.core.season.phenology import Season
from bootmark.core.season.shares import seen_stages
from bootmark.core.units import Quantity
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.seasons import forecasts, offsets, sightings, traps, unready
from bootmark.services.seasons.forecasts import Ask
from bootmark.web import forms
from bootmark.web.guard import at_most, db, member, now, on_farm, the_farm
from bootmark.web.season.sight import Sight, axis_of, sight
from bootmark.web.stages import ribbon
from bootmark.web.stages.svg import ribbon_svg

blueprint = Blueprint("season", __name__, template_folder=".")
MOST_DEGREES, MOST_DAYS = 4.0, 21
LASTS = (1, 3, 7, 14)


def _ask(block: uuid.UUID, agent: str) -> tuple[ground.Block, Agent, Ask | None]:
    where = ground.block(db(), block)
    if agent not in g.catalogue.agents:
        abort(404)
    return where, g.catalogue.agents[agent], forecasts.ask(db(), the_farm(), where, g.catalogue.agents[agent], now().date())


def _date_titles(question: Ask, seen: Sight) -> list[str]:
    """Heads of the columns of dates: this year's chances, then other years, or the usual one where there are none."""
    sighted = [say.line("Before the sighting")] if question.sightings else []
    chances = [say.line("1 in 10 by"), say.line("Even chance"), say.line("9 in 10 by")]
    others = [str(year.year) for year in seen.years] or [say.line("Usual year")]
    return [say.line("Event"), *sighted, *chances, *others, say.line("Its heat is")]


def _page(block: uuid.UUID, agent: str, errors: Mapping[str, str] | None = None, form: Any = None) -> str:
    where, what, question = _ask(block, agent)
    today, farm = now().date(), the_farm()
    season = forecasts.answer(db(), farm, question, today) if question else None
    shown: dict[str, Any] = {}
    if question and season:
        before = forecasts.reckon(db(), farm, question, today) if question.sightings else None
        beside = ribbon.around(today, traps.register(db(), today))
        lasts = request.args.get("lasts", type=int)
        judged = offsets.judged(db(), farm, where, what, today)
        sight_of = sight(question, season, today, lasts if lasts in LASTS else None)
        shown = {
            "ribbon": ribbon.view(question, season, beside, today, axis_of(question, season, today), before),
            "before": {event.id: event.p50 for event in before.events} if before else {},
            "seen": sight_of,
            "lasts": lasts if lasts in LASTS else "",
            "date_titles": _date_titles(question, sight_of),
            "judged": judged,
            "offset": offsets.proposed(what, judged, today.year),
            "own_model": offsets.accepted(db()).get(what.id),
            "stages": [stage for stage in seen_stages(what.heat) if stage in what.stages] if what.heat else [],
        }
    return render_template(
        "season.html",
        block=where,
        agent=what,
        season=season,
        today=today,
        sightings=sightings.newest(db(), where.id, what.id),
        errors=forms.Errors(errors),
        form=form,
        may=member().role in SCOUTS,
        keeper=member().role in KEEPERS,
        lengths=[("", say.line("as the catalogue has it")), *((str(n), f"{n} day{'s' if n > 1 else ''}") for n in LASTS)],
        odd=judgement.ODD_SIGHTING,
        under_cover=say.line(unready.UNDER_COVER) if not forecasts.tells_heat(db(), the_farm(), where) else "",
        degrees=MOST_DEGREES,
        warmth_times=say.tongue().formats.unit(Quantity.WARMTH).times,
        most_days=MOST_DAYS,
        **shown,
    )


@blueprint.get("/f/<uuid:farm>/stages/<uuid:block>/<agent>")
@on_farm
def page(block: uuid.UUID, agent: str) -> str:
    return _page(block, agent)


@blueprint.post("/f/<uuid:farm>/stages/<uuid:block>/<agent>/sighting")
@on_farm
def sighting(block: uuid.UUID, agent: str) -> AnyResponse | tuple[str, int]:
    try:
        result = forms.send(sightings.SightStages, block_id=str(block), agent=agent)
    except Refused as error:
        return _page(block, agent, error.errors, request.form), 400
    forms.flash_kept(say.line("Kept. The forecast below has been weighed by what you saw."), result)
    return redirect(url_for("season.page", farm=the_farm().id, block=block, agent=agent))


@blueprint.post("/f/<uuid:farm>/stages/<uuid:block>/<agent>/model")
@on_farm
def accept(block: uuid.UUID, agent: str) -> AnyResponse | tuple[str, int]:
    """Take what past years said of a model's sums, or the catalogue's own again."""
    try:
        forms.send(offsets.AcceptOffset, agent=agent)
    except Refused as error:
        return _page(block, agent, error.errors, request.form), 400
    flash(say.line("Kept. Every forecast of it on this farm is reckoned so from now on."), "good")
    return redirect(url_for("season.page", farm=the_farm().id, block=block, agent=agent))


@blueprint.get("/f/<uuid:farm>/stages/<uuid:block>/<agent>/what-if")
@on_farm
@at_most(240)
def what_if(block: uuid.UUID, agent: str) -> AnyResponse:
    """The season if it were warmer or cooler from today on, or the biofix earlier or later."""
    where, what, question = _ask(block, agent)
    today, farm = now().date(), the_farm()
    warmer = forms.asked("warmer", -MOST_DEGREES, MOST_DEGREES)
    later = int(forms.asked("later", -MOST_DAYS, MOST_DAYS))
    plain = forecasts.answer(db(), farm, question, today) if question else None
    if question is None or plain is None:
        return jsonify({"text": say.line("There is no forecast to change yet."), "svg": ""})
    if question.biofix + dt.timedelta(days=later) > today:
        return jsonify(
            {
                "text": say.line(
                    "The biofix would lie ahead of today: {days} days later is the most.", days=(today - question.biofix).days
                ),
                "svg": "",
            }
        )
    changed = bool(warmer or later)
    season = forecasts.reckon(db(), farm, question, today, sightings=question.sightings, warmer=warmer, later=later) if changed else plain
    if season is None:
        return jsonify({"text": say.line("There is no weather from that day on."), "svg": ""})
    axis = axis_of(question, plain, today)
    control, span = openings.leading_window(season, what, after=today) or (None, None)
    beside = ribbon.around(today, traps.register(db(), today))
    marks = ribbon.marks_of(question, beside, today, span, ribbon.window_name(control), plain if changed else None)
    title = say.line("{agent} on {block}, what if", agent=what.name, block=where.name)
    return jsonify(
        {
            "text": _differs(plain, season, today) if changed else "",
            "svg": ribbon_svg(season, axis, today, title, marks),
            "days": ribbon.days_told(season, axis),
        }
    )


def _differs(plain: Season, season: Season, today: dt.date) -> str:
    """How the next events move, in a sentence or two."""
    usual = {event.id: event.p50 for event in plain.events}
    lines: list[str] = []
    for event in season.events:
        before = usual.get(event.id)
        if event.p50 and before and max(event.p50, before) >= today and len(lines) < 3:
            moved = (event.p50 - before).days
            how = say.line("on the same day")
            if moved:
                way = ("{of} day later", "{of} days later") if moved > 0 else ("{of} day earlier", "{of} days earlier")
                how = say.many(*way, abs(moved))
            lines.append(say.line("{event}: {on:day}, {how}.", event=event.name, on=event.p50, how=how))
        elif before and before >= today and event.p50 is None:
            lines.append(say.line("{name}: not this year.", name=event.name))
    moves = " ".join(lines) or say.line("Nothing that is still to come moves.")
    return say.line("{moves} Long dashes: as it is foretold.", moves=moves)
