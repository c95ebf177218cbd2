"""Commands: every kind sent twice, out of order, with a stale base, as the wrong person, by two at once."""

import copy
import datetime as dt
import itertools
import threading
import uuid
from typing import Any

from sqlalchemy import func, select, text

from bootmark.services import writing
from bootmark.services.base.command import Forbidden, OtherContent, Refused, TooEarly
from bootmark.services.base.handling import Sent
from bootmark.services.kinds import KINDS
from bootmark.services.weather import judging
from bootmark.standins import demo
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import CommandRow, FindingRow, Look, ReturnVisit, Stop, TreatmentRow
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS
from tests.database import DatabaseTest, known, member
from tests.sending import REAL, envelope, send, store_days

SIGNS = {"stippling": "seen", "webbing-fine": "seen", "mites-and-round-eggs": "seen", "slender-insects-on-paper": "absent"}


def count(model: Any, **where: Any) -> int:
    with farm_session(FARM) as session:
        query = select(func.count()).select_from(model)
        for name, value in where.items():
            query = query.where(getattr(model, name) == value)
        return session.execute(query).scalar_one()


def line() -> dict[str, tuple[dict[str, Any], uuid.UUID]]:
    """One payload of every kind, in the order of the work."""
    ids = {
        name: uuid.uuid4()
        for name in (
            "stop",
            "look",
            "sample",
            "decision",
            "application",
            "biofix",
            "station",
            "block",
            "enquiry",
            "trap",
            "check",
            "stage",
            "crop",
        )
    }
    outline = [[0, 0], [10, 0], [10, 10]]
    return {
        "station.save": (
            {"name": f"Hill {ids['station']}", "latitude": 46, "longitude": 7, "elevation": 500, "offset_minutes": 60, "url": ""},
            ids["station"],
        ),
        "block.save": (
            {
                "name": f"B {ids['block']}",
                "crop": "raspberry",
                "place": "tunnel",
                "cultivar": "",
                "area": 0.2,
                "outline": outline,
                "station_id": str(made("Tunnel logger")),
            },
            ids["block"],
        ),
        "biofix.set": (
            {"block_id": str(made("Orchard A")), "agent": "codling-moth", "on": "2026-05-20", "basis": "two males"},
            ids["biofix"],
        ),
        "stop.open": ({"block_id": str(made("Tunnel 1")), "where": "row 1"}, ids["stop"]),
        "look.record": ({"stop_id": str(ids["stop"]), "signs": SIGNS, "note": ""}, ids["look"]),
        "sample.record": (
            {
                "stop_id": str(ids["stop"]),
                "agent": "two-spotted-spider-mite",
                "unit": "leaf",
                "measure": "mean",
                "counts": [9, 8, 12, 10] * 4,
                "enemies": [0] * 16,
            },
            ids["sample"],
        ),
        "decision.make": (
            {
                "look_id": str(ids["look"]),
                "agent": "two-spotted-spider-mite",
                "sample_id": str(ids["sample"]),
                "control": "insecticidal-soap",
            },
            ids["decision"],
        ),
        "enquiry.save": (
            {"sender": "A neighbour", "came_as": "leaf", "crop": "rose", "family": "", "place": "bed", "words": "Holes.", "signs": {}},
            ids["enquiry"],
        ),
        "trap.save": (
            {
                "name": f"T {ids['trap']}",
                "block_id": str(made("Orchard A")),
                "agent": "codling-moth",
                "kind": "delta",
                "x": 1,
                "y": 2,
                "set_on": "2026-06-01",
                "lure_on": "2026-06-01",
                "lure_days": 42,
                "check_days": 3,
            },
            ids["trap"],
        ),
        "trap.check": ({"trap_id": str(ids["trap"]), "on": "2026-06-17", "caught": 3, "new_lure": False, "note": ""}, ids["check"]),
        "stage.sighting": (
            {
                "block_id": str(made("Long Field")),
                "agent": "colorado-potato-beetle",
                "on": "2026-06-17",
                "counts": {"larva": 4},
                "note": "",
            },
            ids["stage"],
        ),
        "crop.stage": ({"block_id": str(made("Long Field")), "on": "2026-06-17", "code": 65, "note": ""}, ids["crop"]),
        "weather.judge": doubtful(),
    }


