"""Signs that show on a leaf: eaten, mined, coloured, curled, spotted, or lying on it."""

import random

from bootmark.drawing import backdrops, damage, scenes, svg
from bootmark.drawing.leaf import Leaf
from bootmark.drawing.sketch import Draw, Sketch, on_leaf, plain


def _soft(colour: str, count: int, size: tuple[float, float], edge: str = "none", inside: float = 0.85) -> Draw:
    return lambda sketch: damage.patches(
        sketch.leaf(), sketch.rng, colour, round(count * (0.4 + sketch.severity)), size, edge=edge, inside=inside
    )


def _bumped(count: int, light: str, dark: str, size: tuple[float, float], under: bool = False) -> Draw:
    return lambda sketch: damage.bumps(sketch.leaf(under=under), sketch.rng, round(count * (0.4 + sketch.severity)), light, dark, size)


def _rolled(sketch: Sketch) -> str:
    leaf = Leaf(sketch.leaf().form, narrow=0.45)
    threads = "".join(
        svg.line([leaf.at(t, -1), leaf.at(t + 0.05, 0.9)], svg.WHITE, 1.3)
        + svg.line([leaf.at(t + 0.05, -0.9), leaf.at(t, 1)], svg.WHITE, 1.3)
        for t in (0.22, 0.36, 0.5, 0.64, 0.78)
    )
    seam = svg.smooth_d([leaf.at(n / 10, 0.35 * (1 if n % 2 else -0.2)) for n in range(1, 10)])
    return leaf.draw() + svg.path(seam, stroke="#3f5a2c", width=2.4) + threads


def _tied(sketch: Sketch) -> str:
    back = Leaf(sketch.leaf().form, (50, 112), (34, 14)).draw("#5d8040", "#527239")
    front = Leaf(sketch.leaf().form, (64, 112), (84, 16)).draw()
    silk = "".join(svg.path(f"M{42 + n} {30 + 13 * n}q16 {6 - n} 34 {-2 + n}", stroke=svg.WHITE, width=1.5) for n in range(6))
    return back + front + silk


def _leaflet(x: float, y: float, turn: float, size: float, colour: str) -> str:
    """A leaf too small to show teeth or veins."""
    body = svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", colour) + svg.path("M0 0L33 0", stroke=svg.VEIN, width=1)
    return f'<g transform="translate({x:.0f} {y:.0f}) rotate({turn:.0f}) scale({size})">{body}</g>'


def _small(sketch: Sketch) -> str:
    parts = [svg.path("M60 138C60 100 60 60 60 22", stroke=svg.STEM, width=4)]
    for n in range(12):
        for side in (-1, 1):
            turn = -90 + side * (64 - 4 * n)
            parts.append(_leaflet(60, 128 - 9 * n, turn, 0.52, svg.GREEN if side < 0 else svg.DARK_GREEN))
    return "".join(parts)


def _strapped(sketch: Sketch) -> str:
    parts = []
    for x, tip in ((50, (22, 14)), (60, (58, 4)), (70, (100, 20))):
        leaf = Leaf(sketch.leaf(form="blade").form, (x, 116), tip)
        parts.append(leaf.draw())
        parts += [svg.line([leaf.at(t / 10, s) for t in range(1, 10)], "#dfe8c8", 0.9) for s in (-0.5, 0.5)]
    return "".join(parts) + svg.path("M60 116C66 124 52 130 60 140", stroke=svg.STEM, width=5)


def _roll(x: float, y: float, turn: float, size: float) -> str:
    """A small leaf with both edges rolled up."""
    body = svg.path("M0 0C8 -9 26 -9 40 0C26 9 8 9 0 0Z", svg.GREEN) + "".join(
        svg.path(
            f"M2 {-2 * side}C10 {-9 * side} 26 {-9 * side} 40 0C28 {-3 * side} 12 {-2 * side} 2 {-2 * side}Z", svg.UNDER, svg.STEM, 0.8
        )
        for side in (-1, 1)
    )
    return f'<g transform="translate({x} {y}) rotate({turn}) scale({size})">{body}</g>'


STEM = svg.path("M60 140C60 104 60 64 60 30", stroke=svg.STEM, width=4)
LOW = ((118, -20), (118, 200), (92, -26), (92, 206))
TOP = ((66, -36), (66, 216), (46, -54), (46, 234), (32, -90))


