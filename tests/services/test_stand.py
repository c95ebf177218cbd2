"""What the stand itself says: its height, its lots, stalks, fruit and leaves, the line overhead, the storm ahead."""

import datetime as dt
import uuid
from typing import Any

from bootmark.core.meanings import Condition, DecisionKind
from bootmark.core.messages import Says
from bootmark.core.types import CropState
from bootmark.services import lots, season_tasks
from bootmark.services.base import grown
from bootmark.services.scouting import conditions, flags, rounds
from bootmark.services.treatment import weighing
from bootmark.services.weather import blocks as block_weather
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import DecisionRow, Farm, ForecastHour, Planting, SampleRow, Stop
from bootmark.store.rows import of_farm
from bootmark.store.session import farm_session
from tests.database import catalogue
from tests.sending import REAL, send
from tests.services.lines import line, reported
from tests.services.test_plantings import GroundTest

TODAY = NOW.date()


class Stand(GroundTest):
    def state(self, block: str, agent: str = "") -> CropState:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            return weighing.crop_state(session, farm, self.block(block), TODAY, agent)

    def told(self, block: str, **more: object) -> uuid.UUID:
        """Say more of what stands on a block."""
        with farm_session(FARM) as session:
            row = grown.of_block(session, made(block))[0]
            payload = {"block_id": str(row.block_id), "crop": row.crop, "cultivar": row.cultivar, "part": row.part}
            base = row.command_id
        send("planting.save", payload | more, row.id, base=base)
        return row.id

    def test_no_more_plants_are_counted_than_stand_there_and_all_of_them_are_the_truth(self) -> None:
        self.told("Long Field", plants=8)
        stop = send("stop.open", {"block_id": str(made("Long Field"))})["record_id"]
        payload = {"stop_id": stop, "agent": "colorado-potato-beetle", "unit": "plant", "measure": "mean", "enemies": []}
        errors = self.refused("sample.record", payload | {"counts": [0] * 9})
        self.assertIn("8 stand there, and 9 were counted", errors["counts"])
        for counts, chosen in (([0] * 8, "all"), ([0, 1] * 3, "plan")):
            record = uuid.uuid4()
            send("sample.record", payload | {"counts": counts}, record)
            with farm_session(FARM) as session:
                self.assertEqual(session.get_one(SampleRow, (FARM, record)).chosen, chosen)
        # A leaf is no plant: of these there are more.
        send("sample.record", payload | {"agent": "green-peach-aphid", "unit": "leaf", "counts": [0] * 20})

    def test_height_and_worth_come_to_the_call(self) -> None:
        self.assertIsNone(self.state("Hop yard").height)
        self.told("Hop yard", height=6.5, sold_as="processed", worth="hard to replace")
        state = self.state("Hop yard")
        self.assertEqual((state.height, state.sold_as, state.worth), (6.5, "processed", "hard to replace"))

    def test_a_line_overhead_is_known_of_the_blocks_beneath_it(self) -> None:
        self.assertFalse(self.state("Orchard A").lines_near)
        with farm_session(FARM) as session:
            corners = self.block("Orchard A").outline
            del session
        send("feature.save", {"feature": "power", "points": [corners[0], corners[2]], "height": 8.0})
        self.assertTrue(self.state("Orchard A").lines_near)
        self.assertFalse(self.state("Mill Piece").lines_near)

    def test_a_storm_is_foretold_by_rain_or_by_wind(self) -> None:
        def storm() -> dt.date | None:
            with farm_session(FARM) as session:
                return block_weather.storm_ahead(session, session.get_one(Farm, FARM), self.block("Long Field"), TODAY)

        self.assertIsNone(storm())
        with farm_session(FARM, role="owner") as session:
            rows = session.scalars(of_farm(ForecastHour).order_by(ForecastHour.issued_at.desc(), ForecastHour.valid_at))
            when = NOW + dt.timedelta(days=2)
            for row in rows:
                if row.valid_at.date() == when.date():
                    row.wind = 19.0
        self.assertEqual(storm(), when.date())

    def test_leaf_that_is_lost_comes_to_the_call_of_its_agent(self) -> None:
        payloads = line()
        for kind in ("stop.open", "look.record", "condition.record"):
            send(kind, *payloads[kind])
        where = uuid.UUID(payloads["stop.open"][0]["block_id"])
        with farm_session(FARM) as session:
            shown = conditions.newest(session, where, "two-spotted-spider-mite", TODAY)
            self.assertAlmostEqual(shown[Condition.LEAVES].estimate, (0 + 5 + 20 + 20) / 4 / 100)
            self.assertEqual(conditions.newest(session, where, "slugs", TODAY), {})
            later = TODAY + dt.timedelta(days=30)
            self.assertEqual(conditions.newest(session, where, "two-spotted-spider-mite", later), {})

    def test_odd_conditions_are_refused(self) -> None:
        payloads = line()
        send("stop.open", *payloads["stop.open"])
        good = payloads["condition.record"][0]
        changes: tuple[dict[str, Any], ...] = (
            {"units": [101]},
            {"units": []},
            {"condition": "stalks", "units": [2]},
            {"units": [-1]},
            {"units": [0.5]},
        )
        for change in changes:
            self.assertIn("units", self.refused("condition.record", good | change), change)


