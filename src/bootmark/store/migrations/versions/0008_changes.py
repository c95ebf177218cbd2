"""A note of each writing transaction, so that whether a farm's rows stand can be asked without reading them."""

from pathlib import Path

from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
