"""People, farms, places and weather."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import CheckConstraint, DateTime, ForeignKey, ForeignKeyConstraint, Index, LargeBinary, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, FarmRow, Head, Identified, within_farm


class Account(Base):
    """A person, known across farms. The web role reaches it through functions only."""

    __tablename__ = "account"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    email: Mapped[str] = mapped_column(unique=True)
    name: Mapped[str]
    password_hash: Mapped[str]


class SignInAttempt(Base):
    """One failed sign-in, by address and by name, counted here and not in a worker."""

    __tablename__ = "sign_in_attempt"
    id: Mapped[int] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(index=True)
    at: Mapped[dt.datetime]


class KnownAgent(Base):
    """The catalogue's agents by their permanent ids, so that farm tables can refer to them."""

    __tablename__ = "agent"
    id: Mapped[str] = mapped_column(primary_key=True)
    retired: Mapped[bool]


class KnownSign(Base):
    __tablename__ = "sign"
    id: Mapped[str] = mapped_column(primary_key=True)
    retired: Mapped[bool]


class Farm(Base):
    """One holding. clock_at: the demo farm's own time; empty where the real time counts. region: the plant
    health area that it lies in, as the catalogue's lists name it."""

    __tablename__ = "farm"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    latitude: Mapped[float]
    longitude: Mapped[float]
    time_zone: Mapped[str]
    clock_at: Mapped[dt.datetime | None]
    policy: Mapped[dict[str, Any]]
    region: Mapped[str] = mapped_column(server_default="")


class Membership(Base):
    __tablename__ = "membership"
    farm_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("farm.id"), primary_key=True)
    account_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("account.id"), primary_key=True)
    role: Mapped[str]
    qualified: Mapped[bool]


class Command(Identified, Base):
    """Every write, as it was sent, with the result that a repeat of it gets."""

    __tablename__ = "command"
    kind: Mapped[str]
    record_id: Mapped[uuid.UUID]
    base_version: Mapped[int]
    seen_at: Mapped[dt.datetime]
    received_at: Mapped[dt.datetime]
    account_id: Mapped[uuid.UUID]
    content_hash: Mapped[str]
    result: Mapped[dict[str, Any]]


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
    offset_minutes: Mapped[int]
    url: Mapped[str]
    heard_at: Mapped[dt.datetime | None]
    kind: Mapped[str] = mapped_column(server_default="outdoor")
    push_hash: Mapped[str] = mapped_column(server_default="")
    failures: Mapped[int] = mapped_column(server_default="0")
    next_try_at: Mapped[dt.datetime | None]
    last_error: Mapped[str] = mapped_column(server_default="")


class Block(Head, Base):
    """A managed area with one crop. outline: corner points in metres on the farm's own plan; weather: "station", its own one, or
    "nearby", all outdoor stations by distance; elevation: metres, None where it is not told."""

    __tablename__ = "block"
    __table_args__ = (within_farm("station_id", "station"), UniqueConstraint("farm_id", "name"))
    name: Mapped[str]
    crop: Mapped[str]
    place: Mapped[str]
    cultivar: Mapped[str]
    area: Mapped[float]
    outline: Mapped[list[Any]]
    station_id: Mapped[uuid.UUID | None]
    harvest_from: Mapped[dt.date | None]
    weather: Mapped[str] = mapped_column(server_default="station")
    elevation: Mapped[float | None]


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
    """A weather file between its preview and its import, and afterwards as it came."""

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


class Biofix(Head, Base):
    """The dated event from which an agent's heat is counted on a block, one a year."""

    __tablename__ = "biofix"
    __table_args__ = (within_farm("block_id", "block"), Index(None, "farm_id", "block_id", "agent"))
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    on: Mapped[dt.date]
    basis: Mapped[str]


class Stop(Head, Base):
    """One place on a round. return_id: the booked look that it answers, if any."""

    __tablename__ = "stop"
    __table_args__ = (
        within_farm("block_id", "block"),
        # The return is made later than the stop that leads to it, and a stop may answer one.
        ForeignKeyConstraint(["farm_id", "return_id"], ["return_visit.farm_id", "return_visit.id"], use_alter=True),
        Index(None, "farm_id", "block_id"),
    )
    block_id: Mapped[uuid.UUID]
    on: Mapped[dt.date]
    where: Mapped[str]
    return_id: Mapped[uuid.UUID | None]


class Look(Head, Base):
    """What was told at a stop, and what was made of it. verdict: kind; agents: named or likeliest ids."""

    __tablename__ = "look"
    __table_args__ = (within_farm("stop_id", "stop"), Index(None, "farm_id", "stop_id"))
    stop_id: Mapped[uuid.UUID]
    signs: Mapped[dict[str, Any]]
    note: Mapped[str]
    verdict: Mapped[str]
    working: Mapped[dict[str, Any]]


