"""Commands of older shapes, as devices of long ago send them: each is still taken, and kept in the present shape."""

import uuid
from typing import Any

from bootmark.services import writing
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.base.handling import Sent
from bootmark.services.kinds import KINDS
from bootmark.standins.estate import FARM, NOW, ORIGIN, made
from bootmark.store.models import Farm, Trap
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope

METRES = [[10, 500], [90, 500], [90, 560]]
OLD: dict[tuple[str, int], dict[str, Any]] = {
    ("block.save", 1): {"name": "Old Piece", "crop": "pear", "place": "orchard", "area": 0.2, "outline": METRES},
    ("trap.save", 1): {
        "name": "Old Trap", "block_id": str(made("Orchard A")), "agent": "codling-moth", "kind": "delta", "x": 120, "y": 80.5,
        "set_on": "2026-06-01", "lure_days": 30, "check_days": 4,
    },
    ("decision.make", 1): {"look_id": str(made("no look")), "agent": "two-spotted-spider-mite", "instead": "leave"},
}  # fmt: skip
"""An example of each kind and version that is no more."""


FAR = {"outline": [[1e300, 1]] * 3, "y": 1e300}


class Upgrades(DatabaseTest):
    def send(self, kind: str, v: int, payload: object) -> uuid.UUID:
        sent = Sent.of(envelope(kind, payload, v=v), NOW)
        with farm_session(FARM) as session:
            writing.handle(session, session.get_one(Farm, FARM), member("owner"), catalogue, sent, REAL)
        return sent.record_id

    def test_every_older_version_has_its_example(self) -> None:
        older = {(kind, v) for kind, handler in KINDS.items() for v in range(1, handler.command.spec.v)}
        self.assertEqual(older, set(OLD))
        self.assertEqual(older, {(kind, v) for kind, handler in KINDS.items() for v in handler.upgrades})

    def test_metres_on_the_plan_become_degrees(self) -> None:
        block = self.send("block.save", 1, OLD["block.save", 1])
        trap = self.send("trap.save", 1, OLD["trap.save", 1])
        with farm_session(FARM) as session:
            row, farm = ground.block(session, block), session.get_one(Farm, FARM)
            self.assertEqual(ground.on_plan(farm, row), tuple((float(x), float(y)) for x, y in METRES))
            [payload] = session.execute(VERSIONS[type(row)].select().where(VERSIONS[type(row)].c.record_id == block)).all()
            self.assertEqual(payload.payload["outline"], row.outline)
            hung = session.get_one(Trap, (FARM, trap))
            self.assertEqual(ORIGIN.to_plan([(hung.longitude, hung.latitude)]), ((120.0, 80.5),))

    def test_what_can_t_be_read_is_refused_and_fails_nothing(self) -> None:
        for (kind, v), payload in OLD.items():
            odd_payloads: tuple[Any, ...] = (None, [], "x", {}, payload | {"outline": [[1]], "x": "far"}, payload | FAR)
            for odd in odd_payloads:
                with self.subTest(kind=kind, odd=odd), self.assertRaises(Refused):
                    self.send(kind, v, odd)
