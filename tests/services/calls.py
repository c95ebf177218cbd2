"""A great many odd calls, half of them good: what came of them. The seed makes them the same again."""

import copy
import logging
import random
import uuid
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import text

from bootmark.services import writing
from bootmark.standins.estate import FARM, NOW, made
from bootmark.store.session import farm_session
from tests.database import catalogue, member
from tests.sending import REAL, envelope
from tests.services.lines import kept

AT_ONCE = 40
ODD: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 2**31, 2**63, -(2**63), 10**400, 0.1, -0.0, 1e308, 5e-324, float("nan"), float("inf"), float("-inf"), "", " ",
    "\x00", "\ud800", "\u202e\u200b", "x" * 400, "9" * 3000, "NaN", "1e999", "2026-02-30", "0001-01-01", "9999-12-31", "9999-12-31T23:59:59-14:00",
    "0001-01-01T00:00:00+14:00", "2199-12-31T00:00:00+00:00", "not-a-uuid", str(uuid.UUID(int=0)), [], [[]], [None], [0] * 2000, {}, {"": ""},
    {"x" * 300: 1}, [[0, 0], [0, 0], [0, 0]], [[1e308, 0], [0, 1e308], [1, 1]], {"larva": -1}, {"larva": 10**20}, ["'; DROP TABLE look; --"],
    "<script>alert(1)</script>", "=1+1", "../../etc/passwd",
)  # fmt: skip
ENVELOPE = ("command_id", "record_id", "base", "base_version", "seen_at", "v", "merges", "kind", "payload")


@dataclass
class Told:
    """What came of it. lost: good ones that were not stored; lines: errors that the log told of."""

    calls: int = 0
    lost: int = 0
    lines: list[str] = field(default_factory=list)
    statuses: Counter[str] = field(default_factory=Counter)


class _Errors(logging.Handler):
    def __init__(self, outcome: Told) -> None:
        super().__init__(logging.ERROR)
        self.told = outcome

    def emit(self, record: logging.LogRecord) -> None:
        self.told.lines.append(record.getMessage())


def kinds() -> dict[str, dict[str, Any]]:
    """A good payload of every kind, of records that are there."""
    return {kind: payload for kind, (payload, _) in kept().items()}


def _odd(rng: random.Random, good: dict[str, dict[str, Any]]) -> dict[str, Any]:
    """A good command with nonsense in one place: a field, a part of a field, or round the payload."""
    kind = rng.choice(sorted(good))
    command = envelope(kind, copy.deepcopy(good[kind]))
    where = rng.random()
    if where < 0.2:
        command[rng.choice(ENVELOPE)] = rng.choice(ODD)
        return command
    name = rng.choice(sorted(command["payload"]))
    value = command["payload"][name]
    if where < 0.4 and isinstance(value, list) and value:
        value[rng.randrange(len(value))] = rng.choice(ODD)
    elif where < 0.4 and isinstance(value, dict) and value:
        value[rng.choice(sorted(value))] = rng.choice(ODD)
    elif where < 0.5:
        command["payload"][str(rng.choice(ODD))[:80]] = rng.choice(ODD)
    else:
        command["payload"][name] = rng.choice(ODD)
    return command


def run(calls: int, seed: int = 11) -> Told:
    """So many calls, in batches as a phone sends them, every second a good one."""
    rng, good, strokes_told = random.Random(seed), kinds(), Told()
    errors = _Errors(strokes_told)
    logging.getLogger("bootmark").addHandler(errors)
    try:
        while strokes_told.calls < calls:
            batch: list[dict[str, Any]] = []
            for _ in range(AT_ONCE // 2):
                batch += [_odd(rng, good), envelope("stop.open", {"block_id": str(made("Tunnel 1"))}, at=NOW)]
            answers = writing.sync(FARM, member("owner"), catalogue, batch, REAL)
            strokes_told.calls += len(batch)
            strokes_told.statuses.update(answer["status"] for answer in answers[::2])
            strokes_told.lost += sum(answer["status"] != "stored" for answer in answers[1::2])
            ids = [command["record_id"] for command in batch[1::2]]
            with farm_session(FARM) as session:
                there = session.execute(text("SELECT count(*) FROM stop WHERE id = ANY(CAST(:ids AS uuid[]))"), {"ids": ids}).scalar_one()
            strokes_told.lost += len(ids) - int(there)
    finally:
        logging.getLogger("bootmark").removeHandler(errors)
    return strokes_told
