"""A farm measures, dates and writes numbers its own way, and forgets what it is told to forget."""

from pathlib import Path

from alembic import op

revision = "0019"
down_revision = "0018"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
