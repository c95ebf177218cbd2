"""What Timing shows of a farm's plans, drawn: made once for each hour and each state of the farm's rows."""

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass

from flask import g

from bootmark import say
from bootmark.core.season.windows import Cell
from bootmark.services.base import memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.treatment import timing
from bootmark.services.treatment.timing import Planned
from bootmark.web.guard import db, the_farm
from bootmark.web.timing.svg import strips_svg

Span = tuple[dt.datetime, dt.datetime]


@dataclass(frozen=True)
class Step:
    """One row of a plan: a treatment, with the last day of its window, or a look that is booked."""

    on: dt.date
    what: str
    why: str
    state: str
    until: dt.date | None = None


@dataclass(frozen=True)
class Plan:
    """The plan of one control of a call. leads: whether links to the call go to it; spans: good hours in the farm's own time; now: this
    hour's limits."""

    planned: Planned
    leads: bool
    spans: list[Span]
    svg: str
    steps: list[Step]
    now: Cell | None
    hours: list[tuple[dt.datetime, dt.datetime, Cell]]


_sights: memo.Kept[list[Plan]] = memo.Kept(64)


def sight(now: dt.datetime) -> list[Plan]:
    """Every plan with something still to be done, the most urgent first."""
    key = (g.catalogue.hash, now.replace(minute=0, second=0, microsecond=0), the_farm().time_zone)
    return stamp.while_standing(
        db(), _sights, timing.RESTS_ON, key, lambda: _plans(timing.planned(db(), the_farm(), g.catalogue, now), now)
    )


def _plans(planned: Sequence[Planned], now: dt.datetime) -> list[Plan]:
    first_of: dict[tuple[uuid.UUID, str], Planned] = {}
    for treatment in planned:
        first_of.setdefault((treatment.treatment.decision_id, treatment.treatment.control), treatment)
    seen: set[uuid.UUID] = set()
    plans = []
    for (decision, _), first in first_of.items():
        plans.append(_plan(first, now, decision not in seen))
        seen.add(decision)
    return sorted(plans, key=lambda plan: (plan.planned.late, plan.planned.treatment.not_after or plan.planned.treatment.on))


def _plan(planned: Planned, now: dt.datetime, leads: bool) -> Plan:
    local = zone(the_farm())
    treatments, looks = timing.programme(db(), planned.treatment.decision_id)
    name = planned.control.name
    steps = [Step(row.on, name, row.why, row.state, row.not_after) for row in treatments if row.control == planned.treatment.control]
    steps += [Step(row.due_on, say.line("Look again"), row.look_for, row.state) for row in looks]
    stretches = planned.table.stretches() if planned.table else []
    return Plan(
        planned=planned,
        leads=leads,
        spans=[(start.astimezone(local), end.astimezone(local)) for start, end in planned.spans],
        svg=strips_svg(
            planned.table, local, say.line("Hours for {control} on {block}", control=planned.control.name.lower(), block=planned.block.name)
        )
        if planned.table
        else "",
        steps=sorted(steps, key=lambda step: step.on),
        now=planned.state_at(now),
        hours=[(start.astimezone(local), end.astimezone(local), cell) for start, end, cell in stretches],
    )
