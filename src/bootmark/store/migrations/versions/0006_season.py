"""Traps, sightings, crop stages, judged readings, stored forecasts; where a block takes its weather from; stations that send. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
