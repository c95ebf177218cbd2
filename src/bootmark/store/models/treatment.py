"""Calls, the treatments and looks that they book, and treatments as done."""

import datetime as dt
import uuid
from typing import Any

from sqlalchemy import ForeignKey, Index, UniqueConstraint, text
from sqlalchemy.orm import Mapped, mapped_column

from bootmark.store.base import Base, Head, Identified, Withdrawable, within_farm

PROPOSED = Index("ix_decision_proposed", "farm_id", postgresql_where=text("state = 'proposed'"))


class DecisionRow(Head, Base):
    """A call as it was made. working pins versions, inputs, result, catalogue and engine.

    state: called, or proposed until somebody signs it; why: of a call against the rules; also: controls that go along with the first; spot:
    which part of the block it is about, in words, with its area in hectares.
    """

    __tablename__ = "decision"
    __table_args__ = (within_farm("look_id", "look"), within_farm("sample_id", "sample"), within_farm("block_id", "block"), PROPOSED)
    look_id: Mapped[uuid.UUID]
    sample_id: Mapped[uuid.UUID | None]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    kind: Mapped[str]
    headline: Mapped[str]
    control: Mapped[str]
    working: Mapped[dict[str, Any]]
    state: Mapped[str] = mapped_column(server_default="called", default="called")
    why: Mapped[str] = mapped_column(server_default="", default="")
    also: Mapped[list[Any]] = mapped_column(server_default="[]", default=list)
    spot_area: Mapped[float | None]
    spot: Mapped[str] = mapped_column(server_default="", default="")


class Opinion(Withdrawable, Head, Base):
    """What somebody thinks of one version of a call, or asks of somebody about it. asked_of: whom; none: whoever signs."""

    __tablename__ = "opinion"
    __table_args__ = (within_farm("decision_id", "decision"), Index(None, "farm_id", "decision_id"))
    decision_id: Mapped[uuid.UUID]
    decision_version: Mapped[int]
    stance: Mapped[str]
    asked_of: Mapped[uuid.UUID | None]
    words: Mapped[str]


class OwnThreshold(Withdrawable, Head, Base):
    """Where an agent starts to matter on a crop of this farm, and why; measure as the agent is counted."""

    __tablename__ = "own_threshold"
    __table_args__ = (Index(None, "farm_id", "agent"),)
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    crop: Mapped[str]
    measure: Mapped[str]
    value: Mapped[float]
    why: Mapped[str]


class Hold(Identified, Base):
    """A block that is held after a report: nothing leaves it until the authority frees it."""

    __tablename__ = "hold"
    __table_args__ = (
        within_farm("block_id", "block"),
        within_farm("decision_id", "decision"),
        UniqueConstraint("farm_id", "decision_id"),
        Index(None, "farm_id", "state"),
    )
    block_id: Mapped[uuid.UUID]
    decision_id: Mapped[uuid.UUID]
    agent: Mapped[str] = mapped_column(ForeignKey("agent.id"))
    since: Mapped[dt.date]
    state: Mapped[str]


class OutsideAnswer(Head, Base):
    """What an authority answered to a report, or a clinic to a sample. agent: what it is, none where it is nothing of what was asked."""

    __tablename__ = "outside_answer"
    __table_args__ = (within_farm("block_id", "block"), within_farm("decision_id", "decision"), UniqueConstraint("farm_id", "decision_id"))
    decision_id: Mapped[uuid.UUID]
    block_id: Mapped[uuid.UUID]
    agent: Mapped[str | None] = mapped_column(ForeignKey("agent.id"))
    answered_by: Mapped[str]
    on: Mapped[dt.date]
    words: Mapped[str]
    frees: Mapped[bool]


class TreatmentRow(Identified, Base):
    """A planned control, derived from a decision. spot, spot_area: the part of the block that it is for, hectares; None for all of it."""

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
    spot: Mapped[str] = mapped_column(server_default="", default="")
    spot_area: Mapped[float | None]


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
    """A treatment as it was done, and who signed for it. aired_hours: how long a closed place was aired before anybody
    went in; label_hours, hand_hours: of its label, until people walk and until hands work there; until_dry: and until it has dried;
    early_minutes, early_wear: what the label allows before, None where it allows nothing."""

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
    aired_hours: Mapped[float | None]
    label_hours: Mapped[float | None]
    hand_hours: Mapped[float | None]
    until_dry: Mapped[bool] = mapped_column(server_default="false", default=False)
    early_minutes: Mapped[int | None]
    early_wear: Mapped[str] = mapped_column(server_default="", default="")


class BegunWork(Withdrawable, Head, Base):
    """A treatment that somebody has begun and not signed for: nobody goes into its block meanwhile."""

    __tablename__ = "begun_work"
    __table_args__ = (within_farm("treatment_id", "treatment"), Index(None, "farm_id", "treatment_id"))
    treatment_id: Mapped[uuid.UUID]
    began_at: Mapped[dt.datetime]
