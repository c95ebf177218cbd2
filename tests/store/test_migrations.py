"""Migrations run on a database that people have written into."""

import os
import unittest
import uuid

import psycopg
from alembic import command
from alembic.operations import Operations
from alembic.runtime.migration import MigrationContext
from psycopg import sql
from sqlalchemy import create_engine, text

from bootmark.store import setup
from bootmark.store.migrations import walls
from bootmark.store.session import farm_session
from tests import database


class Populated(unittest.TestCase):
    def test_every_later_migration_keeps_what_is_there(self) -> None:
        database.template()
        name, farm = f"bm_{uuid.uuid4().hex[:12]}", uuid.uuid4()
        passwords = {role: os.environ[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] for role in setup.ROLES}
        setup.create_roles_and_database(os.environ["BOOTMARK_ADMIN_URL"], passwords, name)
        self.addCleanup(database.drop, name)
        database.use(name)
        owner = create_engine(os.environ["BOOTMARK_OWNER_URL"])
        try:
            with owner.begin() as connection:
                command.upgrade(setup.alembic_config(connection), "0002")
            with farm_session(farm) as session:
                session.execute(
                    text("INSERT INTO farm (id, name, latitude, longitude, time_zone, policy) VALUES (:id, 'Kept', 1, 2, 'UTC', '{}')"),
                    {"id": farm},
                )
            self.assertTrue(setup.migrate(os.environ["BOOTMARK_OWNER_URL"]))
            self.assertFalse(setup.migrate(os.environ["BOOTMARK_OWNER_URL"]))
            with farm_session(farm) as session:
                self.assertEqual(session.execute(text("SELECT name FROM farm")).scalars().all(), ["Kept"])
            with owner.connect() as connection:
                self.assertGreater(connection.execute(text("SELECT count(*) FROM agent WHERE NOT retired")).scalar_one(), 7)
        finally:
            owner.dispose()

    def test_an_agent_that_leaves_the_catalogue_is_retired_not_removed(self) -> None:
        name = database.clone()
        self.addCleanup(database.drop, name)
        owner = create_engine(os.environ["BOOTMARK_OWNER_URL"])
        with owner.begin() as connection:
            connection.execute(text("INSERT INTO agent (id, retired) VALUES ('old-pest', false)"))
            setup.sync_catalogue(connection)
            self.assertTrue(connection.execute(text("SELECT retired FROM agent WHERE id = 'old-pest'")).scalar_one())
        owner.dispose()

    def test_a_database_that_is_newer_than_the_code_is_left_alone(self) -> None:
        name = database.clone()
        self.addCleanup(database.drop, name)
        owner = create_engine(os.environ["BOOTMARK_OWNER_URL"])
        with owner.begin() as connection:
            connection.execute(text("UPDATE alembic_version SET version_num = '9999'"))
        with self.assertRaisesRegex(setup.Refused, "stands at 9999"):
            setup.migrate(os.environ["BOOTMARK_OWNER_URL"])
        owner.dispose()

    def test_a_data_migration_that_misses_rows_keeps_nothing(self) -> None:
        name = database.clone()
        self.addCleanup(database.drop, name)
        owner = create_engine(os.environ["BOOTMARK_OWNER_URL"])
        with owner.begin() as connection:
            self.assertEqual(connection.execute(text("UPDATE block SET cultivar = 'x'")).rowcount, 0)
            with Operations.context(MigrationContext.configure(connection)), walls.rows("block") as change:
                change("UPDATE block SET cultivar = 'y'", "SELECT count(*) FROM block")
                with self.assertRaises(walls.WrongCount):
                    change("UPDATE block SET cultivar = 'z' WHERE name = 'Hop yard'", "SELECT count(*) FROM block")
            forced = connection.execute(text("SELECT relforcerowsecurity FROM pg_class WHERE relname = 'block'")).scalar_one()
        self.assertTrue(forced)
        owner.dispose()

    def test_roles_are_made_once_and_passwords_kept_up(self) -> None:
        database.template()
        with psycopg.connect(database.server(), autocommit=True) as connection:
            row = connection.execute(sql.SQL("SELECT count(*) FROM pg_roles WHERE rolname LIKE 'bm\\_%'")).fetchone()
        self.assertEqual(row, (5,))
