"""What stands on the plan and is no block: drawn, changed, taken away."""

import uuid
from collections.abc import Mapping

from flask import Blueprint, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.ground.features import FORMS, TALL
from bootmark.core.meanings import FeatureKind
from bootmark.services import features, place_checks
from bootmark.services.base import ground
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.ground import PlanFeature
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.work import NotHere
from bootmark.web import forms
from bootmark.web.guard import db, on_farm, only, the_farm
from bootmark.web.plan import board_of, in_degrees, posted

blueprint = Blueprint("feature", __name__, template_folder=".")


def _page(feature: PlanFeature | None, errors: Mapping[str, str] | None = None) -> str:
    only(KEEPERS)
    shown = request.form if errors else {}
    stands = [list(point) for point in ground.origin(the_farm()).to_plan(feature.points)] if feature else []
    kind = FeatureKind(shown["feature"]) if shown.get("feature") in tuple(FeatureKind) else FeatureKind(feature.kind if feature else "gate")
    board = board_of(the_farm(), ground.blocks(db()), posted(the_farm(), shown.get("outline"), stands), form=FORMS[kind])
    return render_template(
        "feature.html",
        feature=feature,
        checks=place_checks.newest(db(), feature.id) if feature else (),
        kind=kind,
        kinds=[(str(each), say.term(each)) for each in FeatureKind],
        tall=", ".join(say.term(each).lower() for each in FeatureKind if each in TALL),
        board=board | {"forms": {str(each): str(form) for each, form in FORMS.items()}},
        errors=forms.Errors(errors),
        form=shown,
    )


def _of(record: uuid.UUID) -> PlanFeature:
    """What stands there under an id. Raises NotHere."""
    row = next((feature for feature in ground.all_features(db()) if feature.id == record), None)
    if row is None:
        raise NotHere("plan_feature")
    return row


@blueprint.get("/f/<uuid:farm>/farm/plan/new")
@on_farm
def new() -> str:
    return _page(None)


@blueprint.get("/f/<uuid:farm>/farm/plan/<uuid:feature>")
@on_farm
def edit(feature: uuid.UUID) -> str:
    return _page(_of(feature))


@blueprint.post("/f/<uuid:farm>/farm/plan")
@on_farm
def save() -> Response | tuple[str, int]:
    only(KEEPERS)
    try:
        result = forms.send(features.SaveFeature, points=in_degrees(the_farm(), request.form.get("outline")))
    except Refused as error:
        record = forms.record_id()
        standing = {feature.id: feature for feature in ground.all_features(db())}
        return _page(standing.get(record) if record else None, error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this meanwhile: both versions are kept, and the Book shows them."), "warn")
    return redirect(url_for("farm.page", farm=the_farm().id))
