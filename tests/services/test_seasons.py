"""Sightings, crop stages, blended weather and stored forecasts, on a copy of the demo farm."""

import datetime as dt
import threading
import uuid
from typing import Any
from unittest import mock

import numpy as np
from sqlalchemy import func, select, text

from bootmark.core.season.daily import warmed
from bootmark.services.base import ground
from bootmark.services.base.command import Refused
from bootmark.services.seasons import crop_stages, forecasts, packing, results
from bootmark.services.treatment import weighing
from bootmark.services.weather import blocks as block_weather
from bootmark.services.weather import stations
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Block, Farm, SeasonResult, SeasonRun, Station
from bootmark.store.session import farm_session
from bootmark.worker import pull, tasks
from tests import orchards
from tests.database import DatabaseTest, catalogue
from tests.sending import REAL, send

DAY = NOW.date()
LONG, ORCHARD = made("Long Field"), made("Orchard A")
BEETLE, MOTH = "colorado-potato-beetle", "codling-moth"


def refused(kind: str, payload: dict[str, Any]) -> dict[str, str]:
    try:
        send(kind, payload)
    except Refused as error:
        return error.errors
    raise AssertionError(f"{kind} was taken")


class Sightings(DatabaseTest):
    def test_a_sighting_moves_the_forecast_of_its_block_only(self) -> None:
        def hatch(block: uuid.UUID) -> dt.date:
            with farm_session(FARM) as session:
                outlook = forecasts.of_block(
                    session, session.get_one(Farm, FARM), session.get_one(Block, (FARM, block)), catalogue.agent(MOTH), DAY
                )
                assert outlook
                return next(event.p50 for event in outlook.forecast.events if event.id == "leaving" and event.p50)

        hatch_here, other = hatch(ORCHARD), hatch(made("Orchard B"))
        send(
            "stage.sighting",
            {"block_id": str(ORCHARD), "agent": MOTH, "on": "2026-06-17", "counts": {"larva": 30, "pupa": 25}, "note": ""},
        )
        self.assertLess(hatch(ORCHARD), hatch_here)
        self.assertEqual(hatch(made("Orchard B")), other)

    def test_what_is_refused_and_where(self) -> None:
        good = {"block_id": str(LONG), "agent": BEETLE, "on": "2026-06-17", "counts": {"larva": 3}, "note": ""}
        self.assertIn("is not a number", refused("stage.sighting", {**good, "counts": {"larva": "many"}})["counts.larva"])
        self.assertIn("no nymph", refused("stage.sighting", {**good, "counts": {"nymph": 3}})["counts.nymph"])
        self.assertIn("Nothing was counted", refused("stage.sighting", {**good, "counts": {}})["counts"])
        self.assertIn("still ahead", refused("stage.sighting", {**good, "on": "2026-07-01"})["on"])
        self.assertIn("2026-02-30 is not a day", refused("stage.sighting", {**good, "on": "2026-02-30"})["on"])


class CropStages(DatabaseTest):
    def test_bloom_refuses_what_kills_bees(self) -> None:
        with farm_session(FARM) as session:
            farm, block = session.get_one(Farm, FARM), session.get_one(Block, (FARM, LONG))
            self.assertTrue(weighing.crop_state(session, farm, block, DAY).in_flower)
            self.assertFalse(weighing.crop_state(session, farm, block, dt.date(2026, 6, 10)).in_flower)
        send("crop.stage", {"block_id": str(LONG), "on": "2026-06-18", "code": 70, "note": ""})
        with farm_session(FARM) as session:
            farm, block = session.get_one(Farm, FARM), session.get_one(Block, (FARM, LONG))
            self.assertFalse(weighing.crop_state(session, farm, block, DAY).in_flower)

    def test_soybean_nodes_foretell_the_next(self) -> None:
        outline = [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]]
        fields = {"name": "Bean end", "crop": "soybean", "place": "field", "cultivar": "", "area": 1, "outline": outline}
        block = send("block.save", fields)["record_id"]
        for on, node in (("2026-06-04", 4), ("2026-06-16", 7)):
            send("crop.stage", {"block_id": block, "on": on, "code": 14, "node": node, "counted": "unifoliate", "note": ""})
        with farm_session(FARM) as session:
            rows = crop_stages.rows(session, session.get_one(Block, (FARM, uuid.UUID(block))))
            nodes = crop_stages.next_nodes(rows)
        self.assertEqual([(node, when.likely) for node, when in nodes[:2]], [(8, dt.date(2026, 6, 20)), (9, dt.date(2026, 6, 24))])
        self.assertIn(
            "soybeans",
            refused("crop.stage", {"block_id": str(LONG), "on": "2026-06-16", "code": 60, "node": 3, "counted": "unifoliate"})["node"],
        )
        self.assertIn("out of range", refused("crop.stage", {"block_id": str(LONG), "on": "2026-06-16", "code": 120})["code"])