def _new_only(sketch: Sketch) -> str:
    low = "".join(_leaflet(60, y, turn, 1.15, svg.GREEN if turn > 0 else svg.DARK_GREEN) for y, turn in LOW)
    return STEM + low + "".join(_roll(60, y, turn, 0.85) for y, turn in TOP)


def _all_leaves(sketch: Sketch) -> str:
    return STEM + "".join(_roll(60, y, turn, 1.1) for y, turn in LOW) + "".join(_roll(60, y, turn, 0.85) for y, turn in TOP)


def _bronze_rings(leaf: Leaf, rng: random.Random, severity: float) -> str:
    parts = [leaf.draw("#86924e", "#778343")]
    for _ in range(3 + int(7 * severity)):
        x, y = leaf.anywhere(rng, 0.7)
        parts += [svg.circle(x, y, r, "none", "#7a4a22", 1.1) for r in (rng.uniform(5, 7.5), 2.6)]
    return "".join(parts) + damage.specks(leaf, rng, 60, "#7a4a22", (0.4, 0.9))


def _down(leaf: Leaf, rng: random.Random, severity: float) -> str:
    body = damage.angular(leaf, rng, severity, "#b8a970")
    fluff = "".join(
        svg.path(f"M{x:.1f} {y:.1f}l{rng.uniform(-3, 3):.1f} {rng.uniform(-5, -2):.1f}", stroke="#8f8499", width=1)
        for x, y in (leaf.anywhere(rng, 0.7) for _ in range(int(60 + 90 * severity)))
    )
    return body + fluff


def _mosaic(leaf: Leaf, rng: random.Random, severity: float) -> str:
    parts = [leaf.draw("#a9bf6a", "#9bb15c")]
    for _ in range(int(16 + 20 * severity)):
        x, y = leaf.anywhere(rng, 0.9)
        patch = svg.blob(rng, x, y, rng.uniform(4, 8), 0.4, 7).intersection(leaf.outline).difference(leaf.veins_area(0.4))
        parts.append(svg.path(svg.shape_d(patch), "#567a3c"))
    return "".join(parts)


def _water_soaked(leaf: Leaf, rng: random.Random, severity: float) -> str:
    parts = [leaf.draw()]
    for t, side in ((0.97, 0.2), (0.7, 0.95), (0.4, -0.95), (0.25, 0.8))[: 2 + round(2 * severity)]:
        x, y = leaf.at(t, side)
        outer, inner = (svg.blob(rng, x, y, r, 0.2, 14).intersection(leaf.outline) for r in (21, 17))
        parts.append(svg.path(svg.shape_d(outer), "#b6b65e") + svg.path(svg.shape_d(inner), "#4a4632"))
    return "".join(parts)


def _specks_dry(leaf: Leaf, rng: random.Random, severity: float) -> str:
    return damage.patches(leaf, rng, "#efe7cf", round(10 + 26 * severity), (1.4, 4.4), edge="#a8853f", inside=0.9)


def _powder(leaf: Leaf, rng: random.Random, severity: float) -> str:
    parts = [leaf.draw()]
    for _ in range(5 + int(9 * severity)):
        x, y = leaf.anywhere(rng, 0.75)
        patch = svg.blob(rng, x, y, rng.uniform(6, 12), 0.25, 14).intersection(leaf.outline)
        parts.append(svg.path(svg.shape_d(patch), "#f4f2e8", opacity="0.75"))
    return "".join(parts) + damage.specks(leaf, rng, 120, "#ffffff", (0.4, 0.9))


def _rust(leaf: Leaf, rng: random.Random, severity: float) -> str:
    return damage.bumps(leaf, rng, round(30 + 60 * severity), "#c9702a", "#8a3f12", (0.9, 1.9), 0.88)


def _velvet(leaf: Leaf, rng: random.Random, severity: float) -> str:
    body = damage.patches(leaf, rng, "#4c4f2c", round(6 + 9 * severity), (3.5, 8), edge="#34361d")
    return body + damage.specks(leaf, rng, 90, "#2c2d18", (0.4, 0.8))


