"""Signs of few agents that show on a leaf, made of motifs."""

from bootmark.drawing import backdrops, larvae, small, svg
from bootmark.drawing.backdrops import blade
from bootmark.drawing.laid import on
from bootmark.drawing.motifs import (
    BLACK,
    BLADE,
    BROWN,
    GRASS_BLADE,
    LEAF,
    TAN,
    along,
    blots,
    dashes,
    disc,
    drops,
    eggs,
    on_form,
    sapling,
    spots,
    threads,
    tufts,
    wool,
)  # fmt: skip
from bootmark.drawing.sketch import Draw
from bootmark.drawing.svg import circle, ellipse, path

UNDER, NEEDLE = blade(under=True), backdrops.needles()
PURPLE = "#6a3560"
MIDRIB = path("M60 112L60 22", stroke="#cfdcb5", width=2.2)


def _bare_inside() -> str:
    straws = "".join(path(f"M60 {128 - 9 * n}q{s * 8} -3 {s * 14} -8", stroke="#c9a46c", width=1.2) for n in range(7) for s in (-1, 1))
    brush = "".join(path(f"M60 {62 - 7 * n}q{s * 16} -8 {s * 30} {-24}", stroke=svg.GREEN, width=3.2) for n in range(5) for s in (-1, 1))
    return path("M60 142L60 16", stroke=svg.ROOT, width=5) + straws + brush


def _edge(colour: str, width: float = 10) -> str:
    return path("M60 112C28 96 24 56 60 20M60 112C92 96 96 56 60 20", stroke=colour, width=width, opacity="0.85")


def _veins(colour: str, width: float = 5) -> str:
    side = "".join(f"M60 {98 - 15 * n}q{s * 12} -4 {s * 22} -18" for n in range(5) for s in (-1, 1))
    return path(f"M60 112L60 24{side}", stroke=colour, width=width)


def _fan(marks: str) -> str:
    blades = "".join(
        path(f"M56 138C{40 + 10 * n} 100 {14 + 22 * n} 50 {8 + 26 * n} 8C{24 + 22 * n} 44 {50 + 8 * n} 100 64 138Z", svg.GREEN, svg.STEM, 1)
        for n in range(5)
    )
    return blades + marks


def _frond(dead: str, notch: bool = False) -> str:
    rib = path("M20 136C44 100 76 60 108 8", stroke="#8a7a4a", width=5)
    leaflets = ""
    for n in range(9):
        x, y = 26 + 9 * n, 126 - 13 * n
        cut = 0.45 if notch and 3 <= n <= 5 else 1.0
        leaflets += path(f"M{x} {y}l{-26 * cut} {-12 * cut}", stroke=dead, width=5) + path(
            f"M{x} {y}l{30 * cut} {14 * cut}", stroke=svg.GREEN, width=5
        )
    return leaflets + rib


