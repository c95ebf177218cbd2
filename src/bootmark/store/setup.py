"""Bring a database up to date: roles, migrations, the catalogue's ids, and the demo where asked for."""

import os
import sys
from pathlib import Path

import psycopg
from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from psycopg import sql
from sqlalchemy import Connection, create_engine, text

from bootmark.core.catalogue import default

MIGRATIONS = Path(__file__).parent / "migrations"
ROLES = ("bm_owner", "bm_web", "bm_worker")


def alembic_config(connection: Connection) -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["connection"] = connection
    return config


def plain(url: str) -> str:
    """An address as psycopg itself reads it."""
    return url.replace("postgresql+psycopg://", "postgresql://")


def create_roles_and_database(admin_url: str, passwords: dict[str, str], database: str = "bootmark") -> None:
    server = plain(admin_url).rsplit("/", 1)[0] + "/postgres"
    with psycopg.connect(server, autocommit=True) as connection:
        for role in ROLES:
            known = connection.execute("SELECT 1 FROM pg_roles WHERE rolname = %s", (role,)).fetchone()
            verb = sql.SQL("ALTER" if known else "CREATE")
            statement = sql.SQL("{} ROLE {} LOGIN NOSUPERUSER NOBYPASSRLS PASSWORD {}")
            connection.execute(statement.format(verb, sql.Identifier(role), sql.Literal(passwords[role])))
        if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", (database,)).fetchone():
            connection.execute(sql.SQL("CREATE DATABASE {} OWNER bm_owner").format(sql.Identifier(database)))


def migrate(owner_url: str) -> bool:
    """Run what migrations are missing, then tell the tables what the catalogue knows. True where something changed."""
    engine = create_engine(owner_url)
    try:
        with engine.begin() as connection:
            config = alembic_config(connection)
            stands_at = MigrationContext.configure(connection).get_current_revision()
            changed = stands_at != ScriptDirectory.from_config(config).get_current_head()
            if changed:
                command.upgrade(config, "head")
            sync_catalogue(connection)
        return changed
    finally:
        engine.dispose()


def sync_catalogue(connection: Connection) -> None:
    """Agents and signs are added or retired, never removed: farm tables refer to them."""
    catalogue = default()
    for table, ids in (("agent", list(catalogue.agents)), ("sign", list(catalogue.signs))):
        connection.execute(
            text(
                f"INSERT INTO {table} (id, retired) SELECT unnest(CAST(:ids AS text[])), false "
                "ON CONFLICT (id) DO UPDATE SET retired = false"
            ),
            {"ids": ids},
        )
        connection.execute(text(f"UPDATE {table} SET retired = true WHERE NOT id = ANY(CAST(:ids AS text[]))"), {"ids": ids})  # noqa: S608


def main() -> int:
    admin = os.environ.get("BOOTMARK_ADMIN_URL")
    try:
        if admin:
            create_roles_and_database(admin, {role: os.environ[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] for role in ROLES})
        if migrate(os.environ["BOOTMARK_OWNER_URL"]):
            print("  The database has been brought up to date", file=sys.stderr)
    except psycopg.OperationalError as error:
        print(f"  The database can't be reached ({str(error).splitlines()[0]})", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