def _rosette(sketch: Sketch) -> str:
    leaves = "".join(_leaflet(60, 74, turn - 90, 1.0, svg.GREEN if turn < 0 else svg.DARK_GREEN) for turn in range(-110, 111, 22))
    buds = "".join(
        svg.circle(60 + sketch.rng.uniform(-12, 12), 72 + sketch.rng.uniform(-9, 9), 5.4, "#8fae5e", svg.STEM, 1) for _ in range(12)
    )
    return svg.path("M60 140L60 74", stroke=svg.STEM, width=6) + leaves + buds


def _thick_red(sketch: Sketch) -> str:
    leaf = sketch.leaf()
    base = damage.twisted(leaf, sketch.rng, sketch.severity, "#b9804a", "#8f3a2a")
    return base + "".join(
        svg.circle(*leaf.anywhere(sketch.rng, 0.6), sketch.rng.uniform(4, 8), "#b8473a", "#7d2a1f", 0.8)
        for _ in range(5 + int(6 * sketch.severity))
    )


def _pouches(sketch: Sketch) -> str:
    leaf = sketch.leaf()
    parts = [leaf.draw()]
    for _ in range(8 + int(12 * sketch.severity)):
        x, y = leaf.anywhere(sketch.rng, 0.75)
        parts.append(
            svg.path(
                f"M{x - 2:.1f} {y:.1f}C{x - 4:.1f} {y - 6:.1f} {x - 2:.1f} {y - 13:.1f} {x:.1f} {y - 14:.1f}C{x + 2:.1f} {y - 13:.1f} {x + 4:.1f} {y - 6:.1f} {x + 2:.1f} {y:.1f}Z",
                "#c0503c",
                "#7d2a1f",
                0.8,
            )
        )
    return "".join(parts)


def _copious(sketch: Sketch) -> str:
    body = scenes.shoot()
    sheets = svg.path("M22 40C40 20 84 18 100 42C104 70 96 92 62 104C30 94 18 70 22 40Z", "#ffffff", opacity="0.42")
    threads = "".join(
        svg.line(
            [(sketch.rng.uniform(14, 106), sketch.rng.uniform(20, 60)), (sketch.rng.uniform(14, 106), sketch.rng.uniform(50, 112))],
            svg.WHITE,
            0.8,
        )
        for _ in range(int(14 + 26 * sketch.severity))
    )
    return (
        body
        + sheets
        + threads
        + "".join(svg.ellipse(sketch.rng.uniform(28, 92), sketch.rng.uniform(34, 96), 1.5, 1.1, "#b8502a") for _ in range(20))
    )


def _tent(sketch: Sketch) -> str:
    silk = svg.path("M60 118C36 96 34 52 44 24C60 14 92 20 100 40C96 78 84 104 60 118Z", "#f1ede2", "#c9c1ad", 1.2)
    lines = "".join(
        svg.path(f"M{60 - n} {114 - 4 * n}C{46 + 5 * n} 80 {44 + 7 * n} 50 {48 + 6 * n} {26 + n % 3 * 3}", stroke="#d8d0bd", width=1)
        for n in range(8)
    )
    return (
        svg.path("M60 142C60 120 44 80 28 10M60 118C74 90 92 60 112 26", stroke=svg.ROOT, width=6)
        + silk
        + lines
        + scenes.frass(sketch.rng, 66, 88, 18, 14)
    )


def _torn(sketch: Sketch) -> str:
    return damage.torn(sketch.leaf(), sketch.rng, sketch.severity)


def _glassy(sketch: Sketch) -> str:
    plant = scenes.shoot(droop=True)
    for green, dark in ((svg.GREEN, "#4a4a3c"), (svg.DARK_GREEN, "#3a3a30"), (svg.VEIN, "#6d6d5a")):
        plant = plant.replace(green, dark)
    return plant


def _sugar(sketch: Sketch) -> str:
    return sketch.leaf(under=True).draw() + "".join(
        svg.path(f"M{x:.1f} {y:.1f}l2.6 -1l1 2.4l-2.6 1Z", svg.WHITE, "#b9b39d", 0.5)
        for x, y in (sketch.leaf().anywhere(sketch.rng, 0.8) for _ in range(round(30 + 50 * sketch.severity)))
    )


