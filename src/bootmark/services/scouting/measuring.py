"""Photographs that measure: what a kept picture of leaves says, and the same drawn over it."""

import io
import threading
import uuid

import numpy as np
from PIL import Image
from sqlalchemy.orm import Session

from bootmark.core.meanings import Refusal
from bootmark.core.photo import leaf, light
from bootmark.core.photo.leaf import Leaves
from bootmark.core.photo.light import Picture, Unreadable
from bootmark.services.base import memo
from bootmark.services.scouting import photos

__all__ = ["Leaves", "Refusal", "drawn_over", "leaves"]

LOST, ODD = np.array([176, 58, 32]), np.array([214, 150, 20])
"""Rust for what is gone, ochre for what is discoloured."""
_kept: memo.Kept[Leaves | Refusal] = memo.Kept(64)
_turn = threading.Lock()


def leaves(session: Session, photo: uuid.UUID) -> Leaves | Refusal:
    """What a photograph of leaves says, or why it says nothing; measured once. Raises NotHere."""
    content = photos.content(session, photo)
    before = _kept.get((session.info["farm"], photo))
    return before if before is not None else _kept.put((session.info["farm"], photo), _measured(content))


def _read(content: bytes) -> Picture:
    return np.asarray(Image.open(io.BytesIO(content), formats=("JPEG",)).convert("RGB"))


def _measured(content: bytes) -> Leaves | Refusal:
    # One at a time: a picture takes a core for half a second.
    with _turn:
        try:
            return leaf.measure(_read(content))
        except Unreadable as error:
            return error.why


def drawn_over(session: Session, photo: uuid.UUID) -> bytes:
    """A photograph with what was measured laid over it, as a JPEG; as it is where nothing was. Raises NotHere."""
    content = photos.content(session, photo)
    measured = leaves(session, photo)
    picture = light.fitted(_read(content), leaf.LONGEST).copy()
    for each in measured.leaves if isinstance(measured, Leaves) else ():
        top, left, bottom, right = each.box
        part = picture[top:bottom, left:right]
        for mask, colour in ((each.whole & ~each.left, LOST), (each.odd, ODD)):
            part[mask] = (0.35 * part[mask] + 0.65 * colour).astype(np.uint8)
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "JPEG", quality=88)
    return out.getvalue()
