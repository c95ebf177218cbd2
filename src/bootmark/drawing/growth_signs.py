"""Signs of diseases and of growth gone wrong, on bark, stem, root, ear, turf and leaf."""

import math
from collections.abc import Sequence

from bootmark.drawing import backdrops, scenes, soil, svg
from bootmark.drawing.backdrops import apple, bark, blade, earth, grass, stem, twig
from bootmark.drawing.sketch import Draw, Sketch
from bootmark.drawing.svg import circle, ellipse, path


def _pins(sketch: Sketch) -> str:
    at = [(sketch.rng.uniform(30, 90), sketch.rng.uniform(8, 118)) for _ in range(22)]
    return bark() + "".join(circle(x, y, 2, "#1f1610") for x, y in at) + scenes.frass(sketch.rng, 60, 130, 34, 22)


def _fan(sketch: Sketch) -> str:
    sides = "".join(
        path(
            f"M60 {24 + 9 * n}C{60 + side * 12} {22 + 9 * n} {60 + side * 26} {20 + 9 * n + 2 * side} {60 + side * (34 + n % 3 * 4)} {26 + 10 * n}",
            stroke="#7a5a34",
            width=2.2,
        )
        for n in range(10)
        for side in (-1, 1)
    )
    return path("M14 0L106 0L106 142L14 142Z", "#e3cfa2", "#8a6a35", 1.2) + path("M60 16L60 124", stroke="#5d4024", width=6) + sides


def _tubes(sketch: Sketch) -> str:
    return (
        bark(96)
        + path("M40 142C36 104 52 84 44 52C40 34 52 18 48 0L64 0C66 22 54 36 60 54C68 86 52 106 58 142Z", "#a5825a", "#6b4f30", 1.4)
        + path("M84 142C80 118 90 104 84 84", stroke="#a5825a", width=9)
    )


def _brackets(sketch: Sketch) -> str:
    return bark(64) + "".join(
        path(
            f"M{x} {y}C{x + 34} {y - 12} {x + 44} {y + 4} {x + 38} {y + 12}C{x + 26} {y + 16} {x + 8} {y + 16} {x} {y + 12}Z",
            "#b9834a",
            "#6b4423",
            1.4,
        )
        + path(f"M{x + 2} {y + 11}C{x + 14} {y + 16} {x + 28} {y + 15} {x + 37} {y + 11}", stroke="#f0e0c0", width=3)
        for x, y in ((66, 34), (62, 66), (70, 96))
    )


def _lumps(sketch: Sketch, lumps: Sequence[tuple[float, float, float, str]], *, rough: float, edge: str, width: float) -> str:
    """Rough round shapes. lumps: middle, radius and colour of each."""
    return "".join(path(svg.shape_d(svg.blob(sketch.rng, x, y, r, rough)), colour, edge, width) for x, y, r, colour in lumps)


def _lichens(sketch: Sketch) -> str:
    lumps = ((46, 34, 13, "#c9cda0"), (72, 64, 16, "#d6c45a"), (48, 92, 14, "#b7c2a8"), (76, 114, 10, "#d6c45a"))
    return bark() + _lumps(sketch, lumps, rough=0.3, edge="#8a8f6a", width=0.8)


def _hard_galls(sketch: Sketch) -> str:
    return blade() + "".join(
        circle(x, y, r, "#c28a4a", "#7a4a22", 1.4) + circle(x - r / 3, y - r / 3, r / 4, "#e9c9a0")
        for x, y, r in ((46, 64, 12), (74, 52, 9), (64, 90, 14))
    )


def _rolled_edge(sketch: Sketch) -> str:
    return (
        blade()
        + path("M16 116C22 70 48 28 98 20C62 36 38 76 28 118Z", "#a8624a", "#6b3426", 1.4)
        + path("M104 100C92 112 66 124 36 124C64 118 88 108 100 94Z", "#a8624a", "#6b3426", 1.4)
    )


def _broom(sketch: Sketch) -> str:
    return twig(12) + "".join(
        path(f"M60 92C{60 + 3 * n} {70} {60 + 6 * n} {46} {60 + 9 * n} {18 + abs(n) * 5}", stroke="#7a8a4a", width=2)
        + ellipse(60 + 9 * n, 18 + abs(n) * 5, 3, 6, "#b7c77a", turn=9 * n)
        for n in range(-5, 6)
    )


def _green_flower(sketch: Sketch) -> str:
    petals = "".join(
        f'<g transform="translate(60 62) rotate({n * 72 - 90})">{path("M6 0C16 -16 40 -14 50 0C40 14 16 16 6 0Z", "#8fae5a", "#4f6a2c", 1.4)}</g>'
        for n in range(5)
    )
    return path("M60 74C60 100 56 120 58 140", stroke=svg.STEM, width=4) + petals + circle(60, 62, 9, "#6d8a3c")


def _line_pattern(sketch: Sketch) -> str:
    rings = "".join(circle(x, y, r, "none", "#e3dc9a", 2.2) for x, y in ((46, 68), (76, 52)) for r in (5, 10, 15))
    return blade() + rings + path("M30 104q8 -8 14 0t14 0t14 0t14 -6", stroke="#e3dc9a", width=2.4)


