"""A large weather file: read and imported by the worker, while its page tells how far that is; once for each set of choices."""

import datetime as dt
import random
import uuid
from typing import Any
from unittest import mock

from sqlalchemy import func, select, text

from bootmark.services.base import queue
from bootmark.services.weather import files
from bootmark.services.weather.files import Job
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import WeatherDay, WeatherUpload
from bootmark.store.session import engine, farm_session
from bootmark.worker import tasks
from tests.database import DatabaseTest, member

FORM = {"unit": "C", "order": "ymd"}
DAYS = 900


def large() -> bytes:
    """Nine hundred days before the farm's first, every hundredth a line that is refused."""
    rng, lines, first = random.Random(11), ["date,tmin,tmax,rain"], dt.date(1990, 1, 1)
    for n in range(DAYS):
        low = rng.uniform(-5, 12)
        minimum = "high" if n % 100 == 99 else f"{low:.3f}"
        lines.append(f"{first + dt.timedelta(days=n)},{minimum},{low + rng.uniform(4, 12):.3f},{rng.uniform(0, 3):.2f}")
    return "\n".join(lines).encode()


class Large(DatabaseTest):
    def setUp(self) -> None:
        self.enterContext(mock.patch.object(files, "SMALL_BYTES", 20_000))
        self.assertGreater(len(large()), files.SMALL_BYTES)
        with farm_session(FARM) as session:
            self.upload = files.receive(session, member("owner"), made("Valley mast"), "w.csv", large(), NOW).id

    def row(self) -> WeatherUpload:
        with farm_session(FARM) as session:
            return session.get_one(WeatherUpload, (FARM, self.upload))

    def preview(self, form: dict[str, str]) -> files.Preview:
        with farm_session(FARM) as session:
            return files.preview(session, session.get_one(WeatherUpload, (FARM, self.upload)), form, NOW)

    def store(self) -> dict[str, Any]:
        with farm_session(FARM) as session:
            upload = session.get_one(WeatherUpload, (FARM, self.upload))
            return files.store(session, member("owner"), upload, FORM, NOW, NOW)

    def waiting(self) -> list[dict[str, str]]:
        """Jobs that wait for the worker, taken out of the queue."""
        with engine("owner").begin() as connection:
            return list(
                connection.execute(
                    text("DELETE FROM procrastinate_jobs WHERE task_name = :t RETURNING args"), {"t": queue.READ_FILE}
                ).scalars()
            )

    def days(self) -> int:
        with farm_session(FARM) as session:
            rows = select(func.count()).select_from(WeatherDay).where(WeatherDay.source == "file w.csv")
            return session.execute(rows).scalar_one()

    def test_it_is_read_by_the_worker_once_for_each_set_of_choices_and_imported_once(self) -> None:
        self.assertIn("unit", self.preview({}).problem)
        self.assertEqual(self.waiting(), [])
        for _ in range(3):
            preview = self.preview(FORM)
            self.assertEqual((preview.understood, preview.problem, preview.upload.job), (None, "", Job.READING))
        jobs = self.waiting()
        self.assertEqual(len(jobs), 1)
        steps: list[int] = []
        with (
            mock.patch.object(files, "note_progress", lambda *words: steps.append(words[-1])),
            mock.patch("bootmark.formats.weather_csv.STEP_LINES", 100),
        ):
            tasks.read_file(**jobs[0])
        self.assertEqual(steps, sorted(steps))
        self.assertGreater(len(steps), 5)
        understood = self.preview(FORM).understood
        assert understood
        self.assertEqual((understood.count, understood.refused_count, understood.ahead), (DAYS - 9, 9, 0))
        self.assertEqual((understood.first, len(understood.days)), (dt.date(1990, 1, 1), 12))
        self.assertEqual(understood.refused[0].line, 101)
        with mock.patch.object(files, "_read", side_effect=AssertionError("read again")):
            self.assertEqual(self.preview(FORM).understood, understood)
        self.assertEqual(self.days(), 0)
        self.assertEqual((self.store(), self.store()), ({}, {}))
        jobs = self.waiting()
        self.assertEqual((len(jobs), self.row().job), (1, Job.IMPORTING))
        tasks.read_file(**jobs[0])
        self.assertEqual((self.row().job, self.row().summary["stored"], self.days()), (Job.NONE, DAYS - 9, DAYS - 9))
        # A worker that died after its last transaction does it again, and changes nothing.
        tasks.read_file(**jobs[0])
        self.assertEqual(self.days(), DAYS - 9)
        self.assertEqual(self.store()["stored"], DAYS - 9)

    def test_other_choices_meanwhile_put_the_first_aside(self) -> None:
        self.preview(FORM)
        self.preview(FORM | {"unit": "F"})
        first, second = self.waiting()
        tasks.read_file(**first)
        self.assertEqual((self.row().job, self.row().understood), (Job.READING, {}))
        tasks.read_file(**second)
        understood = self.preview(FORM | {"unit": "F"}).understood
        assert understood
        self.assertLess(understood.days[0].tmax, 0)

    def test_a_fault_is_told_and_nothing_is_stored(self) -> None:
        self.store()
        jobs = self.waiting()
        with mock.patch.object(files, "_take", side_effect=RuntimeError("unforeseen")), self.assertLogs("bootmark.worker", "ERROR"):
            tasks.read_file(**jobs[0])
        self.assertEqual((self.row().job, self.days()), (Job.FAILED, 0))
        self.assertEqual(self.store(), {})
        tasks.read_file(**self.waiting()[0])
        self.assertEqual(self.days(), DAYS - 9)

    def test_a_file_that_is_gone_is_no_fault(self) -> None:
        tasks.read_file(str(FARM), str(uuid.uuid4()), "", Job.READING)

    def tearDown(self) -> None:
        with engine("owner").begin() as connection:
            connection.execute(text("ALTER TABLE weather_day NO FORCE ROW LEVEL SECURITY"))
            connection.execute(text("DELETE FROM weather_day WHERE source = 'file w.csv'"))
            connection.execute(text("ALTER TABLE weather_day FORCE ROW LEVEL SECURITY"))
