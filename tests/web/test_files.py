"""Files that go out and come in: what is written is text for any spreadsheet, what is refused comes back to be mended."""

import csv
import datetime as dt
import io
import re

from PIL import Image

from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, Photo, Stop
from bootmark.store.session import farm_session
from tests.sending import send
from tests.web.test_pages import F, PagesTest

RIDGE = f"{F}/station/{made('Ridge mast')}"


class Written(PagesTest):
    def test_a_name_that_would_run_is_text_in_the_book(self) -> None:
        with farm_session(FARM) as session:
            session.get_one(Block, (FARM, made("Long Field"))).name = "\tHYPERLINK(1)"
            session.get_one(Block, (FARM, made("Orchard A"))).name = "=1+1"
        send("stop.open", {"block_id": str(made("Orchard A")), "where": "@row"})
        rows = list(csv.reader(io.StringIO(self.client.get(f"{F}/book.csv").get_data(as_text=True))))
        self.assertGreater(len(rows), 30)
        blocks = {row[2] for row in rows}
        self.assertTrue({"'=1+1", "'\tHYPERLINK(1)"} <= blocks, blocks)
        for row in rows[1:]:
            for cell in row:
                self.assertNotRegex(cell, r"^\s*[=@\t]")

    def test_refused_lines_come_back_with_their_reasons_and_can_be_sent_again(self) -> None:
        content = "date;tmin;tmax;rain\n2026-05-01;2,5;1,5;\n2026-05-02;-1,5;9,5;\n2026-05-03;=cmd;3;\n"
        name = "spring\x07.csv"
        sent = self.post(self.client, f"{RIDGE}/file", {"file": (io.BytesIO(content.encode()), name)}, page=RIDGE)
        self.assertEqual(sent.status_code, 302)
        upload = re.search(r"/file/([0-9a-f-]{36})", sent.headers["Location"])
        assert upload
        refused = self.client.get(f"{F}/station/file/{upload.group(1)}/refused.csv?unit=C&order=ymd").get_data(as_text=True)
        rows = list(csv.reader(io.StringIO(refused)))
        self.assertEqual([row[:4] for row in rows[1:]], [["2026-05-01", "2,5", "1,5", ""], ["2026-05-03", "'=cmd", "3", ""]])
        self.assertEqual([row[4] for row in rows[1:]], ["2", "4"])
        again = refused.replace('"1,5"', "15").replace("'=cmd", "1")
        mended = self.post(self.client, f"{RIDGE}/file", {"file": (io.BytesIO(again.encode()), "mended.csv")}, page=RIDGE)
        preview = self.client.get(mended.headers["Location"] + "?unit=C&order=ymd").get_data(as_text=True)
        self.assertIn("2 days", preview)


class Photographs(PagesTest):
    def test_a_photograph_s_time_is_believed_as_any_record_s_is(self) -> None:
        stop = self.one(Stop).id
        earlier = NOW - dt.timedelta(hours=2)
        for n, (typed, kept) in enumerate((("1970-01-01T00:04:00+00:00", NOW), (earlier.isoformat(), earlier), ("yesterday", NOW))):
            picture = io.BytesIO()
            Image.new("RGB", (20 + n, 20)).save(picture, "PNG")
            form = {"stop": str(stop), "seen_at": typed, "photo": (io.BytesIO(picture.getvalue()), "x.png")}
            answer = self.post(self.client, f"{F}/photo", form)
            self.assertEqual(answer.status_code, 200, answer.text)
            self.assertEqual(self.one(Photo, Photo.id == answer.json["record_id"]).seen_at, kept)
