"""Season ribbons: stage shares over the year in colour and texture, with soft edges for what is not sure."""

import datetime as dt
from collections.abc import Sequence

import numpy as np

from bootmark.core.catalogue.model import MANY
from bootmark.core.season.phenology import Season
from bootmark.core.season.shares import NOT_YET, OVER
from bootmark.web.drawing import svg

COLOURS = {"egg": "#e0c064", "larva": "#c8693a", "nymph": "#c8693a", "pupa": "#8b5a8b", "adult": "#235f68"}
LEFT, WIDTH, LANE, TOP = 64.0, 860.0, 34.0, 44.0
STAGE_ORDER = ("adult", "egg", "larva", "nymph", "pupa")

DEFS = (
    '<defs><pattern id="t-egg" width="7" height="7" patternUnits="userSpaceOnUse"><rect width="7" height="7" fill="#e0c064"/><circle cx="2" cy="2" r="1.1" fill="#6d5310"/><circle cx="5.5" cy="5.5" r="1.1" fill="#6d5310"/></pattern>'
    '<pattern id="t-larva" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><rect width="7" height="7" fill="#c8693a"/><rect width="3" height="7" fill="#98451d"/></pattern>'
    '<pattern id="t-nymph" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><rect width="7" height="7" fill="#c8693a"/><rect width="3" height="7" fill="#98451d"/></pattern>'
    '<pattern id="t-pupa" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect width="6" height="6" fill="#8b5a8b"/><path d="M0 0H6M0 0V6" stroke="#5c345c" stroke-width="1.6"/></pattern>'
    '<pattern id="t-adult" width="4" height="4" patternUnits="userSpaceOnUse"><rect width="4" height="4" fill="#235f68"/></pattern></defs>'
)


class Axis:
    """Days to places on the sheet."""

    def __init__(self, first: dt.date, last: dt.date) -> None:
        self.first, self.last = first, last
        self.days = (last - first).days

    def x(self, day: dt.date) -> float:
        return LEFT + WIDTH * min(max((day - self.first).days / self.days, 0.0), 1.0)

    def months(self, height: float, bottom: float) -> str:
        parts, day = [], dt.date(self.first.year, self.first.month, 1)
        while day <= self.last:
            if day >= self.first:
                x = self.x(day)
                parts.append(
                    svg.line([(x, height), (x, bottom)], svg.RULE, 1)
                    + f'<text x="{x + 5:.0f}" y="{height - 6:.0f}" font-size="15" font-weight="700">{day:%B}</text>'
                )
            day = (day.replace(day=28) + dt.timedelta(days=5)).replace(day=1)
        return "".join(parts)


def _curve(season: Season, row: np.ndarray, axis: Axis, base: float, height: float) -> list[tuple[float, float]]:
    """A share over the days that the axis shows, as points on the sheet."""
    first = max((axis.first - season.dates[0]).days, 0)
    last = min((axis.last - season.dates[0]).days + 1, len(season.dates))
    start = (season.dates[0] - axis.first).days
    x = LEFT + WIDTH * np.arange(first + start, last + start) / axis.days
    return list(zip(x.tolist(), (base - height * row[first:last]).tolist(), strict=True))


def ribbon_svg(
    season: Season,
    axis: Axis,
    today: dt.date,
    title: str,
    *,
    window: tuple[dt.date, dt.date] | None = None,
    window_name: str = "",
    treatments: Sequence[tuple[dt.date, bool]] = (),
) -> str:
    """One agent on one block. treatments: days with whether they are done."""
    stages = [stage for stage in STAGE_ORDER if stage in season.shares]
    bottom = TOP + LANE * len(stages) + 8
    parts = [DEFS, axis.months(20, bottom)]
    if window and window[1] >= axis.first and window[0] <= axis.last:
        x, end = axis.x(window[0]), max(axis.x(window[1] + dt.timedelta(days=1)), axis.x(window[0]) + 4)
        parts.append(f'<rect x="{x:.1f}" y="30" width="{end - x:.1f}" height="{bottom - 30:.1f}" fill="#7a3e1d" fill-opacity="0.12"/>')
        parts.append(svg.path(f"M{x:.1f} 38V31H{end:.1f}V38", stroke=svg.BOOT, width=2.6))
        side, anchor = (end + 6, "start") if end < LEFT + WIDTH - 190 else (x - 6, "end")
        parts.append(
            f'<text x="{side:.0f}" y="38" text-anchor="{anchor}" font-size="14" font-weight="700" fill="{svg.BOOT}">{window_name}</text>'
        )
    for lane, stage in enumerate(stages):
        base = TOP + LANE * (lane + 1)
        parts.append(svg.line([(LEFT, base), (LEFT + WIDTH, base)], svg.RULE, 1))
        parts.append(f'<text x="{LEFT - 8:.0f}" y="{base - 4:.0f}" text-anchor="end" font-size="14" fill="#5a5d57">{stage}</text>')
        body = _curve(season, season.shares[stage], axis, base, LANE - 4)
        low, high = _curve(season, season.low[stage], axis, base, LANE - 4), _curve(season, season.high[stage], axis, base, LANE - 4)
        if not body:
            continue
        closed = f"L{body[-1][0]:.1f} {base:.1f}L{body[0][0]:.1f} {base:.1f}Z"
        # What nine in ten futures reach stands behind, pale; what nearly all hold stands solid.
        parts.append(svg.path(svg.open_d(high) + closed, COLOURS[stage], opacity="0.28"))
        parts.append(svg.path(svg.open_d([(x, max(y, z)) for (x, y), (_, z) in zip(body, low, strict=True)]) + closed, f"url(#t-{stage})"))
        parts.append(svg.line(body, svg.INK, 1))
        ghost = _curve(season, season.usual.get(stage, np.zeros(len(season.dates))), axis, base, LANE - 4)
        parts.append(svg.line(ghost, svg.SLATE, 1.4, stroke_dasharray="2 4"))
    for day, done in treatments:
        x = axis.x(day)
        parts.append(
            svg.path(
                f"M{x - 6:.1f} {bottom + 14:.1f}L{x:.1f} {bottom + 4:.1f}L{x + 6:.1f} {bottom + 14:.1f}Z",
                svg.MOSS if done else svg.PAGE,
                svg.MOSS,
                1.8,
            )
        )
    x = axis.x(today)
    parts.append(svg.line([(x, 22), (x, bottom + 2)], svg.INK, 2.6))
    label = f'<rect x="{x - 34:.0f}" y="{bottom + 2:.0f}" width="68" height="20" fill="{svg.INK}"/><text x="{x:.0f}" y="{bottom + 17:.0f}" text-anchor="middle" font-size="14" font-weight="700" fill="{svg.PAGE}">{today:%-d %b}</text>'
    return svg.document("".join(parts) + label, title, f"0 0 {LEFT + WIDTH + 6:.0f} {bottom + 24:.0f}")


def spoken(shares: dict[str, float]) -> str:
    """Today's shares in words, the largest first."""
    said = sorted(((share, stage) for stage, share in shares.items() if share >= 0.05), reverse=True)
    words = {NOT_YET: "not out yet", OVER: "gone for the year"}
    return ", ".join(f"{100 * share:.0f} % {words.get(stage, MANY.get(stage, stage))}" for share, stage in said)
