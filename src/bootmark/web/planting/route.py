"""What grows on a block: planted, changed, gone."""

import uuid
from collections.abc import Mapping

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import plants
from bootmark.core.meanings import SoldAs, Worth
from bootmark.services import lots, plantings
from bootmark.services.base import ground, grown
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import KEEPERS
from bootmark.web import forms
from bootmark.web.guard import db, on_farm, only, the_farm

blueprint = Blueprint("planting", __name__, template_folder=".")


def _page(block: ground.Block, planting: ground.Planting | None, errors: Mapping[str, str] | None = None) -> str:
    only(KEEPERS)
    return render_template(
        "planting.html",
        block=block,
        planting=planting,
        standing=grown.standing(block),
        sold_as=[("", say.line("nobody told")), *((str(sold), say.term(sold)) for sold in SoldAs)],
        worth=[("", say.line("nobody told")), *((str(value), say.line(value)) for value in Worth)],
        lots=[("", say.line("nowhere: it was bought, sown or planted here")), *_lots(block)],
        way=lots.way(db(), the_farm(), planting) if planting and (planting.passport or planting.supplier or planting.grown_from) else [],
        crops=g.catalogue.crops,
        crop_names=g.catalogue.crop_names,
        errors=forms.Errors(errors),
        form=request.form if errors else {},
    )


def _lots(block: ground.Block) -> list[tuple[str, str]]:
    """Plantings of other blocks that this one may have come from."""
    crops = g.catalogue.crops
    others = (row for row in lots.standing(db()) if row[2] != block.name)
    return [(str(planting), f"{crops[crop].name if crop in crops else crop}, {name}") for planting, crop, name in others]


@blueprint.get("/f/<uuid:farm>/farm/block/<uuid:block>/planting")
@on_farm
def new(block: uuid.UUID) -> str:
    return _page(ground.block(db(), block), None)


@blueprint.get("/f/<uuid:farm>/farm/planting/<uuid:planting>")
@on_farm
def edit(planting: uuid.UUID) -> str:
    row = grown.planting(db(), planting)
    return _page(ground.block(db(), row.block_id), row)


@blueprint.post("/f/<uuid:farm>/farm/block/<uuid:block>/planting")
@on_farm
def save(block: uuid.UUID) -> Response | tuple[str, int]:
    only(KEEPERS)
    where = ground.block(db(), block)
    try:
        crop = plants.crop_meant(request.form.get("crop", ""), g.catalogue)
        result = forms.send(plantings.SavePlanting, block_id=str(block), crop=crop)
    except Refused as error:
        record = forms.record_id()
        present = {row.id: row for row in grown.of_block(db(), block)}
        return _page(where, present.get(record) if record else None, error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this planting meanwhile: both versions are kept, and the Book shows them."), "warn")
    return redirect(url_for("farm.block", farm=the_farm().id, block=block))
