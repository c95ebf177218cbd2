"""How somebody likes the screens: kept with the account, so that every device knows it."""

import datetime as dt
import json
from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any, Self

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.core.units import Scale, System
from bootmark.say import Tongue
from bootmark.say.formats import Days, Numbers
from bootmark.services.base import sign_ins
from bootmark.store.models import Farm

WAYS = {"measures": System, "scale": Scale, "days": Days, "numbers": Numbers}
"""What a farm says for all, and somebody may like otherwise."""


@dataclass(frozen=True)
class Preferences:
    """sun: black on white, for full sun; large: larger letters; left: what is pressed most lies at the left thumb.

    measures, scale, days, numbers: how they are written; empty where as the farm writes them.
    """

    sun: bool = False
    large: bool = False
    left: bool = False
    measures: str = ""
    scale: str = ""
    days: str = ""
    numbers: str = ""

    @classmethod
    def of(cls, kept: Mapping[str, Any]) -> Self:
        """From what was kept or typed; what is none of the words is not taken."""
        values: dict[str, Any] = {field.name: kept.get(field.name) is True for field in fields(cls) if field.name not in WAYS}
        return cls(**values, **{name: kept[name] for name, words in WAYS.items() if kept.get(name) in tuple(words)})

    @property
    def chosen(self) -> list[str]:
        """The names of what is switched on."""
        return [name for name, value in asdict(self).items() if value is True]

    def tongue(self, language: Tongue, farm: Farm | None = None) -> Tongue:
        """A language as this person reads it: by the own ways, then the farm's."""

        def way(name: str) -> str:
            return getattr(self, name) or (getattr(farm, name) if farm else next(iter(WAYS[name])))

        return language.in_formats(System(way("measures")), Scale(way("scale")), Days(way("days")), Numbers(way("numbers")))


def keep(session: Session, token: str, wanted: Preferences, real_now: dt.datetime) -> None:
    """Keep what somebody chose, by the token of the own sign-in."""
    session.execute(
        text("SELECT bm_preferences_set(:hashed, CAST(:wanted AS jsonb), :now)"),
        {"hashed": sign_ins.hashed(token), "wanted": json.dumps(asdict(wanted)), "now": real_now},
    )
