"""Photographs at a stop: re-encoded, without place or camera data, small enough to keep beside the record."""

import datetime as dt
import io
import uuid

from PIL import Image, ImageOps, UnidentifiedImageError
from sqlalchemy.orm import Session

from bootmark.services.commands import Refused
from bootmark.services.people import Member
from bootmark.store.models import Photo, Stop

MOST_BYTES_IN = 20_000_000
MOST_BYTES_KEPT = 500_000
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600


def shrink(content: bytes) -> tuple[bytes, int, int]:
    """A JPEG of at most 500 KB without metadata, with its width and height. Raises Refused."""
    if len(content) > MOST_BYTES_IN:
        raise Refused(photo=f"The picture has {len(content) // 1_000_000} MB and 20 MB is the most: take a smaller one.")
    try:
        with Image.open(io.BytesIO(content), formats=("JPEG", "PNG", "WEBP")) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise Refused(photo=f"The picture is {opened.width} by {opened.height} points: take a smaller one.")
            picture = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError) as error:
        raise Refused(photo="This is not a picture that can be read: send a JPEG, PNG or WebP.") from error
    picture.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    for quality in (82, 70, 55, 40, 25):
        kept = io.BytesIO()
        # A new image is saved, not the opened one, so that no metadata travels with it.
        picture.save(kept, "JPEG", quality=quality, optimize=True)
        if kept.tell() <= MOST_BYTES_KEPT:
            break
    return kept.getvalue(), picture.width, picture.height


def attach(session: Session, member: Member, stop_id: uuid.UUID, photo_id: uuid.UUID, content: bytes, seen_at: dt.datetime) -> uuid.UUID:
    """Keep a photograph at a stop of the member's farm; the same id sent twice is stored once."""
    if session.get(Stop, (member.farm_id, stop_id)) is None:
        raise Refused(stop="That stop is not known here.")
    if session.get(Photo, (member.farm_id, photo_id)) is None:
        kept, width, height = shrink(content)
        session.add(
            Photo(
                farm_id=member.farm_id,
                id=photo_id,
                stop_id=stop_id,
                account_id=member.account_id,
                seen_at=seen_at,
                width=width,
                height=height,
                content=kept,
            )
        )
    return photo_id
