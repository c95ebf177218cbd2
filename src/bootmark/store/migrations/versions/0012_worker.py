"""The worker writes what comes from stations and what is reckoned, and nothing that people record."""

from pathlib import Path

from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
