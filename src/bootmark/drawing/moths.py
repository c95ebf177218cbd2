"""Moths and butterflies as they sit: wings like a roof, a broad triangle, or spread, with what each wing shows."""

from collections.abc import Mapping, Sequence

from bootmark.core.catalogue.drawn import Drawn, Pose, Wings
from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, turned
from bootmark.drawing.svg import Point

DARK = "#00000066"


def _fore(pose: Pose, size: float, side: int) -> str:
    """The edge of one forewing, from the shoulder down, head up."""
    if pose == Pose.ROOF:
        return (
            f"M0 {-size * 0.62:.1f}C{side * size * 0.42:.1f} {-size * 0.6:.1f} {side * size * 0.5:.1f} {size * 0.2:.1f} "
            f"{side * size * 0.42:.1f} {size:.1f}L{side * size * 0.08:.1f} {size * 1.02:.1f}L0 {size * 0.7:.1f}Z"
        )
    return (
        f"M0 {-size * 0.62:.1f}C{side * size * 0.5:.1f} {-size * 0.6:.1f} {side * size * 0.86:.1f} {size * 0.3:.1f} "
        f"{side * size * 0.9:.1f} {size * 0.72:.1f}L{side * size * 0.3:.1f} {size * 0.86:.1f}L0 {size * 0.45:.1f}Z"
    )


LINES: Mapping[Wings, Sequence[tuple[float, Sequence[Point]]]] = {
    Wings.SILVER_Y: ((2.4, ((0.5, 0.02), (0.6, 0.16), (0.46, 0.24))), (2.4, ((0.6, 0.16), (0.76, 0.12)))),
    Wings.ZIGZAG: (
        (1.8, ((0.06, 0.28), (0.22, 0.16), (0.34, 0.3), (0.5, 0.18), (0.6, 0.32))),
        (1.8, ((0.06, 0.55), (0.3, 0.46), (0.5, 0.58), (0.74, 0.5))),
    ),
    Wings.WAVES: tuple((1.5, ((0.04, y), (0.2, y - 0.06), (0.36, y + 0.03), (0.5, y - 0.03))) for y in (-0.1, 0.2, 0.5)),
    Wings.TWO_BANDS: ((3.4, ((0.0, 0.02), (0.44, 0.1))), (3.4, ((0.0, 0.4), (0.6, 0.44)))),
    Wings.FRINGE: tuple((0.8, ((0.3 + 0.02 * n, 0.5 + 0.1 * n), (0.56 + 0.02 * n, 0.56 + 0.1 * n))) for n in range(5)),
}
SPOTS: Mapping[Wings, Sequence[tuple[float, float, float]]] = {
    Wings.SILVER_Y: ((0.62, 0.36, 0.06),),
    Wings.KIDNEYS: ((0.42, 0.2, 0.13), (0.28, -0.08, 0.07)),
    Wings.DOTS: ((0.28, 0.0, 0.06), (0.44, 0.3, 0.06), (0.22, 0.46, 0.06), (0.6, 0.6, 0.06)),
}
AREAS: Mapping[Wings, Sequence[Point]] = {
    Wings.TIP_BAND: ((0.16, 0.72), (0.74, 0.66), (0.7, 0.98), (0.16, 1.0)),
    Wings.DIAMONDS: ((0.0, -0.4), (0.27, -0.15), (0.05, 0.1), (0.28, 0.35), (0.05, 0.6), (0.2, 0.9), (0.0, 0.7)),
}
"""What a wing shows: lines with their widths, spots with their radii, areas; to the side and down, in shares of the size."""


def _marks(size: float, side: int, wings: Wings, mark: str, narrow: float) -> str:
    def at(x: float, y: float) -> Point:
        return side * size * x * narrow, size * y

    lines = (svg.line([at(*point) for point in points], mark, width) for width, points in LINES.get(wings, ()))
    spots = (svg.circle(*at(x, y), size * radius, mark, DARK, 0.6) for x, y, radius in SPOTS.get(wings, ()))
    areas = (svg.path(svg.open_d([at(*point) for point in AREAS[wings]]) + "Z", mark, DARK, 0.6) for _ in range(wings in AREAS))
    return "".join((*areas, *lines, *spots))


def _head_and_feelers(size: float) -> str:
    feelers = "".join(
        svg.path(
            f"M0 {-size * 0.7:.1f}q{side * size * 0.12:.1f} {-size * 0.3:.1f} {side * size * 0.4:.1f} {-size * 0.4:.1f}",
            stroke=LINE,
            width=1,
        )
        for side in (-1, 1)
    )
    return feelers + svg.circle(0, -size * 0.68, size * 0.13, "#5d5248")


