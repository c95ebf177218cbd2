"""Weather files: kept as they came, shown before they count, imported in one piece.

A small file is read at once; a large one by the worker, while its page tells how far that is. What was understood is kept with the file,
so that it is read once for each set of choices.
"""

import dataclasses
import datetime as dt
import hashlib
import json
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.formats import ghcn, weather_csv
from bootmark.formats.weather_csv import BadFile, Choices, Reading
from bootmark.services.base import ground, queue
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.people import Member
from bootmark.services.base.roles import KEEPERS
from bootmark.services.weather.readings import DayReading, take_days
from bootmark.services.weather.understood import Understood
from bootmark.store.models import Station, WeatherUpload

MOST_BYTES = 30_000_000
SMALL_BYTES = 200_000
"""A file up to this is read while its page is asked for."""
NO_DAYS = "No line could be read: look at the reasons beside the lines, then at columns, unit and order."


class Job(StrEnum):
    """What the worker does with a file; the values stand in the database."""

    NONE = ""
    READING = "reading"
    IMPORTING = "importing"
    FAILED = "failed"


AT_WORK = frozenset({Job.READING, Job.IMPORTING})
"""While the worker is at a file."""


@dataclass(frozen=True)
class Preview:
    """A file as it is understood by some choices. problem: why it is not, empty where it is or is still being read."""

    upload: WeatherUpload
    header: list[str]
    choices: Choices | None
    understood: Understood | None
    problem: str


def _may(member: Member) -> None:
    if member.role not in KEEPERS:
        raise Forbidden(role=say.line("A {role} can't import weather; it takes an owner or adviser.", role=member.role))


