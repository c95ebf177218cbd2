"""Measures, days and numbers as a farm and its people like them; and what a farm forgets."""

import datetime as dt
from typing import Any

from sqlalchemy import select, text

from bootmark.standins.estate import FARM, made
from bootmark.store.models import Block
from bootmark.store.session import farm_session
from bootmark.web.forms import OTHER_UNITS
from tests.web.test_pages import F, PagesTest

AMERICAN = {"measures": "US", "scale": "F", "days": "month-first"}
ORCHARD = made("Orchard B")


class WaysTest(PagesTest):
    def setUp(self) -> None:
        super().setUp()
        self.like()

    def like(self, **ways: str) -> None:
        self.post(self.client, f"{F}/devices/likes", ways)

    def block(self) -> Block:
        with farm_session(FARM) as session:
            return session.scalars(select(Block).where(Block.id == ORCHARD)).one()

    def save(self, **form: str) -> Any:
        block = self.block()
        own = {"record_id": str(block.id), "name": block.name, "crop": "pear", "cultivar": block.cultivar, "place": block.place}
        own |= {
            "area": str(block.area),
            "weather": block.weather,
            "station_id": str(block.station_id or ""),
            "outline": "[[0, 0], [90, 0], [90, 90]]",
        }
        return self.post(self.client, f"{F}/farm/block", self.form(block.command_id) | own | form)


class Ways(WaysTest):
    def test_one_person_reads_in_the_own_measures_and_the_others_in_the_farm_s(self) -> None:
        area, station = self.block().area, made("Ridge mast")
        self.like(**AMERICAN)
        page = self.client.get(f"{F}/farm/block/{ORCHARD}").text
        self.assertIn("Area, ac", page)
        self.assertIn(f'value="{area / 0.40468564224:.6g}"', page)
        self.assertIn('name="lower" type="text" value="50"', self.client.get(f"{F}/station/{station}").text)
        self.assertIn("June ", self.client.get(f"{F}/stages").text)
        adviser = self.enter("adviser").get(f"{F}/farm/block/{ORCHARD}").text
        self.assertIn("Area, ha", adviser)

    def test_what_is_typed_is_kept_in_the_unit_that_is_stored(self) -> None:
        self.like(**AMERICAN)
        self.assertEqual(self.save(area="2.5", elevation="1,640.4").status_code, 302)
        block = self.block()
        self.assertAlmostEqual(block.area, 1.01171, places=4)
        self.assertAlmostEqual(block.elevation or 0, 500, places=1)

    def test_a_number_that_can_be_read_twice_is_asked_for_again_unless_only_one_reading_can_be(self) -> None:
        before = self.block().area
        answer = self.save(area="1,234")
        self.assertEqual(answer.status_code, 400)
        self.assertIn("1,234 can be read in two ways: write 1234 or 1.234.", answer.text)
        self.like(numbers="comma")
        self.assertIn("1,234 can be read in two ways: write 1,234 or 1234.", self.save(area="1,234").text)
        self.assertEqual(self.block().area, before)
        self.assertEqual(self.save(area="12,345").status_code, 302)
        self.assertAlmostEqual(self.block().area, 12.345)

    def test_limits_are_said_in_the_own_unit(self) -> None:
        self.like(**AMERICAN)
        self.assertIn("is out of range: write a number from 0.000247105 to 24710.5 ac", self.save(area="30000").text)

    def test_a_page_of_before_the_units_changed_keeps_nothing_and_loses_nothing(self) -> None:
        before = self.block().area
        self.like(**AMERICAN)
        answer = self.save(area="7.5", written="metric C day-first point")
        self.assertEqual(answer.status_code, 400)
        self.assertIn(OTHER_UNITS, answer.text)
        self.assertIn('value="7.5"', answer.text)
        self.assertEqual(self.block().area, before)

    def test_what_is_none_of_the_ways_is_as_the_farm_writes_it(self) -> None:
        self.like(measures="cubits", scale="K")
        self.assertIn("Area, ha", self.client.get(f"{F}/farm/block/{ORCHARD}").text)


class OfTheFarm(WaysTest):
    def test_the_farm_s_own_ways_are_everybody_s_who_chose_none(self) -> None:
        with farm_session(FARM) as session:
            base = session.execute(text("SELECT command_id FROM farm_settings")).scalar_one_or_none()
        own = {"record_id": str(FARM), "name": "Ferrin Vale", "latitude": "46,2", "longitude": "7,1", "time_zone": "Europe/Vienna"}
        self.post(self.client, f"{F}/settings", self.form(base or "") | own | AMERICAN | {"numbers": "comma", "retention_days": "365"})
        self.assertIn("Area, ac", self.enter("adviser").get(f"{F}/farm/block/{ORCHARD}").text)
        self.like(measures="UK")
        self.assertIn("Area, ha", self.client.get(f"{F}/farm/block/{ORCHARD}").text)
        with farm_session(FARM) as session:
            self.assertEqual(session.execute(text("SELECT latitude, numbers, retention_days FROM farm")).one(), (46.2, "comma", 365))


