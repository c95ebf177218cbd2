"""The version table of each head table."""

from sqlalchemy import Table

from bootmark.store.base import Head, version_table
from bootmark.store.models import Application, Biofix, Block, DecisionRow, Enquiry, Look, SampleRow, Station, Stop

HEADS: tuple[type[Head], ...] = (Station, Block, Biofix, Stop, Look, SampleRow, DecisionRow, Application, Enquiry)
VERSIONS: dict[type[Head], Table] = {head: version_table(head) for head in HEADS}
