"""What was understood of a weather file: enough to show before it counts, and no more, however large the file is."""

import datetime as dt
from dataclasses import asdict, dataclass
from typing import Any, Self

from bootmark.formats.weather_csv import Day, Problem, Reading

SHOWN, SHOWN_REFUSED = 12, 5_000
"""Of days, doubts and gaps; and of refused lines, which are to be mended."""


@dataclass(frozen=True)
class Understood:
    """count: days; ahead: of these, how many the farm has not had yet; the lists hold the first of each kind, the numbers all."""

    count: int
    ahead: int
    first: dt.date | None
    last: dt.date | None
    days: tuple[Day, ...]
    refused: tuple[Problem, ...]
    refused_count: int
    doubts: tuple[Problem, ...]
    doubt_count: int
    gaps: tuple[tuple[dt.date, dt.date], ...]
    gap_count: int

    @classmethod
    def of(cls, reading: Reading, today: dt.date) -> Self:
        days = reading.days
        return cls(
            count=len(days),
            ahead=sum(day.date >= today for day in days),
            first=days[0].date if days else None,
            last=days[-1].date if days else None,
            days=days[:SHOWN],
            refused=reading.refused[:SHOWN_REFUSED],
            refused_count=len(reading.refused),
            doubts=reading.doubts[:SHOWN],
            doubt_count=len(reading.doubts),
            gaps=reading.gaps[:SHOWN],
            gap_count=len(reading.gaps),
        )

    def as_json(self) -> dict[str, Any]:
        stored = asdict(self)
        stored["first"], stored["last"] = (day and day.isoformat() for day in (self.first, self.last))
        stored["days"] = [asdict(day) | {"date": day.date.isoformat()} for day in self.days]
        stored["gaps"] = [[first.isoformat(), last.isoformat()] for first, last in self.gaps]
        return stored

    @classmethod
    def of_json(cls, stored: dict[str, Any]) -> Self:
        first, last = (dt.date.fromisoformat(stored[name]) if stored[name] else None for name in ("first", "last"))
        refused, doubts = (
            tuple(Problem(row["line"], row["reason"], row["raw"], tuple(row["cells"])) for row in stored[name])
            for name in ("refused", "doubts")
        )
        days = tuple(Day(**row | {"date": dt.date.fromisoformat(row["date"])}) for row in stored["days"])
        gaps = tuple((dt.date.fromisoformat(begin), dt.date.fromisoformat(end)) for begin, end in stored["gaps"])
        counts = {name: stored[name] for name in ("count", "ahead", "refused_count", "doubt_count", "gap_count")}
        return cls(**counts, first=first, last=last, days=days, gaps=gaps, refused=refused, doubts=doubts)
