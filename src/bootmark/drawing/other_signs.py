"""Signs of few agents that show on fruit, on grain, in turf, on the ground or on the whole plant, made of motifs."""

import random

from bootmark.drawing import backdrops, insects, larvae, small, svg
from bootmark.drawing.laid import on
from bootmark.drawing.motifs import (
    BLACK,
    BROWN,
    FRUIT,
    GRAIN,
    TURF,
    blots,
    box,
    dashes,
    disc,
    drops,
    grain,
    holes,
    spots,
    threads,
    tufts,
    turf,
    wool,
)  # fmt: skip
from bootmark.drawing.sketch import Draw, Sketch
from bootmark.drawing.svg import circle, ellipse, path

APPLE, CUT, TURFED = backdrops.apple(), backdrops.cut_fruit(), turf()


def _ball(colour: str, edge: str, r: float = 44) -> str:
    return path("M60 40L64 12", stroke=svg.ROOT, width=4) + circle(60, 82, r, colour, edge, 2)


def _bunch(colour: str, edge: str) -> str:
    at = [
        (60 + dx, 34 + 16 * row)
        for row, spread in enumerate(((-22, 0, 22), (-30, -10, 10, 30), (-22, 0, 22), (-12, 10), (0,)))
        for dx in spread
    ]
    return path("M60 4L60 30", stroke=svg.STEM, width=4) + "".join(circle(x, y, 11, colour, edge, 1.2) for x, y in at)


def _nut(colour: str = "#a5743a") -> str:
    return path("M60 26C92 34 98 92 60 128C22 92 28 34 60 26Z", colour, "#6a4420", 2) + path(
        "M36 50Q60 26 84 50Q60 62 36 50Z", "#d8c08a", "#8a6a34", 1
    )


def _stone() -> str:
    return CUT + ellipse(60, 82, 19, 25, "#c9a06a", stroke="#7a5024", width=1.6)


def _patch(colour: str, edge: str = "none", r: tuple[float, float] = (34, 36)) -> str:
    return path(svg.shape_d(svg.blob(random.Random(5), 60, 96, r[0], 0.16, 20)), colour, edge, 3)


def _band(sketch: Sketch) -> str:
    hopper, rng = insects.grasshopper(60, 70, 30), sketch.rng
    places = [(rng.uniform(-4, 76), rng.uniform(-20, 66)) for _ in range(16)]
    return backdrops.earth(70) + "".join(f'<g transform="translate({x:.0f} {y:.0f}) scale(0.36)">{hopper}</g>' for x, y in places)


