"""What grows on a block, and blocks that are cut and joined: nothing is opened, freed or counted anew by it."""

import datetime as dt
import uuid
from typing import Any

from bootmark.core.catalogue import default
from bootmark.services.base import ground, grown
from bootmark.services.base.command import Refused, TooEarly
from bootmark.services.base.states import HoldState, TreatmentState
from bootmark.services.scouting import closed, held, picking
from bootmark.services.seasons import crop_stages, forecasts
from bootmark.services.treatment import weighing
from bootmark.standins.estate import FARM, NOW, ORIGIN, made
from bootmark.store.models import Application, Block, DecisionRow, Farm, Hold, Planting, ReturnVisit, SampleRow, Stop, Trap, TreatmentRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue, clone, drop
from tests.sending import send
from tests.services.lines import count

TODAY = NOW.date()
FIELD = made("Long Field")


def cut(*points: tuple[float, float]) -> list[list[float]]:
    return [list(corner) for corner in ORIGIN.to_degrees(points)]


EAST = cut((300, 150), (300, 350))
"""A line across Long Field: a quarter of it lies east."""


class GroundTest(DatabaseTest):
    @classmethod
    def setUpClass(cls) -> None:
        """Each test has a farm of its own: what one cuts is not there for the next."""

    def setUp(self) -> None:
        self.addCleanup(drop, clone())

    def block(self, name_or_id: str | uuid.UUID) -> Block:
        block_id = made(name_or_id) if isinstance(name_or_id, str) else name_or_id
        with farm_session(FARM) as session:
            return next(row for row in ground.all_blocks(session) if row.id == block_id)

    def refused(self, kind: str, payload: dict[str, Any], record: uuid.UUID | None = None, **more: Any) -> dict[str, str]:
        with self.assertRaises(Refused) as caught:
            send(kind, payload, record, **more)
        return caught.exception.errors

    def plant(self, block: str, crop: str, **more: Any) -> uuid.UUID:
        return uuid.UUID(send("planting.save", {"block_id": str(made(block)), "crop": crop, **more})["record_id"])

    def divide(self, of: uuid.UUID = FIELD, line: Any = None, name: str = "Long Field, east") -> uuid.UUID:
        payload = {"block_id": str(of), "name": name, "line": EAST if line is None else line}
        return uuid.UUID(send("block.divide", payload)["record_id"])

    def join(self, to: uuid.UUID, other: uuid.UUID) -> None:
        send("block.join", {"other_id": str(other)}, to, base=self.block(to).command_id)


