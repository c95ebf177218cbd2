"""Caterpillars, grubs, maggots and pupae: each takes where it lies, how large, its colours and its marks."""

import math

from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, turned


def caterpillar(
    x: float,
    y: float,
    length: float,
    colour: str,
    *,
    turn: float = 0,
    head: str = "#6b4a2a",
    horn: str = "",
    marks: str = "",
    stripe: str = "",
    hairs: bool = False,
    loop: bool = False,
    fat: float = 0.16,
    dots: str = "",
) -> str:
    """Length along the body, head to the right. marks: "slants", "v"."""
    rings = 11
    r = length * fat / 2 * 1.35
    at = [
        (length * (n / (rings - 1) - 0.5), -(length * 0.26 * math.sin(math.pi * n / (rings - 1)) if loop else math.sin(n * 1.1) * 1.2))
        for n in range(rings)
    ]
    parts = []
    for n in (0, 1, 2, 7, 8, 9) if loop else (0, 2, 3, 4, 5, 8, 9, 10):
        if loop and n in (2, 7):
            continue
        cx, cy = at[n]
        parts.append(svg.path(f"M{cx:.1f} {cy + r * 0.7:.1f}l0 {r * 0.75:.1f}", stroke=colour, width=r * 0.55))
    if hairs:
        parts += [
            svg.path(f"M{cx:.1f} {cy:.1f}l{dx:.1f} {dy:.1f}", stroke="#8a7a5a", width=0.8)
            for cx, cy in at
            for dx, dy in ((-r, -r * 1.9), (0, -r * 2.2), (r, -r * 1.9), (-r * 0.6, r * 1.7), (r * 0.6, r * 1.7))
        ]
    for n, (cx, cy) in enumerate(at):
        taper = 0.78 if n in (0, rings - 1) else 1.0
        parts.append(svg.ellipse(cx, cy, length / rings * 0.74, r * taper, colour, stroke="#00000040", width=0.6))
    if stripe:
        parts.append(svg.line([(cx, cy + r * 0.28) for cx, cy in at], stripe, r * 0.32))
    for cx, cy in at[1:-1]:
        if marks == "slants":
            parts.append(
                svg.path(f"M{cx - r * 0.5:.1f} {cy + r * 0.5:.1f}L{cx + r * 0.5:.1f} {cy - r * 0.6:.1f}", stroke=svg.WHITE, width=1.6)
            )
        elif marks == "v":
            parts.append(
                svg.path(
                    f"M{cx - r * 0.45:.1f} {cy - r * 0.5:.1f}L{cx:.1f} {cy + r * 0.45:.1f}L{cx + r * 0.45:.1f} {cy - r * 0.5:.1f}",
                    stroke=svg.WHITE,
                    width=1.5,
                )
            )
        if dots:
            parts.append(svg.circle(cx, cy - r * 0.3, r * 0.16, dots) + svg.circle(cx + 2, cy + r * 0.35, r * 0.13, dots))
    hx, hy = at[-1]
    parts.append(svg.circle(hx + r * 0.75, hy, r * 0.82, head, LINE, 0.8))
    if horn:
        tx, ty = at[0]
        parts.append(
            svg.path(
                f"M{tx:.1f} {ty - r * 0.5:.1f}q{-r * 0.7:.1f} {-r * 0.8:.1f} {-r * 0.5:.1f} {-r * 1.9:.1f}", stroke=horn, width=r * 0.45
            )
        )
    return turned(x, y, turn, "".join(parts))


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
