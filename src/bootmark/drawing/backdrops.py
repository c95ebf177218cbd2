"""What animals and marks are drawn on: a blade close by, a stem, bark, a twig, earth, fruit."""

import math
import random

from bootmark.drawing import svg

BARK, DARK_BARK, PALE_WOOD, TWIG = "#8d7258", "#745b43", "#e6d3ac", "#9a7b55"


def blade(under: bool = False) -> str:
    """A leaf so near that it fills the picture."""
    light, dark = (svg.UNDER, svg.DARK_UNDER) if under else (svg.GREEN, svg.DARK_GREEN)
    veins = "".join(
        svg.path(
            f"M{14 + 21 * n} {114 - 19 * n}q{-2 + n} -26 {14 - n} -44M{20 + 21 * n} {109 - 19 * n}q24 4 {38 - 2 * n} {-2 + n}",
            stroke=svg.VEIN,
            width=1.4,
        )
        for n in range(4)
    )
    return (
        svg.path("M2 126C2 66 46 14 118 12C122 74 76 128 2 126Z", light)
        + svg.path("M2 126C40 94 84 54 118 12C122 74 76 128 2 126Z", dark)
        + svg.path("M2 126C40 94 84 54 118 12", stroke=svg.VEIN, width=3)
        + veins
    )


def stem(width: float = 22, x: float = 60, joint: bool = True) -> str:
    left, right = x - width / 2, x + width / 2
    body = svg.path(f"M{left} 142C{left + 2} 100 {left - 1} 50 {left} -2L{right} -2C{right + 1} 50 {right - 2} 100 {right} 142Z", "#7f9f58")
    shade = svg.path(f"M{x + width * 0.12} 142L{x + width * 0.12} -2L{right} -2C{right + 1} 50 {right - 2} 100 {right} 142Z", "#6a8a46")
    stalks = (
        svg.path(f"M{left} 40C{left - 14} 34 {left - 26} 22 {left - 34} 8", stroke="#7f9f58", width=6)
        + svg.path(f"M{right} 52C{right + 14} 46 {right + 24} 34 {right + 32} 20", stroke="#6a8a46", width=6)
        if joint
        else ""
    )
    return stalks + body + shade


def bark(width: float = 72) -> str:
    left, right = 60 - width / 2, 60 + width / 2
    lines = "".join(
        svg.path(
            f"M{left + width * (n + 0.6) / 7:.0f} {-4 + 9 * (n % 3)}q{4 if n % 2 else -4} 38 0 70t{-2 if n % 2 else 2} 80",
            stroke=DARK_BARK,
            width=1.6,
        )
        for n in range(6)
    )
    return (
        svg.path(f"M{left} -2L{right} -2L{right + 4} 142L{left - 4} 142Z", BARK)
        + svg.path(f"M60 -2L{right} -2L{right + 4} 142L72 142Z", "#00000014")
        + lines
    )


def twig(thick: float = 13) -> str:
    body = svg.path("M14 138C40 104 70 60 104 4", stroke=TWIG, width=thick) + svg.path(
        "M18 139C44 106 74 62 108 6", stroke="#83664a", width=thick * 0.3
    )
    buds = "".join(
        svg.path(f"M{x} {y}q{8 * s} -8 {4 * s} -16q{-8 * s} 4 {-4 * s} 16Z", "#6b4a34")
        for x, y, s in ((36, 100, -1), (62, 78, 1), (78, 36, -1))
    )
    return body + buds


def earth(top: float = 44) -> str:
    return svg.path(f"M0 {top}C40 {top - 6} 80 {top + 4} 120 {top - 2}L120 142L0 142Z", svg.SOIL) + "".join(
        svg.ellipse(x, y, 4, 2.6, svg.DARK_SOIL)
        for x, y in ((14, top + 18), (100, top + 34), (22, 116), (92, 122), (108, top + 12), (60, 132))
    )


def grass_edge(top: float) -> str:
    return "".join(
        svg.path(f"M{4 + 8 * n} {top + 6}q{-2 + n % 3 * 2} -12 {n % 2 * 5 - 2} -{18 + n % 4 * 5}", stroke=svg.GREEN, width=2.2)
        for n in range(15)
    )


def grass(top: float = 70) -> str:
    return earth(top) + grass_edge(top)


def seedling(
    x: float = 60, y: float = 60, size: float = 1.0, lean: float = 0, colours: tuple[str, str] = (svg.GREEN, svg.DARK_GREEN)
) -> str:
    body = (
        svg.path("M0 0C1 -14 0 -26 0 -38", stroke=svg.STEM, width=3.4)
        + svg.path("M0 -36C-10 -52 -26 -50 -34 -44C-26 -34 -10 -30 0 -36Z", colours[0])
        + svg.path("M0 -36C10 -54 26 -52 34 -46C26 -34 10 -30 0 -36Z", colours[1])
        + svg.path("M0 -38C-6 -52 -2 -62 2 -66C6 -58 6 -48 0 -38Z", colours[0])
    )
    return f'<g transform="translate({x} {y}) rotate({lean}) scale({size})">{body}</g>'


APPLE = "M60 40C72 26 100 30 104 62C108 98 82 130 60 122C38 130 12 98 16 62C20 30 48 26 60 40Z"


def apple(light: str = "#b9b24f", dark: str = "#a29a3d") -> str:
    return (
        svg.path("M60 42C59 30 62 20 68 12", stroke=svg.ROOT, width=3.4)
        + svg.path("M66 24C76 12 92 12 98 18C90 28 76 30 66 24Z", svg.GREEN)
        + svg.path(APPLE, light)
        + svg.path("M60 40C72 26 100 30 104 62C108 98 82 130 60 122C86 104 84 60 60 40Z", dark)
    )


