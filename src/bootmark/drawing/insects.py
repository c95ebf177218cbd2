"""Grown insects by body type: each takes where it lies, how large, its colours and its marks."""

import math

from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, legs, turned


def beetle(
    x: float,
    y: float,
    size: float,
    colour: str,
    *,
    turn: float = -90,
    head: str = "#2b2724",
    stripes: int = 0,
    spots: int = 0,
    mark: str = svg.INK,
    slim: float = 0.62,
    tufts: bool = False,
    snout: bool = False,
    horns: float = 0.5,
    neck: str = "",
) -> str:
    """Length 2 * size, head to the right before it is turned."""
    wide = size * slim
    parts = [legs(3, wide + size * 0.5, size * 0.42)]
    parts.append(svg.ellipse(size * 1.02, 0, size * 0.26, wide * 0.5, head, stroke=LINE))
    parts.append(svg.ellipse(size * 0.68, 0, size * 0.3, wide * 0.78, neck or head, stroke=LINE))
    parts.append(svg.ellipse(-size * 0.15, 0, size * 0.85, wide, colour, stroke=LINE, width=1.2))
    for n in range(stripes):
        off = (n - (stripes - 1) / 2) * 2 * wide / max(1, stripes) * 0.86
        bend = off * 0.45
        parts.append(
            svg.path(
                f"M{size * 0.56:.1f} {bend:.1f}Q{-size * 0.15:.1f} {off * 1.5:.1f} {-size * 0.86:.1f} {bend * 0.6:.1f}",
                stroke=mark,
                width=min(size * 0.09, wide * 1.1 / stripes),
            )
        )
    for n in range(spots):
        row, column = divmod(n, 4 if spots > 8 else 2)
        along = size * (0.42 - 1.2 * row / max(1, math.ceil(spots / (4 if spots > 8 else 2))))
        off = 0.24 + 0.42 * (column // 2) if spots > 8 else 0.34 + 0.22 * (row % 2)
        parts.append(svg.circle(along, (1 if column % 2 else -1) * wide * off, size * 0.1, mark))
    parts.append(svg.path(f"M{size * 0.52:.1f} 0L{-size:.1f} 0", stroke=LINE, width=1))
    if tufts:
        for n in range(5):
            for side in (-1, 1):
                along = size * (0.3 - 0.28 * n)
                edge = side * wide * math.sqrt(max(0.05, 1 - ((along + size * 0.15) / (size * 0.85)) ** 2))
                parts.append(svg.circle(along, edge, size * 0.09, svg.WHITE, LINE, 0.6))
    if snout:
        parts.append(
            svg.path(f"M{size * 1.2:.1f} 0Q{size * 1.5:.1f} {size * 0.1:.1f} {size * 1.65:.1f} {size * 0.35:.1f}", stroke=head, width=3)
        )
    for side in (-1, 1):
        parts.append(
            svg.path(
                f"M{size * 1.15:.1f} {side * wide * 0.3:.1f}q{size * horns * 0.5:.1f} {side * size * 0.1:.1f} {size * horns:.1f} {side * size * 0.35:.1f}",
                stroke=LINE,
                width=1.3,
            )
        )
    return turned(x, y, turn, "".join(parts))


def fly(x: float, y: float, size: float, colour: str, turn: float = -90, spot: bool = False, head: str = "") -> str:
    wings = "".join(
        svg.ellipse(-size * 0.35, side * size * 0.55, size * 0.85, size * 0.32, "#dfe5e4", turn=side * 24, stroke="#8d989a")
        + (turned(-size * 0.35, side * size * 0.55, side * 24, svg.circle(-size * 0.62, 0, size * 0.13, svg.INK)) if spot else "")
        for side in (-1, 1)
    )
    body = svg.ellipse(-size * 0.35, 0, size * 0.6, size * 0.28, colour, stroke=LINE) + svg.ellipse(
        size * 0.3, 0, size * 0.34, size * 0.3, colour, stroke=LINE
    )
    face = svg.circle(size * 0.72, 0, size * 0.2, head, LINE, 0.7) if head else ""
    eyes = (
        face + svg.circle(size * 0.68, -size * 0.16, size * 0.16, "#8a2a1f") + svg.circle(size * 0.68, size * 0.16, size * 0.16, "#8a2a1f")
    )
    rings = "".join(
        svg.path(f"M{-size * (0.2 + 0.2 * n):.1f} {-size * 0.22:.1f}l0 {size * 0.44:.1f}", stroke="#00000055", width=1.4) for n in range(3)
    )
    return turned(x, y, turn, legs(3, size * 0.8, size * 0.28) + body + rings + wings + eyes)


def wasp(x: float, y: float, size: float, colour: str, turn: float = -90, sting: bool = False) -> str:
    wings = "".join(
        svg.ellipse(-size * 0.1, side * size * 0.5, size * 0.7, size * 0.2, "#e6ebe8", turn=side * 30, stroke="#8d989a", width=0.8)
        for side in (-1, 1)
    )
    body = (
        svg.ellipse(-size * 0.6, 0, size * 0.5, size * 0.18, colour)
        + svg.ellipse(size * 0.15, 0, size * 0.3, size * 0.2, colour)
        + svg.circle(size * 0.6, 0, size * 0.17, colour)
    )
    tail = svg.path(f"M{-size * 1.1:.1f} 0l{-size * 0.4:.1f} 0", stroke=colour, width=1.4) if sting else ""
    feelers = svg.path(
        f"M{size * 0.7:.1f} {-size * 0.08:.1f}l{size * 0.5:.1f} {-size * 0.3:.1f}M{size * 0.7:.1f} {size * 0.08:.1f}l{size * 0.5:.1f} {size * 0.3:.1f}",
        stroke=colour,
        width=1.1,
    )
    return turned(x, y, turn, legs(3, size * 0.6, size * 0.22, width=1.1) + wings + body + tail + feelers)


def bug(
    x: float,
    y: float,
    size: float,
    colour: str,
    turn: float = -90,
    shield: bool = True,
    mark: str = "",
    bands: str = "",
    slim: float = 0.42,
) -> str:
    """bands: colour of those on the feelers; slim: width to length, of one that is no shield."""
    if shield:
        body = svg.path(
            f"M{size:.1f} 0L{size * 0.6:.1f} {-size * 0.3:.1f}L{size * 0.35:.1f} {-size * 0.72:.1f}Q{-size * 0.4:.1f} {-size * 0.6:.1f} {-size:.1f} 0Q{-size * 0.4:.1f} {size * 0.6:.1f} {size * 0.35:.1f} {size * 0.72:.1f}L{size * 0.6:.1f} {size * 0.3:.1f}Z",
            colour,
            LINE,
            1.2,
        )
    else:
        body = svg.ellipse(0, 0, size, size * slim, colour, stroke=LINE, width=1.1)
    shield_mark = svg.path(
        f"M{size * 0.35:.1f} {-size * 0.3:.1f}L{-size * 0.25:.1f} 0L{size * 0.35:.1f} {size * 0.3:.1f}",
        stroke=mark or "#00000066",
        width=2 if mark else 1.2,
    )
    wings = svg.path(
        f"M{-size * 0.25:.1f} 0L{-size * 0.9:.1f} {-size * 0.1:.1f}M{-size * 0.25:.1f} 0L{-size * 0.9:.1f} {size * 0.12:.1f}",
        stroke="#00000055",
        width=1,
    )
    along = (
        f"M{size:.1f} {-size * 0.1:.1f}l{size * 0.7:.1f} {-size * 0.45:.1f}M{size:.1f} {size * 0.1:.1f}l{size * 0.7:.1f} {size * 0.45:.1f}"
    )
    feelers = svg.path(along, stroke=LINE, width=2)
    if bands:
        feelers += svg.path(along, stroke=bands, width=2.4, stroke_dasharray="5 4")
    return turned(x, y, turn, legs(3, size * 1.05, size * 0.42, width=1.5) + feelers + body + shield_mark + wings)


def lace_bug(x: float, y: float, size: float, turn: float = -90, colour: str = "#ece8da") -> str:
    wings = svg.path(
        f"M{size * 0.7:.1f} {-size * 0.55:.1f}Q{-size * 0.4:.1f} {-size * 0.85:.1f} {-size:.1f} {-size * 0.35:.1f}L{-size:.1f} {size * 0.35:.1f}Q{-size * 0.4:.1f} {size * 0.85:.1f} {size * 0.7:.1f} {size * 0.55:.1f}Z",
        colour,
        LINE,
        1,
    )
    cells = "".join(
        svg.circle(size * (0.45 - 0.27 * n), size * (-0.36 + 0.24 * m), size * 0.1, "none", "#6d6454", 0.7)
        for n in range(5)
        for m in range(4)
    )
    body = svg.ellipse(size * 0.2, 0, size * 0.6, size * 0.16, "#3a3329") + svg.circle(size * 0.85, 0, size * 0.2, "#3a3329")
    return turned(x, y, turn, legs(3, size * 0.95, size * 0.4, width=1.1) + wings + cells + body)


def hopper(x: float, y: float, size: float, colour: str, turn: float = 0) -> str:
    body = svg.path(
        f"M{size:.1f} 0Q{size * 0.8:.1f} {-size * 0.42:.1f} {size * 0.3:.1f} {-size * 0.36:.1f}L{-size:.1f} {-size * 0.06:.1f}L{-size:.1f} {size * 0.06:.1f}L{size * 0.3:.1f} {size * 0.36:.1f}Q{size * 0.8:.1f} {size * 0.42:.1f} {size:.1f} 0Z",
        colour,
        LINE,
        0.9,
    )
    return turned(
        x,
        y,
        turn,
        legs(3, size * 0.62, size * 0.32, width=1)
        + body
        + svg.path(f"M{size * 0.4:.1f} 0L{-size:.1f} 0", stroke="#00000044", width=1)
        + svg.circle(size * 0.75, -size * 0.18, size * 0.08, LINE)
        + svg.circle(size * 0.75, size * 0.18, size * 0.08, LINE),
    )


def ant(x: float, y: float, size: float, turn: float = 0, colour: str = svg.INK) -> str:
    body = (
        svg.ellipse(-size * 0.8, 0, size * 0.5, size * 0.34, colour)
        + svg.ellipse(0, 0, size * 0.34, size * 0.2, colour)
        + svg.circle(size * 0.6, 0, size * 0.28, colour)
    )
    return turned(
        x,
        y,
        turn,
        legs(3, size * 0.75, size * 0.3, colour, 1)
        + body
        + svg.path(
            f"M{size * 0.8:.1f} 0l{size * 0.4:.1f} {-size * 0.35:.1f}M{size * 0.8:.1f} 0l{size * 0.4:.1f} {size * 0.35:.1f}",
            stroke=colour,
            width=0.9,
        ),
    )


def earwig(x: float, y: float, size: float, turn: float = -60) -> str:
    body = svg.ellipse(0, 0, size, size * 0.26, "#8a5a2a", stroke=LINE) + svg.ellipse(
        size * 0.75, 0, size * 0.25, size * 0.2, "#6b4523", stroke=LINE
    )
    tongs = svg.path(
        f"M{-size:.1f} -4q{-size * 0.4:.1f} -6 {-size * 0.6:.1f} 2M{-size:.1f} 4q{-size * 0.4:.1f} 6 {-size * 0.6:.1f} -2",
        stroke="#6b4523",
        width=2.4,
    )
    feelers = svg.path(f"M{size:.1f} 0l{size * 0.6:.1f} -8M{size:.1f} 0l{size * 0.6:.1f} 8", stroke=LINE, width=1.1)
    return turned(x, y, turn, legs(3, size * 0.6, size * 0.3, "#b07a3a") + body + tongs + feelers)


def grasshopper(x: float, y: float, size: float, colour: str = "#8f8a4a") -> str:
    body = svg.path(
        f"M{size:.1f} -2Q{size * 0.9:.1f} {-size * 0.3:.1f} {size * 0.5:.1f} {-size * 0.26:.1f}L{-size:.1f} {-size * 0.1:.1f}L{-size * 0.9:.1f} {size * 0.08:.1f}L{size * 0.6:.1f} {size * 0.2:.1f}Z",
        colour,
        LINE,
        1.1,
    )
    leg = svg.path(
        f"M{-size * 0.1:.1f} {size * 0.05:.1f}L{-size * 0.55:.1f} {-size * 0.62:.1f}L{-size * 0.95:.1f} {size * 0.42:.1f}",
        stroke=colour,
        width=3.4,
    ) + svg.path(
        f"M{size * 0.3:.1f} {size * 0.1:.1f}l6 {size * 0.35:.1f}M{size * 0.55:.1f} {size * 0.1:.1f}l8 {size * 0.35:.1f}",
        stroke=LINE,
        width=1.5,
    )
    return turned(
        x,
        y,
        0,
        body
        + leg
        + svg.circle(size * 0.82, -size * 0.1, 2, LINE)
        + svg.path(f"M{size:.1f} {-size * 0.15:.1f}l{size * 0.5:.1f} {-size * 0.3:.1f}", stroke=LINE, width=1.2),
    )


def lacewing(x: float, y: float, size: float) -> str:
    wings = "".join(
        svg.ellipse(-size * 0.45, side * size * 0.35, size * 0.95, size * 0.34, "#e3eed6", turn=side * 14, stroke="#8fa67a", width=0.9)
        + "".join(
            svg.path(
                f"M{-size * 1.2 + n * size * 0.3:.1f} {side * size * (0.28 + 0.03 * n):.1f}l6 {side * size * 0.2:.1f}",
                stroke="#8fa67a",
                width=0.6,
            )
            for n in range(5)
        )
        for side in (-1, 1)
    )
    return turned(
        x,
        y,
        -70,
        wings
        + svg.ellipse(0, 0, size * 0.7, size * 0.1, "#9cb87a")
        + svg.circle(size * 0.75, 0, size * 0.13, "#c9a03c")
        + svg.path(f"M{size * 0.85:.1f} 0l{size * 0.6:.1f} -8M{size * 0.85:.1f} 0l{size * 0.6:.1f} 8", stroke="#7a8a5a", width=0.9),
    )
