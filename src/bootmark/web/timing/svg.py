"""Hour strips: each limit a row, each hour a cell, told by mark as well as by colour."""

import datetime as dt
from html import escape

from bootmark import say
from bootmark.core.meanings import HourState
from bootmark.core.season.windows import CAUTION, NO, OK, HourTable
from bootmark.drawing import svg
from bootmark.drawing.palette import themed
from bootmark.say import hours

FILL = {OK: themed.suits, CAUTION: themed.careful, NO: themed.refused}
CELL, ROW, LEAST_LEFT, TOP, LETTER = 9.0, 20.0, 96.0, 40.0, 7.6
"""LETTER: how wide a letter of a label is, at most."""


def _cell(x: float, y: float, state: HourState, reason: str, height: float) -> str:
    mark = ""
    if state == NO:
        mark = svg.line([(x + 2, y + height - 4), (x + CELL - 2, y + 4)], "#9a8f7d", 1)
    elif state == CAUTION:
        mark = svg.circle(x + CELL / 2, y + height / 2, 1.6, themed.ochre)
    return f'<g><title>{escape(reason)}</title><rect x="{x:.1f}" y="{y:.1f}" width="{CELL - 0.8:.1f}" height="{height:.1f}" fill="{FILL[state]}"/>{mark}</g>'


def strips_svg(table: HourTable, zone: dt.tzinfo, title: str) -> str:
    """The hours ahead against each limit, with the hours that suit marked above."""
    rows = [("overall", table.overall), *table.rows.items()]
    labels = {name: say.line("all limits" if name == "overall" else name) for name, _ in rows}
    left = max(LEAST_LEFT, 12 + LETTER * max(map(len, labels.values())))
    width = left + CELL * len(table.times) + 8
    bottom = TOP + 28 + ROW * (len(rows) - 1)
    parts = []
    for place, time in enumerate(table.times):
        local = time.astimezone(zone)
        x = left + CELL * place
        if local.hour == 0 or place == 0:
            parts.append(svg.line([(x, 18), (x, bottom)], themed.ink, 1.2))
            if len(table.times) - place >= 9:
                parts.append(
                    svg.text(say.tongue().formats.weekday(local.date()), round(x + 4), 15, size=14, weight="700") if local.hour < 14 else ""
                )
        elif local.hour in (6, 12, 18):
            parts.append(svg.text(local.hour, round(x), 33, size=12, anchor="middle", fill=themed.grey))
    y = TOP
    for name, cells in rows:
        height = 24.0 if name == "overall" else ROW - 4
        weight = "700" if name == "overall" else "400"
        parts.append(svg.text(labels[name], round(left - 8), round(y + height - 5), size=14, anchor="end", weight=weight))
        parts += [
            _cell(left + CELL * place, y, cell.state, hours.reason(say.tongue(), cell.reasons), height) for place, cell in enumerate(cells)
        ]
        y += height + 4
    for start, end in table.spans(2):
        first = (start - table.times[0]).total_seconds() / 3600
        last = (end - table.times[0]).total_seconds() / 3600
        parts.append(
            f'<rect x="{left + CELL * first - 1:.1f}" y="{TOP - 2:.1f}" width="{CELL * (last - first) + 1:.1f}" height="28" fill="none" stroke="{themed.moss}" stroke-width="2.6"/>'
        )
    return svg.document("".join(parts), title, f"0 0 {width:.0f} {y + 4:.0f}")
