"""Marks that many signs are made of: spots, fur, wool, holes, drops, streaks, strewn over a part of a plant.

A mark is asked for with the place on which it is strewn, a function from a random source to a point, so that one mark serves leaf,
bark, fruit, root and turf.
"""

import math
import random
from collections.abc import Callable

from bootmark.drawing import backdrops, svg
from bootmark.drawing.laid import on
from bootmark.drawing.leaf import FORMS, Leaf
from bootmark.drawing.sketch import Draw, Mark

Where = Callable[[random.Random], tuple[float, float]]


def box(left: float, top: float, right: float, bottom: float) -> Where:
    return lambda rng: (rng.uniform(left, right), rng.uniform(top, bottom))


def disc(x: float, y: float, r: float) -> Where:
    def point(rng: random.Random) -> tuple[float, float]:
        angle, far = rng.uniform(0, math.tau), r * math.sqrt(rng.random())
        return x + far * math.cos(angle), y + far * math.sin(angle)

    return point


def along(x0: float, y0: float, x1: float, y1: float, wide: float) -> Where:
    """Along a line, to both sides of it."""

    def point(rng: random.Random) -> tuple[float, float]:
        share, aside = rng.uniform(0.06, 0.94), rng.uniform(-wide, wide)
        long = math.hypot(x1 - x0, y1 - y0)
        return x0 + share * (x1 - x0) - aside * (y1 - y0) / long, y0 + share * (y1 - y0) + aside * (x1 - x0) / long

    return point


BROWN, TAN, BLACK = "#6b4a24", "#c9a46c", "#26221e"
BLADE, BARK, STEM, FRUIT = along(22, 112, 100, 32, 22), box(34, 12, 86, 128), box(52, 14, 68, 128), disc(60, 80, 32)
ROOT, TURF, TIP = box(40, 56, 80, 124), box(10, 78, 110, 130), disc(60, 34, 20)
NEEDLES, GRAIN, BASE = box(30, 24, 90, 120), box(16, 60, 104, 122), box(40, 84, 80, 122)


def spots(
    where: Where, colour: str, count: int, size: tuple[float, float], *, edge: str = "none", halo: str = "", eye: str = "", dots: int = 0
) -> Mark:
    """Round spots. halo: colour about each; eye: colour in its middle; dots: tiny dark ones in it."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            (x, y), r = where(rng), rng.uniform(*size)
            parts.append(svg.circle(x, y, r * 1.7, halo) if halo else "")
            parts.append(svg.circle(x, y, r, colour, edge, 1.1))
            parts.append(svg.circle(x, y, r * 0.42, eye) if eye else "")
            parts += [svg.circle(x + rng.uniform(-0.5, 0.5) * r, y + rng.uniform(-0.5, 0.5) * r, 0.9, svg.INK) for _ in range(dots)]
        return "".join(parts)

    return mark


def blots(where: Where, colour: str, count: int, size: tuple[float, float], edge: str = "none", rough: float = 0.4) -> Mark:
    """Patches without a form of their own."""

    def mark(rng: random.Random) -> str:
        shapes = (svg.blob(rng, *where(rng), rng.uniform(*size), rough, 14) for _ in range(count))
        return "".join(svg.path(svg.shape_d(shape), colour, edge, 1.2) for shape in shapes)

    return mark


def tufts(where: Where, colour: str, count: int, long: float = 6, width: float = 1.0) -> Mark:
    """Short hairs: fur of a mould."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            x, y = where(rng)
            parts.append(f"M{x:.1f} {y:.1f}l{rng.uniform(-0.5, 0.5) * long:.1f} {-rng.uniform(0.5, 1) * long:.1f}")
        return svg.path("".join(parts), stroke=colour, width=width)

    return mark


def wool(where: Where, count: int = 9, size: float = 5, colour: str = "#f6f4ee") -> Mark:
    """Balls of white fluff."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            x, y = where(rng)
            parts += [
                svg.circle(
                    x + rng.uniform(-1, 1) * size * 0.6,
                    y + rng.uniform(-1, 1) * size * 0.5,
                    size * rng.uniform(0.4, 0.7),
                    colour,
                    "#c9c3b4",
                    0.6,
                )
                for _ in range(4)
            ]
        return "".join(parts)

    return mark


def dashes(where: Where, colour: str, count: int, dx: float, dy: float, width: float = 2.0) -> Mark:
    """Streaks that run one way."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            (x, y), share = where(rng), rng.uniform(0.6, 1.2)
            parts.append(f"M{x - dx * share / 2:.1f} {y - dy * share / 2:.1f}l{dx * share:.1f} {dy * share:.1f}")
        return svg.path("".join(parts), stroke=colour, width=width)

    return mark


def holes(where: Where, count: int, r: float, rim: str = "#4a3322", dust: str = "") -> Mark:
    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            x, y = where(rng)
            parts.append(svg.circle(x, y, r, "#1d1510", rim, 1.4))
            parts += [svg.circle(x + rng.uniform(-r, r), y + r + rng.uniform(0, 2.4 * r), 1.2, dust) for _ in range(7 if dust else 0)]
        return "".join(parts)

    return mark


