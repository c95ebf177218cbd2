"""Whoever is signed in changes the own password."""

from pathlib import Path

from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
