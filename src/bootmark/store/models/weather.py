"""Stations, what they measured and foretold, and what is made of it."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import DateTime, LargeBinary, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, FarmRow, Head, Identified, within_farm


class Station(Head, Base):
    """A weather station.

    offset_minutes: its fixed standard offset, on which its days run; kind: "outdoor" or "cover", a logger under cover that
    stands for its own block only; push_hash: of the key with which it sends readings, empty where it sends none; failures,
    next_try_at, last_error: of the last attempts to read it.
    """

    __tablename__ = "station"
    name: Mapped[str]
    latitude: Mapped[float]
    longitude: Mapped[float]
    elevation: Mapped[float]
    wind_height: Mapped[float] = mapped_column(server_default="2")
    offset_minutes: Mapped[int]
    url: Mapped[str]
    heard_at: Mapped[dt.datetime | None]
    kind: Mapped[str] = mapped_column(server_default="outdoor")
    push_hash: Mapped[str] = mapped_column(server_default="")
    failures: Mapped[int] = mapped_column(server_default="0")
    next_try_at: Mapped[dt.datetime | None]
    last_error: Mapped[str] = mapped_column(server_default="")


class WeatherDay(FarmRow, Base):
    """A day as it was received; a correction is another row, the newest received counts."""

    __tablename__ = "weather_day"
    __table_args__ = (within_farm("station_id", "station"),)
    station_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    local_date: Mapped[dt.date] = mapped_column(primary_key=True)
    received_at: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True), primary_key=True)
    tmin: Mapped[float]
    tmax: Mapped[float]
    rain: Mapped[float | None]
    source: Mapped[str]


class WeatherHour(FarmRow, Base):
    __tablename__ = "weather_hour"
    __table_args__ = (within_farm("station_id", "station"),)
    station_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    utc_hour: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True), primary_key=True)
    received_at: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True), primary_key=True)
    temp: Mapped[float]
    rh: Mapped[float]
    wind: Mapped[float]
    rain: Mapped[float]
    source: Mapped[str]


class ForecastHour(FarmRow, Base):
    __tablename__ = "forecast"
    __table_args__ = (within_farm("station_id", "station"),)
    station_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    issued_at: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True), primary_key=True)
    valid_at: Mapped[dt.datetime] = mapped_column(DateTime(timezone=True), primary_key=True)
    temp: Mapped[float]
    rh: Mapped[float]
    wind: Mapped[float]
    rain: Mapped[float]


class WeatherDerived(FarmRow, Base):
    """What Bootmark adds to raw days: values filled in, and flags for a person to look at."""

    __tablename__ = "weather_derived"
    __table_args__ = (within_farm("station_id", "station"),)
    station_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    local_date: Mapped[dt.date] = mapped_column(primary_key=True)
    tmin: Mapped[float | None]
    tmax: Mapped[float | None]
    filled: Mapped[str]
    flags: Mapped[list[Any]]


class WeatherUpload(Identified, Base):
    """A weather file between its preview and its import, and afterwards as it came.

    job: what the worker does with it; wanted: the choices that it works by; progress: in per cent; understood: what was read by which.
    """

    __tablename__ = "weather_upload"
    __table_args__ = (within_farm("station_id", "station"),)
    station_id: Mapped[uuid.UUID]
    account_id: Mapped[uuid.UUID]
    received_at: Mapped[dt.datetime]
    file_name: Mapped[str]
    content: Mapped[bytes] = mapped_column(LargeBinary)
    choices: Mapped[dict[str, Any]]
    imported_at: Mapped[dt.datetime | None]
    summary: Mapped[dict[str, Any]]
    job: Mapped[str] = mapped_column(server_default="")
    progress: Mapped[int] = mapped_column(server_default="0")
    wanted: Mapped[dict[str, Any]] = mapped_column(server_default="{}")
    understood: Mapped[dict[str, Any]] = mapped_column(server_default="{}")


class Judgement(Head, Base):
    """What a person said of a flagged day of a station. verdict: "stands", "left out" or "mended"; tmin, tmax: as mended."""

    __tablename__ = "judgement"
    __table_args__ = (within_farm("station_id", "station"), UniqueConstraint("farm_id", "station_id", "local_date"))
    station_id: Mapped[uuid.UUID]
    local_date: Mapped[dt.date]
    flag: Mapped[str]
    verdict: Mapped[str]
    tmin: Mapped[float | None]
    tmax: Mapped[float | None]
