"""Signs of few agents that show on tip or flower, made of motifs."""

from bootmark.drawing import backdrops, larvae, svg
from bootmark.drawing.backdrops import blade
from bootmark.drawing.laid import on
from bootmark.drawing.motifs import (
    BLACK,
    BROWN,
    NEEDLES,
    TIP,
    along,
    blots,
    box,
    dashes,
    disc,
    drops,
    holes,
    sapling,
    spots,
    threads,
    tufts,
    wool,
)  # fmt: skip
from bootmark.drawing.sketch import Draw
from bootmark.drawing.svg import circle, ellipse, path

UNDER, NEEDLE = blade(under=True), backdrops.needles()
YELLOW, GREY = "#e2cf5a", "#b9b4a4"


def _bud(colour: str, dark: str) -> str:
    return (
        path("M60 142L60 84", stroke=svg.STEM, width=5)
        + path("M60 90C34 84 34 42 60 22C86 42 86 84 60 90Z", colour, dark, 1.6)
        + path("M44 88C46 70 52 64 60 62C68 64 74 70 76 88Z", svg.GREEN, svg.STEM, 1)
    )


def _flower(colour: str, *more: str) -> str:
    petals = "".join(
        ellipse(60 + x, 60 + y, 20, 14, colour, turn=turn, stroke="#00000044")
        for x, y, turn in ((0, -26, 90), (25, -8, 18), (15, 21, -54), (-15, 21, 54), (-25, -8, -18))
    )
    return path("M60 84L58 140", stroke=svg.STEM, width=4) + petals + circle(60, 60, 9, "#c9b45a") + "".join(more)


