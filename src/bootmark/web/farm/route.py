"""Farm: what is grown, who works here, where the weather comes from."""

import uuid
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.catalogue import bbch, plants
from bootmark.core.catalogue.model import PLACES
from bootmark.core.field import soybean
from bootmark.core.field.schools import School
from bootmark.core.ground import strips
from bootmark.core.meanings import FeatureKind
from bootmark.drawing.plan import plan_svg
from bootmark.say.schools import SCHOOLS
from bootmark.services import places
from bootmark.services.base import ground, grown, people
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import KEEPERS, SCOUTS, Role
from bootmark.services.owning import lands, missing
from bootmark.services.owning.missing import Gap
from bootmark.services.scouting import picking
from bootmark.services.seasons import crop_stages
from bootmark.services.treatment import weighing
from bootmark.web import forms
from bootmark.web.guard import db, member, now, on_farm, only, the_farm
from bootmark.web.plan import board_of, in_degrees, posted, shapes, things, under

blueprint = Blueprint("farm", __name__, template_folder=".")
SAYS_OF = {
    Gap.REGION: ("The country", "Until it is told, nobody knows which pests must be reported here.", "settings.page"),
    Gap.SCHOOL: (
        "How pests are controlled",
        "Until a school is chosen, every kind of control is offered, the gentlest first.",
        "settings.page",
    ),
    Gap.BLOCK: ("A block", "Without one there is nothing to walk.", "farm.new_block"),
    Gap.STATION: ("A weather station", "Without one no stage and no spray hour is told.", "station.new"),
    Gap.READINGS: ("Readings", "A station without weather tells no stage: fill it from a file, or let it send.", "station.page"),
    Gap.HARVEST: ("The next picking", "Where it is not known, nothing that has an interval before harvest is offered.", "farm.block"),
    Gap.SIGNER: ("A certificate", "Nobody can sign for a material that takes a qualified applicator.", "people.page"),
}
"""Of each gap: what is missing, what that keeps from working, and the screen that mends it."""


@blueprint.get("/f/<uuid:farm>/farm")
@on_farm
def page() -> str:
    farm = the_farm()
    blocks = ground.blocks(db())
    keeper = member().role in KEEPERS
    links = {str(block.id): url_for("farm.block", farm=farm.id, block=block.id) for block in blocks} if keeper else {}
    plan = plan_svg(shapes(farm, blocks), links=links, things=things(farm, ground.features(db())), under=under(farm))
    colleagues = people.members(db())
    return render_template(
        "farm.html",
        blocks=blocks,
        ended=[block for block in ground.all_blocks(db()) if block.ended],
        standing={block.id: grown.standing(block) for block in blocks},
        plan=plan,
        stations=ground.stations(db()),
        crops=g.catalogue.crops,
        features=ground.features(db()),
        gone=[feature for feature in ground.all_features(db()) if feature.ended],
        feature_word=lambda row: say.term(FeatureKind(row.kind)),
        people=colleagues,
        policy=weighing.policy_of(farm),
        region=lands.named(farm.region),
        school=SCHOOLS[School(farm.school)][0] if farm.school else "",
        missing=[_gap(row) for row in missing.gaps(db(), farm, g.catalogue, colleagues, now().date())] if keeper else [],
        no_picking=picking.blocks(db(), farm, g.catalogue, now().date()),
        keeper=keeper,
    )


def _gap(row: missing.Missing) -> tuple[str, str, str, int]:
    """A gap's title, why it matters, where it is mended (empty where this member can't), and how many blocks it concerns."""
    title, why, view = SAYS_OF[row.gap]
    if view == "settings.page" and member().role != Role.OWNER:
        return title, why, "", row.blocks
    record: dict[str, Any] = {view.rpartition(".")[0].replace("farm", "block"): row.record} if row.record else {}
    return title, why, url_for(view, farm=the_farm().id, **record), row.blocks


