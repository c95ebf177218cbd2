"""Weather files: kept as they came, shown before they count, imported in one piece."""

import datetime as dt
import uuid
from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from bootmark.formats import ghcn, weather_csv
from bootmark.formats.weather_csv import BadFile, Choices, Reading
from bootmark.services.base import ground
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.people import Member
from bootmark.services.base.roles import KEEPERS
from bootmark.services.weather.readings import DayReading, take_days
from bootmark.store.models import Station, WeatherUpload

MOST_BYTES = 30_000_000


@dataclass(frozen=True)
class Preview:
    upload: WeatherUpload
    header: list[str]
    choices: Choices | None
    reading: Reading | None
    problem: str


def _may(member: Member) -> None:
    if member.role not in KEEPERS:
        raise Forbidden(role=f"A {member.role} can't import weather; it takes an owner or adviser.")


def receive(session: Session, member: Member, station_id: uuid.UUID, name: str, content: bytes, real_now: dt.datetime) -> WeatherUpload:
    """Keep a file for its preview. Raises Refused where it is not a table at all."""
    _may(member)
    if session.get(Station, (member.farm_id, station_id)) is None:
        raise Refused(station="That station is not known here.")
    if len(content) > MOST_BYTES:
        raise Refused(file=f"The file has {len(content) // 1_000_000} MB and 30 MB is the most: split it by years.")
    try:
        archive = ghcn.table(content)
        names = weather_csv.header(archive or content)
    except BadFile as error:
        raise Refused(file=str(error)) from error
    columns = weather_csv.guess(names)
    order = weather_csv.guess_order(content, columns["date"]) if "date" in columns and not archive else None
    upload = WeatherUpload(
        farm_id=member.farm_id,
        id=uuid.uuid4(),
        station_id=station_id,
        account_id=member.account_id,
        received_at=real_now,
        file_name="".join(letter for letter in name if letter.isprintable())[:120] or "weather.csv",
        content=content,
        choices={"columns": columns, "order": order} | (ghcn.UNITS if archive else {}),
        imported_at=None,
        summary={},
    )
    session.add(upload)
    session.flush()
    return upload


def get(session: Session, member: Member, upload_id: uuid.UUID) -> WeatherUpload:
    upload = session.get(WeatherUpload, (member.farm_id, upload_id))
    if upload is None:
        raise Refused(file="That file is not here: send it again.")
    return upload


def preview(upload: WeatherUpload, form: dict[str, Any]) -> Preview:
    """What is understood of a file with the choices made so far; nothing is read before the unit is told."""
    content = ghcn.table(upload.content) or upload.content
    header = weather_csv.header(content)
    columns = {ours: form.get(f"column_{ours}") or upload.choices["columns"].get(ours, "") for ours in weather_csv.COLUMNS}
    unit = str(form.get("unit") or upload.choices.get("unit") or "")
    known_order = upload.choices.get("order")
    order = str(form.get("order") or known_order or "")
    if unit not in weather_csv.UNITS or order not in weather_csv.ORDERS:
        missing = "the unit of temperature" if unit not in weather_csv.UNITS else "the order of the date"
        return Preview(upload, header, Choices(columns, unit, order), None, f"Say {missing}: Bootmark does not guess it.")
    choices = Choices({ours: theirs for ours, theirs in columns.items() if theirs}, unit, order, str(form.get("rain_unit") or "mm"))
    try:
        return Preview(upload, header, choices, weather_csv.read(content, choices), "")
    except BadFile as error:
        return Preview(upload, header, choices, None, str(error))


def store(
    session: Session, member: Member, upload: WeatherUpload, form: dict[str, Any], farm_now: dt.datetime, real_now: dt.datetime
) -> dict[str, Any]:
    """Import a previewed file; pressed twice it counts once. Refused lines stay with the file."""
    _may(member)
    session.refresh(upload, with_for_update=True)
    if upload.imported_at:
        return upload.summary
    told = preview(upload, form)
    if told.reading is None:
        raise Refused(file=told.problem)
    if not told.reading.days:
        raise Refused(file="No line could be read: look at the reasons beside the lines, then at columns, unit and order.")
    ahead = [one for one in told.reading.days if one.date >= farm_now.date()]
    days = [DayReading(row.date, farm_now, row.tmin, row.tmax, row.rain) for row in told.reading.days if row.date < farm_now.date()]
    taken = take_days(session, ground.station(session, upload.station_id), days, f"file {upload.file_name}")
    upload.imported_at = real_now
    upload.summary = {
        "stored": taken.days,
        "refused": len(told.reading.refused),
        "doubts": len(told.reading.doubts),
        "ahead": len(ahead),
        "filled": taken.filled,
        "first": told.reading.days[0].date.isoformat() if days else None,
        "last": told.reading.days[-1].date.isoformat() if days else None,
        "unit": told.choices.unit if told.choices else "",
    }
    session.flush()
    return upload.summary