TIPS: dict[str, Draw] = {
    "wool-at-needle-bases": on(NEEDLE, wool(along(60, 126, 60, 26, 5), 14, 5)),
    "pineapple-gall": on(
        NEEDLE,
        ellipse(60, 40, 20, 27, "#9a8a4a", stroke="#6a4a2a", width=1.6),
        "".join(path(f"M{46 + 7 * (n % 5)} {22 + 9 * (n // 5)}q4 5 8 0", stroke="#6a4a2a", width=1.4) for n in range(20)),
        "".join(path(f"M{44 + 8 * n} 20l{-4 + 2 * n} -14", stroke=svg.GREEN, width=2.4) for n in range(5)),
    ),
    "cupped-tips-like-cabbages": on(
        sapling(),
        circle(60, 30, 22, "#8fae5e", svg.STEM, 1.4),
        path("M42 24q18 -18 36 0q-4 24 -18 28q-14 -4 -18 -28Z", "#a9c47a", svg.STEM, 1.2),
        path("M52 26q8 -8 16 0q-2 14 -8 16q-6 -2 -8 -16Z", svg.UNDER, svg.STEM, 1),
    ),
    "ragged-tattered-tips": on(
        sapling(), holes(TIP, 12, 2.6, BROWN), holes(disc(60, 70, 30), 9, 2, BROWN), dashes(TIP, BROWN, 8, 6, 6, 1.4)
    ),
    "swollen-red-fused-tips": on(
        sapling(), blots(disc(60, 32, 15), "#c95a4a", 9, (8, 13), "#8a2e2a"), tufts(disc(60, 28, 20), "#e8b0a0", 50, 7)
    ),
    "big-round-buds": on(
        backdrops.twig(),
        "".join(circle(x, y, r, "#b8a860", "#7a6a34", 1.6) for x, y, r in ((36, 98, 13), (66, 76, 15), (76, 34, 12), (96, 22, 10))),
        "".join(path(f"M{x - 7} {y}q7 -8 14 0", stroke="#7a6a34", width=1.4) for x, y in ((36, 98), (66, 76), (76, 34))),
    ),
    "brown-needles-webbed": on(
        backdrops.browned_needles(), threads(NEEDLES, "#f4f1e6", 60, 22, 1.2), spots(NEEDLES, "#4a3322", 16, (1.2, 2))
    ),
    "hollow-brown-tips": on(
        NEEDLE,
        "".join(path(f"M60 {52 - 9 * n}q{s * 18} -6 {s * 34} -20", stroke="#b97a3a", width=4) for n in range(4) for s in (-1, 1)),
        holes(along(60, 60, 60, 20, 24), 4, 1.8),
    ),
    "dead-heart": on(
        "".join(path(f"M60 140C{60 + s * 8} 96 {60 + s * 34} 66 {60 + s * 46} 30", stroke=svg.GREEN, width=9) for s in (-1, 1)),
        path("M60 140L62 14", stroke="#d8c27a", width=9),
        path("M62 60q6 -20 2 -46", stroke="#b08a3a", width=3),
    ),
    "shoots-bent-like-a-horn": on(
        NEEDLE,
        path("M60 60C86 56 92 84 76 90C62 92 58 74 66 66C74 50 92 40 96 22", stroke="#9a6a34", width=8),
        drops(disc(66, 66, 8), "#e8c86a", 4, 4),
    ),
    "brown-flags-hang": on(
        NEEDLE,
        path("M60 58C84 56 96 80 92 116", stroke="#8a5a2a", width=4),
        "".join(
            path(f"M{82 + 3 * n} {66 + 9 * n}q-12 6 -16 18M{84 + 2 * n} {66 + 9 * n}q12 4 16 16", stroke="#b9682e", width=3)
            for n in range(5)
        ),
    ),
    "silver-shoots": on(
        "".join(path(f"M60 140C{60 + s * 8} 96 {60 + s * 32} 60 {60 + s * 42} 22", stroke=svg.GREEN, width=8) for s in (-1, 1)),
        path("M54 140L56 20Q60 8 64 20L66 140Z", "#e2e6dc", "#a9ada0", 1.4),
    ),
    "blind-growing-point": on(
        sapling(),
        circle(60, 34, 17, "#c9b48a", "#7a5a34", 2),
        tufts(disc(60, 34, 10), "#7a5a34", 20, 5),
        "".join(path(f"M60 60q{s * 30} 10 {s * 22} -34", stroke=svg.STEM, width=7) for s in (-1, 1)),
    ),
    "burnt-tiny-buds": on(sapling(), blots(disc(60, 22, 12), BLACK, 9, (3, 6)), dashes(disc(60, 26, 14), BLACK, 7, 5, -8, 2)),
    "yellow-dust-on-shoots": on(sapling(), spots(TIP, "#f0c81e", 70, (1, 2.4)), spots(disc(60, 74, 30), "#f0c81e", 40, (1, 2.2))),
    "short-brown-new-shoots": on(
        NEEDLE,
        "".join(path(f"M60 30q{s * 9} -8 {s * (7 + 3 * n)} -22", stroke="#9a5a2a", width=4) for n in range(3) for s in (-1, 1)),
        drops(disc(60, 30, 6), "#e8c86a", 3, 4),
    ),
    "black-streak-on-one-side": on(
        sapling(), path("M62 142C64 100 64 60 76 26", stroke=BLACK, width=6), blots(disc(80, 46, 12), BLACK, 4, (6, 10))
    ),
    "red-thorny-shoots": on(
        sapling(("#b9584a", "#9a3a3a")),
        path("M60 142L60 12", stroke="#b93a3a", width=9),
        "".join(
            path(f"M{60 + s * 4} {134 - 7 * n}l{s * 8} -3l{-s * 8} -3Z", "#d8806a", "#7a2a2a", 0.6) for n in range(17) for s in (-1, 1)
        ),
    ),
    "bunched-upright-leaves": on(
        "".join(
            path(f"M60 142C{50 + 3 * n} 100 {40 + 5 * n} 60 {36 + 6 * n} 10", stroke=svg.GREEN if n % 2 else svg.DARK_GREEN, width=7)
            for n in range(9)
        ),
        "".join(path(f"M{40 + 5 * n} 30L{46 + 4 * n} 76", stroke=YELLOW, width=1.4) for n in range(9)),
    ),
}

