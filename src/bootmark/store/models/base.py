"""People, farms, memberships, commands, and the catalogue's permanent ids."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import BigInteger, ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, FarmRow, Identified, Xid8


class Account(Base):
    """A person, known across farms. The web role reaches it through functions only."""

    __tablename__ = "account"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    email: Mapped[str] = mapped_column(unique=True)
    name: Mapped[str]
    password_hash: Mapped[str]
    preferences: Mapped[dict[str, Any]] = mapped_column(server_default="{}")


class SignInAttempt(Base):
    """One failed sign-in, by address and by name, counted here and not in a worker."""

    __tablename__ = "sign_in_attempt"
    id: Mapped[int] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(index=True)
    at: Mapped[dt.datetime]


class SignInSession(Base):
    """A sign-in, by the hash of its token. asked_at: when the password was given last; ended_by: what ended it before its time."""

    __tablename__ = "sign_in_session"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    token_hash: Mapped[str] = mapped_column(unique=True)
    account_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("account.id"), index=True)
    device: Mapped[str]
    address: Mapped[str]
    made_at: Mapped[dt.datetime]
    asked_at: Mapped[dt.datetime]
    seen_at: Mapped[dt.datetime]
    ends_at: Mapped[dt.datetime]
    ended_at: Mapped[dt.datetime | None]
    ended_by: Mapped[str] = mapped_column(server_default="")


class SignInEvent(Base):
    """What came of a try to sign in."""

    __tablename__ = "sign_in_event"
    __table_args__ = (Index(None, "account_id", "at"),)
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True)
    at: Mapped[dt.datetime] = mapped_column(index=True)
    account_id: Mapped[uuid.UUID | None]
    name: Mapped[str]
    address: Mapped[str]
    device: Mapped[str]
    outcome: Mapped[str]


class RateHit(Base):
    """How often something was asked for since a moment."""

    __tablename__ = "rate_hit"
    __table_args__ = ({"prefixes": ["UNLOGGED"]},)
    key: Mapped[str] = mapped_column(primary_key=True)
    since: Mapped[dt.datetime]
    hits: Mapped[int]


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
    """One holding. clock_at: the demo farm's own time; empty where the real time counts. region: its country, by ISO 3166, with the
    subdivision where it is told; school: the school of control that its policy was taken from, empty where it has an order of its own;
    measures, scale, days, numbers: how they are written, unless somebody likes it otherwise; retention_days: after which what is kept of
    strangers is blanked, None where it is not; origin: of the plan, where the farm was when it began: it stays where it is;
    calls_signed: whether a scout's call waits until an adviser or the owner signs it; reach: metres, of the highest sprayer."""

    __tablename__ = "farm"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    latitude: Mapped[float]
    longitude: Mapped[float]
    time_zone: Mapped[str]
    clock_at: Mapped[dt.datetime | None]
    policy: Mapped[dict[str, Any]]
    region: Mapped[str] = mapped_column(server_default="")
    currency: Mapped[str] = mapped_column(server_default="")
    school: Mapped[str] = mapped_column(server_default="")
    measures: Mapped[str] = mapped_column(server_default="metric")
    scale: Mapped[str] = mapped_column(server_default="C")
    days: Mapped[str] = mapped_column(server_default="day-first")
    numbers: Mapped[str] = mapped_column(server_default="point")
    retention_days: Mapped[int | None]
    calls_signed: Mapped[bool] = mapped_column(server_default="false", default=False)
    reach: Mapped[float | None]
    origin_latitude: Mapped[float]
    origin_longitude: Mapped[float]


class Membership(Base):
    """What somebody is on a farm. ended_at: when they left; what they signed stays theirs."""

    __tablename__ = "membership"
    farm_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("farm.id"), primary_key=True)
    account_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("account.id"), primary_key=True)
    role: Mapped[str]
    qualified: Mapped[bool]
    certificate: Mapped[str] = mapped_column(server_default="")
    certificate_until: Mapped[dt.date | None]
    ended_at: Mapped[dt.datetime | None]


class CommandRow(Identified, Base):
    """Every write, as it was sent, with the result that a repeat of it gets.

    base: the command that it builds on, None where it makes the record (base_version: the same as a number, until version 0.2);
    seen_at: when it was done, by the farm's time; told_at: as the device said it; sent_at: the device's time of sending;
    reason: why a record was corrected or withdrawn, where somebody said; withdrawn: whether this withdraws it.
    """

    __tablename__ = "command"
    kind: Mapped[str]
    record_id: Mapped[uuid.UUID]
    v: Mapped[int] = mapped_column(server_default="1")
    base: Mapped[uuid.UUID | None]
    base_version: Mapped[int | None]
    merges: Mapped[list[Any]] = mapped_column(server_default="[]")
    seen_at: Mapped[dt.datetime]
    told_at: Mapped[dt.datetime | None]
    sent_at: Mapped[dt.datetime | None]
    received_at: Mapped[dt.datetime]
    account_id: Mapped[uuid.UUID]
    content_hash: Mapped[str]
    result: Mapped[dict[str, Any]]
    reason: Mapped[str] = mapped_column(server_default="")
    withdrawn: Mapped[bool] = mapped_column(server_default="false")


class FarmChange(FarmRow, Base):
    """A transaction that wrote into tables of a topic; made by triggers. writer: its id; writes: its statements."""

    __tablename__ = "farm_change"
    topic: Mapped[str] = mapped_column(primary_key=True)
    writer: Mapped[int] = mapped_column(Xid8, primary_key=True)
    writes: Mapped[int] = mapped_column(server_default="1")
