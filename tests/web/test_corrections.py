"""What was kept wrong is put right or withdrawn, with a reason; the old stays, and what rests on it says so."""

import re
import uuid
from typing import Any

from sqlalchemy import inspect, select, text

from bootmark.core.field.count import interval
from bootmark.services.base.command import Refused
from bootmark.services.book import records
from bootmark.services.seasons import sightings, traps
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.base import Withdrawable
from bootmark.store.models import DecisionRow, SampleRow, StageSighting, TrapCheck, TreatmentRow
from bootmark.store.session import farm_session
from bootmark.store.versions import HEADS
from tests.sending import send
from tests.web.test_pages import F, PagesTest


class Corrections(PagesTest):
    def row(self, model: Any, record: uuid.UUID) -> Any:
        with farm_session(FARM) as session:
            return session.get(model, (FARM, record))

    def act(self, record: uuid.UUID, what: str, *, client: Any = None, **form: str) -> Any:
        where = f"{F}/book/record/{record}"
        with farm_session(FARM) as session:
            head = records.head(session, record)
        return self.post(
            client or self.client, f"{where}/{what}", self.form(head.command_id if head else "") | {"record_id": str(record)} | form
        )

    def a_sample(self) -> SampleRow:
        """A count on which a call rests that has planned something."""
        with farm_session(FARM) as session:
            planned = DecisionRow.id.in_(select(TreatmentRow.decision_id))
            calls = select(DecisionRow).where(DecisionRow.sample_id.is_not(None), planned).order_by(DecisionRow.seen_at.desc())
            call = session.scalars(calls).first()
            assert call
            return session.get_one(SampleRow, (FARM, call.sample_id))

    def test_a_wrong_count_is_put_right_with_a_reason_and_the_call_on_it_says_so(self) -> None:
        sample = self.a_sample()
        with farm_session(FARM) as session:
            call = session.scalars(select(DecisionRow).where(DecisionRow.sample_id == sample.id)).one()
        self.assertNotIn("corrected since", self.client.get(f"{F}/book/record/{call.id}").text)
        page = self.client.get(f"{F}/book/record/{sample.id}").text
        typed = re.search(r'name="counts" type="text" value="([^"]*)"', page)
        assert typed
        self.assertEqual(typed.group(1), " ".join(map(str, sample.counts)))
        self.assertIn("Say why", self.act(sample.id, "correct", counts="1 2 3").text)
        self.assertIn("whole numbers", self.act(sample.id, "correct", counts="1 two 3", reason="Misread").text)
        self.assertEqual(self.row(SampleRow, sample.id).counts, sample.counts)
        answer = self.act(sample.id, "correct", counts="1, 2 3", enemies="", reason="Misread by wet glasses")
        self.assertEqual(answer.status_code, 302)
        after = self.row(SampleRow, sample.id)
        self.assertEqual((after.counts, after.agent, after.unit, after.version), ([1, 2, 3], sample.agent, sample.unit, sample.version + 1))
        page = self.client.get(f"{F}/book/record/{sample.id}").text
        self.assertIn("Misread by wet glasses", page)
        self.assertIn("The count that this call rests on was corrected since", self.client.get(f"{F}/book/record/{call.id}").text)
        self.act(sample.id, "withdraw", withdrawn="yes", reason="Another row")
        self.assertIn("rests on was withdrawn", self.client.get(f"{F}/book/record/{call.id}").text)
        with farm_session(FARM) as session:
            treatment = session.scalars(select(TreatmentRow.id).where(TreatmentRow.decision_id == call.id).limit(1)).one()
        self.assertIn("Call again before it is done", self.client.get(f"{F}/do/{treatment}").text)
        with self.assertRaises(Refused) as caught:
            send("decision.make", {"look_id": str(call.look_id), "agent": call.agent, "sample_id": str(sample.id)})
        self.assertIn("was withdrawn", caught.exception.errors["sample_id"])

    def test_a_catch_that_is_withdrawn_counts_nowhere_stays_in_the_book_and_may_count_again(self) -> None:
        with farm_session(FARM) as session:
            check = session.scalars(select(TrapCheck).order_by(TrapCheck.on.desc())).first()
            trap = next(hung for hung in traps.register(session, NOW.date()) if check and hung.trap.id == check.trap_id)
        assert check
        self.assertEqual(self.act(check.id, "withdraw", withdrawn="yes").status_code, 400)
        self.assertEqual(self.act(check.id, "withdraw", withdrawn="yes", reason="It was the neighbour's trap").status_code, 302)

        def checks() -> int:
            with farm_session(FARM) as session:
                return len(next(hung for hung in traps.register(session, NOW.date()) if hung.trap.id == trap.trap.id).checks)

        self.assertEqual(checks(), len(trap.checks) - 1)
        self.assertIn("<s>", self.client.get(f"{F}/book?kind=trap").text)
        page = self.client.get(f"{F}/book/record/{check.id}").text
        self.assertIn("It was the neighbour&#39;s trap", page)
        self.assertNotIn("Put it right", page)
        self.act(check.id, "withdraw", withdrawn="", reason="It was ours after all")
        self.assertEqual(checks(), len(trap.checks))

    def test_animals_by_stage_are_put_right_stage_by_stage(self) -> None:
        with farm_session(FARM) as session:
            sighting = session.scalars(select(StageSighting).order_by(StageSighting.on.desc())).first()
        assert sighting
        stage = next(iter(sighting.counts))
        answer = self.act(sighting.id, "correct", **{f"counts.{stage}": "77"}, on=sighting.on.isoformat(), note="", reason="Counted twice")
        self.assertEqual(answer.status_code, 302)
        self.assertEqual(self.row(StageSighting, sighting.id).counts[stage], 77)
        with farm_session(FARM) as session:
            self.assertIn(77, [row.counts.get(stage) for row in sightings.newest(session, sighting.block_id, sighting.agent)])

    def test_what_was_just_kept_can_be_taken_back_at_once(self) -> None:
        sent = self.form() | {"on": "2026-06-17", "code": "65", "note": "", "counted": "", "node": ""}
        page = self.client.get(self.post(self.client, f"{F}/farm/block/{made('Orchard A')}/stage", sent).headers["Location"]).text
        self.assertIn(f"/book/record/{sent['record_id']}", page.partition("Put it right, or withdraw it")[0])

    def test_only_who_may_write_it_may_take_it_back(self) -> None:
        sample = self.a_sample()
        viewer = self.enter("viewer")
        page = viewer.get(f"{F}/book/record/{sample.id}").text
        self.assertNotIn("Withdraw it", page)
        self.act(sample.id, "withdraw", client=viewer, withdrawn="yes", reason="For fun")
        self.act(sample.id, "correct", client=viewer, counts="9", reason="For fun")
        after = self.row(SampleRow, sample.id)
        self.assertEqual((after.version, after.counts), (sample.version, sample.counts))

    def test_what_can_not_be_withdrawn_says_so_and_a_reason_is_text(self) -> None:
        block = made("Orchard A")
        self.assertEqual(self.act(block, "withdraw", withdrawn="yes", reason="Sold").status_code, 404)
        self.assertEqual(self.act(block, "correct", reason="Sold").status_code, 404)
        self.assertEqual(self.act(uuid.uuid4(), "withdraw", withdrawn="yes", reason="Sold").status_code, 404)
        self.assertIn("Say why", self.act(self.a_sample().id, "withdraw", withdrawn="yes", reason="x" * 301).text)

    def test_no_reader_of_what_can_be_withdrawn_forgets_it(self) -> None:
        """Every row that is read through the one way to a farm's rows leaves out what was withdrawn."""
        with farm_session(FARM, role="owner") as session:
            names = session.execute(
                text("SELECT table_name FROM information_schema.columns WHERE column_name = 'withdrawn' AND table_name <> 'command'")
            ).scalars()
            kept = {inspect(head).local_table.name for head in HEADS if issubclass(head, Withdrawable)}
            self.assertEqual(kept, set(names) - {"invitation"})


class Numbers(PagesTest):
    def test_a_corrected_count_reads_as_it_was_typed(self) -> None:
        from bootmark.core.types import Sample
        from bootmark.services.base.fields import Counts

        rule = Counts()
        self.assertEqual(rule.of_text("7 9, 8;0"), [7, 9, 8, 0])
        self.assertEqual((rule.of_text(""), rule.of_text("7 x"), rule.of_text("-1"), rule.of_text("1.5")), ([], "7 x", "-1", "1.5"))
        self.assertEqual(interval(Sample("leaf", (7, 9, 8), ())).estimate, 8.0)
