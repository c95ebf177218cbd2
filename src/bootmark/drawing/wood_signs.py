"""Signs of few agents that show on stem, trunk, base, root or bulb, made of motifs."""

from bootmark.drawing import backdrops, insects, larvae, small, svg
from bootmark.drawing.laid import on
from bootmark.drawing.motifs import (
    BARK,
    BASE,
    BLACK,
    BROWN,
    ROOT,
    STEM,
    along,
    blots,
    box,
    bulb,
    dashes,
    disc,
    drops,
    eggs,
    holes,
    slit,
    spots,
    threads,
    tuber,
    tufts,
    wool,  # fmt: skip
)
from bootmark.drawing.sketch import Draw
from bootmark.drawing.soil import root
from bootmark.drawing.svg import circle, ellipse, path

TRUNK, TWIGS, STALK, CANE = backdrops.bark(96), backdrops.twig(15), backdrops.stem(30), backdrops.stem(24, joint=False)
ORANGE, RESIN, WOOD = "#e8822a", "#f0e2b0", backdrops.PALE_WOOD
SOILED = path("M0 96L120 92L120 142L0 142Z", svg.SOIL)
FOOT = TRUNK + SOILED
WHITE_ROOT = "#efe6d0"


def _roots(colour: str = WHITE_ROOT, more: str = "", width: float = 3.4) -> str:
    fine = "".join(path(f"M60 {54 + 12 * n}q{s * 18} 6 {s * 34} {22 - n}", stroke=colour, width=width) for n in range(6) for s in (-1, 1))
    return (
        path("M0 44L120 42L120 142L0 142Z", svg.SOIL)
        + path("M60 2L60 50", stroke=svg.STEM, width=9)
        + path("M60 46L60 134", stroke=colour, width=7)
        + fine
        + more
    )


def _grass_base(more: str) -> str:
    culms = "".join(
        path(
            f"M{34 + 13 * n} 142C{36 + 12 * n} 90 {26 + 16 * n} 40 {20 + 19 * n} 2", stroke=svg.GREEN if n % 2 else svg.DARK_GREEN, width=9
        )
        for n in range(5)
    )
    return culms + path("M0 124L120 120L120 142L0 142Z", svg.SOIL) + more


