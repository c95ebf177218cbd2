"""A big farm: many orchards beside those of the demo, each with a biofix for each of some agents, days apart."""

import datetime as dt
import uuid
from collections.abc import Sequence
from typing import Any

from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.models import Biofix, Block
from bootmark.store.session import farm_session
from tests.database import member


def ids() -> dict[str, uuid.UUID]:
    return {"version_id": uuid.uuid4(), "command_id": uuid.uuid4()}


def plant(count: int, crop: str = "pear", agents: Sequence[str] = ("codling-moth",), days: int = 6) -> None:
    """So many blocks of a crop; their biofixes lie on so many different days of spring."""
    head: dict[str, Any] = {"version": 1, "conflict": False, "seen_at": NOW, "account_id": member("owner").account_id, "farm_id": FARM}
    plain: dict[str, Any] = {
        "crop": crop,
        "place": "orchard",
        "cultivar": "",
        "area": 1.0,
        "outline": [[7.1, 46.2], [7.1002, 46.2], [7.1002, 46.1999]],
    }
    with farm_session(FARM) as session:
        for n in range(count):
            where = made(f"orchard {n}")
            session.add(Block(id=where, name=f"Far {n:04}", station_id=made("Valley mast"), **ids(), **plain, **head))
            session.flush()
            for place, agent in enumerate(agents):
                on = dt.date(2026, 4, 10) + dt.timedelta(days=(7 * n + 11 * place) % days)
                session.add(Biofix(id=uuid.uuid4(), block_id=where, agent=agent, on=on, basis="planted", **ids(), **head))
