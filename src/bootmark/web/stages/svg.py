"""Season ribbons: stage shares over the year in colour and texture, with soft edges for what is not sure."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from bootmark.core.catalogue.model import MANY
from bootmark.core.season.phenology import Season
from bootmark.core.season.shares import NOT_YET, OVER
from bootmark.web.drawing import svg

COLOURS = {"egg": "#e0c064", "larva": "#c8693a", "nymph": "#c8693a", "pupa": "#8b5a8b", "adult": "#235f68"}
CROP_LANE = 20.0
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
                parts.append(svg.line([(x, height), (x, bottom)], svg.RULE, 1))
                if x < LEFT + WIDTH - 80:
                    parts.append(f'<text x="{x + 5:.0f}" y="{height - 6:.0f}" font-size="15" font-weight="700">{day:%B}</text>')
            day = (day.replace(day=28) + dt.timedelta(days=5)).replace(day=1)
        return "".join(parts)


def _curve(season: Season, row: np.ndarray, axis: Axis, base: float, height: float) -> list[tuple[float, float]]:
    """A share over the days that the axis shows, as points on the sheet; where it stays level only the ends are kept."""
    first = max((axis.first - season.dates[0]).days, 0)
    last = min((axis.last - season.dates[0]).days + 1, len(season.dates))
    if last <= first:
        return []
    start = (season.dates[0] - axis.first).days
    y = np.round(base - height * row[first:last], 1)
    bends = np.ones(len(y), bool)
    bends[1:-1] = (y[1:-1] != y[:-2]) | (y[1:-1] != y[2:])
    x = LEFT + WIDTH * np.arange(first + start, last + start) / axis.days
    return list(zip(x[bends].tolist(), y[bends].tolist(), strict=True))


@dataclass(frozen=True)
class Marks:
    """What people did and saw, to be drawn on a ribbon. treatments: days, with whether done; sightings: days; catches: days and
    numbers; bloom: first day and the day after the last; harvest: the day from which it is harvested; before: the forecast without the
    sightings, as a thin line."""

    window: tuple[dt.date, dt.date] | None = None
    window_name: str = ""
    treatments: Sequence[tuple[dt.date, bool]] = ()
    sightings: Sequence[dt.date] = ()
    catches: Sequence[tuple[dt.date, int]] = ()
    bloom: tuple[dt.date, dt.date] | None = None
    harvest: dt.date | None = None
    before: Season | None = None


def ribbon_svg(season: Season, axis: Axis, today: dt.date, title: str, marks: Marks | None = None) -> str:
    """One agent on one block: a lane a stage, and below them what was caught, seen and done."""
    marks = marks or Marks()
    stages = [stage for stage in STAGE_ORDER if stage in season.shares]
    shown = [one for one in marks.catches if axis.first <= one[0] <= axis.last]
    lanes = TOP + LANE * len(stages)
    crop = lanes + (LANE if shown else 0)
    bottom = crop + 8 + (CROP_LANE if _crop_shown(marks, axis) else 0)
    parts = [DEFS, axis.months(20, bottom), _window(marks, axis, bottom), _crop(marks, axis, crop + 6)]
    for lane, stage in enumerate(stages):
        parts.append(_lane(season, stage, axis, TOP + LANE * (lane + 1), marks.before))
    if shown:
        parts.append(_catches(shown, axis, lanes + LANE + 4))
    for day in marks.sightings:
        if axis.first <= day <= axis.last:
            x = axis.x(day)
            parts.append(svg.line([(x, TOP - 4), (x, lanes)], svg.BOOT, 1.4, stroke_dasharray="2 3"))
            parts.append(
                svg.path(
                    f"M{x - 6:.1f} {TOP - 8:.1f}Q{x:.1f} {TOP - 16:.1f} {x + 6:.1f} {TOP - 8:.1f}Q{x:.1f} {TOP:.1f} {x - 6:.1f} {TOP - 8:.1f}Z",
                    svg.PAGE,
                    svg.BOOT,
                    1.8,
                )
            )
            parts.append(svg.circle(x, TOP - 8, 2.2, svg.BOOT))
    for day, done in marks.treatments:
        if axis.first <= day <= axis.last:
            x = axis.x(day)
            arrow = f"M{x - 6:.1f} {bottom + 14:.1f}L{x:.1f} {bottom + 4:.1f}L{x + 6:.1f} {bottom + 14:.1f}Z"
            parts.append(svg.path(arrow, svg.MOSS if done else svg.PAGE, svg.MOSS, 1.8))
    parts.append(_today(axis, today, bottom))
    box = f"0 0 {LEFT + WIDTH + 6:.0f} {bottom + 24:.0f}"
    cursor = f'<g data-cursor="" data-top="22" data-bottom="{bottom + 2:.0f}" visibility="hidden"><path d="M0 22V{bottom + 2:.0f}" stroke="{svg.BOOT}" stroke-width="2"/><path d="M-6 16H6L0 24Z" fill="{svg.BOOT}"/></g>'
    return svg.document("".join(parts) + cursor, title, box)


def _window(marks: Marks, axis: Axis, bottom: float) -> str:
    window = marks.window
    if not window or window[1] < axis.first or window[0] > axis.last:
        return ""
    x, end = axis.x(window[0]), max(axis.x(window[1] + dt.timedelta(days=1)), axis.x(window[0]) + 4)
    side, anchor = (end + 6, "start") if end < LEFT + WIDTH - 190 else (x - 6, "end")
    return (
        f'<rect x="{x:.1f}" y="30" width="{end - x:.1f}" height="{bottom - 30:.1f}" fill="#7a3e1d" fill-opacity="0.12"/>'
        + svg.path(f"M{x:.1f} 38V31H{end:.1f}V38", stroke=svg.BOOT, width=2.6)
        + f'<text x="{side:.0f}" y="38" text-anchor="{anchor}" font-size="14" font-weight="700" fill="{svg.BOOT}">{marks.window_name}</text>'
    )


def _crop_shown(marks: Marks, axis: Axis) -> bool:
    blooms = bool(marks.bloom and marks.bloom[1] >= axis.first and marks.bloom[0] <= axis.last)
    return blooms or bool(marks.harvest and axis.first <= marks.harvest <= axis.last)


def _crop(marks: Marks, axis: Axis, top: float) -> str:
    """A lane for the crop: its bloom as a band, and the day of harvest as a line through all lanes."""
    if not _crop_shown(marks, axis):
        return ""
    parts = [f'<text x="{LEFT - 8:.0f}" y="{top + 13:.0f}" text-anchor="end" font-size="14" fill="#5a5d57">crop</text>']
    if marks.bloom and marks.bloom[1] >= axis.first and marks.bloom[0] <= axis.last:
        x, end = axis.x(marks.bloom[0]), axis.x(marks.bloom[1])
        parts.append(f'<rect x="{x:.1f}" y="{top:.1f}" width="{max(end - x, 5):.1f}" height="16" fill="#e6c3cf" stroke="#8d5468"/>')
        at, anchor = ((x + end) / 2, "middle") if end - x > 52 else (x - 5, "end") if x > LEFT + 52 else (end + 5, "start")
        parts.append(f'<text x="{at:.0f}" y="{top + 13:.0f}" text-anchor="{anchor}" font-size="13" fill="{svg.INK}">bloom</text>')
    if marks.harvest and axis.first <= marks.harvest <= axis.last:
        x = axis.x(marks.harvest)
        parts.append(svg.line([(x, 26), (x, top + 16)], svg.OCHRE, 2, stroke_dasharray="7 4"))
        parts.append(
            f'<text x="{x - 5:.0f}" y="{top + 13:.0f}" text-anchor="end" font-size="13" font-weight="700" fill="{svg.OCHRE}">harvest</text>'
        )
    return "".join(parts)


def _lane(season: Season, stage: str, axis: Axis, base: float, before: Season | None) -> str:
    parts = [
        svg.line([(LEFT, base), (LEFT + WIDTH, base)], svg.RULE, 1),
        f'<text x="{LEFT - 8:.0f}" y="{base - 4:.0f}" text-anchor="end" font-size="14" fill="#5a5d57">{stage}</text>',
    ]
    height = LANE - 4
    body = _curve(season, season.shares[stage], axis, base, height)
    if not body:
        return "".join(parts)
    high = _curve(season, season.high[stage], axis, base, height)
    closed = f"L{body[-1][0]:.1f} {base:.1f}L{body[0][0]:.1f} {base:.1f}Z"
    # What nine in ten futures reach stands behind, pale; what nearly all hold stands solid.
    parts.append(svg.path(svg.open_d(high) + closed, COLOURS[stage], opacity="0.28"))
    sure = _curve(season, np.minimum(season.shares[stage], season.low[stage]), axis, base, height)
    parts.append(svg.path(svg.open_d(sure) + closed, f"url(#t-{stage})"))
    parts.append(svg.line(body, svg.INK, 1.6))
    usual = _curve(season, season.usual[stage], axis, base, height) if stage in season.usual else []
    if usual:
        parts.append(svg.line(usual, svg.SLATE, 1.6, stroke_dasharray="2 4"))
    if before is not None and stage in before.shares:
        parts.append(svg.line(_curve(before, before.shares[stage], axis, base, height), svg.BOOT, 1.6, stroke_dasharray="6 4"))
    return "".join(parts)


def _catches(shown: Sequence[tuple[dt.date, int]], axis: Axis, base: float) -> str:
    most = max([1, *(count for _, count in shown)])
    parts = [
        svg.line([(LEFT, base), (LEFT + WIDTH, base)], svg.RULE, 1),
        f'<text x="{LEFT - 8:.0f}" y="{base - 4:.0f}" text-anchor="end" font-size="14" fill="#5a5d57">trap</text>',
    ]
    highest = max(shown, key=lambda one: one[1])[0]
    for day, count in shown:
        x, height = axis.x(day), (LANE - 16) * count / most
        parts.append(f'<rect x="{x - 2.5:.1f}" y="{base - height:.1f}" width="5" height="{max(height, 1):.1f}" fill="{svg.SLATE}"/>')
        if day == highest:
            parts.append(
                f'<text x="{x:.0f}" y="{base - height - 3:.0f}" text-anchor="middle" font-size="12" fill="{svg.INK}">{count}</text>'
            )
    return "".join(parts)


def _today(axis: Axis, today: dt.date, bottom: float) -> str:
    if not axis.first <= today <= axis.last:
        return ""
    x = axis.x(today)
    return (
        svg.line([(x, 22), (x, bottom + 2)], svg.INK, 2.6)
        + f'<rect x="{x - 34:.0f}" y="{bottom + 2:.0f}" width="68" height="20" fill="{svg.INK}"/>'
        + f'<text x="{x:.0f}" y="{bottom + 17:.0f}" text-anchor="middle" font-size="14" font-weight="700" fill="{svg.PAGE}">{today:%-d %b}</text>'
    )


def spoken(shares: dict[str, float]) -> str:
    """Today's shares in words, the largest first."""
    said = sorted(((share, stage) for stage, share in shares.items() if share >= 0.05), reverse=True)
    words = {NOT_YET: "not out yet", OVER: "gone for the year"}
    return ", ".join(f"{100 * share:.0f} % {words.get(stage, MANY.get(stage, stage))}" for share, stage in said)
