"""Season ribbons: stage shares over the year in colour and texture, with soft edges for what is not sure."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from bootmark import say
from bootmark.core.catalogue.model import MANY
from bootmark.core.season.phenology import Season
from bootmark.core.season.shares import NOT_YET, OVER
from bootmark.drawing import strokes, svg
from bootmark.drawing.axes import Axis, months_above
from bootmark.drawing.palette import themed
from bootmark.drawing.strokes import COLOURS

CROP_LANE = 20.0
LEFT, WIDTH, LANE, TOP = 64.0, 860.0, 34.0, 44.0
STAGE_WORDS = {**MANY, NOT_YET: "not out yet", OVER: "gone for the year"}
STAGE_ORDER = ("adult", "egg", "larva", "nymph", "pupa")


def season_axis(first: dt.date, last: dt.date) -> Axis:
    """The days of a ribbon on its sheet."""
    return Axis(first, last, LEFT, WIDTH)


def _names(names: Sequence[tuple[float, str]], bottom: float) -> str:
    """The names of the lanes on a slip of paper, which the page keeps in view where a ribbon is wider than a phone."""
    lanes = "".join(svg.text(name, round(LEFT - 8), round(base - 4)) for base, name in names)
    return f'<g data-names="" text-anchor="end" font-size="14" fill="{themed.grey}"><path d="M0 {TOP:g}H{LEFT - 3:g}V{bottom:g}H0Z"/>{lanes}</g>'


def _curve(season: Season, row: np.ndarray, axis: Axis, base: float, height: float) -> np.ndarray:
    """A share over the days that the axis shows, as points on the sheet, shape (days, 2)."""
    first = max((axis.first - season.dates[0]).days, 0)
    last = min((axis.last - season.dates[0]).days + 1, len(season.dates))
    days = np.arange(first, max(last, first)) + (season.dates[0] - axis.first).days
    return np.column_stack([LEFT + WIDTH * days / axis.days, base - height * row[first : first + len(days)]])


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
    shown = [catch for catch in marks.catches if axis.first <= catch[0] <= axis.last]
    lanes = TOP + LANE * len(stages)
    crop = lanes + (LANE if shown else 0)
    bottom = crop + 8 + (CROP_LANE if _crop_shown(marks, axis) else 0)
    rows = [(TOP + LANE * lane, stage) for lane, stage in enumerate(stages, 1)]
    named = [*((base, say.line(stage)) for base, stage in rows), *([(lanes + LANE + 4, say.line("trap"))] if shown else [])]
    floors = "".join(f"M{LEFT:g} {base:g}h{WIDTH:g}" for base, _ in named)
    parts = [months_above(axis, bottom), f'<path d="{floors}" fill="none" stroke="{themed.rule}"/>']
    parts += [_window(marks, axis, bottom), _crop(marks, axis, crop + 6)]
    parts += [_lane(season, stage, axis, base, marks.before) for base, stage in rows]
    if shown:
        parts.append(_catches(shown, axis, lanes + LANE + 4))
    for day in marks.sightings:
        if axis.first <= day <= axis.last:
            x = axis.x(day)
            parts.append(svg.line([(x, TOP - 4), (x, lanes)], themed.boot, 1.4, stroke_dasharray="2 3"))
            parts.append(
                svg.path(
                    f"M{x - 6:.1f} {TOP - 8:.1f}Q{x:.1f} {TOP - 16:.1f} {x + 6:.1f} {TOP - 8:.1f}Q{x:.1f} {TOP:.1f} {x - 6:.1f} {TOP - 8:.1f}Z",
                    themed.page,
                    themed.boot,
                    1.8,
                )
            )
            parts.append(svg.circle(x, TOP - 8, 2.2, themed.boot))
    for day, done in marks.treatments:
        if axis.first <= day <= axis.last:
            x = axis.x(day)
            arrow = f"M{x - 6:.1f} {bottom + 14:.1f}L{x:.1f} {bottom + 4:.1f}L{x + 6:.1f} {bottom + 14:.1f}Z"
            parts.append(svg.path(arrow, themed.moss if done else themed.page, themed.moss, 1.8))
    parts += [_today(axis, today, bottom), _names([*named, *([(crop + 23, say.line("crop"))] if _crop_shown(marks, axis) else [])], bottom)]
    box = f"0 0 {LEFT + WIDTH + 6:.0f} {bottom + 24:.0f}"
    cursor = f'<g data-cursor="" data-top="22" data-bottom="{bottom + 2:.0f}" visibility="hidden"><path d="M0 22V{bottom + 2:.0f}" stroke="{themed.boot}" stroke-width="2"/><path d="M-6 16H6L0 24Z" fill="{themed.boot}"/></g>'
    return svg.document("".join(parts) + cursor, title, box)


def _window(marks: Marks, axis: Axis, bottom: float) -> str:
    window = marks.window
    if not window or window[1] < axis.first or window[0] > axis.last:
        return ""
    x, end = axis.x(window[0]), max(axis.x(window[1] + dt.timedelta(days=1)), axis.x(window[0]) + 4)
    side, anchor = (end + 6, "start") if end < LEFT + WIDTH - 190 else (x - 6, "end")
    return (
        f'<rect x="{x:.1f}" y="30" width="{end - x:.1f}" height="{bottom - 30:.1f}" fill="{themed.boot}" fill-opacity="0.12"/>'
        + svg.path(f"M{x:.1f} 38V31H{end:.1f}V38", stroke=themed.boot, width=2.6)
        + svg.text(marks.window_name, round(side), 38, size=14, anchor=anchor, weight="700", fill=themed.boot)
    )


def _crop_shown(marks: Marks, axis: Axis) -> bool:
    blooms = bool(marks.bloom and marks.bloom[1] >= axis.first and marks.bloom[0] <= axis.last)
    return blooms or bool(marks.harvest and axis.first <= marks.harvest <= axis.last)


def _crop(marks: Marks, axis: Axis, top: float) -> str:
    """A lane for the crop: its bloom as a band, and the day of harvest as a line through all lanes."""
    if not _crop_shown(marks, axis):
        return ""
    parts = []
    if marks.bloom and marks.bloom[1] >= axis.first and marks.bloom[0] <= axis.last:
        x, end = axis.x(marks.bloom[0]), axis.x(marks.bloom[1])
        parts.append(f'<rect x="{x:.1f}" y="{top:.1f}" width="{max(end - x, 5):.1f}" height="16" fill="#e6c3cf" stroke="#8d5468"/>')
        at, anchor = ((x + end) / 2, "middle") if end - x > 52 else (x - 5, "end") if x > LEFT + 52 else (end + 5, "start")
        parts.append(svg.text(say.line("bloom"), round(at), round(top + 13), size=13, anchor=anchor, fill=themed.ink))
    if marks.harvest and axis.first <= marks.harvest <= axis.last:
        x = axis.x(marks.harvest)
        parts.append(svg.line([(x, 26), (x, top + 16)], themed.ochre, 2, stroke_dasharray="7 4"))
        parts.append(svg.text(say.line("harvest"), round(x - 5), round(top + 13), size=13, anchor="end", weight="700", fill=themed.ochre))
    return "".join(parts)


def _lane(season: Season, stage: str, axis: Axis, base: float, before: Season | None) -> str:
    def curve(row: np.ndarray, of: Season = season) -> np.ndarray:
        return _curve(of, row, axis, base, LANE - 4)

    share = season.shares[stage]
    sure = strokes.humps(curve(np.minimum(share, season.low[stage])), base)
    parts = [
        # What nine in ten futures reach stands behind, pale; what nearly all hold stands solid.
        svg.path(strokes.filled(strokes.humps(curve(season.high[stage]), base), base), COLOURS[stage], fill_opacity="0.28"),
        svg.path(strokes.filled(sure, base), COLOURS[stage]),
        strokes.texture(stage, strokes.under(sure, base)),
        svg.path(strokes.lines(strokes.humps(curve(share), base)), stroke=themed.ink, width=1.6),
    ]
    if stage in season.usual:
        parts.append(svg.path(strokes.dashes(curve(season.usual[stage]), base, 5, 5), stroke=themed.slate, width=1.6))
    if before is not None and stage in before.shares:
        parts.append(svg.path(strokes.dashes(curve(before.shares[stage], before), base, 11, 5), stroke=themed.boot, width=1.6))
    return "".join(parts)


def _catches(shown: Sequence[tuple[dt.date, int]], axis: Axis, base: float) -> str:
    most = max([1, *(count for _, count in shown)])
    parts = []
    highest = max(shown, key=lambda catch: catch[1])[0]
    for day, count in shown:
        x, height = axis.x(day), (LANE - 16) * count / most
        parts.append(f'<rect x="{x - 2.5:.1f}" y="{base - height:.1f}" width="5" height="{max(height, 1):.1f}" fill="{themed.slate}"/>')
        if day == highest:
            parts.append(svg.text(count, round(x), round(base - height - 3), size=12, anchor="middle", fill=themed.ink))
    return "".join(parts)


def _today(axis: Axis, today: dt.date, bottom: float) -> str:
    if not axis.first <= today <= axis.last:
        return ""
    x = axis.x(today)
    return (
        svg.line([(x, 22), (x, bottom + 2)], themed.ink, 2.6)
        + f'<rect x="{x - 34:.0f}" y="{bottom + 2:.0f}" width="68" height="20" fill="{themed.ink}"/>'
        + svg.text(
            say.tongue().formats.short_day(today), round(x), round(bottom + 17), size=14, anchor="middle", weight="700", fill=themed.page
        )
    )


def spoken(shares: dict[str, float]) -> str:
    """Today's shares in words, the largest first."""
    said = sorted(((share, stage) for stage, share in shares.items() if share >= 0.05), reverse=True)
    return ", ".join(say.line("{share:percent} {stage:word}", share=share, stage=STAGE_WORDS.get(stage, stage)) for share, stage in said)
