"""Bring a database up to date: roles, a backup, migrations, the catalogue's ids.

One process at a time: the others wait for the lock, and find it done. A database that is newer than this code is refused.
"""

import functools
import itertools
import os
import subprocess
import sys
from pathlib import Path

import psycopg
from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from psycopg import sql
from sqlalchemy import Connection, create_engine, text
from sqlalchemy.pool import NullPool

from bootmark.core.catalogue import default
from bootmark.store import tools

MIGRATIONS = Path(__file__).parent / "migrations"
ROLES = ("bm_owner", "bm_web", "bm_worker", "bm_backup")
BYPASSES_THE_WALL = "bm_backup"
"""The one role that dumps: with any other a dump leaves farm rows out, and says nothing."""
LOCK = 7_266_838
"""Key of the advisory lock that whoever migrates holds."""


class Refused(RuntimeError):
    """The database can't be brought up to date; says why and what would help."""


def alembic_config(connection: Connection) -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["connection"] = connection
    return config


def plain(url: str) -> str:
    """An address as psycopg and the tools of PostgreSQL read it."""
    return url.replace("postgresql+psycopg://", "postgresql://")


def create_roles_and_database(admin_url: str, passwords: dict[str, str], database: str = "bootmark") -> None:
    server = plain(admin_url).rsplit("/", 1)[0] + "/postgres"
    with psycopg.connect(server, autocommit=True) as connection:
        for role in ROLES:
            there = connection.execute("SELECT 1 FROM pg_roles WHERE rolname = %s", (role,)).fetchone()
            verb, wall = sql.SQL("ALTER" if there else "CREATE"), sql.SQL("BYPASSRLS" if role == BYPASSES_THE_WALL else "NOBYPASSRLS")
            statement = sql.SQL("{} ROLE {} LOGIN NOSUPERUSER {} PASSWORD {}")
            connection.execute(statement.format(verb, sql.Identifier(role), wall, sql.Literal(passwords[role])))
        connection.execute(sql.SQL("GRANT pg_read_all_data TO {}").format(sql.Identifier(BYPASSES_THE_WALL)))
        if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", (database,)).fetchone():
            connection.execute(sql.SQL("CREATE DATABASE {} OWNER bm_owner").format(sql.Identifier(database)))


def migrate(owner_url: str, backup_url: str = "", backups: Path | None = None) -> bool:
    """Run what migrations are missing, then tell the tables what the catalogue holds. True where something changed.

    backup_url, backups: the role that dumps, and the folder for its dumps; a database that holds something is dumped before it is
    changed, where both are given. Raises Refused for a database that is newer than this code, or that could not be dumped.
    """
    engine = create_engine(owner_url, poolclass=NullPool)
    try:
        with engine.connect() as guard:
            guard.execute(text("SELECT pg_advisory_lock(:key)"), {"key": LOCK})
            with engine.begin() as connection:
                stands_at, head = MigrationContext.configure(connection).get_current_revision(), newest()
                _refuse_newer(stands_at)
            changed = stands_at != head
            if changed and stands_at and backup_url and backups:
                dump(backup_url, next(file for n in itertools.count(1) if not (file := backups / f"before-{head}-{n}.dump").exists()))
            with engine.begin() as connection:
                if changed:
                    command.upgrade(alembic_config(connection), "head")
                sync_catalogue(connection)
                close_doors(connection)
        return changed
    finally:
        engine.dispose()


@functools.cache
def newest() -> str | None:
    """The revision that this code is written for."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return ScriptDirectory.from_config(config).get_current_head()


def _refuse_newer(stands_at: str | None) -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    ours = {revision.revision for revision in ScriptDirectory.from_config(config).walk_revisions()}
    if stands_at is not None and stands_at not in ours:
        raise Refused(f"The database stands at {stands_at} and this code ends at {newest()}: run the newer version that wrote it.")


def dump(backup_url: str, file: Path) -> None:
    """Write a whole database to a file. Raises Refused where it can't be done."""
    file.parent.mkdir(parents=True, exist_ok=True)
    tool = tools.program("pg_dump")
    if tool is None:
        raise Refused("pg_dump is not installed, and nothing is changed without a backup: install the Debian package postgresql-client.")
    file.touch(mode=0o600)
    done = subprocess.run([tool, "-Fc", "-f", str(file)], env=tools.environment(plain(backup_url)), capture_output=True, text=True)
    if done.returncode:
        file.unlink(missing_ok=True)
        raise Refused(f"The backup before the change failed, so nothing was changed: {done.stderr.strip().splitlines()[-1:]}.")


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


def close_doors(connection: Connection) -> None:
    """Rights that hang on the database itself, and so come with no dump and no copy: nobody makes temporary tables in it."""
    database = connection.dialect.identifier_preparer.quote(connection.execute(text("SELECT current_database()")).scalar_one())
    connection.execute(text(f"REVOKE TEMPORARY ON DATABASE {database} FROM PUBLIC"))


def main() -> int:
    admin = os.environ.get("BOOTMARK_ADMIN_URL")
    backups = os.environ.get("BOOTMARK_BACKUPS")
    try:
        if admin:
            create_roles_and_database(admin, {role: os.environ[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] for role in ROLES})
        if migrate(os.environ["BOOTMARK_OWNER_URL"], os.environ.get("BOOTMARK_BACKUP_URL", ""), Path(backups) if backups else None):
            print("  The database has been brought up to date", file=sys.stderr)
    except psycopg.OperationalError as error:
        print(f"  The database can't be reached ({str(error).splitlines()[0]})", file=sys.stderr)
        return 1
    except Refused as error:
        print(f"  {error}", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
