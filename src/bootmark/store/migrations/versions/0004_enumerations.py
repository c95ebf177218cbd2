"""What verdicts, decisions, activities, roles and states may be: whole enumerations, from the start. As it ran everywhere: never edited."""

from pathlib import Path

from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    driver = op.get_bind().connection.driver_connection
    assert driver
    driver.execute(Path(__file__).with_suffix(".sql").read_text())
