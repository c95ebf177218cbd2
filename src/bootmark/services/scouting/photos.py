"""Photographs at a stop or with an enquiry: re-encoded without camera data, their place kept only where it is wanted."""

import datetime as dt
import io
import uuid

from PIL import Image, ImageOps, UnidentifiedImageError
from PIL.ExifTags import GPS, IFD
from sqlalchemy.orm import Session

from bootmark.services.base.command import Refused
from bootmark.services.base.people import Member
from bootmark.store.models import Enquiry, Photo, Stop
from bootmark.store.rows import of_farm, row_of

MOST_BYTES_IN = 20_000_000
MOST_BYTES_KEPT = 500_000
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600
LATITUDE, LONGITUDE = (GPS.GPSLatitudeRef, GPS.GPSLatitude), (GPS.GPSLongitudeRef, GPS.GPSLongitude)


def place_of(picture: Image.Image) -> tuple[float, float] | None:
    """Latitude and longitude from a picture's EXIF, in degrees; None where it holds none that can be read."""
    told = picture.getexif().get_ifd(IFD.GPSInfo)

    def degrees(letter: int, parts: int) -> float:
        whole, minutes, seconds = (float(one) for one in told[parts])
        return (whole + minutes / 60 + seconds / 3600) * (-1 if told[letter] in ("S", "W") else 1)

    try:
        return degrees(*LATITUDE), degrees(*LONGITUDE)
    except (KeyError, TypeError, ValueError, ZeroDivisionError):
        return None


def shrink(content: bytes) -> tuple[bytes, int, int, tuple[float, float] | None]:
    """A JPEG of at most 500 KB without metadata, its width and height, and the place that its EXIF told. Raises Refused."""
    if len(content) > MOST_BYTES_IN:
        raise Refused(photo=f"The picture has {len(content) // 1_000_000} MB and 20 MB is the most: take a smaller one.")
    try:
        with Image.open(io.BytesIO(content), formats=("JPEG", "PNG", "WEBP")) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise Refused(photo=f"The picture is {opened.width} by {opened.height} points: take a smaller one.")
            place = place_of(opened)
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
    return kept.getvalue(), picture.width, picture.height, place


def attach(
    session: Session,
    member: Member,
    photo_id: uuid.UUID,
    content: bytes,
    seen_at: dt.datetime,
    *,
    stop: uuid.UUID | None = None,
    enquiry: uuid.UUID | None = None,
    keep_place: bool = False,
) -> uuid.UUID:
    """Keep a photograph at a stop or with an enquiry of the member's farm; the same id sent twice is stored once."""
    if stop and session.get(Stop, (member.farm_id, stop)) is None:
        raise Refused(stop="That stop is not known here.")
    if enquiry and session.get(Enquiry, (member.farm_id, enquiry)) is None:
        raise Refused(enquiry="That enquiry is not known here.")
    if session.get(Photo, (member.farm_id, photo_id)) is None:
        kept, width, height, place = shrink(content)
        latitude, longitude = place if place and keep_place else (None, None)
        session.add(
            Photo(
                farm_id=member.farm_id,
                id=photo_id,
                stop_id=stop,
                enquiry_id=enquiry,
                account_id=member.account_id,
                seen_at=seen_at,
                width=width,
                height=height,
                latitude=latitude,
                longitude=longitude,
                content=kept,
            )
        )
    return photo_id


def content(session: Session, photo_id: uuid.UUID) -> bytes:
    """A photograph's JPEG. Raises NotHere."""
    return row_of(session, Photo, photo_id).content


def of_stop(session: Session, stop_id: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(of_farm(Photo, Photo.id).where(Photo.stop_id == stop_id).order_by(Photo.seen_at)))


def of_enquiry(session: Session, enquiry_id: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(of_farm(Photo, Photo.id).where(Photo.enquiry_id == enquiry_id).order_by(Photo.seen_at)))
