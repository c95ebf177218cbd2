"""Grown insects and what is small with the marks by which one is told from another."""

import math

from bootmark.core.catalogue.drawn import Cover, Drawn, Pattern, Pose, Wings
from bootmark.drawing import insects, small, svg
from bootmark.drawing.limbs import LINE, legs, turned

HEAD_UP = -90


def beetle(
    drawn: Drawn, colour: str, *, slim: float, snout: bool = False, horns: float = 0.5, spots: int = 0, head: str = "#2b2724"
) -> str:
    size, slim = 38 * drawn.size, drawn.slim or slim
    whole = insects.beetle(
        60, 76, size, drawn.colour or colour, slim=slim, snout=snout, horns=horns, head=drawn.head or head, neck=drawn.neck,
        stripes=drawn.stripes, spots=drawn.spots or spots, mark=drawn.mark or svg.INK, tufts=drawn.pattern == Pattern.TUFTS,
    )  # fmt: skip
    wide, mark, parts = size * slim, drawn.mark or "#f3ead2", []
    for n in range(drawn.bands):
        along = size * (0.4 - 1.1 * (n + 0.5) / drawn.bands)
        half = wide * math.sqrt(max(0.05, 1 - ((along + size * 0.15) / (size * 0.85)) ** 2)) * 0.95
        parts.append(svg.path(f"M{along:.1f} {-half:.1f}q{-size * 0.1:.1f} {half:.1f} 0 {2 * half:.1f}", stroke=mark, width=size * 0.11))
    if drawn.pattern == Pattern.CROSS:
        parts += [
            svg.ellipse(size * (0.28 - 0.42 * n), side * wide * 0.5, size * 0.14, wide * 0.24, mark) for n in range(3) for side in (-1, 1)
        ]
    if drawn.pattern == Pattern.WARTS:
        parts += [svg.circle(size * (0.3 - 0.5 * n), side * wide * 0.4, size * 0.1, mark, LINE, 1) for n in range(2) for side in (-1, 1)]
    if drawn.pattern == Pattern.CHECKS:
        parts += [
            svg.circle(size * (0.42 - 0.28 * n), side * wide * (0.24 + 0.28 * (n % 2)), 1.7, mark) for n in range(5) for side in (-1, 1)
        ]
    return whole + turned(60, 76, HEAD_UP, "".join(parts))


def fly(drawn: Drawn, colour: str, size: float = 40) -> str:
    size, mark = size * drawn.size, drawn.mark or svg.INK
    whole, parts = insects.fly(60, 76, size, drawn.colour or colour, spot=drawn.wings == Wings.TIP_SPOT, head=drawn.head), []
    for side in (-1, 1):
        bars = (
            svg.line([(size * a, side * size * b), (size * c, side * size * d)], mark, size * 0.1)
            for a, b, c, d in WING_BARS.get(drawn.wings, ())
        )
        parts.append(turned(-size * 0.35, side * size * 0.55, side * 24, "".join(bars)))
    if drawn.bands:
        parts += [
            svg.path(
                f"M{-size * (0.12 + 0.7 * (n + 0.5) / drawn.bands):.1f} {-size * 0.24:.1f}l0 {size * 0.48:.1f}",
                stroke=mark,
                width=size * 0.12,
            )
            for n in range(drawn.bands)
        ]
    if drawn.neck:
        parts.append(svg.circle(-size * 0.02, 0, size * 0.13, drawn.neck, LINE, 0.7))
    if drawn.stripes:
        parts += [
            svg.path(
                f"M{size * 0.52:.1f} {(off := size * 0.39 * ((n + 0.5) / drawn.stripes - 0.5)):.1f}L{size * 0.08:.1f} {off:.1f}",
                stroke=mark,
                width=1.8,
            )
            for n in range(drawn.stripes)
        ]
    return whole + turned(60, 76, HEAD_UP, "".join(parts))


WING_BARS = {
    Wings.LETTER_F: ((0.35, -0.24, 0.35, 0.24), (0.05, -0.26, -0.7, 0.02), (0.0, -0.26, 0.0, 0.3), (-0.35, -0.1, -0.4, 0.26)),
    Wings.BARS: ((0.4, -0.22, 0.4, 0.24), (0.05, -0.28, 0.05, 0.3), (-0.35, -0.26, -0.35, 0.26)),
}
"""From where to where a bar lies on a wing, along and across it from its middle, in shares of the size."""


