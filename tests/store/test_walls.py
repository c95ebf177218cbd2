"""Every table as a stranger: nothing is seen, and nothing can be written into another farm."""

import uuid

from sqlalchemy import create_engine, text
from sqlalchemy.exc import DBAPIError

from bootmark.core.types import ACTIVITIES, DECISIONS, VERDICTS
from bootmark.standins.estate import FARM
from bootmark.store.base import Base
from bootmark.store.session import SHARED, engine, farm_session
from bootmark.store.versions import VERSIONS
from tests.database import DatabaseTest

STRANGER = uuid.uuid4()
FARM_TABLES = [table for table in Base.metadata.sorted_tables if table.name not in SHARED]


class Walls(DatabaseTest):
    def test_every_table_is_walled_or_on_the_short_list(self) -> None:
        with engine("owner").connect() as connection:
            rows = connection.execute(
                text(
                    "SELECT relname, relrowsecurity, relforcerowsecurity FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace"
                )
            ).all()
        self.assertGreater(len(rows), 25)
        for name, secured, forced in rows:
            if name not in SHARED and not name.startswith("procrastinate_"):
                self.assertTrue(secured and forced, f"{name} has no wall")

    def test_a_stranger_and_nobody_see_no_row_where_the_farm_sees_some(self) -> None:
        filled = set()
        for table in FARM_TABLES:
            query = text(f"SELECT count(*) FROM {table.name}")
            with farm_session(FARM) as session:
                if session.execute(query).scalar_one():
                    filled.add(table.name)
            for other in (uuid.uuid4(), None):
                # Photographs are no work of the worker's, and it reads none.
                for role in ("web",) if table.name == "photo" else ("web", "worker"):
                    with farm_session(other, role=role) as session:
                        self.assertEqual(session.execute(query).scalar_one(), 0, f"{table.name} as {other}, {role}")
        self.assertGreater(len(filled), 20)

    def test_a_stranger_can_write_into_no_table_of_the_farm(self) -> None:
        for table in FARM_TABLES:
            # Nobody writes notes of changes but the triggers of the owner.
            if table.name in ("farm", "membership", "farm_change"):
                continue
            with farm_session(FARM) as session:
                row = session.execute(text(f"SELECT * FROM {table.name} LIMIT 1")).mappings().first()
            if row is None:
                continue
            columns = ", ".join(f'"{name}"' for name in row)
            copy = text(
                f"INSERT INTO {table.name} ({columns}) SELECT {columns} FROM jsonb_populate_record(NULL::{table.name}, CAST(:row AS jsonb))"
            )
            with farm_session(FARM) as session:
                raw = session.execute(text(f"SELECT to_jsonb(t)::text FROM {table.name} t LIMIT 1")).scalar_one()
            with self.assertRaises(DBAPIError, msg=table.name) as caught, farm_session(STRANGER) as session:
                session.execute(copy, {"row": raw})
            self.assertIn("row-level security", str(caught.exception))

    def test_a_row_cannot_point_into_another_farm(self) -> None:
        with farm_session(STRANGER) as session:
            session.execute(
                text(
                    "INSERT INTO farm (id, name, latitude, longitude, time_zone, policy, origin_latitude, origin_longitude)"
                    " VALUES (:id, 'Other', 0, 0, 'UTC', '{}', 0, 0)"
                ),
                {"id": STRANGER},
            )
        with farm_session(FARM) as session:
            station = session.execute(text("SELECT id FROM station LIMIT 1")).scalar_one()
        with self.assertRaises(DBAPIError) as caught, farm_session(STRANGER) as session:
            session.execute(
                text(
                    "INSERT INTO weather_day (farm_id, station_id, local_date, received_at, tmin, tmax, source) VALUES (:f, :s, '2026-01-01', now(), 1, 2, 'x')"
                ),
                {"f": STRANGER, "s": station},
            )
        self.assertIn("foreign key", str(caught.exception))

    def test_histories_cannot_be_changed_or_deleted(self) -> None:
        for table in (*(version.name for version in VERSIONS.values()), "command", "weather_day"):
            for statement in (f"DELETE FROM {table}", f"UPDATE {table} SET farm_id = farm_id"):
                with self.assertRaises(DBAPIError) as caught, farm_session(FARM) as session:
                    session.execute(text(statement))
                self.assertIn("permission denied", str(caught.exception))

    def test_accounts_are_out_of_reach_and_notes_of_changes_are_only_read(self) -> None:
        note = f"INSERT INTO farm_change (farm_id, topic, writer) VALUES ('{FARM}', 'places', pg_current_xact_id())"
        forged = f"SELECT bm_note('places', ARRAY['{FARM}'::uuid])"
        for statement in ("SELECT * FROM account", "SELECT * FROM sign_in_attempt", "SELECT * FROM bm_farms()", note, forged):
            with self.assertRaises(DBAPIError), farm_session(FARM) as session:
                session.execute(text(statement))

    def test_the_roles_cannot_step_over_the_wall(self) -> None:
        with engine("owner").connect() as connection:
            rows = connection.execute(
                text("SELECT rolname, rolsuper, rolbypassrls FROM pg_roles WHERE rolname IN ('bm_web', 'bm_worker', 'bm_owner')")
            ).all()
        self.assertEqual({(name, False, False) for name in ("bm_web", "bm_worker", "bm_owner")}, {tuple(row) for row in rows})

    def test_enumerations_are_whole_and_held(self) -> None:
        with engine("owner").connect() as connection:
            rows: dict[str, str] = dict(
                connection.execute(text("SELECT conname, pg_get_constraintdef(oid) FROM pg_constraint WHERE contype = 'c'")).all()
            )
        for name, values in (("look_verdict_known", VERDICTS), ("decision_kind_known", DECISIONS), ("finding_activity_known", ACTIVITIES)):
            for value in values:
                self.assertIn(f"'{value}'", rows[name])
        with self.assertRaises(DBAPIError), farm_session(FARM) as session:
            session.execute(text("UPDATE look SET verdict = 'surely'"))

    def test_models_and_migrations_do_not_drift(self) -> None:
        from alembic.autogenerate import compare_metadata
        from alembic.runtime.migration import MigrationContext

        owner = create_engine(engine("owner").url)
        with owner.connect() as connection:
            context = MigrationContext.configure(
                connection, opts={"include_object": lambda _o, name, *_: not str(name).startswith(("procrastinate_", "idx_procrastinate"))}
            )
            differences = compare_metadata(context, Base.metadata)
        owner.dispose()
        self.assertEqual([difference for difference in differences if "procrastinate" not in str(difference)], [])
