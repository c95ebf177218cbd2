"""Signs that are the animals themselves, their eggs, or what is left of them."""

from bootmark.web.drawing import animals, backdrops, scenes, svg
from bootmark.web.drawing.animals import beetle, caterpillar
from bootmark.web.drawing.backdrops import blade, stem, twig
from bootmark.web.drawing.sketch import Draw, Sketch, plain


def _on(backdrop: str, *bodies: str) -> Draw:
    """Bodies on a backdrop, the same whatever the leaf."""
    return lambda _: backdrop + "".join(bodies)


def _under(*bodies: str) -> Draw:
    return _on(blade(under=True), *bodies)


def _upper(*bodies: str) -> Draw:
    return _on(blade(), *bodies)


def _lens(*bodies: str, ground: str = svg.UNDER) -> Draw:
    vein = svg.path("M10 96C40 80 80 50 112 40", stroke=svg.VEIN, width=4)
    return _on(scenes.lens(svg.circle(60, 66, 47, ground) + vein + "".join(bodies)))


def _colony(colour: str, count: int = 18, size: float = 6.4, tubes: str = animals.LINE) -> Draw:
    return lambda one: blade(under=True) + animals.colony(one.rng, colour, count, size, (26, 34, 98, 106), tubes)


def _mummies(one: Sketch) -> str:
    parts = [blade(under=True)]
    for n, (x, y) in enumerate(((40, 66), (66, 52), (56, 88), (84, 74), (34, 98))):
        parts.append(svg.ellipse(x, y, 12, 9.4, "#c9a868" if n % 2 else "#b8935a", turn=n * 40, stroke="#7d5a2a", width=1.2))
        parts.append(
            svg.circle(x + 5, y - 1, 3, "#2b2118") if n in (1, 2, 4) else svg.path(f"M{x - 6} {y}q6 -5 12 0", stroke="#ffffff88", width=1.4)
        )
    return "".join(parts)


def _wool(one: Sketch, *, under: str) -> str:
    return under + "".join(
        svg.circle(x + one.rng.uniform(-7, 7), y + one.rng.uniform(-6, 6), one.rng.uniform(4, 8), svg.WHITE, "#d9d2c4", 0.6)
        for x, y in ((44, 92), (58, 72), (72, 54), (84, 34))
        for _ in range(6)
    )


def _cocoons(one: Sketch) -> str:
    rice = "".join(
        svg.ellipse(
            30 + 6.2 * n + one.rng.uniform(-1, 1),
            58 + one.rng.uniform(-4, 6),
            2.6,
            6.4,
            svg.WHITE,
            turn=one.rng.uniform(-16, 16),
            stroke="#b9b39d",
            width=0.8,
        )
        for n in range(10)
    )
    return blade() + caterpillar(60, 72, 84, "#9db86a", head="#6f8a4a", marks="slants") + rice


def _heap(one: Sketch) -> str:
    cocoons = "".join(
        svg.ellipse(
            62 + one.rng.uniform(-18, 18),
            92 + one.rng.uniform(-10, 10),
            4,
            8,
            "#e6c84f",
            turn=one.rng.uniform(0, 180),
            stroke="#a8852a",
            width=0.9,
        )
        for _ in range(16)
    )
    return blade() + caterpillar(58, 62, 72, "#b9b87a", head="#6b5a3a", turn=-12, fat=0.12) + cocoons


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
        return lambda one: (
            hand
            + "".join(
                svg.circle(60 + one.rng.uniform(-18, 18), 84 + one.rng.uniform(-12, 12), one.rng.uniform(1, 3), "#f4f0e6", "#b9b1a0", 0.6)
                for _ in range(34)
            )
        )
    drops = svg.path("M42 84C44 70 76 68 80 84C82 98 70 104 60 103C48 104 40 98 42 84Z", colour) + svg.path(
        "M58 102C60 114 52 118 56 128C62 122 66 114 64 102Z", colour
    )
    return _on(hand, drops, svg.ellipse(54, 80, 6, 3, "#ffffff66"))


def _shells(one: Sketch) -> str:
    return backdrops.bark() + "".join(
        animals.scale_cover(one.rng.uniform(32, 88), 14 + 10 * n, 7, "#6b5038", turn=one.rng.uniform(-40, 40), long=True) for n in range(12)
    )


def _round_scales(one: Sketch) -> str:
    return twig(20) + "".join(animals.scale_cover(24 + 9.4 * n, 128 - 14 * n + one.rng.uniform(-8, 8), 6.4, "#8a6a4a") for n in range(9))


