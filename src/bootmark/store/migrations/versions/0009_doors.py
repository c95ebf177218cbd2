"""Functions that run as the owner look nowhere but in our own schema, and addresses are folded before they are asked for."""

from pathlib import Path

from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
