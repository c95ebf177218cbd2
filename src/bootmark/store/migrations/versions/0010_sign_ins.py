"""Sign-ins are rows that can be listed and ended, what came of each try is kept, and a part that is ill can be named."""

from pathlib import Path

from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
