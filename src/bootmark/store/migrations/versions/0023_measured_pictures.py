"""Pictures are measured: what of, on which sheet, and what they say; counts keep the pictures that told their units."""

from pathlib import Path

from alembic import op

revision = "0023"
down_revision = "0022"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
