"""The life-cycle wheel: one turn is the year at this farm, one ring for each stage."""

import datetime as dt
import math
from collections.abc import Mapping, Sequence

from bootmark.web.drawing import svg
from bootmark.web.stages.svg import COLOURS

MONTHS = ("J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D")
MIDDLE, OUTER, RING, GAP = 150.0, 112.0, 19.0, 3.0

DEFS = (
    '<defs><pattern id="t-egg" width="7" height="7" patternUnits="userSpaceOnUse"><rect width="7" height="7" fill="#e0c064"/><circle cx="2" cy="2" r="1.1" fill="#6d5310"/><circle cx="5.5" cy="5.5" r="1.1" fill="#6d5310"/></pattern>'
    '<pattern id="t-larva" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><rect width="7" height="7" fill="#c8693a"/><rect width="3" height="7" fill="#98451d"/></pattern>'
    '<pattern id="t-nymph" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><rect width="7" height="7" fill="#c8693a"/><rect width="3" height="7" fill="#98451d"/></pattern>'
    '<pattern id="t-pupa" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect width="6" height="6" fill="#8b5a8b"/><path d="M0 0H6M0 0V6" stroke="#5c345c" stroke-width="1.6"/></pattern>'
    '<pattern id="t-adult" width="4" height="4" patternUnits="userSpaceOnUse"><rect width="4" height="4" fill="#235f68"/></pattern></defs>'
)


def _angle(share: float) -> float:
    """January begins at the top; the year turns with the clock."""
    return math.tau * share - math.pi / 2


def _at(share: float, radius: float) -> tuple[float, float]:
    return MIDDLE + radius * math.cos(_angle(share)), MIDDLE + radius * math.sin(_angle(share))


def _band(start: float, end: float, outer: float, inner: float) -> str:
    if end - start >= 1:
        return _band(start, start + 0.5, outer, inner) + _band(start + 0.5, start + 0.9999, outer, inner)
    large = int(end - start > 0.5)
    (ax, ay), (bx, by) = _at(start, outer), _at(end, outer)
    (cx, cy), (dx, dy) = _at(end, inner), _at(start, inner)
    return (
        f"M{ax:.1f} {ay:.1f}A{outer:.1f} {outer:.1f} 0 {large} 1 {bx:.1f} {by:.1f}"
        f"L{cx:.1f} {cy:.1f}A{inner:.1f} {inner:.1f} 0 {large} 0 {dx:.1f} {dy:.1f}Z"
    )


def runs(months: frozenset[int]) -> list[tuple[int, int]]:
    """Months that follow each other, as first month and count, round the turn of the year."""
    if len(months) == 12:
        return [(1, 12)]
    found = []
    for month in sorted(months):
        if (month - 2) % 12 + 1 not in months:
            length = 1
            while (month + length - 1) % 12 + 1 in months:
                length += 1
            found.append((month, length))
    return found


def wheel_svg(
    title: str,
    stages: Mapping[str, frozenset[int]],
    winter: tuple[str, frozenset[int]] | None,
    today: dt.date,
    events: Sequence[tuple[str, dt.date]] = (),
) -> str:
    """stages: months of each stage at this farm; winter: stage and months of rest; events: this year's median days."""
    parts = [DEFS, svg.circle(MIDDLE, MIDDLE, OUTER + 2, "#fffdf7", svg.RULE, 1)]
    for month in range(12):
        one, two = _at(month / 12, 30), _at(month / 12, OUTER + 12)
        parts.append(svg.line([one, two], svg.RULE, 1))
        x, y = _at((month + 0.5) / 12, OUTER + 13)
        parts.append(
            f'<text x="{x:.1f}" y="{y + 5:.1f}" text-anchor="middle" font-size="14" font-weight="600" fill="{svg.SLATE}">{MONTHS[month]}</text>'
        )
    for place, (stage, months) in enumerate(stages.items()):
        outer = OUTER - place * (RING + GAP)
        for first, count in runs(months):
            start = (first - 1) / 12
            parts.append(svg.path(_band(start, start + count / 12, outer, outer - RING), f"url(#t-{stage})", svg.INK, 0.8))
        if winter and winter[0] == stage:
            for first, count in runs(winter[1] - months):
                start = (first - 1) / 12
                parts.append(svg.path(_band(start, start + count / 12, outer - 5, outer - RING + 5), COLOURS[stage], opacity="0.35"))
    for number, (_, day) in enumerate(events, 1):
        share = (day.timetuple().tm_yday - 1) / 365
        x, y = _at(share, OUTER + 36)
        parts.append(svg.line([_at(share, OUTER - 4), _at(share, OUTER + 28)], svg.BOOT, 2))
        parts.append(
            svg.circle(x, y, 9, svg.BOOT)
            + f'<text x="{x:.1f}" y="{y + 5:.1f}" text-anchor="middle" font-size="14" font-weight="700" fill="#fffdf7">{number}</text>'
        )
    share = (today.timetuple().tm_yday - 1) / 365
    parts.append(svg.line([_at(share, 24), _at(share, OUTER + 8)], svg.RUST, 2.4))
    parts.append(svg.circle(MIDDLE, MIDDLE, 24, svg.PAPER, svg.RUST, 1.6))
    parts.append(
        f'<text x="{MIDDLE}" y="{MIDDLE + 5}" text-anchor="middle" font-size="13" font-weight="700" fill="{svg.RUST}">today</text>'
    )
    return svg.document("".join(parts), title, "-12 -12 324 324")
