"""Signs that are small and soft: aphids, mites, scales, whiteflies, eggs, wool and what a crushed one leaves."""

from bootmark.core.catalogue.drawn import Drawn
from bootmark.drawing import backdrops, scenes, small, svg
from bootmark.drawing.backdrops import blade, stem, twig
from bootmark.drawing.caterpillars import lying
from bootmark.drawing.laid import BLACK, on, under
from bootmark.drawing.limbs import LINE
from bootmark.drawing.sketch import Draw, Sketch, plain


def _lens(*bodies: str, ground: str = svg.UNDER) -> Draw:
    vein = svg.path("M10 96C40 80 80 50 112 40", stroke=svg.VEIN, width=4)
    return on(scenes.lens(svg.circle(60, 66, 47, ground) + vein + "".join(bodies)))


def _colony(colour: str, count: int = 18, size: float = 6.4, tubes: str = LINE) -> Draw:
    return lambda sketch: blade(under=True) + small.colony(sketch.rng, colour, count, size, (26, 34, 98, 106), tubes)


def _wool(sketch: Sketch, *, under: str) -> str:
    return under + "".join(
        svg.circle(x + sketch.rng.uniform(-7, 7), y + sketch.rng.uniform(-6, 6), sketch.rng.uniform(4, 8), svg.WHITE, "#d9d2c4", 0.6)
        for x, y in ((44, 92), (58, 72), (72, 54), (84, 34))
        for _ in range(6)
    )


def _whitefly_scale(x: float, y: float, colour: str, wax: bool) -> str:
    fringe = (
        "".join(
            svg.path(f"M{x + 11 * dx:.1f} {y + 8 * dy:.1f}l{7 * dx:.1f} {6 * dy:.1f}", stroke=svg.WHITE, width=1.4)
            for dx, dy in ((1, 0), (0.7, 0.7), (0, 1), (-0.7, 0.7), (-1, 0), (-0.7, -0.7), (0, -1), (0.7, -0.7))
        )
        if wax
        else ""
    )
    side = svg.ellipse(x, y + 3.4, 12, 9, "#b9b487") if wax else ""
    return (
        fringe
        + side
        + svg.ellipse(x, y, 12, 9, colour, stroke="#9a915a", width=0.9)
        + svg.path(f"M{x - 6} {y}q6 4 12 0M{x} {y - 6}l0 12", stroke="#a39a62", width=0.9)
    )


SCALES_AT = ((40, 74), (66, 58), (58, 92), (88, 74))


def _finger_stain(colour: str, dry: bool = False) -> Draw:
    hand = svg.path("M34 142C36 96 38 66 44 44C48 30 70 28 76 44C82 66 84 96 88 142Z", "#e0b692", "#a77b58", 1.4) + svg.path(
        "M47 52C50 40 70 40 73 52C70 60 50 60 47 52Z", "#f0d3bb", "#a77b58", 0.8
    )
    if dry:
        return lambda sketch: (
            hand
            + "".join(
                svg.circle(
                    60 + sketch.rng.uniform(-18, 18), 84 + sketch.rng.uniform(-12, 12), sketch.rng.uniform(1, 3), "#f4f0e6", "#b9b1a0", 0.6
                )
                for _ in range(34)
            )
        )
    drops = svg.path("M42 84C44 70 76 68 80 84C82 98 70 104 60 103C48 104 40 98 42 84Z", colour) + svg.path(
        "M58 102C60 114 52 118 56 128C62 122 66 114 64 102Z", colour
    )
    return on(hand, drops, svg.ellipse(54, 80, 6, 3, "#ffffff66"))


def _shells(sketch: Sketch) -> str:
    return backdrops.bark() + "".join(
        small.scale_cover(sketch.rng.uniform(32, 88), 14 + 10 * n, 7, "#6b5038", turn=sketch.rng.uniform(-40, 40), long=True)
        for n in range(12)
    )


def _round_scales(sketch: Sketch) -> str:
    return twig(20) + "".join(small.scale_cover(24 + 9.4 * n, 128 - 14 * n + sketch.rng.uniform(-8, 8), 6.4, "#8a6a4a") for n in range(9))