flagged = itertools.count(0, 4)


def doubtful() -> tuple[dict[str, Any], uuid.UUID]:
    """The judgement of a day that nobody has judged yet: each call makes a spike of its own."""
    ridge, day = made("Ridge mast"), dt.date(2025, 3, 1) + dt.timedelta(days=next(flagged))
    with farm_session(FARM) as session:
        row = {"local_date": day, "received_at": NOW, "tmin": 2.0, "tmax": 48.0, "rain": 0.0, "source": "test"}
        store_days(session, ridge, [row])
    return {"station_id": str(ridge), "local_date": day.isoformat(), "verdict": "stands"}, judging.record_id(ridge, day)


def application(decision: uuid.UUID) -> dict[str, Any]:
    with farm_session(FARM) as session:
        row = session.scalars(select(TreatmentRow).where(TreatmentRow.decision_id == decision, TreatmentRow.ordinal == 0)).one()
        control = known.agent(row.agent).control(row.control)
    from bootmark.services.treatment.calls import checks

    return {
        "treatment_id": str(row.id),
        "started_at": (NOW - dt.timedelta(hours=1)).isoformat(),
        "finished_at": NOW.isoformat(),
        "amount": 2,
        "amount_unit": "L",
        "area": 0.1,
        "note": "",
        "checks": list(checks(control)),
    }


