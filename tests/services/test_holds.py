"""A block that is held after a report: nothing is done in it, it is walked last, and only the authority's word ends that."""

import uuid
from typing import Any

from bootmark.core.catalogue import default
from bootmark.core.meanings import DecisionKind
from bootmark.core.types import Decision
from bootmark.services.base.command import Refused
from bootmark.services.scouting import held, rounds
from bootmark.services.treatment import weighing
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import DecisionRow, Farm, Hold, Look
from bootmark.store.rows import of_farm
from bootmark.store.session import farm_session
from tests.database import DatabaseTest
from tests.sending import REAL, send
from tests.services.lines import Reported, application, line, reported

CATALOGUE = default()


def answered(call: uuid.UUID, **change: Any) -> dict[str, Any]:
    answer = {"decision_id": str(call), "agent": None, "answered_by": "The desk", "on": "2026-06-17", "words": "Nothing.", "frees": True}
    return answer | change


def decided(here: Reported, agent: str) -> Decision:
    with farm_session(FARM) as session:
        look = session.get_one(Look, (FARM, session.get_one(DecisionRow, (FARM, here.call)).look_id))
        return weighing.consider(session, session.get_one(Farm, FARM), CATALOGUE, look, agent, None, NOW.date())[0].decision


class Held(DatabaseTest):
    def held(self, block: uuid.UUID) -> bool:
        with farm_session(FARM) as session:
            return block in held.blocks(session)

    def test_a_report_holds_the_block_until_it_is_freed(self) -> None:
        here = reported()
        self.assertTrue(self.held(here.block))
        record, first = uuid.uuid4(), uuid.uuid4()
        send("answer.keep", answered(here.call, frees=False), record, command=first)
        self.assertTrue(self.held(here.block))
        send("answer.keep", answered(here.call), record, base=first)
        self.assertFalse(self.held(here.block))

    def test_calling_it_anew_neither_doubles_nor_ends_it(self) -> None:
        here = reported()
        with farm_session(FARM) as session:
            look = session.get_one(DecisionRow, (FARM, here.call)).look_id
        send("decision.make", {"look_id": str(look), "agent": "plum-curculio"}, here.call)
        self.assertTrue(self.held(here.block))

    def test_a_held_block_comes_last_on_the_walk_and_asks_for_clean_boots(self) -> None:
        here = reported()
        with farm_session(FARM) as session:
            walk = rounds.today(session, session.get_one(Farm, FARM), CATALOGUE, CATALOGUE, NOW, REAL).walk
        stops = [stop.block for stop in walk.stops]
        if str(here.block) in stops:
            held = {stop.block for stop in walk.stops if stop.hold}
            self.assertIn(str(here.block), held)
            self.assertEqual(set(stops[-len(held) :]), held)
            self.assertIn("disinfectant", walk.carry)
        else:
            self.assertIn(str(here.block), dict(walk.rest))

    def test_nothing_is_signed_on_a_held_block(self) -> None:
        work = line()
        for kind in ("stop.open", "look.record", "sample.record", "decision.make"):
            send(kind, *work[kind])
        decision = work["decision.make"][1]
        signature = application(decision)
        with farm_session(FARM) as session:
            block = session.get_one(DecisionRow, (FARM, decision)).block_id
            look = session.get_one(DecisionRow, (FARM, decision)).look_id
        here = reported()
        with farm_session(FARM) as session:
            session.scalars(of_farm(Hold).where(Hold.block_id == here.block)).one().block_id = block
        with self.assertRaises(Refused) as caught:
            send("application.record", signature)
        self.assertIn("held after a report", caught.exception.errors["treatment_id"])
        with self.assertRaises(Refused):
            send("decision.make", work["decision.make"][0] | {"look_id": str(look)}, uuid.uuid4())

    def test_a_viewer_keeps_no_answer_and_a_scout_frees_no_block(self) -> None:
        here = reported()
        for role, words in (("viewer", "viewer"), ("scout", "owner frees")):
            with self.assertRaises(Refused) as caught:
                send("answer.keep", answered(here.call), role=role)
            self.assertIn(words, " ".join(caught.exception.errors.values()))
        self.assertTrue(self.held(here.block))

    def test_an_answer_belongs_to_a_call_that_waits_for_it(self) -> None:
        work = line()
        for kind in ("stop.open", "look.record", "sample.record", "decision.make"):
            send(kind, *work[kind])
        with self.assertRaises(Refused) as caught:
            send("answer.keep", answered(work["decision.make"][1], frees=False))
        self.assertIn("waits for no answer", caught.exception.errors["decision_id"])

    def test_what_came_back_settles_what_it_is(self) -> None:
        here = reported()
        named = "any-canker"
        send("answer.keep", answered(here.call, agent=named))
        self.assertNotEqual(decided(here, named).kind, DecisionKind.REPORT)
        self.assertEqual(decided(here, "plum-curculio").kind, DecisionKind.LOOK_AGAIN)