def _clearwing(size: float, drawn: Drawn, colour: str) -> str:
    """A moth that looks like a wasp: a banded body, and wings one sees through."""
    wings = "".join(
        svg.path(
            f"M0 {-size * 0.3:.1f}C{side * size * 0.6:.1f} {-size * 0.2:.1f} {side * size:.1f} {size * 0.4:.1f} {side * size * 0.8:.1f} {size * 0.6:.1f}"
            f"C{side * size * 0.5:.1f} {size * 0.5:.1f} {side * size * 0.2:.1f} {size * 0.1:.1f} 0 {-size * 0.1:.1f}Z",
            "#e6ebe8",
            "#3a3a3a",
            1.4,
        )
        for side in (-1, 1)
    )
    rings = "".join(
        svg.path(f"M{-size * 0.13:.1f} {size * (0.15 + 0.2 * n):.1f}l{size * 0.26:.1f} 0", stroke=drawn.mark or "#e8c23a", width=2.4)
        for n in range(drawn.bands or 3)
    )
    return wings + svg.ellipse(0, size * 0.2, size * 0.16, size * 0.75, colour) + rings


def _spread(size: float, drawn: Drawn, colour: str) -> str:
    """Wings spread flat: butterflies in the sun, and loopers at rest."""
    mark, parts = drawn.mark or "#2b2724", []
    for side in (-1, 1):
        fore = f"M0 {-size * 0.35:.1f}C{side * size * 0.4:.1f} {-size * 0.9:.1f} {side * size * 1.1:.1f} {-size * 0.95:.1f} {side * size * 1.08:.1f} {-size * 0.5:.1f}"
        fore += f"C{side * size:.1f} {-size * 0.05:.1f} {side * size * 0.5:.1f} {size * 0.1:.1f} 0 {size * 0.05:.1f}Z"
        hind = f"M0 0C{side * size * 0.5:.1f} {size * 0.05:.1f} {side * size * 0.95:.1f} {size * 0.1:.1f} {side * size * 0.8:.1f} {size * 0.6:.1f}"
        hind += f"C{side * size * 0.5:.1f} {size * 0.8:.1f} {side * size * 0.1:.1f} {size * 0.5:.1f} 0 {size * 0.3:.1f}Z"
        parts += [svg.path(hind, colour, LINE, 1), svg.path(fore, colour, LINE, 1)]
        if drawn.wings == Wings.TIP_SPOT:
            tip = [(side * size * 0.82, -size * 0.84), (side * size * 1.09, -size * 0.72), (side * size * 1.05, -size * 0.42)]
            parts.append(svg.path(svg.open_d(tip) + "Z", mark))
        elif drawn.wings != Wings.PLAIN:
            parts.append(
                svg.line([(side * size * 0.2, -size * 0.3), (side * size * 0.6, -size * 0.2), (side * size, -size * 0.4)], mark, 1.6)
            )
        parts += [svg.circle(side * size * (0.5 + 0.18 * n), -size * (0.42 - 0.2 * n), size * 0.08, mark) for n in range(drawn.spots)]
    return "".join(parts) + svg.ellipse(0, 0, size * 0.1, size * 0.5, "#5d5248")


def _spotted_body(size: float, drawn: Drawn) -> str:
    """A body that shows between the wings, with its pairs of spots."""
    if not drawn.spots:
        return ""
    spots = (
        svg.circle(side * size * 0.1, size * (0.9 * (n + 0.5) / drawn.spots - 0.1), size * 0.055, drawn.mark)
        for n in range(drawn.spots)
        for side in (-1, 1)
    )
    return svg.ellipse(0, size * 0.3, size * 0.17, size * 0.62, "#5d5248", stroke=LINE) + "".join(spots)


def moth(drawn: Drawn, colour: str) -> str:
    """Of a stage, in the middle of its drawing, head up. The pose is a roof where none is told."""
    return resting(60, 70, 42 * drawn.size, colour, drawn)


def resting(x: float, y: float, size: float, colour: str, drawn: Drawn) -> str:
    """Anywhere in a drawing, head up. size: half the span of spread wings."""
    skin = drawn.colour or colour
    if drawn.wings == Wings.CLEAR:
        body = _clearwing(size, drawn, skin)
    elif drawn.pose == Pose.OPEN:
        body = _spread(size, drawn, skin)
    else:
        pose = Pose.DELTA if drawn.pose == Pose.DELTA else Pose.ROOF
        narrow, mark = (0.6 if pose == Pose.ROOF else 1.0), drawn.mark or DARK
        sides = (svg.path(_fore(pose, size, side), skin, LINE, 1) + _marks(size, side, drawn.wings, mark, narrow) for side in (-1, 1))
        shoulders = svg.ellipse(0, -size * 0.45, size * 0.17, size * 0.22, drawn.neck or skin, stroke=LINE)
        body = "".join(sides) + _spotted_body(size, drawn) + shoulders
    return turned(x, y, 0, body + _head_and_feelers(size))
