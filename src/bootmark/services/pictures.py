"""A picture of the farm laid under its plan."""

import datetime as dt
import hashlib
import uuid
from typing import Annotated

from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.ground import laid
from bootmark.core.ground.laid import LaidFault, Matrix
from bootmark.services.base import ground
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Flag, RecordId
from bootmark.services.base.handling import DERIVED, Context, handles
from bootmark.services.base.people import Member
from bootmark.services.base.points import Marks, Points
from bootmark.services.base.roles import KEEPERS
from bootmark.services.scouting.photos import shrink
from bootmark.store.models import Farm, PlanImage, PlanPicture
from bootmark.store.rows import of_farm, row_of

SENTENCES = {
    LaidFault.COUNT: "Mark two or three spots on the picture, and the same ones on the plan in the same order.",
    LaidFault.NEAR: "Two of the spots lie too near each other: mark spots that lie far apart, as corners of the farm.",
    LaidFault.LINE: "The three spots lie on one line: move one of them aside.",
    LaidFault.MIRRORED: "The picture would lie mirrored: the spots on the plan are in another order than those on the picture.",
    LaidFault.STRETCHED: "The picture would be stretched out of all shape: is one of the spots another on the plan?",
}


class LayPicture(Command, kind="picture.lay", roles=KEEPERS):
    """Lay a picture under the plan by two or three of its spots, marks in pixels right and down; ended: it is taken away."""

    image_id: Annotated[uuid.UUID, RecordId("picture")]
    marks: Annotated[list[list[float]], Marks()]
    points: Annotated[list[list[float]], Points()]
    ended: Annotated[bool, Flag()] = False


@handles(LayPicture, PlanPicture)
def store_picture(command: LayPicture, context: Context) -> PlanPicture:
    image: PlanImage = context.get(PlanImage, command.image_id, "image_id")
    lies = laid.matrix(_pairs(command.marks), ground.origin(context.farm).to_plan(command.points), image.width)
    if isinstance(lies, LaidFault):
        context.errors["points"] = say.line(SENTENCES[lies])
    return PlanPicture(**command.model_dump())


def _pairs(points: list[list[float]]) -> list[tuple[float, float]]:
    return [(x, y) for x, y in points]


def take_in(session: Session, member: Member, content: bytes, real_now: dt.datetime) -> uuid.UUID:
    """Keep a picture's bytes, small and without what the camera wrote; the same bytes twice are stored once. Raises Refused."""
    image_id = uuid.uuid5(DERIVED, f"plan/{hashlib.sha256(content).hexdigest()}")
    if session.get(PlanImage, (member.farm_id, image_id)) is None:
        kept, width, height, _ = shrink(content)
        row = {"farm_id": member.farm_id, "id": image_id, "account_id": member.account_id, "received_at": real_now}
        row |= {"width": width, "height": height, "content": kept}
        session.execute(insert(PlanImage).values(row).on_conflict_do_nothing())
    return image_id


def image(session: Session, image_id: uuid.UUID) -> PlanImage:
    """A picture's bytes with its size. Raises NotHere."""
    return row_of(session, PlanImage, image_id)


def newest(session: Session) -> PlanPicture | None:
    """The picture that lies under the plan."""
    rows = of_farm(PlanPicture).where(PlanPicture.ended.is_(False)).order_by(PlanPicture.seen_at.desc(), PlanPicture.id).limit(1)
    return session.scalars(rows).first()


def lies(session: Session, farm: Farm) -> tuple[PlanImage, Matrix] | None:
    """The picture under the plan with how it lies there; None where there is none."""
    picture = newest(session)
    if picture is None:
        return None
    own = image(session, picture.image_id)
    how = laid.matrix(_pairs(picture.marks), ground.origin(farm).to_plan(picture.points), own.width)
    return None if isinstance(how, LaidFault) else (own, how)
