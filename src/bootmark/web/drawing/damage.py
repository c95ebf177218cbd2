"""Damage on a leaf: cut out of it, or laid on it. Each takes the leaf, a random source and a severity from 0 to 1."""

import math
import random

from shapely.geometry import LineString, Point
from shapely.geometry.base import BaseGeometry

from bootmark.web.drawing import svg
from bootmark.web.drawing.leaf import Leaf


def chewed(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    for _ in range(int(4 + 8 * severity)):
        x, y = leaf.anywhere(rng, 0.85)
        leaf.remove(svg.blob(rng, x, y, rng.uniform(3.5, 8)))
    return leaf.draw()


def circles(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    for n in range(int(2 + 5 * severity)):
        side = 1 if n % 2 else -1
        x, y = leaf.at(0.2 + 0.6 * (n + rng.uniform(0, 0.6)) / (2 + 5 * severity), side)
        leaf.remove(Point(x, y).buffer(rng.uniform(8, 11)))
    return leaf.draw()


def stubs(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    keep = leaf.veins_area(1.3)
    lower = leaf.outline.intersection(svg.blob(rng, *leaf.at(0.08, 0), 20))
    leaf.remove(leaf.outline.difference(keep).difference(lower))
    return leaf.draw()


def specks(leaf: Leaf, rng: random.Random, count: int, colour: str, size: tuple[float, float], inside: float = 0.93) -> str:
    parts = []
    while count:
        x, y = leaf.anywhere(rng, inside)
        if leaf.keep(x, y, 1.0):
            parts.append(svg.circle(x, y, rng.uniform(*size), colour))
            count -= 1
    return "".join(parts)


def stippling(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    return leaf.draw("#7d9d5d", "#6b8b4c") + specks(leaf, rng, int(420 * severity), svg.PALE, (0.4, 0.85))


def bronzing(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    leaf_svg = leaf.draw("#8f8a4a", "#7b763c", "#d9cf9a")
    along = [LineString(one).buffer(4.2 * severity) for one in leaf.veins()]
    patches = "".join(svg.path(svg.shape_d(one.intersection(leaf.outline)), "#96602f", opacity="0.55") for one in along)
    return leaf_svg + patches + specks(leaf, rng, 120, "#c9a46c", (0.4, 0.8))


def silvering(leaf: Leaf, rng: random.Random, severity: float = 0.5, droppings: int = 0) -> str:
    parts = [leaf.draw()]
    patches: list[BaseGeometry] = []
    for _ in range(int(5 + 6 * severity)):
        x, y = leaf.anywhere(rng, 0.7)
        patch = svg.blob(rng, x, y, rng.uniform(4, 9), 0.45, 12).intersection(leaf.outline.buffer(-1.5))
        patches.append(patch)
        parts.append(svg.path(svg.shape_d(patch), "#dfe3d6", "#c3c9b8", 0.5))
    for n in range(droppings):
        patch = patches[n % len(patches)]
        spot = patch.representative_point()
        parts.append(svg.circle(spot.x + rng.uniform(-4, 4), spot.y + rng.uniform(-4, 4), rng.uniform(0.8, 1.2), svg.INK))
    return "".join(parts)


def webbing(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    parts = [leaf.draw(), specks(leaf, rng, 90, svg.PALE, (0.4, 0.8))]
    for _ in range(int(40 * severity)):
        t, s = rng.uniform(0.1, 0.85), rng.uniform(-0.7, 0.7)
        one, two = leaf.at(t, s), leaf.at(min(0.97, t + rng.uniform(0.03, 0.16)), max(-1.05, min(1.05, s + rng.uniform(-0.6, 0.6))))
        sag = ((one[0] + two[0]) / 2, (one[1] + two[1]) / 2 + rng.uniform(1, 4))
        parts.append(
            svg.path(f"M{one[0]:.1f} {one[1]:.1f}Q{sag[0]:.1f} {sag[1]:.1f} {two[0]:.1f} {two[1]:.1f}", stroke=svg.WHITE, width=0.55)
        )
    for _ in range(9):
        x, y = leaf.anywhere(rng, 0.6)
        parts.append(svg.ellipse(x, y, 1.2, 0.9, "#b8502a", turn=rng.uniform(0, 180)))
    return "".join(parts)


def honeydew(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    parts = [leaf.draw()]
    for _ in range(int(24 * severity)):
        x, y = leaf.anywhere(rng, 0.8)
        r = rng.uniform(1.2, 3.2)
        parts += [
            svg.ellipse(x, y, r, r * 0.85, "#d8dca4", stroke="#f3f2cf", width=0.6),
            svg.circle(x - r / 3, y - r / 3, r / 3.2, svg.WHITE),
        ]
    return "".join(parts)


def sooty(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    parts = [leaf.draw()]
    for _ in range(int(16 * severity)):
        x, y = leaf.anywhere(rng, 0.8)
        patch = svg.blob(rng, x, y, rng.uniform(5, 12), 0.4, 12).intersection(leaf.outline)
        parts.append(svg.path(svg.shape_d(patch), "#2b2d2b", opacity="0.5"))
    return "".join(parts)


def scorch(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    inner = leaf.outline.buffer(-4 - 8 * severity)
    band, halo = leaf.outline.difference(inner), leaf.outline.difference(inner.buffer(-2))
    return (
        leaf.draw()
        + svg.path(svg.shape_d(halo), "#b5a24c", fill_rule="evenodd")
        + svg.path(svg.shape_d(band), "#a87c3f", fill_rule="evenodd")
    )


def spots(leaf: Leaf, rng: random.Random, count: int = 36) -> str:
    return leaf.draw() + specks(leaf, rng, count, svg.INK, (0.7, 1.4), 0.85)


def curled(rng: random.Random) -> str:
    """Edges rolled upward: the blade narrows and its pale underside shows as two rolls."""
    leaf = Leaf(narrow=0.62)
    parts = [leaf.draw()]
    for side in (-1, 1):
        outer = [leaf.at(n / 24, side * 1.02) for n in range(1, 24)]
        inner = [leaf.at(n / 24, side * (1 - 0.62 * math.sin(math.pi * n / 24))) for n in range(23, 0, -1)]
        roll = svg.open_d(outer + inner) + "Z"
        parts.append(svg.path(roll, svg.UNDER if side < 0 else svg.DARK_UNDER, svg.STEM, 0.8))
    return "".join(parts)


def yellowed(leaf: Leaf) -> str:
    return leaf.draw("#cdbf5b", "#b9a94b", "#efe7b5")