def _form(block: ground.Block | None, errors: Mapping[str, str] | None = None, stage_errors: Mapping[str, str] | None = None) -> str:
    drawn = [list(corner) for corner in ground.on_plan(the_farm(), block)] if block else []
    shown = request.form if errors else {}
    return render_template(
        "block.html",
        block=block,
        keeper=member().role in KEEPERS,
        errors=forms.Errors(errors),
        stage_errors=forms.Errors(stage_errors),
        form=shown,
        stage_form=request.form if stage_errors else {},
        board=board_of(the_farm(), ground.blocks(db()), posted(the_farm(), shown.get("outline"), drawn), block.id if block else None),
        crop_names=g.catalogue.crop_names,
        crops=g.catalogue.crops,
        places=[(place, place) for place in PLACES],
        stations=[("", "none"), *((str(station.id), station.name) for station in ground.stations(db()))],
        **(_grown(block) if block else {}),
    )


def _grown(block: ground.Block) -> dict[str, Any]:
    """What grows on a block and grew there before; the stages of what the address asks for, or of what mainly stands there."""
    standing = [planting.id for planting in grown.standing(block)]
    asked = request.values.get("planting_id") or request.args.get("planting", "")
    own = next((planting for planting in standing if str(planting) == asked), None)
    names = {str(row.id): row.name for row in ground.all_blocks(db())}
    earlier = [span.block for span in strips.spans(ground.strips_of(block)) if span.block != str(block.id)]
    planted = grown.as_planting(block, own or (standing[0] if standing else None))
    return {
        "plantings": sorted(grown.of_block(db(), block.id), key=lambda row: row.id not in standing),
        "standing": standing,
        "bare": grown.is_bare(block),
        "before": [names[name] for name in dict.fromkeys(earlier) if name in names],
        "planted": planted,
        "of_planting": grown.standing(planted)[0].id if standing else None,
        **_crop_stages(planted),
    }


def _crop_stages(block: ground.Block) -> dict[str, Any]:
    """The crop's stages as noted, its scale, and for a soybean the days of its next nodes."""
    rows = crop_stages.rows(db(), block)
    scale, today = bbch.scale_of(block.crop), now().date()
    coming = [stage for stage in crop_stages.foretold(db(), the_farm(), block, today) if (stage.p90 or today) >= today and stage.p10]
    return {
        "noted": [(row, scale.name(row.code)) for row in reversed(rows)][:10],
        "steps": [(code, f"{code:02} {name}") for code, name in scale.steps.items()],
        "own_scale": scale.own,
        "soy": block.crop == crop_stages.SOYBEAN,
        "ways": [
            (soybean.PUBLISHED, say.line("from the unifoliate leaves, as published")),
            (soybean.FROM_SCARS, say.line("from the cotyledon scars")),
        ],
        "nodes": crop_stages.next_nodes(rows),
        "coming": [(scale.name(stage.code), stage) for stage in coming],
        "scout": member().role in SCOUTS,
        "today": today,
    }


@blueprint.post("/f/<uuid:farm>/farm/block/<uuid:block>/stage")
@on_farm
def crop_stage(block: uuid.UUID) -> Response | tuple[str, int]:
    where = ground.block(db(), block)
    try:
        result = forms.send(crop_stages.NoteCropStage, block_id=str(block))
    except Refused as error:
        return _form(where, stage_errors=error.errors), 400
    forms.flash_kept(say.line("The crop's stage is kept."), result)
    return redirect(url_for("farm.block", farm=the_farm().id, block=block, _anchor="stage"))


@blueprint.get("/f/<uuid:farm>/farm/block/new")
@on_farm
def new_block() -> str:
    only(KEEPERS)
    return _form(None)


@blueprint.get("/f/<uuid:farm>/farm/block/<uuid:block>")
@on_farm
def block(block: uuid.UUID) -> str:
    return _form(ground.block(db(), block))


@blueprint.post("/f/<uuid:farm>/farm/block")
@on_farm
def save_block() -> Response | tuple[str, int]:
    only(KEEPERS)
    outline = in_degrees(the_farm(), request.form.get("outline"))
    try:
        crop = plants.crop_meant(request.form["crop"], g.catalogue) if request.form.get("crop") else None
        result = forms.send(places.SaveBlock, outline=outline, crop=crop)
    except Refused as error:
        record = forms.record_id()
        known_blocks = {block.id: block for block in ground.all_blocks(db())}
        return _form(known_blocks.get(record) if record else None, error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this block meanwhile: both versions are kept, and the Book shows them."), "warn")
    return redirect(url_for("farm.page", farm=the_farm().id))
