"""A block cut in two, or two made one."""

import uuid
from collections.abc import Mapping

from flask import Blueprint, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.meanings import Form
from bootmark.services import parts
from bootmark.services.base import ground
from bootmark.services.base.command import Answer, Refused
from bootmark.services.base.roles import KEEPERS
from bootmark.web import forms
from bootmark.web.guard import db, on_farm, only, the_farm
from bootmark.web.plan import board_of, in_degrees, posted

blueprint = Blueprint("parts", __name__, template_folder=".")


def _page(block: ground.Block, errors: Mapping[str, str] | None = None, joining: Mapping[str, str] | None = None) -> str:
    only(KEEPERS)
    shown = request.form if errors else {}
    others = [row for row in ground.blocks(db()) if row.id != block.id and row.place == block.place]
    return render_template(
        "parts_of_block.html",
        block=block,
        board=board_of(
            the_farm(),
            ground.blocks(db()),
            posted(the_farm(), shown.get("outline"), []),
            form=Form.LINE,
            focus=ground.on_plan(the_farm(), block),
        ),
        others=[(str(row.id), row.name) for row in others],
        errors=forms.Errors(errors),
        joining=forms.Errors(joining),
        form=shown,
        join_form=request.form if joining else {},
    )


@blueprint.get("/f/<uuid:farm>/farm/block/<uuid:block>/parts")
@on_farm
def page(block: uuid.UUID) -> str:
    return _page(ground.block(db(), block))


@blueprint.post("/f/<uuid:farm>/farm/block/<uuid:block>/divide")
@on_farm
def divide(block: uuid.UUID) -> Response | tuple[str, int]:
    only(KEEPERS)
    where = ground.block(db(), block)
    try:
        result = forms.send(parts.DivideBlock, block_id=str(block), line=in_degrees(the_farm(), request.form.get("outline")))
    except Refused as error:
        return _page(where, error.errors), 400
    piece = ground.block(db(), uuid.UUID(result["record_id"]))
    flash(
        say.line(
            "{piece} is a block of its own. Intervals, holds and a season's uses go with the ground; what is planned and booked stays with "
            "{block}.",
            piece=piece.name,
            block=where.name,
        ),
        "good",
    )
    return redirect(url_for("farm.block", farm=the_farm().id, block=piece.id))


@blueprint.post("/f/<uuid:farm>/farm/block/<uuid:block>/join")
@on_farm
def join(block: uuid.UUID) -> Response | tuple[str, int]:
    only(KEEPERS)
    where = ground.block(db(), block)
    try:
        result = forms.send(parts.JoinBlocks)
    except Refused as error:
        return _page(where, joining=error.errors), 400
    if result["status"] == Answer.CONFLICT:
        flash(say.line("Somebody else changed this block meanwhile: nothing was joined. Look at it, then join again."), "warn")
        return redirect(url_for("parts.page", farm=the_farm().id, block=block))
    flash(say.line("One block now: what was planned, booked and hung on the other went over to {block}.", block=where.name), "good")
    return redirect(url_for("farm.block", farm=the_farm().id, block=block))