def _male_scales(sketch: Sketch) -> str:
    whites = "".join(
        small.scale_cover(
            sketch.rng.uniform(30, 90), sketch.rng.uniform(20, 120), 4.2, svg.WHITE, turn=sketch.rng.uniform(60, 120), long=True
        )
        for _ in range(18)
    )
    browns = "".join(small.scale_cover(x, y, 7, "#8a6a3f", turn=70, long=True) for x, y in ((44, 40), (70, 70), (48, 96), (76, 114)))
    return blade(under=True) + whites + browns


def _needle_scales(sketch: Sketch) -> str:
    return backdrops.needles() + "".join(
        small.scale_cover(60 + s * (20 + 3 * (n % 3)), 112 - 15 * n, 5, svg.WHITE, turn=-30 * s, long=True)
        + svg.circle(60 + s * (14 + 3 * (n % 3)), 115 - 15 * n, 2.2, "#d9a93c")
        for n in range(6)
        for s in (-1, 1)
    )


def _nipple_scales(sketch: Sketch) -> str:
    marks = ((44, 66), (70, 58), (82, 86), (54, 98), (34, 90), (66, 80))
    return backdrops.apple("#d0a05a", "#b98a46") + "".join(
        svg.circle(x, y, 11, "#b53a2a", "none") + small.scale_cover(x, y, 6.6, "#8d8a80", "#33302a") for x, y in marks
    )


