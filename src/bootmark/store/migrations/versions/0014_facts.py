"""A kept forecast's facts are called so."""

from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.alter_column("season_result", "told", new_column_name="facts")
