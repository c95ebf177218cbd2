"""A large weather file is read in the background: what is to be done with it, how far that is, and what was understood."""

from pathlib import Path

from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
