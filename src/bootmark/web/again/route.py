"""Again: one thing on two dates."""

import uuid

from flask import Blueprint, render_template, request

from bootmark.services.base import ground
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import stops, tagged
from bootmark.services.scouting.tagged import Taken
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("again", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/again/<uuid:block>")
@on_farm
def page(block: uuid.UUID) -> str:
    here, tags = ground.block(db(), block), tagged.tags(db(), block)
    tag = request.args.get("tag", "")[: tagged.MOST_TAG].strip() or (tags[0].name if tags else "")
    pictures = tagged.of_tag(db(), the_farm(), block, tag) if tag else []
    after = _chosen(pictures, "after") or (pictures[-1] if pictures else None)
    before = _chosen(pictures, "before") or _before(pictures, after)
    stop = stops.newest(db(), member().account_id, now().date())
    return render_template(
        "again.html",
        here=here,
        tags=tags,
        tag=tag,
        pictures=pictures,
        before=before,
        after=after,
        year_before=tagged.a_year_before(pictures, after.on) if after else None,
        stop=stop if stop and stop.block_id == block and member().role in SCOUTS else None,
    )


def _chosen(pictures: list[Taken], name: str) -> Taken | None:
    """The picture that the address names."""
    return next((picture for picture in pictures if str(picture.photo) == request.args.get(name)), None)


def _before(pictures: list[Taken], after: Taken | None) -> Taken | None:
    """The picture before another one."""
    place = pictures.index(after) if after else 0
    return pictures[place - 1] if place else None
