"""A forecast as it is stored, and back."""

import datetime as dt
from typing import Any

import numpy as np

from bootmark.core.season.dated import EventDates
from bootmark.core.season.phenology import Season

Json = dict[str, Any]


def pack(season: Season) -> tuple[Json, bytes]:
    """A forecast as what is said of it and its rows of days, one float of four bytes a day."""
    names: list[tuple[str, str]] = []
    rows: list[Any] = [*season.heat]
    for group in ("shares", "low", "high", "usual", "phases", "passed"):
        for name, row in getattr(season, group).items():
            names.append((group, name))
            rows.append(row)
    kinds: list[list[Any]] = []
    for kind in season.kinds:
        if kinds and kinds[-1][0] == kind:
            kinds[-1][1] += 1
        else:
            kinds.append([kind, 1])
    packed = {
        "first": season.dates[0].isoformat(),
        "days": len(season.dates),
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
                *(day.isoformat() if day else None for day in (event.begins, event.ends)),
            ]
            for event in season.events
        ],
        "sources": dict(season.sources),
        "biofix": season.biofix.isoformat(),
        "as_of": season.as_of.isoformat(),
        "moved": season.moved,
        "surer": season.surer,
        "chance": season.chance,
        "chilled": season.chilled,
        "winter": season.winter.isoformat() if season.winter else None,
    }
    return packed, np.asarray(rows, dtype="<f4").tobytes()


def unpack(packed: Json, arrays: bytes) -> Season:
    """What pack made, as a forecast again."""
    days = int(packed["days"])
    first = dt.date.fromisoformat(packed["first"])
    rows = np.frombuffer(arrays, dtype="<f4").reshape(-1, days).astype(float)
    groups: dict[str, dict[str, Any]] = {group: {} for group in ("shares", "low", "high", "usual", "phases", "passed")}
    for (group, name), row in zip(packed["rows"], rows[3:], strict=True):
        groups[group][name] = row

    def day(value: str | None) -> dt.date | None:
        return dt.date.fromisoformat(value) if value else None

    return Season(
        dates=tuple(first + dt.timedelta(days=n) for n in range(days)),
        heat=rows[:3],
        events=tuple(EventDates(*event[:3], *map(day, event[3:7]), *event[7:9], *map(day, event[9:])) for event in packed["events"]),
        sources=packed["sources"],
        biofix=dt.date.fromisoformat(packed["biofix"]),
        as_of=dt.date.fromisoformat(packed["as_of"]),
        kinds=tuple(kind for kind, count in packed["kinds"] for _ in range(count)),
        moved=packed["moved"],
        surer=packed["surer"],
        chance=packed.get("chance", 1.0),
        winter=day(packed.get("winter")),
        chilled=packed.get("chilled", True),
        shares=groups["shares"],
        low=groups["low"],
        high=groups["high"],
        usual=groups["usual"],
        phases=groups["phases"],
        passed=groups["passed"],
    )
