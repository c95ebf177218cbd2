"""What grows on a block is a planting; blocks are split, joined and ended; rows have a direction and a spacing."""

from pathlib import Path

from alembic import op

revision = "0021"
down_revision = "0020"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
