"""Blocks, and what else stands on the plan."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, Head, within_farm


class Block(Head, Base):
    """A managed area with one crop. outline: corners as longitude and latitude; weather: "station", its own one, or
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


class PlanFeature(Head, Base):
    """What stands on the plan and is no block. kind: a FeatureKind; points: longitude and latitude; height: metres, None where it is not
    told; ended: it is gone."""

    __tablename__ = "plan_feature"
    kind: Mapped[str]
    name: Mapped[str]
    points: Mapped[list[Any]]
    height: Mapped[float | None]
    note: Mapped[str]
    ended: Mapped[bool]
