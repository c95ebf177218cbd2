"""Photographs: shrunk, stripped, their place kept only where it is wanted, refused with the reason."""

import io
import uuid

from PIL import Image
from PIL.ExifTags import IFD
from sqlalchemy import func, select

from bootmark.services.base.command import Refused
from bootmark.services.scouting import photos
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import Enquiry, Photo, Stop
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, member


def picture(width: int = 2400, height: int = 1800) -> bytes:
    """A JPEG whose EXIF tells its maker and 46 12 30 N, 7 6 0 W."""
    out = io.BytesIO()
    noise = Image.effect_noise((width, height), 90).convert("RGB")
    exif = Image.Exif()
    exif[0x010F] = "maker"
    exif.get_ifd(IFD.GPSInfo).update({1: "N", 2: (46.0, 12.0, 30.0), 3: "W", 4: (7.0, 6.0, 0.0)})
    noise.save(out, "JPEG", quality=95, exif=exif)
    return out.getvalue()


class Pictures(DatabaseTest):
    def attach(self, photo_id: uuid.UUID, content: bytes, **more: object) -> None:
        with farm_session(FARM) as session:
            stop = session.scalars(select(Stop.id).limit(1)).one()
            photos.attach(session, member("scout"), photo_id, content, NOW, stop=stop, **more)  # type: ignore[arg-type]

    def kept(self, photo_id: uuid.UUID) -> Photo:
        with farm_session(FARM) as session:
            return session.get_one(Photo, (FARM, photo_id))

    def test_shrunk_and_stripped(self) -> None:
        kept, width, height, place = photos.shrink(picture())
        self.assertLessEqual(len(kept), photos.MOST_BYTES_KEPT)
        self.assertEqual(max(width, height), photos.LONGEST_SIDE)
        assert place
        self.assertAlmostEqual(place[0], 46.2083, places=3)
        self.assertAlmostEqual(place[1], -7.1, places=3)
        with Image.open(io.BytesIO(kept)) as opened:
            self.assertFalse(opened.getexif())

    def test_the_place_is_kept_only_where_it_is_wanted(self) -> None:
        silent, told = uuid.uuid4(), uuid.uuid4()
        self.attach(silent, picture(400, 300))
        self.attach(told, picture(400, 300), keep_place=True)
        self.assertIsNone(self.kept(silent).latitude)
        self.assertAlmostEqual(self.kept(told).latitude or 0, 46.2083, places=3)

    def test_refusals(self) -> None:
        for content, words in ((b"not a picture", "not a picture"), (b"0" * (photos.MOST_BYTES_IN + 1), "20 MB")):
            with self.assertRaisesRegex(Refused, words):
                photos.shrink(content)

    def test_sent_twice_is_kept_once(self) -> None:
        photo_id, content = uuid.uuid4(), picture(400, 300)
        for _ in range(2):
            self.attach(photo_id, content)
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(select(func.count()).select_from(Photo).where(Photo.id == photo_id)).scalar_one(), 1)

    def test_with_an_enquiry(self) -> None:
        photo_id = uuid.uuid4()
        with farm_session(FARM) as session:
            enquiry = session.scalars(select(Enquiry.id).limit(1)).one()
            photos.attach(session, member("adviser"), photo_id, picture(400, 300), NOW, enquiry=enquiry)
        self.assertEqual((self.kept(photo_id).enquiry_id, self.kept(photo_id).stop_id), (enquiry, None))
        with self.assertRaisesRegex(Refused, "not known"), farm_session(FARM) as session:
            photos.attach(session, member("adviser"), uuid.uuid4(), picture(40, 30), NOW, enquiry=uuid.uuid4())