class Lots(GroundTest):
    def lot(self, block: str, **more: object) -> uuid.UUID:
        return self.plant(block, "birch", part="bench 3", **more)

    def test_a_lot_carries_its_passport_from_bed_to_bed(self) -> None:
        first = self.lot("Birch bed", supplier="Northhill Plants", passport="NH-7 0412", checked_on="2026-06-01", since="2026-06-01")
        second = self.lot("Mill Piece", since="2026-06-10", came_from=str(first))
        with farm_session(FARM) as session:
            row = session.get_one(Planting, (FARM, second))
            self.assertEqual((row.supplier, row.passport, row.grown_from), ("Northhill Plants", "NH-7 0412", first))
            self.assertEqual([step.block for step in lots.way(session, session.get_one(Farm, FARM), row)], ["Birch bed", "Mill Piece"])
            self.assertEqual(
                [step.block for step in lots.way(session, session.get_one(Farm, FARM), session.get_one(Planting, (FARM, first)))],
                ["Birch bed", "Mill Piece"],
            )

    def test_nothing_leaves_a_held_block(self) -> None:
        here = reported()
        with farm_session(FARM) as session:
            held_lot = grown.of_block(session, here.block)[0]
        payload = {"block_id": str(made("Mill Piece")), "crop": held_lot.crop, "part": "a bench", "came_from": str(held_lot.id)}
        self.assertIn("came_from", self.refused("planting.save", payload))
        sold = {"block_id": str(here.block), "crop": held_lot.crop, "gone_to": "A garden"}
        self.assertIn("gone_to", self.refused("planting.save", sold, held_lot.id, base=held_lot.command_id))

    def test_a_lot_comes_from_another_of_its_crop(self) -> None:
        first = self.lot("Birch bed")
        self.assertIn(
            "came_from",
            self.refused("planting.save", {"block_id": str(made("Mill Piece")), "crop": "leek", "part": "x", "came_from": str(first)}),
        )

    def test_what_arrived_calls_the_scout_until_it_is_looked_through(self) -> None:
        def reasons() -> list[Says]:
            with farm_session(FARM) as session:
                walk = rounds.today(session, session.get_one(Farm, FARM), catalogue, catalogue, NOW, REAL).walk
                return [why.reason.kind for stop in walk.stops if stop.block == str(made("Birch bed")) for why in stop.whys]

        lot = self.lot("Birch bed", supplier="Northhill Plants")
        self.assertIn(Says.LOT_ARRIVED, reasons())
        with farm_session(FARM) as session:
            base = session.get_one(Planting, (FARM, lot)).command_id
        send(
            "planting.save",
            {
                "block_id": str(made("Birch bed")),
                "crop": "birch",
                "part": "bench 3",
                "supplier": "Northhill Plants",
                "checked_on": TODAY.isoformat(),
            },
            lot,
            base=base,
        )
        self.assertNotIn(Says.LOT_ARRIVED, reasons())


