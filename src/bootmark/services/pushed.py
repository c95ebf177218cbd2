"""Readings that a station sends by itself, with its key. The same reading sent twice is stored once."""

import datetime as dt
import hashlib
import hmac
import secrets
import uuid
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from bootmark.services import memo, weather
from bootmark.services.commands import Forbidden, Refused
from bootmark.services.people import Member
from bootmark.services.places import KEEPERS
from bootmark.store.models import Station, WeatherHour

LEAST_KEY = 16
MOST_READINGS = 24 * 60
AHEAD = dt.timedelta(hours=1)
LIMITS = {"temp": (-60.0, 60.0), "rh": (0.0, 100.0), "wind": (0.0, 100.0), "rain": (0.0, 300.0)}
NAMES = {"temp": "the temperature", "rh": "the humidity", "wind": "the wind", "rain": "the rain"}


def digest(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


def give_key(session: Session, member: Member, station: Station, own: str = "") -> str:
    """Give a station a new key, or the one that its logger has already; the old one ends. Returns it: it can't be shown again."""
    if member.role not in KEEPERS:
        raise Forbidden(role=f"A {member.role} can't give keys; it takes an owner or adviser.")
    key = own.strip() or secrets.token_urlsafe(24)
    if len(key) < LEAST_KEY:
        raise Refused(key=f"This key has {len(key)} letters and {LEAST_KEY} are the least: leave the field empty and Bootmark makes one.")
    other = session.scalars(
        select(Station.name).where(Station.farm_id == station.farm_id, Station.push_hash == digest(key), Station.id != station.id)
    )
    taken = other.first()
    if taken:
        raise Refused(key=f"{taken} has this key: two stations with one key would write into one series. Give each its own.")
    station.push_hash = digest(key)
    session.flush()
    return key


def station_by_key(session: Session, farm_id: uuid.UUID, station_id: uuid.UUID, key: str) -> Station | None:
    """The station, where the key is its own."""
    found = session.get(Station, (farm_id, station_id))
    good = found is not None and bool(found.push_hash) and hmac.compare_digest(found.push_hash, digest(key))
    return found if good else None


def store(session: Session, station: Station, told: Any, now: dt.datetime) -> dict[str, Any]:
    """Store hourly readings; bad ones are refused one by one, by their place in the list, and the others go in.

    told: {"readings": [{"at": time with zone, "temp": C, "rh": %, "wind": m/s, "rain": mm}, ...]}; now: the farm's time. A value told
    again for an hour that is there is another row, and the newest counts. Days that are whole are made from their hours.
    """
    readings = told.get("readings") if isinstance(told, dict) else None
    if not isinstance(readings, list):
        raise Refused(readings='Send {"readings": [{"at": "2026-06-18T07:00:00+01:00", "temp": 17.4, "rh": 61, "wind": 1.9, "rain": 0}]}.')
    if len(readings) > MOST_READINGS:
        raise Refused(readings=f"{len(readings)} readings were sent at once and {MOST_READINGS} are the most: send them in parts.")
    refused, rows = [], []
    for place, one in enumerate(readings):
        row = _reading(one, now)
        if isinstance(row, str):
            refused.append({"place": place, "why": row})
        else:
            rows.append({**row, "received_at": now, "source": "pushed"})
    hours = {row["utc_hour"]: row for row in rows}
    new = weather.store_hours(session, station.farm_id, station.id, _unknown(session, station, list(hours.values())))
    days = _whole_days(session, station, {hour.astimezone(weather.offset(station)).date() for hour in hours}, now)
    if rows:
        station.heard_at = max(station.heard_at or now, now)
        station.failures, station.next_try_at, station.last_error = 0, None, ""
    memo.forget(session)
    return {"stored": new, "days": days, "again": len(rows) - new, "refused": refused}


def _reading(one: Any, now: dt.datetime) -> dict[str, Any] | str:
    """One hour's row, or the reason why it is refused."""
    if not isinstance(one, dict):
        return "a reading is an object"
    try:
        at = dt.datetime.fromisoformat(str(one.get("at")))
    except ValueError:
        return f"{one.get('at')!r} is not a time: write 2026-06-18T07:00:00+01:00"
    if at.tzinfo is None:
        return f"{one.get('at')!r} has no zone: write 2026-06-18T07:00:00+01:00"
    if at > now + AHEAD:
        return f"{one.get('at')} is still ahead: check the station's clock"
    row: dict[str, Any] = {"utc_hour": at.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)}
    for name, (low, high) in LIMITS.items():
        value = one.get(name)
        if isinstance(value, bool) or not isinstance(value, (int, float)):
            return f"{NAMES[name]} ({name}) is {value!r}: a number is wanted"
        if not low <= value <= high:
            return f"{NAMES[name]} ({name}) is {value:g}: {low:g} to {high:g} is taken"
        row[name] = float(value)
    return row


def _unknown(session: Session, station: Station, rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Rows that say something that is not stored yet."""
    known = {
        (row.utc_hour, row.temp, row.rh, row.wind, row.rain)
        for row in session.scalars(
            select(WeatherHour).where(
                WeatherHour.farm_id == station.farm_id,
                WeatherHour.station_id == station.id,
                WeatherHour.utc_hour.in_([row["utc_hour"] for row in rows]),
            )
        )
    }
    return [row for row in rows if (row["utc_hour"], row["temp"], row["rh"], row["wind"], row["rain"]) not in known]


def _whole_days(session: Session, station: Station, days: set[dt.date], now: dt.datetime) -> int:
    """Days of the station that have all their hours now, as days."""
    zone, rows = weather.offset(station), []
    for day in days:
        start = dt.datetime.combine(day, dt.time(0), zone)
        hours: dict[dt.datetime, WeatherHour] = {}
        for row in session.scalars(
            select(WeatherHour)
            .where(
                WeatherHour.farm_id == station.farm_id,
                WeatherHour.station_id == station.id,
                WeatherHour.utc_hour >= start,
                WeatherHour.utc_hour < start + dt.timedelta(days=1),
            )
            .order_by(WeatherHour.received_at)
        ):
            hours[row.utc_hour] = row
        if len(hours) == 24:
            temps = [one.temp for one in hours.values()]
            rain = sum(one.rain for one in hours.values())
            rows.append({"local_date": day, "received_at": now, "tmin": min(temps), "tmax": max(temps), "rain": rain, "source": "pushed"})
    return weather.store_days(session, station.farm_id, station.id, rows) if rows else 0
