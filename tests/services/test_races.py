"""Two who send at the same moment, for every kind of record: each is answered, nothing is stored twice, and nobody waits for the other."""

import threading
import uuid
from concurrent.futures import ThreadPoolExecutor
from typing import Any, ClassVar

from sqlalchemy import text

from bootmark.services import writing
from bootmark.services.kinds import KINDS
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope, send
from tests.services.lines import ONCE, kept, to_be_done, token_hash

SENDERS = 4
OF_ONE_RECORD = ("application.begin", "application.record", "weather.judge", "farm.save", "member.save")
"""Kinds that are about a record which is there already, and no other."""


class Races(DatabaseTest):
    line: ClassVar[dict[str, tuple[dict[str, Any], uuid.UUID]]]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.line = kept()

    def together(self, *batches: list[dict[str, Any]]) -> list[list[str]]:
        """Statuses of batches that are sent at the same moment."""
        start = threading.Barrier(len(batches))

        def sender(batch: list[dict[str, Any]]) -> list[str]:
            start.wait()
            return [answer["status"] for answer in writing.sync(FARM, member("owner"), catalogue, batch, REAL)]

        with ThreadPoolExecutor(len(batches)) as pool:
            return list(pool.map(sender, batches))

    def versions(self, record: str) -> int:
        with farm_session(FARM) as session:
            rows = session.execute(text("SELECT count(*) FROM command WHERE record_id = :id"), {"id": record})
            return int(rows.scalar_one())

    def test_the_same_command_by_all_is_stored_once(self) -> None:
        self.assertEqual(set(self.line) | ONCE, set(KINDS))
        for kind, (payload, record) in self.line.items():
            with self.subTest(kind):
                command = envelope(kind, payload, record if kind in OF_ONE_RECORD else None)
                if kind in ("station.save", "block.save", "trap.save"):
                    command["payload"] = payload | {"name": f"{kind} raced"}
                if kind == "invitation.save":
                    command["payload"] = payload | {"token_hash": token_hash()}
                before = self.versions(command["record_id"])
                statuses = [status for batch in self.together(*[[command]] * SENDERS) for status in batch]
                self.assertEqual(len(set(statuses)), 1)
                self.assertIn(statuses[0], ("stored", "conflict"))
                self.assertEqual(self.versions(command["record_id"]), before + 1)

    def test_changes_of_one_record_by_all_are_all_kept_and_one_of_them_is_the_head(self) -> None:
        for kind, (payload, _) in self.line.items():
            if kind in (*OF_ONE_RECORD, "answer.keep", "stop.open", "invitation.save"):
                continue
            with self.subTest(kind):
                first = envelope(kind, payload | ({"name": f"{kind} changed"} if "name" in payload else {}))
                self.assertEqual(self.together([first]), [["stored"]])
                record, base = uuid.UUID(first["record_id"]), uuid.UUID(first["command_id"])
                changes = [[envelope(kind, first["payload"], record, base=base)] for _ in range(SENDERS)]
                statuses = sorted(status for batch in self.together(*changes) for status in batch)
                self.assertEqual(statuses, ["conflict"] * (SENDERS - 1) + ["stored"])

    def test_one_name_taken_by_all_goes_to_one_and_the_others_are_told(self) -> None:
        for kind in ("station.save", "block.save", "trap.save"):
            with self.subTest(kind):
                payload = self.line[kind][0] | {"name": f"{kind} wanted by all"}
                statuses = sorted(
                    status for batch in self.together(*([envelope(kind, payload)] for _ in range(SENDERS))) for status in batch
                )
                self.assertEqual(statuses, ["refused"] * (SENDERS - 1) + ["stored"])

    def test_one_treatment_begun_by_all_is_begun_by_one(self) -> None:
        payload = {"treatment_id": str(to_be_done()), "began_at": NOW.isoformat()}
        self.addCleanup(to_be_done)
        statuses = sorted(
            status for batch in self.together(*([envelope("application.begin", payload)] for _ in range(SENDERS))) for status in batch
        )
        self.assertEqual(statuses, ["refused"] * (SENDERS - 1) + ["stored"])

    def test_opposite_batches_do_not_lock_each_other_out(self) -> None:
        records = [uuid.uuid4() for _ in range(12)]
        for record in records:
            send("stop.open", {"block_id": str(made("Tunnel 1")), "where": "here"}, record)
        for _ in range(5):
            batch = [envelope("stop.open", {"block_id": str(made("Tunnel 1")), "where": "there"}, record) for record in records]
            again = [command | {"command_id": str(uuid.uuid4())} for command in reversed(batch)]
            for statuses in self.together(batch, again):
                self.assertLessEqual(set(statuses), {"stored", "conflict"})
