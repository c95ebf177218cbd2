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


def since(session: Session, day: dt.date) -> list[Applied]:
    """Treatments that ended on a day or after it, wherever the farm lies, the newest first; some of the day before may be among them."""
    start = dt.datetime.combine(day - dt.timedelta(days=1), dt.time(), dt.UTC)
    joined = (TreatmentRow.farm_id == Application.farm_id) & (TreatmentRow.id == Application.treatment_id)
    rows = of_farm(Application, *COLUMNS).join(TreatmentRow, joined).where(Application.finished_at >= start)
    return [Applied(*row) for row in session.execute(rows.order_by(Application.finished_at.desc(), Application.id))]
