"""Traps tell their lure, their height and a new floor; plantings how many plants they are."""

from pathlib import Path

from alembic import op

revision = "0024"
down_revision = "0023"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
