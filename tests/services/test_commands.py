"""Commands: every kind sent twice, out of order, with a stale base, as the wrong person, by two at once."""

import copy
import threading
import uuid
from typing import Any

from sqlalchemy import func, select

from bootmark.services import writing
from bootmark.services.base.command import Forbidden, OtherContent, TooEarly
from bootmark.services.kinds import KINDS
from bootmark.standins.estate import FARM, made
from bootmark.store.models import CommandRow, FindingRow, Look, ReturnVisit, Stop, TreatmentRow
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope, send
from tests.services.lines import ONCE, application, count, line


class EveryKind(DatabaseTest):
    def test_all_kinds_are_covered_here(self) -> None:
        self.assertEqual(set(line()) | {"application.record"} | ONCE, set(KINDS))

    def test_sent_twice_is_stored_once(self) -> None:
        application_line = line()
        for kind, (payload, record) in application_line.items():
            command = uuid.uuid4()
            first, second = (send(kind, payload, record, command=command) for _ in range(2))
            self.assertEqual(first["status"], "stored", kind)
            self.assertTrue(second.pop("replayed"))
            self.assertEqual(first, second)
            with farm_session(FARM) as session:
                versions = VERSIONS[KINDS[kind].head]
                rows = session.execute(select(func.count()).select_from(versions).where(versions.c.record_id == record)).scalar_one()
            self.assertEqual(rows, 1, kind)
        decision = application_line["decision.make"][1]
        payload, record, command = application(decision), uuid.uuid4(), uuid.uuid4()
        for _ in range(2):
            send("application.record", payload, record, role="applicator", command=command)
        self.assertEqual(count(TreatmentRow, decision_id=decision), 3)
        self.assertEqual(count(ReturnVisit, decision_id=decision, state="booked"), 1)
        self.assertEqual(count(FindingRow, look_id=application_line["look.record"][1]), 1)

    def test_the_same_id_with_other_content_is_refused(self) -> None:
        for kind, (payload, record) in line().items():
            command = uuid.uuid4()
            send(kind, payload, record, command=command)
            other = copy.deepcopy(payload) | {"note": "changed"}
            with self.assertRaises(OtherContent):
                send(kind, other, record, command=command)

    def test_out_of_order_waits_and_a_batch_sorts_itself(self) -> None:
        application_line = line()
        for kind in ("look.record", "sample.record", "decision.make"):
            with self.assertRaises(TooEarly):
                send(kind, *application_line[kind])
        batch = [envelope(kind, payload, record) for kind, (payload, record) in reversed(list(application_line.items()))]
        first, again, third = (writing.sync(FARM, member("owner"), catalogue, batch, REAL) for _ in range(3))
        self.assertEqual([row["command_id"] for row in first], [record["command_id"] for record in batch])
        self.assertNotIn("refused", {row["status"] for row in first})
        # What hangs on two others that were sent after it needs a second sending, as the outbox does.
        self.assertEqual({row["status"] for row in again}, {"stored"})
        self.assertTrue(all(row["replayed"] for row in third))

    def test_a_stale_base_keeps_both_and_flags_them_until_a_person_merges(self) -> None:
        for kind, (payload, record) in line().items():
            first, second, stale, settled = (uuid.uuid4() for _ in range(4))
            send(kind, payload, record, command=first)
            self.assertEqual(send(kind, payload, record, base=first, command=second)["status"], "stored", kind)
            late = send(kind, payload, record, base=first, command=stale)
            self.assertEqual((late["status"], late["version"]), ("conflict", 3), kind)
            self.assertEqual(self.head(kind, record), (2, second, True))
            versions = VERSIONS[KINDS[kind].head]
            with farm_session(FARM) as session:
                rows = session.execute(
                    select(versions.c.conflict, versions.c.base_command).where(versions.c.record_id == record).order_by(versions.c.number)
                )
                self.assertEqual([tuple(row) for row in rows], [(False, None), (False, first), (True, first)])
            send(kind, payload, record, base=second)
            self.assertTrue(self.head(kind, record)[2], "a save on the head merges nothing by itself")
            head = self.head(kind, record)[1]
            send(kind, payload, record, base=head, merges=(stale,), command=settled)
            self.assertEqual(self.head(kind, record), (5, settled, False))

    def head(self, kind: str, record: uuid.UUID) -> tuple[int, uuid.UUID, bool]:
        with farm_session(FARM) as session:
            row = session.get_one(KINDS[kind].head, (FARM, record))
            return row.version, row.command_id, row.conflict

    def test_one_person_alone_without_signal_saves_twice_and_nothing_is_flagged(self) -> None:
        payload, record = line()["look.record"]
        send("stop.open", {"block_id": str(made("Tunnel 1"))}, uuid.UUID(payload["stop_id"]))
        start, record_id, two = (uuid.uuid4() for _ in range(3))
        send("look.record", payload, record, command=start)
        batch = [
            envelope("look.record", payload | {"note": "one"}, record, base=start, command=record_id),
            envelope("look.record", payload | {"note": "two"}, record, base=record_id, command=two),
        ]
        answers = writing.sync(FARM, member("scout"), catalogue, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["stored", "stored"])
        self.assertEqual(self.head("look.record", record), (3, two, False))

    def test_one_saves_twice_while_another_saves_once(self) -> None:
        payload, record = line()["look.record"]
        send("stop.open", {"block_id": str(made("Tunnel 1"))}, uuid.UUID(payload["stop_id"]))
        start, other, record_id, two, three = (uuid.uuid4() for _ in range(5))
        send("look.record", payload, record, command=start)
        send("look.record", payload | {"note": "B"}, record, base=start, command=other)
        batch = [
            envelope("look.record", payload | {"note": "A1"}, record, base=start, command=record_id),
            envelope("look.record", payload | {"note": "A2"}, record, base=record_id, command=two),
        ]
        answers = writing.sync(FARM, member("scout"), catalogue, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["conflict", "conflict"])
        self.assertEqual(self.head("look.record", record), (2, other, True))
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(Look, (FARM, record)).note, "B")
            versions = VERSIONS[Look]
            kept = select(versions.c.base_command, versions.c.payload["note"].astext).where(versions.c.command_id == two)
            self.assertEqual(session.execute(kept).one(), (record_id, "A2"))
        self.assertEqual(send("look.record", payload, record, base=two, command=three)["status"], "conflict")

    def test_a_base_that_has_not_arrived_waits(self) -> None:
        payload, record = line()["stop.open"]
        with self.assertRaises(TooEarly):
            send("stop.open", payload, record, base=uuid.uuid4())

    def test_what_a_device_kept_before_the_base_was_a_command(self) -> None:
        payload, record = line()["stop.open"]

        def kept(number: int) -> dict[str, Any]:
            new = envelope("stop.open", payload, record)
            return {name: new[name] for name in ("command_id", "kind", "record_id", "seen_at", "payload")} | {"base_version": number}

        batch = [kept(0), kept(1), kept(1), kept(9)]
        answers = writing.sync(FARM, member("scout"), catalogue, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["stored", "stored", "conflict", "wait"])
        again = writing.sync(FARM, member("scout"), catalogue, batch[:1], REAL)
        self.assertTrue(again[0]["replayed"])

    def test_viewers_write_nothing_and_scouts_sign_nothing(self) -> None:
        application_line = line()
        before = count(CommandRow)
        for kind, (payload, record) in application_line.items():
            with self.assertRaises(Forbidden):
                send(kind, payload, record, role="viewer")
        self.assertEqual(count(CommandRow), before)
        for kind, (payload, record) in application_line.items():
            send(kind, payload, record)
        with self.assertRaises(Forbidden):
            send("application.record", application(application_line["decision.make"][1]), role="scout")

    def test_two_at_once_store_it_once(self) -> None:
        payload, record = line()["stop.open"]
        command, results = uuid.uuid4(), []

        def sender() -> None:
            results.append(send("stop.open", payload, record, command=command))

        threads = [threading.Thread(target=sender) for _ in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(len(results), 6)
        self.assertEqual(sum("replayed" not in result for result in results), 1)
        self.assertEqual(count(Stop, id=record), 1)

    def test_two_writers_of_one_record_take_turns(self) -> None:
        payload, record = line()["stop.open"]
        first = uuid.uuid4()
        send("stop.open", payload, record, command=first)
        results: list[str] = []

        def sender() -> None:
            results.append(send("stop.open", payload, record, base=first)["status"])

        threads = [threading.Thread(target=sender) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(results), ["conflict", "conflict", "conflict", "stored"])
