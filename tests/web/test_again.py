"""The same thing pictured again: two dates, and the same day of an earlier year."""

import datetime as dt
import io
import uuid

from PIL import Image
from sqlalchemy import update

from bootmark.services.scouting import tagged
from bootmark.services.scouting.tagged import Taken
from bootmark.standins.estate import FARM
from bootmark.store.models import Photo, Stop
from bootmark.store.session import farm_session
from tests.sending import send
from tests.services.lines import line
from tests.web.test_pages import F, PagesTest


class Again(PagesTest):
    def test_two_dates_of_one_tag_lie_over_each_other(self) -> None:
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        stop = payloads["stop.open"][1]
        with farm_session(FARM) as session:
            block = session.get_one(Stop, (FARM, stop)).block_id
        where = f"{F}/again/{block}"
        self.assertNotIn("data-slide", self.client.get(where).text)
        photos = []
        for shade in (80, 120, 160):
            kept = io.BytesIO()
            Image.new("RGB", (400, 300), (shade, 140, 60)).save(kept, "JPEG")
            form = {"stop": str(stop), "tag": "Row 4, third leaf", "photo": (io.BytesIO(kept.getvalue()), "photograph")}
            answer = self.post(self.client, f"{F}/photo", form)
            self.assertEqual(answer.status_code, 200, answer.text)
            photos.append(uuid.UUID(answer.json["record_id"]))
        for photo, days in zip(photos, (370, 7, 0), strict=True):
            with farm_session(FARM, role="owner") as session:
                session.execute(update(Photo).where(Photo.id == photo).values(seen_at=Photo.seen_at - dt.timedelta(days=days)))
        page = self.client.get(where).text
        self.assertIn("data-slide", page)
        self.assertIn("Row 4, third leaf", page)
        over = page.partition("data-over")[2].partition("data-slide")[0]
        self.assertLess(over.index(str(photos[1])), over.index(str(photos[2])), "the last two, the earlier beneath")
        self.assertIn(f"before={photos[0]}", page, "the same weeks of last year are offered")
        chosen = self.client.get(f"{where}?before={photos[0]}&after={photos[1]}").text.partition("data-over")[2].partition("data-slide")[0]
        self.assertIn(str(photos[0]), chosen)
        long = self.post(self.client, f"{F}/photo", {"stop": str(stop), "tag": "x" * 80, "photo": (io.BytesIO(kept.getvalue()), "p")})
        self.assertEqual((long.status_code, list(long.json["errors"])), (422, ["tag"]))

    def test_the_same_day_of_an_earlier_year_is_the_nearest_one(self) -> None:
        march, june, this = (Taken(uuid.uuid4(), dt.date(year, month, 10)) for year, month in ((2025, 3), (2024, 6), (2026, 6)))
        self.assertEqual(tagged.a_year_before([june, march, this], dt.date(2026, 6, 18)), june)
        self.assertIsNone(tagged.a_year_before([this], dt.date(2026, 6, 18)))
