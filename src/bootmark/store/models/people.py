"""What a farm keeps of itself and of its people, with versions; links by which people join or set a password anew."""

import datetime as dt
import uuid

from sqlalchemy import ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, Head


class FarmSettings(Head, Base):
    """What an owner keeps of the farm; its id is the farm's. The farm's own row holds what counts now.

    region: its country, with the subdivision where one is told (ISO 3166-2); currency: ISO 4217; school: of control;
    calls_signed: whether a scout's call waits for an adviser or the owner; reach: metres, of the highest sprayer.
    """

    __tablename__ = "farm_settings"
    name: Mapped[str]
    latitude: Mapped[float]
    longitude: Mapped[float]
    time_zone: Mapped[str]
    region: Mapped[str]
    currency: Mapped[str]
    school: Mapped[str]
    measures: Mapped[str] = mapped_column(server_default="metric")
    scale: Mapped[str] = mapped_column(server_default="C")
    days: Mapped[str] = mapped_column(server_default="day-first")
    numbers: Mapped[str] = mapped_column(server_default="point")
    retention_days: Mapped[int | None]
    calls_signed: Mapped[bool] = mapped_column(server_default="false", default=False)
    reach: Mapped[float | None]


class Terms:
    """What somebody is on a farm. qualified: until the certificate ends, where an end is told."""

    role: Mapped[str]
    qualified: Mapped[bool]
    certificate: Mapped[str]
    certificate_until: Mapped[dt.date | None]


class MemberTerms(Terms, Head, Base):
    """What an owner keeps of a member; its id is the account's. The membership's row holds what counts now."""

    __tablename__ = "member_terms"
    ended: Mapped[bool]


class Invitation(Terms, Head, Base):
    """A link by which somebody joins, by the hash of its token. email: the one address that it serves for, empty where any does."""

    __tablename__ = "invitation"
    name: Mapped[str]
    email: Mapped[str]
    token_hash: Mapped[str] = mapped_column(unique=True)
    ends_at: Mapped[dt.datetime]
    withdrawn: Mapped[bool]
    used_at: Mapped[dt.datetime | None]
    used_by: Mapped[uuid.UUID | None]


class AccountReset(Base):
    """A link by which the holder of an account sets its password anew. farm_id: of the owner who made it; none where it went by mail."""

    __tablename__ = "account_reset"
    id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    token_hash: Mapped[str] = mapped_column(unique=True)
    account_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("account.id"), index=True)
    farm_id: Mapped[uuid.UUID | None]
    made_at: Mapped[dt.datetime]
    ends_at: Mapped[dt.datetime]
    used_at: Mapped[dt.datetime | None]


class Erased(Base):
    """A person of whom everything was blanked."""

    __tablename__ = "erased"
    account_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    at: Mapped[dt.datetime]
