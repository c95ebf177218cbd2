"""What an injury level hangs on most, drawn: a bar for each term, from where it is wrong one way to where it is wrong the other."""

from collections.abc import Sequence

from bootmark import say
from bootmark.core.field.levels import Swing
from bootmark.drawing import svg
from bootmark.drawing.palette import themed

NAMES = {
    "cost": "What the control costs",
    "value": "What the crop is worth",
    "injury": "What one animal does",
    "damage": "What that takes of the yield",
    "efficacy": "What the control keeps off",
}
LEFT, WIDE, ROW = 210, 380, 34


def swings_svg(level: float, swings: Sequence[Swing]) -> str:
    """The bars, the longest first, about the level."""
    most = max(swing.high for swing in swings) * 1.1

    def x(value: float) -> float:
        return LEFT + WIDE * value / most

    parts, tall = [], ROW * len(swings) + 30
    for place, swing in enumerate(swings):
        top = 8 + ROW * place
        parts.append(svg.text(say.line(NAMES[swing.term]), LEFT - 10, top + 17, size=14, anchor="end", fill=themed.ink))
        bar = [(x(swing.low), top + 3), (x(swing.high), top + 3), (x(swing.high), top + 21), (x(swing.low), top + 21)]
        parts.append(svg.path("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in bar) + "Z", themed.boot))
    parts.append(svg.line([(x(level), 4), (x(level), tall - 22)], themed.ink, 2, stroke_dasharray="5 4"))
    parts.append(
        svg.text(say.tongue().formats.figures(level), round(x(level)), tall - 6, size=14, anchor="middle", weight="700", fill=themed.ink)
    )
    label = say.line("How far the level moves where one number is a quarter too low or too high")
    return svg.document("".join(parts), label, f"0 0 {LEFT + WIDE + 20} {tall}")