class Forgetting(PagesTest):
    def told(self, question: str) -> list[Any]:
        with farm_session(FARM, role="owner") as session:
            return list(session.execute(text(question)).scalars())

    def forget(self) -> int:
        with farm_session(None, role="worker") as session:
            return int(session.execute(text("SELECT bm_forget(:now)"), {"now": dt.datetime.now(dt.UTC)}).scalar_one())

    def test_strangers_are_forgotten_after_the_days_that_the_owner_said_and_not_before(self) -> None:
        senders = "SELECT sender FROM enquiry WHERE state = 'answered' UNION ALL SELECT payload ->> 'sender' FROM enquiry_version v"
        senders += " JOIN enquiry e ON (e.farm_id, e.id) = (v.farm_id, v.record_id) WHERE e.state = 'answered'"
        waiting = "SELECT sender FROM enquiry WHERE state <> 'answered' ORDER BY sender"
        with farm_session(FARM, role="owner") as session:
            session.execute(text("UPDATE enquiry SET state = 'answered' WHERE id = (SELECT id FROM enquiry ORDER BY id LIMIT 1)"))
            old = session.execute(text("SELECT seen_at FROM enquiry WHERE state = 'answered' ORDER BY seen_at LIMIT 1")).scalar_one()
            now = session.execute(text("SELECT clock_at FROM farm")).scalar_one()
        self.assertEqual(self.forget(), 0)
        before, open_before = self.told(senders), self.told(waiting)
        self.assertTrue(all(before))
        with farm_session(FARM, role="owner") as session:
            session.execute(text("UPDATE farm SET retention_days = :days"), {"days": (now - old).days + 2})
        self.forget()
        self.assertEqual(self.told(senders), before)
        with farm_session(FARM, role="owner") as session:
            session.execute(text("UPDATE enquiry SET seen_at = seen_at - interval '9 years'"))
        self.assertGreater(self.forget(), 0)
        self.assertEqual(set(self.told(senders)), {""})
        self.assertEqual(self.told(waiting), open_before)
        self.assertEqual(self.client.get(f"{F}/enquiry").status_code, 200)


class Stations(PagesTest):
    def test_all_that_was_typed_of_a_station_can_be_changed_and_the_rest_stays(self) -> None:
        ridge = made("Ridge mast")
        page = self.client.get(f"{F}/station/{ridge}/edit").text
        self.assertIn('value="690"', page)
        self.assertIn('value="46.212"', page)
        with farm_session(FARM) as session:
            base, heard = session.execute(text("SELECT command_id, heard_at FROM station WHERE id = :id"), {"id": ridge}).one()
        own = {"record_id": str(ridge), "name": "Ridge mast", "latitude": "46.212", "longitude": "7.118", "elevation": "702"}
        own |= {"wind_height": "6", "offset_hours": "1", "kind": "outdoor", "url": ""}
        answer = self.post(self.client, f"{F}/station", self.form(base) | own | {"elevation": "high"})
        self.assertEqual((answer.status_code, "not a number" in answer.text, 'value="high"' in answer.text), (400, True, True))
        self.assertEqual(self.post(self.client, f"{F}/station", self.form(base) | own).status_code, 302)
        with farm_session(FARM) as session:
            row = session.execute(text("SELECT elevation, wind_height, heard_at FROM station WHERE id = :id"), {"id": ridge}).one()
        self.assertEqual(tuple(row), (702.0, 6.0, heard))
        self.assertEqual(self.enter("viewer").get(f"{F}/station/{ridge}/edit").status_code, 403)

    def test_a_station_tells_which_blocks_it_serves_and_why(self) -> None:
        page = self.client.get(f"{F}/station/{made('Ridge mast')}").text
        self.assertIn("by distance and height, with others", page)
        self.assertIn("its one station", self.client.get(f"{F}/station/{made('Tunnel logger')}").text)

    def test_a_new_station_s_clock_is_the_place_s(self) -> None:
        self.assertIn('name="offset_hours" type="text" value="1"', self.client.get(f"{F}/station/new").text)
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET time_zone = 'Asia/Kathmandu'"))
        self.assertIn('name="offset_hours" type="text" value="5.75"', self.client.get(f"{F}/station/new").text)
