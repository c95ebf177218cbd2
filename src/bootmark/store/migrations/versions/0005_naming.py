"""Enquiries that come to the desk, the plant health area of a farm, and photographs that hang on an enquiry. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