class Plantings(GroundTest):
    def test_a_new_block_has_the_planting_that_its_form_tells(self) -> None:
        with farm_session(FARM) as session:
            [planting] = grown.of_block(session, made("Orchard A"))
            self.assertEqual((planting.crop, planting.since, planting.harvest_from), ("pear", None, dt.date(2026, 8, 28)))
        self.assertIn("crop", self.refused("block.save", {"name": "Bare", "place": "field", "area": 1, "outline": []}))

    def test_a_crop_follows_another_and_the_block_turns_on_its_day(self) -> None:
        later = TODAY + dt.timedelta(days=20)
        self.assertIn("stands on all", self.refused("planting.save", {"block_id": str(FIELD), "crop": "leek"})["part"])
        leek = self.plant("Long Field", "leek", since=later.isoformat(), follows=True)
        self.assertEqual(self.block("Long Field").crop, "potato")
        with farm_session(FARM) as session:
            grown.turn(session, later, catalogue)
            block = session.get_one(Block, (FARM, FIELD))
            self.assertEqual((block.crop, grown.standing(block)[0].id), ("leek", leek))
            ended = next(row for row in grown.of_block(session, FIELD) if row.crop == "potato")
            self.assertEqual(ended.until, later - dt.timedelta(days=1))
            # A day on which nothing stands there: it lies bare, and bears the name of what was there last.
            session.get_one(Planting, (FARM, leek)).since = later + dt.timedelta(days=9)
            session.flush()
            grown.turn(session, later, catalogue)
            self.assertTrue(grown.is_bare(block))

    def test_in_a_mixed_bed_the_first_picking_and_every_flower_count(self) -> None:
        self.plant("Birch bed", "raspberry", part="row 9", harvest_from="2026-07-04")
        rose = self.plant("Birch bed", "rose", part="row 8")
        bed = self.block("Birch bed")
        self.assertEqual(grown.crops(bed), {bed.crop, "raspberry", "rose"})
        # Birches are not eaten, raspberries are: theirs is the picking, and nobody told one where another that is eaten has none.
        self.assertEqual(bed.harvest_from, dt.date(2026, 7, 4))
        self.plant("Birch bed", "pear", part="row 7")
        self.assertIsNone(self.block("Birch bed").harvest_from)
        self.assertEqual(grown.eaten_and_fed(catalogue, bed), (True, False))
        stage = {"block_id": str(bed.id), "planting_id": str(rose), "on": TODAY.isoformat(), "code": 65}
        send("crop.stage", stage)
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            self.assertTrue(crop_stages.in_flower(session, farm, self.block("Birch bed"), TODAY))
        self.assertIn("another block", self.refused("crop.stage", stage | {"block_id": str(FIELD)})["planting_id"])

    def test_a_stop_in_a_mixed_bed_is_at_one_of_its_plants(self) -> None:
        rose = self.plant("Birch bed", "rose", part="row 8")
        stop = uuid.UUID(send("stop.open", {"block_id": str(made("Birch bed")), "planting_id": str(rose)})["record_id"])
        other = uuid.UUID(send("stop.open", {"block_id": str(made("Birch bed"))})["record_id"])
        with farm_session(FARM) as session:
            crops = [grown.at_stop(session, session.get_one(Stop, (FARM, each))).crop for each in (stop, other)]
            self.assertEqual(crops, ["rose", self.block("Birch bed").crop])

    def test_a_stage_of_the_crop_before_says_nothing_of_the_one_that_stands(self) -> None:
        # Potatoes past flowering, then cabbages since yesterday: nobody told of them, so what heat says counts, and not "over".
        send("crop.stage", {"block_id": str(FIELD), "on": "2026-06-10", "code": 65})
        self.plant("Long Field", "cabbage", since="2026-06-17", follows=True)
        with farm_session(FARM) as session:
            self.assertEqual(crop_stages.noted(session, self.block("Long Field")), [])

    def test_what_is_refused_and_where(self) -> None:
        for change, field, words in (
            ({"since": "2026-06-02", "until": "2026-06-01"}, "until", "one is wrong"),
            ({"since": "2026-06-02", "harvest_from": "2026-06-01"}, "harvest_from", "one is wrong"),
            ({"follows": True}, "since", "Since when"),
            ({"crop": "moon cheese"}, "crop", "not a crop"),
            ({"block_id": str(uuid.uuid4())}, "block_id", "not known here yet"),
        ):
            with self.subTest(change=change):
                errors = self.refused("planting.save", {"block_id": str(FIELD), "crop": "leek", "part": "edge"} | change)
                self.assertIn(words, errors[field])
        self.assertIn("role", self.refused("planting.save", {"block_id": str(FIELD), "crop": "leek", "part": "edge"}, role="scout"))


