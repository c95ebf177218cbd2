"""What a farm's rows are at, topic by topic: while a topic stands, what was made of its rows before can be shown again.

Triggers note each writing transaction beside the rows that it wrote, so no writer has to remember to tell, and asking costs the same
however many rows there are.
"""

import uuid
from collections.abc import Callable, Hashable, Mapping, Sequence
from enum import StrEnum
from typing import TypeVar

from sqlalchemy import Text, cast, func, literal
from sqlalchemy.dialects.postgresql import aggregate_order_by
from sqlalchemy.orm import Session

from bootmark.services.base import memo
from bootmark.store.models import FarmChange
from bootmark.store.rows import of_farm

Value = TypeVar("Value")


class Topic(StrEnum):
    """Tables that change together."""

    PLACES = "places"
    WEATHER = "weather"
    SEASONS = "seasons"
    RESULTS = "results"
    SCOUTING = "scouting"
    TREATMENT = "treatment"
    PEOPLE = "people"


Stamp = tuple[str, ...]
_NOTED = func.string_agg(
    func.concat(cast(FarmChange.writer, Text), ":", FarmChange.writes), aggregate_order_by(literal(","), FarmChange.writer)
)
_STATEMENT = of_farm(FarmChange, FarmChange.topic, func.md5(_NOTED)).group_by(FarmChange.topic)


def keep(session: Session, stamps: Mapping[str, str]) -> None:
    """What the stamps are, where they have been asked for together with something else."""
    memo.once(session, ("stamps",), lambda: stamps)


def _all(session: Session) -> Mapping[str, str]:
    return memo.once(session, ("stamps",), lambda: dict(session.execute(_STATEMENT).all()))


def of(session: Session, *topics: Topic) -> Stamp:
    """Changes with every write to the tables of some topics, or of all."""
    stamps = _all(session)
    return tuple(stamps.get(topic, "") for topic in topics or tuple(Topic))


def while_standing(session: Session, kept: "memo.Kept[Value]", topics: Sequence[Topic], key: Hashable, make: Callable[[], Value]) -> Value:
    """What was made before under this key, as long as the rows of some topics stand; else made anew."""
    farm: uuid.UUID = session.info["farm"]
    full = (farm, of(session, *topics), key)
    before = kept.get(full)
    return before if before is not None else kept.put(full, make())
