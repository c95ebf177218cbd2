"""Stalks that give way, fruit with holes, leaf that is lost: counted at a stop."""

import uuid
from collections.abc import Mapping

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.field import conditions as shares
from bootmark.core.meanings import Condition, Pictured, Refusal
from bootmark.say.photo import REFUSED
from bootmark.services.base.command import Refused
from bootmark.services.base.fields import MOST_UNITS
from bootmark.services.base.handling import Json
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import conditions, photos, pictured
from bootmark.services.scouting.measuring import Asked, outline_of
from bootmark.web import at_stop, forms
from bootmark.web.drawing.route import EATEN
from bootmark.web.guard import at_most, db, member, now, on_farm, only, the_farm

blueprint = Blueprint("condition", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/condition/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    return _page(stop)


def _page(stop: uuid.UUID, errors: Mapping[str, str] | None = None) -> str:
    here = at_stop.find(stop)
    photo, measured, refused = _on_picture(stop)
    agents = list(dict.fromkeys(agent for agent in (*here.spoken_of, *here.samples) if g.catalogue.agent(agent).is_pest))
    others = sorted((agent.name, agent.id) for agent in g.catalogue.on(here.block.crop) if agent.is_pest and agent.id not in agents)
    crop = g.catalogue.crops.get(here.block.crop)
    kept = [
        (Condition(row.condition), row.agent, shares.limits(Condition(row.condition), row.units)) for row in conditions.at_stop(db(), stop)
    ]
    return render_template(
        "condition.html",
        here=here,
        agents=[*((agent, g.catalogue.agent(agent).name) for agent in agents), *((id, name) for name, id in others)],
        leaf=crop.leaf if crop else "ovate",
        steps=EATEN,
        kept=kept,
        photo=photo,
        measured=measured,
        refused=refused,
        outline=request.values.get("outline", ""),
        may=member().role in SCOUTS,
        errors=forms.Errors(errors),
        form=request.form if errors else {},
    )


@blueprint.post("/f/<uuid:farm>/condition/<uuid:stop>")
@on_farm
def keep(stop: uuid.UUID) -> Response | tuple[str, int]:
    only(SCOUTS)
    at_stop.find(stop)
    condition = request.form.get("condition", "")
    try:
        by_picture = condition == Condition.LEAVES and "photo_id" in request.form
        units = _measured() if by_picture else _leaves() if condition == Condition.LEAVES else _tried(condition)
        forms.send(conditions.RecordCondition, stop_id=str(stop), units=units)
    except Refused as error:
        return _page(stop, error.errors), 400
    flash(say.line("Kept. The call weighs it."), "good")
    return redirect(url_for("condition.page", farm=the_farm().id, stop=stop))


@blueprint.post("/f/<uuid:farm>/condition/<uuid:stop>/picture")
@on_farm
@at_most(30)
def picture(stop: uuid.UUID) -> Response | tuple[str, int]:
    """Keep a picture of leaves at the stop, and show what it says."""
    only(SCOUTS)
    at_stop.find(stop)
    sent = request.files.get("photo")
    try:
        if sent is None or not sent.filename:
            raise Refused(photo=say.line("No picture was chosen: take one or choose a file first."))
        photo = photos.attach(db(), member(), sent.read(), now(), stop=stop, asked=Asked(Pictured.LEAVES))
    except Refused as error:
        return _page(stop, error.errors), 400
    return redirect(url_for("condition.page", farm=the_farm().id, stop=stop, photo=photo))


def _on_picture(stop: uuid.UUID) -> tuple[uuid.UUID | None, Json | None, str]:
    """The picture that the address or the form names, what was measured on it, and why nothing was."""
    photo: uuid.UUID | None
    try:
        photo = uuid.UUID(request.values.get("photo_id") or request.args.get("photo", ""))
    except ValueError:
        photo = _waiting(stop)
    if photo is None or photo not in photos.of_stop(db(), stop):
        return None, None, ""
    said = pictured.of_leaves(db(), photo, outline_of(request.values.get("outline", "")))
    if isinstance(said, Refusal):
        return photo, None, say.line(REFUSED[said])
    return photo, said, ""


def _waiting(stop: uuid.UUID) -> uuid.UUID | None:
    """The newest picture of leaves at a stop, one that came from a phone by itself too, unless it was kept as what the stand shows."""
    kept = {row.photo_id for row in conditions.at_stop(db(), stop)}
    newest = next(iter(pictured.of_stop(db(), stop, Pictured.LEAVES)), None)
    return newest.photo if newest and newest.photo not in kept else None


def _number(name: str) -> int:
    """A whole number of a form, nought where it is empty. Raises Refused."""
    text = request.form.get(name, "").strip()
    if text and not (text.isascii() and text.isdigit() and int(text) <= MOST_UNITS):
        raise Refused(**{name: say.line("Write a whole number up to {most}.", most=MOST_UNITS)})
    return int(text or 0)


def _tried(condition: str) -> list[int]:
    """Of so many that were tried or looked at, those that gave way or have holes."""
    of, bad = _number(f"{condition}_of"), _number(f"{condition}_bad")
    if not of:
        raise Refused(**{f"{condition}_of": say.line("How many were there in all?")})
    if bad > of:
        raise Refused(**{f"{condition}_bad": say.line("That is more than the {of} in all.", of=of)})
    return [1] * bad + [0] * (of - bad)


def _measured() -> list[int]:
    """Each leaf of a picture, as it was measured or put right by hand."""
    names = [name for name in request.form if name.startswith("measured_")][:MOST_UNITS]
    units = [_number(name) for name in names if request.form[name].strip()]
    if not units or max(units) > 100:
        raise Refused(measured=say.line("Write for each leaf how many per cent are lost, 0 to 100."))
    return units


def _leaves() -> list[int]:
    """Each leaf by the drawn one that it is most like."""
    leaves = [step for step in EATEN for _ in range(_number(f"leaf_{step}"))]
    if not leaves:
        raise Refused(units=say.line("Nothing was counted yet: hold some leaves against the drawn ones."))
    return leaves
