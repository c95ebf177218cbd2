"""Looks that a call or a treatment books."""

import datetime as dt
import uuid

from bootmark.services.base.handling import Context
from bootmark.services.base.states import VisitState
from bootmark.store.models import DecisionRow, ReturnVisit


def book(context: Context, decision: DecisionRow, due: dt.date, look_for: str, application_id: uuid.UUID | None) -> None:
    context.session.add(
        ReturnVisit(
            farm_id=context.farm_id,
            id=context.derived_id("return", 0),
            block_id=decision.block_id,
            agent=decision.agent,
            decision_id=decision.id,
            application_id=application_id,
            due_on=due,
            look_for=look_for,
            state=VisitState.BOOKED,
        )
    )