def _male_scales(one: Sketch) -> str:
    whites = "".join(
        animals.scale_cover(one.rng.uniform(30, 90), one.rng.uniform(20, 120), 4.2, svg.WHITE, turn=one.rng.uniform(60, 120), long=True)
        for _ in range(18)
    )
    browns = "".join(animals.scale_cover(x, y, 7, "#8a6a3f", turn=70, long=True) for x, y in ((44, 40), (70, 70), (48, 96), (76, 114)))
    return blade(under=True) + whites + browns


def _needle_scales(one: Sketch) -> str:
    return backdrops.needles() + "".join(
        animals.scale_cover(60 + s * (20 + 3 * (n % 3)), 112 - 15 * n, 5, svg.WHITE, turn=-30 * s, long=True)
        + svg.circle(60 + s * (14 + 3 * (n % 3)), 115 - 15 * n, 2.2, "#d9a93c")
        for n in range(6)
        for s in (-1, 1)
    )


def _nipple_scales(one: Sketch) -> str:
    marks = ((44, 66), (70, 58), (82, 86), (54, 98), (34, 90), (66, 80))
    return backdrops.apple("#d0a05a", "#b98a46") + "".join(
        svg.circle(x, y, 11, "#b53a2a", "none") + animals.scale_cover(x, y, 6.6, "#8d8a80", "#33302a") for x, y in marks
    )


