"""Row-level security on every farm table, and the functions through which people sign in. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