DRAWN: dict[str, Draw] = {
    "stippling": on_leaf(damage.stippling),
    "bronzing": on_leaf(damage.bronzing),
    "silvering": on_leaf(damage.silvering),
    "black-specks-in-silver": lambda sketch: damage.silvering(sketch.leaf(), sketch.rng, sketch.severity, 26),
    "webbing-fine": on_leaf(damage.webbing),
    "webbing-copious": _copious,
    "black-spots-under-the-leaf": lambda sketch: damage.spots(sketch.leaf(under=True), sketch.rng, round(15 + 40 * sketch.severity)),
    "curl-up": on_leaf(damage.curled),
    "curl-down": lambda sketch: damage.curled(sketch.leaf(), sketch.rng, sketch.severity, up=False),
    "curl-random": on_leaf(damage.twisted),
    "curl-on-all-leaves": _all_leaves,
    "curl-on-new-growth-only": _new_only,
    "leaves-small": _small,
    "leaves-strapped": _strapped,
    "leaf-rolled": _rolled,
    "leaf-tied": _tied,
    "leaf-thick-and-red": _thick_red,
    "honeydew": on_leaf(damage.honeydew),
    "sooty-film": on_leaf(damage.sooty),
    "cast-skins": lambda sketch: sketch.leaf(under=True).draw() + scenes.skins(sketch.rng),
    "chewed-holes": on_leaf(damage.chewed),
    "edge-notches": on_leaf(damage.notches),
    "windows": on_leaf(damage.windows),
    "skeletons": on_leaf(damage.skeleton),
    "stripped-surface": on_leaf(damage.stripped),
    "shot-holes": on_leaf(damage.shot),
    "stubs": on_leaf(damage.stubs),
    "black-pellets-on-leaves": lambda sketch: sketch.leaf().draw() + scenes.pellets(sketch.rng),
    "circles-cut-from-the-edge": on_leaf(damage.circles),
    "leaf-still-green-and-working": lambda sketch: sketch.leaf().draw(),
    "winding-mines": on_leaf(damage.mines),
    "frass-line-in-mine": lambda sketch: damage.mines(sketch.leaf(), sketch.rng, sketch.severity, frass=True),
    "larva-in-the-mine": lambda sketch: damage.mines(sketch.leaf(), sketch.rng, 0.2, larva="#e9d36a"),
    "blotch-mines": on_leaf(damage.blotches),
    "dark-blotch-with-large-larva": lambda sketch: damage.blotches(sketch.leaf(), sketch.rng, 0.4, larva="#9fb08a", grains=True),
    "yellow-specks": _soft("#e2d36a", 20, (1.6, 4.4)),
    "yellowing-from-below": on_leaf(damage.yellowed),
    "yellowing-at-the-margin": on_leaf(damage.margin),
    "yellow-between-veins": on_leaf(damage.between_veins),
    "mottled-mosaic": on_leaf(_mosaic),
    "scorch-at-the-margin": on_leaf(damage.scorch),
    "scorch-on-the-sunny-side": on_leaf(damage.sunny_side),
    "bleached-patches": on_leaf(_specks_dry),
    "leaves-torn": _torn,
    "blackened-soft-tissue": _glassy,
    "corky-bumps-below": _bumped(30, "#d2b487", "#8a6a35", (1.2, 2.6), under=True),
    "galls-blister": _bumped(18, "#b8863f", "#7d4a22", (2.6, 5)),
    "galls-pouch": _pouches,
    "galls-rosette": _rosette,
    "white-powder": on_leaf(_powder),
    "rust-pustules": on_leaf(_rust, under=True),
    "down-under-spots": on_leaf(_down, under=True),
    "olive-velvet-spots": on_leaf(_velvet),
    "angular-spots": on_leaf(damage.angular),
    "ringed-spots": on_leaf(damage.rings),
    "water-soaked-blotches": on_leaf(_water_soaked),
    "bronze-rings-on-leaf": on_leaf(_bronze_rings),
    "salt-like-sugar": _sugar,
    "tents": _tent,
    "moving-specks-on-white-paper": plain(scenes.paper_specks),
    "slime-trail": lambda sketch: (
        backdrops.blade()
        + svg.path("M6 112C30 70 44 108 62 74S96 60 112 20", stroke="#e9eef0", width=7, opacity="0.8")
        + svg.path("M8 110C32 70 46 106 64 72S96 58 112 20", stroke="#ffffff", width=2)
    ),
}
