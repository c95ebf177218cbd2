"""Stations read over HTTP, files imported, photographs shrunk, the clock stepped."""

import datetime as dt
import json
import threading
import unittest
import uuid

from sqlalchemy import func, select, text

from bootmark.core.season import biofix
from bootmark.core.season.spells import spells
from bootmark.services.base import farm_time, queue
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.seasons import forecasts
from bootmark.services.weather import blocks as block_weather
from bootmark.services.weather import files
from bootmark.standins.__main__ import serve
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, Farm, Station, WeatherDay, WeatherDerived, WeatherHour
from bootmark.store.session import farm_session
from bootmark.worker import pull
from tests.database import DatabaseTest, catalogue, member
from tests.formats.test_ghcn import month

MAST = made("Valley mast")


def total(model: type) -> int:
    with farm_session(FARM) as session:
        return session.execute(select(func.count()).select_from(model)).scalar_one()


class Stations(DatabaseTest):
    def setUp(self) -> None:
        self.server = serve(0)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()
        self.addCleanup(self.server.server_close)
        self.addCleanup(self.server.shutdown)
        url = f"http://127.0.0.1:{self.server.server_port}"
        with farm_session(FARM) as session:
            session.execute(text("UPDATE station SET url = :url"), {"url": url})

    def pull(self) -> int:
        with farm_session(FARM, role="worker") as session:
            return pull.pull_farm(session, session.get_one(Farm, FARM), NOW)

    def test_a_step_of_the_clock_brings_new_readings_once(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            stood = farm.clock_at
            assert stood
            for _ in range(2):
                farm_time.step(session, farm, "day", stood.isoformat())
            self.assertEqual(farm.clock_at, stood + dt.timedelta(days=1))
            with self.assertRaises(Refused):
                farm_time.step(session, farm, "century", stood.isoformat())
        days = total(WeatherDay)
        self.assertGreater(self.pull(), 20)
        self.assertEqual(total(WeatherDay), days + 2)
        hours = total(WeatherHour)
        self.assertEqual(self.pull(), 0)
        self.assertEqual(total(WeatherHour), hours)

    def test_a_station_that_is_down_leaves_the_other_alone(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE station SET url = 'http://127.0.0.1:9' WHERE id = :id"), {"id": MAST})
            session.execute(text("UPDATE farm SET clock_at = clock_at + interval '3 hours'"))
        with self.assertLogs("bootmark.worker", "WARNING"):
            self.pull()
        with farm_session(FARM) as session:
            heard = dict(session.execute(select(Station.name, Station.heard_at)).all())
        self.assertGreater(heard["Tunnel logger"], heard["Valley mast"])  # type: ignore[operator]

    def test_the_stand_in_refuses_nonsense(self) -> None:
        import urllib.error
        import urllib.request

        for path, status in (("/readings?since=x&until=y", 400), ("/nothing", 404)):
            with self.assertRaises(urllib.error.HTTPError) as caught:
                urllib.request.urlopen(f"http://127.0.0.1:{self.server.server_port}{path}")
            self.assertEqual(caught.exception.code, status)
            self.assertIn("error", json.load(caught.exception))

    def test_only_web_addresses_are_asked(self) -> None:
        with self.assertRaises(ValueError):
            pull.ask("file:///etc", "passwd")


class Queue(DatabaseTest):
    def test_a_waiting_job_is_not_queued_twice_and_goes_with_its_transaction(self) -> None:
        with farm_session(FARM) as session:
            first = queue.defer(session, queue.PULL, farm_id=str(FARM))
            self.assertEqual(queue.defer(session, queue.PULL, farm_id=str(FARM)), 0)
            self.assertFalse(queue.finished(session, first))
            session.rollback()
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(text("SELECT count(*) FROM procrastinate_jobs")).scalar_one(), 0)


class Files(DatabaseTest):
    CSV = b"date,tmin,tmax\n" + b"".join(f"2012-{m:02}-{d:02},5,15\n".encode() for m in range(1, 13) for d in range(1, 29))

    def receive(self, content: bytes, role: str = "adviser") -> uuid.UUID:
        with farm_session(FARM) as session:
            return files.receive(session, member(role), MAST, "w.csv", content, NOW).id

    def test_preview_asks_for_the_unit_and_import_happens_once(self) -> None:
        upload_id = self.receive(self.CSV + b"2012-13-01,1,2\n2012-01-02,9,3\n")
        with farm_session(FARM) as session:
            upload = files.get(session, member("adviser"), upload_id)
            self.assertIn("unit", files.preview(session, upload, {}, NOW).problem)
            form = {"unit": "C", "order": "ymd"}
            preview = files.preview(session, upload, form, NOW)
            assert preview.understood
            self.assertEqual((preview.understood.count, preview.understood.refused_count), (336, 2))
            first = files.store(session, member("adviser"), upload, form, NOW, NOW)
            again = files.store(session, member("adviser"), upload, form, NOW, NOW)
        self.assertEqual((first, first["stored"]), (again, 336))
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(WeatherDerived, (FARM, MAST, dt.date(2012, 1, 30))).filled, "line")

    def test_an_archive_file_says_its_unit_itself(self) -> None:
        content = (month("TMAX", [215, 220, 218], stamp="201105") + "\n" + month("TMIN", [101, 90, 95], stamp="201105")).encode()
        upload_id = self.receive(content)
        with farm_session(FARM) as session:
            upload = files.get(session, member("adviser"), upload_id)
            preview = files.preview(session, upload, {}, NOW)
            assert preview.understood
            self.assertEqual((preview.problem, [day.tmax for day in preview.understood.days]), ("", [21.5, 22.0, 21.8]))
            self.assertEqual(files.store(session, member("adviser"), upload, {}, NOW, NOW)["stored"], 3)
            self.assertEqual(upload.content, content)

    def test_who_may_and_what_may(self) -> None:
        with self.assertRaises(Forbidden):
            self.receive(self.CSV, "scout")
        for content in (b"", b"\0\0", b"1,2,3\n"):
            with self.assertRaises(Refused):
                self.receive(content)

    def test_days_ahead_are_left_out(self) -> None:
        upload_id = self.receive(b"date,tmin,tmax\n2027-01-01,5,15\n2013-06-01,5,15\n")
        with farm_session(FARM) as session:
            upload = files.get(session, member("owner"), upload_id)
            done = files.store(session, member("owner"), upload, {"unit": "C", "order": "ymd"}, NOW, NOW)
        self.assertEqual((done["stored"], done["ahead"]), (1, 1))


