"""How the installation runs, for owners: which version, what is ill, what waits, how much is kept."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy import func, text
from sqlalchemy.orm import Session

from bootmark import VERSION
from bootmark.services.base import health
from bootmark.services.base.health import Part
from bootmark.store.models import Photo
from bootmark.store.rows import of_farm


@dataclass(frozen=True)
class Running:
    """ill: why each part is ill, empty where it is well; waiting, failed: jobs of the whole installation; bytes: of its database.

    oldest: since when the job waits that has waited longest; photos, photo_bytes: of this farm.
    """

    version: str
    revision: str
    ill: Mapping[Part, str]
    bytes: int
    waiting: int
    failed: int
    oldest: dt.datetime | None
    photos: int
    photo_bytes: int


def running(session: Session, real_now: dt.datetime) -> Running:
    """How the installation runs, and what this farm keeps."""
    row = session.execute(text("SELECT * FROM bm_installation()")).one()
    photos = session.execute(of_farm(Photo, func.count(), func.coalesce(func.sum(func.octet_length(Photo.content)), 0))).one()
    revision = session.execute(text("SELECT revision FROM bm_health()")).scalar_one()
    return Running(VERSION, revision, health.parts(real_now), row.bytes, row.waiting, row.failed, row.oldest, *photos)
