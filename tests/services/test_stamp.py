"""What is kept in a process: it stands as long as the farm's rows do, and never longer."""

import datetime as dt
import unittest

from sqlalchemy import text

from bootmark.services import memo, stamp, weather
from bootmark.standins.estate import FARM, made
from bootmark.store.models import Farm
from bootmark.store.session import farm_session
from tests.database import DatabaseTest
from tests.services.test_seasons import MOTH, ORCHARD, REAL, send


def now() -> stamp.Stamp:
    with farm_session(FARM) as session:
        return stamp.of(session, session.get_one(Farm, FARM))


class Stamp(DatabaseTest):
    def test_it_stands_while_nothing_is_written(self) -> None:
        before = now()
        with farm_session(FARM) as session:
            session.execute(text("SELECT count(*) FROM block"))
        self.assertEqual(now(), before)

    def test_it_changes_with_what_people_write(self) -> None:
        block = {"block_id": str(ORCHARD)}
        for kind, payload in (
            ("biofix.set", {**block, "agent": MOTH, "on": "2026-05-02", "basis": "two males on two checks"}),
            ("stage.sighting", {**block, "agent": MOTH, "on": "2026-06-17", "counts": {"larva": "30"}, "note": ""}),
            ("crop.stage", {**block, "code": "81", "on": "2026-06-17", "note": ""}),
        ):
            before = now()
            send(kind, payload)
            self.assertNotEqual(now(), before, kind)

    def test_it_changes_with_every_row_however_it_is_written(self) -> None:
        for table in stamp.WRITTEN:
            name = table.__tablename__  # type: ignore[attr-defined]
            with farm_session(FARM) as session:
                there = session.execute(text(f"SELECT count(*) FROM {name}")).scalar_one()
            if not there:
                continue
            before = now()
            with farm_session(FARM) as session:
                session.execute(text(f"UPDATE {name} SET farm_id = farm_id WHERE ctid = (SELECT min(ctid) FROM {name})"))
            self.assertNotEqual(now(), before, name)

    def test_it_changes_with_a_reading_and_with_the_farms_clock(self) -> None:
        before = now()
        row = {"local_date": dt.date(2026, 6, 18), "received_at": REAL, "tmin": 9.0, "tmax": 21.0, "rain": 0.0, "source": "file"}
        with farm_session(FARM) as session:
            self.assertEqual(weather.store_days(session, FARM, made("Valley mast"), [row]), 1)
            self.assertNotEqual(stamp.of(session, session.get_one(Farm, FARM)), before)
        between = now()
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = clock_at + interval '1 hour'"))
        self.assertNotEqual(now(), between)


class Kept(unittest.TestCase):
    def test_the_oldest_goes_first_and_what_is_asked_for_counts_as_new(self) -> None:
        kept: memo.Kept[int] = memo.Kept(2)
        kept.put("one", 1)
        kept.put("two", 2)
        self.assertEqual(kept.get("one"), 1)
        kept.put("three", 3)
        self.assertEqual([kept.get(name) for name in ("one", "two", "three")], [1, None, 3])
