"""How somebody likes the screens: kept with the account, so that every device knows it."""

import datetime as dt
import json
from collections.abc import Collection, Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any, Self

from sqlalchemy import text
from sqlalchemy.orm import Session

from bootmark.services.base import sign_ins


@dataclass(frozen=True)
class Preferences:
    """sun: black on white, for full sun; large: larger letters; left: what is pressed most lies at the left thumb."""

    sun: bool = False
    large: bool = False
    left: bool = False

    @classmethod
    def of(cls, kept: Mapping[str, Any]) -> Self:
        return cls(**{field.name: kept.get(field.name) is True for field in fields(cls)})

    @property
    def chosen(self) -> list[str]:
        """The names of what is chosen."""
        return [name for name, is_chosen in asdict(self).items() if is_chosen]


def keep(session: Session, token: str, chosen: Collection[str], real_now: dt.datetime) -> None:
    """Keep what somebody chose, by the token of the own sign-in."""
    wanted = Preferences.of(dict.fromkeys(chosen, True))
    session.execute(
        text("SELECT bm_preferences_set(:hashed, CAST(:wanted AS jsonb), :now)"),
        {"hashed": sign_ins.hashed(token), "wanted": json.dumps(asdict(wanted)), "now": real_now},
    )
