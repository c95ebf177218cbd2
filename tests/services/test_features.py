"""What stands on the plan and is no block: drawn in its form, refused in words, and the gate at which walks begin."""

import uuid
from typing import Any

from bootmark.core.ground.features import FORMS, LEAST_POINTS
from bootmark.core.meanings import FeatureKind
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.scouting import rounds
from bootmark.standins.estate import FARM, NOW, ORIGIN
from bootmark.store.models import Farm
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import REAL, send


def at(*points: tuple[float, float]) -> list[list[float]]:
    return [list(corner) for corner in ORIGIN.to_degrees(points)]


class FeaturesTest(DatabaseTest):
    def gate(self) -> tuple[float, float]:
        with farm_session(FARM) as session:
            return ground.gate(session, session.get_one(Farm, FARM))


class Features(FeaturesTest):
    def test_each_kind_is_kept_in_its_own_form(self) -> None:
        corners = at((10, 10), (60, 10), (60, 40))
        for kind in FeatureKind:
            least = LEAST_POINTS[FORMS[kind]]
            send("feature.save", {"feature": kind, "points": corners[:least]})
            if least > 1:
                with self.assertRaises(Refused) as caught:
                    send("feature.save", {"feature": kind, "points": corners[: least - 1]})
                self.assertIn("at least", caught.exception.errors["points"])

    def test_what_is_refused_and_where(self) -> None:
        knot = at((0, 0), (50, 50), (50, 0), (0, 50))
        odd: tuple[tuple[dict[str, Any], str, str], ...] = (
            ({"points": []}, "points", "Nothing is drawn"),
            ({"points": [[7.1]]}, "points", "Corner 1 is not two numbers"),
            ({"points": [[7.1, 46.2], [7.1, 46.2001]]}, "points", "one spot"),
            ({"feature": "water", "points": knot}, "points", "crosses itself"),
            ({"points": [[2600000, 1200000]]}, "points", "metres of some projection"),
            ({"points": [[17.1, 46.2]]}, "points", "further from the farm"),
            ({"feature": "castle"}, "feature", "can't be chosen"),
            ({"height": 9}, "height", "nobody asks"),
            ({"feature": "plant", "height": 900}, "height", "out of range"),
        )
        for change, field, words in odd:
            with self.subTest(change=change), self.assertRaises(Refused) as caught:
                send("feature.save", {"feature": "gate", "points": at((0, 0))} | change)
            self.assertIn(words, caught.exception.errors[field])
        with self.assertRaises(Refused):
            send("feature.save", {"feature": "gate", "points": at((0, 0))}, role="scout")


class Gate(FeaturesTest):
    def test_walks_begin_at_the_gate_and_west_of_everything_while_there_is_none(self) -> None:
        self.assertEqual(self.gate(), (30.0, 180.0))
        with farm_session(FARM) as session:
            before = rounds.today(session, session.get_one(Farm, FARM), catalogue, catalogue, NOW, REAL).walk
            gates = [feature for feature in ground.features(session) if feature.kind == FeatureKind.GATE]
        # The gate moves to the far east: the walk begins at the other end.
        for feature in gates:
            moved = {"feature": "gate", "points": at((900, 250))}
            send("feature.save", moved, feature.id, base=feature.command_id)
        with farm_session(FARM) as session:
            after = rounds.today(session, session.get_one(Farm, FARM), catalogue, catalogue, NOW, REAL).walk
        self.assertEqual({stop.block for stop in before.stops}, {stop.block for stop in after.stops})
        self.assertNotEqual(before.stops[0].block, after.stops[0].block)
        with farm_session(FARM) as session:
            rows = [feature for feature in ground.features(session) if feature.kind == FeatureKind.GATE]
        for feature in rows:
            send("feature.save", {"feature": "gate", "points": feature.points, "ended": True}, feature.id, base=feature.command_id)
        x, y = self.gate()
        self.assertTrue(x < 60 and 30 < y < 300, (x, y))
        again = {"feature": "gate", "points": at((30, 180))}
        send("feature.save", again, uuid.uuid4())
