"""Two more verdicts, and a sample as a call: send a sample, no cause known."""

from pathlib import Path

from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
