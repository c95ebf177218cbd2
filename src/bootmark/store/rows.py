"""The one way to a farm's rows: the criterion that the wall holds too, and one row or none."""

import uuid
from typing import Any, TypeVar

from sqlalchemy import Select, Uuid, cast, func, inspect, select
from sqlalchemy.orm import Session, make_transient_to_detached
from sqlalchemy.orm.attributes import set_committed_value

from bootmark.store.base import FarmRow, Withdrawable

Row = TypeVar("Row")
CURRENT_FARM = cast(func.nullif(func.current_setting("bm.farm", True), ""), Uuid)
"""The farm of the transaction, as row-level security reads it."""


class NotHere(LookupError):
    """No such record on this farm."""


def plain(row: Row) -> Row:
    """The same values in an object that no session knows: it may be kept and shown by anybody, and never be written."""
    copy: Any = type(row)()
    for attribute in inspect(type(row)).column_attrs:
        set_committed_value(copy, attribute.key, getattr(row, attribute.key))
    make_transient_to_detached(copy)
    kept: Row = copy
    return kept


def of_farm(model: type[FarmRow], *columns: Any, withdrawn: bool = False) -> Select[Any]:
    """A SELECT of a farm's rows, or of some of their columns. The wall would hold without it; the index is found by it.

    withdrawn: whether records that were withdrawn are among them.
    """
    rows = select(*(columns or (model,))).where(model.farm_id == CURRENT_FARM)
    return rows.where(model.withdrawn.is_(False)) if issubclass(model, Withdrawable) and not withdrawn else rows


def row_of(session: Session, model: type[Row], row_id: uuid.UUID) -> Row:
    """A row of the session's farm by its id. Raises NotHere."""
    row = session.get(model, (session.info["farm"], row_id))
    if row is None:
        raise NotHere(model.__name__)
    return row
