"""A batch from a phone: what goes wrong with one of its commands touches no other."""

import datetime as dt
import threading
import uuid
from collections.abc import Callable
from typing import Any
from unittest import mock

from sqlalchemy import text
from sqlalchemy.exc import OperationalError

from bootmark.services import writing
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import device_moment
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, CommandRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope, send
from tests.services.lines import count, line


class OneOfMany(DatabaseTest):
    """What goes wrong with one command touches no other of its batch."""

    def sync(self, *batch: Any, **more: Any) -> list[str]:
        return [answer["status"] for answer in writing.sync(FARM, member("owner"), catalogue, batch, REAL, **more)]

    def stop(self) -> dict[str, Any]:
        return envelope("stop.open", {"block_id": str(made("Tunnel 1"))})

    def block(self, name: str) -> dict[str, Any]:
        payload, record = line()["block.save"]
        return envelope("block.save", payload | {"name": name}, record)

    def test_a_name_that_is_taken_is_refused_in_words(self) -> None:
        self.assertEqual(self.sync(self.stop(), self.block("Orchard A"), self.stop()), ["stored", "refused", "stored"])
        with self.assertRaises(Refused) as caught:
            send("block.save", line()["block.save"][0] | {"name": "Orchard A"})
        self.assertIn("a block called Orchard A already", caught.exception.errors["name"])

    @mock.patch("bootmark.services.base.handling.Context.take_turns", lambda *_words: None)
    def test_two_take_one_name_at_once(self) -> None:
        """Where both saw the name free, the table itself lets one of them in, and the other is told."""
        answers: list[list[str]] = []
        both = threading.Barrier(2)
        refuse = placesrefuse_taken()

        def checked(*words: Any) -> None:
            refuse(*words)
            if threading.current_thread().name not in waited:
                waited.add(threading.current_thread().name)
                both.wait(10)

        waited: set[str] = set()
        with mock.patch("bootmark.services.places.refuse_taken", checked):
            threads = [threading.Thread(target=lambda: answers.append(self.sync(self.block("Wanted by two")))) for _ in range(2)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
        self.assertEqual(sorted(answers), [["refused"], ["stored"]])
        self.assertEqual(count(Block, name="Wanted by two"), 1)

    def test_a_fault_and_a_busy_database(self) -> None:
        broken = self.stop()
        for error, status in ((RuntimeError("broken"), "fault"), (OperationalError("x", {}, Exception("busy")), "again")):
            failing = mock.patch("bootmark.services.base.handling.Context.get", side_effect=error)
            with failing, self.assertLogs("bootmark.writing", "WARNING"):
                self.assertEqual(self.sync(broken), [status])
        self.assertEqual(self.sync(self.stop(), {"kind": 3}, "nonsense", broken), ["stored", "refused", "refused", "stored"])

    def test_a_device_whose_clock_is_wrong_is_put_right(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = NULL"))
        fast = dt.timedelta(hours=3)
        done = REAL - dt.timedelta(minutes=40)
        enveloped = envelope("stop.open", {"block_id": str(made("Tunnel 1"))}, at=done + fast)
        self.assertEqual(self.sync(enveloped, sent_at=REAL + fast), ["stored"])
        with farm_session(FARM) as session:
            row = session.get_one(CommandRow, (FARM, uuid.UUID(enveloped["command_id"])))
            self.assertEqual((row.seen_at, row.told_at, row.sent_at), (done, done + fast, REAL + fast))
            session.execute(text("UPDATE farm SET clock_at = :now"), {"now": NOW})

    def test_a_clock_that_can_t_be_right_is_not_believed_and_nothing_is_thrown_away(self) -> None:
        """Set back by an empty battery, or years ahead: the record gets the time at which it came, and keeps what was said."""
        for words in ("1970-01-01T00:04:00+00:00", "2009-12-31T23:00:00-05:00", "2199-01-01T00:00:00+00:00"):
            command = self.stop() | {"seen_at": words}
            self.assertEqual(self.sync(command), ["stored"])
            with farm_session(FARM) as session:
                row = session.get_one(CommandRow, (FARM, uuid.UUID(command["command_id"])))
                self.assertEqual((row.seen_at, row.told_at), (NOW, dt.datetime.fromisoformat(words)))

    def test_a_device_s_time_is_one_with_its_zone_or_none(self) -> None:
        for told_at in (None, 5, "", "yesterday", "2026-06-18T07:40:00", "0001-01-01T00:00:00+14:00", ["2026-06-18T07:40:00+02:00"]):
            self.assertIsNone(device_moment(told_at), told_at)
        self.assertEqual(device_moment("2026-06-18T07:40:00+02:00"), dt.datetime(2026, 6, 18, 5, 40, tzinfo=dt.UTC))


def placesrefuse_taken() -> Callable[..., None]:
    from bootmark.services import places

    return places.refuse_taken
