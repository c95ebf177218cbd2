"""First tables. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
