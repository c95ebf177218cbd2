"""Calls against the rules, calls that wait for a signature, opinions on them, and controls that go along."""

import datetime as dt
import uuid
from typing import Any

from bootmark.core import judgement
from bootmark.core.meanings import ControlKind, DecisionKind
from bootmark.services import writing
from bootmark.services.base import grown
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.handling import Sent
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.base.states import CallState, TreatmentState, VisitState
from bootmark.services.scouting import closed
from bootmark.services.treatment import opinions, timing, weighing
from bootmark.standins.estate import FARM, NAME, NOW
from bootmark.store.models import BegunWork, DecisionRow, Farm, Hold, ReturnVisit, SampleRow, Stop, TreatmentRow
from bootmark.store.rows import of_farm
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue, member
from tests.sending import REAL, envelope, send
from tests.services.lines import application, colleague, line, reported

LATER = dt.timedelta(minutes=10)
WHY = "The customer takes none of it with webs."
FEW = {"counts": [0, 1] * 20, "enemies": [0] * 40}


class Signing(DatabaseTest):
    def setUp(self) -> None:
        super().setUp()
        self.signed(False)

    def signed(self, wanted: bool) -> None:
        with farm_session(FARM) as session:
            session.get_one(Farm, FARM).calls_signed = wanted

    def counted(self, **sample: Any) -> tuple[dict[str, Any], uuid.UUID]:
        """A stop with its look and count, kept. Returns a good call, and its record."""
        payloads = line()
        for kind in ("stop.open", "look.record"):
            send(kind, *payloads[kind])
        count, record = payloads["sample.record"]
        send("sample.record", count | sample, record)
        return payloads["decision.make"]

    def call(self, record: uuid.UUID) -> DecisionRow:
        with farm_session(FARM) as session:
            row = session.get_one(DecisionRow, (FARM, record))
            session.expunge(row)
            return row

    def planned(self, record: uuid.UUID) -> list[str]:
        with farm_session(FARM) as session:
            rows = of_farm(TreatmentRow).where(TreatmentRow.decision_id == record, TreatmentRow.state == TreatmentState.PLANNED)
            return [row.control for row in session.scalars(rows.order_by(TreatmentRow.ordinal))]

    def booked(self, record: uuid.UUID) -> int:
        with farm_session(FARM) as session:
            rows = of_farm(ReturnVisit).where(ReturnVisit.decision_id == record, ReturnVisit.state == VisitState.BOOKED)
            return len(list(session.scalars(rows)))

    def refused(self, payload: dict[str, Any], field: str, record: uuid.UUID | None = None) -> None:
        with self.assertRaises(Refused) as caught:
            send("decision.make", payload, record or uuid.uuid4())
        self.assertIn(field, caught.exception.errors)

    def test_few_are_treated_all_the_same_with_a_reason(self) -> None:
        payload, record = self.counted(**FEW)
        self.refused(payload, "why", record)
        send("decision.make", payload | {"why": WHY}, record)
        made = self.call(record)
        self.assertEqual((made.control, made.why), ("insecticidal-soap", WHY))
        self.assertEqual(made.working["result"]["kind"], DecisionKind.LEAVE, "what the rules say stays beside it")
        self.assertTrue(self.planned(record))

    def test_many_are_left_with_a_reason_and_looked_at_again(self) -> None:
        payload, record = self.counted()
        left = payload | {"control": "", "instead": "leave"}
        self.refused(left, "why", record)
        self.refused(left | {"why": "   so   "}, "why", record)
        send("decision.make", left | {"why": WHY}, record)
        self.assertEqual((self.call(record).kind, self.planned(record), self.booked(record)), (DecisionKind.LEAVE, [], 1))

    def test_a_phone_of_before_leaves_it_without_a_reason(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload | {"control": "", "instead": "leave"}, record, v=1)
        self.assertEqual(self.call(record).kind, DecisionKind.LEAVE)

    def test_nothing_is_sprayed_on_what_is_not_proved(self) -> None:
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        look, record = payloads["look.record"]
        send("look.record", look | {"signs": {"stippling": "seen"}}, record)
        bare = payloads["decision.make"][0] | {"sample_id": None, "why": WHY}
        self.refused(bare, "control")

    def test_a_report_is_not_called_away(self) -> None:
        here, record = reported(), uuid.uuid4()
        with farm_session(FARM) as session:
            look = session.get_one(DecisionRow, (FARM, here.call)).look_id
        payload = {"look_id": str(look), "agent": "plum-curculio"}
        self.refused(payload | {"instead": "leave", "why": WHY}, "instead", record)
        self.signed(True)
        send("decision.make", payload, record, role="scout")
        self.assertEqual(self.call(record).state, CallState.PROPOSED)
        with farm_session(FARM) as session:
            self.assertTrue(list(session.scalars(of_farm(Hold).where(Hold.decision_id == record))), "it holds before it is signed")

    def test_a_scout_proposes_and_an_adviser_signs(self) -> None:
        self.signed(True)
        payload, record = self.counted()
        send("decision.make", payload, record, role="scout")
        proposed = self.call(record)
        self.assertEqual((proposed.state, self.planned(record), self.booked(record)), (CallState.PROPOSED, [], 0))
        with farm_session(FARM) as session:
            self.assertIn(record, [row.call.id for row in opinions.waiting(session, member("adviser"))])
            self.assertNotIn(record, [row.call.id for row in opinions.waiting(session, member("scout"))])
        send("decision.make", payload, record, role="adviser", base=proposed.command_id)
        self.assertEqual(self.call(record).state, CallState.CALLED)
        self.assertTrue(self.planned(record))
        with farm_session(FARM) as session:
            self.assertNotIn(record, [row.call.id for row in opinions.waiting(session, member("adviser"))])

    def test_a_proposal_leaves_what_was_signed_as_it_is(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload, record)
        before = self.planned(record)
        self.signed(True)
        left = payload | {"control": "", "instead": "leave", "why": WHY}
        send("decision.make", left, record, role="scout", base=self.call(record).command_id)
        self.assertEqual((self.call(record).state, self.planned(record)), (CallState.PROPOSED, before))
        send("decision.make", left, record, role="owner", base=self.call(record).command_id)
        self.assertEqual(self.planned(record), [])

    def test_an_opinion_is_asked_and_given(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload, record, role="scout")
        about = {"decision_id": str(record), "decision_version": 1}
        adviser = member("adviser").account_id
        send("opinion.give", about | {"stance": "asks", "asked_of": str(adviser), "words": "Too early?"}, role="scout", at=NOW - 2 * LATER)

        def waits(role: str) -> bool:
            with farm_session(FARM) as session:
                return record in [row.call.id for row in opinions.waiting(session, member(role))]

        self.assertEqual([waits(role) for role in ("adviser", "owner", "scout")], [True, False, False])
        send("opinion.give", about | {"stance": "agrees", "words": "No, now."}, role="owner", at=NOW - LATER)
        self.assertTrue(waits("adviser"), "somebody else's word answers no question that was put to one")
        send("opinion.give", about | {"stance": "disagrees", "words": "Wait for the hatch."}, role="adviser")
        self.assertFalse(waits("adviser"))
        with farm_session(FARM) as session:
            self.assertEqual([row.stance for row in opinions.of_call(session, record)], ["asks", "agrees", "disagrees"])

    def test_odd_opinions_are_refused(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload, record)
        about = {"decision_id": str(record), "decision_version": 1, "words": "Well."}
        mine = str(member("owner").account_id)
        for change, field in (
            ({"stance": "asks", "asked_of": mine}, "asked_of"),
            ({"stance": "asks", "asked_of": str(uuid.uuid4())}, "asked_of"),
            ({"stance": "agrees", "asked_of": str(member("scout").account_id)}, "asked_of"),
            ({"stance": "agrees", "decision_version": 9}, "decision_version"),
            ({"stance": "agrees", "words": ""}, "words"),
        ):
            with self.subTest(change=change), self.assertRaises(Refused) as caught:
                send("opinion.give", about | change)
            self.assertIn(field, caught.exception.errors)

    def test_two_controls_of_one_call_are_both_planned(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload | {"also": ["wash-off"]}, record)
        self.assertEqual(set(self.planned(record)), {"insecticidal-soap", "wash-off"})
        self.refused(payload | {"also": ["insecticidal-soap"]}, "also")
        self.refused(payload | {"also": ["no-such-control"]}, "also")

    def test_what_is_done_late_moves_what_follows_of_the_same_control_alone(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload | {"also": ["wash-off"]}, record)

        def days() -> dict[str, list[dt.date]]:
            with farm_session(FARM) as session:
                of: dict[str, list[dt.date]] = {}
                for row in session.scalars(of_farm(TreatmentRow).where(TreatmentRow.decision_id == record).order_by(TreatmentRow.ordinal)):
                    of.setdefault(row.control, []).append(row.on)
                return of

        before = days()
        self.assertGreater(len(before["insecticidal-soap"]), 1)
        with farm_session(FARM, role="owner") as session:
            # Two days late: as if it had been planned for the day before yesterday.
            for row in session.scalars(of_farm(TreatmentRow).where(TreatmentRow.decision_id == record)):
                row.on = row.on - dt.timedelta(days=2)
        send("application.record", application(record), uuid.uuid4())
        after = days()
        self.assertEqual(after["insecticidal-soap"][1:], before["insecticidal-soap"][1:], "moved by the two days")
        self.assertEqual(after["wash-off"], [day - dt.timedelta(days=2) for day in before["wash-off"]], "its own days stand")

    def test_what_is_being_done_waits_for_its_signature_when_the_call_changes(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload, record)
        signature = application(record)
        begin, begun = {"treatment_id": signature["treatment_id"], "began_at": NOW.isoformat()}, uuid.uuid4()
        send("application.begin", begin, begun)
        with self.assertRaises(Refused) as caught:
            send("application.begin", begin, uuid.uuid4())
        self.assertIn("already", caught.exception.errors["treatment_id"])
        left = payload | {"control": "", "instead": "leave", "why": WHY}
        send("decision.make", left, record, base=self.call(record).command_id)
        block = self.call(record).block_id
        treatment = uuid.UUID(signature["treatment_id"])
        with farm_session(FARM) as session:
            self.assertIn(block, closed.blocks(session, catalogue, NOW), "somebody sprays there")
            listed = timing.planned(session, session.get_one(Farm, FARM), catalogue, NOW)
            self.assertIn(treatment, [planned.treatment.id for planned in listed])
        send("application.record", signature, uuid.uuid4())
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(TreatmentRow, (FARM, treatment)).state, TreatmentState.DONE)

    def test_what_was_taken_back_and_not_begun_after_all_is_gone(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload, record)
        signature, begun = application(record), uuid.uuid4()
        begin = {"treatment_id": signature["treatment_id"], "began_at": NOW.isoformat()}
        send("application.begin", begin, begun)
        left = payload | {"control": "", "instead": "leave", "why": WHY}
        send("decision.make", left, record, base=self.call(record).command_id)
        with farm_session(FARM) as session:
            base = session.get_one(BegunWork, (FARM, begun)).command_id
        send("application.begin", begin, begun, base=base, withdrawn=True, reason="not begun")
        with farm_session(FARM) as session:
            self.assertNotIn(self.call(record).block_id, closed.blocks(session, catalogue, NOW))
        with self.assertRaises(Refused):
            send("application.record", signature, uuid.uuid4())

    def test_who_may_not_sign_for_a_material_does_not_begin_it(self) -> None:
        payload, record = self.counted()
        conventional = next(
            control.id for control in catalogue.agent(payload["agent"]).controls if control.kind == ControlKind.CONVENTIONAL
        )
        send("decision.make", payload, record)
        treatment = uuid.UUID(application(record)["treatment_id"])
        with farm_session(FARM, role="owner") as session:
            session.get_one(TreatmentRow, (FARM, treatment)).control = conventional
        begin = {"treatment_id": str(treatment), "began_at": NOW.isoformat()}
        unqualified = colleague("applicator")
        with farm_session(FARM) as session, self.assertRaises(Forbidden):
            sent = Sent.of(envelope("application.begin", begin), NOW)
            writing.handle(
                session, session.get_one(Farm, FARM), Member(unqualified, FARM, NAME, Role.APPLICATOR, False), catalogue, sent, REAL
            )
        send("application.begin", begin, uuid.uuid4(), role="applicator")

    def test_a_call_against_the_rules_books_the_look_that_is_its_own(self) -> None:
        payload, record = self.counted()
        send("decision.make", payload | {"control": "", "instead": "refer", "why": WHY}, record)
        with farm_session(FARM) as session:
            visit = session.scalars(of_farm(ReturnVisit).where(ReturnVisit.decision_id == record)).one()
            self.assertEqual((visit.due_on - NOW.date()).days, judgement.ADVISER_DAYS)
            self.assertIn("adviser", visit.look_for)

    def test_a_spot_has_a_place_and_an_area(self) -> None:
        payload, record = self.counted()
        self.refused(payload | {"spot": "rows 3 to 8"}, "spot")
        self.refused(payload | {"spot": "rows 3 to 8", "spot_area": 90.0}, "spot_area")
        send("decision.make", payload | {"spot": "rows 3 to 8", "spot_area": 0.02}, record)
        self.assertEqual(self.call(record).kind, DecisionKind.SPOT_TREAT)
        with farm_session(FARM) as session:
            planned = timing.planned(session, session.get_one(Farm, FARM), catalogue, NOW)
            job = next(row for row in planned if row.treatment.decision_id == record)
        self.assertEqual((job.area, job.where), (0.02, f"{job.block.name}, rows 3 to 8"))
        self.refused(payload | {"control": "", "instead": "leave", "why": WHY, "spot": "rows 3 to 8", "spot_area": 0.02}, "spot")

    def test_dead_and_parasitised_ones_that_were_counted_end_an_attack(self) -> None:
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        look, record = payloads["look.record"]
        send("look.record", look, record)
        count, sample = payloads["sample.record"]
        send("sample.record", count | {"dead": 5, "parasitised": 190}, sample)
        with farm_session(FARM) as session:
            row, farm = session.get_one(SampleRow, (FARM, sample)), session.get_one(Farm, FARM)
            block = grown.at_stop(session, session.get_one(Stop, (FARM, payloads["stop.open"][1])))
            told = weighing.sample_of(session, farm, block, row, catalogue.agent(row.agent))
        self.assertEqual((told.dead, told.parasitised), (5, 190))
