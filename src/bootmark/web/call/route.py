"""Call: does it matter, do I act."""

import uuid

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.meanings import DecisionKind, VerdictKind
from bootmark.core.types import ACTING, Decision
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.fields import NO_AGENT
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import growth, holds, stops
from bootmark.services.scouting.stops import AtStop
from bootmark.services.treatment import calls
from bootmark.web import at_stop, forms
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("call", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/call")
@on_farm
def newest() -> str | Response:
    return at_stop.newest("call")


@blueprint.get("/f/<uuid:farm>/call/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    return _page(stop, request.args.get("agent", ""))


def _page(stop: uuid.UUID, chosen: str, errors: dict[str, str] | None = None) -> str:
    here = at_stop.find(stop)
    waiting = holds.waiting(db(), here, chosen, g.catalogue)
    agents = list(dict.fromkeys((*(waiting.settled if waiting else ()), *here.spoken_of, *here.samples)))
    may_be = waiting.may_be if waiting else ()
    chosen = chosen or (agents[0] if agents else "")
    if here.look is None or chosen not in g.catalogue.agents:
        return render_template("call.html", here=here, decision=None, agents=agents, agent=None)
    agent = g.catalogue.agent(chosen)
    decision = calls.considered(db(), the_farm(), g.catalogue, here.look, chosen, here.samples.get(chosen), now().date())
    made = here.calls.get(chosen)
    count_first = _count_first(here, chosen, decision)
    return render_template(
        "call.html",
        here=here,
        agents=agents,
        agent=agent,
        decision=decision,
        acting=decision.kind in ACTING,
        own_order=calls.policy_of(the_farm()).order is not None,
        reports=decision.kind == DecisionKind.REPORT,
        offered=[(choice, agent.control(choice.control)) for choice in decision.choices if choice.offered],
        closed=[(choice, agent.control(choice.control)) for choice in decision.choices if not choice.offered],
        made=made,
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
    )


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
def make(stop: uuid.UUID) -> Response:
    here = at_stop.find(stop)
    agent = request.form.get("agent", "")
    sample = here.samples.get(agent)
    left = request.form.get("control") == DecisionKind.LEAVE
    choice = {"control": "", "instead": DecisionKind.LEAVE} if left else {}
    try:
        result = forms.send(calls.MakeDecision, sample_id=str(sample.id) if sample else None, **choice)
    except Refused as error:
        flash(" ".join(error.errors.values()), "bad")
        return redirect(url_for("call.page", farm=the_farm().id, stop=stop, agent=agent))
    call = stops.at(db(), stop).calls.get(agent)
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else made this call meanwhile: both are kept, and the Book shows them side by side."), "warn")
    if call and call.control:
        return redirect(url_for("timing.page", farm=the_farm().id, _anchor=f"call-{call.id}"))
    flash(say.line("The call is made. The look that it books stands on the round of its day."), "good")
    return redirect(url_for("round.page", farm=the_farm().id))
