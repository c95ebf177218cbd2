"""Before and after: counts with their limits over time, treatments marked between them."""

import datetime as dt
from collections.abc import Sequence

from bootmark import say
from bootmark.core.meanings import Measure
from bootmark.drawing import svg
from bootmark.drawing.palette import themed
from bootmark.services.book.records import Counted

WIDTH, HEIGHT, LEFT, BASE = 640.0, 230.0, 54.0, 190.0


def before_after_svg(counts: Sequence[Counted], done: Sequence[dt.datetime], zone: dt.tzinfo, threshold: float | None, title: str) -> str:
    moments = [count.at for count in counts] + list(done)
    first, last = min(moments), max(moments)
    span = max((last - first).total_seconds(), 86400.0)
    highs = [min(count.interval.high, 3 * count.interval.estimate + 1) for count in counts]
    top = max([*highs, (threshold or 0) * 1.25, 0.1])

    def x(at: dt.datetime) -> float:
        return LEFT + 40 + (WIDTH - LEFT - 90) * (at - first).total_seconds() / span

    def y(value: float) -> float:
        return BASE - 160 * min(value, top) / top

    formats = say.tongue().formats
    parts = [svg.line([(LEFT, 20), (LEFT, BASE), (WIDTH - 10, BASE)], themed.ink, 1.2)]
    share = counts[0].sample.measure == Measure.PROPORTION
    highest = formats.percent(top) if share else formats.decimal(top, 1)
    for words, value, below in ((highest, top, 5), ("0", 0.0, 4)):
        parts.append(svg.text(words, LEFT - 6, round(y(value) + below), size=14, anchor="end", fill=themed.grey))
    if threshold:
        parts.append(svg.line([(LEFT, y(threshold)), (WIDTH - 10, y(threshold))], themed.ochre, 1.8, stroke_dasharray="7 5"))
        parts.append(
            svg.text(say.line("starts to matter"), round(WIDTH - 12), round(y(threshold) - 5), size=14, anchor="end", fill=themed.ochre)
        )
    for at in done:
        parts.append(svg.line([(x(at), 30), (x(at), BASE)], themed.moss, 2))
        parts.append(svg.path(f"M{x(at) - 7:.1f} 20H{x(at) + 7:.1f}L{x(at):.1f} 32Z", themed.moss))
    line = [(x(count.at), y(count.interval.estimate)) for count in counts]
    parts.append(svg.line(line, themed.boot, 2))
    for count, high in zip(counts, highs, strict=True):
        parts.append(svg.line([(x(count.at), y(count.interval.low)), (x(count.at), y(high))], themed.boot, 4, opacity="0.4"))
        parts.append(svg.circle(x(count.at), y(count.interval.estimate), 5, themed.boot))
        parts.append(
            svg.text(formats.short_day(count.at.astimezone(zone).date()), round(x(count.at)), round(BASE + 20), size=14, anchor="middle")
        )
    return svg.document("".join(parts), title, f"0 0 {WIDTH:.0f} {HEIGHT:.0f}")
