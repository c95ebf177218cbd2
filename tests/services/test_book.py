"""The log read by the page, the records with their versions, counts before and after."""

import datetime as dt
import unittest
import uuid

from sqlalchemy import select

from bootmark.core.catalogue import default
from bootmark.services.base import ground
from bootmark.services.book import log, records
from bootmark.services.treatment import timing
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import DecisionRow, Farm, Look, TreatmentRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import send
from tests.services.lines import line

YEAR = NOW.replace(month=1, day=1, hour=0)


class Kinds(unittest.TestCase):
    def test_every_kind_of_entry_is_found_said_counted_and_placed(self) -> None:
        counted = [kind for heads in log.HEADS.values() for kind in heads]
        self.assertEqual(sorted(log.KINDS), sorted(log.ORDER))
        self.assertEqual(sorted(counted), sorted(log.ORDER))


class Pages(DatabaseTest):
    def setUp(self) -> None:
        super().setUp()
        # The demo farm has reported nothing.
        payload, record = line()["answer.keep"]
        send("answer.keep", payload, record)

    def test_pages_put_together_are_the_whole_log_without_gap_or_repeat(self) -> None:
        with farm_session(FARM) as session:
            every = log.entries(session, catalogue)
            total = log.total(session)
            paged = [entry for start in range(0, total, 7) for entry in log.entries(session, catalogue, start=start, most=7)]
        self.assertEqual(total, len(every))
        self.assertEqual(paged, every)
        self.assertEqual([entry.at for entry in every], sorted((entry.at for entry in every), reverse=True))
        self.assertEqual({entry.kind for entry in every}, set(log.ORDER))

    def test_filters_by_block_and_kind_agree_with_their_totals(self) -> None:
        with farm_session(FARM) as session:
            every = log.entries(session, catalogue)
            for block in ground.blocks(session):
                for kind in ("", *log.ORDER):
                    wanted = [entry for entry in every if entry.block == block.name and kind in ("", entry.kind)]
                    self.assertEqual(log.entries(session, catalogue, block_id=block.id, kind=kind), wanted, (block.name, kind))
                    self.assertEqual(log.total(session, block.id, kind), len(wanted), (block.name, kind))

    def test_a_new_entry_leads_and_a_changed_one_is_said_anew(self) -> None:
        stop, look = uuid.uuid4(), uuid.uuid4()
        send("stop.open", {"block_id": str(made("Hop yard"))}, stop)
        first = uuid.uuid4()
        with farm_session(FARM) as session:
            before = log.total(session)
        send("look.record", {"stop_id": str(stop), "signs": {"honeydew": "seen"}}, look, command=first)
        with farm_session(FARM) as session:
            newest = log.entries(session, catalogue, most=1)[0]
            self.assertEqual((log.total(session), newest.record_id, newest.block), (before + 1, look, "Hop yard"))
            self.assertIn("sticky shine", newest.text)
        send("look.record", {"stop_id": str(stop), "signs": {}}, look, base=first)
        with farm_session(FARM) as session:
            again = log.entries(session, catalogue, most=1)[0]
            self.assertEqual((log.total(session), again.text), (before + 1, "Sound: nothing seen."))

    def test_conflicts_are_listed_until_they_are_settled(self) -> None:
        record, first, late = uuid.uuid4(), uuid.uuid4(), uuid.uuid4()
        payload = {"block_id": str(made("Long Field")), "on": "2026-06-17", "code": 65}
        send("crop.stage", payload, record, command=first)
        second = uuid.uuid4()
        send("crop.stage", payload, record, base=first, command=second)
        send("crop.stage", payload | {"code": 60}, record, base=first, command=late)
        with farm_session(FARM) as session:
            self.assertIn(record, [entry.record_id for entry in log.conflicts(session, catalogue)])
        send("crop.stage", payload, record, base=second, merges=(late,))
        with farm_session(FARM) as session:
            self.assertNotIn(record, [entry.record_id for entry in log.conflicts(session, catalogue)])

    def test_another_catalogue_says_it_anew(self) -> None:
        from dataclasses import replace

        with farm_session(FARM) as session:
            before = log.entries(session, catalogue, kind="call", most=1)[0].text
            agents = {agent.id: replace(agent, name=f"The {agent.name}") for agent in default().agents.values()}
            after = log.entries(session, replace(catalogue, agents=agents, hash="other"), kind="call", most=1)[0].text
        self.assertEqual(after, f"The {before}")


