"""Readings that a station sends by itself, with its key. The same reading sent twice is stored once."""

import datetime as dt
import hashlib
import hmac
import secrets
import uuid
from typing import Any

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.fields import YEARS
from bootmark.services.base.people import Member
from bootmark.services.base.roles import KEEPERS
from bootmark.services.weather.readings import PUSHED, HourReading, take
from bootmark.store.models import Station
from bootmark.store.rows import of_farm

LEAST_KEY = 16
MOST_READINGS = 24 * 60
AHEAD = dt.timedelta(hours=1)
MOST_SAID = 1e9
LIMITS = {"temp": (-60.0, 60.0), "rh": (0.0, 100.0), "wind": (0.0, 100.0), "rain": (0.0, 300.0)}
NAMES = {"temp": "the temperature", "rh": "the humidity", "wind": "the wind", "rain": "the rain"}


def digest(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


def give_key(session: Session, member: Member, station: Station, own: str = "") -> str:
    """Give a station a new key, or the one that its logger has already; the old one ends. Returns it: it can't be shown again."""
    if member.role not in KEEPERS:
        raise Forbidden(role=say.line("A {role} can't give keys; it takes an owner or adviser.", role=member.role))
    key = own.strip() or secrets.token_urlsafe(24)
    if len(key) < LEAST_KEY:
        raise Refused(
            key=say.line(
                "This key has {count} letters and {least_key} are the least: leave the field empty and Bootmark makes one.",
                count=len(key),
                least_key=LEAST_KEY,
            )
        )
    taken = session.scalars(of_farm(Station, Station.name).where(Station.push_hash == digest(key), Station.id != station.id)).first()
    if taken:
        raise Refused(
            key=say.line("{taken} has this key: two stations with one key would write into one series. Give each its own.", taken=taken)
        )
    station.push_hash = digest(key)
    session.flush()
    return key


def station_by_key(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, key: str) -> Station | None:
    """The station, where the key is its own."""
    station = session.get(Station, (farm_id, station_id))
    good = station is not None and bool(station.push_hash) and hmac.compare_digest(station.push_hash, digest(key))
    return station if good else None


def store(session: Session, station: Station, sent: Any, now: dt.datetime) -> dict[str, Any]:
    """Store hourly readings; bad ones are refused one by one, by their place in the list, and the others go in.

    told: {"readings": [{"at": time with zone, "temp": C, "rh": %, "wind": m/s, "rain": mm}, ...]}; now: the farm's time. A value told
    again for an hour that is there is another row, and the newest counts. Days that are whole are made from their hours.
    """
    readings = sent.get("readings") if isinstance(sent, dict) else None
    if not isinstance(readings, list):
        raise Refused(readings='Send {"readings": [{"at": "2026-06-18T07:00:00+01:00", "temp": 17.4, "rh": 61, "wind": 1.9, "rain": 0}]}.')
    if len(readings) > MOST_READINGS:
        raise Refused(
            readings=say.line(
                "{count} readings were sent at once and {most_readings} are the most: send them in parts.",
                count=len(readings),
                most_readings=MOST_READINGS,
            )
        )
    refused: list[dict[str, Any]] = []
    hours: list[HourReading] = []
    for place, reading in enumerate(readings):
        try:
            hours.append(_reading(reading, now))
        except ValueError as error:
            refused.append({"place": place, "why": str(error)})
    taken = take(session, station, hours, PUSHED)
    if hours:
        station.heard_at = max(station.heard_at or now, now)
        station.failures, station.next_try_at, station.last_error = 0, None, ""
    return {"stored": taken.hours, "days": taken.days, "again": len(hours) - taken.hours, "refused": refused}


def _reading(reading: Any, now: dt.datetime) -> HourReading:
    """One hour. Raises ValueError with the reason why it is refused."""
    if not isinstance(reading, dict):
        raise ValueError("a reading is an object")
    text = reading.get("at")
    try:
        at = dt.datetime.fromisoformat(str(text))
    except ValueError:
        raise ValueError(f"{text!r} is not a time: write 2026-06-18T07:00:00+01:00") from None
    if at.tzinfo is None:
        raise ValueError(f"{text!r} has no zone: write 2026-06-18T07:00:00+01:00")
    if at.year not in YEARS:
        raise ValueError(f"{text!r} is no year in which anybody measured: check the station's clock")
    if at > now + AHEAD:
        raise ValueError(f"{text} is still ahead: check the station's clock")
    values: dict[str, float] = {}
    for name, (low, high) in LIMITS.items():
        value = reading.get(name)
        if isinstance(value, bool) or not isinstance(value, (int, float)):
            raise ValueError(
                say.line("{what:word} ({name}) is {value}: a number is wanted", what=NAMES[name], name=name, value=repr(value))
            )
        if not low <= value <= high:
            said = f"{value:g}" if abs(value) < MOST_SAID else say.line("out of range")
            raise ValueError(
                say.line(
                    "{what:word} ({name}) is {said}: {low:g} to {high:g} is taken",
                    what=NAMES[name],
                    name=name,
                    said=said,
                    low=low,
                    high=high,
                )
            )
        values[name] = float(value)
    return HourReading(at.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0), now, **values)
