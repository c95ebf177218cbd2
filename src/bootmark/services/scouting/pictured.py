"""What the pictures of a stop or a treatment were measured to say, and the same drawn over them."""

import io
import uuid
from dataclasses import dataclass
from typing import Any

import numpy as np
from PIL import Image
from sqlalchemy import Select
from sqlalchemy.orm import Session, defer

from bootmark.core.meanings import Pictured, Refusal
from bootmark.core.photo import leaf, light
from bootmark.core.photo.leaf import Leaves
from bootmark.services.base import memo
from bootmark.services.base.handling import Json
from bootmark.services.scouting import measuring, photos
from bootmark.services.scouting.measuring import Asked, Outline
from bootmark.store.models import Photo
from bootmark.store.rows import of_farm, row_of

LOST, ODD = np.array([176, 58, 32]), np.array([214, 150, 20])
"""Rust for what is gone, ochre for what is discoloured."""
_kept: memo.Kept[Leaves | Refusal] = memo.Kept(64)


@dataclass(frozen=True)
class Said:
    """What one picture says. answer: as it was kept; why: why it says nothing, None where it says something."""

    photo: uuid.UUID
    asked: Asked
    answer: Json
    why: Refusal | None
    width: int
    height: int


def of_leaves(session: Session, photo: uuid.UUID, outline: Outline = ()) -> Json | Refusal:
    """What a photograph of leaves says, as it was kept, or why it says nothing. outline: the whole leaf as somebody drew it: it is measured
    anew within that, as is a picture of before 0.11. Raises NotHere."""
    row = row_of(session, Photo, photo)
    if outline or row.measured is None:
        measured = _leaves(session, photo, outline)
        return measured if isinstance(measured, Refusal) else measuring.of_leaves(measured)
    said = _said(row)
    return said.why or said.answer


def _leaves(session: Session, photo: uuid.UUID, outline: Outline) -> Leaves | Refusal:
    """The same with its masks, measured once."""
    content, key = photos.content(session, photo), (session.info["farm"], photo, outline)
    before = _kept.get(key)
    return before if before is not None else _kept.put(key, measuring.leaves(content, outline))


def _said(photo: Photo) -> Said:
    assert photo.asked is not None and photo.measured is not None
    why = photo.measured.get("refused")
    return Said(photo.id, Asked.kept(photo.asked), photo.measured, Refusal(why) if why else None, photo.width, photo.height)


def _without_content() -> Select[Any]:
    """Photographs as rows alone: their pictures are shown from an address of their own."""
    return of_farm(Photo).options(defer(Photo.content))


def of_stop(session: Session, stop_id: uuid.UUID, of: Pictured) -> list[Said]:
    """The measured pictures of one kind at a stop, the newest first; of two of one paper the second."""
    rows = _without_content().where(Photo.stop_id == stop_id, Photo.asked["of"].astext == of)
    rows = rows.order_by(Photo.seen_at.desc(), Photo.asked["second"].astext.desc(), Photo.id)
    return [_said(photo) for photo in session.scalars(rows)]


def of_treatment(session: Session, treatment_id: uuid.UUID) -> list[Said]:
    """The cards with drops of a treatment, as they were taken."""
    rows = _without_content().where(Photo.treatment_id == treatment_id, Photo.asked.is_not(None)).order_by(Photo.seen_at, Photo.id)
    return [_said(photo) for photo in session.scalars(rows)]


def drawn_over(session: Session, photo: uuid.UUID, outline: Outline = ()) -> bytes:
    """A photograph of leaves with what was measured laid over it, as a JPEG; as it is where nothing was. Raises NotHere."""
    content = photos.content(session, photo)
    measured = _leaves(session, photo, outline)
    picture = light.fitted(measuring.read(content), leaf.LONGEST).copy()
    for each in measured.leaves if isinstance(measured, Leaves) else ():
        top, left, bottom, right = each.box
        part = picture[top:bottom, left:right]
        for mask, colour in ((each.whole & ~each.left, LOST), (each.odd, ODD)):
            part[mask] = (0.35 * part[mask] + 0.65 * colour).astype(np.uint8)
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "JPEG", quality=88)
    return out.getvalue()
