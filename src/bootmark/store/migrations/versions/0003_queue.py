"""The queue's own schema, as its library ships it, and what the web and worker roles may do in it. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
