"""Photographs: shrunk, stripped, their place kept only where it is wanted, refused with the reason."""

import io
import time
import tracemalloc
import uuid
from concurrent.futures import ThreadPoolExecutor
from unittest import mock

from hypothesis import given, settings
from hypothesis import strategies as st
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


SMALL = picture(60, 40)


class Pictures(DatabaseTest):
    def attach(self, content: bytes, **more: object) -> uuid.UUID:
        with farm_session(FARM) as session:
            stop = session.scalars(select(Stop.id).order_by(Stop.id).limit(1)).one()
            return photos.attach(session, member("scout"), content, NOW, stop=stop, **more)  # type: ignore[arg-type]

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
        silent = self.attach(picture(400, 300))
        attached = self.attach(picture(400, 301), keep_place=True)
        self.assertIsNone(self.kept(silent).latitude)
        self.assertAlmostEqual(self.kept(attached).latitude or 0, 46.2083, places=3)

    def test_refusals(self) -> None:
        for content, words in ((b"not a picture", "not a picture"), (b"0" * (photos.MOST_BYTES_IN + 1), "20 MB")):
            with self.assertRaisesRegex(Refused, words):
                photos.shrink(content)

    def test_the_same_bytes_sent_by_two_at_once_are_kept_once(self) -> None:
        content = picture(400, 302)
        with ThreadPoolExecutor(4) as pool:
            ids = set(pool.map(lambda _: self.attach(content), range(8)))
        self.assertEqual(len(ids), 1)
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(select(func.count()).select_from(Photo).where(Photo.id.in_(ids))).scalar_one(), 1)

    def test_a_small_file_that_unfolds_to_much_is_refused_before_it_is_decoded(self) -> None:
        out = io.BytesIO()
        Image.new("L", (12_000, 12_000)).save(out, "PNG", compress_level=9)
        self.assertLess(len(out.getvalue()), 300_000)
        tracemalloc.start()
        with self.assertRaisesRegex(Refused, "12000 by 12000 points and 25 million are the most"):
            photos.shrink(out.getvalue())
        self.assertLess(tracemalloc.get_traced_memory()[1], 5_000_000)
        tracemalloc.stop()

    def test_a_picture_of_any_phone_is_taken_and_turned_upright(self) -> None:
        out = io.BytesIO()
        exif = Image.Exif()
        exif[0x0112] = 6
        Image.new("RGB", (9000, 6000), "white").save(out, "JPEG", exif=exif)
        _, width, height, _ = photos.shrink(out.getvalue())
        self.assertEqual((width, height), (1067, 1600))

    def test_one_is_decoded_at_a_time(self) -> None:
        content, at_once, most = picture(400, 300), [0], [0]

        def watched(opened: Image.Image, **more: bool) -> tuple[bytes, int, int]:
            at_once[0] += 1
            most[0] = max(most[0], at_once[0])
            time.sleep(0.02)
            at_once[0] -= 1
            return b"", 1, 1

        with mock.patch.object(photos, "_kept", watched), ThreadPoolExecutor(4) as pool:
            list(pool.map(lambda _: photos.shrink(content), range(8)))
        self.assertEqual(most, [1])

    @given(st.integers(0, 3000), st.integers(0, 255), st.integers(20, 4000))
    @settings(max_examples=150)
    def test_broken_pictures_and_broken_camera_data_are_taken_or_refused_in_words(self, place: int, value: int, end: int) -> None:
        """A byte of a small JPEG with camera data is changed, and it is cut off somewhere."""
        content = bytearray(SMALL)
        content[place % len(content)] = value
        try:
            photos.shrink(bytes(content[:end]))
        except Refused as error:
            self.assertIn("photo", error.errors)

    def test_with_an_enquiry(self) -> None:
        with farm_session(FARM) as session:
            enquiry = session.scalars(select(Enquiry.id).limit(1)).one()
            photo_id = photos.attach(session, member("adviser"), picture(400, 300), NOW, enquiry=enquiry)
        self.assertEqual((self.kept(photo_id).enquiry_id, self.kept(photo_id).stop_id), (enquiry, None))
        with self.assertRaisesRegex(Refused, "not known"), farm_session(FARM) as session:
            photos.attach(session, member("adviser"), picture(40, 30), NOW, enquiry=uuid.uuid4())
