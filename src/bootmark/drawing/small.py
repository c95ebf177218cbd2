"""The small and soft: aphids, mites, scales, thrips, whiteflies; slugs and spiders."""

import math
import random

from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, legs, turned


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
    return turned(x, y, turn, legs(3, size * 0.8, size * 0.34, "#6d6a52", max(0.5, size * 0.07)) + feelers + horns + body)


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


def mite(x: float, y: float, size: float, colour: str, turn: float = 0, patches: int = 0, mark: str = "", worm: bool = False) -> str:
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
        feet = svg.path(
            f"M{size * 0.8:.1f} 0l{size * 0.4:.1f} {-size * 0.35:.1f}M{size * 0.8:.1f} 0l{size * 0.4:.1f} {size * 0.35:.1f}",
            stroke="#9a8d4d",
            width=1.1,
        )
        return turned(x, y, turn, feet + body + rings)
    feet = legs(4, size * 1.35, size * 0.42, "#8d6b3a", 1.1)
    body = svg.ellipse(0, 0, size, size * 0.72, colour, stroke="#00000066", width=0.8)
    marks = "".join(svg.ellipse(0, size * 1.52 * ((n + 0.5) / patches - 0.5), size * 0.4, size * 0.2, mark) for n in range(patches))
    bristles = (
        ""
        if patches
        else "".join(svg.circle(size * (-0.5 + 0.33 * n), size * 0.32 * (1 if n % 2 else -1), size * 0.07, "#f4efe4") for n in range(4))
    )
    return turned(x, y, turn, feet + body + marks + bristles)


def scale_cover(x: float, y: float, r: float, colour: str, nipple: str = "", turn: float = 0, long: bool = False) -> str:
    if long:
        shell = svg.path(
            f"M{-r * 1.5:.1f} 0C{-r:.1f} {-r * 0.6:.1f} {r * 0.8:.1f} {-r * 0.8:.1f} {r * 1.4:.1f} {-r * 0.1:.1f}C{r * 1.3:.1f} {r * 0.7:.1f} {-r * 0.6:.1f} {r * 0.6:.1f} {-r * 1.5:.1f} 0Z",
            colour,
            "#00000066",
            0.8,
        )
        return turned(
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
    return turned(x, y, turn, fringe + svg.ellipse(0, 0, size, size * 0.56, colour, stroke="#b9ad9a") + rings)


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
    return turned(x, y, turn, wings + svg.ellipse(0, -size * 0.35, size * 0.16, size * 0.34, "#e6d77a"))


def thrips(x: float, y: float, length: float, turn: float, colour: str = "#b98a3a") -> str:
    body = svg.path(
        f"M{length / 2:.1f} 0Q{length * 0.3:.1f} {-length * 0.13:.1f} {0:.1f} {-length * 0.13:.1f}L{-length / 2:.1f} 0L0 {length * 0.13:.1f}Q{length * 0.3:.1f} {length * 0.13:.1f} {length / 2:.1f} 0Z",
        colour,
        "#7a571d",
        0.8,
    )
    return turned(
        x,
        y,
        turn,
        legs(3, length * 0.25, length * 0.12, width=0.9)
        + body
        + svg.path(f"M{length * 0.1:.1f} 0L{-length * 0.46:.1f} 0", stroke="#5d4218", width=1.3),
    )


def spider(x: float, y: float, size: float, colour: str = "#6b5a44") -> str:
    return turned(
        x,
        y,
        0,
        legs(4, size * 1.8, size * 0.5, colour, 1.5)
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
    return turned(x, y, 0, body + horns + back)