class Parts(GroundTest):
    def spray(self, block: uuid.UUID, hours_ago: float, number: int = 1) -> tuple[str, str]:
        """Say that something was signed for on a block so long ago: its agent and control, which closes a block and has an interval."""
        with farm_session(FARM, role="owner") as session:
            rows = session.query(Application, TreatmentRow).join(TreatmentRow, TreatmentRow.id == Application.treatment_id)
            for application, treatment in rows.order_by(Application.id).offset(number - 1).limit(1):
                agent, control = next(
                    (agent, control)
                    for agent in default().agents.values()
                    for control in agent.controls
                    if (control.reentry_hours or 0) >= 12 and (control.harvest_days or 0) >= 3
                )
                application.started_at = application.finished_at = NOW - dt.timedelta(hours=hours_ago)
                treatment.block_id, treatment.agent, treatment.control = block, agent.id, control.id
        return agent.id, control.id

    def shut(self) -> set[uuid.UUID]:
        with farm_session(FARM) as session:
            return set(closed.blocks(session, catalogue, NOW))

    def uses(self, block: uuid.UUID, control: str) -> int:
        with farm_session(FARM) as session:
            return weighing.uses_this_season(session, session.get_one(Farm, FARM), self.block(block), control, TODAY)

    def test_a_split_of_a_sprayed_block_neither_opens_it_nor_resets_a_season_s_number(self) -> None:
        _, control = self.spray(FIELD, 1)
        before, area = self.uses(FIELD, control), self.block(FIELD).area
        piece = self.divide()
        self.assertLessEqual({FIELD, piece}, self.shut())
        self.assertEqual([self.uses(block, control) for block in (FIELD, piece)], [before, before])
        with farm_session(FARM) as session:
            kept = picking.blocks(session, session.get_one(Farm, FARM), catalogue, TODAY)
        self.assertEqual(kept[FIELD].before, kept[piece].before)
        self.assertAlmostEqual(self.block(FIELD).area + self.block(piece).area, area, places=3)
        # What is done to one of them after the cut is its own.
        with farm_session(FARM, role="owner") as session:
            block = session.get_one(Block, (FARM, piece))
            block.strips = [
                [span | {"until": "2026-06-10"} if span["until"] else span | {"since": "2026-06-10"} for span in block.strips[0]]
            ]
        self.spray(piece, 2, 2)
        self.assertEqual([self.uses(block, control) for block in (FIELD, piece)], [before, 1])

    def test_a_cut_and_a_joining_sent_twice_are_done_once(self) -> None:
        command, record = uuid.uuid4(), uuid.uuid4()
        payload = {"block_id": str(FIELD), "name": "Long Field, east", "line": EAST}
        answers = [send("block.divide", payload, record, command=command) for _ in range(2)]
        self.assertEqual([answer.get("replayed", False) for answer in answers], [False, True])
        self.assertIn("cut already", self.refused("block.divide", payload | {"name": "Another"}, record)["block_id"])
        rest = self.block(FIELD).area
        command, base = uuid.uuid4(), self.block(FIELD).command_id
        for _ in range(2):
            send("block.join", {"other_id": str(record)}, FIELD, base=base, command=command)
        self.assertGreater(self.block(FIELD).area, rest)
        with self.assertRaises(TooEarly):
            send("block.join", {"other_id": str(made("Mill Piece"))}, uuid.uuid4())

    def test_joined_again_the_worse_of_both_counts_and_not_their_sum(self) -> None:
        piece = self.divide()
        _, control = self.spray(FIELD, 30)
        self.spray(piece, 1, 2)
        self.join(FIELD, piece)
        self.assertIn(FIELD, self.shut())
        self.assertEqual(self.uses(FIELD, control), 2, "the day of the cut counts for both, so each has its own and the other's")
        ended = self.block(piece)
        self.assertEqual(ended.ended, TODAY)
        with farm_session(FARM) as session:
            self.assertNotIn(piece, [block.id for block in ground.blocks(session)])
        self.assertIn("no block any more", self.refused("stop.open", {"block_id": str(piece)})["block_id"])

    def test_a_hold_goes_with_the_ground_and_no_held_block_ends(self) -> None:
        with farm_session(FARM, role="owner") as session:
            call = session.query(DecisionRow).filter_by(farm_id=FARM).order_by(DecisionRow.id).limit(1).one()
            session.add(
                Hold(
                    farm_id=FARM,
                    id=uuid.uuid4(),
                    block_id=FIELD,
                    decision_id=call.id,
                    agent=call.agent,
                    since=TODAY - dt.timedelta(days=3),
                    state=HoldState.HELD,
                )
            )
        piece = self.divide()
        with farm_session(FARM) as session:
            self.assertLessEqual({FIELD, piece}, set(held.blocks(session)))
        block = self.block(piece)
        gone = {"name": block.name, "place": block.place, "area": block.area, "outline": block.outline, "ended": TODAY.isoformat()}
        self.assertIn("held", self.refused("block.save", gone, piece, base=block.command_id)["ended"])

    def test_what_grows_hangs_and_began_there_goes_on_in_the_piece(self) -> None:
        send("crop.stage", {"block_id": str(FIELD), "on": "2026-06-12", "code": 61})
        trap: dict[str, Any] = {
            "name": "East 1",
            "block_id": str(FIELD),
            "agent": "colorado-potato-beetle",
            "kind": "delta",
            "set_on": "2026-06-01",
        }
        [(east, north)] = ORIGIN.to_degrees([(390, 240)])
        trap |= {"longitude": east, "latitude": north, "lure_on": "2026-06-01", "lure_days": 42, "check_days": 7, "ended": False}
        hung = uuid.UUID(send("trap.save", trap)["record_id"])
        piece = self.divide()
        with farm_session(FARM) as session:
            farm, block = session.get_one(Farm, FARM), self.block(piece)
            self.assertEqual([planting.crop for planting in grown.standing(block)], ["potato"])
            self.assertTrue(crop_stages.in_flower(session, farm, block, TODAY), "it flowers as it did before the cut")
            self.assertEqual(session.get_one(Trap, (FARM, hung)).block_id, piece)
            starts = forecasts.biofixes(session, TODAY)
            began = {agent: start.on for (where, agent), start in starts.items() if where == FIELD}
            self.assertTrue(began)
            self.assertEqual({agent: start.on for (where, agent), start in starts.items() if where == piece}, began)

    def test_a_block_that_ends_has_nothing_planned_and_can_come_back(self) -> None:
        mill = made("Mill Piece")
        self.assertTrue(count(TreatmentRow, block_id=mill, state=TreatmentState.PLANNED))
        block = self.block(mill)
        said = {"name": block.name, "place": block.place, "area": block.area, "outline": block.outline}
        send("block.save", said | {"ended": TODAY.isoformat()}, mill, base=block.command_id)
        self.assertFalse(count(TreatmentRow, block_id=mill, state=TreatmentState.PLANNED))
        self.assertFalse(count(ReturnVisit, block_id=mill, state="booked"))
        send("block.save", said, mill, base=self.block(mill).command_id)
        self.assertEqual((self.block(mill).ended, self.block(mill).crop), (None, "cabbage"))

    def test_what_can_t_be_cut_or_joined_is_told(self) -> None:
        for payload, field, words in (
            ({"line": []}, "line", "from one side to another"),
            ({"line": cut((0, 900), (10, 900))}, "line", "does not cut"),
            ({"line": EAST, "name": "Orchard A"}, "name", "already"),
            ({"line": cut((67.45, 150), (79.45, 350))}, "line", "half a metre"),
        ):
            self.assertIn(words, self.refused("block.divide", {"block_id": str(FIELD), "name": "East"} | payload)[field])
        for other, words in ((FIELD, "another block"), (made("Tunnel 1"), "can't be one"), (made("Mill Piece"), "do not touch")):
            errors = self.refused("block.join", {"other_id": str(other)}, FIELD, base=self.block(FIELD).command_id)
            self.assertIn(words, errors["other_id"])
        undrawn = {"name": "Slip", "crop": "potato", "place": "field", "area": 1.0, "outline": []}
        slip = uuid.UUID(send("block.save", undrawn)["record_id"])
        self.assertIn(
            "not drawn", self.refused("block.join", {"other_id": str(slip)}, FIELD, base=self.block(FIELD).command_id)["other_id"]
        )
        self.assertIn("How large", self.refused("block.divide", {"block_id": str(slip), "name": "Half", "line": []})["area"])
        send("block.divide", {"block_id": str(slip), "name": "Half", "line": [], "area": 0.4})
        self.assertAlmostEqual(self.block(slip).area, 0.6)


