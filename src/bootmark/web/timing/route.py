"""Timing: which hours, which control, in which order."""

import datetime as dt
from typing import Any

from flask import Blueprint, g, render_template

from bootmark.core.season.windows import Cell
from bootmark.services.base.farm_time import zone
from bootmark.services.treatment import timing
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.timing.svg import strips_svg

blueprint = Blueprint("timing", __name__, template_folder=".")


def _stretches(one: timing.Planned, zone: dt.tzinfo) -> list[tuple[dt.datetime, dt.datetime, Cell]]:
    """The hours ahead in words, in the farm's own time."""
    return [(start.astimezone(zone), end.astimezone(zone), cell) for start, end, cell in one.table.stretches()] if one.table else []


@blueprint.get("/f/<uuid:farm>/timing")
@on_farm
def page() -> str:
    farm, at = the_farm(), now()
    planned = timing.planned(db(), farm, g.known, at)
    local = zone(farm)
    first_of: dict[object, timing.Planned] = {}
    for one in planned:
        first_of.setdefault(one.treatment.decision_id, one)
    shown: list[dict[str, Any]] = []
    for one in first_of.values():
        spans = [(start.astimezone(local), end.astimezone(local)) for start, end in one.spans]
        title = f"Hours for {one.control.name.lower()} on {one.block.name}"
        treatments, looks = timing.programme(db(), one.treatment.decision_id)
        steps = sorted(
            [(row.on, "treat", row) for row in treatments] + [(row.due_on, "look", row) for row in looks], key=lambda step: step[0]
        )
        shown.append(
            {
                "one": one,
                "spans": spans,
                "svg": strips_svg(one.table, local, title) if one.table else "",
                "steps": steps,
                "now": one.state_at(at),
                "hours": _stretches(one, local),
            }
        )
    shown.sort(key=lambda each: (each["one"].late, each["one"].treatment.not_after or each["one"].treatment.on))
    return render_template("timing.html", shown=shown, today=at.date(), may_do=member().role in ("owner", "applicator"))
