"""Alembic's entry: online only, as the owner role, on the connection that setup hands over."""

from alembic import context

from bootmark.store import models, versions  # noqa: F401
from bootmark.store.base import Base


def include(_object: object, name: str | None, _type: str, _reflected: bool, _compare_to: object) -> bool:
    return not (name or "").startswith("procrastinate_")


connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, include_object=include, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