def receive(session: Session, member: Member, station_id: uuid.UUID, name: str, content: bytes, real_now: dt.datetime) -> WeatherUpload:
    """Keep a file for its preview. Raises Refused where it is not a table at all."""
    _may(member)
    if session.get(Station, (member.farm_id, station_id)) is None:
        raise Refused(station=say.line("That station is not known here."))
    if len(content) > MOST_BYTES:
        raise Refused(file=say.line("The file has {count} MB and 30 MB is the most: split it by years.", count=len(content) // 1000000))
    try:
        archive = ghcn.table(content)
        names = weather_csv.header(archive or content)
        columns = weather_csv.guess(names)
        order = weather_csv.guess_order(content, columns["date"]) if "date" in columns and not archive else None
    except BadFile as error:
        raise Refused(file=str(error)) from error
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
        job=Job.NONE,
        progress=0,
        wanted={},
        understood={},
    )
    session.add(upload)
    session.flush()
    return upload


def get(session: Session, member: Member, upload_id: uuid.UUID) -> WeatherUpload:
    upload = session.get(WeatherUpload, (member.farm_id, upload_id))
    if upload is None:
        raise Refused(file=say.line("That file is not here: send it again."))
    return upload


def preview(session: Session, upload: WeatherUpload, form: dict[str, Any], farm_now: dt.datetime) -> Preview:
    """What is understood of a file with the choices made so far; nothing is read before the unit is told."""
    header, choices, problem = _choices(upload, form)
    if problem or upload.job == Job.IMPORTING:
        return Preview(upload, header, choices, None, problem)
    if upload.understood.get("key") != _key(choices) and len(upload.content) <= SMALL_BYTES:
        upload.understood = _understood(upload.content, choices, farm_now)
        session.flush()
    if upload.understood.get("key") != _key(choices):
        if upload.job != Job.READING or _key(Choices(**upload.wanted)) != _key(choices):
            _hand_over(session, upload, Job.READING, choices)
        return Preview(upload, header, choices, None, "")
    understood = upload.understood
    return Preview(upload, header, choices, Understood.of_json(understood["told"]) if understood["told"] else None, understood["problem"])


def _choices(upload: WeatherUpload, form: dict[str, Any]) -> tuple[list[str], Choices, str]:
    """The file's header, the choices made so far, and what is missing yet."""
    header = weather_csv.header(ghcn.table(upload.content) or upload.content)
    columns = {ours: form.get(f"column_{ours}") or upload.choices["columns"].get(ours, "") for ours in weather_csv.COLUMNS}
    unit = str(form.get("unit") or upload.choices.get("unit") or "")
    order = str(form.get("order") or upload.choices.get("order") or "")
    if unit not in weather_csv.UNITS or order not in weather_csv.ORDERS:
        missing = say.line("the unit of temperature") if unit not in weather_csv.UNITS else say.line("the order of the date")
        return header, Choices(columns, unit, order), say.line("Say {missing}: Bootmark does not guess it.", missing=missing)
    named = {ours: theirs for ours, theirs in columns.items() if theirs}
    return header, Choices(named, unit, order, "in" if form.get("rain_unit") == "in" else "mm"), ""


def _key(choices: Choices) -> str:
    return hashlib.sha256(json.dumps(dataclasses.asdict(choices), sort_keys=True).encode()).hexdigest()


def _understood(content: bytes, choices: Choices, farm_now: dt.datetime, step: Callable[[int], None] | None = None) -> dict[str, Any]:
    reading: dict[str, Any] = {"key": _key(choices), "told": None, "problem": ""}
    try:
        reading["told"] = Understood.of(_read(content, choices, step), farm_now.date()).as_json()
    except BadFile as error:
        reading["problem"] = str(error)
    return reading


def _read(content: bytes, choices: Choices, step: Callable[[int], None] | None = None) -> Reading:
    return weather_csv.read(ghcn.table(content) or content, choices, step)


def _hand_over(session: Session, upload: WeatherUpload, job: Job, choices: Choices) -> None:
    """Have the worker do it. What it was at before is not finished: it looks what is wanted before it keeps anything."""
    upload.job, upload.progress, upload.wanted = job, 0, dataclasses.asdict(choices)
    session.flush()
    queue.defer(session, queue.READ_FILE, farm_id=str(upload.farm_id), upload_id=str(upload.id), key=_key(choices), job=job)


def store(
    session: Session, member: Member, upload: WeatherUpload, form: dict[str, Any], farm_now: dt.datetime, real_now: dt.datetime
) -> dict[str, Any]:
    """Import a previewed file; pressed twice it counts once. Refused lines stay with the file. Empty where the worker is at it.

    Raises Refused where nothing of it can be imported.
    """
    _may(member)
    session.refresh(upload, with_for_update=True)
    if upload.imported_at or upload.job == Job.IMPORTING:
        return upload.summary
    _, choices, problem = _choices(upload, form)
    if problem:
        raise Refused(file=problem)
    if len(upload.content) > SMALL_BYTES:
        _hand_over(session, upload, Job.IMPORTING, choices)
        return {}
    try:
        return _take(session, upload, choices, _read(upload.content, choices), farm_now, real_now)
    except BadFile as error:
        raise Refused(file=str(error)) from error


def _take(
    session: Session, upload: WeatherUpload, choices: Choices, reading: Reading, farm_now: dt.datetime, real_now: dt.datetime
) -> dict[str, Any]:
    if not reading.days:
        raise Refused(file=say.line(NO_DAYS))
    past = [day for day in reading.days if day.date < farm_now.date()]
    days = [DayReading(day.date, farm_now, day.tmin, day.tmax, day.rain) for day in past]
    taken = take_days(session, ground.station(session, upload.station_id), days, f"file {upload.file_name}")
    upload.imported_at = real_now
    upload.summary = {
        "stored": taken.days,
        "refused": len(reading.refused),
        "doubts": len(reading.doubts),
        "ahead": len(reading.days) - len(days),
        "filled": taken.filled,
        "first": reading.days[0].date.isoformat() if days else None,
        "last": reading.days[-1].date.isoformat() if days else None,
        "unit": choices.unit,
    }
    session.flush()
    return upload.summary


@dataclass(frozen=True)
class Work:
    """What the worker is to do with a file."""

    job: Job
    choices: Choices
    content: bytes
    key: str


def work_of(session: Session, farm_id: uuid.UUID, upload_id: uuid.UUID, key: str, job: str) -> Work | None:
    """What is to be done with a file; None where it is done, or where something else is wanted of it by now."""
    upload = session.get(WeatherUpload, (farm_id, upload_id))
    if upload is None or upload.imported_at or upload.job != job or key != _key(Choices(**upload.wanted)):
        return None
    return Work(Job(job), Choices(**upload.wanted), upload.content, key)


def note_progress(session: Session, farm_id: uuid.UUID, upload_id: uuid.UUID, per_cent: int) -> None:
    session.get_one(WeatherUpload, (farm_id, upload_id)).progress = per_cent


def do(
    work: Work, finishing: Callable[[Callable[[Session, WeatherUpload], None]], None], farm_now: dt.datetime, real_now: dt.datetime,
    step: Callable[[int], None],
) -> None:  # fmt: skip
    """Read a file, then keep what came of it in one transaction. finishing: runs an act on the file's row, locked; step: per cent."""
    if work.job == Job.READING:
        understood = _understood(work.content, work.choices, farm_now, step)

        def keep(_session: Session, upload: WeatherUpload) -> None:
            upload.understood, upload.job, upload.progress = understood, Job.NONE, 100

        finishing(keep)
        return
    reading = _read(work.content, work.choices, step)

    def take(session: Session, upload: WeatherUpload) -> None:
        _take(session, upload, work.choices, reading, farm_now, real_now)
        upload.job, upload.progress = Job.NONE, 100

    finishing(take)