def _raft(sketch: Sketch) -> str:
    eggs = "".join(
        svg.ellipse(38 + 10 * (n % 5) + 5 * (n // 5 % 2), 54 + 9 * (n // 5), 7, 5, "#dfe2b0", stroke="#9a9a5a", width=0.9)
        for n in range(25)
    )
    return blade(under=True) + eggs


def _barrels(sketch: Sketch) -> str:
    eggs = "".join(
        svg.path(
            f"M{x - 5} {y + 8}L{x - 5} {y - 4}Q{x} {y - 10} {x + 5} {y - 4}L{x + 5} {y + 8}Q{x} {y + 12} {x - 5} {y + 8}Z",
            "#c3d3a8",
            "#6f7f4f",
            1,
        )
        + "".join(svg.path(f"M{x - 5 + 2.5 * m} {y - 5}l{-1 + m * 0.5} -4", stroke="#3f4a2a", width=0.9) for m in range(5))
        for x, y in ((40 + 12 * (n % 5), 52 + 20 * (n // 5)) for n in range(15))
    )
    return blade(under=True) + eggs


def _stalked(sketch: Sketch) -> str:
    return blade(under=True) + "".join(
        svg.path(
            f"M{34 + 11 * n} {104 - 8 * n}C{36 + 11 * n} {86 - 8 * n} {38 + 11 * n} {78 - 6 * n} {36 + 12 * n} {66 - 7 * n}",
            stroke="#6d6454",
            width=1,
        )
        + svg.ellipse(36 + 12 * n, 60 - 7 * n, 3.6, 6.4, svg.WHITE, stroke="#8a8570", width=0.9)
        for n in range(5)
    )


def _domes(sketch: Sketch) -> str:
    return blade(under=True) + "".join(
        svg.path(f"M{x - 10} {y + 8}C{x - 9} {y - 12} {x + 9} {y - 12} {x + 10} {y + 8}Z", "#f1eccb", "#a89a62", 1)
        + "".join(svg.path(f"M{x} {y - 7}L{x + m * 3.6} {y + 7}", stroke="#c9bd8a", width=0.9) for m in (-2, -1, 0, 1, 2))
        for x, y in ((44, 70), (78, 90), (76, 46))
    )


def _row_eggs(sketch: Sketch) -> str:
    return stem(30) + "".join(svg.ellipse(60, 34 + 15 * n, 12, 3.2, "#3b3a32", stroke="#1f1e1a", width=0.6) for n in range(6))


def _spindles(sketch: Sketch) -> str:
    eggs = "".join(svg.path(f"M{34 + 8 * n} {66 + n % 3 * 3}l3.4 -11l3.4 11q-3.4 4 -6.8 0Z", "#e3b93d", "#8a6a12", 0.8) for n in range(6))
    larva = lying(66, 98, 44, "#e3c74f", head="#5d4a1a", turn=-20, fat=0.26, drawn=Drawn(hairs=True))
    return blade(under=True) + eggs + larva


DRAWN: dict[str, Draw] = {
    "mites-and-round-eggs": plain(scenes.mites_and_eggs),
    "predatory-mites": plain(scenes.predatory),
    "flat-nymphs-in-drops": plain(scenes.nymphs_in_drops),
    "yellow-grain-eggs": plain(scenes.grain_eggs),
    "egg-cluster-yellow-upright": plain(scenes.beetle_eggs),
    "green-aphids": _colony("#8fb35c"),
    "black-aphids": _colony("#2f3130", 24),
    "grey-mealy-aphids": lambda sketch: (
        blade(under=True)
        + small.colony(sketch.rng, "#a9b0ae", 18, 6.4, (26, 34, 98, 106))
        + "".join(svg.circle(sketch.rng.uniform(24, 100), sketch.rng.uniform(32, 108), 0.9, svg.WHITE) for _ in range(70))
    ),
    "pink-aphids": _colony("#c4838a"),
    "woolly-aphids": lambda sketch: (
        backdrops.bark()
        + small.colony(sketch.rng, "#7a4a5a", 7, 6, (42, 34, 80, 108))
        + "".join(
            svg.circle(
                60 + sketch.rng.uniform(-22, 22), 70 + sketch.rng.uniform(-34, 34), sketch.rng.uniform(3, 7), svg.WHITE, "#d9d2c4", 0.6
            )
            for _ in range(26)
        )
    ),
    "pale-large-aphids": under(
        small.aphid(44, 88, 15, "#cfe0a4", -40), small.aphid(78, 62, 17, "#d9e3ae", -20), small.aphid(84, 104, 11, "#cfe0a4", 30)
    ),
    "whitefly-scales-upright-wax": under(*(_whitefly_scale(x, y, "#eceab8", True) for x, y in SCALES_AT)),
    "whitefly-scales-flat-yellow": under(
        *(_whitefly_scale(x, y, "#e6d45f", False) for x, y in SCALES_AT), small.whitefly(34, 102, 11, 120)
    ),
    "black-whitefly-scales": under(
        *(svg.ellipse(x, y, 12, 9, BLACK if n != 2 else "#e6e3b0", stroke="#55524a", width=1) for n, (x, y) in enumerate(SCALES_AT))
    ),
    "flat-scale-like-nymphs": under(
        *(
            svg.ellipse(x, y, 15, 10, "#d6d678", turn=t, stroke="#8f8f3a", width=1)
            + "".join(
                svg.path(f"M{x - 12 + 4 * n} {y + 10}l-1 5M{x - 12 + 4 * n} {y - 10}l-1 -5", stroke="#b9b97a", width=0.9) for n in range(7)
            )
            + svg.circle(x - 8, y - 3, 1.6, svg.RUST)
            + svg.circle(x - 8, y + 3, 1.6, svg.RUST)
            for x, y, t in ((44, 88, 0), (76, 60, 0))
        )
    ),
    "lens-tiny-amber-mites": _lens(
        small.mite(48, 60, 14, "#e0b45a", 20, worm=False),
        small.mite(80, 84, 11, "#e6c478", -50),
        *(
            svg.ellipse(x, y, 6, 4.4, "#efe3bd", stroke="#a8946a")
            + "".join(svg.circle(x - 3 + 2 * n, y - 1 + n % 2 * 2, 0.8, svg.WHITE) for n in range(4))
            for x, y in ((74, 46), (44, 92), (88, 62))
        ),
    ),
    "lens-pale-mites-in-folds": _lens(
        svg.path("M18 90C44 60 84 70 104 40L104 60C84 92 44 80 20 108Z", "#8fa673"),
        small.mite(50, 56, 13, "#f0d6cf", 10),
        small.mite(80, 78, 11, "#f0d6cf", -40),
        svg.ellipse(66, 96, 6, 4, "#f9efe6", stroke="#c9b0a4"),
        svg.ellipse(38, 86, 6, 4, "#f9efe6", stroke="#c9b0a4"),
    ),
    "lens-wedge-mites": _lens(
        small.mite(52, 52, 22, "#e6d68a", -20, worm=True),
        small.mite(70, 86, 19, "#efe0a0", 30, worm=True),
        small.mite(90, 58, 13, "#e6d68a", 80, worm=True),
    ),
    "red-mites-and-red-eggs": _lens(
        small.mite(48, 58, 15, "#a8331f", 20),
        small.mite(82, 74, 11, "#b23d28", -30),
        *(
            svg.circle(x, y, 4.4, "#c9402a", "#7d1f12", 0.8) + svg.path(f"M{x} {y - 4}l1 -8", stroke="#7d1f12", width=1)
            for x, y in ((70, 44), (46, 92), (66, 100), (92, 50))
        ),
    ),
    "green-mites-on-needles": lambda sketch: scenes.lens(
        svg.circle(60, 66, 47, "#f3efdf")
        + "".join(svg.path(f"M60 {112 - 18 * n}L{60 + s * 50} {84 - 20 * n}", stroke=svg.GREEN, width=8) for n in range(4) for s in (-1, 1))
        + svg.path("M60 116L60 20", stroke=svg.ROOT, width=6)
        + small.mite(48, 70, 9, "#4f5a34", 30)
        + small.mite(76, 52, 8, "#5d5a34", -20)
        + "".join(svg.circle(x, y, 3.4, "#b5532f", "#7d2f12", 0.6) for x, y in ((56, 92), (66, 88), (64, 62)))
        + "".join(svg.path(f"M{40 + 6 * n} 40q10 {12 + n} {22 - n} 44", stroke=svg.WHITE, width=0.7) for n in range(5))
    ),
    "long-white-predatory-mites": _lens(
        *(
            svg.path(
                f"M{x - 14} {y}C{x - 10} {y - 9} {x + 8} {y - 8} {x + 13} {y}C{x + 8} {y + 8} {x - 10} {y + 9} {x - 14} {y}Z",
                "#f1e9d6",
                "#b39a72",
                1,
            )
            + "".join(
                svg.path(f"M{x - 4 + 5 * n} {y - 6}l{-3 + 3 * n} -12M{x - 4 + 5 * n} {y + 6}l{-3 + 3 * n} 12", stroke="#c9ad7f", width=1.1)
                for n in range(4)
            )
            for x, y in ((50, 74), (78, 52))
        )
    ),
    "eggs-barrel-shaped": _barrels,
    "eggs-on-stalks": _stalked,
    "eggs-in-rafts": _raft,
    "single-dome-eggs": _domes,
    "eggs-in-a-row-upright": _row_eggs,
    "yellow-spindle-eggs-in-mats": _spindles,
    "cottony-masses": lambda sketch: _wool(sketch, under=stem(20, joint=True)),
    "galls-woolly": lambda sketch: _wool(
        sketch, under=twig(18) + "".join(svg.circle(x, y, 11, "#8d7258", svg.ROOT, 1.2) for x, y in ((34, 108), (62, 74), (88, 32)))
    ),
    "scale-covers": _round_scales,
    "crushed-body-wet": _finger_stain("#e09a2b"),
    "crushed-body-crimson": _finger_stain("#a8122f"),
    "crushed-body-dry": _finger_stain("", dry=True),
    "scale-body-juicy": lambda _: (
        twig(20)
        + svg.circle(62, 74, 24, "#e0a04a", "#a86a1f", 1.4)
        + svg.ellipse(56, 66, 9, 5, "#ffffff88")
        + svg.path("M84 54C104 44 112 60 100 76C96 66 92 60 84 54Z", "#8a6a4a", "#4f3a24", 1.2)
        + "".join(svg.circle(x, y, 2.6, "#f6e3b0") for x, y in ((58, 82), (66, 86), (70, 78), (62, 90)))
    ),
    "scale-shells-on-shell-shape": _shells,
    "white-male-scales": _male_scales,
    "white-scales-on-needles": _needle_scales,
    "grey-scales-with-nipple": _nipple_scales,
}
