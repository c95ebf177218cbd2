"""What every farm table shares: the farm in its key, and a version table beside its head."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import (
    Boolean,
    Column,
    DateTime,
    ForeignKey,
    ForeignKeyConstraint,
    Integer,
    MetaData,
    Table,
    UniqueConstraint,
    Uuid,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.dialects.postgresql.base import ischema_names
from sqlalchemy.orm import DeclarativeBase, Mapped, declared_attr, mapped_column
from sqlalchemy.types import UserDefinedType

NAMING = {
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)
    type_annotation_map = {  # noqa: RUF012
        dt.datetime: DateTime(timezone=True),
        dict[str, Any]: JSONB,
        list[Any]: JSONB,
        uuid.UUID: Uuid,
    }


class Xid8(UserDefinedType[int]):
    """PostgreSQL's id of a transaction, which never comes again."""

    cache_ok = True

    def get_col_spec(self, **_options: Any) -> str:
        return "xid8"


ischema_names["xid8"] = Xid8


class FarmRow:
    """A row of one farm; the farm is part of its key."""

    @declared_attr
    def farm_id(cls) -> Mapped[uuid.UUID]:
        return mapped_column(ForeignKey("farm.id"), primary_key=True, sort_order=-20)


class Identified(FarmRow):
    @declared_attr
    def id(cls) -> Mapped[uuid.UUID]:
        return mapped_column(primary_key=True, sort_order=-10)


class Head(Identified):
    """The current state of a record that people write; its history stands in its version table.

    command_id: of the command that made it what it is; conflict: another version stands beside it.
    """

    version: Mapped[int] = mapped_column(Integer)
    version_id: Mapped[uuid.UUID] = mapped_column(Uuid)
    command_id: Mapped[uuid.UUID] = mapped_column(Uuid)
    conflict: Mapped[bool] = mapped_column(Boolean, default=False)
    seen_at: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True))
    account_id: Mapped[uuid.UUID] = mapped_column(Uuid)


class Withdrawable:
    """A record that can be withdrawn: it stays in the Book, and nothing else counts it."""

    @declared_attr
    def withdrawn(cls) -> Mapped[bool]:
        return mapped_column(Boolean, default=False, server_default="false", sort_order=10)


def within_farm(column: str, target: str, **options: Any) -> ForeignKeyConstraint:
    """A reference that can't leave the farm."""
    return ForeignKeyConstraint(["farm_id", column], [f"{target}.farm_id", f"{target}.id"], **options)


def version_table(head: type[Head]) -> Table:
    """The append-only history of a head table."""
    name = head.__tablename__  # type: ignore[attr-defined]
    return Table(
        f"{name}_version",
        Base.metadata,
        Column("farm_id", Uuid, ForeignKey("farm.id"), primary_key=True),
        Column("id", Uuid, primary_key=True),
        Column("record_id", Uuid, nullable=False),
        Column("number", Integer, nullable=False),
        # Until version 0.2 the number of the version that this one builds on; now the command that made it.
        Column("base", Integer),
        Column("base_command", Uuid),
        Column("conflict", Boolean, nullable=False),
        Column("command_id", Uuid, nullable=False),
        Column("account_id", Uuid, nullable=False),
        Column("seen_at", DateTime(timezone=True), nullable=False),
        Column("received_at", DateTime(timezone=True), nullable=False),
        Column("payload", JSONB, nullable=False),
        within_farm("record_id", name),
        within_farm("command_id", "command"),
        UniqueConstraint("farm_id", "record_id", "number"),
    )
