"""Photographs at a stop or with an enquiry: re-encoded without camera data, their place kept only where it is wanted.

A picture is refused by its size in points before it is decoded, and one is decoded at a time: a small file may unfold to much.
"""

import datetime as dt
import hashlib
import io
import struct
import threading
import uuid

from PIL import Image, ImageOps
from PIL.ExifTags import GPS, IFD
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.meanings import Pictured
from bootmark.core.photo.sheet import ROUND
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import DERIVED, Json, as_json
from bootmark.services.base.people import Member
from bootmark.services.scouting import measuring
from bootmark.services.scouting.measuring import Asked
from bootmark.store.models import Enquiry, Photo, Stop, TreatmentRow
from bootmark.store.rows import of_farm, row_of

MOST_BYTES_IN = 20_000_000
MOST_BYTES_KEPT = 500_000
MOST_POINTS = {"JPEG": 120_000_000, "PNG": 25_000_000, "WEBP": 25_000_000}
"""Of a picture, by its format: a JPEG is decoded at a part of its size, the others whole."""
# The library's own guard only warns up to twice its limit: ours refuses, by format, before anything is decoded.
Image.MAX_IMAGE_PIXELS = None
LONGEST_SIDE, MEASURED_SIDE, MOST_BYTES_MEASURED = 1600, 2600, 1_800_000
"""Points of a picture's longest side as it is kept, of one that is measured, and the bytes of that at the most."""
LATITUDE, LONGITUDE = (GPS.GPSLatitudeRef, GPS.GPSLatitude), (GPS.GPSLongitudeRef, GPS.GPSLongitude)
BROKEN = (
    ArithmeticError, AttributeError, EOFError, LookupError, OSError, RuntimeError, SyntaxError, TypeError, ValueError, struct.error,
)  # fmt: skip
"""What the decoder raises at broken pictures and broken camera data."""
_turn = threading.Lock()


def place_of(picture: Image.Image) -> tuple[float, float] | None:
    """Latitude and longitude from a picture's EXIF, in degrees; None where it holds none that can be read."""
    try:
        position = picture.getexif().get_ifd(IFD.GPSInfo)

        def degrees(letter: int, parts: int) -> float:
            whole, minutes, seconds = (float(part) for part in position[parts])
            return (whole + minutes / 60 + seconds / 3600) * (-1 if position[letter] in ("S", "W") else 1)

        latitude, longitude = degrees(*LATITUDE), degrees(*LONGITUDE)
    except BROKEN:
        return None
    return (latitude, longitude) if abs(latitude) <= 90 and abs(longitude) <= 180 else None


