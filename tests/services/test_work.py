"""Coming to a farm: who it is there, what its rows are at, and that the wall is told only of members."""

import datetime as dt
import uuid

from sqlalchemy import text

from bootmark.services.base import ground, people, sign_ins, stamp, work
from bootmark.services.base.roles import DESK, KEEPERS, SCOUTS, SIGNERS, Role
from bootmark.standins.estate import FARM, PEOPLE, made
from bootmark.store.models import Block, Farm, Look
from bootmark.store.rows import NotHere, of_farm, plain, row_of
from bootmark.store.session import farm_session
from tests.database import DatabaseTest

NOW = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)


def token(email: str = PEOPLE[0][1]) -> str:
    """A sign-in of one of the people."""
    with work.nobody() as session:
        return sign_ins.begin(session, people.Person(made(email), "", email), sign_ins.From("10.0.0.1"), NOW)


class Entering(DatabaseTest):
    def test_each_of_the_people_is_who_they_are(self) -> None:
        for name, email, role, qualified in PEOPLE:
            with work.at_work(FARM, token(email), NOW) as here:
                self.assertEqual((here.person.name, here.person.email), (name, email))
                self.assertEqual((here.member.role, here.member.qualified, here.farm.id), (Role(role), qualified, FARM))
                self.assertTrue(ground.blocks(here.session))

    def test_a_stranger_and_an_unknown_farm_are_told_nothing(self) -> None:
        with self.assertRaises(NotHere), work.at_work(uuid.uuid4(), token(), NOW):
            self.fail("came in")
        with self.assertRaises(work.SignedOut), work.at_work(FARM, "no token of anybody", NOW):
            self.fail("came in")

    def test_the_wall_stays_up_for_a_stranger(self) -> None:
        with farm_session(None) as session:
            entered = session.execute(text("SELECT * FROM bm_enter('no hash', :f, now())"), {"f": FARM}).all()
            self.assertEqual(entered, [])
            self.assertEqual(session.execute(text("SELECT count(*) FROM block")).scalar_one(), 0)
            self.assertIn(session.execute(text("SELECT current_setting('bm.farm', true)")).scalar_one(), (None, ""))

    def test_the_stamps_at_the_door_are_those_that_are_asked_for_later(self) -> None:
        with work.at_work(FARM, token(), NOW) as here:
            at_the_door = stamp.of(here.session)
        with farm_session(FARM) as session:
            self.assertEqual(stamp.of(session), at_the_door)

    def test_the_setting_goes_with_its_transaction(self) -> None:
        with work.at_work(FARM, token(), NOW):
            pass
        with work.nobody() as session:
            self.assertEqual(session.execute(text("SELECT count(*) FROM look")).scalar_one(), 0)

    def test_the_farm_is_as_it_was_last_written(self) -> None:
        owner = token()
        with work.at_work(FARM, owner, NOW) as here:
            stood = here.farm.clock_at
        with farm_session(FARM) as session:
            session.execute(text("UPDATE farm SET clock_at = clock_at + interval '1 hour'"))
        with work.at_work(FARM, owner, NOW) as here:
            assert here.farm.clock_at and stood
            self.assertEqual((here.farm.clock_at - stood).seconds, 3600)
            here.farm.clock_at = stood
        with farm_session(FARM) as session:
            self.assertEqual(session.get_one(Farm, FARM).clock_at, stood)

    def test_the_first_farms_are_found(self) -> None:
        self.assertEqual(work.first_farms(3), [FARM])

    def test_a_database_that_is_away_is_told_as_such(self) -> None:
        for state, full in (("57P01", False), ("53100", True)):
            with self.assertRaises(work.DatabaseAway) as caught, work.nobody() as session:
                session.execute(text(f"DO $$ BEGIN RAISE EXCEPTION 'no' USING ERRCODE = '{state}'; END $$"))
            self.assertEqual(caught.exception.no_room, full)


class Rows(DatabaseTest):
    def test_a_plain_copy_outlives_its_session_and_a_rollback(self) -> None:
        with farm_session(FARM) as session:
            row = session.scalars(of_farm(Block).where(Block.name == "Hop yard")).one()
            copy = plain(row)
            session.rollback()
        self.assertEqual((copy.name, copy.crop, copy.id), ("Hop yard", "hop", made("Hop yard")))

    def test_blocks_and_stations_are_values_that_follow_what_is_written(self) -> None:
        with farm_session(FARM) as session:
            before = ground.blocks(session)
            self.assertIs(ground.blocks(session), before)
        with farm_session(FARM) as session:
            session.execute(text("UPDATE block SET name = 'Upper hops' WHERE name = 'Hop yard'"))
            self.assertIn("Upper hops", [block.name for block in ground.blocks(session)])
            session.rollback()
        with farm_session(FARM) as session:
            self.assertEqual([block.name for block in ground.blocks(session)], [block.name for block in before])

    def test_another_farms_rows_are_not_here(self) -> None:
        with farm_session(uuid.uuid4()) as session:
            self.assertEqual(session.scalars(of_farm(Look)).all(), [])
            with self.assertRaises(NotHere):
                row_of(session, Block, made("Hop yard"))
            self.assertEqual(ground.blocks(session), [])
            self.assertEqual(people.names(session), {})

    def test_an_outline_that_cannot_be_drawn_has_a_middle_all_the_same(self) -> None:
        odd = Block(outline=[["a", "b"], [1, 2], [3, 4]])
        farm = Farm(latitude=1.0, longitude=2.0, origin_latitude=46.2, origin_longitude=7.1)
        self.assertEqual((ground.drawable(odd), ground.middle(farm, odd), ground.lies_at(farm, odd)), (False, (0.0, 0.0), (2.0, 1.0)))
        corners = [list(corner) for corner in ground.origin(farm).to_degrees([(0, 0), (6, 0), (6, 4), (0, 4)])]
        self.assertEqual(ground.middle(farm, Block(outline=corners)), (3.0, 2.0))


class Roles(DatabaseTest):
    def test_viewers_are_in_no_group_that_writes(self) -> None:
        for group in (SCOUTS, KEEPERS, DESK, SIGNERS):
            self.assertNotIn(Role.VIEWER, group)
            self.assertIn(Role.OWNER, group)
