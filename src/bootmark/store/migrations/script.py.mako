"""${message}"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

from bootmark.store.migrations import walls

revision = ${repr(up_revision)}
down_revision = ${repr(down_revision)}


def upgrade() -> None:
    ${upgrades if upgrades else "pass"}
