"""Commands as devices send them."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy.orm import Session

from bootmark.services import writing
from bootmark.services.base.handling import Json, Sent
from bootmark.services.kinds import KINDS
from bootmark.services.weather import readings
from bootmark.services.weather.readings import DayReading
from bootmark.standins.estate import FARM, NOW
from bootmark.store.models import Farm, Station
from bootmark.store.session import farm_session
from tests.database import catalogue, member

REAL = dt.datetime(2026, 11, 23, 12, tzinfo=dt.UTC)


def envelope(
    kind: str,
    payload: Any,
    record: uuid.UUID | None = None,
    *,
    base: uuid.UUID | None = None,
    command: uuid.UUID | None = None,
    at: dt.datetime = NOW,
    merges: tuple[uuid.UUID, ...] = (),
    v: int = 0,
    **more: Any,
) -> dict[str, Any]:
    """A command as JSON. base: the command that it builds on; v: of its shape, the present one where none is given; more: as withdrawn."""
    return {
        "command_id": str(command or uuid.uuid4()),
        "kind": kind,
        "v": v or (KINDS[kind].command.spec.v if kind in KINDS else 1),
        "record_id": str(record or uuid.uuid4()),
        "base": str(base) if base else None,
        "seen_at": at.isoformat(),
        "merges": [str(merged) for merged in merges],
        "payload": payload,
        **more,
    }


def send(kind: str, payload: Any, record: uuid.UUID | None = None, *, role: str = "owner", at: dt.datetime = NOW, **more: Any) -> Json:
    """Carry out one command in a transaction of its own."""
    sent = Sent.of(envelope(kind, payload, record, at=at, **more), max(at, NOW))
    with farm_session(FARM) as session:
        return writing.handle(session, session.get_one(Farm, FARM), member(role), catalogue, sent, REAL)


def store_days(session: Session, station: uuid.UUID, rows: list[dict[str, Any]]) -> int:
    """Take days of a station in by the one door. Returns how many were new."""
    days = [DayReading(**{name: value for name, value in row.items() if name != "source"}) for row in rows]
    return readings.take_days(session, session.get_one(Station, (FARM, station)), days, "test").days
