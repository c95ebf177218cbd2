"""Stages: where each pest is, and what comes next."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, flash, g, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark.core.season import biofix
from bootmark.services import block_weather, field, results, rounds, season, traps
from bootmark.services.commands import Refused
from bootmark.store.models import Block
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, real_now, the_farm
from bootmark.web.stages import ribbon

blueprint = Blueprint("stages", __name__, template_folder=".")
A_SCREEN = 12


def _shown(listed: list[results.Listed]) -> list[results.Listed]:
    """Those that the filters ask for: by default the ones that need somebody, or all where none does."""
    show, crop, agent = (request.args.get(name, "") for name in ("show", "crop", "agent"))
    if crop:
        listed = [one for one in listed if one.ask.block.crop == crop]
    if agent:
        listed = [one for one in listed if one.ask.agent.id == agent]
    if show == "all" or crop or agent:
        return listed
    return [one for one in listed if one.needs] or listed


def _ribbons(listed: list[results.Listed], today: dt.date, start: int, hanging: list[traps.Hanging] | None = None) -> list[dict[str, Any]]:
    part = listed[start : start + A_SCREEN]
    beside = ribbon.around(today, hanging if hanging is not None else traps.register(db(), the_farm(), today))
    return ribbon.views([one for one in part if one.stored], lambda wanted: results.load(db(), the_farm(), wanted), beside, today)


def _waiting(blocks: list[Block], today: dt.date) -> list[dict[str, Any]]:
    """Pests often met on a crop whose season has nothing to be counted from yet."""
    farm, known = the_farm(), g.known
    have, watched = season.biofixes(db(), farm, today), season.watched(db(), farm, today)
    modelled = {crop: [agent for agent in known.on(crop) if agent.heat and agent.heat.events] for crop in {block.crop for block in blocks}}
    found = []
    for block in blocks:
        block_id, crop = block.id, block.crop
        for agent in modelled[crop]:
            usual = (block_id, agent.id) in watched or agent.hosts.get(crop) == "often"
            if not usual or (block_id, agent.id) in have or not agent.heat:
                continue
            if block_weather.station_of(db(), farm, block) is None:
                found.append({"block": block, "agent": agent, "why": "No weather station."})
            elif biofix.calendar_day(agent.heat, farm.latitude < 0, today) is None:
                found.append({"block": block, "agent": agent, "why": f"Set the biofix: {agent.heat.biofix_name.lower()}."})
    return found


def _weatherless(blocks: list[Block], today: dt.date) -> str:
    """Why nothing can be drawn at all, where there is no weather; empty where there is."""
    farm = the_farm()
    if not block_weather.stations(db(), farm):
        return "This farm has no weather station: stages run on heat, so nothing can be told before there is one."
    records = [record for block in blocks if (record := block_weather.record_of(db(), farm, block))]
    if not any(record.days for record in records):
        return "The station has no readings yet: send a file of past days, or give it an address or a key."
    if not any(record.years(today) for record in records):
        return "There is no whole past year of readings yet: the days ahead are drawn from past years. Send a file of one or more years."
    return ""


def _page(errors: dict[str, str] | None = None, form: Any = None) -> str:
    today, farm = now().date(), the_farm()
    blocks = rounds.blocks_of(db(), farm)
    listed, run = results.refresh(db(), farm, blocks, g.known, today, real_now())
    hanging = traps.register(db(), farm, today)
    shown = _shown(listed)
    waiting = _waiting(blocks, today)
    ribbons = _ribbons(shown, today, 0, hanging)
    models = sorted(
        {
            (agent.id, agent.name)
            for crop in {block.crop for block in blocks}
            for agent in g.known.on(crop)
            if agent.heat and agent.heat.events
        },
        key=lambda pair: pair[1],
    )
    return render_template(
        "stages.html",
        ribbons=ribbons,
        shown=len(shown),
        screen=A_SCREEN,
        every=len(listed),
        stale=sum(not one.fresh and one.stored for one in listed),
        only=request.args,
        filtered=bool(request.args.get("crop") or request.args.get("agent")),
        waiting=waiting,
        run=run,
        weatherless="" if ribbons else _weatherless(blocks, today),
        proposals=traps.proposals(db(), farm, g.known, today, hanging),
        blocks=[(str(block.id), block.name) for block in blocks],
        agents=models,
        crops=sorted({(one.ask.block.crop, g.known.crops[one.ask.block.crop].name) for one in listed}, key=lambda pair: pair[1]),
        pests=sorted({(one.ask.agent.id, one.ask.agent.name) for one in listed}, key=lambda pair: pair[1]),
        errors=errors or {},
        form=form,
        may=member().role in field.SCOUTS,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/stages")
@on_farm
def page() -> str:
    return _page()


@blueprint.get("/f/<uuid:farm>/stages/part")
@on_farm
def part() -> str:
    """The next ribbons, as one scrolls."""
    today = now().date()
    start = max(request.args.get("from", 0, type=int), 0)
    shown = _shown(results.listing(db(), the_farm(), rounds.blocks_of(db(), the_farm()), g.known, today))
    return render_template(
        "ribbons.html",
        ribbons=_ribbons(shown, today, start),
        start=start,
        shown=len(shown),
        screen=A_SCREEN,
        only=request.args,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/stages/progress")
@on_farm
def progress() -> AnyResponse:
    run = results.newest_run(db(), the_farm())
    return jsonify(
        {"total": run.total if run else 0, "done": run.done if run else 0, "finished": run is None or run.finished_at is not None}
    )


@blueprint.post("/f/<uuid:farm>/stages/biofix")
@on_farm
def set_biofix() -> AnyResponse | tuple[str, int]:
    payload = {name: request.form.get(name, "") for name in ("block_id", "agent", "on", "basis")}
    try:
        forms.send("biofix.set", payload)
    except Refused as error:
        return _page(error.errors, request.form), 400
    block = uuid.UUID(payload["block_id"])
    flash(f"Heat is counted from {dt.date.fromisoformat(payload['on']):%-d %B}.", "good")
    return redirect(url_for("season.page", farm=the_farm().id, block=block, agent=payload["agent"]))