class Records(DatabaseTest):
    def test_versions_tell_what_they_build_on(self) -> None:
        record, first, second = uuid.uuid4(), uuid.uuid4(), uuid.uuid4()
        payload = {"block_id": str(made("Long Field")), "on": "2026-06-17", "code": 65}
        send("crop.stage", payload, record, command=first)
        send("crop.stage", payload | {"note": "again"}, record, base=first, command=second)
        with farm_session(FARM) as session:
            versions = records.versions(session, record)
            self.assertEqual(
                [(row["number"], row["base"], row["withdrawn"]) for row in versions],
                [(2, 1, False), (1, None, False)],
            )
            self.assertEqual(versions[0]["payload"]["note"], "again")
            self.assertEqual(records.versions(session, uuid.uuid4()), [])
            self.assertIsNone(records.call(session, record))

    def test_counts_and_what_was_done_between(self) -> None:
        with farm_session(FARM) as session:
            tunnel = made("Tunnel 2")
            counts = records.counts(session, tunnel, "two-spotted-spider-mite", NOW.replace(year=2025, month=7, day=1))
            done = records.done_on(session, tunnel, "two-spotted-spider-mite", NOW.replace(year=2025, month=7, day=1))
            self.assertGreaterEqual(len(counts), 3)
            self.assertEqual([count.at for count in counts], sorted(count.at for count in counts))
            self.assertTrue(all(treatment.block_id == tunnel for _, treatment in done))
            self.assertGreaterEqual(len(done), 2)

    def test_pairs_that_were_called_on_a_count_this_year(self) -> None:
        with farm_session(FARM) as session:
            pairs = records.counted_and_called(session, YEAR)
            agents = [agent for _, agent in pairs]
            self.assertEqual(agents, sorted(agents))
            self.assertIn(("Orchard A", "codling-moth"), [(block.name, agent) for block, agent in pairs])
            self.assertEqual(records.counted_and_called(session, NOW + dt.timedelta(days=1)), [])

    def test_a_pair_stands_there_from_its_call_on(self) -> None:
        payload = line()
        payload["stop.open"][0]["block_id"] = str(made("Tunnel 2"))
        pair, shown = ("Tunnel 2", "two-spotted-spider-mite"), []
        for kind in ("stop.open", "look.record", "sample.record", "decision.make"):
            with farm_session(FARM) as session:
                shown.append(pair in [(block.name, agent) for block, agent in records.counted_and_called(session, NOW)])
            send(kind, *payload[kind])
        with farm_session(FARM) as session:
            shown.append(pair in [(block.name, agent) for block, agent in records.counted_and_called(session, NOW)])
        self.assertEqual(shown, [False] * 4 + [True])


class Plans(DatabaseTest):
    def test_planned_treatments_with_their_hours(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            planned = timing.planned(session, farm, catalogue, NOW)
            self.assertTrue(planned)
            self.assertEqual([treatment.treatment.on for treatment in planned], sorted(treatment.treatment.on for treatment in planned))
            for treatment_row in planned:
                again = timing.of_treatment(session, farm, catalogue, treatment_row.treatment.id, NOW)
                self.assertEqual(
                    (again.block.id, again.control.id, again.spans), (treatment_row.block.id, treatment_row.control.id, treatment_row.spans)
                )
                treatments, looks = timing.programme(session, treatment_row.treatment.decision_id)
                self.assertIn(treatment_row.treatment.id, [row.id for row in treatments])
                self.assertNotIn("withdrawn", {row.state for row in treatments} | {row.state for row in looks})

    def test_a_treatment_that_is_done_leaves_the_plan_at_once(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            before = timing.planned(session, farm, catalogue, NOW)
            row = session.get_one(TreatmentRow, (FARM, before[0].treatment.id))
            row.state = "done"
            session.flush()
            after = timing.planned(session, farm, catalogue, NOW)
            self.assertEqual(len(after), len(before) - 1)
            session.rollback()

    def test_treatments_since_a_day_by_block_and_agent(self) -> None:
        with farm_session(FARM) as session:
            treated = timing.treated_since(session, NOW.date() - dt.timedelta(days=300))
            self.assertTrue(all(isinstance(done, bool) for days in treated.values() for _, done in days))
            self.assertIn((made("Tunnel 2"), "two-spotted-spider-mite"), treated)

    def test_calls_are_pinned_to_the_versions_that_they_rest_on(self) -> None:
        with farm_session(FARM) as session:
            for call in session.scalars(select(DecisionRow)):
                look = session.get_one(Look, (FARM, call.look_id))
                self.assertEqual(call.working["versions"]["look"], str(look.version_id))
