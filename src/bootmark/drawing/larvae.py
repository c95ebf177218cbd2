"""Slug-like larvae, grubs, maggots and pupae: each takes where it lies, how large, its colours and its marks."""

from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, turned


def slug_larva(x: float, y: float, length: float, colour: str, turn: float = 0, dots: str = "", hairs: bool = False) -> str:
    h = length * 0.24
    body = svg.path(
        f"M{-length / 2:.1f} 0C{-length * 0.4:.1f} {-h:.1f} {length * 0.2:.1f} {-h * 1.5:.1f} {length * 0.45:.1f} {-h * 0.9:.1f}"
        f"C{length * 0.6:.1f} {-h * 0.2:.1f} {length * 0.55:.1f} {h * 0.5:.1f} {length * 0.4:.1f} {h * 0.5:.1f}L{-length * 0.4:.1f} {h * 0.4:.1f}Z",
        colour,
        LINE,
        0.9,
    )
    shine = svg.path(
        f"M{-length * 0.1:.1f} {-h * 0.8:.1f}Q{length * 0.2:.1f} {-h * 1.15:.1f} {length * 0.4:.1f} {-h * 0.7:.1f}",
        stroke="#ffffff99",
        width=1.6,
    )
    spots = "".join(svg.circle(length * (-0.35 + 0.14 * n), -h * 0.2, length * 0.025, dots) for n in range(6)) if dots else ""
    bristles = (
        svg.path(f"M{length * (-0.4 + 0.11 * n):.1f} {-h * 0.4:.1f}l-2 {-h * 1.1:.1f}", stroke="#5d4a2a", width=1.3) for n in range(8)
    )
    return turned(x, y, turn, ("".join(bristles) if hairs else "") + body + shine + spots)


def grub(x: float, y: float, size: float, turn: float = 0, legs: bool = True, colour: str = "#f3ead2") -> str:
    body = svg.path(
        f"M{size * 0.5:.1f} {-size * 0.75:.1f}C{-size * 0.7:.1f} {-size * 1.1:.1f} {-size * 1.2:.1f} {size * 0.5:.1f} {-size * 0.1:.1f} {size * 0.95:.1f}"
        f"C{size * 0.4:.1f} {size * 1.2:.1f} {size * 0.9:.1f} {size * 0.9:.1f} {size * 0.75:.1f} {size * 0.55:.1f}"
        f"C{size * 0.2:.1f} {size * 0.5:.1f} {-size * 0.3:.1f} {size * 0.1:.1f} {size * 0.4:.1f} {-size * 0.3:.1f}Z",
        colour,
        "#a8946a",
        1.1,
    )
    rings = "".join(
        svg.path(
            f"M{-size * 0.62 + n * 2:.1f} {-size * 0.5 + n * size * 0.28:.1f}q{size * 0.3:.1f} {size * 0.1:.1f} {size * 0.5:.1f} {size * 0.02:.1f}",
            stroke="#c8b68d",
            width=0.9,
        )
        for n in range(5)
    )
    feet = (
        "".join(
            svg.path(
                f"M{size * (0.42 - 0.16 * n):.1f} {-size * 0.32 + n * 3:.1f}l{size * 0.22:.1f} {size * 0.24:.1f}",
                stroke="#a5602f",
                width=1.7,
            )
            for n in range(3)
        )
        if legs
        else ""
    )
    return turned(x, y, turn, body + rings + feet + svg.circle(size * 0.55, -size * 0.55, size * 0.24, "#9a5a28", LINE, 0.8))


def pupa(x: float, y: float, size: float, colour: str = "#7a4a22", turn: float = 0) -> str:
    body = svg.path(
        f"M{-size:.1f} 0C{-size * 0.6:.1f} {-size * 0.3:.1f} {size * 0.4:.1f} {-size * 0.5:.1f} {size * 0.8:.1f} {-size * 0.28:.1f}C{size * 1.02:.1f} 0 {size:.1f} {size * 0.28:.1f} {size * 0.8:.1f} {size * 0.3:.1f}C{size * 0.4:.1f} {size * 0.5:.1f} {-size * 0.6:.1f} {size * 0.3:.1f} {-size:.1f} 0Z",
        colour,
        LINE,
        1,
    )
    return turned(
        x,
        y,
        turn,
        body
        + "".join(
            svg.path(
                f"M{-size * 0.7 + n * size * 0.24:.1f} {-size * 0.26:.1f}q3 {size * 0.26:.1f} 0 {size * 0.52:.1f}",
                stroke="#00000055",
                width=1.1,
            )
            for n in range(4)
        )
        + svg.path(
            f"M{size * 0.75:.1f} {-size * 0.2:.1f}Q{size * 0.2:.1f} {-size * 0.1:.1f} {-size * 0.05:.1f} {size * 0.3:.1f}",
            stroke="#00000044",
            width=1.2,
        ),
    )


def maggot(x: float, y: float, turn: float, size: float = 1.0, colour: str = "#f6efdc") -> str:
    body = svg.path("M0 0C6 -7 26 -9 34 -5C37 -2 37 3 34 5C26 9 6 7 0 0Z", colour, "#a8946a", 1)
    rings = "".join(svg.path(f"M{8 + 5 * n} {-5 - n * 0.4}q2 5 0 {10 + n * 0.8}", stroke="#c8b68d", width=0.8) for n in range(5))
    return f'<g transform="translate({x} {y}) rotate({turn}) scale({size})">{body}{rings}{svg.circle(1, 0, 1.2, svg.INK)}</g>'
