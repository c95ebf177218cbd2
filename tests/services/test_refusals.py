"""What commands refuse, and what a stored one keeps."""

import datetime as dt
from typing import Any

from sqlalchemy import select, text

from bootmark.services.base.command import Refused
from bootmark.services.base.handling import Sent
from bootmark.standins import demo
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import CommandRow, Look, ReturnVisit, TreatmentRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import envelope, send
from tests.services.lines import application, count, line


class Refusals(DatabaseTest):
    def refused(self, kind: str, field: str, words: str, **change: Any) -> None:
        payload, record = line()[kind]
        with self.assertRaises(Refused) as caught:
            send(kind, payload | change, record)
        self.assertIn(words, caught.exception.errors[field])

    def test_fields_say_what_is_wrong_and_what_would_be_right(self) -> None:
        self.refused("biofix.set", "on", "still ahead", on="2026-12-01")
        self.refused("biofix.set", "on", "write it as 2026-06-18", on="18 June")
        self.refused("biofix.set", "agent", "does not live on", agent="cabbage-maggot")
        self.refused("block.save", "area", "not a number", area="wide")
        self.refused("block.save", "outline", "three corners", outline=[[7, 46]])
        self.refused("look.record", "signs", "not a sign", signs={"dotting": "seen"})
        self.refused("look.record", "signs", "must be seen, absent or unsure", signs={"stippling": "perhaps"})
        self.refused("sample.record", "counts", "whole numbers", counts=[1, -2])
        self.refused("sample.record", "counts", "Nothing was counted", counts=[])
        self.refused("station.save", "latitude", "-90 to 90", latitude=123)

    def test_a_control_that_is_not_on_offer(self) -> None:
        application_line = line()
        for kind in ("stop.open", "look.record", "sample.record"):
            send(kind, *application_line[kind])
        payload, record = application_line["decision.make"]
        with self.assertRaises(Refused):
            send("decision.make", payload | {"control": "granulovirus"}, record)

    def test_nothing_is_planned_on_a_symptom(self) -> None:
        application_line = line()
        send("stop.open", *application_line["stop.open"])
        payload, record = application_line["look.record"]
        send("look.record", payload | {"signs": {"stippling": "seen"}}, record)
        send("sample.record", *application_line["sample.record"])
        call, decision = application_line["decision.make"]
        with self.assertRaises(Refused):
            send("decision.make", call, decision)
        send("decision.make", call | {"control": ""}, decision)
        self.assertEqual(count(TreatmentRow, decision_id=decision), 0)
        self.assertEqual(count(ReturnVisit, decision_id=decision), 1)

    def test_signing(self) -> None:
        application_line = line()
        for kind, (payload, record) in application_line.items():
            send(kind, payload, record)
        right = application(application_line["decision.make"][1])
        for change, field in (
            ({"checks": []}, "checks"),
            ({"area": 50}, "area"),
            ({"finished_at": "2026-06-18T01:00:00+00:00"}, "finished_at"),
            ({"amount": "some"}, "amount"),
        ):
            with self.assertRaises(Refused) as caught:
                send("application.record", right | change, role="applicator")
            self.assertIn(field, caught.exception.errors)
        send("application.record", right, role="applicator")
        with self.assertRaises(Refused):
            send("application.record", right, role="applicator")

    def test_a_call_takes_only_a_count_of_its_own_stop(self) -> None:
        here, there = line(), line()
        for words in (here, there):
            for kind in ("stop.open", "look.record", "sample.record"):
                send(kind, *words[kind])
        payload, record = here["decision.make"]
        other = there["decision.make"][0]["sample_id"]
        with self.assertRaises(Refused) as caught:
            send("decision.make", payload | {"sample_id": other}, record)
        self.assertIn("another stop", caught.exception.errors["sample_id"])
        self.assertEqual(count(TreatmentRow, decision_id=record), 0)
        self.assertEqual(send("decision.make", payload, record)["status"], "stored")

    def test_a_treatment_is_not_finished_tomorrow(self) -> None:
        application_line = line()
        for kind, (payload, record) in application_line.items():
            send(kind, payload, record)
        right = application(application_line["decision.make"][1])
        tomorrow = (NOW + dt.timedelta(days=1)).isoformat()
        with self.assertRaises(Refused) as caught:
            send("application.record", right | {"finished_at": tomorrow}, role="applicator")
        self.assertIn("still ahead", caught.exception.errors["finished_at"])

    def test_envelopes(self) -> None:
        good = envelope("stop.open", {})
        odd: tuple[Any, ...] = ({}, [], "x", None, {"command_id": "x"}, {**good, "seen_at": "2026-06-18T07:00"}, {**good, "base": 3})
        for raw in odd:
            with self.assertRaises(Refused, msg=raw):
                Sent.of(raw, NOW)
        self.assertEqual(Sent.of(good | {"seen_at": "2031-01-01T00:00:00+00:00"}, NOW).seen_at, NOW)


class Kept(DatabaseTest):
    def test_a_decision_pins_all_that_it_rests_on(self) -> None:
        with farm_session(FARM) as session:
            working = session.execute(text("SELECT working FROM decision WHERE control <> '' LIMIT 1")).scalar_one()
            look = session.scalars(select(Look).limit(1)).one()
        self.assertEqual(
            set(working) & {"inputs", "result", "versions", "catalogue", "engine"}, {"inputs", "result", "versions", "catalogue", "engine"}
        )
        self.assertEqual(working["catalogue"], catalogue.hash)
        self.assertAlmostEqual(sum(cause["probability"] for cause in look.working["causes"]), 1, delta=0.2)

    def test_the_demo_is_loaded_once(self) -> None:
        before = count(CommandRow)
        self.assertFalse(demo.load())
        self.assertEqual(count(CommandRow), before)
