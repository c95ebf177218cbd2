"""How often somebody asks for what is expensive, counted in the database: by all processes of all machines together."""

import datetime as dt

from sqlalchemy import text
from sqlalchemy.orm import Session


def hits(session: Session, key: str, span: dt.timedelta, real_now: dt.datetime) -> int:
    """How often a key was hit since its span began, this once counted."""
    return int(session.execute(text("SELECT bm_hit(:key, :now, :span)"), {"key": key, "now": real_now, "span": span}).scalar_one())
