"""Every JSON door with bodies of all sorts: an answer in words, and never a failure of ours."""

import json
from typing import Any

from bootmark.services.base.command import Refused
from bootmark.services.weather import pushed
from bootmark.standins.estate import FARM, made
from bootmark.store.models import Enquiry, Look, Station
from bootmark.store.session import farm_session
from tests.database import member
from tests.web.test_pages import F, PagesTest

HOUR = {"at": "2026-06-18T05:00:00+00:00", "temp": 14.0, "rh": 70, "wind": 1.0, "rain": 0.0}
NO_JSON = (b"", b"{", b"\xff\xfe", b"\x00", b"[" * 100_000, b'{"a":' * 100_000, b'"' + b"x" * 1_000_000 + b'"', b"1" * 5_000)
NO_CASE: tuple[Any, ...] = (
    None, [], [1], "x", 7, True, {}, {"signs": None}, {"signs": []}, {"signs": {"stippling": []}}, {"signs": {"stippling": {"seen": 1}}},
    {"signs": {"": "seen"}}, {"signs": {"stippling": "seen"}, "tools": {"a": 1}, "seq": []}, {"signs": {"stippling": 1e400}, "tools": [[]]},
    {"counts": None}, {"counts": "12"}, {"counts": [None]}, {"counts": [[1]]}, {"counts": [1e400]}, {"counts": [10**400]}, {"counts": [-1]},
    {"counts": [1], "enemies": [1, 2], "measure": "mean"}, {"counts": [1], "measure": "none"}, {"counts": [1], "measure": []},
    {"counts": [1] * 50_000, "measure": "mean"}, {"counts": {"a": 1}, "measure": "mean"},
    {"commands": None}, {"commands": {}}, {"commands": [None, [], 1, "x", {}]}, {"commands": [{"command_id": [], "kind": {}}]},
    {"commands": [{}] * 201}, {"sent_at": 5, "commands": []}, {"sent_at": "0001-01-01T00:00:00+14:00", "commands": [{}]},
    {"readings": None}, {"readings": [None, [], 1, {}]}, {"readings": [HOUR | {"at": "0001-01-01T00:00:00+14:00"}]},
    {"readings": [HOUR | {"temp": 10**400}]}, {"readings": [HOUR | {"temp": 1e400}]}, {"readings": [HOUR | {"rh": "70"}]},
    {"readings": [HOUR] * 5_000}, {"readings": [HOUR | {"at": "\x00"}]}, {"readings": [HOUR | {"at": 10**300}]},
)  # fmt: skip


class Bodies(PagesTest):
    def doors(self) -> dict[str, dict[str, str]]:
        """Address of each door that takes JSON, with what it asks for besides."""
        token = {"X-CSRFToken": self.token(self.client, f"{F}/farm")}
        with farm_session(FARM) as session:
            key = pushed.give_key(session, member("owner"), session.get_one(Station, (FARM, made("Ridge mast"))))
        return {
            f"{F}/look/{self.one(Look).stop_id}/rank": token,
            f"{F}/enquiry/{self.one(Enquiry).id}/rank": token,
            f"{F}/count/read": token,
            f"{F}/sync": token,
            f"/push/{FARM}/{made('Ridge mast')}": {"Authorization": f"Bearer {key}"},
        }

    def test_any_body_is_answered(self) -> None:
        bodies = [*NO_JSON, *(json.dumps(body).encode() for body in NO_CASE)]
        for address, headers in self.doors().items():
            for body in bodies:
                with self.assertNoLogs("bootmark.error", "ERROR"):
                    answer = self.client.post(address, data=body, headers=headers, content_type="application/json")
                self.assertLess(answer.status_code, 500, (address, body[:80]))
                self.assertTrue(answer.get_data(), (address, body[:80]))

    def test_a_good_one_after_them_all(self) -> None:
        answers = {}
        for address, headers in self.doors().items():
            case = {"signs": {}, "counts": [3, 4, 5], "measure": "mean", "commands": [], "readings": [HOUR], "seq": 4}
            answers[address] = self.client.post(address, json=case, headers=headers).status_code
        self.assertEqual(set(answers.values()), {200}, answers)

    def test_a_form_with_a_nul_or_far_too_long_is_refused_beside_its_field(self) -> None:
        for name in ("Tunnel\x00 9", "x" * 5_000):
            form = self.form() | {
                "name": name,
                "block_id": str(made("Orchard A")),
                "agent": "codling-moth",
                "kind": "delta",
                "x": "1",
                "y": "1",
            }
            answer = self.post(self.client, f"{F}/traps", form | {"set_on": "2026-06-01", "lure_days": "42", "check_days": "3"})
            self.assertEqual(answer.status_code, 400)
            self.assertRegex(answer.get_data(as_text=True), "is the most|can&#39;t be stored")

    def test_a_refused_key_is_refused_in_words(self) -> None:
        with farm_session(FARM) as session, self.assertRaises(Refused):
            pushed.give_key(session, member("owner"), session.get_one(Station, (FARM, made("Ridge mast"))), "short")
