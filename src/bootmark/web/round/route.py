"""Round: where to walk today, why there, in which order, and what to carry."""

from collections.abc import Mapping, Sequence

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.field import yearly
from bootmark.core.field.walk import Walk, Wish
from bootmark.core.meanings import FeatureKind
from bootmark.say.yearly import TASKS
from bootmark.services import place_checks, season_tasks
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import KEEPERS, SCOUTS
from bootmark.services.scouting import closed, flags, looks
from bootmark.services.treatment import opinions
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, the_farm
from bootmark.web.round.sight import sight

MINUTES = (20, 30, 45, 60, 90, 120, 180)
MOST_WISHED = 100
blueprint = Blueprint("round", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/round")
@on_farm
def page() -> str:
    return _page()


def _page(errors: Mapping[str, str] | None = None) -> str:
    wish = _wish()
    seen = sight(now(), wish)
    tasks = season_tasks.due(db(), the_farm(), g.catalogue, now().date())
    return render_template(
        "round.html",
        seen=seen,
        wish=wish,
        asked=_asked,
        times=[("", say.line("as long as it takes")), *((str(n), say.many("{of} minute", "{of} minutes", n)) for n in MINUTES)],
        walk=seen.walk,
        waiting=len(opinions.waiting(db(), member())),
        flags=flags.standing(db(), now().date()),
        carry=_carried(seen.walk, tasks),
        tasks=tasks,
        task_words=TASKS,
        places=place_checks.due(db(), now().date()),
        feature_word=lambda row: say.term(FeatureKind(row.kind)),
        crops=g.catalogue.crops,
        may_walk=member().role in SCOUTS,
        keeper=member().role in KEEPERS,
        errors=forms.Errors(errors),
        form=request.form if errors else {},
    )


def _carried(walk: Walk, tasks: Sequence[season_tasks.DueTask]) -> list[str]:
    """What to take along, for the tasks of the season too."""
    return list(dict.fromkeys((*walk.carry, *(tool for row in tasks for tool in yearly.CARRIED.get(row.task.kind, ())))))


def _wish() -> Wish:
    """What the address asks of the walk; what is no block or no number asks nothing."""
    minutes = request.args.get("minutes", type=int)
    without, also = (frozenset(request.args.getlist(name)[:MOST_WISHED]) for name in ("without", "also"))
    return Wish(minutes if minutes in MINUTES else None, without, also)


def _asked(wish: Wish, block: str, *, walk: bool) -> str:
    """The address of the same walk with a block more, or one less."""
    without, also = (wish.without - {block}, wish.also | {block}) if walk else (wish.without | {block}, wish.also - {block})
    return url_for("round.page", farm=the_farm().id, minutes=wish.minutes, without=sorted(without), also=sorted(also))


@blueprint.post("/f/<uuid:farm>/round/task")
@on_farm
def task() -> Response | tuple[str, int]:
    """Keep that something was looked at outside the season."""
    try:
        result = forms.send(season_tasks.DoTask, on=now().date().isoformat())
    except Refused as error:
        return _page(error.errors), 400
    forms.flash_kept(say.line("Kept."), result)
    return redirect(url_for("round.page", farm=the_farm().id, _anchor="tasks"))


@blueprint.post("/f/<uuid:farm>/round/place")
@on_farm
def place() -> Response | tuple[str, int]:
    """Keep a look at a place that is no block."""
    try:
        result = forms.send(place_checks.CheckPlace, on=now().date().isoformat())
    except Refused as error:
        return _page(error.errors), 400
    forms.flash_kept(say.line("Kept. It comes back in its rhythm."), result)
    return redirect(url_for("round.page", farm=the_farm().id, _anchor="places"))


@blueprint.post("/f/<uuid:farm>/round/open")
@on_farm
def open_stop() -> Response:
    """Open a stop and go to its Look bench; pressed twice it opens once. Nobody is sent into a block that is closed."""
    block = request.form.get("block_id", "")
    shut = {str(place): why for place, why in closed.blocks(db(), g.catalogue, now()).items()}
    if block in shut:
        flash(say.tongue().say(shut[block]), "bad")
        return redirect(url_for("round.page", farm=the_farm().id))
    result = forms.send(looks.OpenStop)
    return redirect(url_for("look.page", farm=the_farm().id, stop=result["record_id"]))