def tomato() -> str:
    cap = "".join(
        svg.path(
            f"M60 40q{12 * math.cos(a):.0f} {8 * math.sin(a) - 4:.0f} {24 * math.cos(a):.0f} {12 * math.sin(a):.0f}",
            stroke=svg.STEM,
            width=4.4,
        )
        for a in (0.1, 0.9, 2.2, 3.0, 4.4)
    )
    return (
        svg.path("M60 42C84 30 112 48 108 84C104 116 82 126 60 126C38 126 16 116 12 84C8 48 36 30 60 42Z", "#c9502f")
        + svg.path("M60 42C84 30 112 48 108 84C104 116 82 126 60 126C92 108 92 62 60 42Z", "#b0411f")
        + cap
    )


def cut_fruit() -> str:
    return (
        svg.path(APPLE, "#b9b24f")
        + svg.path(APPLE, "#f4efd4", transform="translate(5 6) scale(0.915)")
        + svg.path("M60 62C74 70 76 92 60 104C44 92 46 70 60 62Z", "#e2d3a0", "#c9b274", 1)
        + svg.path("M56 82q-4 6 0 10q4 -4 0 -10ZM65 78q4 6 0 10q-4 -4 0 -10Z", "#5d3418")
        + svg.path("M60 42C59 30 62 20 68 12", stroke=svg.ROOT, width=3.4)
    )


def berry(colour: str = "#b23a48") -> str:
    drupelets = "".join(
        svg.circle(60 + dx * 14 + (7 if row % 2 else 0), 44 + row * 13, 9.4, colour, "#00000030", 0.8)
        for row, span in enumerate(((-1, 0, 1), (-2, -1, 0, 1), (-2, -1, 0, 1, 2), (-2, -1, 0, 1), (-1, 0, 1), (-1, 0)))
        for dx in span
    )
    return (
        drupelets + svg.path("M40 34C50 24 70 24 80 34C70 40 50 40 40 34Z", svg.GREEN) + svg.path("M60 28L60 8", stroke=svg.STEM, width=3)
    )


def ear(tip: str = "") -> str:
    kernels = "".join(
        svg.ellipse(46 + 9.4 * column, 44 + 9 * row, 4.8, 4.2, "#e5c25a", stroke="#b9922f", width=0.6)
        for row in range(9)
        for column in range(4)
        if row > 0 or column in (1, 2)
    )
    husk = svg.path("M30 140C22 100 26 70 40 44C42 80 44 110 50 140Z", "#8fae5e") + svg.path(
        "M90 140C98 100 94 70 80 44C78 80 76 110 70 140Z", "#7b9a4c"
    )
    silk = "".join(
        svg.path(f"M{54 + 4 * n} 36C{48 + 7 * n} 20 {40 + 12 * n} 14 {34 + 15 * n} {4 + n % 2 * 4}", stroke="#c9a05a", width=1.4)
        for n in range(4)
    )
    return svg.path("M40 44C44 30 76 30 80 44C86 80 82 116 74 140L46 140C38 116 34 80 40 44Z", "#f0e2b4") + kernels + husk + (tip or silk)


def pod() -> str:
    bumps = "".join(svg.ellipse(60, 36 + 19 * n, 12, 9, "#8fae5e") for n in range(5))
    return svg.path("M60 4C80 20 80 110 64 136C40 112 40 24 60 4Z", "#7b9a4c", svg.STEM, 1.2) + bumps


def needles() -> str:
    """A shoot of a conifer."""
    rows = "".join(
        svg.path(
            f"M{60 + (n - 6) * 0.4:.1f} {128 - 9 * n}q{s * 18} -6 {s * 34} {-20 - n % 3 * 3}",
            stroke=svg.GREEN if s < 0 else svg.DARK_GREEN,
            width=3.2,
        )
        for n in range(12)
        for s in (-1, 1)
    )
    return svg.path("M60 142C60 100 58 50 60 18", stroke=svg.ROOT, width=4) + rows


def browned_needles(colour: str = "#a5622e") -> str:
    """A shoot of a conifer, the inner needles brown."""
    inner = (
        svg.path(f"M60 {128 - 9 * n}q{s * 18} -6 {s * 34} {-20 - n % 3 * 3}", stroke=colour, width=3.4) for n in range(7) for s in (-1, 1)
    )
    return needles() + "".join(inner)


def tree(rng: random.Random, crown: str = svg.GREEN, gaps: bool = False) -> str:
    leaves = "".join(
        svg.circle(
            60 + rng.uniform(-38, 38),
            rng.uniform(56 if gaps else 20, 88),
            rng.uniform(9, 15),
            rng.choice((crown, svg.DARK_GREEN if crown == svg.GREEN else crown)),
        )
        for _ in range(34)
    )
    limbs = "".join(
        svg.path(d, stroke=svg.ROOT, width=3) for d in ("M60 90L60 12", "M60 60L30 18", "M60 56L92 22", "M60 78L22 54", "M60 74L100 52")
    )
    return svg.path("M54 136L56 84L64 84L66 136Z", svg.ROOT) + limbs + leaves + svg.path("M8 136L112 136", stroke=svg.SOIL, width=4)


def row(plants: str) -> str:
    return svg.path("M0 112L120 112L120 142L0 142Z", svg.SOIL) + plants
