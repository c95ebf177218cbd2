"""Farm: what is grown, who works here, where the weather comes from."""

import json
import uuid
from typing import Any

from flask import Blueprint, abort, flash, g, redirect, render_template, request, url_for
from sqlalchemy import select
from werkzeug.wrappers import Response

from bootmark.core.catalogue import bbch
from bootmark.core.field import soybean
from bootmark.services import calls, crop_stages, people, places, rounds
from bootmark.services.commands import Refused
from bootmark.services.field import SCOUTS
from bootmark.store.models import Block, Station
from bootmark.web import forms
from bootmark.web.drawing.plan import plan_svg
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("farm", __name__, template_folder=".")
EMPTY_CORNER = [[0, 320], [60, 320], [60, 360], [0, 360]]


def stations() -> list[Station]:
    return list(db().scalars(select(Station).where(Station.farm_id == the_farm().id).order_by(Station.name)))


@blueprint.get("/f/<uuid:farm>/farm")
@on_farm
def page() -> str:
    farm = the_farm()
    blocks = rounds.blocks_of(db(), farm)
    keeper = member().role in places.KEEPERS
    links = {str(block.id): url_for("farm.block", farm=farm.id, block=block.id) for block in blocks} if keeper else {}
    plan = plan_svg([(str(block.id), block.name, block.place, block.outline) for block in blocks], links=links)
    return render_template(
        "farm.html",
        blocks=blocks,
        plan=plan,
        stations=stations(),
        crops=g.known.crops,
        people=people.members(db()),
        policy=calls.policy_of(farm),
        keeper=keeper,
    )


def _form(block: Block | None, errors: dict[str, str] | None = None, stage_errors: dict[str, str] | None = None) -> str:
    outline = block.outline if block else EMPTY_CORNER
    shown = request.form if errors else {}
    return render_template(
        "block.html",
        block=block,
        errors=errors or {},
        stage_errors=stage_errors or {},
        form=shown,
        stage_form=request.form if stage_errors else {},
        outline=json.dumps(outline),
        crop_names=g.known.crop_names,
        crops=g.known.crops,
        places=[(one, one) for one in places.PLACES],
        stations=[("", "none"), *((str(one.id), one.name) for one in stations())],
        **(_crop_stages(block) if block else {}),
    )


def _crop_stages(block: Block) -> dict[str, Any]:
    """The crop's stages as noted, its scale, and for a soybean the days of its next nodes."""
    rows = crop_stages.rows(db(), the_farm(), block)
    scale = bbch.scale_of(block.crop)
    return {
        "noted": [(row, scale.name(row.code)) for row in reversed(rows)][:10],
        "steps": [(code, f"{code:02} {name}") for code, name in scale.steps.items()],
        "own_scale": scale.own,
        "soy": block.crop == crop_stages.SOYBEAN,
        "ways": [(soybean.PUBLISHED, "from the unifoliate leaves, as published"), (soybean.FROM_SCARS, "from the cotyledon scars")],
        "nodes": crop_stages.next_nodes(rows),
        "scout": member().role in SCOUTS,
        "today": now().date(),
    }


@blueprint.post("/f/<uuid:farm>/farm/block/<uuid:block>/stage")
@on_farm
def crop_stage(block: uuid.UUID) -> Response | tuple[str, int]:
    found = db().get(Block, (the_farm().id, block))
    if found is None:
        abort(404)
    payload = {name: request.form.get(name, "") for name in ("on", "code", "note", "node", "counted")}
    try:
        forms.send("crop.stage", {**payload, "block_id": str(block)})
    except Refused as error:
        return _form(found, stage_errors=error.errors), 400
    return redirect(url_for("farm.block", farm=the_farm().id, block=block, _anchor="stage"))


@blueprint.get("/f/<uuid:farm>/farm/block/new")
@on_farm
def new_block() -> str:
    return _form(None)


@blueprint.get("/f/<uuid:farm>/farm/block/<uuid:block>")
@on_farm
def block(block: uuid.UUID) -> str:
    found = db().get(Block, (the_farm().id, block))
    if found is None:
        abort(404)
    return _form(found)


@blueprint.post("/f/<uuid:farm>/farm/block")
@on_farm
def save_block() -> Response | tuple[str, int]:
    payload = {
        name: request.form.get(name, "")
        for name in ("name", "crop", "place", "cultivar", "area", "harvest_from", "station_id", "weather", "elevation")
    }
    payload["crop"] = g.known.crop_meant(payload["crop"])
    record = request.form.get("record_id", "")
    try:
        try:
            outline = json.loads(request.form.get("outline", ""))
        except ValueError as error:
            raise Refused(outline="Corners are written as [[x, y], [x, y], [x, y]] in metres.") from error
        name_taken = db().scalars(select(Block.id).where(Block.farm_id == the_farm().id, Block.name == payload["name"].strip())).first()
        if name_taken and str(name_taken) != record:
            raise Refused(name=f"There is a block called {payload['name'].strip()} already: choose another name.")
        result = forms.send("block.save", {**payload, "outline": outline})
    except Refused as error:
        found = db().get(Block, (the_farm().id, uuid.UUID(record))) if record else None
        return _form(found, error.errors), 400
    if result["status"] == "conflict":
        flash("Somebody else changed this block meanwhile: both versions are kept, and the Book shows them.", "warn")
    return redirect(url_for("farm.page", farm=the_farm().id))