class BlockWeather(DatabaseTest):
    def test_nearby_stations_are_mixed_at_the_blocks_height_and_the_logger_stays_out(self) -> None:
        with farm_session(FARM) as session:
            farm, birch = session.get_one(Farm, FARM), session.get_one(Block, (FARM, made("Birch bed")))
            self.assertEqual([source.name for source in block_weather.sources(session, farm, birch)], ["Valley mast", "Ridge mast"])
            day = dt.date(2026, 6, 10)
            mixed = block_weather.record_of(session, farm, birch)
            kept = {
                name: stations.record(session, session.get_one(Station, (FARM, made(name)))).days[day]
                for name in ("Valley mast", "Ridge mast")
            }
            assert mixed
            # 520 m: the valley (460 m) is brought down by 0.39 degrees, the ridge (690 m) up by 1.1 (0.65 a hundred metres).
            bounds = sorted((kept["Valley mast"][1] - 0.0065 * 60, kept["Ridge mast"][1] + 0.0065 * 170))
            self.assertTrue(bounds[0] - 1e-9 <= mixed.days[day][1] <= bounds[1] + 1e-9)
            tunnel = session.get_one(Block, (FARM, made("Tunnel 1")))
            self.assertEqual([source.name for source in block_weather.sources(session, farm, tunnel)], ["Tunnel logger"])

    def test_a_stations_gap_is_filled_from_its_neighbour_and_counted_as_filled(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            birch = session.get_one(Block, (FARM, made("Birch bed")))
            birch.weather, birch.station_id = "station", made("Ridge mast")
            session.flush()
            series, past = block_weather.series(session, farm, birch, DAY, dt.date(2026, 3, 1))
            kinds = dict(zip(series.dates, series.kind, strict=True))
            self.assertEqual({kinds[dt.date(2026, 4, 3) + dt.timedelta(days=n)] for n in range(6)}, {"neighbour"})
            self.assertEqual(len(past), 2)
            session.rollback()

    def test_without_a_station_nothing_is_told(self) -> None:
        with farm_session(FARM) as session, mock.patch("bootmark.services.base.ground.stations", return_value=[]):
            farm, birch = session.get_one(Farm, FARM), session.get_one(Block, (FARM, made("Birch bed")))
            # A write, so that nothing that was kept before is shown.
            session.execute(text("UPDATE block SET station_id = NULL"))
            self.assertIsNone(block_weather.station_of(session, farm, birch))
            self.assertIsNone(forecasts.of_block(session, farm, birch, catalogue.agent("birch-leafminer"), DAY))
            self.assertEqual(block_weather.hints(session, farm, birch, DAY), {})
            self.assertEqual(len(block_weather.days_ahead(session, farm, birch, DAY, 5)), 5)
            session.rollback()

    def test_warmer_days_ahead_leave_the_past_alone(self) -> None:
        with farm_session(FARM) as session:
            farm, block = session.get_one(Farm, FARM), session.get_one(Block, (FARM, ORCHARD))
            series, past = block_weather.series(session, farm, block, DAY, dt.date(2026, 5, 15))
            ahead, warm = warmed(series, 2.0, DAY), [warmed(year, 2.0) for year in past]
            step = np.asarray(ahead.tmax) - np.asarray(series.tmax)
            self.assertEqual({round(float(heat_step), 6) for day, heat_step in zip(series.dates, step, strict=True) if day < DAY}, {0.0})
            self.assertEqual({round(float(heat_step), 6) for day, heat_step in zip(series.dates, step, strict=True) if day >= DAY}, {2.0})
            self.assertAlmostEqual(float(np.asarray(warm[0].tmin)[0] - np.asarray(past[0].tmin)[0]), 2.0)


class Stored(DatabaseTest):
    def listing(self, session: Any) -> list[results.Listed]:
        farm = session.get_one(Farm, FARM)
        return results.listing(session, farm, ground.blocks(session), catalogue, DAY)

    def test_what_is_stored_reads_back_as_it_was(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            asked_about = next(row.ask for row in self.listing(session) if row.ask.agent.id == BEETLE)
            outlook = forecasts.answer(session, farm, asked_about, DAY)
            assert outlook
            again = packing.unpack(*packing.pack(outlook))
        self.assertEqual(
            (again.events, again.dates, again.kinds, again.biofix), (outlook.events, outlook.dates, outlook.kinds, outlook.biofix)
        )
        for stage, row in outlook.shares.items():
            np.testing.assert_allclose(again.shares[stage], row, atol=1e-6)
        np.testing.assert_allclose(again.heat, outlook.heat, rtol=1e-5)

    def test_a_change_makes_only_what_rests_on_it_stale(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            listed, run = results.refresh(session, farm, ground.blocks(session), catalogue, DAY, REAL)
            self.assertIsNone(run)
            self.assertTrue(listed and all(row.fresh for row in listed))
        send("stage.sighting", {"block_id": str(LONG), "agent": BEETLE, "on": "2026-06-17", "counts": {"larva": 9}, "note": ""})
        with farm_session(FARM) as session:
            self.assertEqual([row.ask.agent.id for row in self.listing(session) if not row.fresh], [BEETLE])

    def test_two_at_once_reckon_it_once(self) -> None:
        with farm_session(FARM) as session:
            session.execute(text("UPDATE season_result SET key = 'old'"))
            farm = session.get_one(Farm, FARM)
            asked_about = next(row.ask for row in self.listing(session) if row.ask.agent.id == BEETLE)
        answers: list[bool] = []

        def work() -> None:
            with farm_session(FARM, role="worker") as own:
                answers.append(results.keep(own, farm, asked_about, DAY, REAL))

        threads = [threading.Thread(target=work) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(answers), [False, True])


class Runs(DatabaseTest):
    """Forty more orchards with a biofix each: more than a page reckons by itself."""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        orchards.plant(40)

    def test_a_run_is_queued_once_stopped_halfway_and_ends_without_doing_anything_twice(self) -> None:
        with farm_session(FARM) as session:
            farm = session.get_one(Farm, FARM)
            blocks = ground.blocks(session)
            _, run = results.refresh(session, farm, blocks, catalogue, DAY, REAL)
            assert run
            again = results.refresh(session, farm, blocks, catalogue, DAY, REAL)[1]
            assert again
            self.assertEqual(again.id, run.id)
            self.assertGreaterEqual(run.total, 40)
            jobs = session.execute(text("SELECT count(*) FROM procrastinate_jobs WHERE task_name = 'bootmark.reckon_seasons'")).scalar_one()
            self.assertEqual(jobs, results.PARTS)
            total, run_id = run.total, str(run.id)
        for part in range(5):
            tasks.reckon_seasons(str(FARM), run_id, str(part))
        with farm_session(FARM) as session:
            halfway = session.get_one(SeasonRun, (FARM, uuid.UUID(run_id)))
            self.assertTrue(0 < halfway.done < total)
            self.assertIsNone(halfway.finished_at)
            before = dict(session.execute(select(SeasonResult.block_id, SeasonResult.reckoned_at)).all())
        # A worker that was stopped gets its parts again, from the first on.
        for part in range(results.PARTS):
            tasks.reckon_seasons(str(FARM), run_id, str(part))
        with farm_session(FARM) as session:
            done = session.get_one(SeasonRun, (FARM, uuid.UUID(run_id)))
            self.assertEqual((done.done, done.finished_at is not None), (total, True))
            after = dict(session.execute(select(SeasonResult.block_id, SeasonResult.reckoned_at)).all())
            self.assertTrue(all(after[block] == when for block, when in before.items()))
            farm = session.get_one(Farm, FARM)
            self.assertTrue(all(row.fresh for row in results.listing(session, farm, ground.blocks(session), catalogue, DAY)))
            self.assertEqual(session.execute(select(func.count()).select_from(SeasonResult)).scalar_one(), total)

    def test_stations_are_left_alone_longer_the_more_often_they_fail(self) -> None:
        self.assertEqual([pull.backed_off(n) for n in (1, 2, 3)], [dt.timedelta(minutes=m) for m in (2, 4, 8)])
        self.assertEqual(pull.backed_off(40), dt.timedelta(hours=6))
        with farm_session(FARM, role="worker") as session:
            session.execute(text("UPDATE station SET url = 'http://127.0.0.1:9' WHERE name = 'Valley mast'"))
            session.execute(text("UPDATE station SET url = '' WHERE name <> 'Valley mast'"))
            farm = session.get_one(Farm, FARM)
            with self.assertLogs("bootmark.worker", "WARNING"):
                pull.pull_farm(session, farm, REAL)
            mast = session.get_one(Station, (FARM, made("Valley mast")))
            self.assertEqual((mast.failures, mast.next_try_at), (1, REAL + dt.timedelta(minutes=2)))
            with self.assertNoLogs("bootmark.worker", "WARNING"):
                pull.pull_farm(session, farm, REAL + dt.timedelta(minutes=1))
            session.rollback()
