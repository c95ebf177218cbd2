"""Blocks held after a report, and what an authority or a clinic answered."""

from pathlib import Path

from alembic import op

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