YOUNG: dict[str, Draw] = {
    "red-blistered-leaf": on_form(blots(LEAF, "#c9503a", 11, (5, 8), "#8a2a22", 0.15), spots(LEAF, "#e8a08a", 9, (2, 3)), form="lobed"),
    "rolled-thick-edge-with-fluff": on_form(
        path("M60 112C30 98 22 56 60 20", stroke="#d8cc7a", width=13), wool(along(44, 100, 40, 40, 3), 8, 4)
    ),
    "round-sunken-dots": on_form(spots(LEAF, "#3a2e24", 34, (1.8, 2.8), edge="#7a6a4a")),
    "folded-purse-with-black-thrips": on(
        path("M14 104C20 50 62 18 108 30C100 76 64 112 14 104Z", svg.GREEN, svg.STEM, 1.4),
        path("M14 104C44 84 84 54 108 30C92 90 54 116 14 104Z", svg.DARK_GREEN),
        spots(BLADE, "#8a3a3a", 14, (1.4, 2.4)),
        "".join(small.thrips(x, y, 17, turn, "#26221e") for x, y, turn in ((52, 92, -30), (74, 74, 20), (90, 52, -60))),
    ),
    "row-of-white-dots": on_form("".join(circle(60 + (n % 2) * 0.8, 116 - 5 * n, 1.7, "#fbfaf3") for n in range(19)), form="blade"),
    "wide-yellow-halo": on_form(
        spots(LEAF, BROWN, 8, (2, 3), halo="#e6e06a"), spots(LEAF, "#e6e06a", 3, (7, 10)), spots(LEAF, BROWN, 6, (1.6, 2.6))
    ),
    "spindle-spots": on_form(
        "".join(path(f"M{56 + 7 * (n % 2)} {34 + 20 * n}q5 -9 0 -17q-5 8 0 17Z", "#d8d2c0", "#7a4a22", 1.4) for n in range(5)), form="blade"
    ),
    "red-tips-and-streaks": on_form(
        blots(disc(60, 22, 8), "#a03a22", 6, (4, 8)), dashes(GRASS_BLADE, "#a03a22", 12, 0, 16, 2), form="blade"
    ),
    "brown-along-the-veins": on_form(_veins("#8a5a2a", 7), MIDRIB, form="palmate"),
    "raised-corky-spots-with-halo": on_form(
        spots(LEAF, "#b98a4a", 13, (3, 4.6), edge="#6a4424", halo="#e2d64a"), spots(LEAF, "#8a5a2a", 8, (1, 1.8))
    ),
    "orange-spots-warts-below": on_form(
        spots(LEAF, "#f08a1e", 8, (4, 6.4), edge="#b9501e"),
        spots(LEAF, "#c9301e", 8, (1, 1.6)),
        "".join(path(f"M{92 + 6 * n} 116q4 -12 8 0Z", "#c9a06a", "#7a5a34", 1) for n in range(4)),
    ),
    "oil-spots": on_form(spots(LEAF, "#e2dc5a", 7, (7, 12), edge="#c9c04a"), form="palmate"),
    "scorched-specks-and-twist": on(
        path("M60 140C40 110 84 84 56 56C36 30 74 18 66 4", stroke=svg.GREEN, width=17),
        path("M60 140C40 110 84 84 56 56C36 30 74 18 66 4", stroke=svg.DARK_GREEN, width=4),
        spots(along(58, 130, 62, 12, 9), "#b9a884", 26, (1.8, 3.4), edge="#7a5a3a"),
    ),
    "tips-yellow-or-red-in-patches": on(
        "".join(
            path(f"M{14 + 13 * n} 140C{14 + 13 * n} 100 {10 + 13 * n} 70 {18 + 13 * n} 50", stroke=svg.GREEN, width=6)
            + path(
                f"M{13 + 13 * n} 86C{12 + 13 * n} 70 {12 + 13 * n} 60 {18 + 13 * n} 44", stroke="#d8b03a" if n % 2 else "#b9402e", width=6
            )
            for n in range(8)
        )
    ),
    "fine-stripes-along-blade": on_form(dashes(GRASS_BLADE, "#e6e0a0", 60, 0, 9, 1), form="blade"),
    "large-stipules": on(
        sapling(),
        "".join(
            path(f"M60 {110 - 22 * n}q{s * 10} -2 {s * 14} -12q{-s * 4} -4 {-s * 14} 12Z", "#a9c47a", svg.STEM, 0.9)
            for n in range(4)
            for s in (-1, 1)
        ),
    ),
    "inner-leaf-edges-brown": on(
        "".join(
            ellipse(60, 76, 54 - 12 * n, 50 - 11 * n, svg.GREEN if n % 2 else svg.DARK_GREEN, stroke="#cfdcb5", width=1.2) for n in range(3)
        ),
        ellipse(60, 76, 20, 18, "#b9cf8a", stroke="#7a4a22", width=4),
        ellipse(60, 76, 10, 9, "#d6e2ae", stroke="#7a4a22", width=3),
    ),
    "youngest-leaves-all-pale": on(
        sapling(),
        path("M60 30q-12 -18 0 -28q12 10 0 28Z", "#ece48a"),
        *(
            path(f"M60 {52 - 22 * n}q{14 * s} -20 {38 * s} -18q{-6 * s} 20 {-38 * s} 18Z", "#e6de82" if n else "#d4d876")
            for n in range(2)
            for s in (-1, 1)
        ),
    ),
}

