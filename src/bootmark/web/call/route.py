"""Call: does it matter, do I act."""

import uuid
from collections.abc import Sequence
from typing import Any

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import Agent, Control
from bootmark.core.meanings import DecisionKind, VerdictKind
from bootmark.core.types import ACTING, Choice, Decision
from bootmark.core.units import Quantity
from bootmark.services.base import people
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.fields import NO_AGENT
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.base.states import CallState
from bootmark.services.scouting import growth, holds, stops
from bootmark.services.scouting.stops import AtStop
from bootmark.services.treatment import calls, opinions, weighing
from bootmark.web import at_stop, forms
from bootmark.web.guard import db, member, now, on_farm, the_farm

OTHERWISE = "instead:"
"""What stands before a call that is chosen against the rules, among the controls to choose from."""
blueprint = Blueprint("call", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/call")
@on_farm
def newest() -> str | Response:
    return at_stop.newest("call")


@blueprint.get("/f/<uuid:farm>/call/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    return _page(stop, request.args.get("agent", ""))


def _page(stop: uuid.UUID, chosen: str, errors: dict[str, str] | None = None, wrong: dict[str, str] | None = None) -> str:
    """errors: of the answer from outside; wrong: of the call itself or of an opinion on it."""
    here = at_stop.find(stop)
    waiting = holds.waiting(db(), here, chosen, g.catalogue)
    agents = list(dict.fromkeys((*(waiting.settled if waiting else ()), *here.spoken_of, *here.samples)))
    may_be = waiting.may_be if waiting else ()
    chosen = chosen or (agents[0] if agents else "")
    if here.look is None or chosen not in g.catalogue.agents:
        return render_template("call.html", here=here, decision=None, agents=agents, agent=None)
    agent = g.catalogue.agent(chosen)
    weighed = weighing.considered(db(), the_farm(), g.catalogue, here.look, chosen, here.samples.get(chosen), now().date())
    decision = weighed.decision
    made = here.calls.get(chosen)
    count_first = _count_first(here, chosen, decision)
    return render_template(
        "call.html",
        here=here,
        agents=agents,
        agent=agent,
        decision=decision,
        acting=decision.kind in ACTING,
        own_order=weighing.policy_of(the_farm()).order is not None,
        reports=decision.kind == DecisionKind.REPORT,
        offered=_controls(agent, [choice for choice in decision.choices if choice.offered]),
        closed=_controls(agent, [choice for choice in decision.choices if not choice.offered]),
        instead=weighed.instead,
        all_the_same=_controls(agent, weighed.instead.controls),
        spot=weighed.spot,
        made=made,
        proposed=made is not None and made.state == CallState.PROPOSED,
        signs=member().role in KEEPERS,
        called=request.form if wrong else _as_made(made),
        called_also=request.form.getlist("also") if wrong else made.also if made else [],
        wrong=forms.Errors(wrong),
        count_first=count_first,
        look_first=decision.kind == DecisionKind.LOOK_AGAIN and not count_first,
        ahead=growth.outlook(db(), the_farm(), here.block, agent, here.samples.get(chosen), now().date()),
        record_id=made.id if made else stops.child(stop, "call", chosen),
        may=member().role in SCOUTS,
        waiting=waiting,
        may_be=[
            ("", say.line("choose")),
            *((agent, g.catalogue.agent(agent).name) for agent in may_be),
            (NO_AGENT, say.line("nothing of what was asked")),
        ],
        no_agent=NO_AGENT,
        form=request.form if errors else None,
        errors=forms.Errors(errors),
        today=now().date(),
        opinions=opinions.of_call(db(), made.id) if made else (),
        names=people.names(db()) if made else {},
        colleagues=_to_ask() if made else [],
    )


def _controls(agent: Agent, choices: Sequence[Choice]) -> list[tuple[Choice, Control]]:
    return [(choice, agent.control(choice.control)) for choice in choices]


def _as_made(made: Any) -> dict[str, Any]:
    """What stands in the form before anything is chosen: the call as it was made."""
    if made is None:
        return {"also": []}
    otherwise = made.working.get("instead")
    area = "" if made.spot_area is None else say.tongue().formats.typed(made.spot_area, Quantity.AREA)
    chosen = f"{OTHERWISE}{otherwise}" if otherwise else made.control
    return {"control": chosen, "why": made.why, "also": made.also, "spot": made.spot, "spot_area": area}


def _to_ask() -> list[tuple[str, str]]:
    """Who may be asked for an opinion, by account."""
    others = (row for row in people.members(db()) if row.account_id != member().account_id and row.role in SCOUTS)
    return [("", say.line("whoever signs calls")), *((str(row.account_id), row.name) for row in others)]


@blueprint.post("/f/<uuid:farm>/call/<uuid:stop>/answer")
@on_farm
def answer(stop: uuid.UUID) -> Response | tuple[str, int]:
    """Keep what an authority or a clinic answered to a call of this stop."""
    try:
        forms.send(holds.KeepAnswer)
    except Refused as error:
        return _page(stop, "", error.errors), 400
    flash(say.line("Kept. The call below rests on it now."), "good")
    return redirect(url_for("call.page", farm=the_farm().id, stop=stop))


def _count_first(here: AtStop, agent: str, decision: Decision) -> bool:
    """Whether a named pest waits for its count."""
    named = here.look is not None and here.look.verdict == VerdictKind.NAMED
    return named and decision.kind == DecisionKind.LOOK_AGAIN and agent not in here.samples


@blueprint.post("/f/<uuid:farm>/call/<uuid:stop>")
@on_farm
def make(stop: uuid.UUID) -> Response | tuple[str, int]:
    here = at_stop.find(stop)
    agent = request.form.get("agent", "")
    sample = here.samples.get(agent)
    control = request.form.get("control", "")
    otherwise = control.removeprefix(OTHERWISE) if control.startswith(OTHERWISE) else ""
    also = [] if otherwise else [along for along in request.form.getlist("also") if along != control]
    choice: dict[str, Any] = {"control": "" if otherwise else control, "instead": otherwise, "also": also}
    if otherwise:
        choice |= {"spot": "", "spot_area": None}
    try:
        result = forms.send(calls.MakeDecision, sample_id=str(sample.id) if sample else None, **choice)
    except Refused as error:
        return _page(stop, agent, wrong=error.errors), 400
    call = stops.at(db(), stop).calls.get(agent)
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else made this call meanwhile: both are kept, and the Book shows them side by side."), "warn")
    if call and call.state == CallState.PROPOSED:
        flash(say.line("Proposed. It waits until an adviser or the owner signs it; nothing is planned before."), "good")
        return redirect(url_for("call.page", farm=the_farm().id, stop=stop, agent=agent))
    if call and call.control:
        return redirect(url_for("timing.page", farm=the_farm().id, _anchor=f"call-{call.id}"))
    flash(say.line("The call is made. The look that it books stands on the round of its day."), "good")
    return redirect(url_for("round.page", farm=the_farm().id))


@blueprint.post("/f/<uuid:farm>/call/<uuid:stop>/opinion")
@on_farm
def opinion(stop: uuid.UUID) -> Response | tuple[str, int]:
    """Ask for a second opinion on a call of this stop, or give one."""
    agent = request.form.get("agent", "")
    try:
        forms.send(opinions.GiveOpinion)
    except Refused as error:
        return _page(stop, agent, wrong=error.errors), 400
    flash(say.line("Kept with the call."), "good")
    return redirect(url_for("call.page", farm=the_farm().id, stop=stop, agent=agent, _anchor="opinions"))