FRUITS: dict[str, Draw] = {
    "ring-scar-at-the-stalk": on(backdrops.apple("#e8b84a", "#d8a03a"), ellipse(60, 52, 26, 10, "none", stroke="#a59a84", width=7)),
    "pods-silvered": on(
        backdrops.pod(), blots(box(48, 20, 74, 122), "#dfe2da", 9, (6, 11)), dashes(box(48, 20, 74, 122), BROWN, 12, 5, 8, 1.8)
    ),
    "brown-wedges-below-the-cap": on(
        _ball("#8fae5e", "#56743b"),
        path("M34 46Q60 28 86 46L78 52L70 92L62 54L54 100L46 54L40 74Z", "#8a5a2e", "#5a3418", 1),
        path("M34 48Q60 26 86 48Q60 54 34 48Z", "#6a8a46"),
    ),
    "ribbon-scar": on(
        APPLE,
        path("M24 70C44 54 52 92 76 78C92 70 90 100 98 98", stroke="#a5805a", width=8),
        path("M24 70C44 54 52 92 76 78C92 70 90 100 98 98", stroke="#c9aa84", width=3),
    ),
    "round-hole-in-nut": on(_nut(), holes(disc(62, 84, 2), 1, 8, "#3a2414"), spots(disc(64, 108, 10), "#e6d3ac", 12, (1, 2))),
    "pin-hole-in-berry": on(
        _ball("#b9302a", "#7a1a18", 34),
        circle(60, 104, 9, "#8a1e1c"),
        holes(disc(60, 104, 1), 1, 3.6),
        spots(disc(62, 112, 6), "#e6d3ac", 8, (0.8, 1.4)),
    ),
    "berries-webbed": on(_bunch("#5a4a7a", "#2a2044"), threads(disc(60, 66, 36), "#f4f1e6", 60, 22, 1.3), holes(disc(60, 62, 24), 3, 3)),
    "grub-in-nut": on(_nut("#e6d3ac"), larvae.grub(60, 84, 18, 10, legs=False), spots(disc(60, 108, 12), BROWN, 14, (1, 2))),
    "grub-in-stone": on(_stone(), larvae.grub(60, 82, 12, 30, legs=False)),
    "black-wet-husk": on(
        _ball("#7b9a4c", "#56743b"), blots(disc(56, 78, 14), "#1d1814", 6, (14, 22)), drops(disc(64, 112, 12), "#3a2a1e", 4, 6)
    ),
    "black-round-fruitlets": on(
        path("M60 4L60 50M60 30L30 50M60 30L92 50", stroke=svg.STEM, width=3),
        *(circle(x, y, 20, "#2b2420", "#1a1512", 1.4) for x, y in ((30, 66), (92, 66))),
        circle(60, 84, 22, "#e6dcb8", "#2b2420", 5),
        *(larvae.maggot(x, y, t, 0.45) for x, y, t in ((54, 80, 20), (66, 90, -40), (58, 92, 80))),
    ),
    "nuts-split-or-taken": on(
        path("M18 92Q14 50 44 40Q40 92 18 92Z", "#a5743a", "#6a4420", 2),
        path("M24 86Q24 60 40 50Q36 84 24 86Z", "#5a3820"),
        path("M102 92Q106 50 76 40Q80 92 102 92Z", "#a5743a", "#6a4420", 2),
        path("M96 86Q96 60 80 50Q84 84 96 86Z", "#5a3820"),
        dashes(box(30, 106, 92, 130), "#a5743a", 14, 7, 3, 3),
    ),
    "black-spots-on-nuts": on(_ball("#8fae5e", "#56743b"), blots(disc(60, 84, 26), "#1f1a14", 7, (4, 9), "#4a5a24")),
    "fruit-split-with-grey-film": on(
        _bunch("#8a9a6a", "#5a6a3a"),
        spots(disc(60, 64, 36), "#e6e6e0aa", 60, (2, 5)),
        path("M38 60l6 18M82 44l-6 16M60 88l4 16", stroke="#3a2a20", width=3),
    ),
    "rings-of-buff-cushions": on(
        backdrops.apple("#a5703a", "#8a5a2a"),
        *(
            circle(60 + r * c, 80 + r * s, 3, "#e6d3ac", "#b9925a", 0.7)
            for r in (10, 20, 30)
            for c, s in ((1, 0), (0.7, 0.7), (0, 1), (-0.7, 0.7), (-1, 0), (-0.7, -0.7), (0, -1), (0.7, -0.7))
        ),
    ),
    "hard-black-mummies": on(
        _bunch("#6a8a46", "#46602c"),
        *(
            path(svg.shape_d(svg.blob(random.Random(n), x, y, 9, 0.5, 9)), "#1d1a1c")
            for n, (x, y) in enumerate(((38, 34), (70, 50), (50, 66), (82, 66), (60, 82), (60, 98)))
        ),
    ),
    "wet-rot-white-film": on(
        backdrops.apple("#6a5a34", "#544628"), tufts(FRUIT, "#fbfaf3", 170, 6, 1.4), blots(disc(60, 84, 22), "#ffffff77", 5, (8, 14))
    ),
    "black-dust-inside": on(CUT, blots(disc(60, 82, 12), "#141210", 6, (9, 14)), spots(disc(60, 84, 30), BLACK, 50, (0.7, 1.6))),
    "silver-galls-black-dust": on(
        backdrops.ear(tip=" "),
        *(
            path(svg.shape_d(svg.blob(random.Random(n), x, y, r, 0.22, 12)), "#dcdad4", "#8a8680", 1.4)
            for n, (x, y, r) in enumerate(((48, 42, 15), (74, 36, 13), (62, 62, 14)))
        ),
        spots(disc(62, 52, 18), BLACK, 26, (1, 2.2)),
    ),
    "brown-wrinkled-patches-on-fruit": on(
        backdrops.tomato(),
        blots(disc(60, 84, 22), "#7a5a34", 5, (8, 13), "#4a3420", 0.7),
        dashes(disc(60, 84, 26), "#4a3420", 20, 9, 3, 1.4),
        spots(disc(60, 76, 30), "#e8b83a", 9, (2, 4)),
    ),
    "rings-on-the-stone": on(
        _stone(), *(ellipse(60 + x, 82 + y, 6, 5, "none", stroke="#f4ead2", width=2) for x, y in ((-6, -10), (7, 0), (-4, 11)))
    ),
    "rings-on-fruit": on(
        _ball("#7b9a4c", "#56743b"),
        *(
            circle(x, y, 9, "none", "#2f4a24", 2.4) + circle(x, y, 4, "none", "#2f4a24", 1.6)
            for x, y in ((44, 68), (74, 74), (54, 100), (82, 100))
        ),
    ),
    "crumbly-berries": on(
        backdrops.berry(),
        *(circle(x, y, 9.6, "#f4ead2", "#c9b08a", 1) for x, y in ((53, 57), (74, 70), (46, 83), (67, 96))),
        *(circle(x, 134, 6, "#b23a48", "#00000030", 0.8) for x in (26, 44, 92)),
    ),
    "lopsided-green-fruit": on(
        path("M60 22C96 24 108 70 92 104C80 128 44 126 34 104C18 70 30 26 60 22Z", "#e89a2e", "#a5641e", 1.6),
        path("M28 84C40 100 84 112 94 100C84 128 44 128 28 84Z", "#6f9350"),
        path("M60 30C66 60 70 84 56 116", stroke="#f4dca0", width=3),
        *(ellipse(x, y, 3, 5, "#5a3418") for x, y in ((58, 66), (66, 82))),
    ),
}