OLD: dict[str, Draw] = {
    "all-old-needles-brown-inside": on(backdrops.browned_needles(), path("M60 142L60 70", stroke="#6a4a34", width=5)),
    "sugar-caps-on-leaves": on_form(
        "".join(
            path(f"M{x - 7} {y}L{x} {y - 12}L{x + 7} {y}Z", "#fbfaf3", "#c9c3b4", 1.2)
            for x, y in ((48, 92), (66, 76), (54, 58), (70, 46), (62, 102))
        ),
        form="slim",
    ),
    "warty-growth-on-aloe": on(
        path("M40 142C34 90 44 40 60 4C76 40 86 90 80 142Z", "#86a868", "#56743b", 1.6),
        blots(along(42, 120, 52, 36, 5), "#c9904a", 14, (4, 8), "#7a4a22"),
    ),
    "old-needles-stripped": on(_bare_inside()),
    "white-stripes-along-blade": on_form(dashes(GRASS_BLADE, "#f4f2e2", 16, 0, 30, 1.8), form="blade"),
    "v-cuts-in-fronds": on(_frond(svg.GREEN, notch=True)),
    "ragged-wet-streaks-in-fans": on(
        _fan(path("M40 130C34 100 30 70 22 44", stroke="#4a5a24", width=7) + path("M70 132C78 100 82 80 92 50", stroke="#4a5a24", width=6))
    ),
    "netted-cocoon": on(
        blade(),
        larvae.pupa(62, 70, 15, "#7a4a22", -40),
        "".join(
            path(f"M{36 + 6 * n} {98 - 6 * n}q-8 -20 10 -34", stroke="#f4f1e6", width=1.2)
            + path(f"M{34 + 6 * n} {66 - 3 * n}q20 4 30 26", stroke="#f4f1e6", width=1.2)
            for n in range(7)
        ),
    ),
    "torn-to-the-ribs": on(
        path("M60 138L60 14", stroke="#cfdcb5", width=7),
        "".join(path(f"M60 {116 - 20 * n}q{s * 22} -6 {s * 40} -26", stroke="#cfdcb5", width=4) for n in range(5) for s in (-1, 1)),
        blots(disc(60, 100, 20), svg.GREEN, 7, (6, 12), rough=0.9),
        blots(disc(60, 40, 18), svg.DARK_GREEN, 4, (4, 8), rough=0.9),
    ),
    "black-feathery-spots": on_form(spots(LEAF, BLACK, 7, (5, 8)), tufts(LEAF, BLACK, 60, 6, 1.2), form="compound"),
    "grey-spots-with-dots": on_form(spots(LEAF, "#cfcabb", 16, (2.6, 4), edge=BROWN, dots=3)),
    "black-greasy-specks": on_form(spots(LEAF, "#1f241a", 26, (1.4, 3), halo="#b9c45a")),
    "long-blotches-on-blade": on_form(
        "".join(ellipse(58 + 5 * (n % 2), 38 + 19 * n, 4, 11, TAN, stroke=BROWN, width=1.2) for n in range(5)),
        spots(GRASS_BLADE, BLACK, 24, (0.7, 1)),
        form="blade",
    ),
    "purple-spots": on_form(spots(LEAF, PURPLE, 17, (2.4, 4.6), eye="#e6dccf")),
    "tar-drops": on_form(blots(LEAF, "#0f0d0c", 7, (6, 9)), spots(LEAF, "#ffffff55", 5, (1, 2)), form="palmate"),
    "purple-ovals": on(
        path("M44 140C40 90 48 40 60 4C72 40 80 90 76 140Z", "#7a9a5c", svg.STEM, 1.4),
        *(ellipse(60, y, 11, 19, "#e6dccf", stroke=PURPLE, width=4) + ellipse(60, y, 5, 10, "#b98ab0") for y in (56, 104)),
    ),
    "black-veins-in-yellow-wedge": on_form(
        path("M60 64L34 92Q26 70 34 48Z", "#e2cf5a"), path("M60 64L34 86M60 64L32 70M56 66L36 54", stroke=BLACK, width=1.8), form="broad"
    ),
    "yellow-edged-brown-blotch": on_form(blots(LEAF, "#8a4a22", 5, (10, 16), "#e2cf3a"), form="palmate"),
    "rust-in-stripes": on_form(*(spots(along(x, 122, x, 20, 0.7), "#e8982a", 26, (1.1, 1.9)) for x in (56, 61, 65)), form="blade"),
    "pale-patches-violet-fur": on(
        path("M44 140C40 90 48 40 60 4C72 40 80 90 76 140Z", "#7a9a5c", svg.STEM, 1.4),
        ellipse(60, 78, 13, 38, "#cfd0a0"),
        tufts(disc(60, 78, 22), "#8a7a9a", 110, 6),
    ),
    "brown-from-the-stalk": on_form(
        path("M60 122L50 104Q56 80 60 54Q64 80 70 104Z", "#3a2a1c"), path("M60 138L60 108", stroke="#2a1e14", width=4), form="slim"
    ),
    "wavy-yellow-edge-down-the-blade": on_form(path("M62 112q4 -12 1 -24t0 -24t-1 -20t-2 -16", stroke="#ddcf6a", width=6), form="blade"),
    "spots-with-rings-of-dots": on_form(
        *(
            circle(x, y, 10, TAN, BROWN, 1.4)
            + "".join(
                circle(x + 6 * c, y + 6 * s, 1, BLACK) for c, s in ((1, 0), (0.5, 0.87), (-0.5, 0.87), (-1, 0), (-0.5, -0.87), (0.5, -0.87))
            )
            for x, y in ((50, 88), (70, 66), (54, 44))
        )
    ),
    "scorch-with-yellow-line": on_form(_edge("#e2c83a", 15), _edge("#8a5a2a", 10)),
    "one-side-of-frond-dead": on(_frond("#b08a4a")),
    "lower-leaves-rolled-stiff": on(
        "".join(
            path(f"M60 {124 - 26 * n}q{18 * s} -16 {44 * s} -12", stroke=svg.GREEN, width=13)
            + path(f"M60 {124 - 26 * n}q{18 * s} -16 {44 * s} -12", stroke=svg.UNDER, width=4)
            for n in range(3)
            for s in (-1, 1)
        ),
        path("M60 142L60 30", stroke=svg.STEM, width=5),
        path("M60 42q-12 -18 0 -32q12 14 0 32Z", svg.GREEN),
    ),
    "inky-marks-along-veins": on_form(
        _veins("#2a4a3a", 3.4), blots(along(60, 104, 60, 30, 10), "#1f3a3a", 8, (2, 5), rough=0.8), form="broad"
    ),
    "red-leaves-green-veins": on_form(_veins("#6f9350", 4), form="palmate", light="#b03a3a", dark="#8a2a34"),
    "lopsided-yellow-mottle": on_form(
        blots(along(46, 104, 46, 36, 7), "#e2d85a", 6, (6, 10)), blots(disc(74, 84, 6), "#e2d85a", 2, (4, 7))
    ),
    "mottle-mirrored-between-veins": on_form(
        *(ellipse(60 + s * 13, 92 - 17 * n, 8, 5, "#e2dc7a", turn=s * -40) for n in range(4) for s in (-1, 1)), MIDRIB
    ),
    "purple-old-leaves": on_form(_edge("#6a3560", 16), light="#7a4a6a", dark="#5a3454"),
    "brown-tips-only": on(
        _fan("".join(path(f"M{2 + 27 * n} 18L{8 + 26 * n} 6L{14 + 25 * n} 18Z", "#8a5a2a", "#e2d89a", 2) for n in range(5)))
    ),
}

