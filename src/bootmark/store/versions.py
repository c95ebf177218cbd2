"""The version table of each head table."""

from sqlalchemy import Index, Table

from bootmark.store.base import Head, version_table
from bootmark.store.models import (
    Application,
    BegunWork,
    Biofix,
    Block,
    CropCondition,
    CropStage,
    DecisionRow,
    Enquiry,
    FarmSettings,
    Invitation,
    Judgement,
    Look,
    MemberTerms,
    ModelOffset,
    Opinion,
    OutsideAnswer,
    OwnThreshold,
    PlaceCheck,
    PlanFeature,
    PlanPicture,
    Planting,
    SampleRow,
    SeasonTask,
    StageSighting,
    Station,
    Stop,
    Trap,
    TrapCheck,
)

HEADS: tuple[type[Head], ...] = (
    Station, Block, Biofix, Stop, Look, SampleRow, DecisionRow, Application, Enquiry,
    Trap, TrapCheck, StageSighting, CropStage, Judgement, OutsideAnswer, ModelOffset,
    FarmSettings, MemberTerms, Invitation, PlanFeature, Planting, PlanPicture, OwnThreshold, PlaceCheck,
    Opinion, BegunWork, CropCondition, SeasonTask,
)  # fmt: skip
BY_TIME = (Look, SampleRow, DecisionRow, Application, Biofix, TrapCheck, StageSighting, CropStage, OutsideAnswer, Opinion)
"""What stands in the Book, which is read from the newest on."""
for model in HEADS:
    columns = model.__table__.c  # type: ignore[attr-defined]
    Index(f"ix_{model.__tablename__}_conflict", columns.farm_id, postgresql_where=columns.conflict)  # type: ignore[attr-defined]
for model in BY_TIME:
    columns = model.__table__.c
    moment = columns.finished_at if model is Application else columns.seen_at
    Index(f"ix_{model.__tablename__}_by_time", columns.farm_id, moment)
VERSIONS: dict[type[Head], Table] = {head: version_table(head) for head in HEADS}
