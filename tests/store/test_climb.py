"""From the role of the web server to the owner's rights, as somebody would try who runs statements there."""

from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from bootmark.standins.estate import FARM
from bootmark.store.session import engine, farm_session
from tests.database import DatabaseTest

TRAP = """
CREATE TEMPORARY TABLE sign_in_attempt (key text, at timestamptz);
CREATE FUNCTION pg_temp.climb() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN UPDATE public.account SET name = 'climbed'; RETURN NEW; END $$;
CREATE TRIGGER climb BEFORE INSERT ON sign_in_attempt FOR EACH ROW EXECUTE FUNCTION pg_temp.climb();
GRANT ALL ON sign_in_attempt TO PUBLIC;
"""


class Climb(DatabaseTest):
    def test_no_role_makes_temporary_tables(self) -> None:
        for role in ("web", "worker"):
            with self.assertRaises(DBAPIError) as caught, farm_session(FARM, role=role) as session:
                session.execute(text("CREATE TEMPORARY TABLE account (id uuid)"))
            self.assertIn("permission denied", str(caught.exception))

    def test_an_owner_s_function_does_not_look_into_somebody_s_temporary_tables(self) -> None:
        # Even where somebody could make one: the right is given back for this test.
        with engine("owner").begin() as connection:
            connection.execute(text(f"GRANT TEMPORARY ON DATABASE {self.database} TO bm_web"))
        self.addCleanup(self.take_back)
        with farm_session(None) as session:
            session.execute(text(TRAP))
            session.execute(text("SELECT bm_failed('name:nobody', now())"))
        with farm_session(None) as session:
            counted = session.execute(text("SELECT bm_failures('name:nobody', now() - interval '1 hour')")).scalar_one()
            climbed = session.execute(text("SELECT count(*) FROM bm_sign_in('ilva@ferrin.example') WHERE name = 'climbed'")).scalar_one()
        self.assertEqual((counted, climbed), (1, 0))

    def take_back(self) -> None:
        with engine("owner").begin() as connection:
            connection.execute(text(f"REVOKE TEMPORARY ON DATABASE {self.database} FROM bm_web"))

    def test_the_worker_writes_what_stations_tell_and_what_is_reckoned_and_no_more(self) -> None:
        with engine("owner").connect() as connection:
            rows = connection.execute(
                text(
                    "SELECT DISTINCT table_name::text, privilege_type::text FROM information_schema.role_table_grants"
                    " WHERE grantee = 'bm_worker' AND privilege_type <> 'SELECT' AND table_name NOT LIKE 'procrastinate%'"
                )
            )
            writes = {f"{table} {privilege}" for table, privilege in rows}
        self.assertEqual(
            writes,
            {
                *(f"{table} INSERT" for table in ("weather_hour", "weather_day", "forecast")),
                *(f"{table} {verb}" for table in ("weather_derived", "season_result", "season_run") for verb in ("INSERT", "UPDATE")),
                "station UPDATE",
                "weather_upload UPDATE",
            },
        )
        for statement in (
            "INSERT INTO command (id) VALUES (gen_random_uuid())",
            "UPDATE farm SET name = 'climbed'",
            "SELECT * FROM account",
        ):
            with self.assertRaises(DBAPIError) as caught, farm_session(FARM, role="worker") as session:
                session.execute(text(statement))
            self.assertIn("permission denied", str(caught.exception))

    def test_every_function_of_the_owner_says_where_it_looks(self) -> None:
        with engine("owner").connect() as connection:
            loose = connection.execute(
                text(
                    "SELECT proname FROM pg_proc WHERE prosecdef AND pronamespace = 'public'::regnamespace"
                    " AND NOT coalesce('search_path=public, pg_temp' = ANY(proconfig), false)"
                )
            ).scalars()
            self.assertEqual(list(loose), [])

    def test_nobody_makes_tables_or_functions_in_our_schema(self) -> None:
        for statement in (
            "CREATE TABLE mine (id int)",
            "CREATE FUNCTION mine() RETURNS int LANGUAGE sql AS 'SELECT 1'",
            "ALTER TABLE block DISABLE ROW LEVEL SECURITY",
            "SET ROLE bm_owner",
            "SET SESSION AUTHORIZATION bm_owner",
            "COPY (SELECT 1) TO PROGRAM 'true'",
            "SELECT pg_read_file('/etc/passwd')",
        ):
            with self.subTest(statement), self.assertRaises(DBAPIError), farm_session(FARM) as session:
                session.execute(text(statement))
