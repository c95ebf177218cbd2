"""The farm itself: its name, place, country, time, money, and how pests are controlled on it."""

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.field import schools
from bootmark.core.field.schools import POLICIES, School
from bootmark.say.schools import SCHOOLS
from bootmark.services.base import ground, grown
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import Role
from bootmark.services.owning import lands, settings
from bootmark.web import forms, ways
from bootmark.web.guard import ask_who, db, on_farm, only, the_farm

blueprint = Blueprint("settings", __name__, template_folder=".")
OWNER = frozenset({Role.OWNER})


def _page(errors: Mapping[str, str] | None = None) -> str:
    farm = the_farm()
    shown: Mapping[str, Any] = request.form if errors else settings.asked_of(farm)
    region = str(shown.get("part") or shown.get("country") or "") if errors else str(shown["region"])
    country = region[:2] if lands.is_region(region) else ""
    crops = {crop for block in ground.blocks(db()) for crop in grown.crops(block)}
    return render_template(
        "settings.html",
        errors=forms.Errors(errors),
        form=request.form if errors else {},
        shown=shown,
        base=settings.base(db(), farm.id),
        countries=[("", say.line("not told")), *lands.countries()],
        country=country,
        region=region,
        parts=[(country, say.line("all of it")), *lands.parts(country)] if country else [],
        zones=[(zone, zone) for zone in dict.fromkeys((str(shown["time_zone"]), *lands.zones()))],
        currencies=[("", say.line("not told")), *((code, f"{code} {name}") for code, name in lands.currencies())],
        schools=[(school, *SCHOOLS[school], schools.reach(POLICIES[school], crops, g.catalogue)) for school in School],
        crops=crops,
        ways=ways.choices(),
    )


@blueprint.get("/f/<uuid:farm>/settings")
@on_farm
def page() -> str:
    only(OWNER)
    return _page()


@blueprint.post("/f/<uuid:farm>/settings")
@on_farm
def save() -> Response | str | tuple[str, int]:
    only(OWNER)
    part, country = request.form.get("part", ""), request.form.get("country", "")
    try:
        ask_who()
        result = forms.send(settings.SaveFarm, region=part if part.startswith(f"{country}-") else country)
    except Refused as error:
        return _page(error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed the farm meanwhile: look at what stands now."), "warn")
    elif country and lands.parts(country) and not part.startswith(country):
        flash(say.line("Kept. {country} has parts with rules of their own: choose yours.", country=lands.named(country)), "good")
        return redirect(url_for("settings.page", farm=the_farm().id))
    else:
        flash(say.line("Kept."), "good")
    return redirect(url_for("farm.page", farm=the_farm().id))