WHOLE: dict[str, Draw] = {
    "bored-heart-with-droppings": on(
        *(ellipse(60, 78, 52 - 12 * n, 48 - 11 * n, svg.GREEN if n % 2 else svg.DARK_GREEN, stroke="#cfdcb5", width=1.2) for n in range(4)),
        holes(disc(60, 74, 20), 4, 6, "#4a5a24"),
        spots(disc(60, 84, 28), "#3a4a1e", 30, (1.4, 2.6)),
    ),
    "silk-over-whole-bush": lambda sketch: (
        backdrops.tree(sketch.rng, "#8a9a6a", gaps=True)
        + path("M12 84C10 30 40 8 62 8C88 8 112 34 108 84C80 96 40 96 12 84Z", "#f4f4f0d0", "#d8d4c8", 1.4)
        + "".join(circle(30 + 9 * n, 50 + n % 3 * 12, 1.8, BLACK) for n in range(8))
    ),
    "goose-necked-stalks": on(
        path("M0 118L120 114L120 142L0 142Z", svg.SOIL),
        *(
            path(f"M{24 + 30 * n} 122C{52 + 30 * n} 116 {54 + 26 * n} 80 {40 + 26 * n} 6", stroke=svg.GREEN, width=8)
            + path(f"M{46 + 28 * n} 60q18 -20 34 -14", stroke=svg.DARK_GREEN, width=4)
            for n in range(3)
        ),
    ),
    "palm-crown-collapses": on(
        path("M52 142L56 56L66 56L70 142Z", "#8d7258"),
        *(
            path(
                f"M61 58C{61 + s * 18} {44 - 4 * n} {61 + s * (34 + 7 * n)} {60 + 6 * n} {61 + s * (30 + 11 * n)} {104 + 5 * n}",
                stroke="#a58a4a" if n % 2 else "#8a9a4a",
                width=6,
            )
            for n in range(3)
            for s in (-1, 1)
        ),
        path("M61 56C70 40 90 36 104 48", stroke="#c9a86a", width=6),
    ),
    "all-needles-red-from-top": on(
        path("M60 4L18 124L102 124Z", "#a5452a"),
        path("M60 4L38 66L82 66Z", "#c9582e"),
        path("M30 92L22 124L98 124L90 92Z", "#8a8a4a"),
        path("M55 124L55 142L65 142L65 124Z", svg.ROOT),
    ),
    "locust-bands": _band,
    "snails-with-shell": on(
        backdrops.stem(26), small.slug(44, 66, 34, house=True), small.slug(78, 104, 30, house=True), small.slug(70, 32, 24, house=True)
    ),
    "whole-crown-yellows": lambda sketch: backdrops.tree(sketch.rng, "#dfc94a"),
    "evergreen-balls-in-crown": lambda sketch: (
        backdrops.tree(sketch.rng, "#d8d0b4", gaps=True)
        + "".join(tufts(disc(x, y, 11), "#5d8040", 60, 9, 1.8)(sketch.rng) for x, y in ((36, 40), (78, 30), (86, 66)))
    ),
}