BELOW: dict[str, Draw] = {
    "wool-below-leaves": on(UNDER, threads(BLADE, "#fbfaf3", 40, 12, 2), wool(BLADE, 10, 6)),
    "curly-wool-below": on(UNDER, wool(BLADE, 22, 4), drops(BLADE, "#e6dfa2aa", 5, 5)),
    "wax-spirals-below": on(
        UNDER,
        *(
            path(f"M{x} {y}q8 -8 14 0q4 10 -8 14q-18 2 -20 -14q2 -20 22 -20", stroke="#fbfaf3", width=2.2)
            for x, y in ((44, 88), (72, 62), (84, 94))
        ),
    ),
    "black-white-barrel-eggs": on(
        UNDER,
        eggs(50, 40, 2, 5, "#fbfaf3", size=6),
        *(
            path(f"M{44 + 12.6 * column} {y}l12 0", stroke=BLACK, width=1.8)
            for column in range(2)
            for row in range(5)
            for y in (36.5 + 16.4 * row, 43.5 + 16.4 * row)
        ),
    ),
    "tight-flat-webs-below": on(
        UNDER,
        *(
            path(f"M{x - 13} {y - 8}L{x + 13} {y - 12}L{x + 15} {y + 8}L{x - 11} {y + 11}Z", "#ffffffb0", "#e6e2d6", 1)
            + "".join(circle(x - 6 + 5 * n, y - 2 + n % 2 * 4, 1.3, "#8a7a3a") for n in range(4))
            for x, y in ((42, 92), (66, 70), (86, 44), (80, 86))
        ),
    ),
    "white-eggs-in-rows-below": on(UNDER, eggs(50, 62, 1, 5, "#fbfaf3", size=4, tall=1.7), eggs(74, 58, 1, 4, "#fbfaf3", size=4, tall=1.7)),
    "larvae-under-own-droppings": on(
        blade(),
        *(
            ellipse(x, y, 13, 9, "#e08a3a", turn=-30) + ellipse(x + 1, y - 2, 12, 8, "#2a2a1e", turn=-30) + circle(x - 10, y + 7, 3, BLACK)
            for x, y in ((46, 84), (72, 62), (66, 98))
        ),
    ),
    "white-warts-below": on(UNDER, spots(BLADE, "#f6f2e6", 22, (2.6, 5), edge="#d8b8a0")),
    "black-dots-in-rows-on-needles": on(
        "".join(
            path(f"M{20 + 20 * n} 138L{26 + 20 * n} 6", stroke="#8a9a5a", width=12)
            + "".join(circle(20 + 20 * n + 0.046 * y + s * 3, 138 - y, 1.2, BLACK) for y in range(6, 130, 9) for s in (-1, 1))
            for n in range(5)
        )
    ),
}

DRAWN: dict[str, Draw] = YOUNG | OLD | BELOW
