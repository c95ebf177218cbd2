"""A station that answers nonsense hurts nobody but itself."""

import contextlib
import datetime as dt
import json
import os
import threading
import time
from http.server import BaseHTTPRequestHandler, HTTPServer
from typing import Any, ClassVar
from unittest import mock

import urllib3
from sqlalchemy import func, select, text

from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Farm, ForecastHour, Station, WeatherHour
from bootmark.store.session import farm_session
from bootmark.worker import pull
from tests.database import DatabaseTest

HOUR = {"at": "2026-06-18T05:00:00+00:00", "temp": 14.0, "rh": 70, "wind": 1.0, "rain": 0.0}
ISSUED = {"issued_at": "2026-06-18T05:00:00+00:00", "hours": []}


class Odd(BaseHTTPRequestHandler):
    """Answers what it is told to, and counts how often it is asked."""

    answer: ClassVar[Any] = {}
    status: ClassVar[int] = 200
    asked: ClassVar[int] = 0
    slow: ClassVar[str] = ""

    def do_GET(self) -> None:
        Odd.asked += 1
        body = self.answer if isinstance(self.answer, bytes) else json.dumps(self.answer).encode()
        self.send_response(self.status)
        if self.status in (301, 302):
            self.send_header("Location", "http://127.0.0.1:9/elsewhere")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        if self.slow and self.slow.replace(" ", "+") in self.path:
            body = b" " * len(body)
            with contextlib.suppress(OSError):
                for n in range(len(body)):
                    self.wfile.write(body[n : n + 1])
                    time.sleep(0.05)
            return
        self.wfile.write(body)

    def log_message(self, *_words: object) -> None:
        pass


class Nonsense(DatabaseTest):
    def setUp(self) -> None:
        server = HTTPServer(("127.0.0.1", 0), Odd)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        Odd.status, Odd.asked = 200, 0
        with farm_session(FARM) as session:
            session.execute(text("UPDATE station SET url = '', failures = 0, next_try_at = NULL, last_error = ''"))
            address = {"url": f"http://127.0.0.1:{server.server_port}", "name": "Valley mast"}
            session.execute(text("UPDATE station SET url = :url WHERE name = :name"), address)

    def pull(self, answer: Any) -> Station:
        Odd.answer = answer
        with farm_session(FARM, role="worker") as session:
            pull.pull_farm(session, session.get_one(Farm, FARM), NOW)
            mast = session.get_one(Station, (FARM, made("Valley mast")))
            mast.next_try_at = None
        return mast

    def hours(self) -> int:
        with farm_session(FARM) as session:
            return session.execute(select(func.count()).select_from(WeatherHour)).scalar_one()

    def test_what_is_no_reading_is_a_failure_of_that_station_and_stores_nothing(self) -> None:
        before = self.hours()
        odd: tuple[Any, ...] = (
            b"not json", [], "x", None, {}, {"hours": "many"}, {"hours": [3]}, {"hours": [{}]}, {"hours": [HOUR | {"temp": "warm"}]},
            {"hours": [HOUR | {"at": "noon"}]}, {"hours": [HOUR | {"temp": None}]}, {"hours": [HOUR | {"temp": 1e999}]},
            {"hours": [HOUR | {"temp": float("nan")}]}, {"hours": [HOUR | {"rh": 10**400}]}, {"hours": [HOUR | {"wind": -1}]},
            {"hours": [HOUR | {"at": "2026-06-18T05:00:00"}]}, {"hours": [HOUR | {"at": "0001-01-01T00:00:00+14:00"}]},
            {"hours": [HOUR], "issued_at": "never"}, {"hours": [HOUR], **ISSUED, "issued_at": 7}, {"hours": [HOUR], "issued_at": []},
            b"[" * 100_000, b"\x00", b'{"hours": "' + b"x" * pull.MOST_BYTES + b'"}',
        )  # fmt: skip
        for n, answer in enumerate(odd, 1):
            with self.assertLogs("bootmark.worker", "WARNING"):
                mast = self.pull(answer)
            self.assertEqual(mast.failures, n, answer)
            self.assertTrue(mast.last_error, answer)
        self.assertEqual(self.hours(), before)

    def test_one_byte_at_a_time_is_given_up_and_the_other_stations_are_read(self) -> None:
        with farm_session(FARM) as session:
            same = session.execute(text("UPDATE station SET url = (SELECT max(url) FROM station) WHERE name = 'Ridge mast'"))
            self.assertEqual(same.rowcount, 1)  # type: ignore[attr-defined]
        Odd.slow = "Valley mast"
        self.addCleanup(setattr, Odd, "slow", "")
        with mock.patch.object(pull, "MOST_SECONDS", 0.5), self.assertLogs("bootmark.worker", "WARNING") as logs:
            mast = self.pull({"hours": [], **ISSUED})
        self.assertIn("took longer than 0.5 seconds", mast.last_error)
        self.assertEqual(len(logs.output), 1)
        with farm_session(FARM) as session:
            other = session.get_one(Station, (FARM, made("Ridge mast")))
            self.assertEqual((other.failures, other.last_error), (0, ""))
            self.assertIsNotNone(other.heard_at)

    def test_what_it_refuses_is_not_asked_again_and_no_redirect_is_followed(self) -> None:
        for status, asked in ((404, 1), (500, 1), (302, 1)):
            Odd.status, Odd.asked = status, 0
            with self.assertLogs("bootmark.worker", "WARNING"):
                self.pull({"hours": []})
            self.assertEqual(Odd.asked, asked, status)

    def test_a_good_answer_after_bad_ones_forgets_them(self) -> None:
        with self.assertLogs("bootmark.worker", "WARNING"):
            self.pull([])
        mast = self.pull({"hours": [HOUR], **ISSUED})
        self.assertEqual((mast.failures, mast.last_error), (0, ""))
        before = self.hours()
        self.pull({"hours": [HOUR], **ISSUED})
        self.assertEqual(self.hours(), before)

    def test_a_forecast_is_kept_by_the_hour_for_which_it_is_issued(self) -> None:
        ahead = [HOUR | {"at": (NOW + dt.timedelta(hours=n)).isoformat()} for n in range(30)]
        self.pull({"hours": ahead, "issued_at": "2026-06-18T04:00:00+00:00"})
        with farm_session(FARM) as session:
            issued = (
                select(func.count()).select_from(ForecastHour).where(ForecastHour.issued_at == dt.datetime(2026, 6, 18, 4, tzinfo=dt.UTC))
            )
            self.assertEqual(session.execute(issued).scalar_one(), 30)

    def test_no_station_stands_on_this_machine_or_where_machines_keep_to_themselves(self) -> None:
        with mock.patch.dict(os.environ, {pull.LOCAL_STATIONS: ""}):
            for url in (
                "http://127.0.0.1:5432", "http://[::1]/", "http://169.254.169.254/latest", "http://0.0.0.0:80", "http://224.0.0.1",
                "http://127.1:80", "http://2130706433/", "ftp://10.0.0.1/", "file:///etc/passwd", "http://", "http://[fe80::1]/", "//10.0.0.1",
            ):  # fmt: skip
                with self.subTest(url), self.assertRaises(ValueError):
                    pull.ask(url, "readings")
        # A station in the farm's own network is asked: here nobody answers.
        with mock.patch.object(pull._pool, "request", side_effect=urllib3.exceptions.ConnectTimeoutError) as asked:
            for url in ("http://10.0.0.9", "http://192.168.7.3:8080"):
                with self.assertRaises(urllib3.exceptions.HTTPError):
                    pull.ask(url, "readings")
        self.assertEqual(asked.call_count, 2)
