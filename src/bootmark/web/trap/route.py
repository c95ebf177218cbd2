"""Trap register: where each trap hangs, what it caught, what it waits for."""

import datetime as dt
import math
import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core import judgement
from bootmark.core.meanings import AgentKind, Form, TrapKind, TrapState
from bootmark.drawing.plan import plan_svg
from bootmark.services.base import ground
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.scouting import closed
from bootmark.services.seasons import traps
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, only, the_farm
from bootmark.web.plan import board_of, shapes
from bootmark.web.trap.svg import catches_svg

DERIVED_STATES = (TrapState.SPENT, TrapState.DISRUPTED)
"""What nobody chooses: it follows from an empty trap and its lure, or what hangs around it."""
blueprint = Blueprint("trap", __name__, template_folder=".")


def _hanging(today: dt.date) -> list[traps.Hanging]:
    """Traps that wait come first, the longest wait leading."""
    hanging = traps.register(db(), today)
    return sorted(hanging, key=lambda trapped: (min((due.on for due in trapped.due), default=dt.date.max), trapped.trap.name))


def _plan(hanging: list[traps.Hanging], today: dt.date) -> str:
    blocks = ground.blocks(db())
    hung = ground.origin(the_farm()).to_plan([(trapped.trap.longitude, trapped.trap.latitude) for trapped in hanging])
    spots = [(x, y, trapped.trap.name, any(due.on <= today for due in trapped.due)) for trapped, (x, y) in zip(hanging, hung, strict=True)]
    return plan_svg(shapes(the_farm(), blocks), spots=spots)


def _next_due(hanging: list[traps.Hanging]) -> str:
    """What is said where no trap waits."""
    first = min((due.on for trapped in hanging for due in trapped.due), default=None)
    if first is None:
        return say.line("Hang one where a pest is counted from its first catch.")
    return say.line("The next is due on {on:day}.", on=first)


def _page(errors: Mapping[str, str] | None = None, form: Any = None, wrong: str = "") -> str:
    today, farm = now().date(), the_farm()
    hanging, shut = _hanging(today), closed.blocks(db(), g.catalogue, now())
    waiting = [trapped for trapped in hanging if any(due.on <= today for due in trapped.due) and trapped.trap.block_id not in shut]
    return render_template(
        "traps.html",
        hanging=hanging,
        plan=_plan(hanging, today),
        blocks={block.id: block for block in ground.all_blocks(db())},
        proposals=traps.proposals(db(), farm, g.catalogue, today, hanging),
        waiting=waiting,
        next_due=_next_due(hanging),
        kinds={kind: say.term(kind) for kind in TrapKind},
        states=[(str(state), say.term(state)) for state in TrapState if state not in DERIVED_STATES],
        today=today,
        shut=shut,
        errors=forms.Errors(errors),
        form=form,
        wrong=wrong,
        may=member().role in SCOUTS,
    )


@blueprint.get("/f/<uuid:farm>/traps")
@on_farm
def page() -> str:
    return _page()


def _edit(trap: traps.Trap | None, errors: Mapping[str, str] | None = None) -> str:
    agents = sorted(
        (
            (agent.id, agent.name)
            for agent in g.catalogue.agents.values()
            if agent.is_pest and agent.kind in (AgentKind.INSECT, AgentKind.MITE)
        ),
        key=lambda pair: pair[1],
    )
    shown = request.form if errors else {}
    today = now().date()
    checks = next((trapped for trapped in traps.register(db(), today, ended=True) if trap and trapped.trap.id == trap.id), None)
    return render_template(
        "trap.html",
        may=member().role in SCOUTS,
        keeper=member().role in KEEPERS,
        trap=trap,
        form=shown,
        errors=forms.Errors(errors),
        agents=agents,
        kinds=[(kind, say.term(kind)) for kind in TrapKind],
        blocks=[(str(block.id), block.name) for block in ground.blocks(db())],
        board=board_of(the_farm(), ground.blocks(db()), _hung(trap, shown), form=Form.SPOT),
        checks=checks.checks if checks else (),
        svg=catches_svg([(row.on, row.caught) for row in checks.checks], today) if checks and checks.checks else "",
        lure_days=judgement.LURE_DAYS,
        check_days=judgement.CHECK_DAYS,
        today=today,
    )


@blueprint.get("/f/<uuid:farm>/traps/new")
@on_farm
def new() -> str:
    only(SCOUTS)
    return _edit(None)


@blueprint.get("/f/<uuid:farm>/traps/<uuid:trap>")
@on_farm
def edit(trap: uuid.UUID) -> str:
    return _edit(traps.trap(db(), trap))


def _typed(shown: Mapping[str, str]) -> list[float]:
    """Where the form's trap was put, metres on the plan; not a number where it was not."""
    try:
        return [float(shown.get(name, "")) for name in ("x", "y")]
    except ValueError:
        return [math.nan, math.nan]


def _hung(trap: traps.Trap | None, shown: Mapping[str, str]) -> list[list[float]]:
    """Where the board shows the trap: where it was put just now, else where it hangs, else nowhere yet."""
    if ground.in_degrees(the_farm(), [_typed(shown)]):
        return [_typed(shown)]
    return [list(spot) for spot in ground.origin(the_farm()).to_plan([(trap.longitude, trap.latitude)])] if trap else []


def _spot() -> dict[str, float | None]:
    """Where the form's trap hangs, longitude and latitude; unknown where nobody pressed on the plan."""
    degrees = ground.in_degrees(the_farm(), [_typed(request.form)])
    return dict(zip(("longitude", "latitude"), degrees[0] if degrees else (None, None), strict=True))


@blueprint.post("/f/<uuid:farm>/traps")
@on_farm
def save() -> AnyResponse | tuple[str, int]:
    only(SCOUTS)
    try:
        result = forms.send(traps.SaveTrap, **_spot())
    except Refused as error:
        record = forms.record_id()
        return _edit(traps.by_id(db()).get(record) if record else None, error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this trap meanwhile: both versions are kept, and the Book shows them."), "warn")
    return redirect(url_for("trap.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/traps/<uuid:trap>/check")
@on_farm
def check(trap: uuid.UUID) -> AnyResponse | tuple[str, int]:
    try:
        result = forms.send(traps.CheckTrap, trap_id=str(trap))
    except Refused as error:
        return _page(error.errors, request.form, str(trap)), 400
    forms.flash_kept(say.line("The catch is kept."), result)
    return redirect(url_for("trap.page", farm=the_farm().id, _anchor=f"t-{trap}"))
