"""The version table of each head table."""

from sqlalchemy import Table

from bootmark.store.base import Head, version_table
from bootmark.store.models import (
    Application,
    Biofix,
    Block,
    CropStage,
    DecisionRow,
    Enquiry,
    Judgement,
    Look,
    SampleRow,
    StageSighting,
    Station,
    Stop,
    Trap,
    TrapCheck,
)

HEADS: tuple[type[Head], ...] = (
    Station, Block, Biofix, Stop, Look, SampleRow, DecisionRow, Application, Enquiry,
    Trap, TrapCheck, StageSighting, CropStage, Judgement,
)  # fmt: skip
VERSIONS: dict[type[Head], Table] = {head: version_table(head) for head in HEADS}
