"""The queue's own schema, as its library ships it, and what the web and worker roles may do in it."""

from alembic import op
from procrastinate.schema import SchemaManager

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.get_bind().exec_driver_sql(SchemaManager.get_schema().replace("%", "%%"))
    for table in ("jobs", "events", "periodic_defers", "workers"):
        op.execute(f"GRANT SELECT, INSERT, UPDATE, DELETE ON procrastinate_{table} TO bm_web, bm_worker")
    op.execute("GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO bm_web, bm_worker")
