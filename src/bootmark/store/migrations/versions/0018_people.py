"""People join by a link, have terms that end, and leave; what a farm keeps of itself has versions; a first farm begins by a code."""

from pathlib import Path

from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