def _raft(one: Sketch) -> str:
    eggs = "".join(
        svg.ellipse(38 + 10 * (n % 5) + 5 * (n // 5 % 2), 54 + 9 * (n // 5), 7, 5, "#dfe2b0", stroke="#9a9a5a", width=0.9)
        for n in range(25)
    )
    return blade(under=True) + eggs


def _barrels(one: Sketch) -> str:
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


def _stalked(one: Sketch) -> str:
    return blade(under=True) + "".join(
        svg.path(
            f"M{34 + 11 * n} {104 - 8 * n}C{36 + 11 * n} {86 - 8 * n} {38 + 11 * n} {78 - 6 * n} {36 + 12 * n} {66 - 7 * n}",
            stroke="#6d6454",
            width=1,
        )
        + svg.ellipse(36 + 12 * n, 60 - 7 * n, 3.6, 6.4, svg.WHITE, stroke="#8a8570", width=0.9)
        for n in range(5)
    )


def _domes(one: Sketch) -> str:
    return blade(under=True) + "".join(
        svg.path(f"M{x - 10} {y + 8}C{x - 9} {y - 12} {x + 9} {y - 12} {x + 10} {y + 8}Z", "#f1eccb", "#a89a62", 1)
        + "".join(svg.path(f"M{x} {y - 7}L{x + m * 3.6} {y + 7}", stroke="#c9bd8a", width=0.9) for m in (-2, -1, 0, 1, 2))
        for x, y in ((44, 70), (78, 90), (76, 46))
    )


def _row_eggs(one: Sketch) -> str:
    return stem(30) + "".join(svg.ellipse(60, 34 + 15 * n, 12, 3.2, "#3b3a32", stroke="#1f1e1a", width=0.6) for n in range(6))


def _spindles(one: Sketch) -> str:
    eggs = "".join(svg.path(f"M{34 + 8 * n} {66 + n % 3 * 3}l3.4 -11l3.4 11q-3.4 4 -6.8 0Z", "#e3b93d", "#8a6a12", 0.8) for n in range(6))
    larva = caterpillar(66, 98, 44, "#e3c74f", head="#5d4a1a", turn=-20, hairs=True, fat=0.26)
    return blade(under=True) + eggs + larva


def _caterpillar_in_roll(one: Sketch) -> str:
    return (
        blade()
        + svg.path("M24 96C40 60 66 44 104 34C96 60 76 84 44 104Z", svg.UNDER, svg.STEM, 1.2)
        + caterpillar(60, 78, 62, "#9db86a", head="#33291d", turn=-38, fat=0.12)
        + "".join(svg.path(f"M{38 + 12 * n} {92 - 9 * n}l14 8", stroke=svg.WHITE, width=1.3) for n in range(4))
    )


def _droves(one: Sketch) -> str:
    return blade() + "".join(
        caterpillar(
            38 + 22 * (n % 3),
            46 + 17 * (n // 3) + 4 * (n % 2),
            34,
            "#7a8a4a",
            head="#2b2724",
            turn=-40 + one.rng.uniform(-10, 10),
            stripe="#e9dfb0",
        )
        for n in range(12)
    )


def _silk_rest(one: Sketch) -> str:
    web = svg.path("M10 106C20 50 60 20 112 20C110 70 78 118 10 106Z", "#f4f1e6", opacity="0.75")
    return (
        blade()
        + web
        + "".join(
            caterpillar(36 + 24 * (n % 3), 58 + 18 * (n // 3), 38, "#6d5a3a", head="#2b2118", turn=-36, hairs=True, fat=0.2)
            for n in range(6)
        )
    )


def _coiled(one: Sketch) -> str:
    edge = svg.path("M0 84C40 66 80 66 120 84L120 142L0 142Z", svg.GREEN) + svg.path("M0 84C40 66 80 66 120 84", stroke=svg.STEM, width=3)
    ring = "".join(
        svg.circle(60 + 25 * c, 60 + 25 * s, 8.4, "#8fae5e", "#00000040", 0.6) + svg.circle(60 + 28 * c, 60 + 28 * s, 1.8, svg.WHITE)
        for c, s in ((1, 0), (0.86, 0.5), (0.5, 0.86), (0, 1), (-0.5, 0.86), (-0.86, 0.5), (-1, 0), (-0.86, -0.5), (-0.5, -0.86), (0, -1))
    )
    return edge + ring + svg.circle(72, 38, 8, "#a5702f", animals.LINE, 1)


def _bristly(one: Sketch) -> str:
    forks = "".join(
        svg.path(f"M{24 + 9 * n} 64l0 -11m-3 -4l3 4l3 -4M{24 + 9 * n} 80l0 10m-3 4l3 -4l3 4", stroke="#4a5a2a", width=1.2) for n in range(9)
    )
    return blade(under=True) + forks + caterpillar(60, 72, 78, "#8fae5e", head="#6b4a2a", fat=0.18)


def _swaying(one: Sketch) -> str:
    aphids = animals.colony(one.rng, "#86a35c", 9, 5.4, (30, 78, 96, 112))
    body = svg.path(
        "M24 84C36 58 70 44 98 46C104 48 102 54 96 58C74 70 48 82 34 94C26 98 20 92 24 84Z", "#cfe0a4", "#7f9a56", 1.2
    ) + svg.path("M32 86C50 68 74 56 96 51", stroke="#6b7f3f", width=2)
    return blade(under=True) + aphids + body


def _ladies(one: Sketch) -> str:
    return (
        blade()
        + beetle(40, 56, 19, "#c2402a", slim=0.9, spots=6, turn=-50)
        + caterpillar(74, 94, 48, "#3c4048", head="#1f2224", turn=-30, fat=0.26, dots="#e08a2a", hairs=True)
    )


def _spotted(one: Sketch) -> str:
    web = "".join(
        svg.path(f"M60 62L{60 + 58 * c:.0f} {62 + 58 * s:.0f}", stroke="#b9b4a4", width=0.9)
        for c, s in ((1, 0), (0.5, 0.86), (-0.5, 0.86), (-1, 0), (-0.5, -0.86), (0.5, -0.86))
    ) + "".join(
        svg.path(
            "M"
            + "L".join(
                f"{60 + r * c:.0f} {62 + r * s:.0f}" for c, s in ((1, 0), (0.5, 0.86), (-0.5, 0.86), (-1, 0), (-0.5, -0.86), (0.5, -0.86))
            )
            + "Z",
            stroke="#b9b4a4",
            width=0.9,
        )
        for r in (16, 30, 44)
    )
    return scenes.shoot() + web + animals.spider(60, 62, 10)


def _night_ground(*bodies: str) -> Draw:
    board = svg.path("M6 40L112 26L114 38L8 53Z", "#8d7258", "#5d4a36", 1.2)
    return _on(backdrops.earth(62), board, *bodies)


def _elm(one: Sketch) -> str:
    return (
        blade()
        + beetle(42, 54, 18, "#a8a35a", slim=0.55, stripes=2, mark="#3a3a22", turn=-60)
        + animals.slug_larva(74, 92, 46, "#e0c64a", -20, dots=svg.INK)
    )


def _viburnum(one: Sketch) -> str:
    caps = svg.path("M12 30L108 12", stroke=backdrops.TWIG, width=11) + "".join(
        svg.circle(22 + 9 * n, 28 - 1.7 * n, 2.6, "#3a2c1e") for n in range(9)
    )
    return (
        f'<g transform="translate(0 18)">{blade()}</g>'
        + caps
        + "".join(animals.slug_larva(x, y, 44, "#c3c96a", turn, dots=svg.INK) for x, y, turn in ((46, 88, -30), (80, 74, -40)))
    )


def _swarm(one: Sketch) -> str:
    return scenes.flower(one.rng) + "".join(
        beetle(x, y, 15, "#6d7276" if n % 2 else "#3f4246", slim=0.32, head="#6d5a3a", turn=turn)
        for n, (x, y, turn) in enumerate(((40, 44, -30), (76, 40, -120), (58, 74, -80), (86, 76, -10)))
    )


def _glow(one: Sketch) -> str:
    night = svg.path("M0 0L120 0L120 142L0 142Z", "#23243a") + svg.path("M2 126C2 66 46 14 118 12C122 74 76 128 2 126Z", "#34384f")
    beam = svg.path("M120 -4L96 -4L20 60L60 104Z", "#8a63c9", opacity="0.35")
    return night + beam + caterpillar(58, 72, 82, "#b6f28a", head="#d9ffb5", turn=-20, marks="slants", horn="#e6ffd0")


def _bag(*more: str) -> str:
    bits = "".join(
        svg.path(f"M{44 + 7 * (n % 4)} {44 + 15 * (n // 4)}l8 9", stroke=("#6b5538", "#8a7a4a", "#55632f")[n % 3], width=4)
        for n in range(20)
    )
    return (
        svg.path("M0 14L120 4", stroke=backdrops.TWIG, width=8)
        + svg.path("M60 10L60 30", stroke="#8a7a5a", width=3)
        + svg.path("M60 28C82 40 86 98 60 130C34 98 38 40 60 28Z", "#8a7350", "#4f3f28", 1.4)
        + bits
        + "".join(more)
    )


SLIT = svg.path("M60 42C70 60 70 100 60 118C50 100 50 60 60 42Z", "#efe3c6", "#4f3f28", 1)


def _eggs_in_bag(one: Sketch) -> str:
    return _bag(
        SLIT, *(svg.circle(60 + one.rng.uniform(-5, 5), 58 + one.rng.uniform(0, 44), 2.2, "#e3c05a", "#9a7a22", 0.5) for _ in range(34))
    )


def _fly_up(one: Sketch) -> str:
    at = ((30, 44, -30), (56, 24, 10), (86, 34, 30), (100, 64, 50), (22, 74, -50), (70, 58, 0))
    return f'<g transform="translate(0 44) scale(1 0.72)">{blade()}</g>' + "".join(animals.whitefly(x, y, 13, turn) for x, y, turn in at)


def _exit(one: Sketch) -> str:
    return (
        blade(under=True)
        + svg.ellipse(58, 74, 34, 18, "#e9dfc0", turn=-24, stroke="#a8946a", width=1.4)
        + "".join(svg.path(f"M{38 + 9 * n} {66 - 3 * n}q6 10 2 20", stroke="#c9b98a", width=1) for n in range(5))
        + svg.circle(80, 63, 7.5, "#33291d", "#a8946a", 1.4)
    )


def _egg_on_back(one: Sketch) -> str:
    return (
        blade()
        + caterpillar(58, 76, 84, "#8a9a5a", head="#5d4a2a", fat=0.22)
        + svg.ellipse(84, 62, 7, 4.4, svg.WHITE, turn=-16, stroke="#8a8570", width=1)
    )


BLACK = "#26292c"

DRAWN: dict[str, Draw] = {
    "mites-and-round-eggs": plain(scenes.mites_and_eggs),
    "predatory-mites": plain(scenes.predatory),
    "slender-insects-on-paper": plain(scenes.slender_on_paper),
    "thrips-in-flower": plain(scenes.flower_thrips),
    "ants-tending": plain(scenes.ants),
    "flat-nymphs-in-drops": plain(scenes.nymphs_in_drops),
    "yellow-grain-eggs": plain(scenes.grain_eggs),
    "insects-fly-up-when-shaken": plain(scenes.flying),
    "egg-cluster-yellow-upright": plain(scenes.beetle_eggs),
    "humped-red-larvae": plain(scenes.humped_larva),
    "ten-striped-beetles": plain(scenes.striped_beetle),
    "males-in-its-lure-trap": plain(scenes.lure_trap),
    "bee-carrying-leaf": plain(scenes.bee_with_leaf),
    "green-aphids": _colony("#8fb35c"),
    "black-aphids": _colony("#2f3130", 24),
    "grey-mealy-aphids": lambda one: (
        blade(under=True)
        + animals.colony(one.rng, "#a9b0ae", 18, 6.4, (26, 34, 98, 106))
        + "".join(svg.circle(one.rng.uniform(24, 100), one.rng.uniform(32, 108), 0.9, svg.WHITE) for _ in range(70))
    ),
    "pink-aphids": _colony("#c4838a"),
    "woolly-aphids": lambda one: (
        backdrops.bark()
        + animals.colony(one.rng, "#7a4a5a", 7, 6, (42, 34, 80, 108))
        + "".join(
            svg.circle(60 + one.rng.uniform(-22, 22), 70 + one.rng.uniform(-34, 34), one.rng.uniform(3, 7), svg.WHITE, "#d9d2c4", 0.6)
            for _ in range(26)
        )
    ),
    "pale-large-aphids": _under(
        animals.aphid(44, 88, 15, "#cfe0a4", -40), animals.aphid(78, 62, 17, "#d9e3ae", -20), animals.aphid(84, 104, 11, "#cfe0a4", 30)
    ),
    "white-flies-rise": _fly_up,
    "whitefly-scales-upright-wax": _under(*(_whitefly_scale(x, y, "#eceab8", True) for x, y in SCALES_AT)),
    "whitefly-scales-flat-yellow": _under(
        *(_whitefly_scale(x, y, "#e6d45f", False) for x, y in SCALES_AT), animals.whitefly(34, 102, 11, 120)
    ),
    "black-whitefly-scales": _under(
        *(svg.ellipse(x, y, 12, 9, BLACK if n != 2 else "#e6e3b0", stroke="#55524a", width=1) for n, (x, y) in enumerate(SCALES_AT))
    ),
    "flat-scale-like-nymphs": _under(
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
        animals.mite(48, 60, 14, "#e0b45a", 20, worm=False),
        animals.mite(80, 84, 11, "#e6c478", -50),
        *(
            svg.ellipse(x, y, 6, 4.4, "#efe3bd", stroke="#a8946a")
            + "".join(svg.circle(x - 3 + 2 * n, y - 1 + n % 2 * 2, 0.8, svg.WHITE) for n in range(4))
            for x, y in ((74, 46), (44, 92), (88, 62))
        ),
    ),
    "lens-pale-mites-in-folds": _lens(
        svg.path("M18 90C44 60 84 70 104 40L104 60C84 92 44 80 20 108Z", "#8fa673"),
        animals.mite(50, 56, 13, "#f0d6cf", 10),
        animals.mite(80, 78, 11, "#f0d6cf", -40),
        svg.ellipse(66, 96, 6, 4, "#f9efe6", stroke="#c9b0a4"),
        svg.ellipse(38, 86, 6, 4, "#f9efe6", stroke="#c9b0a4"),
    ),
    "lens-wedge-mites": _lens(
        animals.mite(52, 52, 22, "#e6d68a", -20, worm=True),
        animals.mite(70, 86, 19, "#efe0a0", 30, worm=True),
        animals.mite(90, 58, 13, "#e6d68a", 80, worm=True),
    ),
    "red-mites-and-red-eggs": _lens(
        animals.mite(48, 58, 15, "#a8331f", 20),
        animals.mite(82, 74, 11, "#b23d28", -30),
        *(
            svg.circle(x, y, 4.4, "#c9402a", "#7d1f12", 0.8) + svg.path(f"M{x} {y - 4}l1 -8", stroke="#7d1f12", width=1)
            for x, y in ((70, 44), (46, 92), (66, 100), (92, 50))
        ),
    ),
    "green-mites-on-needles": lambda one: scenes.lens(
        svg.circle(60, 66, 47, "#f3efdf")
        + "".join(svg.path(f"M60 {112 - 18 * n}L{60 + s * 50} {84 - 20 * n}", stroke=svg.GREEN, width=8) for n in range(4) for s in (-1, 1))
        + svg.path("M60 116L60 20", stroke=svg.ROOT, width=6)
        + animals.mite(48, 70, 9, "#4f5a34", 30)
        + animals.mite(76, 52, 8, "#5d5a34", -20)
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
    "lace-winged-bugs": _under(
        animals.lace_bug(48, 72, 22, -60),
        animals.bug(84, 88, 9, "#33291d", -20, shield=False),
        animals.bug(82, 52, 8, "#33291d", -100, shield=False),
    ),
    "hopper-nymphs-run-sideways": _under(
        animals.hopper(46, 82, 20, "#a9c46a", 160),
        animals.hopper(80, 58, 22, "#b8cf7a", -30),
        svg.path("M60 104q-10 8 -22 6m6 -6l-6 6l8 4", stroke=svg.SLATE, width=2),
    ),
    "spittle": lambda one: (
        stem(16)
        + "".join(
            svg.circle(60 + one.rng.uniform(-20, 18), 78 + one.rng.uniform(-16, 16), one.rng.uniform(4, 9), "#fdfdf8", "#c9cbbd", 0.9)
            for _ in range(26)
        )
        + animals.hopper(64, 82, 11, "#9cc05a", -100)
    ),
    "flat-grey-bugs-and-bronze-eggs": lambda one: (
        blade(under=True)
        + animals.bug(44, 56, 21, "#8a8274", -50)
        + animals.bug(84, 98, 9, "#c9d6b0", -30)
        + "".join(svg.ellipse(64 + 7 * (n % 4), 68 + 8 * (n // 4), 3.6, 3, "#a5642a", stroke="#5d3418", width=0.7) for n in range(9))
    ),
    "mottled-shield-bugs": lambda one: (
        backdrops.apple()
        + animals.bug(60, 78, 34, "#8f7f62", -90, banded=True)
        + "".join(svg.circle(60 + one.rng.uniform(-14, 14), 76 + one.rng.uniform(-14, 20), 1, "#4a3f2c") for _ in range(34))
    ),
    "brown-quick-bugs": lambda one: scenes.flower(one.rng, animals.bug(66, 60, 24, "#9a8350", -60, mark="#efe3b0")),
    "eggs-barrel-shaped": _barrels,
    "eggs-on-stalks": _stalked,
    "eggs-in-rafts": _raft,
    "single-dome-eggs": _domes,
    "eggs-in-a-row-upright": _row_eggs,
    "yellow-spindle-eggs-in-mats": _spindles,
    "caterpillar": _upper(caterpillar(60, 70, 84, "#8a8f5a", turn=-24)),
    "velvety-green-caterpillar": _upper(caterpillar(60, 70, 78, "#9cc47a", head="#86ad66", turn=-30, stripe="#dfe08a", fat=0.2)),
    "small-wriggling-caterpillar": _upper(
        caterpillar(54, 56, 50, "#a9c98a", head="#8a9a6a", turn=-30, fat=0.17),
        svg.path("M76 40C92 60 88 96 92 122", stroke=svg.WHITE, width=1.4),
        caterpillar(92, 122, 26, "#a9c98a", head="#8a9a6a", turn=80, fat=0.17),
    ),
    "looper": _upper(caterpillar(60, 78, 76, "#9cc47a", head="#86ad66", turn=-20, loop=True, stripe="#e9efd0")),
    "rolled-caterpillar": _caterpillar_in_roll,
    "larvae-in-droves": _droves,
    "hairy-caterpillars-in-silk": _silk_rest,
    "slug-like-larvae": _upper(animals.slug_larva(48, 88, 60, "#3f4a2c", -20), animals.slug_larva(82, 52, 42, "#55632f", -40)),
    "sawfly-larvae-smooth": _under(
        caterpillar(48, 84, 58, "#bfd49a", head="#a5702f", turn=-38, fat=0.15),
        caterpillar(84, 58, 44, "#bfd49a", head="#a5702f", turn=-50, fat=0.15),
    ),
    "sawfly-larvae-curled": _coiled,
    "sawfly-larvae-bristly": _bristly,
    "spotted-sawfly-larvae": _upper(caterpillar(60, 72, 82, "#a9bf7a", head="#1f2224", turn=-34, fat=0.18, dots="#1f2224")),
    "horn-red": _upper(caterpillar(60, 72, 84, "#8fb35c", head="#7a9a4c", horn="#b8392a", turn=-26, fat=0.2)),
    "horn-dark": _upper(caterpillar(60, 72, 84, "#8fb35c", head="#7a9a4c", horn="#2c3350", turn=-26, fat=0.2)),
    "straight-stripes": _upper(caterpillar(58, 72, 82, "#7fa64e", head="#6f8f42", marks="slants", horn="#b8392a", fat=0.26, turn=-22)),
    "v-marks": _upper(caterpillar(58, 72, 82, "#7fa64e", head="#6f8f42", marks="v", horn="#2c3350", fat=0.26, turn=-22)),
    "inverted-v-on-head": _upper(
        caterpillar(42, 84, 80, "#a89a72", turn=-24, fat=0.26, head="#3a2c1e"),
        svg.circle(88, 58, 19, "#3a2c1e", animals.LINE, 1.2),
        svg.path("M78 70L88 56L98 70M88 56L88 42", stroke="#efe3b0", width=3.4),
    ),
    "side-stripe": _upper(caterpillar(60, 72, 88, "#7a8a5a", stripe="#efa94f", turn=-24, fat=0.2)),
    "striped-larva-in-the-ear": lambda one: backdrops.ear(
        svg.path("M38 44C46 30 74 28 82 44L78 62L42 62Z", "#7d5330")
        + caterpillar(62, 48, 46, "#a9a35a", stripe="#e3b0a0", head="#8a5a2a", turn=14, hairs=True, fat=0.2)
    ),
    "white-cocoons-on-its-back": _cocoons,
    "yellow-cocoons-beside-it": _heap,
    "cocoon-with-exit-hole": _exit,
    "mummies": _mummies,
    "ladybirds-and-larvae": _ladies,
    "hoverfly-larvae": _swaying,
    "lacewing-larvae": _under(
        caterpillar(52, 74, 60, "#a5865a", head="#5d4a2a", turn=-24, fat=0.28, hairs=True, dots="#6d4f2a"),
        svg.path("M80 58q14 -10 18 -4M84 66q16 2 14 -6", stroke="#4a3a28", width=2.4),
        animals.aphid(104, 50, 8, "#86a35c", 100),
    ),
    "pirate-bugs": lambda one: scenes.flower(
        one.rng,
        animals.bug(60, 62, 22, BLACK, -70, shield=False)
        + svg.path("M56 58l12 -5l2 8l-12 6Z", svg.WHITE)
        + svg.path("M48 74l10 -3l0 8l-8 3Z", svg.WHITE),
    ),
    "white-eggs-behind-head": _egg_on_back,
    "spiders-hunting": _spotted,
    "ground-beetles-at-night": _night_ground(
        beetle(44, 92, 19, BLACK, slim=0.46, turn=-20), beetle(88, 110, 15, BLACK, slim=0.24, turn=-150)
    ),
    "small-jumping-beetles": lambda one: (
        blade()
        + "".join(beetle(x, y, 8, "#2c3a3a", slim=0.66, turn=t) for x, y, t in ((38, 92, -40), (60, 66, 20), (90, 82, -80)))
        + beetle(88, 22, 8, "#2c3a3a", slim=0.66, turn=-30)
        + svg.path("M64 62Q72 30 84 26", stroke=svg.SLATE, width=1.6, stroke_dasharray="4 4")
    ),
    "bronze-potato-jumpers": _upper(
        beetle(60, 70, 27, "#4a4230", slim=0.64, head="#3a3426"),
        *(svg.circle(48 + 6 * (n % 5), 58 + 7 * (n // 5), 1, "#8a7a4a") for n in range(25)),
    ),
    "metallic-beetles-white-tufts": _upper(beetle(60, 76, 36, "#a5622f", slim=0.66, head="#2f6b45", neck="#37794f", tufts=True)),
    "yellow-black-striped-beetles": lambda one: scenes.flower(one.rng, beetle(60, 66, 28, "#e3c23f", slim=0.5, stripes=3, turn=-70)),
    "yellow-black-spotted-beetles": lambda one: scenes.flower(one.rng, beetle(60, 66, 28, "#c9cc4a", slim=0.54, spots=12, turn=-70)),
    "sixteen-spot-copper-beetles": _upper(beetle(60, 74, 34, "#c98a42", slim=0.92, spots=14, head="#8a5a2a")),
    "blue-black-cream-beetles": lambda _: (
        stem(18)
        + beetle(60, 62, 27, "#27324a", slim=0.42, head="#27324a", neck="#b5432a", turn=-90)
        + "".join(svg.path(f"M{x} {y}l7 0l0 9l-7 0Z", "#f1e3b8") for x, y in ((50, 54), (63, 54), (50, 70), (63, 70)))
        + animals.slug_larva(76, 116, 40, "#7f8275", -70)
    ),
    "elm-beetles-and-larvae": _elm,
    "viburnum-larvae": _viburnum,
    "long-soft-beetles": _swarm,
    "small-brown-beetle-in-flower": lambda one: scenes.flower(
        one.rng, beetle(52, 56, 16, "#a5803f", slim=0.5, turn=-50) + beetle(76, 72, 15, "#a5803f", slim=0.5, turn=-150)
    ),
    "snout-weevils-by-night": lambda _: (
        svg.path("M0 0L120 0L120 142L0 142Z", "#2a2d3a")
        + blade().replace(svg.GREEN, "#3f5138").replace(svg.DARK_GREEN, "#36462f").replace(svg.VEIN, "#6f8262")
        + svg.circle(100, 18, 9, "#efe3b8")
        + beetle(58, 82, 28, "#4c4a48", slim=0.58, snout=True, turn=-50, head="#3f3d3b")
    ),
    "grasshoppers": lambda _: backdrops.grass(86) + animals.grasshopper(62, 62, 42),
    "earwigs-hiding": lambda one: scenes.flower(one.rng, animals.earwig(62, 66, 27)),
    "slugs-at-night": lambda _: (
        svg.path("M0 0L120 0L120 142L0 142Z", "#2a2d3a")
        + svg.path("M120 10L120 50L10 118L20 132Z", "#efe3b8", opacity="0.35")
        + svg.path("M0 112L120 106L120 142L0 142Z", "#4f463c")
        + animals.slug(56, 98, 76, "#a58a66")
        + animals.slug(92, 60, 40, "#a58a66", house=True)
    ),
    "hornworm-glows": _glow,
    "cottony-masses": lambda one: _wool(one, under=stem(20, joint=True)),
    "galls-woolly": lambda one: _wool(
        one, under=twig(18) + "".join(svg.circle(x, y, 11, "#8d7258", svg.ROOT, 1.2) for x, y in ((34, 108), (62, 74), (88, 32)))
    ),
    "scale-covers": _round_scales,
    "old-bags": lambda _: _bag(),
    "larva-in-a-bag": lambda _: _bag(SLIT, caterpillar(60, 80, 62, "#7a6a5a", head="#33291d", turn=-90, fat=0.2)),
    "eggs-in-the-old-bag": _eggs_in_bag,
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
    "larva-at-the-core": plain(scenes.core_larva),
    "white-maggots-in-fruit": lambda _: (
        backdrops.cut_fruit() + animals.maggot(30, 70, 30, 0.8) + animals.maggot(70, 104, -30, 0.8) + animals.maggot(76, 62, 60, 0.7)
    ),
    "grub-in-raspberry": lambda _: (
        backdrops.berry()
        + svg.ellipse(60, 52, 22, 12, "#efe0c0", stroke="#b39a72")
        + caterpillar(60, 52, 38, "#d9b46a", head="#7a4a1f", turn=-26, fat=0.2)
    ),
    "pinkish-larva-off-core": lambda one: (
        svg.path(backdrops.APPLE, "#d98a4e")
        + svg.path(backdrops.APPLE, "#f6dcae", transform="translate(5 6) scale(0.915)")
        + svg.ellipse(66, 82, 17, 22, "#8a5a34", stroke="#5d3418", width=1.4)
        + caterpillar(34, 72, 34, "#dfa09a", head="#6b3a1a", turn=70, fat=0.2)
        + scenes.frass(one.rng, 36, 100, 16, 6)
    ),
    "wiry-orange-larvae": lambda _: (
        backdrops.earth(30)
        + caterpillar(56, 70, 84, "#cf8f35", head="#7a4212", turn=18, fat=0.085)
        + caterpillar(70, 110, 60, "#d99f45", head="#7a4212", turn=-20, fat=0.085)
    ),
    "c-shaped-grubs": lambda _: backdrops.earth(30) + animals.grub(52, 78, 30),
    "legless-grubs-on-roots": lambda _: (
        scenes.root(False) + animals.grub(38, 84, 15, legs=False) + animals.grub(84, 106, 15, turn=120, legs=False)
    ),
    "small-clear-maggots-in-soil": lambda _: (
        backdrops.earth(34)
        + "".join(
            animals.maggot(x, y, t, 0.95, "#e6ecec") + svg.circle(x + 1, y, 3.6, BLACK)
            for x, y, t in ((22, 74, 16), (56, 104, -24), (72, 62, 30))
        )
        + animals.fly(90, 24, 13, "#3a3a3c", -40)
    ),
    "fat-grey-caterpillar-in-soil": lambda _: (
        backdrops.earth(44)
        + "".join(
            svg.circle(60 + 22 * c, 86 + 22 * s, 12, "#857a6a", "#00000055", 0.8)
            for c, s in ((0.1, -1), (-0.7, -0.7), (-1, 0), (-0.7, 0.7), (0, 1), (0.7, 0.7), (1, 0.1))
        )
        + svg.circle(76, 72, 9, "#4a3a2a", animals.LINE, 1)
        + backdrops.seedling(22, 44, 0.4, -70)
    ),
}