def _strip(sketch: Sketch) -> str:
    return (
        path("M44 8L76 8L76 132L44 132Z", "#fbfaf4", "#8a8f98", 1.6)
        + path("M44 100L76 100L76 132L44 132Z", "#d9e4ea", "#8a8f98", 1.2)
        + "".join(path(f"M47 {y}L73 {y}", stroke="#a8324a", width=4) for y in (44, 60))
    )


def _topple(sketch: Sketch) -> str:
    fallen = "".join(
        path(f"M{x} 92L{x + 3} 84L{x + 26} {78 + lift}", stroke="#8a9a5a", width=3)
        + path(f"M{x} 92L{x + 2} 85", stroke="#5d4024", width=4)
        + ellipse(x + 30, 76 + lift, 7, 4, "#9fb46a", turn=20)
        for x, lift in ((16, 6), (44, 0), (74, 9))
    )
    return earth(92) + fallen


def _dodder(sketch: Sketch) -> str:
    coils = "".join(
        path(f"M40 {y}C52 {y - 12} 68 {y - 12} 80 {y}C70 {y + 9} 50 {y + 9} 40 {y + 12}", stroke="#e0b93c", width=2.6)
        for y in range(18, 130, 14)
    )
    return stem(16) + coils + "".join(circle(x, y, 3, "#f4ead2", "#a5803f", 0.6) for x, y in ((40, 46), (82, 74), (42, 102)))


def _net_veins(sketch: Sketch) -> str:
    pale = blade().replace(svg.GREEN, "#e3d97a").replace(svg.DARK_GREEN, "#d6cb6a").replace(svg.VEIN, "#3f6a2c")
    return pale + "".join(
        path(f"M{40 + 12 * n} {96 - 14 * n}q10 -2 16 -10M{40 + 12 * n} {96 - 14 * n}q0 -10 -6 -16", stroke="#4f7a34", width=1.8)
        for n in range(4)
    )


def _crust(sketch: Sketch) -> str:
    pot = path("M22 70L98 70L90 138L30 138Z", "#b9663a", "#7a3f22", 1.6)
    salt = "".join(
        circle(sketch.rng.uniform(24, 96), sketch.rng.uniform(62, 74), sketch.rng.uniform(2, 4), "#fdfdf8", "#c9cbbd", 0.6)
        for _ in range(40)
    )
    return (
        path("M60 66C60 46 56 34 60 14M60 40C72 34 78 26 80 16", stroke=svg.STEM, width=4) + pot + ellipse(60, 70, 38, 8, "#6b543a") + salt
    )


def _bands(sketch: Sketch) -> str:
    return backdrops.needles() + "".join(
        path(f"M{x - 7} {y + 3}L{x + 7} {y - 5}", stroke=colour, width=5)
        for x, y, colour in ((40, 60, "#b9572f"), (76, 54, "#d9b23c"), (44, 88, "#d9b23c"), (80, 82, "#b9572f"), (42, 34, "#b9572f"))
    )


def _edged_spots(sketch: Sketch) -> str:
    return blade() + "".join(
        circle(x, y, r, "#b9935a", "#4a2d15", 2.6)
        + "".join(circle(x + dx, y + dy, 0.9, "#1f140c") for dx, dy in ((-2, 0), (2, 1), (0, -2)))
        for x, y, r in ((44, 70, 8), (66, 54, 6), (78, 74, 9), (56, 96, 7), (36, 96, 5))
    )


def _wedges(sketch: Sketch) -> str:
    return blade() + "".join(
        path(d, "#8a5a2a", "#4a2d15", 1)
        for d in ("M40 96L24 104L30 82Z", "M56 78L52 50L38 66Z", "M66 66L92 70L80 84Z", "M50 88L72 98L54 108Z")
    )


def _fur(sketch: Sketch) -> str:
    hairs = "".join(
        path(f"M{x:.0f} {y:.0f}l{sketch.rng.uniform(-3, 3):.1f} -{sketch.rng.uniform(5, 10):.1f}", stroke="#8d8a80", width=1.2)
        for x, y in ((sketch.rng.uniform(36, 86), sketch.rng.uniform(56, 112)) for _ in range(90))
    )
    return backdrops.berry("#8a5a44") + ellipse(60, 84, 28, 32, "#a8a294", stroke="#7a766a") + hairs


def _collapse(sketch: Sketch) -> str:
    leaves = "".join(
        f'<g transform="translate({x} {y}) rotate({turn})">{path("M0 0C8 -9 24 -9 34 0C24 9 8 9 0 0Z", "#5d3f26", "#33220f", 1)}</g>'
        for x, y, turn in ((60, 34, 100), (58, 46, 76), (62, 58, 108), (60, 74, 62))
    )
    return path("M60 142L60 60", stroke=svg.STEM, width=6) + path("M60 84C60 54 62 36 76 26", stroke="#4a2d15", width=6) + leaves