FLOWERS: dict[str, Draw] = {
    "bored-buds-with-droppings": on(
        _bud("#d88aa8", "#a04a70"), holes(disc(60, 56, 8), 1, 5, "#5a2a3a"), spots(disc(62, 72, 12), BLACK, 12, (1.2, 2))
    ),
    "buds-half-cut": on(
        path("M30 142C30 80 40 40 60 24", stroke=svg.STEM, width=4),
        path("M60 24C76 30 84 40 84 56", stroke=svg.STEM, width=2, stroke_dasharray="6 4"),
        ellipse(84, 72, 13, 17, "#e6d8c8", stroke="#8a6a5a", width=1.6),
        circle(61, 25, 3, BROWN),
    ),
    "capped-blossoms": on(_bud("#8a5a34", "#5a3420"), larvae.grub(60, 66, 10, 20, legs=False)),
    "rosetted-bloom": on(_bud("#ecd98a", "#b9a04a"), threads(disc(60, 52, 22), "#fbfaf3", 26, 20, 1.6)),
    "head-matted-with-silk": on(
        circle(60, 62, 44, "#e2b52a", "#a57a1e", 2),
        circle(60, 62, 30, "#5a3a1e"),
        threads(disc(60, 62, 34), "#f4f1e6", 60, 20, 1.2),
        spots(disc(60, 62, 28), "#c9b08a", 26, (1.4, 2.4)),
        path("M60 106L60 142", stroke=svg.STEM, width=7),
    ),
    "fat-short-buds": on(
        path("M60 142L60 60", stroke=svg.STEM, width=5),
        ellipse(60, 44, 19, 22, "#d8a04a", stroke="#8a5a24", width=1.6),
        *(path(f"M{48 + 6 * n} 28q3 16 0 32", stroke="#8a5a24", width=1) for n in range(5)),
        path("M60 90C84 80 92 60 94 28C100 60 92 86 62 100Z", "#e8b86a", "#8a5a24", 1),
    ),
    "black-buds-grey-fur": on(_bud("#3a2a26", "#1d1614"), tufts(box(50, 92, 70, 138), GREY, 60, 7), tufts(disc(60, 60, 22), GREY, 40, 6)),
    "blossoms-hang-brown": on(
        backdrops.twig(),
        *(
            ellipse(x + dx, y + dy, 7, 5, "#a5703a", turn=turn, stroke="#6a4424")
            for x, y in ((34, 110), (66, 90), (86, 46))
            for dx, dy, turn in ((0, 0, 20), (9, 6, 80), (-7, 8, -50))
        ),
        drops(disc(50, 96, 6), "#e0a83a", 2, 6),
    ),
    "colour-broken-petals": on(
        _flower(
            "#d8607a",
            *(path(f"M{60 + 5 * n} {44 - 3 * abs(n)}q{4 * n} -16 {6 * n} -26", stroke="#f6e8ec", width=3.4) for n in range(-3, 4)),
            *(path(f"M{60 + s * 16} 62l{s * 20} -6M{60 + s * 10} 76l{s * 12} 16", stroke="#f6e8ec", width=3.4) for s in (-1, 1)),
        )
    ),
    "flower-stalks-black-nuts-drop": on(
        path("M60 10C70 40 70 60 60 84", stroke=BLACK, width=7),
        *(path(f"M62 {30 + 12 * n}q{s * 16} 4 {s * 28} 18", stroke=BLACK, width=3) for n in range(4) for s in (-1, 1)),
        *(circle(x, y, 8, "#8a9a4a", "#4a5a24", 1) for x, y in ((22, 126), (50, 132), (84, 124), (100, 134))),
    ),
}

DRAWN: dict[str, Draw] = TIPS | FLOWERS
