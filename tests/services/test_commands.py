"""Commands: every kind sent twice, out of order, with a stale base, as the wrong person, by two at once."""

import copy
import datetime as dt
import itertools
import threading
import uuid
from typing import Any

from sqlalchemy import func, select, text

from bootmark.services import commands, crop_stages, enquiries, judging, sightings, traps, weather  # noqa: F401 - register their kinds
from bootmark.services.commands import KINDS, Forbidden, OtherContent, Refused, Sent, TooEarly
from bootmark.standins import demo
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Command, Farm, FindingRow, Look, ReturnVisit, Stop, TreatmentRow
from bootmark.store.session import farm_session
from bootmark.store.versions import VERSIONS
from tests.database import DatabaseTest, known, member

REAL = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)
SIGNS = {"stippling": "seen", "webbing-fine": "seen", "mites-and-round-eggs": "seen", "slender-insects-on-paper": "absent"}


def send(
    kind: str,
    payload: dict[str, Any],
    record: uuid.UUID | None = None,
    *,
    role: str = "owner",
    base: int = 0,
    command: uuid.UUID | None = None,
) -> dict[str, Any]:
    sent = Sent(command or uuid.uuid4(), kind, record or uuid.uuid4(), base, NOW, payload)
    with farm_session(FARM) as session:
        return commands.handle(session, session.get_one(Farm, FARM), member(role), known, sent, REAL)


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
        weather.store_days(session, FARM, ridge, [row])
    return {"station_id": str(ridge), "local_date": day.isoformat(), "verdict": "stands"}, judging.record_id(ridge, day)


def application(decision: uuid.UUID) -> dict[str, Any]:
    with farm_session(FARM) as session:
        row = session.scalars(select(TreatmentRow).where(TreatmentRow.decision_id == decision, TreatmentRow.ordinal == 0)).one()
        control = known.agent(row.agent).control(row.control)
    from bootmark.services.calls import checks

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
        batch = [
            {
                "command_id": str(uuid.uuid4()),
                "kind": kind,
                "record_id": str(record),
                "base_version": 0,
                "seen_at": NOW.isoformat(),
                "payload": payload,
            }
            for kind, (payload, record) in reversed(list(told.items()))
        ]
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            first = commands.sync(session, farm, member("owner"), known, batch, REAL)
            again = commands.sync(session, farm, member("owner"), known, batch, REAL)
            third = commands.sync(session, farm, member("owner"), known, batch, REAL)
        self.assertEqual([one["command_id"] for one in first], [one["command_id"] for one in batch])
        self.assertNotIn("refused", {one["status"] for one in first})
        # What hangs on two others that were sent after it needs a second sending, as the outbox does.
        self.assertEqual({one["status"] for one in again}, {"stored"})
        self.assertTrue(all(one["replayed"] for one in third))

    def test_a_stale_base_keeps_both_and_flags_them(self) -> None:
        told = line()
        for kind, (payload, record) in told.items():
            send(kind, payload, record)
            second = send(kind, payload, record, base=1)
            self.assertEqual((second["status"], second["version"]), ("stored", 2), kind)
            stale = send(kind, payload, record, base=1)
            self.assertEqual((stale["status"], stale["version"]), ("conflict", 3), kind)
            with farm_session(FARM) as session:
                head = session.get_one(KINDS[kind].head, (FARM, record))
                self.assertEqual((head.version, head.conflict), (2, True))
                versions = VERSIONS[KINDS[kind].head]
                flags = (
                    session.execute(select(versions.c.conflict).where(versions.c.record_id == record).order_by(versions.c.number))
                    .scalars()
                    .all()
                )
                self.assertEqual(flags, [False, False, True])
            settled = send(kind, payload, record, base=2)
            self.assertEqual(settled["version"], 4)
            with farm_session(FARM) as session:
                self.assertFalse(session.get_one(KINDS[kind].head, (FARM, record)).conflict)

    def test_a_base_that_has_not_arrived_waits(self) -> None:
        payload, record = line()["stop.open"]
        with self.assertRaises(TooEarly):
            send("stop.open", payload, record, base=3)

    def test_viewers_write_nothing_and_scouts_sign_nothing(self) -> None:
        told = line()
        before = count(Command)
        for kind, (payload, record) in told.items():
            with self.assertRaises(Forbidden):
                send(kind, payload, record, role="viewer")
        self.assertEqual(count(Command), before)
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
        send("stop.open", payload, record)
        results: list[str] = []

        def one() -> None:
            results.append(send("stop.open", payload, record, base=1)["status"])

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
        for raw in ({}, {"command_id": "x"}, {**_envelope(), "seen_at": "2026-06-18T07:00"}, {**_envelope(), "payload": []}):
            with self.assertRaises(Refused):
                Sent.of(raw)


def _envelope() -> dict[str, Any]:
    return {
        "command_id": str(uuid.uuid4()),
        "kind": "stop.open",
        "record_id": str(uuid.uuid4()),
        "base_version": 0,
        "seen_at": NOW.isoformat(),
        "payload": {},
    }


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
        before = count(Command)
        self.assertFalse(demo.load())
        self.assertEqual(count(Command), before)
