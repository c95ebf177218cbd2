"""What is done keeps pickers out, and is not signed before a picking that it would spoil; seasons under cover, of young stations, of a farm."""

import datetime as dt
import unittest
import uuid
from dataclasses import replace
from typing import Any
from unittest import mock

from bootmark.core.season import offset
from bootmark.core.season.offset import YearOff
from bootmark.services.base.command import Refused
from bootmark.services.scouting import picking
from bootmark.services.seasons import crop_stages, forecasts, offsets, unready
from bootmark.services.treatment import protection, weighing
from bootmark.services.weather import blocks as block_weather
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, DecisionRow, Farm, TreatmentRow
from bootmark.store.session import farm_session
from tests.database import DatabaseTest, catalogue
from tests.sending import send
from tests.services.lines import SIGNS, application

TODAY = NOW.date()
MANY = [9, 8, 12, 10] * 5


def block(crop: str = "raspberry", **more: Any) -> uuid.UUID:
    """A block of its own, at the station in the tunnel."""
    record = uuid.uuid4()
    plain = {"crop": crop, "place": "tunnel", "cultivar": "", "area": 0.2, "outline": [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]]}
    send("block.save", {"name": f"P {record}", "station_id": str(made("Tunnel logger")), **plain, **more}, record)
    return record


def called(where: uuid.UUID, control: str = "acequinocyl") -> uuid.UUID:
    """Mites proved, counted and a control chosen against them there. Raises Refused where it is not on offer."""
    stop, look, sample, decision = (uuid.uuid4() for _ in range(4))
    send("stop.open", {"block_id": str(where), "where": ""}, stop)
    send("look.record", {"stop_id": str(stop), "signs": SIGNS, "note": ""}, look)
    count = {"unit": "leaf", "measure": "mean", "counts": MANY, "enemies": [0] * len(MANY)}
    send("sample.record", {"stop_id": str(stop), "agent": "two-spotted-spider-mite", **count}, sample)
    mite = {"agent": "two-spotted-spider-mite", "sample_id": str(sample), "control": control}
    send("decision.make", {"look_id": str(look), **mite}, decision)
    return decision


def move_picking(where: uuid.UUID, on: str) -> None:
    with farm_session(FARM) as session:
        session.get_one(Block, (FARM, where)).harvest_from = dt.date.fromisoformat(on)


class Picking(DatabaseTest):
    def kept(self) -> dict[uuid.UUID, picking.NoPicking]:
        with farm_session(FARM) as session:
            return picking.blocks(session, session.get_one(Farm, FARM), catalogue, TODAY)

    def test_signing_keeps_pickers_out_for_the_interval(self) -> None:
        where = block(harvest_from="2026-08-20")
        self.assertNotIn(where, self.kept())
        send("application.record", application(called(where)), uuid.uuid4())
        stays = self.kept()[where]
        # Fourteen days, as the catalogue recalls the label, and the morning after.
        self.assertEqual(stays.before, TODAY + dt.timedelta(days=15))
        self.assertTrue(stays.labelled)

    def test_nothing_is_signed_before_a_picking_that_it_would_spoil(self) -> None:
        where = block(harvest_from="2026-08-20")
        card = application(called(where))
        move_picking(where, "2026-06-25")
        with self.assertRaises(Refused) as refused:
            send("application.record", card, uuid.uuid4())
        self.assertIn("not before 3 July", refused.exception.errors["treatment_id"])
        move_picking(where, "2026-07-10")
        send("application.record", card, uuid.uuid4())

    def test_an_unknown_picking_is_asked_for(self) -> None:
        with self.assertRaises(Refused):
            called(block())
        where = block(harvest_from="2026-08-20")
        with farm_session(FARM) as session:
            farm, row = session.get_one(Farm, FARM), session.get_one(Block, (FARM, where))
            self.assertEqual(weighing.crop_state(session, farm, row, TODAY).days_to_harvest, 62)
            row.harvest_from = TODAY - dt.timedelta(days=3)
            self.assertEqual(weighing.crop_state(session, farm, row, TODAY).days_to_harvest, 0)
            row.harvest_from = TODAY - dt.timedelta(days=300)
            self.assertIsNone(weighing.crop_state(session, farm, row, TODAY).days_to_harvest)

    def test_what_was_done_stands_until_its_days_are_over_or_rain_ends_it(self) -> None:
        where = block(harvest_from="2026-08-20")
        send("application.record", application(called(where)), uuid.uuid4())
        name = f"P {where}"
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            for later, stands in ((0, True), (9, True), (11, False)):
                rows = protection.standing(session, farm, catalogue, TODAY + dt.timedelta(days=later))
                self.assertEqual(name in {row.block for row in rows}, stands, later)
            mine = next(row for row in protection.standing(session, farm, catalogue, TODAY) if row.block == name)
            self.assertEqual((mine.done, mine.until, mine.washed), (TODAY, TODAY + dt.timedelta(days=10), False))
            record = block_weather.record_of(session, farm, session.get_one(Block, (FARM, where)))
            assert record
            soaked = replace(record, rain={TODAY + dt.timedelta(days=1): 30.0})
            with mock.patch.object(block_weather, "record_of", return_value=soaked):
                washed = protection.standing(session, farm, catalogue, TODAY + dt.timedelta(days=3))
            mine = next(row for row in washed if row.block == name)
            self.assertEqual((mine.until, mine.washed, mine.measured), (TODAY + dt.timedelta(days=1), True, False))

    def test_repeats_stop_before_the_harvest(self) -> None:
        soon, far = (called(block(harvest_from=on), "insecticidal-soap") for on in ("2026-06-24", "2026-08-20"))
        with farm_session(FARM) as session:
            planned = {
                decision: session.query(TreatmentRow).filter_by(farm_id=FARM, decision_id=decision).count() for decision in (soon, far)
            }
            self.assertIsNotNone(session.get(DecisionRow, (FARM, soon)))
        self.assertLess(planned[soon], planned[far])