def shrink(content: bytes, *, measures: bool = False) -> tuple[bytes, int, int, tuple[float, float] | None]:
    """A JPEG of at most 500 KB, or 1.8 MB where it measures, without metadata; its width and height, and the place that its EXIF told.
    Raises Refused."""
    if len(content) > MOST_BYTES_IN:
        raise Refused(photo=say.line("The picture has {size} MB and 20 MB is the most: take a smaller one.", size=len(content) // 1000000))
    try:
        with _turn, Image.open(io.BytesIO(content), formats=tuple(MOST_POINTS)) as opened:
            most = MOST_POINTS[opened.format or ""]
            if opened.width * opened.height > most:
                size = say.line(
                    "{width} by {height} points and {most} million are the most",
                    width=opened.width,
                    height=opened.height,
                    most=most // 1000000,
                )
                raise Refused(photo=say.line("The picture is {size}: take a smaller one.", size=size))
            place = place_of(opened)
            return *_kept(opened, measures=measures), place
    except BROKEN as error:
        raise Refused(photo=say.line("This is not a picture that can be read: send a JPEG, PNG or WebP.")) from error


def _kept(opened: Image.Image, *, measures: bool) -> tuple[bytes, int, int]:
    """A picture as it is kept, and its width and height."""
    longest, most = (MEASURED_SIDE, MOST_BYTES_MEASURED) if measures else (LONGEST_SIDE, MOST_BYTES_KEPT)
    opened.draft("RGB", (longest, longest))
    opened.thumbnail((longest, longest))
    try:
        turned = ImageOps.exif_transpose(opened)
    except BROKEN:
        # It lies as the camera held it: better than none.
        turned = opened
    # A new image is saved, not the opened one, so that no metadata travels with it.
    picture = Image.new("RGB", turned.size)
    picture.paste(turned.convert("RGB"))
    for quality in (90, 82, 70) if measures else (82, 70, 55, 40, 25):
        kept = io.BytesIO()
        picture.save(kept, "JPEG", quality=quality, optimize=True)
        if kept.tell() <= most:
            break
    return kept.getvalue(), picture.width, picture.height


def attach(
    session: Session,
    member: Member,
    content: bytes,
    seen_at: dt.datetime,
    *,
    stop: uuid.UUID | None = None,
    enquiry: uuid.UUID | None = None,
    treatment: uuid.UUID | None = None,
    keep_place: bool = False,
    asked: Asked | None = None,
    tag: str = "",
) -> uuid.UUID:
    """Keep a photograph at a stop, with an enquiry or of a treatment of the member's farm, and measure it where that is asked; the same
    bytes sent twice are stored once. Raises Refused."""
    if stop and session.get(Stop, (member.farm_id, stop)) is None:
        raise Refused(stop=say.line("That stop is not known here."))
    if enquiry and session.get(Enquiry, (member.farm_id, enquiry)) is None:
        raise Refused(enquiry=say.line("That enquiry is not known here."))
    if treatment and session.get(TreatmentRow, (member.farm_id, treatment)) is None:
        raise Refused(treatment=say.line("That treatment is not known here."))
    photo_id = uuid.uuid5(DERIVED, f"photo/{stop or enquiry or treatment}/{hashlib.sha256(content).hexdigest()}")
    if session.get(Photo, (member.farm_id, photo_id)) is None:
        kept, width, height, place = shrink(content, measures=asked is not None)
        latitude, longitude = place if place and keep_place else (None, None)
        row = {
            "farm_id": member.farm_id,
            "id": photo_id,
            "stop_id": stop,
            "enquiry_id": enquiry,
            "treatment_id": treatment,
            "asked": as_json(asked) if asked else None,
            "measured": measuring.measured(kept, asked, _before(session, asked, stop)) if asked else None,
            "account_id": member.account_id,
            "seen_at": seen_at,
            "tag": tag,
            "width": width,
            "height": height,
            "latitude": latitude,
            "longitude": longitude,
            "content": kept,
        }
        # Sent twice at the same moment, the second finds it there.
        session.execute(insert(Photo).values(row).on_conflict_do_nothing())
    return photo_id


def _before(session: Session, asked: Asked, stop_id: uuid.UUID | None) -> Json | None:
    """What the last picture of the same paper said, or of a card on the same block at an earlier stop. Raises Refused."""
    # A dish is filled anew each time: what lay in the last one says nothing of it.
    if not asked.second and (asked.of != Pictured.CARD or asked.sheet in ROUND):
        return None
    said = of_farm(Photo, Photo.measured).where(Photo.asked["of"].astext == asked.of, Photo.asked["sheet"].astext == asked.sheet)
    said = said.where(~Photo.measured.has_key("refused")).order_by(Photo.seen_at.desc()).limit(1)
    if asked.second:
        firsts = said.where(Photo.stop_id == stop_id, Photo.asked["second"].astext == "false")
        first: Json | None = session.scalars(firsts).first()
        if first is None:
            raise Refused(photo=say.line("No first picture of this paper could be read: take both again."))
        return first
    if stop_id is None:
        return None
    block = row_of(session, Stop, stop_id).block_id
    joined = (Stop.farm_id == Photo.farm_id) & (Stop.id == Photo.stop_id)
    earlier: Json | None = session.scalars(said.join(Stop, joined).where(Stop.block_id == block, Stop.id != stop_id)).first()
    return earlier


def content(session: Session, photo_id: uuid.UUID) -> bytes:
    """A photograph's JPEG. Raises NotHere."""
    return row_of(session, Photo, photo_id).content


def of_stop(session: Session, stop_id: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(of_farm(Photo, Photo.id).where(Photo.stop_id == stop_id).order_by(Photo.seen_at)))


def of_enquiry(session: Session, enquiry_id: uuid.UUID) -> list[uuid.UUID]:
    return list(session.scalars(of_farm(Photo, Photo.id).where(Photo.enquiry_id == enquiry_id).order_by(Photo.seen_at)))