class EveryKind(DatabaseTest):
    def test_all_kinds_are_covered_here(self) -> None:
        self.assertEqual(set(line()) | {"application.record"}, set(KINDS))

    def test_sent_twice_is_stored_once(self) -> None:
        told = line()
        for kind, (payload, record) in told.items():
            command = uuid.uuid4()
            first, second = (send(kind, payload, record, command=command) for _ in range(2))
            self.assertEqual(first["status"], "stored", kind)
            self.assertTrue(second.pop("replayed"))
            self.assertEqual(first, second)
            with farm_session(FARM) as session:
                versions = VERSIONS[KINDS[kind].head]
                rows = session.execute(select(func.count()).select_from(versions).where(versions.c.record_id == record)).scalar_one()
            self.assertEqual(rows, 1, kind)
        decision = told["decision.make"][1]
        payload, record, command = application(decision), uuid.uuid4(), uuid.uuid4()
        for _ in range(2):
            send("application.record", payload, record, role="applicator", command=command)
        self.assertEqual(count(TreatmentRow, decision_id=decision), 3)
        self.assertEqual(count(ReturnVisit, decision_id=decision, state="booked"), 1)
        self.assertEqual(count(FindingRow, look_id=told["look.record"][1]), 1)

    def test_the_same_id_with_other_content_is_refused(self) -> None:
        for kind, (payload, record) in line().items():
            command = uuid.uuid4()
            send(kind, payload, record, command=command)
            other = copy.deepcopy(payload) | {"note": "changed"}
            with self.assertRaises(OtherContent):
                send(kind, other, record, command=command)

    def test_out_of_order_waits_and_a_batch_sorts_itself(self) -> None:
        told = line()
        for kind in ("look.record", "sample.record", "decision.make"):
            with self.assertRaises(TooEarly):
                send(kind, *told[kind])
        batch = [envelope(kind, payload, record) for kind, (payload, record) in reversed(list(told.items()))]
        first, again, third = (writing.sync(FARM, member("owner"), known, batch, REAL) for _ in range(3))
        self.assertEqual([one["command_id"] for one in first], [one["command_id"] for one in batch])
        self.assertNotIn("refused", {one["status"] for one in first})
        # What hangs on two others that were sent after it needs a second sending, as the outbox does.
        self.assertEqual({one["status"] for one in again}, {"stored"})
        self.assertTrue(all(one["replayed"] for one in third))

    def test_a_stale_base_keeps_both_and_flags_them_until_a_person_merges(self) -> None:
        for kind, (payload, record) in line().items():
            first, second, stale, settled = (uuid.uuid4() for _ in range(4))
            send(kind, payload, record, command=first)
            self.assertEqual(send(kind, payload, record, base=first, command=second)["status"], "stored", kind)
            late = send(kind, payload, record, base=first, command=stale)
            self.assertEqual((late["status"], late["version"]), ("conflict", 3), kind)
            self.assertEqual(self.head(kind, record), (2, second, True))
            versions = VERSIONS[KINDS[kind].head]
            with farm_session(FARM) as session:
                rows = session.execute(
                    select(versions.c.conflict, versions.c.base_command).where(versions.c.record_id == record).order_by(versions.c.number)
                )
                self.assertEqual([tuple(row) for row in rows], [(False, None), (False, first), (True, first)])
            send(kind, payload, record, base=second)
            self.assertTrue(self.head(kind, record)[2], "a save on the head merges nothing by itself")
            head = self.head(kind, record)[1]
            send(kind, payload, record, base=head, merges=(stale,), command=settled)
            self.assertEqual(self.head(kind, record), (5, settled, False))

    def head(self, kind: str, record: uuid.UUID) -> tuple[int, uuid.UUID, bool]:
        with farm_session(FARM) as session:
            row = session.get_one(KINDS[kind].head, (FARM, record))
            return row.version, row.command_id, row.conflict

    def test_one_person_alone_without_signal_saves_twice_and_nothing_is_flagged(self) -> None:
        payload, record = line()["look.record"]
        send("stop.open", {"block_id": str(made("Tunnel 1"))}, uuid.UUID(payload["stop_id"]))
        start, one, two = (uuid.uuid4() for _ in range(3))
        send("look.record", payload, record, command=start)
        batch = [
            envelope("look.record", payload | {"note": "one"}, record, base=start, command=one),
            envelope("look.record", payload | {"note": "two"}, record, base=one, command=two),
        ]
        answers = writing.sync(FARM, member("scout"), known, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["stored", "stored"])
        self.assertEqual(self.head("look.record", record), (3, two, False))

    def test_one_saves_twice_while_another_saves_once(self) -> None:
        payload, record = line()["look.record"]
        send("stop.open", {"block_id": str(made("Tunnel 1"))}, uuid.UUID(payload["stop_id"]))
        start, other, one, two, three = (uuid.uuid4() for _ in range(5))
        send("look.record", payload, record, command=start)
        send("look.record", payload | {"note": "B"}, record, base=start, command=other)
        batch = [
            envelope("look.record", payload | {"note": "A1"}, record, base=start, command=one),
            envelope("look.record", payload | {"note": "A2"}, record, base=one, command=two),
        ]
        answers = writing.sync(FARM, member("scout"), known, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["conflict", "conflict"])
        self.assertEqual(self.head("look.record", record), (2, other, True))
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(Look, (FARM, record)).note, "B")
            versions = VERSIONS[Look]
            kept = select(versions.c.base_command, versions.c.payload["note"].astext).where(versions.c.command_id == two)
            self.assertEqual(session.execute(kept).one(), (one, "A2"))
        self.assertEqual(send("look.record", payload, record, base=two, command=three)["status"], "conflict")

    def test_a_base_that_has_not_arrived_waits(self) -> None:
        payload, record = line()["stop.open"]
        with self.assertRaises(TooEarly):
            send("stop.open", payload, record, base=uuid.uuid4())

    def test_what_a_device_kept_before_the_base_was_a_command(self) -> None:
        payload, record = line()["stop.open"]

        def kept(number: int) -> dict[str, Any]:
            new = envelope("stop.open", payload, record)
            return {name: new[name] for name in ("command_id", "kind", "record_id", "seen_at", "payload")} | {"base_version": number}

        batch = [kept(0), kept(1), kept(1), kept(9)]
        answers = writing.sync(FARM, member("scout"), known, batch, REAL)
        self.assertEqual([answer["status"] for answer in answers], ["stored", "stored", "conflict", "wait"])
        again = writing.sync(FARM, member("scout"), known, batch[:1], REAL)
        self.assertTrue(again[0]["replayed"])

    def test_viewers_write_nothing_and_scouts_sign_nothing(self) -> None:
        told = line()
        before = count(CommandRow)
        for kind, (payload, record) in told.items():
            with self.assertRaises(Forbidden):
                send(kind, payload, record, role="viewer")
        self.assertEqual(count(CommandRow), before)
        for kind, (payload, record) in told.items():
            send(kind, payload, record)
        with self.assertRaises(Forbidden):
            send("application.record", application(told["decision.make"][1]), role="scout")

    def test_two_at_once_store_it_once(self) -> None:
        payload, record = line()["stop.open"]
        command, results = uuid.uuid4(), []

        def one() -> None:
            results.append(send("stop.open", payload, record, command=command))

        threads = [threading.Thread(target=one) for _ in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(len(results), 6)
        self.assertEqual(sum("replayed" not in one for one in results), 1)
        self.assertEqual(count(Stop, id=record), 1)

    def test_two_writers_of_one_record_take_turns(self) -> None:
        payload, record = line()["stop.open"]
        first = uuid.uuid4()
        send("stop.open", payload, record, command=first)
        results: list[str] = []

        def one() -> None:
            results.append(send("stop.open", payload, record, base=first)["status"])

        threads = [threading.Thread(target=one) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(results), ["conflict", "conflict", "conflict", "stored"])


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
        self.refused("block.save", "outline", "three corners", outline=[[0, 0]])
        self.refused("look.record", "signs", "not a sign", signs={"dotting": "seen"})
        self.refused("look.record", "signs", "must be seen, absent or unsure", signs={"stippling": "perhaps"})
        self.refused("sample.record", "counts", "whole numbers", counts=[1, -2])
        self.refused("sample.record", "counts", "Nothing was counted", counts=[])
        self.refused("station.save", "latitude", "-90 to 90", latitude=123)

    def test_a_control_that_is_not_on_offer(self) -> None:
        told = line()
        for kind in ("stop.open", "look.record", "sample.record"):
            send(kind, *told[kind])
        payload, record = told["decision.make"]
        with self.assertRaises(Refused):
            send("decision.make", payload | {"control": "granulovirus"}, record)

    def test_nothing_is_planned_on_a_symptom(self) -> None:
        told = line()
        send("stop.open", *told["stop.open"])
        payload, record = told["look.record"]
        send("look.record", payload | {"signs": {"stippling": "seen"}}, record)
        send("sample.record", *told["sample.record"])
        call, decision = told["decision.make"]
        with self.assertRaises(Refused):
            send("decision.make", call, decision)
        send("decision.make", call | {"control": ""}, decision)
        self.assertEqual(count(TreatmentRow, decision_id=decision), 0)
        self.assertEqual(count(ReturnVisit, decision_id=decision), 1)

    def test_signing(self) -> None:
        told = line()
        for kind, (payload, record) in told.items():
            send(kind, payload, record)
        right = application(told["decision.make"][1])
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
        self.assertEqual(working["catalogue"], known.hash)
        self.assertAlmostEqual(sum(cause["probability"] for cause in look.working["causes"]), 1, delta=0.2)

    def test_the_demo_is_loaded_once(self) -> None:
        before = count(CommandRow)
        self.assertFalse(demo.load())
        self.assertEqual(count(CommandRow), before)
