"""Damage on a leaf: cut out of it, or laid on it. Each takes the leaf, a random source and a severity from 0 to 1."""

import math
import random

from shapely.geometry import LineString, Point
from shapely.geometry.base import BaseGeometry

from bootmark.drawing import svg
from bootmark.drawing.leaf import Leaf


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
    along = [LineString(vein).buffer(4.2 * severity) for vein in leaf.veins()]
    patches = "".join(svg.path(svg.shape_d(patch.intersection(leaf.outline)), "#96602f", opacity="0.55") for patch in along)
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
        start, two = leaf.at(t, s), leaf.at(min(0.97, t + rng.uniform(0.03, 0.16)), max(-1.05, min(1.05, s + rng.uniform(-0.6, 0.6))))
        sag = ((start[0] + two[0]) / 2, (start[1] + two[1]) / 2 + rng.uniform(1, 4))
        parts.append(
            svg.path(f"M{start[0]:.1f} {start[1]:.1f}Q{sag[0]:.1f} {sag[1]:.1f} {two[0]:.1f} {two[1]:.1f}", stroke=svg.WHITE, width=0.55)
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


def curled(leaf: Leaf, rng: random.Random, severity: float = 0.6, *, up: bool = True) -> str:
    """Edges rolled: the blade narrows; upward, its pale underside shows as two rolls, downward it darkens at the edge."""
    leaf = Leaf(leaf.form, leaf.foot, leaf.tip, narrow=1 - 0.62 * severity)
    parts = [leaf.draw()]
    for side in (-1, 1):
        outer = [leaf.at(n / 24, side * 1.02) for n in range(1, 24)]
        inner = [leaf.at(n / 24, side * (1 - 0.62 * math.sin(math.pi * n / 24))) for n in range(23, 0, -1)]
        roll = svg.open_d(outer + inner) + "Z"
        light, dark = (svg.UNDER, svg.DARK_UNDER) if up else ("#4d6c36", "#43602e")
        parts.append(svg.path(roll, light if side < 0 else dark, svg.STEM, 0.8))
    if not up:
        x, y = leaf.tip
        parts.append(svg.path(f"M{x:.1f} {y:.1f}q10 6 8 22", stroke="#43602e", width=5))
    return "".join(parts)


def yellowed(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    return leaf.draw("#cdbf5b", "#b9a94b", "#efe7b5") + ("" if severity < 0.9 else specks(leaf, rng, 60, svg.DRY, (0.6, 1.6)))


def notches(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    for n in range(int(5 + 14 * severity)):
        x, y = leaf.at(0.12 + 0.76 * n / (5 + 14 * severity), 1 if n % 2 else -1)
        leaf.remove(Point(x, y).buffer(rng.uniform(3.5, 6)))
    return leaf.draw()


def shot(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    for _ in range(int(20 + 70 * severity)):
        leaf.remove(Point(*leaf.anywhere(rng, 0.88)).buffer(rng.uniform(0.9, 2), 3))
    return leaf.draw()


def windows(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    parts = [leaf.draw()]
    for _ in range(int(5 + 12 * severity)):
        x, y = leaf.anywhere(rng, 0.75)
        patch = svg.blob(rng, x, y, rng.uniform(3, 7.5)).intersection(leaf.outline.buffer(-1.5)).difference(leaf.veins_area(0.7))
        parts.append(svg.path(svg.shape_d(patch), "#eef1e2", "#a89a62", 0.9))
    return "".join(parts)


def skeleton(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    gone: list[BaseGeometry] = []
    for _ in range(int(14 + 24 * severity)):
        x, y = leaf.anywhere(rng, 0.9)
        gone.append(svg.blob(rng, x, y, rng.uniform(6, 13)))
    for piece in gone:
        leaf.remove(piece.difference(leaf.veins_area(1.0)))
    return leaf.draw("#8a9a5a", "#7b8b4c", "#b59a5c")


def stripped(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    parts = [leaf.draw()]
    for n in range(int(5 + 8 * severity)):
        t, side = rng.uniform(0.1, 0.75), rng.uniform(-0.7, 0.7)
        line = LineString([leaf.at(t, side), leaf.at(min(0.95, t + rng.uniform(0.1, 0.22)), side * 0.9)]).buffer(2.4 + n % 2)
        parts.append(svg.path(svg.shape_d(line.intersection(leaf.outline)), "#b59b5e", "#8a6a35", 0.8))
    return "".join(parts)


def _wander(leaf: Leaf, rng: random.Random, steps: int = 40) -> list[tuple[float, float]]:
    """A winding way up the blade that swings wider as it goes."""
    start, swing, turns = rng.uniform(0, math.tau), rng.uniform(0.5, 0.62), rng.uniform(2.2, 2.8)
    shift = rng.uniform(-0.12, 0.12)
    return [
        leaf.at(
            0.16 + 0.66 * n / steps + 0.05 * math.sin(n * 0.9),
            shift + (0.25 + 0.75 * n / steps) * swing * math.sin(start + turns * math.tau * n / steps) + rng.uniform(-0.03, 0.03),
        )
        for n in range(steps)
    ]


def mines(leaf: Leaf, rng: random.Random, severity: float = 0.5, *, frass: bool = False, larva: str = "") -> str:
    """Winding mines: a widening random walk."""
    parts = [leaf.draw()]
    for _ in range(1 + int(1.4 * severity)):
        walk = _wander(leaf, rng)
        for n in range(0, len(walk) - 4, 4):
            parts.append(svg.line(walk[n : n + 5], "#eef0d4", 1.4 + 0.085 * n))
        if frass or larva:
            parts.append(svg.line(walk, "#4a3a24", 0.9))
        if larva:
            x, y = walk[-1]
            parts.append(svg.ellipse(x, y, 4.6, 2.4, larva, turn=30, stroke="#8a6a2a", width=0.8))
    return "".join(parts)


def blotches(leaf: Leaf, rng: random.Random, severity: float = 0.5, *, larva: str = "", grains: bool = False) -> str:
    parts = [leaf.draw()]
    for _ in range(2 + int(2 * severity)):
        x, y = leaf.at(rng.uniform(0.3, 0.8), rng.uniform(-0.4, 0.4))
        patch = svg.blob(rng, x, y, rng.uniform(9, 16), 0.35, 14).intersection(leaf.outline.buffer(-1))
        parts.append(svg.path(svg.shape_d(patch), "#d8cfa0", "#9a8448", 1.1))
        if grains:
            parts += [svg.circle(x + rng.uniform(-7, 7), y + rng.uniform(-7, 7), 0.9, svg.INK) for _ in range(9)]
        if larva:
            parts.append(
                svg.ellipse(x, y, 8, 2.8, larva, turn=rng.uniform(0, 90), stroke="#8a6a4a", width=0.8) + svg.circle(x + 7, y, 2, "#4a3424")
            )
    return "".join(parts)


def patches(
    leaf: Leaf,
    rng: random.Random,
    colour: str,
    count: int,
    size: tuple[float, float],
    *,
    edge: str = "none",
    inside: float = 0.85,
    light: str = "",
    dark: str = "",
) -> str:
    """Soft patches laid on the blade."""
    parts = [leaf.draw(light, dark)]
    for _ in range(count):
        x, y = leaf.anywhere(rng, inside)
        patch = svg.blob(rng, x, y, rng.uniform(*size), 0.35, 12).intersection(leaf.outline)
        parts.append(svg.path(svg.shape_d(patch), colour, edge, 0.9))
    return "".join(parts)


def rings(leaf: Leaf, rng: random.Random, severity: float = 0.5, colours: tuple[str, str, str] = ("#7a4a22", "#c9a46c", "#f0e6cc")) -> str:
    parts = [leaf.draw()]
    for _ in range(int(5 + 8 * severity)):
        x, y = leaf.anywhere(rng, 0.75)
        r = rng.uniform(3.2, 5.6)
        parts.append(svg.circle(x, y, r, colours[1], colours[0], 1.6) + svg.circle(x, y, r * 0.45, colours[2], colours[0], 0.6))
    return "".join(parts)


def angular(leaf: Leaf, rng: random.Random, severity: float = 0.5, colour: str = "#c9b24a") -> str:
    """Spots with straight sides between veins."""
    parts = [leaf.draw()]
    for _ in range(int(7 + 10 * severity)):
        x, y = leaf.anywhere(rng, 0.8)
        r = rng.uniform(3.5, 7)
        cell = Point(x, y).buffer(r, quad_segs=1).intersection(leaf.outline).difference(leaf.veins_area(0.6))
        parts.append(svg.path(svg.shape_d(cell), colour, "#8a6a2a", 0.8))
    return "".join(parts)


def margin(leaf: Leaf, rng: random.Random, severity: float = 0.5, colour: str = "#d9c95a") -> str:
    band = leaf.outline.difference(leaf.outline.buffer(-3 - 9 * severity))
    return leaf.draw() + svg.path(svg.shape_d(band), colour, fill_rule="evenodd")


def between_veins(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    yellow = leaf.outline.buffer(-1).difference(leaf.veins_area(3.6 - 2 * severity))
    return leaf.draw() + svg.path(svg.shape_d(yellow), "#d9cf6a", fill_rule="evenodd", opacity="0.9")


def sunny_side(leaf: Leaf, rng: random.Random, severity: float = 0.6) -> str:
    half = leaf.outline.difference(leaf.dark.buffer(0.5)).buffer(-2 + severity)
    return leaf.draw() + svg.path(svg.shape_d(half), "#f2ecd0", "#c9b98a", 0.8, opacity="0.9")


def torn(leaf: Leaf, rng: random.Random, severity: float = 0.5) -> str:
    for n in range(int(4 + 5 * severity)):
        t = 0.15 + 0.7 * n / (4 + 5 * severity)
        side = 1 if rng.random() < 0.75 else -1
        leaf.remove(
            LineString([leaf.at(t, side * 1.1), leaf.at(max(0.03, t - 0.1), side * rng.uniform(0.05, 0.4))]).buffer(rng.uniform(0.8, 2.4))
        )
    return leaf.draw()


def bumps(leaf: Leaf, rng: random.Random, count: int, light: str, dark: str, size: tuple[float, float], inside: float = 0.8) -> str:
    """Raised bumps: a light side and a dark rim."""
    parts = [leaf.draw()]
    for _ in range(count):
        x, y = leaf.anywhere(rng, inside)
        r = rng.uniform(*size)
        parts.append(svg.circle(x, y, r, light, dark, 0.9) + svg.circle(x - r * 0.3, y - r * 0.3, r * 0.3, "#ffffff88"))
    return "".join(parts)


def twisted(leaf: Leaf, rng: random.Random, severity: float = 0.6, light: str = "", dark: str = "") -> str:
    """A leaf crumpled in no one direction."""
    outline = [leaf.at(n / 20, 0.75 + 0.25 * rng.uniform(-1, 1)) for n in range(21)] + [
        leaf.at(n / 20, -0.75 + 0.3 * rng.uniform(-1, 1)) for n in range(20, -1, -1)
    ]
    body = svg.path(svg.smooth_d([*outline, outline[0]]), light or svg.GREEN, svg.STEM, 0.8)
    folds = "".join(
        svg.path(
            svg.smooth_d(
                [
                    leaf.at(t, rng.uniform(-0.7, 0.7)),
                    leaf.at(t + 0.06, rng.uniform(-0.5, 0.5)),
                    leaf.at(min(0.97, t + 0.14), rng.uniform(-0.7, 0.7)),
                ]
            ),
            stroke=dark or "#4d6c36",
            width=2.2,
        )
        for t in (0.12, 0.24, 0.38, 0.5, 0.62, 0.74)
    )
    return leaf.stalk() + body + folds
