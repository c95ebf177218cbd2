"""What was brought out: the one query that every rule of closings, harvest, uses and protection asks."""

import datetime as dt
import uuid
from typing import NamedTuple

from sqlalchemy.orm import Session

from bootmark.store.models import Application, TreatmentRow
from bootmark.store.rows import of_farm


class Applied(NamedTuple):
    """A treatment as it was done, without its working. block_id: as its block was called then; the rest as its label says."""

    began: dt.datetime
    ended: dt.datetime
    block_id: uuid.UUID
    agent: str
    control: str
    label_hours: float | None
    hand_hours: float | None
    until_dry: bool
    early_minutes: int | None
    early_wear: str


COLUMNS = (
    Application.started_at,
    Application.finished_at,
    TreatmentRow.block_id,
    TreatmentRow.agent,
    TreatmentRow.control,
    Application.label_hours,
    Application.hand_hours,
    Application.until_dry,
    Application.early_minutes,
    Application.early_wear,
)


def since(session: Session, moment: dt.datetime) -> list[Applied]:
    """Treatments that ended after a moment, the newest first."""
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    rows = of_farm(Application, *COLUMNS).join(TreatmentRow, joined).where(Application.finished_at > moment)
    return [Applied(*row) for row in session.execute(rows.order_by(Application.finished_at.desc(), Application.id))]