def drops(where: Where, colour: str, count: int, size: float = 6, edge: str = "#00000033") -> Mark:
    """Drops that hang and run."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            (x, y), s = where(rng), size * rng.uniform(0.7, 1.2)
            parts.append(
                svg.path(
                    f"M{x:.1f} {y - s:.1f}q{s * 0.9:.1f} {s * 1.2:.1f} 0 {s * 2:.1f}q{-s * 0.9:.1f} {-s * 0.8:.1f} 0 {-s * 2:.1f}Z",
                    colour,
                    edge,
                    0.8,
                )
            )
        return "".join(parts)

    return mark


def eggs(x: float, y: float, columns: int, rows: int, colour: str, *, size: float = 4, edge: str = "#a5803f", tall: float = 1.3) -> str:
    """Eggs in rows."""
    return "".join(
        svg.ellipse(x + column * size * 2.1, y + row * size * 2.1 * tall, size, size * tall, colour, stroke=edge, width=0.9)
        for row in range(rows)
        for column in range(columns)
    )


def threads(where: Where, colour: str, count: int, reach: float = 26, width: float = 0.9) -> Mark:
    """Silk, strung from point to point."""

    def mark(rng: random.Random) -> str:
        parts = []
        for _ in range(count):
            x, y = where(rng)
            bend = f"{rng.uniform(-6, 6):.1f} {rng.uniform(-6, 6):.1f}"
            parts.append(f"M{x:.1f} {y:.1f}q{bend} {rng.uniform(-reach, reach):.1f} {rng.uniform(-reach, reach):.1f}")
        return svg.path("".join(parts), stroke=colour, width=width)

    return mark


def on_form(*marks: Mark | str, form: str = "", light: str = "", dark: str = "", under: bool = False) -> Draw:
    """Marks on a whole leaf of one form, coloured."""
    leaf = Leaf(FORMS[form or "ovate"], under=under)
    return on(leaf.draw(light, dark), *marks)


LEAF = along(60, 112, 60, 20, 24)
GRASS_BLADE = along(60, 128, 60, 12, 5)


def bulb(inside: str, skin: str = "#9a7a4a") -> str:
    """A bulb cut through."""
    cut = svg.path("M60 12C86 34 104 66 98 96C92 118 76 128 60 128C44 128 28 118 22 96C16 66 34 34 60 12Z", "#efe6cf", skin, 2)
    return cut + svg.path("M40 128l-6 12M54 130l-2 11M66 130l2 11M80 128l6 12", stroke="#b9a27a", width=1.6) + inside


def slit(inside: str = "", wood: str = backdrops.PALE_WOOD) -> str:
    """A stem slit along."""
    return svg.path("M36 142L38 -2L82 -2L84 142Z", "#7f9f58") + svg.path("M46 142L47 -2L73 -2L74 142Z", wood) + inside


def tuber(colour: str = "#c9a86a", edge: str = "#8a6a3a") -> str:
    return svg.path("M16 84C14 50 44 34 70 38C98 42 112 70 104 96C96 120 62 128 40 118C24 112 18 102 16 84Z", colour, edge, 1.6)


def grain(colour: str = "#d8b45a") -> str:
    """A heap of kernels."""
    rng = random.Random(7)
    kernels = "".join(
        svg.ellipse(rng.uniform(10, 110), rng.uniform(52, 130), 7, 4.2, colour, turn=rng.uniform(0, 180), stroke="#9a7a34", width=0.7)
        for _ in range(70)
    )
    return svg.path("M0 58C40 40 84 44 120 60L120 142L0 142Z", "#e6d3a2") + kernels


def sapling(colours: tuple[str, str] = (svg.GREEN, svg.DARK_GREEN)) -> str:
    """A shoot with leaves."""
    leaves = "".join(
        svg.path(
            f"M60 {118 - 22 * n}q{14 * side} {-20} {38 * side} {-18}q{-6 * side} 20 {-38 * side} 18Z",
            colours[0] if side < 0 else colours[1],
        )
        for n in range(4)
        for side in (-1, 1)
    )
    return svg.path("M60 142L60 20", stroke=svg.STEM, width=4) + leaves + svg.path("M60 30q-12 -18 0 -28q12 10 0 28Z", colours[0])


def turf() -> str:
    """Grass, seen from above."""
    rng = random.Random(3)
    blades = "".join(
        svg.path(f"M{x:.0f} {y:.0f}l{rng.uniform(-3, 3):.1f} -9", stroke=rng.choice((svg.GREEN, svg.DARK_GREEN)), width=2)
        for x, y in ((rng.uniform(2, 118), rng.uniform(40, 140)) for _ in range(110))
    )
    return svg.path("M0 34C40 28 80 38 120 32L120 142L0 142Z", "#8fae62") + blades + backdrops.grass_edge(34)
