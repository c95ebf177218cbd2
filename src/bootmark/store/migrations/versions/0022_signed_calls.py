"""Calls are overruled with a reason, proposed and signed; opinions are asked and given."""

from pathlib import Path

from alembic import op

revision = "0022"
down_revision = "0021"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
