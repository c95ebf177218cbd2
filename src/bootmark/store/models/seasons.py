"""Biofixes, traps and their checks, stages seen of pests and crops, and stored forecasts."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import ForeignKey, Index, LargeBinary, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, FarmRow, Head, Identified, Withdrawable, within_farm


class Biofix(Withdrawable, Head, Base):
    """The dated event from which an agent's heat is counted on a block, one a year."""

    __tablename__ = "biofix"
    __table_args__ = (within_farm("block_id", "block"), Index(None, "farm_id", "block_id", "agent"))
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    on: Mapped[dt.date]
    basis: Mapped[str]


class Trap(Head, Base):
    """A trap in a block. kind: a TrapKind; longitude, latitude: degrees; lure: what draws them and how much of it; lure_on: when it was put
    in, with lure_days that it lasts, none for a trap without one; check_days: days from check to check; height: metres; ended: taken in."""

    __tablename__ = "trap"
    __table_args__ = (within_farm("block_id", "block"), UniqueConstraint("farm_id", "name"), Index(None, "farm_id", "block_id"))
    name: Mapped[str]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    kind: Mapped[str]
    longitude: Mapped[float]
    latitude: Mapped[float]
    set_on: Mapped[dt.date]
    lure_on: Mapped[dt.date | None]
    lure_days: Mapped[int | None]
    check_days: Mapped[int]
    ended: Mapped[bool]
    strong: Mapped[bool] = mapped_column(server_default="false", default=False)
    lure: Mapped[str] = mapped_column(server_default="", default="")
    height: Mapped[float | None]


class TrapCheck(Withdrawable, Head, Base):
    """What was in a trap on a day."""

    __tablename__ = "trap_check"
    __table_args__ = (within_farm("trap_id", "trap"), Index(None, "farm_id", "trap_id", "on"))
    trap_id: Mapped[uuid.UUID]
    on: Mapped[dt.date]
    caught: Mapped[int | None]
    state: Mapped[str] = mapped_column(server_default="read", default="read")
    new_lure: Mapped[bool]
    new_liner: Mapped[bool] = mapped_column(server_default="false", default=False)
    note: Mapped[str]


class StageSighting(Withdrawable, Head, Base):
    """Animals of an agent counted by stage on a block. counts: stage to number."""

    __tablename__ = "stage_sighting"
    __table_args__ = (within_farm("block_id", "block"), Index(None, "farm_id", "block_id", "agent"))
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    on: Mapped[dt.date]
    counts: Mapped[dict[str, Any]]
    note: Mapped[str]


class ModelOffset(Head, Base):
    """What somebody accepted of a model's sums on this farm. times: as large as the catalogue tells them; error: of one year, a share;
    years: that it rests on, 0 where the catalogue's own sums are to be used again."""

    __tablename__ = "model_offset"
    __table_args__ = (Index(None, "farm_id", "agent"),)
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    times: Mapped[float]
    error: Mapped[float]
    years: Mapped[int]


class CropStage(Withdrawable, Head, Base):
    """A crop's stage as noted on a block: a BBCH code, and for a soybean its top node with the way of counting.

    planting_id: whose it is.
    """

    __tablename__ = "crop_stage"
    __table_args__ = (
        within_farm("block_id", "block"),
        within_farm("planting_id", "planting"),
        Index(None, "farm_id", "block_id", "on"),
    )
    block_id: Mapped[uuid.UUID]
    planting_id: Mapped[uuid.UUID | None]
    on: Mapped[dt.date]
    code: Mapped[int]
    node: Mapped[int | None]
    counted: Mapped[str]
    note: Mapped[str]


class SeasonResult(FarmRow, Base):
    """The newest forecast of an agent on a block, kept so that a page need not reckon it. key: changes with anything that it rests
    on; needs: whether its window is open or near; opens, closes: of that window; facts: what is said of it; arrays: its rows of days."""

    __tablename__ = "season_result"
    __table_args__ = (within_farm("block_id", "block"), Index(None, "farm_id", "needs"))
    block_id: Mapped[uuid.UUID] = mapped_column(primary_key=True)
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"), primary_key=True)
    key: Mapped[str]
    day: Mapped[dt.date]
    needs: Mapped[bool]
    opens: Mapped[dt.date | None]
    closes: Mapped[dt.date | None]
    facts: Mapped[dict[str, Any]]
    arrays: Mapped[bytes] = mapped_column(LargeBinary)
    reckoned_at: Mapped[dt.datetime]


class SeasonRun(Identified, Base):
    """One reckoning of a farm's forecasts in the background. parts: those that are done."""

    __tablename__ = "season_run"
    __table_args__ = (Index(None, "farm_id", "started_at"),)
    day: Mapped[dt.date]
    total: Mapped[int]
    done: Mapped[int]
    parts: Mapped[list[Any]]
    started_at: Mapped[dt.datetime]
    finished_at: Mapped[dt.datetime | None]
