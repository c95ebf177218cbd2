"""Outlines: blocks brought in from a file, after a look at what was understood; and the farm's own as a file."""

import json
import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, flash, g, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.catalogue import plants
from bootmark.core.catalogue.model import PLACES
from bootmark.core.ground import outline, plane
from bootmark.drawing.plan import Shape, plan_svg
from bootmark.formats.outlines import to_geojson
from bootmark.services import outlines, places
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.base.roles import KEEPERS
from bootmark.services.outlines import Brought
from bootmark.web import forms
from bootmark.web.guard import at_most, db, on_farm, only, the_farm
from bootmark.web.plan import shapes

blueprint = Blueprint("outlines", __name__, template_folder=".")
MOST_ROWS = 300


@dataclass(frozen=True)
class Row:
    """An outline with what is typed of it. number: its place; errors: field to sentence."""

    number: int
    outline: Brought
    name: str
    crop: str
    place: str
    taken: bool
    errors: forms.Errors


def _page(rows: Sequence[Row] = (), errors: Mapping[str, str] | None = None, command: str = "") -> str:
    farm, blocks = the_farm(), ground.blocks(db())
    origin = ground.origin(farm)
    fresh: tuple[Shape, ...] = tuple(
        (f"n{row.number}", row.name, row.place, origin.to_plan(row.outline.corners), None) for row in rows if row.outline.corners
    )
    marks = {block_id: "must" for block_id, *_ in fresh}
    return render_template(
        "outlines.html",
        rows=rows,
        plan=plan_svg((*shapes(farm, blocks), *fresh), marks=marks) if fresh else "",
        errors=forms.Errors(errors),
        crop_names=g.catalogue.crop_names,
        places=[(place, place) for place in PLACES],
        command=command or str(uuid.uuid4()),
        drawn=any(ground.drawable(block) for block in blocks),
    )


@blueprint.get("/f/<uuid:farm>/farm/outlines")
@on_farm
def page() -> str:
    only(KEEPERS)
    return _page()


@blueprint.post("/f/<uuid:farm>/farm/outlines/read")
@on_farm
@at_most(20)
def read() -> str | tuple[str, int]:
    """What a file holds, as it would be kept; nothing is kept yet."""
    only(KEEPERS)
    sent = request.files.get("file")
    try:
        if sent is None or not sent.filename:
            raise Refused(file=say.line("No file was chosen: choose a GeoJSON, a KML or a CSV of corners."))
        brought = outlines.read(sent.read(), [block.name for block in ground.blocks(db())])
    except Refused as error:
        return _page(errors=error.errors), 400
    return _page([Row(number, entry, entry.name, "", "field", not entry.wrong, forms.Errors()) for number, entry in enumerate(brought)])


@blueprint.post("/f/<uuid:farm>/farm/outlines")
@on_farm
def keep() -> AnyResponse | tuple[str, int]:
    """Keep the outlines that are ticked as blocks: all of them, or none where something is wrong."""
    only(KEEPERS)
    rows = [_posted(number) for number in range(MOST_ROWS) if f"corners.{number}" in request.form]
    chosen = [row for row in rows if row.taken]
    command = request.form.get("command_id", "")
    kept, failed = 0, {}
    for row in chosen:
        try:
            _keep(row, command)
            kept += 1
        except Refused as error:
            failed[row.number] = error.errors
    if failed or not chosen:
        shown = [row if row.number not in failed else _with(row, failed[row.number]) for row in rows]
        return _page(shown, {} if chosen else {"rows": say.line("Nothing is ticked: tick what is to be kept.")}, command), 400
    flash(say.many("{of} block is kept.", "{of} blocks are kept.", kept), "good")
    return redirect(url_for("farm.page", farm=the_farm().id))


def _posted(number: int) -> Row:
    def typed(name: str) -> str:
        return request.form.get(f"{name}.{number}", "")

    try:
        corners = tuple((float(east), float(north)) for east, north in json.loads(typed("corners")))
    except (ValueError, TypeError):
        corners = ()
    # The page sends back what it was given: what can't be a block's outline now was changed on the way, and is not drawn.
    if outline.fault(corners):
        corners = ()
    entry = Brought(typed("name"), corners, plane.area(corners) if corners else 0.0, read=len(corners))
    return Row(number, entry, typed("name"), typed("crop"), typed("place"), bool(typed("take")), forms.Errors())


def _with(row: Row, errors: Mapping[str, str]) -> Row:
    return Row(row.number, row.outline, row.name, row.crop, row.place, row.taken, forms.Errors(errors))


def _keep(row: Row, command: str) -> None:
    """One of them as a block: the same press sent again keeps the same block."""
    made = forms.ids_of(command, row.number)
    payload = {
        "name": row.name,
        "crop": plants.crop_meant(row.crop, g.catalogue),
        "place": row.place,
        "outline": [list(corner) for corner in row.outline.corners],
        "cultivar": "",
    }
    forms.send_with(places.SaveBlock.spec.kind, payload, *made)


@blueprint.get("/f/<uuid:farm>/farm/blocks.geojson")
@on_farm
def export() -> Response:
    rows: list[tuple[str, dict[str, Any], list[Any]]] = [
        (block.name, {"crop": block.crop, "cultivar": block.cultivar, "place": block.place, "hectares": block.area}, block.outline)
        for block in ground.blocks(db())
        if ground.drawable(block) or not block.outline
    ]
    answer = Response(to_geojson(rows), mimetype="application/geo+json")
    answer.headers["Content-Disposition"] = "attachment; filename=blocks.geojson"
    return answer
