"""Blocks, what grows on them, and what else stands on the plan."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import Index, LargeBinary, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, Head, Identified, Withdrawable, within_farm


class Block(Head, Base):
    """A managed area. outline: corners as longitude and latitude; weather: "station", its own one, or "nearby", all outdoor stations by
    distance; elevation: metres, None where it is not told; row_direction: degrees from north; row_spacing: metres; ended: the day from
    which it is no block any more.

    standing: what grows there today, the main planting first; crop, cultivar and harvest_from are the main one's, and stay while nothing
    stands. All four follow from the plantings. strips: what the ground was part of before, empty where it was always this block.
    """

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
    row_direction: Mapped[float | None]
    row_spacing: Mapped[float | None]
    ended: Mapped[dt.date | None]
    standing: Mapped[list[Any]] = mapped_column(server_default="[]", default=list)
    strips: Mapped[list[Any]] = mapped_column(server_default="[]", default=list)


class Planting(Withdrawable, Head, Base):
    """A crop on a block from a day on.

    since: None where nobody knows; until: the last day that it stood, None while it does; part: which of the block, in words; grown_from:
    the planting that it was until apart_on, while its block was part of another or its lot stood elsewhere; height: metres; sold_as: a
    SoldAs; worth: a Worth; supplier, origin, passport: of a lot that was bought; checked_on: when it was looked through on arrival;
    gone_to: who has it; plants: how many they are.
    """

    __tablename__ = "planting"
    __table_args__ = (within_farm("block_id", "block"), within_farm("grown_from", "planting"), Index(None, "farm_id", "block_id"))
    block_id: Mapped[uuid.UUID]
    crop: Mapped[str]
    cultivar: Mapped[str]
    part: Mapped[str]
    since: Mapped[dt.date | None]
    until: Mapped[dt.date | None]
    harvest_from: Mapped[dt.date | None]
    grown_from: Mapped[uuid.UUID | None]
    apart_on: Mapped[dt.date | None]
    height: Mapped[float | None]
    sold_as: Mapped[str] = mapped_column(server_default="", default="")
    worth: Mapped[str] = mapped_column(server_default="", default="")
    supplier: Mapped[str] = mapped_column(server_default="", default="")
    origin: Mapped[str] = mapped_column(server_default="", default="")
    passport: Mapped[str] = mapped_column(server_default="", default="")
    checked_on: Mapped[dt.date | None]
    gone_to: Mapped[str] = mapped_column(server_default="", default="")
    plants: Mapped[int | None]


class PlanImage(Identified, Base):
    """The bytes of a picture of the farm, re-encoded and without what the camera wrote."""

    __tablename__ = "plan_image"
    account_id: Mapped[uuid.UUID]
    received_at: Mapped[dt.datetime]
    width: Mapped[int]
    height: Mapped[int]
    content: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class PlanPicture(Head, Base):
    """A picture laid under the plan. marks: spots of it, pixels; points: the same ones as longitude and latitude; ended: taken away."""

    __tablename__ = "plan_picture"
    __table_args__ = (within_farm("image_id", "plan_image"),)
    image_id: Mapped[uuid.UUID]
    marks: Mapped[list[Any]]
    points: Mapped[list[Any]]
    ended: Mapped[bool]


class PlanFeature(Head, Base):
    """What stands on the plan and is no block. kind: a FeatureKind; points: longitude and latitude; height: metres, None where it is not
    told; ended: it is gone; check_days: days from look to look, None where nobody walks there."""

    __tablename__ = "plan_feature"
    kind: Mapped[str]
    name: Mapped[str]
    points: Mapped[list[Any]]
    height: Mapped[float | None]
    note: Mapped[str]
    ended: Mapped[bool]
    check_days: Mapped[int | None]


class SeasonTask(Withdrawable, Head, Base):
    """Something that was looked at outside the season. task: a YearTask; place_id: of a block or a store, None for the farm; fine: nothing
    was wrong; note: what was."""

    __tablename__ = "season_task"
    __table_args__ = (Index(None, "farm_id", "on"),)
    task: Mapped[str]
    place_id: Mapped[uuid.UUID | None]
    on: Mapped[dt.date]
    fine: Mapped[bool]
    note: Mapped[str]


class PlaceCheck(Withdrawable, Head, Base):
    """A look at a place that is no block. fine: nothing was wrong; note: what was."""

    __tablename__ = "place_check"
    __table_args__ = (within_farm("feature_id", "plan_feature"), Index(None, "farm_id", "feature_id", "on"))
    feature_id: Mapped[uuid.UUID]
    on: Mapped[dt.date]
    fine: Mapped[bool]
    note: Mapped[str]