class Withdrawn(GroundTest):
    def test_a_count_that_is_withdrawn_takes_back_what_was_planned_on_it_and_has_not_begun(self) -> None:
        with farm_session(FARM, role="owner") as session:
            planned = session.query(TreatmentRow).filter_by(farm_id=FARM, state=TreatmentState.PLANNED)
            treatment = planned.order_by(TreatmentRow.id).limit(1).one()
            call = session.get_one(DecisionRow, (FARM, treatment.decision_id))
            look = send("stop.open", {"block_id": str(call.block_id)})["record_id"]
        sample = {"stop_id": look, "agent": call.agent, "unit": "plant", "measure": "mean", "counts": [3] * 12, "enemies": []}
        kept = uuid.UUID(send("sample.record", sample)["record_id"])
        with farm_session(FARM, role="owner") as session:
            session.get_one(DecisionRow, (FARM, call.id)).sample_id = kept
        head = self.head(kept)
        send("sample.record", sample, kept, base=head, withdrawn=True, reason="the wrong row")
        self.assertFalse(count(TreatmentRow, decision_id=call.id, state=TreatmentState.PLANNED))
        self.assertFalse(count(ReturnVisit, decision_id=call.id, state="booked"))

    def head(self, record: uuid.UUID) -> uuid.UUID:
        with farm_session(FARM) as session:
            return session.get_one(SampleRow, (FARM, record)).command_id
