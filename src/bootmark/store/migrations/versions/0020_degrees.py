"""Outlines and traps lie in degrees; the farm's plan has an origin that stays where it is; things on the plan that are no blocks."""

from pathlib import Path

from alembic import op

revision = "0020"
down_revision = "0019"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
