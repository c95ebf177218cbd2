"""Stops, looks, findings, counts, enquiries and photographs."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey, ForeignKeyConstraint, Index, LargeBinary
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, Head, Identified, Withdrawable, within_farm


class Stop(Head, Base):
    """One place on a round. return_id: the booked look that it answers, if any; planting_id: what was looked at, where something stood;
    longitude, latitude: where in the block, None where it is not told; flagged: it was marked, to be found again."""

    __tablename__ = "stop"
    __table_args__ = (
        within_farm("block_id", "block"),
        within_farm("planting_id", "planting"),
        # The return is made later than the stop that leads to it, and a stop may answer one.
        ForeignKeyConstraint(["farm_id", "return_id"], ["return_visit.farm_id", "return_visit.id"], use_alter=True),
        Index(None, "farm_id", "block_id", "on"),
        Index(None, "farm_id", "on"),
    )
    block_id: Mapped[uuid.UUID]
    on: Mapped[dt.date]
    where: Mapped[str]
    return_id: Mapped[uuid.UUID | None]
    planting_id: Mapped[uuid.UUID | None]
    longitude: Mapped[float | None]
    latitude: Mapped[float | None]
    flagged: Mapped[bool] = mapped_column(server_default="false", default=False)


class Look(Head, Base):
    """What was told at a stop, and what was made of it. verdict: kind; agents: named or likeliest ids; plants: how
    many were looked at, None where nobody told."""

    __tablename__ = "look"
    __table_args__ = (within_farm("stop_id", "stop"), Index(None, "farm_id", "stop_id"))
    stop_id: Mapped[uuid.UUID]
    signs: Mapped[dict[str, Any]]
    note: Mapped[str]
    verdict: Mapped[str]
    working: Mapped[dict[str, Any]]
    plants: Mapped[int | None]


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


class SampleRow(Withdrawable, Head, Base):
    """What was counted at a stop. dead, parasitised: how many beside those alive, None where nobody counted them; tool: by which, empty
    where it is the plan's own; pattern, laid: how its points lay on the block, and how many, empty where nobody told; pictures: for each
    unit the photograph that told it, empty text where none did; ages: how many of an Age, of all units, where somebody told them apart."""

    __tablename__ = "sample"
    __table_args__ = (within_farm("stop_id", "stop"), Index(None, "farm_id", "stop_id"))
    stop_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    unit: Mapped[str]
    measure: Mapped[str]
    counts: Mapped[list[Any]]
    enemies: Mapped[list[Any]]
    chosen: Mapped[str] = mapped_column(server_default="plan", default="plan")
    tool: Mapped[str] = mapped_column(server_default="", default="")
    dead: Mapped[int | None]
    parasitised: Mapped[int | None]
    pattern: Mapped[str] = mapped_column(server_default="", default="")
    laid: Mapped[int | None]
    pictures: Mapped[list[Any]] = mapped_column(server_default="[]", default=list)
    ages: Mapped[dict[str, Any]] = mapped_column(server_default="{}", default=dict)


class CropCondition(Withdrawable, Head, Base):
    """What the stand itself showed at a stop. condition: a Condition; agent: that it is laid to; units: of each stalk or fruit 1 where it
    gave way or has a hole, of each leaf the per cent that is lost; photo_id: on which that was measured."""

    __tablename__ = "crop_condition"
    __table_args__ = (within_farm("stop_id", "stop"), within_farm("photo_id", "photo"), Index(None, "farm_id", "stop_id"))
    stop_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    condition: Mapped[str]
    units: Mapped[list[Any]]
    photo_id: Mapped[uuid.UUID | None]


class Enquiry(Withdrawable, Head, Base):
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
    """A photograph at a stop, with an enquiry, or of a card that a treatment wetted: re-encoded, small, its place only where the scout
    wants it kept. asked: what was to be measured on it, None where nothing was; measured: what it said, or why it said nothing;
    tag: of what is pictured again and again."""

    __tablename__ = "photo"
    __table_args__ = (
        within_farm("stop_id", "stop"),
        within_farm("enquiry_id", "enquiry"),
        within_farm("treatment_id", "treatment"),
        Index(None, "farm_id", "stop_id"),
        Index(None, "farm_id", "enquiry_id"),
        Index(None, "farm_id", "treatment_id"),
        CheckConstraint("num_nonnulls(stop_id, enquiry_id, treatment_id) = 1", name="photo_hangs_on_one"),
    )
    stop_id: Mapped[uuid.UUID | None]
    enquiry_id: Mapped[uuid.UUID | None]
    treatment_id: Mapped[uuid.UUID | None]
    asked: Mapped[dict[str, Any] | None] = mapped_column(JSONB)
    measured: Mapped[dict[str, Any] | None] = mapped_column(JSONB)
    tag: Mapped[str] = mapped_column(server_default="", default="")
    account_id: Mapped[uuid.UUID]
    seen_at: Mapped[dt.datetime]
    width: Mapped[int]
    height: Mapped[int]
    latitude: Mapped[float | None]
    longitude: Mapped[float | None]
    content: Mapped[bytes] = mapped_column(LargeBinary)