def _smut(sketch: Sketch) -> str:
    swollen = "".join(
        ellipse(x, y, r, r * 0.9, "#c9c9c0", stroke="#6d7276", width=1.2) for x, y, r in ((48, 46, 15), (72, 52, 17), (58, 74, 16))
    )
    dust = "".join(circle(sketch.rng.uniform(30, 92), sketch.rng.uniform(34, 92), sketch.rng.uniform(1, 2.4), "#1f1a16") for _ in range(70))
    return backdrops.ear(swollen + dust)


def _spurs(sketch: Sketch) -> str:
    ear = path("M60 142L60 18", stroke="#b9a25a", width=4) + "".join(
        ellipse(60 + side * 9, 24 + 11 * n, 4.6, 8, "#dcc07a", turn=side * 24, stroke="#8a6a35", width=0.9)
        for n in range(9)
        for side in (-1, 1)
    )
    return ear + "".join(
        path(f"M{x} {y}q{side * 14} -10 {side * 26} -20q{side * -6} 18 {side * -22} 26Z", "#33203a", "#120a16", 1)
        for x, y, side in ((68, 52, 1), (52, 82, -1), (68, 104, 1))
    )


def _cysts(sketch: Sketch) -> str:
    return soil.root(chewed=False) + "".join(
        circle(sketch.rng.uniform(34, 86), sketch.rng.uniform(70, 128), 3.2, colour, "#7a5a24", 0.8)
        for colour in ("#fdf6e0", "#e0b93c", "#8a5a2a") * 6
    )


def _lump(sketch: Sketch) -> str:
    lumps = [(x, y, r, "#8a6a48") for x, y, r in ((48, 86, 20), (72, 80, 22), (62, 102, 20))]
    stalk = path("M52 0L68 0L70 110L50 110Z", "#7a5f42")
    return earth(100) + stalk + _lumps(sketch, lumps, rough=0.35, edge="#4f3a24", width=1.4)


def _fruit_mould(sketch: Sketch) -> str:
    rings = "".join(
        circle(62 + r * math.cos(a), 84 + r * math.sin(a), 2.6, "#efe6cf", "#a5803f", 0.6)
        for r in (8, 17, 26)
        for a in [n * math.pi / 8 for n in range(16)]
    )
    return apple("#8a5a34", "#6b4424") + rings


def _hills(sketch: Sketch) -> str:
    return grass(60) + "".join(
        path(
            f"M{x - 24} {y}C{x - 18} {y - 22} {x - 8} {y - 30} {x} {y - 30}C{x + 8} {y - 30} {x + 18} {y - 22} {x + 24} {y}Z",
            "#5d4630",
            "#33261a",
            1.2,
        )
        for x, y in ((26, 84), (62, 106), (96, 130))
    )


def _patches(sketch: Sketch) -> str:
    return path("M0 30L120 30L120 142L0 142Z", "#7f9a4a") + "".join(
        ellipse(x, y, rx, ry, "#d9c98a", stroke="#a5935a", width=2) + ellipse(x, y, rx * 0.5, ry * 0.5, "#9fb05a")
        for x, y, rx, ry in ((40, 66, 28, 13), (84, 104, 30, 15))
    )


def _small_fruits(sketch: Sketch) -> str:
    return grass(104) + "".join(
        circle(x, y, r, "#8fae5a", "#4f6a2c", 1.2) + path(f"M{x} {y - r}l2 -6", stroke=svg.STEM, width=1.6)
        for x, y, r in ((26, 116, 8), (50, 124, 7), (74, 114, 9), (98, 126, 7), (44, 40, 8), (80, 66, 8))
    )


def _hollow(sketch: Sketch) -> str:
    return (
        path("M22 0L98 0L98 142L22 142Z", "#a5825a", "#5d432a", 1.4)
        + path("M36 0C44 40 34 80 42 142L80 142C88 90 76 50 84 0Z", "#2b2018")
        + "".join(path(f"M{40 + 8 * n} 0C{44 + 7 * n} 50 {38 + 9 * n} 90 {42 + 8 * n} 142", stroke="#8a6a48", width=2.4) for n in range(5))
    )


DRAWN: dict[str, Draw] = {
    "pin-holes-in-bark": _pins, "fan-of-galleries": _fan, "mud-tubes": _tubes, "brackets-on-trunk": _brackets, "lichens-on-bark": _lichens,
    "hard-round-galls": _hard_galls, "rolled-edge-swollen": _rolled_edge, "witches-broom": _broom, "green-flowers": _green_flower,
    "rings-and-lines": _line_pattern, "two-lines-on-the-strip": _strip, "seedlings-topple": _topple, "dodder-threads": _dodder,
    "young-yellow-green-veins": _net_veins, "white-crust-on-soil": _crust, "banded-needles": _bands, "dead-spots-with-edge": _edged_spots,
    "wedges-between-veins": _wedges, "grey-fur": _fur, "shoots-collapse-brown": _collapse, "black-powder-in-heads": _smut,
    "black-spurs-in-the-ear": _spurs, "cysts-on-roots": _cysts, "rough-gall-at-base": _lump, "fruit-rots-with-mould": _fruit_mould,
    "molehills": _hills, "turf-patches": _patches, "fruit-drops-small": _small_fruits, "wood-hollow-tunnelled": _hollow,
}  # fmt: skip
