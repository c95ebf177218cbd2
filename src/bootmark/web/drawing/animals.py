"""Animals by body type, in one hand: each takes where it lies, how large, its colours and its marks."""

import math
import random

from bootmark.web.drawing import svg

LINE = "#3d352b"


def _turned(x: float, y: float, turn: float, body: str) -> str:
    return f'<g transform="translate({x:.1f} {y:.1f}) rotate({turn:.0f})">{body}</g>'


def _legs(count: int, reach: float, spread: float, colour: str = LINE, width: float = 1.6) -> str:
    middle = (count - 1) / 2
    parts = []
    for n in range(count):
        off = (n - middle) * spread
        for side in (-1, 1):
            parts.append(
                svg.path(
                    f"M{off:.1f} 0Q{off * 1.2:.1f} {side * reach * 0.7:.1f} {off * 1.7:.1f} {side * reach:.1f}", stroke=colour, width=width
                )
            )
    return "".join(parts)


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
    parts = [_legs(3, wide + size * 0.5, size * 0.42)]
    parts.append(svg.ellipse(size * 1.02, 0, size * 0.26, wide * 0.5, head, stroke=LINE))
    parts.append(svg.ellipse(size * 0.68, 0, size * 0.3, wide * 0.78, neck or head, stroke=LINE))
    parts.append(svg.ellipse(-size * 0.15, 0, size * 0.85, wide, colour, stroke=LINE, width=1.2))
    for n in range(stripes):
        off = (n - (stripes - 1) / 2) * 2 * wide / max(1, stripes) * 0.86
        bend = off * 0.45
        parts.append(
            svg.path(
                f"M{size * 0.56:.1f} {bend:.1f}Q{-size * 0.15:.1f} {off * 1.06:.1f} {-size * 0.86:.1f} {bend * 0.6:.1f}",
                stroke=mark,
                width=max(1.4, size * 0.09),
            )
        )
    for n in range(spots):
        row, column = divmod(n, 2)
        along = size * (0.42 - 1.2 * row / max(1, (spots + 1) // 2))
        parts.append(svg.circle(along, (1 if column else -1) * wide * (0.34 + 0.22 * (row % 2)), size * 0.1, mark))
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
    return _turned(x, y, turn, "".join(parts))


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
    return _turned(x, y, turn, "".join(parts))


def slug_larva(x: float, y: float, length: float, colour: str, turn: float = 0, dots: str = "") -> str:
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
    return _turned(x, y, turn, body + shine + spots)


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
    return _turned(x, y, turn, body + rings + feet + svg.circle(size * 0.55, -size * 0.55, size * 0.24, "#9a5a28", LINE, 0.8))


def fly(x: float, y: float, size: float, colour: str, turn: float = -90, spot: bool = False, bands: str = "") -> str:
    wings = "".join(
        svg.ellipse(-size * 0.35, side * size * 0.55, size * 0.85, size * 0.32, "#dfe5e4", turn=side * 24, stroke="#8d989a")
        + (svg.circle(-size * 0.95, side * size * 0.85, size * 0.14, svg.INK) if spot else "")
        + (
            svg.path(
                f"M{-size * 0.4:.1f} {side * size * 0.35:.1f}l{-size * 0.15:.1f} {side * size * 0.45:.1f}m{-size * 0.3:.1f} 0l{size * 0.1:.1f} {-side * size * 0.4:.1f}",
                stroke=bands,
                width=3,
            )
            if bands
            else ""
        )
        for side in (-1, 1)
    )
    body = svg.ellipse(-size * 0.35, 0, size * 0.6, size * 0.28, colour, stroke=LINE) + svg.ellipse(
        size * 0.3, 0, size * 0.34, size * 0.3, colour, stroke=LINE
    )
    eyes = svg.circle(size * 0.68, -size * 0.16, size * 0.16, "#8a2a1f") + svg.circle(size * 0.68, size * 0.16, size * 0.16, "#8a2a1f")
    rings = "".join(
        svg.path(f"M{-size * (0.2 + 0.2 * n):.1f} {-size * 0.22:.1f}l0 {size * 0.44:.1f}", stroke="#00000055", width=1.4) for n in range(3)
    )
    return _turned(x, y, turn, _legs(3, size * 0.8, size * 0.28) + body + rings + wings + eyes)


def moth(x: float, y: float, size: float, colour: str, turn: float = 0, open_wings: bool = True) -> str:
    wings = "".join(
        svg.path(
            f"M0 {-size * 0.3:.1f}C{side * size * 0.5:.1f} {-size:.1f} {side * size * 1.2:.1f} {-size * 0.9:.1f} {side * size * 1.05:.1f} {-size * 0.25:.1f}"
            f"C{side * size:.1f} {size * 0.1:.1f} {side * size * 0.8:.1f} {size * 0.15:.1f} {side * size * 0.75:.1f} {size * 0.2:.1f}"
            f"C{side * size * 0.85:.1f} {size * 0.7:.1f} {side * size * 0.3:.1f} {size * 0.85:.1f} 0 {size * 0.2:.1f}Z",
            colour,
            LINE,
            1,
        )
        + svg.path(
            f"M{side * size * 0.35:.1f} {-size * 0.5:.1f}Q{side * size * 0.6:.1f} {-size * 0.2:.1f} {side * size * 0.95:.1f} {-size * 0.4:.1f}",
            stroke="#00000055",
            width=1.6,
        )
        for side in (-1, 1)
    )
    body = svg.ellipse(0, 0, size * 0.13, size * 0.5, "#5d5248")
    feelers = svg.path(
        f"M0 {-size * 0.45:.1f}q{-size * 0.1:.1f} {-size * 0.3:.1f} {-size * 0.35:.1f} {-size * 0.42:.1f}M0 {-size * 0.45:.1f}q{size * 0.1:.1f} {-size * 0.3:.1f} {size * 0.35:.1f} {-size * 0.42:.1f}",
        stroke=LINE,
        width=1,
    )
    return _turned(x, y, turn, wings + body + feelers)


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
    return _turned(x, y, turn, _legs(3, size * 0.6, size * 0.22, width=1.1) + wings + body + tail + feelers)


def aphid(x: float, y: float, size: float, colour: str, turn: float = 0, tubes: str = LINE) -> str:
    body = svg.path(
        f"M{size:.1f} 0C{size * 0.8:.1f} {-size * 0.5:.1f} {-size * 0.6:.1f} {-size * 0.85:.1f} {-size:.1f} 0C{-size * 0.6:.1f} {size * 0.85:.1f} {size * 0.8:.1f} {size * 0.5:.1f} {size:.1f} 0Z",
        colour,
        "#00000066",
        0.7,
    )
    horns = svg.path(
        f"M{-size * 0.6:.1f} {-size * 0.4:.1f}l{-size * 0.55:.1f} {-size * 0.3:.1f}M{-size * 0.6:.1f} {size * 0.4:.1f}l{-size * 0.55:.1f} {size * 0.3:.1f}",
        stroke=tubes,
        width=max(0.8, size * 0.12),
    )
    feelers = svg.path(
        f"M{size * 0.9:.1f} {-size * 0.15:.1f}l{size * 0.7:.1f} {-size * 0.4:.1f}M{size * 0.9:.1f} {size * 0.15:.1f}l{size * 0.7:.1f} {size * 0.4:.1f}",
        stroke=LINE,
        width=0.7,
    )
    return _turned(x, y, turn, _legs(3, size * 0.8, size * 0.34, "#6d6a52", max(0.5, size * 0.07)) + feelers + horns + body)


def colony(
    rng: random.Random,
    colour: str,
    count: int = 16,
    size: float = 5,
    box: tuple[float, float, float, float] = (38, 30, 84, 92),
    tubes: str = LINE,
) -> str:
    left, top, right, bottom = box
    return "".join(
        aphid(rng.uniform(left, right), rng.uniform(top, bottom), size * rng.uniform(0.7, 1.15), colour, rng.uniform(0, 360), tubes)
        for _ in range(count)
    )


def mite(x: float, y: float, size: float, colour: str, turn: float = 0, patches: bool = False, worm: bool = False) -> str:
    if worm:
        rings = "".join(
            svg.path(
                f"M{-size + n * size * 0.22:.1f} {-size * 0.26:.1f}q2 {size * 0.26:.1f} 0 {size * 0.5:.1f}", stroke="#00000030", width=0.8
            )
            for n in range(8)
        )
        body = svg.path(
            f"M{-size:.1f} 0C{-size * 0.4:.1f} {-size * 0.4:.1f} {size * 0.7:.1f} {-size * 0.5:.1f} {size:.1f} {-size * 0.1:.1f}C{size * 1.05:.1f} {size * 0.3:.1f} {-size * 0.4:.1f} {size * 0.4:.1f} {-size:.1f} 0Z",
            colour,
            "#9a8d4d",
            0.8,
        )
        legs = svg.path(
            f"M{size * 0.8:.1f} 0l{size * 0.4:.1f} {-size * 0.35:.1f}M{size * 0.8:.1f} 0l{size * 0.4:.1f} {size * 0.35:.1f}",
            stroke="#9a8d4d",
            width=1.1,
        )
        return _turned(x, y, turn, legs + body + rings)
    legs = _legs(4, size * 1.35, size * 0.42, "#8d6b3a", 1.1)
    body = svg.ellipse(0, 0, size, size * 0.72, colour, stroke="#00000066", width=0.8)
    marks = (
        svg.ellipse(0, -size * 0.38, size * 0.4, size * 0.2, "#3f4a2a") + svg.ellipse(0, size * 0.38, size * 0.4, size * 0.2, "#3f4a2a")
        if patches
        else ""
    )
    bristles = (
        ""
        if patches
        else "".join(svg.circle(size * (-0.5 + 0.33 * n), size * 0.32 * (1 if n % 2 else -1), size * 0.07, "#f4efe4") for n in range(4))
    )
    return _turned(x, y, turn, legs + body + marks + bristles)


def bug(x: float, y: float, size: float, colour: str, turn: float = -90, shield: bool = True, mark: str = "", banded: bool = False) -> str:
    if shield:
        body = svg.path(
            f"M{size:.1f} 0L{size * 0.6:.1f} {-size * 0.3:.1f}L{size * 0.35:.1f} {-size * 0.72:.1f}Q{-size * 0.4:.1f} {-size * 0.6:.1f} {-size:.1f} 0Q{-size * 0.4:.1f} {size * 0.6:.1f} {size * 0.35:.1f} {size * 0.72:.1f}L{size * 0.6:.1f} {size * 0.3:.1f}Z",
            colour,
            LINE,
            1.2,
        )
    else:
        body = svg.ellipse(0, 0, size, size * 0.42, colour, stroke=LINE, width=1.1)
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
    feelers = svg.path(
        f"M{size:.1f} {-size * 0.1:.1f}l{size * 0.7:.1f} {-size * 0.45:.1f}M{size:.1f} {size * 0.1:.1f}l{size * 0.7:.1f} {size * 0.45:.1f}",
        stroke=LINE,
        width=2,
        **({"stroke_dasharray": "5 4"} if banded else {}),
    )
    return _turned(x, y, turn, _legs(3, size * 1.05, size * 0.42, width=1.5) + feelers + body + shield_mark + wings)


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
    return _turned(x, y, turn, _legs(3, size * 0.95, size * 0.4, width=1.1) + wings + cells + body)


def hopper(x: float, y: float, size: float, colour: str, turn: float = 0) -> str:
    body = svg.path(
        f"M{size:.1f} 0Q{size * 0.8:.1f} {-size * 0.42:.1f} {size * 0.3:.1f} {-size * 0.36:.1f}L{-size:.1f} {-size * 0.06:.1f}L{-size:.1f} {size * 0.06:.1f}L{size * 0.3:.1f} {size * 0.36:.1f}Q{size * 0.8:.1f} {size * 0.42:.1f} {size:.1f} 0Z",
        colour,
        LINE,
        0.9,
    )
    return _turned(
        x,
        y,
        turn,
        _legs(3, size * 0.62, size * 0.32, width=1)
        + body
        + svg.path(f"M{size * 0.4:.1f} 0L{-size:.1f} 0", stroke="#00000044", width=1)
        + svg.circle(size * 0.75, -size * 0.18, size * 0.08, LINE)
        + svg.circle(size * 0.75, size * 0.18, size * 0.08, LINE),
    )


def whitefly(x: float, y: float, size: float, turn: float = 0) -> str:
    wings = "".join(
        svg.path(
            f"M0 {-size * 0.5:.1f}C{side * size:.1f} {-size * 0.4:.1f} {side * size:.1f} {size * 0.8:.1f} {side * size * 0.2:.1f} {size * 0.9:.1f}Z",
            svg.WHITE,
            "#b9b39d",
            0.8,
        )
        for side in (-1, 1)
    )
    return _turned(x, y, turn, wings + svg.ellipse(0, -size * 0.35, size * 0.16, size * 0.34, "#e6d77a"))


def scale_cover(x: float, y: float, r: float, colour: str, nipple: str = "", turn: float = 0, long: bool = False) -> str:
    if long:
        shell = svg.path(
            f"M{-r * 1.5:.1f} 0C{-r:.1f} {-r * 0.6:.1f} {r * 0.8:.1f} {-r * 0.8:.1f} {r * 1.4:.1f} {-r * 0.1:.1f}C{r * 1.3:.1f} {r * 0.7:.1f} {-r * 0.6:.1f} {r * 0.6:.1f} {-r * 1.5:.1f} 0Z",
            colour,
            "#00000066",
            0.8,
        )
        return _turned(
            x,
            y,
            turn,
            shell
            + "".join(
                svg.path(f"M{-r + n * r * 0.55:.1f} {-r * 0.3:.1f}q2 {r * 0.3:.1f} 0 {r * 0.6:.1f}", stroke="#00000033", width=0.7)
                for n in range(4)
            ),
        )
    return (
        svg.circle(x, y, r, colour, "#00000055", 0.8)
        + svg.circle(x, y, r * 0.62, "none", "#ffffff55", 1)
        + (svg.circle(x, y, r * 0.26, nipple) if nipple else "")
    )


def mealybug(x: float, y: float, size: float, turn: float = 0, colour: str = "#efe6da") -> str:
    fringe = "".join(
        svg.path(f"M0 0L{size * 1.25 * math.cos(a):.1f} {size * 0.82 * math.sin(a):.1f}", stroke="#d5cabb", width=1.8)
        for a in (n * math.tau / 22 for n in range(22))
    )
    rings = "".join(
        svg.path(
            f"M{-size * 0.7 + n * size * 0.28:.1f} {-size * 0.45:.1f}q3 {size * 0.45:.1f} 0 {size * 0.9:.1f}", stroke="#cbbfae", width=0.9
        )
        for n in range(6)
    )
    return _turned(x, y, turn, fringe + svg.ellipse(0, 0, size, size * 0.56, colour, stroke="#b9ad9a") + rings)


def thrips(x: float, y: float, length: float, turn: float, colour: str = "#b98a3a") -> str:
    body = svg.path(
        f"M{length / 2:.1f} 0Q{length * 0.3:.1f} {-length * 0.13:.1f} {0:.1f} {-length * 0.13:.1f}L{-length / 2:.1f} 0L0 {length * 0.13:.1f}Q{length * 0.3:.1f} {length * 0.13:.1f} {length / 2:.1f} 0Z",
        colour,
        "#7a571d",
        0.8,
    )
    return _turned(
        x,
        y,
        turn,
        _legs(3, length * 0.25, length * 0.12, width=0.9)
        + body
        + svg.path(f"M{length * 0.1:.1f} 0L{-length * 0.46:.1f} 0", stroke="#5d4218", width=1.3),
    )


def ant(x: float, y: float, size: float, turn: float = 0, colour: str = svg.INK) -> str:
    body = (
        svg.ellipse(-size * 0.8, 0, size * 0.5, size * 0.34, colour)
        + svg.ellipse(0, 0, size * 0.34, size * 0.2, colour)
        + svg.circle(size * 0.6, 0, size * 0.28, colour)
    )
    return _turned(
        x,
        y,
        turn,
        _legs(3, size * 0.75, size * 0.3, colour, 1)
        + body
        + svg.path(
            f"M{size * 0.8:.1f} 0l{size * 0.4:.1f} {-size * 0.35:.1f}M{size * 0.8:.1f} 0l{size * 0.4:.1f} {size * 0.35:.1f}",
            stroke=colour,
            width=0.9,
        ),
    )


def spider(x: float, y: float, size: float, colour: str = "#6b5a44") -> str:
    return _turned(
        x,
        y,
        0,
        _legs(4, size * 1.8, size * 0.5, colour, 1.5)
        + svg.ellipse(-size * 0.5, 0, size * 0.75, size * 0.6, colour)
        + svg.circle(size * 0.4, 0, size * 0.42, colour),
    )


def slug(x: float, y: float, length: float, colour: str = "#6b5f50", house: bool = False) -> str:
    body = svg.path(
        f"M{-length / 2:.1f} 6C{-length * 0.3:.1f} -8 {length * 0.2:.1f} -12 {length * 0.42:.1f} -8C{length * 0.55:.1f} -4 {length * 0.5:.1f} 6 {length * 0.4:.1f} 6Z",
        colour,
        LINE,
        1,
    )
    horns = svg.path(f"M{length * 0.44:.1f} -7l6 -9M{length * 0.4:.1f} -8l2 -10", stroke=colour, width=1.8)
    back = (
        svg.circle(-length * 0.05, -12, length * 0.2, "#c9a86a", LINE, 1)
        + svg.circle(-length * 0.05, -12, length * 0.11, "none", LINE, 1.2)
        if house
        else svg.path(f"M{-length * 0.02:.1f} -9q{length * 0.2:.1f} -4 {length * 0.3:.1f} 4", stroke="#00000044", width=1.2)
    )
    return _turned(x, y, 0, body + horns + back)


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
    return _turned(x, y, turn, _legs(3, size * 0.6, size * 0.3, "#b07a3a") + body + tongs + feelers)


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
    return _turned(
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
    return _turned(
        x,
        y,
        -70,
        wings
        + svg.ellipse(0, 0, size * 0.7, size * 0.1, "#9cb87a")
        + svg.circle(size * 0.75, 0, size * 0.13, "#c9a03c")
        + svg.path(f"M{size * 0.85:.1f} 0l{size * 0.6:.1f} -8M{size * 0.85:.1f} 0l{size * 0.6:.1f} 8", stroke="#7a8a5a", width=0.9),
    )


def pupa(x: float, y: float, size: float, colour: str = "#7a4a22", turn: float = 0) -> str:
    body = svg.path(
        f"M{-size:.1f} 0C{-size * 0.6:.1f} {-size * 0.3:.1f} {size * 0.4:.1f} {-size * 0.5:.1f} {size * 0.8:.1f} {-size * 0.28:.1f}C{size * 1.02:.1f} 0 {size:.1f} {size * 0.28:.1f} {size * 0.8:.1f} {size * 0.3:.1f}C{size * 0.4:.1f} {size * 0.5:.1f} {-size * 0.6:.1f} {size * 0.3:.1f} {-size:.1f} 0Z",
        colour,
        LINE,
        1,
    )
    return _turned(
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