class Covered(DatabaseTest):
    def test_a_station_outside_tells_no_stage_under_cover(self) -> None:
        inside, outside = block(), block(station_id=str(made("Valley mast")))
        mite = catalogue.agent("raspberry-cane-borer")
        moth = catalogue.agent("japanese-beetle")
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            rows = {where: session.get_one(Block, (FARM, where)) for where in (inside, outside)}
            self.assertTrue(block_weather.tells_heat(session, farm, rows[inside]))
            self.assertFalse(block_weather.tells_heat(session, farm, rows[outside]))
            self.assertIsNone(forecasts.ask(session, farm, rows[outside], moth, TODAY))
            self.assertIsNotNone(forecasts.ask(session, farm, rows[inside], moth, TODAY))
            self.assertIsNone(mite.heat)
            pear = session.query(Block).filter_by(name="Orchard A").one()
            self.assertTrue(block_weather.tells_heat(session, farm, pear))
            waits = unready.waiting(session, farm, [rows[outside]], catalogue, TODAY)
            self.assertTrue(all("under cover" in row.why.lower() for row in waits))

    def test_a_crop_by_heat_is_told_where_a_station_tells_it(self) -> None:
        pears, under = (
            block("pear", place="orchard", station_id=str(made("Valley mast"))),
            block("pear", station_id=str(made("Valley mast"))),
        )
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            told, silent = (crop_stages.foretold(session, farm, session.get_one(Block, (FARM, where)), TODAY) for where in (pears, under))
            self.assertEqual(silent, [])
            ripe = {stage.code: stage for stage in told}[87]
            assert ripe.p10 and ripe.p50
            self.assertTrue(dt.date(2026, 7, 15) < ripe.p10 < ripe.p50)
            # Nobody noted a flower, and by heat it is long over: bees are not in danger.
            self.assertFalse(crop_stages.in_flower(session, farm, session.get_one(Block, (FARM, pears)), TODAY))


class Waits(DatabaseTest):
    def test_a_biofix_carries_the_days_since_its_trap_was_read(self) -> None:
        where = block("pear", place="orchard", station_id=str(made("Valley mast")))
        trap = uuid.uuid4()
        payload = {
            "name": f"T {trap}", "block_id": str(where), "agent": "codling-moth", "kind": "delta", "longitude": 7.1, "latitude": 46.2, "set_on": "2026-05-01",
            "lure_on": "2026-05-01", "lure_days": 60, "check_days": 7,
        }  # fmt: skip
        send("trap.save", payload, trap)
        for on, caught in (("2026-05-08", 0), ("2026-05-15", 4), ("2026-05-18", 3)):
            send("trap.check", {"trap_id": str(trap), "on": on, "caught": caught, "new_lure": False, "note": ""})
        send("biofix.set", {"block_id": str(where), "agent": "codling-moth", "on": "2026-05-15", "basis": "males"})
        with farm_session(FARM) as session:
            self.assertEqual(forecasts.biofixes(session, TODAY)[(where, "codling-moth")].days, 7)


class Accepted(DatabaseTest):
    def test_past_years_propose_and_a_person_accepts(self) -> None:
        moth = catalogue.agent("codling-moth")
        assert moth.heat
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            orchard = session.query(Block).filter_by(name="Orchard A").one()
            years = offsets.judged(session, farm, orchard, moth, TODAY)
            self.assertEqual([row.year for row in years], [2025, 2024])
            own = offsets.proposed(moth, years, TODAY.year)
            assert own
            self.assertEqual(own.years, 2)
            before = forecasts.of_block(session, farm, orchard, moth, TODAY)
        send("model.offset", {"agent": "codling-moth", "times": 1.2, "error": 0.04, "years": 2})
        with farm_session(FARM) as session:
            after = forecasts.of_block(session, farm, session.query(Block).filter_by(name="Orchard A").one(), moth, TODAY)
            assert before and after
            for early, late in zip(before.forecast.events[:3], after.forecast.events[:3], strict=True):
                assert early.p50 and late.p50
                self.assertGreater(late.p50, early.p50)
        send("model.offset", {"agent": "codling-moth", "times": 1.0, "error": 0.05, "years": 0})
        with farm_session(FARM) as session:
            self.assertNotIn("codling-moth", offsets.accepted(session))
        with self.assertRaises(Refused):
            send("model.offset", {"agent": "codling-moth", "times": 1.1, "error": 0.05, "years": 0})


class Combined(unittest.TestCase):
    def test_more_years_make_surer_and_an_early_farm_needs_smaller_sums(self) -> None:
        heat = catalogue.agent("codling-moth").heat
        assert heat
        early = YearOff(0.06, 0.03, 20.0)
        factors = [offset.combined(heat, [early] * years) for years in (1, 3, 9)]
        times = [row.times for row in factors if row]
        unsure = [row.unsure for row in factors if row]
        self.assertEqual(times, sorted(times, reverse=True))
        self.assertTrue(1 / 1.06 < times[-1] < 1)
        self.assertEqual(unsure, sorted(unsure, reverse=True))
        self.assertIsNone(offset.combined(heat, []))
        scaled = offset.applied(heat, 0.9, 0.04)
        self.assertAlmostEqual(scaled.events[2].middle, 0.9 * heat.events[2].middle, places=9)
        with self.assertRaises(ValueError):
            offset.applied(heat, 0.0, 0.04)
