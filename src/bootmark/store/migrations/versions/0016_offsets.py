"""What was accepted of a model's sums on a farm; the height at which a station measures its wind;
how long a closed place was aired."""

from pathlib import Path

from alembic import op

revision = "0016"
down_revision = "0015"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
