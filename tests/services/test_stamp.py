"""What is kept in a process: it stands as long as the farm's rows do, and never longer."""

import datetime as dt
import unittest

from sqlalchemy import text

from bootmark.services.base import memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.standins.estate import FARM, made
from bootmark.store.session import farm_session
from tests.database import DatabaseTest
from tests.sending import REAL, send, store_days
from tests.services.test_seasons import MOTH, ORCHARD

NOTED = {
    Topic.PLACES: "farm block station plan_feature planting plan_picture",
    Topic.WEATHER: "weather_derived judgement",
    Topic.SEASONS: "biofix trap trap_check stage_sighting crop_stage",
    Topic.RESULTS: "season_result",
    Topic.SCOUTING: "stop look finding sample enquiry place_check",
    Topic.TREATMENT: "decision treatment return_visit application own_threshold",
    Topic.PEOPLE: "membership member_terms invitation farm_settings",
}


def now(*topics: Topic) -> stamp.Stamp:
    with farm_session(FARM) as session:
        return stamp.of(session, *topics)


class Stamp(DatabaseTest):
    def test_it_stands_while_nothing_is_written(self) -> None:
        before = now()
        with farm_session(FARM) as session:
            session.execute(text("SELECT count(*) FROM block"))
        self.assertEqual(now(), before)

    def test_what_is_taken_back_changes_nothing(self) -> None:
        before = now()
        with self.assertRaises(ZeroDivisionError), farm_session(FARM) as session:
            session.execute(text("UPDATE block SET area = area"))
            _ = 1 / 0
        self.assertEqual(now(), before)

    def test_writers_do_not_wait_for_each_other_and_both_are_noted(self) -> None:
        before, between = now(), []
        with farm_session(FARM) as session_one, farm_session(FARM) as two:
            two.execute(text("SET LOCAL lock_timeout = '2s'"))
            session_one.execute(text("UPDATE block SET area = area WHERE name = 'Orchard A'"))
            two.execute(text("UPDATE block SET area = area WHERE name = 'Orchard B'"))
            two.commit()
            between.append(now())
        self.assertEqual(len({before, between[0], now()}), 3)

    def test_notes_of_long_ago_go(self) -> None:
        """One transaction in 64 of the whole cluster tidies; which one that is, others that run beside this test have a say in."""
        kept = [0]
        while len(kept) < 2_000 and kept[-1] >= kept[-2:][0]:
            with farm_session(FARM) as session:
                session.execute(text("UPDATE trap SET ended = ended"))
                kept.append(session.execute(text("SELECT count(*) FROM farm_change WHERE topic = 'seasons'")).scalar_one())
        self.assertLess(kept[-1], kept[-2])
        self.assertLessEqual(kept[-1], 34)

    def test_it_changes_with_what_people_write(self) -> None:
        block = {"block_id": str(ORCHARD)}
        for kind, payload in (
            ("biofix.set", {**block, "agent": MOTH, "on": "2026-05-02", "basis": "two males on two checks"}),
            ("stage.sighting", {**block, "agent": MOTH, "on": "2026-06-17", "counts": {"larva": 30}, "note": ""}),
            ("crop.stage", {**block, "code": 81, "on": "2026-06-17", "note": ""}),
        ):
            before = now()
            send(kind, payload)
            self.assertNotEqual(now(), before, kind)

    def test_it_changes_with_every_row_however_it_is_written(self) -> None:
        for topic, names in NOTED.items():
            for name in names.split():
                with farm_session(FARM) as session:
                    column = {"farm": "clock_at", "membership": "role"}.get(name, "farm_id")
                    before, others = now(topic), [other for other in Topic if other != topic]
                    rest = now(*others)
                    done = session.execute(text(f"UPDATE {name} SET {column} = {column} WHERE ctid = (SELECT min(ctid) FROM {name})"))
                    rows = done.rowcount  # type: ignore[attr-defined]
                if rows:
                    self.assertNotEqual(now(topic), before, name)
                    self.assertEqual(now(*others), rest, name)

    def test_it_changes_with_a_reading_and_with_the_farms_clock(self) -> None:
        before = now()
        row = {"local_date": dt.date(2026, 6, 18), "received_at": REAL, "tmin": 9.0, "tmax": 21.0, "rain": 0.0, "source": "file"}
        with farm_session(FARM) as session:
            self.assertEqual(store_days(session, made("Valley mast"), [row]), 1)
            self.assertNotEqual(stamp.of(session), before)
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