STEMS: dict[str, Draw] = {
    "white-egg-sacs-in-june": on(
        TWIGS,
        *(
            ellipse(x, y, 15, 8, "#fbfaf3", turn=-50, stroke="#c9c3b4", width=1.2) + ellipse(x + 9, y - 12, 7, 5, "#8a5a2e", turn=-50)
            for x, y in ((40, 104), (60, 76), (84, 40))
        ),
    ),
    "bark-gnawed-in-patches": on(
        STALK, blots(box(48, 24, 72, 120), WOOD, 6, (6, 10), BROWN, 0.7), drops(box(48, 30, 72, 120), RESIN, 5, 4)
    ),
    "hollow-pith-with-cells": on(
        slit(
            "".join(
                path(f"M50 {36 + 26 * n}L70 {36 + 26 * n}", stroke="#8a6a3a", width=5) + larvae.maggot(60, 24 + 26 * n, 90, 0.6)
                for n in range(4)
            ),
            "#5a4226",
        )
    ),
    "mossy-ball": on(TWIGS, tufts(disc(58, 78, 27), "#8aa04a", 150, 16, 1.4), tufts(disc(58, 74, 25), "#c94a3a", 110, 14, 1.3)),
    "rows-of-punctures-in-cane": on(
        CANE,
        "".join(circle(60, 14 + 6 * n, 2.2, "#2b1d12", "#a58a5a", 1) for n in range(17)),
        path("M60 60L60 134", stroke="#3a2818", width=1.6),
    ),
    "pink-egg-clusters": on(
        STALK,
        "".join(circle(52 + 6 * (n % 4), 38 + 5.4 * (n // 4), 3.6, "#f06a8a", "#b93a5a", 0.8) for n in range(40)),
        path("M0 118q30 -6 60 0t60 0L120 142L0 142Z", "#9ab8c4"),
    ),
    "dark-streaks-on-green-stems": on(CANE, dashes(STEM, BLACK, 12, 0, 22, 2.4)),
    "orange-jelly-on-juniper": on(
        TWIGS,
        *(
            path(f"M{x} {y}q{10 * s} -6 {22 * s} 8q{-8 * s} 2 {-22 * s} 4Z", ORANGE, "#b9501e", 1)
            for x, y in ((56, 86), (62, 78), (50, 94), (68, 68), (58, 74))
            for s in (-1, 1)
        ),
    ),
    "diamond-lesions-at-shoots": on(
        STALK, path("M60 20L76 62L60 112L44 62Z", "#6a3a22", "#3a2014", 1.6), path("M60 62L104 34", stroke="#7a5a34", width=8)
    ),
    "white-wool-black-grains": on(
        slit("", "#efe6d0"), blots(box(50, 20, 70, 120), "#fbfaf3", 12, (6, 9)), spots(box(50, 24, 70, 120), BLACK, 14, (2.4, 4))
    ),
    "red-dots-on-dead-bark": on(
        STALK, blots(disc(60, 72, 10), "#5d432a", 5, (14, 20), BLACK), spots(box(46, 36, 74, 108), "#d8302a", 34, (1.6, 2.6))
    ),
    "orange-dots-on-bark": on(
        STALK,
        blots(disc(60, 72, 10), "#b0642e", 5, (14, 20), "#6a3a1a"),
        spots(box(46, 36, 74, 108), ORANGE, 30, (1.6, 2.8)),
        dashes(box(46, 40, 74, 104), ORANGE, 6, 6, 8, 1.8),
    ),
    "white-resin-on-dead-branch": on(
        path("M6 96C40 84 80 70 116 60", stroke="#7a6250", width=15),
        drops(along(10, 94, 110, 62, 5), "#f4f1e6", 12, 8),
        *(path(f"M{24 + 16 * n} {90 - 6 * n}l{-6 + 3 * n} 26", stroke="#9a6a3a", width=2.4) for n in range(6)),
    ),
    "resin-from-cracks": on(
        STALK, *(path(f"M{52 + 6 * n} {30 + 30 * n}q8 12 -2 30", stroke="#3a2014", width=4) for n in range(3)), drops(STEM, "#f0c85a", 9, 7)
    ),
    "rusty-drops-on-canes": on(CANE, drops(STEM, "#fbfaf3", 5, 8), drops(STEM, "#b9502a", 6, 8)),
    "milky-streaming": on(
        path("M28 30L92 30L86 138L34 138Z", "#cfe0e6", "#7d98a4", 2),
        path("M60 0L60 58", stroke="#7f9f58", width=17),
        *(path(f"M{54 + 4 * n} 58q{-6 + 5 * n} 24 {-4 + 3 * n} 60", stroke="#fbfaf3", width=2) for n in range(4)),
    ),
    "shoots-stay-rubbery": on(
        path("M40 142C40 70 56 20 84 22C104 26 106 60 98 112", stroke="#8aa85a", width=8),
        spots(along(42, 130, 52, 40, 3), BLACK, 12, (1, 1.7)),
        *(path(f"M{x} {y}q14 4 12 22q-14 -6 -12 -22Z", "#d8c84a") for x, y in ((56, 44), (84, 30), (100, 66))),
    ),
    "black-or-hollow-heart": on(
        slit(path("M52 142L53 40Q60 20 67 40L68 142Z", BLACK) + path("M57 142L58 70Q60 60 62 70L63 142Z", "#5a4226"))
    ),
}

TRUNKS: dict[str, Draw] = {
    "wool-on-trunk": on(TRUNK, wool(BARK, 26, 5)),
    "grey-mud-egg-smears": on(
        TRUNK,
        *(ellipse(x, y, 20, 12, "#b9b0a4", turn=turn, stroke="#7d766a", width=1.2) for x, y, turn in ((50, 40, 70), (74, 92, 80))),
        eggs(44, 108, 1, 4, "#7a6a54", size=3),
        eggs(52, 108, 1, 4, "#7a6a54", size=3),
    ),
    "tan-egg-pads": on(TRUNK, *(tufts(disc(x, y, 17), "#d8b87a", 200, 6, 2) for x, y in ((48, 44), (76, 96)))),
    "cocoons-of-palm-fibre": on(
        TRUNK,
        *(
            ellipse(x, y, 24, 12, "#a5804a", turn=turn, stroke="#5d432a", width=1.4)
            + "".join(path(f"M{x - 16 + 6 * n} {y - 8}q8 8 2 17", stroke="#6a4a2a", width=1.2) for n in range(6))
            for x, y, turn in ((54, 48, 0), (66, 96, 0))
        ),
    ),
    "coin-sized-round-holes": on(TRUNK, holes(BARK, 3, 9, dust="#e6d3ac"), circle(44, 40, 9.6, "#1d1510", "#4a3322", 1.6)),
    "chewed-pits-in-bark": on(
        TRUNK,
        *(ellipse(x, y, 9, 6, WOOD, stroke=BROWN, width=1.6) for x, y in ((44, 36), (72, 62), (52, 96))),
        drops(BARK, "#6a4424", 4, 7),
    ),
    "stringy-shavings": on(TRUNK, holes(disc(60, 44, 8), 1, 7), threads(box(46, 56, 74, 96), "#e6d3ac", 34, 18, 2)),
    "pitch-tubes": on(
        TRUNK,
        *(
            blots(disc(x, y, 5), colour, 5, (4, 8), "#a5703a")
            for x, y, colour in ((46, 34, "#f4ead2"), (74, 58, "#e2a88a"), (50, 88, "#f0d8b0"), (76, 112, "#c98a6a"))
        ),
    ),
    "toothpicks-of-dust": on(
        backdrops.bark(46),
        *(
            path(f"M{60 + s * 20} {y}l{s * 30} {-4}", stroke="#f4ead2", width=3.4)
            for y, s in ((24, 1), (46, -1), (66, 1), (90, -1), (112, 1))
        ),
    ),
    "coarse-shavings-and-large-ants": on(
        TRUNK,
        ellipse(60, 52, 13, 20, "#1d1510"),
        dashes(box(40, 82, 84, 126), "#e6d3ac", 34, 9, 3, 2.4),
        *(insects.ant(x, y, 11, turn, "#1d1b1a") for x, y, turn in ((60, 56, 90), (78, 86, 20), (42, 102, 160))),
    ),
    "bark-stripped-high": on(
        TRUNK,
        path("M44 4L70 8L66 96Q56 110 46 92Z", WOOD, BROWN, 1.4),
        dashes(box(46, 12, 66, 92), "#c9a97a", 26, 9, 0, 1.4),
        path("M70 10q20 30 10 70", stroke="#745b43", width=7),
    ),
    "trunk-cut-to-a-point": on(
        path("M34 142L38 84L60 54L82 84L86 142Z", WOOD, BROWN, 1.4),
        path("M36 142L40 96L80 96L84 142Z", backdrops.BARK),
        path("M42 -2L78 -2L76 18L60 54L44 18Z", backdrops.BARK),
        dashes(box(6, 118, 114, 138), WOOD, 16, 12, 3, 4),
        dashes(box(44, 62, 76, 92), "#b9925a", 14, 3, 9, 1.6),
    ),
    "rows-of-square-holes": on(
        TRUNK, *(path(f"M{28 + 12 * c} {36 + 26 * r}h6v7h-6Z", "#2b1d12", "#5d432a", 0.8) for c in range(6) for r in range(3))
    ),
    "bark-flaked-by-woodpeckers": on(
        TRUNK, blots(box(36, 14, 84, 80), "#dcc49a", 9, (9, 15), "#8a6a44", 0.8), dashes(box(34, 108, 86, 134), "#745b43", 12, 9, 3, 4)
    ),
    "orange-blisters-on-bark": on(
        TRUNK, blots(disc(60, 66, 26), "#f4a83a", 9, (5, 9), "#c9601e"), spots(disc(60, 70, 34), "#f6e2b0", 22, (1.6, 3))
    ),
    "weeping-dark-bark": on(
        TRUNK, *(path(f"M{x} {y}q4 30 -2 60q-6 20 -2 40l10 0q4 -60 2 -100Z", "#3a1a14") for x, y in ((46, 14), (70, 34)))
    ),
    "white-sheets-under-bark": on(
        TRUNK, path("M40 20L82 28L84 128L34 132Z", WOOD, BROWN, 1.4), blots(box(44, 36, 78, 120), "#fbfaf3", 9, (10, 17), "#d8d2c0")
    ),
    "toadstools-at-the-foot": on(
        FOOT,
        *(
            path(f"M{x - 3} {y}l1 -22l6 0l1 22Z", "#efe2c0", "#a5804a", 0.8)
            + path(f"M{x - 15} {y - 20}q15 -22 32 0Z", "#c98a3a", "#7a4a1e", 1.2)
            for x, y in ((34, 124), (58, 118), (84, 126), (70, 134), (46, 136))
        ),
    ),
    "no-resin-from-a-cut": on(
        TRUNK, path("M42 60L80 56L78 84L44 88Z", WOOD, BROWN, 1.6), path("M96 30L70 60L76 66L104 38Z", "#b9bec4", svg.INK, 1)
    ),
}

BASES: dict[str, Draw] = {
    "wax-behind-sheaths": on(
        _grass_base(path("M60 124C56 96 66 80 84 72C80 96 76 112 70 124Z", "#d8d89a", svg.STEM, 1.2)),
        wool(along(62, 118, 76, 82, 4), 8, 4),
        *(ellipse(x, y, 4, 6, "#e8a0a8", stroke="#a05a64") for x, y in ((64, 110), (70, 96))),
    ),
    "stems-cut-inside-stub-plugged": on(
        path("M0 104L120 100L120 142L0 142Z", svg.SOIL),
        *(
            path(f"M{24 + 24 * n} 112L{26 + 24 * n} 78", stroke="#d8bf7a", width=11) + circle(26 + 24 * n, 78, 4.6, "#8a6a3a")
            for n in range(4)
        ),
        path("M8 66L112 48", stroke="#d8bf7a", width=9),
        path("M20 54L116 26", stroke="#d8bf7a", width=9),
    ),
    "gum-with-crumbs-at-the-base": on(FOOT, blots(BASE, "#d8902e", 6, (7, 12), "#8a5a1e"), spots(BASE, BROWN, 26, (1.6, 2.8))),
    "red-shavings-at-the-foot": on(
        FOOT,
        path("M14 140C30 98 90 94 108 140Z", "#a5462a", "#6a2a1a", 1.2),
        dashes(box(24, 104, 98, 136), "#d8806a", 40, 6, 2, 2),
        holes(disc(60, 64, 9), 2, 5),
    ),
    "flaxseeds-behind-sheath": on(
        _grass_base(path("M58 124C54 92 64 70 84 60C80 90 76 110 70 124Z", "#d8d89a", svg.STEM, 1.2)),
        *(ellipse(x, y, 3.6, 8, "#6a3a1e", turn=turn, stroke="#3a1e10") for x, y, turn in ((66, 112, 8), (64, 98, -6), (72, 92, 20))),
    ),
    "cinnamon-stain-at-the-foot": on(
        FOOT, path("M36 104L40 44Q60 20 80 50L84 104Z", WOOD, BROWN, 1.4), path("M40 104L46 62Q60 40 72 66L78 104Z", "#8a3a1e")
    ),
    "white-fan-tan-grains": on(
        backdrops.stem(26, joint=False),
        SOILED,
        tufts(disc(60, 100, 28), "#fbfaf3", 150, 15, 1.4),
        spots(disc(60, 106, 26), "#c9924a", 26, (2, 3), edge="#7a5024"),
    ),
}

ROOTS: dict[str, Draw] = {
    "wool-on-roots": on(_roots(), wool(ROOT, 18, 4), *(small.aphid(x, y, 5, "#d8d49a", 30) for x, y in ((48, 84), (74, 98), (60, 114)))),
    "white-wool-on-pot-roots": on(
        path("M14 20L106 20L94 138L26 138Z", "#b9704a", "#7a4428", 2),
        path("M22 30L98 30L88 130L32 130Z", svg.DARK_SOIL),
        "".join(path(f"M{30 + 9 * n} 34q{6 if n % 2 else -6} 40 0 88", stroke=WHITE_ROOT, width=2) for n in range(7)),
        wool(box(28, 40, 92, 124), 22, 4),
    ),
    "rough-dark-shoulders": on(
        root(False),
        path("M48 48C52 66 70 66 74 48C72 80 66 84 60 86C54 84 50 80 48 48Z", "#6a3a1e"),
        tufts(disc(60, 60, 12), "#3a2014", 30, 5, 1.6),
    ),
    "black-roots-of-grain": on(_roots("#2b2420", path("M56 30L56 60L64 60L64 30Z", BLACK))),
    "black-bands-on-roots": on(_roots(), dashes(ROOT, BLACK, 26, 5, 5, 4)),
    "clubbed-roots": on(
        path("M0 44L120 42L120 142L0 142Z", svg.SOIL),
        path("M60 2L60 50", stroke=svg.STEM, width=9),
        *(
            path(f"M60 52q{s * 12} 6 {s * 20} 22q{s * 16} 20 {s * 6} 46q{-s * 16} -10 {-s * 20} -34Z", "#e6d6b0", "#a58a5a", 1.4)
            for s in (-1, 1)
        ),
        path("M48 50C40 84 48 116 60 134C72 116 80 84 72 50Z", "#efe2c0", "#a58a5a", 1.4),
    ),
    "hairy-roots": on(
        path("M0 44L120 42L120 142L0 142Z", svg.SOIL),
        path("M60 2L60 46", stroke=svg.STEM, width=9),
        path("M48 44C46 80 54 112 60 136C66 112 74 80 72 44Z", "#e8b87a", "#a5763a", 1.4),
        tufts(ROOT, "#f0e2c0", 170, 15, 0.9),
    ),
    "brown-lesions-on-roots": on(_roots(), dashes(ROOT, "#6a2a1a", 22, 7, 5, 3)),
}

BULBS: dict[str, Draw] = {
    "pearly-mites-in-bulb": on(
        bulb("".join(ellipse(60, 80, rx, ry, "none", stroke="#c9b48a", width=2) for rx, ry in ((30, 38), (20, 27)))),
        *(
            ellipse(x, y, 6, 4.4, "#fbfaf3", turn=n * 40, stroke="#8a6a4a", width=1)
            + path(f"M{x - 5} {y + 3}l-3 4M{x - 1} {y + 4}l-1 5M{x + 3} {y + 4}l2 4", stroke="#8a6a4a", width=1)
            for n, (x, y) in enumerate(((44, 70), (62, 62), (76, 82), (54, 94), (70, 104), (40, 96)))
        ),
    ),
    "brown-pupae-in-shaft": on(
        path("M38 142L42 4L78 4L82 142Z", "#f0efe0", "#9aae7a", 1.6),
        *(path(f"M{48 + 8 * n} 142L{50 + 7 * n} 4", stroke="#cfd8b4", width=1.4) for n in range(4)),
        *(ellipse(x, y, 3.6, 9, "#8a4a22", stroke="#4a2612") for x, y in ((52, 48), (62, 72), (69, 40), (57, 98), (67, 112))),
    ),
    "tuber-eyes-with-droppings": on(
        tuber(),
        *(circle(x, y, 4, BROWN) + circle(x, y, 2, BLACK) for x, y in ((44, 62), (76, 58), (60, 92))),
        *(spots(disc(x, y + 7, 8), BLACK, 9, (1, 2)) for x, y in ((44, 62), (76, 58), (60, 92))),
        threads(disc(60, 76, 26), "#fbfaf3", 18, 12),
    ),
    "white-wool-black-pinheads": on(bulb(""), wool(box(32, 104, 88, 130), 24, 6), spots(box(36, 104, 84, 128), BLACK, 18, (1.6, 2.6))),
    "base-plate-rotten": on(
        bulb(path("M26 108Q60 84 94 108Q84 130 60 130Q36 130 26 108Z", "#a5623a", "#6a3420", 1.4)),
        blots(box(40, 104, 80, 124), "#d8909a", 5, (4, 8)),
    ),
    "corky-scabs-on-tuber": on(
        tuber(), blots(box(28, 52, 92, 108), "#8a6a3a", 9, (5, 9), "#5d432a", 0.8), tufts(box(28, 52, 92, 108), "#5d432a", 40, 4, 1.2)
    ),
    "brown-corky-root-flesh": on(
        ellipse(60, 72, 46, 50, "#f4ead2", stroke="#7a4a2a", width=7), blots(disc(60, 72, 32), "#7a4a22", 9, (4, 8), rough=0.8)
    ),
}

DRAWN: dict[str, Draw] = STEMS | TRUNKS | BASES | ROOTS | BULBS
