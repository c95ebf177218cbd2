"""The trap register: what is due, what is caught, what it proposes."""

import datetime as dt
import unittest
import uuid
from typing import Any

from sqlalchemy import select

from bootmark.core import judgement
from bootmark.core.field import traps as rules
from bootmark.core.field.worth import BlockState, DueTrap, whys
from bootmark.core.meanings import Measure
from bootmark.core.messages import Says
from bootmark.core.types import Sample
from bootmark.say import ENGLISH
from bootmark.services.base.command import Refused
from bootmark.services.scouting import rounds
from bootmark.services.seasons import forecasts, traps
from bootmark.services.treatment import thresholds, weighing
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Application, Block, Farm, Trap, TrapCheck, TreatmentRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import REAL, send

DAY = NOW.date()


class Rules(unittest.TestCase):
    def test_reading_and_lure_by_day(self) -> None:
        due_day = rules.due(dt.date(2026, 5, 1), 3, dt.date(2026, 6, 10), dt.date(2026, 5, 1), 42)
        self.assertEqual(
            [(proposal.what, proposal.on) for proposal in due_day], [("lure", dt.date(2026, 6, 12)), ("check", dt.date(2026, 6, 13))]
        )
        self.assertEqual(rules.due(dt.date(2026, 5, 1), 7, None, None, None), (rules.Due("check", dt.date(2026, 5, 8)),))
        with self.assertRaises(ValueError):
            rules.due(dt.date(2026, 5, 1), 0, None, None, None)

    def test_a_catch_is_spread_over_the_days_since_the_reading_before(self) -> None:
        """By hand: 6 in three days are 14 in a week; 6 since it was put out twelve days ago are 3.5, and 3.5 is rounded to even, 4."""
        first, second = (dt.date(2026, 5, 13), 6), (dt.date(2026, 5, 16), 6)
        put_out, today = dt.date(2026, 5, 1), dt.date(2026, 5, 17)
        for checks, rate in (((first, second), 14), ((first,), 4), ((), None)):
            self.assertEqual(rules.weekly(put_out, checks, today), rate)
        self.assertIsNone(rules.weekly(put_out, (first, second), second[0] + dt.timedelta(days=judgement.CATCH_DAYS + 1)))

    def test_only_an_empty_trap_past_its_lure_tells_nothing(self) -> None:
        last = dt.date(2026, 5, 1) + dt.timedelta(days=42)
        for caught, on, days, spent in (
            (0, last + dt.timedelta(days=1), 42, True),
            (0, last, 42, False),
            (1, last + dt.timedelta(days=1), 42, False),
            (None, last + dt.timedelta(days=1), 42, False),
            (0, last + dt.timedelta(days=1), None, False),
        ):
            self.assertEqual(rules.spent(caught, on, dt.date(2026, 5, 1), days), spent, (caught, on, days))

    def test_a_trap_that_waits_is_a_reason_to_walk(self) -> None:
        state = BlockState(
            "b",
            "B",
            (0, 0),
            DAY,
            traps=(DueTrap("Trap 9", "codling-moth", "lure", DAY), DueTrap("Trap 9", "codling-moth", "check", DAY + dt.timedelta(days=1))),
        )
        self.assertEqual([ENGLISH.say(why.reason) for why in whys(state, DAY)], ["Give Trap 9 a new lure, due today."])


