"""Signs that are larvae: caterpillars, sawflies, maggots, grubs, and what has grown in or on them."""

from bootmark.core.catalogue.drawn import Drawn, Pattern, Pose
from bootmark.drawing import backdrops, insects, larvae, scenes, small, soil, svg
from bootmark.drawing.backdrops import blade
from bootmark.drawing.caterpillars import lying
from bootmark.drawing.insects import beetle
from bootmark.drawing.laid import BLACK, under, upper
from bootmark.drawing.limbs import LINE
from bootmark.drawing.sketch import Draw, Sketch, plain


def _cocoons(sketch: Sketch) -> str:
    rice = "".join(
        svg.ellipse(
            30 + 6.2 * n + sketch.rng.uniform(-1, 1),
            58 + sketch.rng.uniform(-4, 6),
            2.6,
            6.4,
            svg.WHITE,
            turn=sketch.rng.uniform(-16, 16),
            stroke="#b9b39d",
            width=0.8,
        )
        for n in range(10)
    )
    return blade() + lying(60, 72, 84, "#9db86a", head="#6f8a4a", drawn=Drawn(pattern=Pattern.SLANTS)) + rice


def _heap(sketch: Sketch) -> str:
    cocoons = "".join(
        svg.ellipse(
            62 + sketch.rng.uniform(-18, 18),
            92 + sketch.rng.uniform(-10, 10),
            4,
            8,
            "#e6c84f",
            turn=sketch.rng.uniform(0, 180),
            stroke="#a8852a",
            width=0.9,
        )
        for _ in range(16)
    )
    return blade() + lying(58, 62, 72, "#b9b87a", head="#6b5a3a", turn=-12, fat=0.12) + cocoons


def _caterpillar_in_roll(sketch: Sketch) -> str:
    return (
        blade()
        + svg.path("M24 96C40 60 66 44 104 34C96 60 76 84 44 104Z", svg.UNDER, svg.STEM, 1.2)
        + lying(60, 78, 62, "#9db86a", head="#33291d", turn=-38, fat=0.12)
        + "".join(svg.path(f"M{38 + 12 * n} {92 - 9 * n}l14 8", stroke=svg.WHITE, width=1.3) for n in range(4))
    )


