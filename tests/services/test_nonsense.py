"""Nonsense in every field of every kind, sent as a phone would: it is refused in words, and what is sent with it is stored."""

import json
import uuid
from typing import Any, ClassVar

from hypothesis import given, settings
from hypothesis import strategies as st

from bootmark.services import writing
from bootmark.services.kinds import KINDS
from bootmark.standins.estate import FARM, NOW
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope
from tests.services.lines import ONCE, kept
from tests.services.test_fields import nonsense

ENVELOPE = ("command_id", "record_id", "base", "base_version", "seen_at", "v", "merges", "kind", "payload", "sent_at")
ODD = st.sampled_from(
    (
        10**400,
        -(10**400),
        1e308,
        float("nan"),
        float("inf"),
        "9" * 3000,
        "0001-01-01T00:00:00+14:00",
        "9999-12-31T23:59:59-14:00",
        "\x00",
        "\ud800",
    )
)


class Nonsense(DatabaseTest):
    line: ClassVar[dict[str, tuple[dict[str, Any], uuid.UUID]]]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.line = kept()

    def statuses(self, *batch: Any) -> list[str]:
        with self.assertNoLogs("bootmark.writing", "ERROR"):
            answers = writing.sync(FARM, member("owner"), catalogue, batch, REAL)
        for answer in answers:
            json.dumps(answer).encode()
            for sentence in answer.get("errors", {}).values():
                sentence.encode()
        return [answer["status"] for answer in answers]

    def test_every_kind_is_tried(self) -> None:
        self.assertEqual(set(self.line) | ONCE, set(KINDS))

    @settings(max_examples=250)
    @given(st.data())
    def test_in_a_field(self, data: st.DataObject) -> None:
        kind = data.draw(st.sampled_from(sorted(self.line)))
        payload, _ = self.line[kind]
        field = data.draw(st.sampled_from(sorted(payload)))
        odd = envelope(kind, payload | {field: data.draw(nonsense | ODD)})
        first, second = self.statuses(odd, self.stop())
        self.assertIn(first, ("stored", "refused", "wait"))
        self.assertEqual(second, "stored")

    @settings(max_examples=150)
    @given(st.data())
    def test_round_the_payload(self, data: st.DataObject) -> None:
        odd = self.stop()
        for field in data.draw(st.lists(st.sampled_from(ENVELOPE), min_size=1, max_size=3)):
            odd[field] = data.draw(nonsense | ODD)
        first, second = self.statuses(odd, self.stop())
        self.assertIn(first, ("stored", "refused", "wait", "other content"))
        self.assertEqual(second, "stored")

    @settings(max_examples=60)
    @given(nonsense | ODD)
    def test_in_place_of_a_command(self, odd: Any) -> None:
        self.assertEqual(self.statuses(odd, self.stop()), ["refused", "stored"])

    def stop(self) -> dict[str, Any]:
        return envelope("stop.open", {"block_id": self.line["stop.open"][0]["block_id"]}, at=NOW)