def lace_bug(drawn: Drawn, colour: str) -> str:
    size, mark = 40 * drawn.size, drawn.mark or "#4a4238"
    parts = []
    if drawn.wings == Wings.CROSS_BANDS:
        parts += [
            svg.path(
                f"M{x * size:.1f} {-size * 0.6:.1f}q{size * 0.1:.1f} {size * 0.6:.1f} 0 {size * 1.2:.1f}",
                stroke=mark,
                width=size * 0.14,
                opacity="0.75",
            )
            for x in (0.35, -0.6)
        ]
    if drawn.spots:
        parts += [svg.circle(size * (0.3 - 0.4 * (n // 2)), (-1) ** n * size * 0.42, size * 0.11, mark) for n in range(drawn.spots)]
    whole = insects.lace_bug(60, 74, size, colour=drawn.colour or colour)
    if drawn.wings == Wings.HOOD:
        parts.append(svg.circle(size * 0.85, 0, size * 0.26, drawn.head or "#efe9da", LINE, 1))
    return whole + turned(60, 74, HEAD_UP, "".join(parts))


def bug(drawn: Drawn, colour: str) -> str:
    size, shield = 38 * drawn.size, drawn.slim == 0
    whole = insects.bug(60, 74, size, drawn.colour or colour, shield=shield, mark=drawn.mark, bands=drawn.feelers, slim=drawn.slim or 0.42)
    parts = []
    if drawn.pattern == Pattern.CHECKS:
        edge = [(size * (0.2 - 0.26 * n), side * size * (0.62 - 0.1 * n)) for n in range(4) for side in (-1, 1)]
        parts += [svg.ellipse(x, y, size * 0.07, size * 0.05, "#f4efe4") for x, y in edge]
    if drawn.wings == Wings.CROSS_BANDS:
        parts += [svg.ellipse(-size * 0.1, side * size * 0.2, size * 0.18, size * 0.16, "#f4efe4") for side in (-1, 1)]
    if drawn.spots:
        parts += [svg.circle(size * 0.1 - 9 * n, 0, 2.2, svg.INK) for n in range(drawn.spots)]
    for n in range(drawn.stripes):
        off = size * 0.9 * ((n + 0.5) / drawn.stripes - 0.5)
        parts.append(svg.path(f"M{size * 0.3:.1f} {off:.1f}L{-size * 0.6:.1f} {off * 0.5:.1f}", stroke=drawn.mark, width=2.4))
    for n in range(drawn.bands):
        across = size * (0.1 - 0.4 * n)
        parts.append(svg.path(f"M{across:.1f} {-size * 0.36:.1f}l0 {size * 0.72:.1f}", stroke=drawn.mark, width=size * 0.14))
    return whole + turned(60, 74, HEAD_UP, "".join(parts))


def hopper(drawn: Drawn, colour: str) -> str:
    size = 40 * drawn.size
    along = ((0.42, 0.2), (0.42, -0.2), (0.08, 0.16), (0.08, -0.16), (-0.28, 0.1), (-0.28, -0.1), (-0.6, 0.0))
    spots = (svg.circle(size * x, size * y, size * 0.07, drawn.mark) for x, y in along[: drawn.spots])
    return insects.hopper(60, 72, size, drawn.colour or colour, -20) + turned(60, 72, -20, "".join(spots))


def aphid(drawn: Drawn, colour: str) -> str:
    size, turn = 28 * drawn.size, -30
    whole = small.aphid(60, 72, size, drawn.colour or colour, turn, drawn.tubes or LINE)
    parts = []
    for n in range(drawn.stripes):
        off = size * 0.62 * ((n + 0.5) / drawn.stripes - 0.5)
        parts.append(svg.path(f"M{size * 0.7:.1f} {off * 0.7:.1f}L{-size * 0.7:.1f} {off:.1f}", stroke=drawn.mark, width=2))
    if drawn.pattern == Pattern.SADDLE:
        parts.append(svg.ellipse(-size * 0.15, 0, size * 0.45, size * 0.36, drawn.mark or "#2b2724"))
    if drawn.wax:
        parts += [svg.circle(size * (0.75 - 0.24 * n), side * size * 0.24, size * 0.08, "#f7f5ee") for n in range(6) for side in (-1, 1)]
    if drawn.hairs:
        wool = ((-0.9, -0.2), (-0.8, 0.3), (-1.1, 0.1), (-0.6, -0.5), (-0.5, 0.55), (-1.3, -0.1))
        parts += [svg.circle(size * x, size * y, size * 0.32, "#f5f4f0", "#cfc9ba", 0.8) for x, y in wool]
    if drawn.head:
        parts.append(svg.circle(size * 0.86, 0, size * 0.16, drawn.head))
    return whole + turned(60, 72, turn, "".join(parts))


def mite(drawn: Drawn, colour: str) -> str:
    size = 26 * drawn.size
    if drawn.pose == Pose.DARTING:
        # A pear-shaped, shining body on long legs: one that hunts.
        body = svg.path(
            f"M{size * 1.1:.1f} 0C{size * 0.7:.1f} {-size * 0.5:.1f} {-size * 0.7:.1f} {-size * 0.8:.1f} {-size:.1f} 0C{-size * 0.7:.1f} {size * 0.8:.1f} {size * 0.7:.1f} {size * 0.5:.1f} {size * 1.1:.1f} 0Z",
            drawn.colour or colour,
            "#00000066",
            0.8,
        )
        shine = svg.ellipse(-size * 0.2, -size * 0.2, size * 0.3, size * 0.12, "#ffffff88")
        return turned(60, 72, -20, legs(4, size * 1.7, size * 0.5, "#8d6b3a", 1.4) + body + shine)
    whole = small.mite(60, 72, size, drawn.colour or colour, patches=drawn.spots, mark=drawn.mark)
    offs = (size * ((n + 0.5) / drawn.stripes - 0.5) for n in range(drawn.stripes))
    stripes = (svg.path(f"M{-size * 0.8:.1f} {off:.1f}L{size * 0.8:.1f} {off:.1f}", stroke=drawn.mark, width=size * 0.14) for off in offs)
    return whole + turned(60, 72, 0, "".join(stripes))


def scales(drawn: Drawn, colour: str) -> str:
    places = ((42, 56, 20), (78, 66, -30), (54, 98, 50))
    mark = drawn.mark or "#3d352b"
    if drawn.cover in (Cover.OYSTER, Cover.PEAR):
        long = drawn.cover == Cover.OYSTER
        covers = (
            [small.scale_cover(x, y, 15, drawn.colour or colour, turn=turn, long=long) for x, y, turn in places]
            if long
            else [_pear(x, y, turn, drawn.colour or colour, mark) for x, y, turn in places]
        )
        return "".join(covers)
    if drawn.cover == Cover.SLIPPER:
        return "".join(
            turned(
                x,
                y,
                turn,
                svg.path("M-22 0C-16 -7 10 -8 22 0C10 8 -16 7 -22 0Z", drawn.colour or colour, "#8a8578", 1)
                + svg.ellipse(-17, 0, 6, 4, mark),
            )
            for x, y, turn in places
        )
    if drawn.cover == Cover.DOME:
        return "".join(
            svg.ellipse(x, y, 18, 14, drawn.colour or colour, turn=turn, stroke=LINE, width=1)
            + svg.path(f"M{x - 9} {y - 4}q9 -8 18 0", stroke="#ffffff88", width=2.4)
            for x, y, turn in places
        )
    return "".join(small.scale_cover(x, y, 17, drawn.colour or colour, mark) for x, y, _ in places)


def _pear(x: float, y: float, turn: float, colour: str, mark: str) -> str:
    shell = svg.path("M-20 0C-14 -4 2 -15 15 -8C22 -2 20 8 13 10C0 14 -14 4 -20 0Z", colour, "#00000066", 0.8)
    return turned(x, y, turn, shell + svg.ellipse(-15, 0, 6, 4, mark))


def whitefly(drawn: Drawn, colour: str) -> str:
    """Wings flat and touching, or like a steep roof with a slit between them."""
    if drawn.pose != Pose.ROOF:
        return small.whitefly(60, 74, 38)
    wings = "".join(
        svg.path(f"M{side * 3} 52C{side * 20} 50 {side * 22} 92 {side * 12} 104L{side * 4} 100Z", "#fbfaf2", "#b9b39d", 0.9)
        for side in (-1, 1)
    )
    return turned(60, 0, 0, wings + svg.ellipse(0, 70, 3.4, 22, "#e0c84a") + svg.circle(0, 48, 6, "#e0c84a"))