def _droves(sketch: Sketch) -> str:
    return blade() + "".join(
        lying(
            38 + 22 * (n % 3),
            46 + 17 * (n // 3) + 4 * (n % 2),
            34,
            "#7a8a4a",
            head="#2b2724",
            turn=-40 + sketch.rng.uniform(-10, 10),
            drawn=Drawn(stripes=1, mark="#e9dfb0"),
        )
        for n in range(12)
    )


def _silk_rest(sketch: Sketch) -> str:
    web = svg.path("M10 106C20 50 60 20 112 20C110 70 78 118 10 106Z", "#f4f1e6", opacity="0.75")
    return (
        blade()
        + web
        + "".join(
            lying(36 + 24 * (n % 3), 58 + 18 * (n // 3), 38, "#6d5a3a", head="#2b2118", turn=-36, fat=0.2, drawn=Drawn(hairs=True))
            for n in range(6)
        )
    )


def _coiled(sketch: Sketch) -> str:
    edge = svg.path("M0 84C40 66 80 66 120 84L120 142L0 142Z", svg.GREEN) + svg.path("M0 84C40 66 80 66 120 84", stroke=svg.STEM, width=3)
    ring = "".join(
        svg.circle(60 + 25 * c, 60 + 25 * s, 8.4, "#8fae5e", "#00000040", 0.6) + svg.circle(60 + 28 * c, 60 + 28 * s, 1.8, svg.WHITE)
        for c, s in ((1, 0), (0.86, 0.5), (0.5, 0.86), (0, 1), (-0.5, 0.86), (-0.86, 0.5), (-1, 0), (-0.86, -0.5), (-0.5, -0.86), (0, -1))
    )
    return edge + ring + svg.circle(72, 38, 8, "#a5702f", LINE, 1)


def _bristly(sketch: Sketch) -> str:
    forks = "".join(
        svg.path(f"M{24 + 9 * n} 64l0 -11m-3 -4l3 4l3 -4M{24 + 9 * n} 80l0 10m-3 4l3 -4l3 4", stroke="#4a5a2a", width=1.2) for n in range(9)
    )
    return blade(under=True) + forks + lying(60, 72, 78, "#8fae5e", head="#6b4a2a", fat=0.18)


def _swaying(sketch: Sketch) -> str:
    aphids = small.colony(sketch.rng, "#86a35c", 9, 5.4, (30, 78, 96, 112))
    body = svg.path(
        "M24 84C36 58 70 44 98 46C104 48 102 54 96 58C74 70 48 82 34 94C26 98 20 92 24 84Z", "#cfe0a4", "#7f9a56", 1.2
    ) + svg.path("M32 86C50 68 74 56 96 51", stroke="#6b7f3f", width=2)
    return blade(under=True) + aphids + body


def _ladies(sketch: Sketch) -> str:
    return (
        blade()
        + beetle(40, 56, 19, "#c2402a", slim=0.9, spots=6, turn=-50)
        + lying(74, 94, 48, "#3c4048", head="#1f2224", turn=-30, fat=0.26, drawn=Drawn(spots=2, mark="#e08a2a", hairs=True))
    )


def _elm(sketch: Sketch) -> str:
    return (
        blade()
        + beetle(42, 54, 18, "#a8a35a", slim=0.55, stripes=2, mark="#3a3a22", turn=-60)
        + larvae.slug_larva(74, 92, 46, "#e0c64a", -20, dots=svg.INK)
    )


def _viburnum(sketch: Sketch) -> str:
    caps = svg.path("M12 30L108 12", stroke=backdrops.TWIG, width=11) + "".join(
        svg.circle(22 + 9 * n, 28 - 1.7 * n, 2.6, "#3a2c1e") for n in range(9)
    )
    return (
        f'<g transform="translate(0 18)">{blade()}</g>'
        + caps
        + "".join(larvae.slug_larva(x, y, 44, "#c3c96a", turn, dots=svg.INK) for x, y, turn in ((46, 88, -30), (80, 74, -40)))
    )


def _glow(sketch: Sketch) -> str:
    night = svg.path("M0 0L120 0L120 142L0 142Z", "#23243a") + svg.path("M2 126C2 66 46 14 118 12C122 74 76 128 2 126Z", "#34384f")
    beam = svg.path("M120 -4L96 -4L20 60L60 104Z", "#8a63c9", opacity="0.35")
    return night + beam + lying(58, 72, 82, "#b6f28a", head="#d9ffb5", turn=-20, drawn=Drawn(pattern=Pattern.SLANTS, horn="#e6ffd0"))


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


def _eggs_in_bag(sketch: Sketch) -> str:
    return _bag(
        SLIT,
        *(svg.circle(60 + sketch.rng.uniform(-5, 5), 58 + sketch.rng.uniform(0, 44), 2.2, "#e3c05a", "#9a7a22", 0.5) for _ in range(34)),
    )


def _exit(sketch: Sketch) -> str:
    return (
        blade(under=True)
        + svg.ellipse(58, 74, 34, 18, "#e9dfc0", turn=-24, stroke="#a8946a", width=1.4)
        + "".join(svg.path(f"M{38 + 9 * n} {66 - 3 * n}q6 10 2 20", stroke="#c9b98a", width=1) for n in range(5))
        + svg.circle(80, 63, 7.5, "#33291d", "#a8946a", 1.4)
    )


def _egg_on_back(sketch: Sketch) -> str:
    return (
        blade()
        + lying(58, 76, 84, "#8a9a5a", head="#5d4a2a", fat=0.22)
        + svg.ellipse(84, 62, 7, 4.4, svg.WHITE, turn=-16, stroke="#8a8570", width=1)
    )


DRAWN: dict[str, Draw] = {
    "humped-red-larvae": plain(scenes.humped_larva),
    "ten-striped-beetles": plain(scenes.striped_beetle),
    "caterpillar": upper(lying(60, 70, 84, "#8a8f5a", turn=-24)),
    "velvety-green-caterpillar": upper(
        lying(60, 70, 78, "#9cc47a", head="#86ad66", turn=-30, fat=0.2, drawn=Drawn(stripes=1, mark="#dfe08a"))
    ),
    "small-wriggling-caterpillar": upper(
        lying(54, 56, 50, "#a9c98a", head="#8a9a6a", turn=-30, fat=0.17),
        svg.path("M76 40C92 60 88 96 92 122", stroke=svg.WHITE, width=1.4),
        lying(92, 122, 26, "#a9c98a", head="#8a9a6a", turn=80, fat=0.17),
    ),
    "looper": upper(lying(60, 78, 76, "#9cc47a", head="#86ad66", turn=-20, drawn=Drawn(stripes=1, mark="#e9efd0", pose=Pose.LOOP))),
    "rolled-caterpillar": _caterpillar_in_roll,
    "larvae-in-droves": _droves,
    "hairy-caterpillars-in-silk": _silk_rest,
    "slug-like-larvae": upper(larvae.slug_larva(48, 88, 60, "#3f4a2c", -20), larvae.slug_larva(82, 52, 42, "#55632f", -40)),
    "sawfly-larvae-smooth": under(
        lying(48, 84, 58, "#bfd49a", head="#a5702f", turn=-38, fat=0.15),
        lying(84, 58, 44, "#bfd49a", head="#a5702f", turn=-50, fat=0.15),
    ),
    "sawfly-larvae-curled": _coiled,
    "sawfly-larvae-bristly": _bristly,
    "spotted-sawfly-larvae": upper(lying(60, 72, 82, "#a9bf7a", head="#1f2224", turn=-34, fat=0.18, drawn=Drawn(spots=2, mark="#1f2224"))),
    "horn-red": upper(lying(60, 72, 84, "#8fb35c", head="#7a9a4c", turn=-26, fat=0.2, drawn=Drawn(horn="#b8392a"))),
    "horn-dark": upper(lying(60, 72, 84, "#8fb35c", head="#7a9a4c", turn=-26, fat=0.2, drawn=Drawn(horn="#2c3350"))),
    "straight-stripes": upper(
        lying(58, 72, 82, "#7fa64e", head="#6f8f42", fat=0.26, turn=-22, drawn=Drawn(pattern=Pattern.SLANTS, horn="#b8392a"))
    ),
    "v-marks": upper(lying(58, 72, 82, "#7fa64e", head="#6f8f42", fat=0.26, turn=-22, drawn=Drawn(pattern=Pattern.VEES, horn="#2c3350"))),
    "inverted-v-on-head": upper(
        lying(42, 84, 80, "#a89a72", turn=-24, fat=0.26, head="#3a2c1e"),
        svg.circle(88, 58, 19, "#3a2c1e", LINE, 1.2),
        svg.path("M78 70L88 56L98 70M88 56L88 42", stroke="#efe3b0", width=3.4),
    ),
    "side-stripe": upper(lying(60, 72, 88, "#7a8a5a", turn=-24, fat=0.2, drawn=Drawn(stripes=1, mark="#efa94f"))),
    "striped-larva-in-the-ear": lambda sketch: backdrops.ear(
        svg.path("M38 44C46 30 74 28 82 44L78 62L42 62Z", "#7d5330")
        + lying(62, 48, 46, "#a9a35a", head="#8a5a2a", turn=14, fat=0.2, drawn=Drawn(stripes=1, mark="#e3b0a0", hairs=True))
    ),
    "white-cocoons-on-its-back": _cocoons,
    "yellow-cocoons-beside-it": _heap,
    "cocoon-with-exit-hole": _exit,
    "ladybirds-and-larvae": _ladies,
    "hoverfly-larvae": _swaying,
    "lacewing-larvae": under(
        lying(52, 74, 60, "#a5865a", head="#5d4a2a", turn=-24, fat=0.28, drawn=Drawn(spots=2, mark="#6d4f2a", hairs=True)),
        svg.path("M80 58q14 -10 18 -4M84 66q16 2 14 -6", stroke="#4a3a28", width=2.4),
        small.aphid(104, 50, 8, "#86a35c", 100),
    ),
    "white-eggs-behind-head": _egg_on_back,
    "yellow-black-striped-beetles": lambda sketch: scenes.flower(sketch.rng, beetle(60, 66, 28, "#e3c23f", slim=0.5, stripes=3, turn=-70)),
    "elm-beetles-and-larvae": _elm,
    "viburnum-larvae": _viburnum,
    "hornworm-glows": _glow,
    "old-bags": lambda _: _bag(),
    "larva-in-a-bag": lambda _: _bag(SLIT, lying(60, 80, 62, "#7a6a5a", head="#33291d", turn=-90, fat=0.2)),
    "eggs-in-the-old-bag": _eggs_in_bag,
    "larva-at-the-core": plain(scenes.core_larva),
    "white-maggots-in-fruit": lambda _: (
        backdrops.cut_fruit() + larvae.maggot(30, 70, 30, 0.8) + larvae.maggot(70, 104, -30, 0.8) + larvae.maggot(76, 62, 60, 0.7)
    ),
    "grub-in-raspberry": lambda _: (
        backdrops.berry()
        + svg.ellipse(60, 52, 22, 12, "#efe0c0", stroke="#b39a72")
        + lying(60, 52, 38, "#d9b46a", head="#7a4a1f", turn=-26, fat=0.2)
    ),
    "pinkish-larva-off-core": lambda sketch: (
        svg.path(backdrops.APPLE, "#d98a4e")
        + svg.path(backdrops.APPLE, "#f6dcae", transform="translate(5 6) scale(0.915)")
        + svg.ellipse(66, 82, 17, 22, "#8a5a34", stroke="#5d3418", width=1.4)
        + lying(34, 72, 34, "#dfa09a", head="#6b3a1a", turn=70, fat=0.2)
        + scenes.frass(sketch.rng, 36, 100, 16, 6)
    ),
    "wiry-orange-larvae": lambda _: (
        backdrops.earth(30)
        + lying(56, 70, 84, "#cf8f35", head="#7a4212", turn=18, fat=0.085)
        + lying(70, 110, 60, "#d99f45", head="#7a4212", turn=-20, fat=0.085)
    ),
    "c-shaped-grubs": lambda _: backdrops.earth(30) + larvae.grub(52, 78, 30),
    "legless-grubs-on-roots": lambda _: (
        soil.root(False) + larvae.grub(38, 84, 15, legs=False) + larvae.grub(84, 106, 15, turn=120, legs=False)
    ),
    "small-clear-maggots-in-soil": lambda _: (
        backdrops.earth(34)
        + "".join(
            larvae.maggot(x, y, t, 0.95, "#e6ecec") + svg.circle(x + 1, y, 3.6, BLACK)
            for x, y, t in ((22, 74, 16), (56, 104, -24), (72, 62, 30))
        )
        + insects.fly(90, 24, 13, "#3a3a3c", -40)
    ),
    "fat-grey-caterpillar-in-soil": lambda _: (
        backdrops.earth(44)
        + "".join(
            svg.circle(60 + 22 * c, 86 + 22 * s, 12, "#857a6a", "#00000055", 0.8)
            for c, s in ((0.1, -1), (-0.7, -0.7), (-1, 0), (-0.7, 0.7), (0, 1), (0.7, 0.7), (1, 0.1))
        )
        + svg.circle(76, 72, 9, "#4a3a2a", LINE, 1)
        + backdrops.seedling(22, 44, 0.4, -70)
    ),
}
