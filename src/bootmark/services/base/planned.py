"""Treatments that are planned and looks that are booked, as what they rest on changes."""

import uuid

from sqlalchemy import ColumnElement, update

from bootmark.services.base.handling import Context
from bootmark.services.base.states import TreatmentState, VisitState
from bootmark.store.models import ReturnVisit, TreatmentRow


def take_back(context: Context, **of: uuid.UUID) -> None:
    """What is planned and booked and has not begun is taken back. of: the column that says of what, and its id."""
    context.session.execute(update(TreatmentRow).where(*_open(context, TreatmentRow, of)).values(state=TreatmentState.WITHDRAWN))
    context.session.execute(update(ReturnVisit).where(*_open(context, ReturnVisit, of)).values(state=VisitState.WITHDRAWN))


def move(context: Context, block_id: uuid.UUID, to: uuid.UUID) -> None:
    """What is planned and booked for a block goes over to another that has taken its ground."""
    for model in (TreatmentRow, ReturnVisit):
        context.session.execute(update(model).where(*_open(context, model, {"block_id": block_id})).values(block_id=to))


def _open(context: Context, model: type[TreatmentRow] | type[ReturnVisit], of: dict[str, uuid.UUID]) -> list[ColumnElement[bool]]:
    waits = TreatmentState.PLANNED if model is TreatmentRow else VisitState.BOOKED
    return [model.farm_id == context.farm_id, model.state == waits, *(getattr(model, name) == value for name, value in of.items())]