class Register(DatabaseTest):
    def send(self, kind: str, payload: dict[str, Any], record: uuid.UUID | None = None, **more: Any) -> dict[str, Any]:
        return send(kind, payload, record, role="scout", **more)

    def told(self, **more: Any) -> dict[str, Any]:
        plain = {
            "name": "Trap 7",
            "block_id": str(made("Mill Piece")),
            "agent": "diamondback-moth",
            "kind": "delta",
            "longitude": 7.106,
            "latitude": 46.198,
        }
        return plain | {"set_on": "2026-06-01", "lure_on": "2026-06-01", "lure_days": 30, "check_days": 4} | more

    def test_what_waits_today(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            hanging = traps.register(session, DAY)
            demo = [trap for trap in hanging if trap.trap.name in ("Trap 1", "Trap 2", "Trap 3")]
            self.assertEqual(len(demo), 3)
            waits = traps.waiting(demo, DAY)
            self.assertEqual(
                {(row.name, row.what) for rows in waits.values() for row in rows},
                {("Trap 1", "check"), ("Trap 2", "check"), ("Trap 2", "lure")},
            )
            walk = rounds.today(session, farm, catalogue, catalogue, NOW, REAL).walk
            self.assertIn("new lures", walk.carry)
            self.assertTrue(
                any(why.reason.kind == Says.READ_TRAP and why.reason.facts["trap"] == "Trap 1" for stop in walk.stops for why in stop.whys)
            )

    def test_a_sustained_catch_proposes_a_biofix_until_one_is_set(self) -> None:
        def proposed() -> list[tuple[str, str, dt.date]]:
            with farm_session(FARM) as session:
                farm = session.get_one(Farm, FARM)
                return [
                    (proposal.block, proposal.agent, proposal.on)
                    for proposal in traps.proposals(session, farm, catalogue, DAY, traps.register(session, DAY))
                ]

        self.assertEqual(proposed(), [("Mill Piece", "diamondback-moth", dt.date(2026, 6, 13))])
        self.send(
            "biofix.set", {"block_id": str(made("Mill Piece")), "agent": "diamondback-moth", "on": "2026-06-13", "basis": "3 and 5 caught"}
        )
        self.assertEqual(proposed(), [])
        with farm_session(FARM) as session:
            self.assertIn((made("Mill Piece"), "diamondback-moth"), forecasts.watched(session, DAY))

    def test_a_new_lure_starts_its_days_anew(self) -> None:
        trap_id = uuid.UUID(self.send("trap.save", self.told(name="Trap 11"))["record_id"])
        self.send("trap.check", {"trap_id": str(trap_id), "on": "2026-06-15", "caught": 2, "new_lure": True, "note": ""})
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(Trap, (FARM, trap_id)).lure_on, dt.date(2026, 6, 15))

    def test_what_could_not_be_read_is_no_nought(self) -> None:
        trap = self.send("trap.save", self.told(name="Trap 21", agent="codling-moth", set_on="2026-06-01", lure_on="2026-06-01"))[
            "record_id"
        ]
        visits = (("06-05", 6, "read"), ("06-09", None, "down"), ("06-12", None, "soaked"), ("06-16", 11, "read"))
        for on, caught, state in visits:
            self.send("trap.check", {"trap_id": trap, "on": f"2026-{on}", "caught": caught, "state": state})
        with farm_session(FARM) as session:
            hung = next(hung for hung in traps.register(session, DAY) if hung.trap.name == "Trap 21")
            self.assertEqual([check.caught for check in hung.checks], [6, 11])
            self.assertEqual(len(hung.visits), 4)
            # Eleven in the eleven days since it was read last: seven a week. A soaked trap is visited all the same.
            self.assertEqual(traps.weekly([hung], hung.trap.block_id, "codling-moth", DAY), (7,))
            self.assertEqual(traps.weekly([hung], hung.trap.block_id, "codling-moth", DAY + dt.timedelta(days=20)), ())
            starts = forecasts._waited(session, DAY)
            self.assertEqual(starts[hung.trap.block_id, "codling-moth", dt.date(2026, 6, 16)], 11)
        for payload, words in (
            ({"caught": None, "state": "read"}, "why it could not be read"),
            ({"caught": 0, "state": "full"}, "has no number"),
            ({"caught": 3, "state": "stolen"}, "can't be chosen"),
        ):
            with self.assertRaises(Refused) as caught_error:
                self.send("trap.check", {"trap_id": trap, "on": "2026-06-17", **payload})
            self.assertIn(words, " ".join(caught_error.exception.errors.values()))

    def test_an_empty_trap_under_a_spent_lure_tells_nothing(self) -> None:
        told = self.told(name="Trap 22", set_on="2026-05-01", lure_on="2026-05-01", lure_days=20)
        trap = self.send("trap.save", told)["record_id"]
        for on, caught in (("05-20", 0), ("06-01", 0), ("06-10", 2)):
            self.send("trap.check", {"trap_id": trap, "on": f"2026-{on}", "caught": caught})
        with farm_session(FARM) as session:
            hung = next(hung for hung in traps.register(session, DAY) if hung.trap.name == "Trap 22")
        self.assertEqual([(visit.caught, visit.state) for visit in hung.visits], [(0, "read"), (None, "spent"), (2, "read")])

    def test_a_card_has_no_lure(self) -> None:
        trap_id = uuid.UUID(self.send("trap.save", self.told(name="Card 1", kind="card", lure_days=None))["record_id"])
        with farm_session(FARM) as session:
            trap = session.get_one(Trap, (FARM, trap_id))
            self.assertEqual((trap.lure_on, trap.lure_days), (None, None))

    def test_one_taken_in_waits_for_nothing(self) -> None:
        first = uuid.uuid4()
        trap_id = uuid.UUID(self.send("trap.save", self.told(name="Trap 12"), command=first)["record_id"])
        self.send("trap.save", self.told(name="Trap 12", ended=True), trap_id, base=first)
        with farm_session(FARM) as session:
            self.assertNotIn("Trap 12", [hung.trap.name for hung in traps.register(session, DAY)])
            self.assertIn("Trap 12", [hung.trap.name for hung in traps.register(session, DAY, ended=True)])

    def test_what_is_refused_and_where(self) -> None:
        for change, field, words in (
            ({"name": "Trap 1"}, "name", "lost trap"),
            ({"set_on": "2026-07-01"}, "set_on", "still ahead"),
            ({"lure_on": "2026-07-01"}, "lure_on", "still ahead"),
            ({"check_days": 0}, "check_days", "out of range"),
            ({"longitude": 17.1}, "longitude", "further from the farm"),
            ({"kind": "net"}, "kind", "can't be chosen"),
        ):
            with self.assertRaises(Refused) as caught:
                self.send("trap.save", self.told(**change))
            self.assertIn(words, caught.exception.errors[field])
        trap = str(made("trap/Trap 1"))
        odd: tuple[tuple[dict[str, Any], str, str], ...] = (
            ({"caught": 1.5}, "caught", "whole number"),
            ({"caught": -2}, "caught", "out of range"),
            ({"on": "2025-06-01"}, "on", "has hung since"),
            ({"on": "2026-06-30"}, "on", "has hung since"),
        )
        for change, field, words in odd:
            with self.assertRaises(Refused) as caught:
                self.send("trap.check", {"trap_id": trap, "on": "2026-06-17", "caught": 1, "note": "", **change})
            self.assertIn(words, caught.exception.errors[field])

    def hang_dispensers(self, block: uuid.UUID, name: str) -> dict[str, Any]:
        """Dispensers on a block, twenty days ago; and a trap among them, to be sent."""
        with farm_session(FARM, role="owner") as session:
            done, treatment = session.execute(
                select(Application, TreatmentRow).join(TreatmentRow, TreatmentRow.id == Application.treatment_id).limit(1)
            ).one()
            treatment.block_id, treatment.agent, treatment.control = block, "oriental-fruit-moth", "lure-disruption"
            done.started_at = done.finished_at = NOW - dt.timedelta(days=20)
        return {
            "name": name, "block_id": str(block), "agent": "oriental-fruit-moth", "kind": "delta", "longitude": 7.1, "latitude": 46.2,
            "set_on": (DAY - dt.timedelta(days=14)).isoformat(), "lure_days": 60, "check_days": 3,
        }  # fmt: skip

    def test_an_empty_trap_among_dispensers_proves_nothing(self) -> None:
        hung = uuid.uuid4()
        trap = self.hang_dispensers(made("Orchard A"), "Empty among dispensers")
        send("trap.save", trap, hung)

        def read(caught: int, strong: bool) -> str:
            with farm_session(FARM) as session:
                base = session.get_one(Trap, (FARM, hung)).command_id
            send("trap.save", trap | {"strong": strong}, hung, base=base)
            check = uuid.uuid4()
            send("trap.check", {"trap_id": str(hung), "on": DAY.isoformat(), "caught": caught}, check)
            with farm_session(FARM) as session:
                return session.get_one(TrapCheck, (FARM, check)).state

        self.assertEqual([read(0, False), read(2, False), read(0, True)], ["disrupted", "read", "read"])

    def test_a_catch_among_dispensers_is_held_against_its_own_threshold(self) -> None:
        block, hung = made("Orchard B"), uuid.uuid4()
        send("trap.save", self.hang_dispensers(block, "Among dispensers") | {"strong": True}, hung)
        # Six in fourteen days are three in a week: elsewhere ten matter.
        send("trap.check", {"trap_id": str(hung), "on": DAY.isoformat(), "caught": 6})

        def caught() -> Sample | None:
            with farm_session(FARM) as session:
                agent = thresholds.own(session, catalogue).agent("oriental-fruit-moth")
                farm, ground = session.get_one(Farm, FARM), session.get_one(Block, (FARM, block))
                return weighing.caught(session, farm, ground, agent, DAY)

        self.assertIsNone(caught())
        own = {"agent": "oriental-fruit-moth", "crop": "*", "value": 3, "why": "Strong lures"}
        send("threshold.set", own | {"measure": "disrupted"})
        sample = caught()
        assert sample
        self.assertEqual((sample.measure, sample.counts), (Measure.DISRUPTED, (3,)))