class Seasons(DatabaseTest):
    def test_hints_and_forecasts_of_the_demo(self) -> None:
        day = dt.date(2026, 6, 18)
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            orchard = session.get_one(Block, (FARM, made("Orchard A")))
            self.assertGreaterEqual(block_weather.hints(session, farm, orchard, day)["hot-and-dry"], 9)
            outlook = forecasts.of_block(session, farm, orchard, catalogue.agent("codling-moth"), day)
            assert outlook
            self.assertEqual(outlook.biofix, dt.date(2026, 5, 15))
            span = forecasts.window_of(
                outlook.forecast, catalogue.agent("codling-moth").control("granulovirus"), catalogue.agent("codling-moth").heat, day
            )
            assert span
            self.assertLessEqual(span[0], day)
            self.assertGreaterEqual(span[1], day)
            birch = session.get_one(Block, (FARM, made("Birch bed")))
            self.assertIsNone(forecasts.of_block(session, farm, birch, catalogue.agent("water-shortage"), day))

    def test_the_calendar_turns_round_in_the_south(self) -> None:
        maggot = catalogue.agent("cabbage-maggot").heat
        assert maggot
        farm = Farm(latitude=-40.0)
        self.assertEqual(biofix.calendar_day(maggot, farm.latitude < 0, dt.date(2026, 11, 1)), dt.date(2026, 9, 1))
        self.assertEqual(biofix.calendar_day(maggot, farm.latitude < 0, dt.date(2026, 2, 1)), dt.date(2025, 9, 1))


class NoDatabase(unittest.TestCase):
    def test_no_days_no_spells(self) -> None:
        self.assertEqual(spells([]), {})
