"""Row-level security and grants: what a migration says of each table that it makes."""

from collections.abc import Iterable

from alembic import op

CURRENT = "nullif(current_setting('bm.farm', true), '')::uuid"


def wall(table: str, *, column: str = "farm_id", grants: str = "SELECT, INSERT, UPDATE") -> None:
    """Put one farm table behind the wall and let the web and worker roles use it."""
    op.execute(f"ALTER TABLE {table} ENABLE ROW LEVEL SECURITY")
    op.execute(f"ALTER TABLE {table} FORCE ROW LEVEL SECURITY")
    op.execute(f"CREATE POLICY {table}_farm ON {table} USING ({column} = {CURRENT}) WITH CHECK ({column} = {CURRENT})")
    op.execute(f"GRANT {grants} ON {table} TO bm_web, bm_worker")


def append_only(tables: Iterable[str]) -> None:
    """Histories: the web and worker roles can add to them and read them, never change or delete."""
    for table in tables:
        wall(table, grants="SELECT, INSERT")
