"""Stages: where each pest is, and what comes next."""

import datetime as dt
import uuid
from typing import Any

from flask import Blueprint, g, render_template, request
from sqlalchemy import select

from bootmark.core.catalogue import Control
from bootmark.core.catalogue.model import MANY
from bootmark.core.season import biofix, phenology
from bootmark.services import block_weather, field, rounds, season
from bootmark.services.commands import Refused
from bootmark.store.models import TreatmentRow
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.stages.svg import Axis, ribbon_svg, spoken

blueprint = Blueprint("stages", __name__, template_folder=".")
NEAR_DAYS = 14


def window_name(control: Control | None) -> str:
    """What a window is called. A spray is not named before a call carries it."""
    if control is None:
        return ""
    return (
        control.name
        if control.kind in ("physical", "living")
        else f"{' and '.join(MANY[stage] for stage in control.stages)} can be reached"
    )


def gather(today: dt.date) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Ribbons, those that need somebody first, and pests that wait for a biofix."""
    farm, known = the_farm(), g.known
    fixes, watched = season.biofixes(db(), farm, today), season.watched(db(), farm, today)
    treated: dict[tuple[uuid.UUID, str], list[tuple[dt.date, bool]]] = {}
    start = today.replace(month=1, day=1)
    rows = db().scalars(
        select(TreatmentRow).where(TreatmentRow.farm_id == farm.id, TreatmentRow.state != "withdrawn", TreatmentRow.on >= start)
    )
    for row in rows:
        treated.setdefault((row.block_id, row.agent), []).append((row.on, row.state == "done"))
    axis = Axis(today - dt.timedelta(days=62), today + dt.timedelta(days=70))
    ribbons, waiting = [], []
    for block in rounds.blocks_of(db(), farm):
        for agent in known.on(block.crop):
            here = (block.id, agent.id) in watched
            if not agent.heat or not agent.heat.events or not (here or agent.hosts.get(block.crop) == "often"):
                continue
            found = season.of_block(db(), farm, block, agent, today, fixes) if here else None
            if found is None and not here and biofix.calendar_day(agent.heat, farm.latitude < 0, today):
                # Its season begins by the calendar: nothing has to be set, and it has not been found here.
                continue
            if found is None:
                why = (
                    "No weather station."
                    if block_weather.station_of(db(), farm, block) is None
                    else f"Set the biofix: {agent.heat.biofix_name.lower()}."
                )
                waiting.append({"block": block, "agent": agent, "why": why})
                continue
            control, span = phenology.leading_window(found.forecast, agent, after=today) or (None, None)
            coming = next((event for event in found.forecast.events if event.p50 and event.p50 >= today), None)
            early = coming.days_early if coming else None
            needs = bool(span and (span[0] - today).days <= NEAR_DAYS)
            name = f"{agent.name} on {block.name}: {spoken(found.forecast.on(today))} today"
            ribbons.append(
                {
                    "block": block,
                    "agent": agent,
                    "found": found,
                    "needs": needs,
                    "coming": coming,
                    "pace": "as usual"
                    if not early
                    else f"{abs(early)} day{'s' if abs(early) != 1 else ''} {'early' if early > 0 else 'late'}"
                    if early is not None
                    else "",
                    "window": span,
                    "window_name": window_name(control),
                    "today": spoken(found.forecast.on(today)),
                    "svg": ribbon_svg(
                        found.forecast,
                        axis,
                        today,
                        name,
                        window=span,
                        window_name=window_name(control),
                        treatments=treated.get((block.id, agent.id), ()),
                    ),
                }
            )
    ribbons.sort(key=lambda one: (not one["needs"], one["window"][1] if one["window"] else dt.date.max))
    return ribbons, waiting


def _page(errors: dict[str, str] | None = None, form: Any = None) -> str:
    today = now().date()
    ribbons, waiting = gather(today)
    only = request.args.get("show", "")
    agents = sorted({(one["agent"].id, one["agent"].name) for one in (*ribbons, *waiting)}, key=lambda pair: pair[1])
    return render_template(
        "stages.html",
        ribbons=ribbons if only == "all" else [one for one in ribbons if one["needs"]] or ribbons,
        every=len(ribbons),
        only=only,
        waiting=waiting,
        blocks=[(str(block.id), block.name) for block in rounds.blocks_of(db(), the_farm())],
        agents=agents,
        errors=errors or {},
        form=form,
        may=member().role in field.SCOUTS,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/stages")
@on_farm
def page() -> str:
    return _page()


@blueprint.post("/f/<uuid:farm>/stages/biofix")
@on_farm
def set_biofix() -> str | tuple[str, int]:
    payload = {name: request.form.get(name, "") for name in ("block_id", "agent", "on", "basis")}
    try:
        forms.send("biofix.set", payload)
    except Refused as error:
        return _page(error.errors, request.form), 400
    return _page()