class FindingRow(Identified, Base):
    """An agent named or suspected by one version of a look."""

    __tablename__ = "finding"
    __table_args__ = (within_farm("look_id", "look"), within_farm("block_id", "block"), Index(None, "farm_id", "block_id", "agent"))
    look_id: Mapped[uuid.UUID]
    look_version: Mapped[int]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    verdict: Mapped[str]
    probability: Mapped[float]
    confirmed: Mapped[bool]
    activity: Mapped[str]
    seen_at: Mapped[dt.datetime]


class SampleRow(Head, Base):
    __tablename__ = "sample"
    __table_args__ = (within_farm("stop_id", "stop"), Index(None, "farm_id", "stop_id"))
    stop_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    unit: Mapped[str]
    measure: Mapped[str]
    counts: Mapped[list[Any]]
    enemies: Mapped[list[Any]]


class DecisionRow(Head, Base):
    """A call as it was made. working pins versions, inputs, result, catalogue and engine."""

    __tablename__ = "decision"
    __table_args__ = (within_farm("look_id", "look"), within_farm("sample_id", "sample"), within_farm("block_id", "block"))
    look_id: Mapped[uuid.UUID]
    sample_id: Mapped[uuid.UUID | None]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    kind: Mapped[str]
    headline: Mapped[str]
    control: Mapped[str]
    working: Mapped[dict[str, Any]]


class TreatmentRow(Identified, Base):
    """A planned control, derived from a decision."""

    __tablename__ = "treatment"
    __table_args__ = (within_farm("decision_id", "decision"), within_farm("block_id", "block"), Index(None, "farm_id", "block_id"))
    decision_id: Mapped[uuid.UUID]
    decision_version: Mapped[int]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    control: Mapped[str]
    ordinal: Mapped[int]
    on: Mapped[dt.date]
    not_after: Mapped[dt.date | None]
    why: Mapped[str]
    state: Mapped[str]


class ReturnVisit(Identified, Base):
    """A look that a decision or an application books."""

    __tablename__ = "return_visit"
    __table_args__ = (
        within_farm("block_id", "block"),
        within_farm("decision_id", "decision"),
        within_farm("application_id", "application"),
        Index(None, "farm_id", "state", "due_on"),
    )
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    decision_id: Mapped[uuid.UUID]
    application_id: Mapped[uuid.UUID | None]
    due_on: Mapped[dt.date]
    look_for: Mapped[str]
    state: Mapped[str]


class Application(Head, Base):
    """A treatment as it was done, and who signed for it."""

    __tablename__ = "application"
    __table_args__ = (within_farm("treatment_id", "treatment"), UniqueConstraint("farm_id", "treatment_id"))
    treatment_id: Mapped[uuid.UUID]
    started_at: Mapped[dt.datetime]
    finished_at: Mapped[dt.datetime]
    amount: Mapped[float]
    amount_unit: Mapped[str]
    area: Mapped[float]
    working: Mapped[dict[str, Any]]
    note: Mapped[str]


class Enquiry(Head, Base):
    """A case that came to the desk: what was sent, what was told of it, what was asked or answered."""

    __tablename__ = "enquiry"
    __table_args__ = (Index(None, "farm_id", "state"),)
    sender: Mapped[str]
    came_as: Mapped[str]
    crop: Mapped[str]
    family: Mapped[str]
    place: Mapped[str]
    words: Mapped[str]
    signs: Mapped[dict[str, Any]]
    verdict: Mapped[str]
    state: Mapped[str]
    working: Mapped[dict[str, Any]]


class Photo(Identified, Base):
    """A photograph at a stop or with an enquiry: re-encoded, small, its place only where the scout wants it kept."""

    __tablename__ = "photo"
    __table_args__ = (
        within_farm("stop_id", "stop"),
        within_farm("enquiry_id", "enquiry"),
        Index(None, "farm_id", "stop_id"),
        Index(None, "farm_id", "enquiry_id"),
        CheckConstraint("num_nonnulls(stop_id, enquiry_id) = 1", name="photo_hangs_on_one"),
    )
    stop_id: Mapped[uuid.UUID | None]
    enquiry_id: Mapped[uuid.UUID | None]
    account_id: Mapped[uuid.UUID]
    seen_at: Mapped[dt.datetime]
    width: Mapped[int]
    height: Mapped[int]
    latitude: Mapped[float | None]
    longitude: Mapped[float | None]
    content: Mapped[bytes] = mapped_column(LargeBinary)