class Called(GroundTest):
    def test_a_hop_that_no_sprayer_reaches_is_a_firm_s(self) -> None:
        with farm_session(FARM) as session:
            row = grown.of_block(session, made("Hop yard"))[0]
        send(
            "planting.save",
            {"block_id": str(row.block_id), "crop": row.crop, "height": 6.5, "harvest_from": "2026-09-01"},
            row.id,
            base=row.command_id,
        )
        with farm_session(FARM) as session:
            session.get_one(Farm, FARM).reach = 2.5
        payloads = line()
        send("stop.open", {"block_id": str(made("Hop yard")), "where": ""}, payloads["stop.open"][1])
        send("look.record", *payloads["look.record"])
        count, sample = payloads["sample.record"]
        send("sample.record", count | {"counts": [40, 30] * 8}, sample)
        payload, record = payloads["decision.make"]
        self.assertIn("control", self.refused("decision.make", payload, record))
        send("decision.make", payload | {"control": ""}, record)
        with farm_session(FARM) as session:
            call = session.get_one(DecisionRow, (FARM, record))
            self.assertEqual((call.kind, call.control), (DecisionKind.REFER, ""))
            self.assertIn("6.5", call.headline)


class Places(GroundTest):
    def test_a_flagged_plant_comes_back_on_the_walk_until_the_flag_is_taken(self) -> None:
        stop = uuid.uuid4()
        lies = self.block("Orchard A").outline[0]
        opened = {"block_id": str(made("Orchard A")), "where": "row 3, tree 9"}
        send("stop.open", opened | {"longitude": lies[0], "latitude": lies[1], "flagged": True}, stop)
        with farm_session(FARM) as session:
            [flag] = [flag for flag in flags.standing(session, TODAY)[made("Orchard A")] if flag.stop == stop]
            self.assertEqual((flag.where, flag.place), ("row 3, tree 9", tuple(lies)))
            base = session.get_one(Stop, (FARM, stop)).command_id
        send("stop.open", opened, stop, base=base, at=NOW + dt.timedelta(days=2))
        with farm_session(FARM) as session:
            self.assertEqual([flag for flag in flags.standing(session, TODAY).get(made("Orchard A"), ()) if flag.stop == stop], [])
            self.assertEqual(session.get_one(Stop, (FARM, stop)).on, TODAY, "a stop stays on its day")

    def test_odd_places_are_refused(self) -> None:
        opened = {"block_id": str(made("Orchard A")), "where": ""}
        self.assertIn("where", self.refused("stop.open", opened | {"flagged": True}))
        self.assertIn("longitude", self.refused("stop.open", opened | {"longitude": 7.1}))
        self.assertIn("longitude", self.refused("stop.open", opened | {"longitude": 70.0, "latitude": 0.0}))

    def test_a_task_of_the_farm_has_no_place_and_one_of_a_block_has(self) -> None:
        done = {"on": TODAY.isoformat(), "fine": True}
        for task, place in (("nozzles", str(made("Orchard A"))), ("spurs", None)):
            self.assertIn("place_id", self.refused("task.do", done | {"task": task, "place_id": place}))
        self.assertIn("note", self.refused("task.do", {"task": "traps", "on": TODAY.isoformat()}))

    def test_winter_calls_to_the_wood_once(self) -> None:
        winter = dt.date(2026, 1, 20)

        def due() -> set[tuple[str, str]]:
            with farm_session(FARM) as session:
                rows = season_tasks.due(session, session.get_one(Farm, FARM), catalogue, winter)
                return {(row.task.kind, row.place) for row in rows}

        self.assertIn(("spurs", "Orchard A"), due())
        self.assertNotIn(("spurs", "Long Field"), due())
        send("task.do", {"task": "spurs", "place_id": str(made("Orchard A")), "on": winter.isoformat(), "fine": True})
        self.assertNotIn(("spurs", "Orchard A"), due())
        self.assertIn(("spurs", "Orchard B"), due())
