"""Treatments that are planned and looks that are booked, as what they rest on changes."""

import uuid
from typing import Any

from sqlalchemy import ColumnElement, Select, update

from bootmark.services.base.handling import Context
from bootmark.services.base.states import TreatmentState, VisitState
from bootmark.store.models import BegunWork, ReturnVisit, TreatmentRow
from bootmark.store.rows import of_farm


def to_do() -> ColumnElement[bool]:
    """Treatments that somebody has to do, or to sign for: one that was taken back while it was being done, too."""
    begun = TreatmentRow.id.in_(of_farm(BegunWork, BegunWork.treatment_id))
    return (TreatmentRow.state == TreatmentState.PLANNED) | ((TreatmentRow.state == TreatmentState.WITHDRAWN) & begun)


def being_done(*columns: Any) -> Select[Any]:
    """What was begun and is not signed for, whatever became of the call since. columns: of the begin or of its treatment."""
    joined = (TreatmentRow.farm_id == BegunWork.farm_id) & (TreatmentRow.id == BegunWork.treatment_id)
    return of_farm(BegunWork, *columns).join(TreatmentRow, joined).where(TreatmentRow.state != TreatmentState.DONE)


def take_back(context: Context, **of: uuid.UUID) -> None:
    """What is planned and booked is taken back; what is being done still waits for its signature, or for the word that it was not begun.

    of: the column that says of what, and its id.
    """
    context.session.execute(update(TreatmentRow).where(*_open(context, TreatmentRow, of)).values(state=TreatmentState.WITHDRAWN))
    context.session.execute(update(ReturnVisit).where(*_open(context, ReturnVisit, of)).values(state=VisitState.WITHDRAWN))


def move(context: Context, block_id: uuid.UUID, to: uuid.UUID) -> None:
    """What is planned and booked for a block goes over to another that has taken its ground."""
    for model in (TreatmentRow, ReturnVisit):
        context.session.execute(update(model).where(*_open(context, model, {"block_id": block_id})).values(block_id=to))


def _open(context: Context, model: type[TreatmentRow] | type[ReturnVisit], of: dict[str, uuid.UUID]) -> list[ColumnElement[bool]]:
    waits = TreatmentState.PLANNED if model is TreatmentRow else VisitState.BOOKED
    return [model.farm_id == context.farm_id, model.state == waits, *(getattr(model, name) == value for name, value in of.items())]
