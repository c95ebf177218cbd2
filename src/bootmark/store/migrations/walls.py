"""What a data migration needs to reach rows behind the wall.

FORCE binds the owner too: without this an UPDATE by a migration touches no row, and says nothing. Revisions hold their own SQL;
this is the one thing of ours that they call.
"""

import contextlib
from collections.abc import Callable, Iterator

from alembic import op
from sqlalchemy import text

Change = Callable[[str, str], None]
"""A statement, and a query that says how many rows it has to change."""


class WrongCount(RuntimeError):
    """A data migration changed another number of rows than it had to: nothing is kept."""


@contextlib.contextmanager
def rows(*tables: str) -> Iterator[Change]:
    """Lift the wall from some tables for the owner, inside the migration's transaction, and put it back at the end.

    Raises WrongCount where a statement does not change as many rows as its query says.
    """
    connection = op.get_bind()
    for table in tables:
        op.execute(f"ALTER TABLE {table} NO FORCE ROW LEVEL SECURITY")

    def change(statement: str, expected: str) -> None:
        wanted = int(connection.execute(text(expected)).scalar_one())
        changed = connection.execute(text(statement)).rowcount
        if changed != wanted:
            raise WrongCount(f"{changed} rows were changed and {wanted} had to be: {statement}")

    yield change
    for table in tables:
        op.execute(f"ALTER TABLE {table} FORCE ROW LEVEL SECURITY")