TURFS: dict[str, Draw] = {
    "grass-clipped-with-green-droppings": on(
        TURFED,
        _patch("#c9b48a"),
        dashes(box(32, 70, 90, 122), "#8aa85a", 40, 0, 7, 2),
        spots(disc(60, 96, 28), "#4a6a24", 22, (1.6, 2.6)),
        threads(disc(60, 96, 24), "#f4f1e6", 10, 12),
    ),
    "buff-moths-fly-up": on(
        TURFED,
        *(path(f"M{x} {y}l-9 -7l9 -3l9 3Z", "#e0d2ac", "#a5946a", 1) for x, y in ((28, 30), (54, 18), (82, 30), (98, 54), (44, 52))),
        path("M20 66q8 -8 16 0t16 0t16 -8", stroke="#a5946a", width=1, stroke_dasharray="3 3"),
    ),
    "mole-cricket-in-soapy-water": on(
        backdrops.earth(30),
        *(circle(x, y, r, "#ffffff66", "#cfdce0", 0.8) for x, y, r in ((24, 60, 8), (96, 50, 10), (30, 112, 6), (100, 110, 7))),
        ellipse(64, 84, 28, 10, "#7a5630", turn=-14, stroke="#4a3018", width=1.2),
        ellipse(36, 92, 11, 8, "#6a4a28", stroke="#4a3018"),
        path("M30 98l-12 10l14 2ZM30 86l-14 -4l10 -6Z", "#5a3c1e"),
        path("M74 90l14 20M80 78l18 -6", stroke="#5a3c1e", width=3),
    ),
    "turf-torn-up-overnight": on(
        TURFED,
        path("M16 100Q40 66 74 78Q104 90 104 118Q60 132 16 100Z", svg.DARK_SOIL),
        path("M14 98Q20 62 58 58Q66 74 48 86Q30 90 14 98Z", svg.GREEN, "#4a6a2c", 1.4),
        tufts(box(20, 54, 54, 74), svg.DARK_GREEN, 30, 9, 2),
    ),
    "white-or-pink-wool-on-turf": on(TURFED, _patch("#c9b08a"), wool(disc(60, 96, 34), 26, 4), wool(disc(58, 98, 32), 12, 4, "#f0c4c4")),
    "hourglass-marks-on-blades": on(
        *(
            path(f"M{20 + 22 * n} 142C{22 + 20 * n} 90 {16 + 23 * n} 50 {20 + 22 * n} 4", stroke=svg.GREEN, width=10)
            + path(f"M{14 + 22 * n} {56 + 6 * n}l12 0l-4 10l4 10l-12 0l4 -10Z", "#f0e6c4", "#8a4a22", 1.4)
            for n in range(5)
        )
    ),
    "coin-sized-straw-spots": on(TURFED, spots(TURF, "#dccb94", 11, (6, 9))),
    "smoky-ring-edge": on(TURFED, _patch("#b9985a", "#4a4a4a", (40, 44)), tufts(disc(60, 96, 22), svg.GREEN, 50, 9, 2)),
    "red-threads-on-blades": on(TURFED, _patch("#d8b89a"), tufts(disc(60, 94, 34), "#e0405a", 80, 12, 1.8)),
    "ring-of-toadstools": on(
        TURFED,
        ellipse(60, 98, 44, 26, "none", stroke="#3f6a2c", width=12),
        *(
            path(f"M{x - 2} {y}l0 -9l4 0l0 9Z", "#efe6d0") + path(f"M{x - 8} {y - 8}q8 -12 16 0Z", "#c9a06a", "#7a5a34", 0.8)
            for x, y in ((20, 96), (36, 80), (62, 76), (90, 84), (102, 104), (78, 122), (46, 124))
        ),
    ),
}

