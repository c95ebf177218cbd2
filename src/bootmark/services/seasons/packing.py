"""A forecast as it is stored, and back."""

import datetime as dt
from typing import Any

import numpy as np

from bootmark.core.season.phenology import EventDates, Season

Json = dict[str, Any]


def pack(found: Season) -> tuple[Json, bytes]:
    """A forecast as what is said of it and its rows of days, one float of four bytes a day."""
    names: list[tuple[str, str]] = []
    rows: list[Any] = [*found.heat]
    for group in ("shares", "low", "high", "usual", "phases", "passed"):
        for name, row in getattr(found, group).items():
            names.append((group, name))
            rows.append(row)
    kinds: list[list[Any]] = []
    for kind in found.kinds:
        if kinds and kinds[-1][0] == kind:
            kinds[-1][1] += 1
        else:
            kinds.append([kind, 1])
    told = {
        "first": found.dates[0].isoformat(),
        "days": len(found.dates),
        "rows": names,
        "kinds": kinds,
        "events": [
            [
                event.id,
                event.name,
                event.stage,
                *(day.isoformat() if day else None for day in (event.p10, event.p50, event.p90, event.usual)),
                event.days_early,
                dict(event.sources),
            ]
            for event in found.events
        ],
        "sources": dict(found.sources),
        "biofix": found.biofix.isoformat(),
        "as_of": found.as_of.isoformat(),
        "moved": found.moved,
        "surer": found.surer,
    }
    return told, np.asarray(rows, dtype="<f4").tobytes()


def unpack(told: Json, arrays: bytes) -> Season:
    """What pack made, as a forecast again."""
    days = int(told["days"])
    first = dt.date.fromisoformat(told["first"])
    rows = np.frombuffer(arrays, dtype="<f4").reshape(-1, days).astype(float)
    groups: dict[str, dict[str, Any]] = {group: {} for group in ("shares", "low", "high", "usual", "phases", "passed")}
    for (group, name), row in zip(told["rows"], rows[3:], strict=True):
        groups[group][name] = row

    def day(value: str | None) -> dt.date | None:
        return dt.date.fromisoformat(value) if value else None

    return Season(
        dates=tuple(first + dt.timedelta(days=n) for n in range(days)),
        heat=rows[:3],
        events=tuple(
            EventDates(one[0], one[1], one[2], day(one[3]), day(one[4]), day(one[5]), day(one[6]), one[7], one[8]) for one in told["events"]
        ),
        sources=told["sources"],
        biofix=dt.date.fromisoformat(told["biofix"]),
        as_of=dt.date.fromisoformat(told["as_of"]),
        kinds=tuple(kind for kind, count in told["kinds"] for _ in range(count)),
        moved=told["moved"],
        surer=told["surer"],
        **groups,
    )