GROUND: dict[str, Draw] = {
    "heads-cut-off": on(
        backdrops.earth(90),
        *(path(f"M{18 + 20 * n} 100L{20 + 20 * n} 30", stroke="#c9b46a", width=4) for n in range(5)),
        *(path(f"M{14 + 34 * n} {116 + 6 * (n % 2)}q16 -8 26 0q-10 9 -26 0Z", "#d8b45a", "#8a6a24", 1) for n in range(3)),
    ),
    "trail-of-leaf-carriers": on(
        backdrops.earth(34),
        *(
            insects.ant(14 + 23 * n, 112 - 14 * n, 8, -30, "#7a3a1e")
            + path(f"M{12 + 23 * n} {106 - 14 * n}q-4 -20 16 -22q6 14 -8 22Z", svg.GREEN, svg.STEM, 0.8)
            for n in range(5)
        ),
    ),
    "raised-soft-runs": on(
        TURFED,
        path("M2 124C30 96 44 124 66 100C84 80 100 100 118 80", stroke="#8a6a48", width=15),
        path("M2 120C30 92 44 120 66 96C84 76 100 96 118 76", stroke="#b79a76", width=6),
    ),
    "snail-as-long-as-a-hand": on(
        backdrops.earth(70),
        path("M8 112Q60 98 112 112Q96 122 60 122Q24 122 8 112Z", "#8a7a5a", svg.INK, 1),
        path("M30 106C26 62 76 40 96 78C100 96 86 108 66 108Z", "#a5743a", "#5a3418", 1.8),
        *(path(f"M{40 + 12 * n} {100 - 3 * n}q-4 -24 {10 + n} -36", stroke="#5a3418", width=3) for n in range(4)),
        path("M108 108l8 -16M102 108l2 -18", stroke="#8a7a5a", width=2.4),
    ),
    "snails-in-the-water": on(
        path("M0 40q30 -8 60 0t60 0L120 142L0 142Z", "#8aaab4"),
        *(
            circle(x, y, 15, "#a5803a", "#5a4018", 1.6) + path(f"M{x} {y}q10 -8 12 4q-2 12 -14 8q-10 -8 0 -18", stroke="#5a4018", width=1.6)
            for x, y in ((32, 92), (74, 76), (90, 118))
        ),
        *(path(f"M{24 + 24 * n} 92L{26 + 24 * n} 6", stroke=svg.GREEN, width=3) for n in range(4)),
    ),
    "sown-seed-dug-up": on(
        backdrops.earth(40),
        *(ellipse(20 + 20 * n, 84 + n % 2 * 4, 8, 5, "#7a5a3a") for n in range(5)),
        *(path(f"M{16 + 26 * n} 108q6 -6 12 0q-6 5 -12 0Z", "#e6d3a2", "#8a6a34", 0.8) for n in range(4)),
    ),
    "seedlings-pulled-in-a-row": on(
        backdrops.earth(70),
        *(
            f'<g transform="translate({22 + 34 * n} 112) rotate({80 + 12 * n}) scale(0.55)">{backdrops.seedling(0, 0)}</g>'
            for n in range(3)
        ),
        *(ellipse(20 + 34 * n, 122, 6, 3.4, "#7a5a3a") for n in range(3)),
    ),
    "spikes-without-green": on(
        backdrops.earth(90),
        *(
            path(f"M{x} 112L{x} {y}", stroke="#b9925a", width=7)
            + "".join(path(f"M{x} {y + 4 + 9 * n}q{s * 10} -4 {s * 12} -10", stroke="#8a5a9a", width=4) for n in range(5) for s in (-1, 1))
            for x, y in ((36, 44), (66, 24), (92, 54))
        ),
    ),
    "white-eggs-on-seed": on(
        *(
            ellipse(x, y, 22, 15, "#b98a4a", turn=turn, stroke="#6a4a20", width=1.4)
            for x, y, turn in ((36, 46, 20), (84, 62, -30), (44, 100, 10), (92, 112, 40))
        ),
        spots(disc(60, 80, 44), "#fbfaf3", 18, (1.8, 2.6)),
    ),
    "grain-drilled-to-flour": on(
        grain(), holes(GRAIN, 14, 2.6), spots(GRAIN, "#f4efe0", 150, (0.9, 1.8)), path("M10 130Q60 96 112 132Z", "#f4efe0")
    ),
    "grain-gnawed": on(
        grain(),
        blots(GRAIN, "#f4ead2", 10, (2, 4), "#9a7a34", 0.8),
        *(
            ellipse(x, y, 7, 2.6, BLACK, turn=turn)
            for x, y, turn in ((30, 84, 20), (62, 100, -30), (90, 80, 60), (44, 118, 80), (80, 122, 10))
        ),
    ),
}

DRAWN: dict[str, Draw] = FRUITS | WHOLE | TURFS | GROUND
