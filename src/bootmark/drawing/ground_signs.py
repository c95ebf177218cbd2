"""Signs at the root, in the soil, on the ground around, and what is asked of the grower."""

from bootmark.drawing import backdrops, insects, scenes, soil, svg
from bootmark.drawing.backdrops import earth, seedling
from bootmark.drawing.sketch import Draw, Sketch, plain


def _brown_roots(sketch: Sketch) -> str:
    healthy = soil.root(False)
    return (
        healthy.replace("#efe6d0", "#6b4a2a").replace("#d9c9a6", "#7d5a35").replace("#b39a72", "#4a3018")
        + svg.path("M92 96q14 6 16 24", stroke="#7d5a35", width=3)
        + svg.path("M84 88q10 2 14 12", stroke="#efe6d0", width=1.6)
    )


def _knots(sketch: Sketch) -> str:
    spots = ((36, 66), (30, 80), (86, 68), (94, 84), (42, 96), (80, 100), (60, 88), (58, 112), (48, 78), (72, 80))
    return soil.root(False) + "".join(svg.circle(x, y, sketch.rng.uniform(4.5, 8), "#d9c39a", "#8a6a45", 1.2) for x, y in spots)


def _root_tunnels(sketch: Sketch) -> str:
    carrot = svg.path("M36 30C50 24 70 24 84 30C84 70 72 112 60 138C48 112 36 70 36 30Z", "#d9883c", "#a85f1f", 1.4)
    top = "".join(svg.path(f"M60 30Q{40 + 10 * n} 14 {30 + 15 * n} 0", stroke=svg.GREEN, width=4) for n in range(5))
    return (
        top
        + carrot
        + "".join(
            svg.path(d, stroke="#5d2f12", width=4)
            for d in ("M44 46C54 52 46 62 58 66S52 84 64 88", "M76 42C70 54 78 62 70 74", "M52 100C60 104 56 112 60 122")
        )
    )


def _gone(sketch: Sketch) -> str:
    return (
        earth(70)
        + svg.path("M34 92C60 76 98 84 98 102C98 118 44 122 34 92Z", "#8d7258", "#6b543e", 1)
        + f'<g transform="translate(4 -12)">{seedling(56, 68, 1.1, -16)}</g>'
        + svg.path("M50 58l5 6l4 -5l4 6", stroke="#b39a72", width=3)
    )


def _black_base(sketch: Sketch) -> str:
    return (
        backdrops.stem(26, joint=False)
        + svg.path("M46 78C52 74 68 74 74 78L76 122L44 122Z", "#33261c")
        + svg.path("M50 90q10 6 20 0M49 104q11 6 22 0", stroke="#5d4a3a", width=1.4)
        + earth(116)
    )


def _mound(sketch: Sketch) -> str:
    grains = "".join(
        svg.circle(60 + sketch.rng.gauss(0, 22), 104 - abs(sketch.rng.gauss(0, 14)), sketch.rng.uniform(0.8, 2), "#8f7350")
        for _ in range(70)
    )
    return backdrops.grass(84) + svg.path("M8 112C28 70 48 56 62 56C80 56 96 76 114 112Z", "#b8935f", "#8a6a45", 1.2) + grains


def _ants_on_stick(sketch: Sketch) -> str:
    return (
        _mound(sketch)
        + svg.path("M104 8L58 74", stroke=svg.ROOT, width=6)
        + "".join(insects.ant(100 - 11 * n, 16 + 15 * n, (5, 3, 6, 4)[n % 4], 125, "#8a3a1a") for n in range(5))
        + "".join(
            insects.ant(
                sketch.rng.uniform(34, 84), sketch.rng.uniform(72, 104), sketch.rng.uniform(2.6, 5.4), sketch.rng.uniform(0, 360), "#7a3318"
            )
            for _ in range(9)
        )
    )


def _fan(sketch: Sketch) -> str:
    fan = svg.path("M58 62C84 44 116 60 114 92C108 116 66 118 50 92C46 80 48 68 58 62Z", "#b8935f", "#8a6a45", 1.2)
    ripples = "".join(
        svg.path(
            f"M{58 + 9 * n} {64 - 1 * n}C{74 + 9 * n} {70 + 2 * n} {72 + 8 * n} {94 + n} {58 + 9 * n} {102 + n}",
            stroke="#a07c4c",
            width=1.2,
        )
        for n in range(5)
    )
    return (
        backdrops.grass(48)
        + fan
        + ripples
        + svg.circle(48, 80, 9, "#6b5138", "#8a6a45", 1.4)
        + svg.path("M43 80q5 -5 10 0", stroke="#b8935f", width=3)
    )


def _runways(sketch: Sketch) -> str:
    lawn = svg.path("M0 20L120 20L120 132L0 132Z", "#8fae5e") + "".join(
        svg.path(f"M{sketch.rng.uniform(4, 116):.0f} {sketch.rng.uniform(30, 130):.0f}l2 -9", stroke="#6a8a46", width=1.6)
        for _ in range(90)
    )
    return (
        lawn
        + svg.path("M0 44C40 50 48 84 70 86S104 110 120 112M52 68C64 56 76 46 84 22", stroke="#c9b184", width=9)
        + "".join(svg.circle(x, y, 7, "#3a2a1a", "#8a6a45", 1.4) for x, y in ((30, 100), (92, 70), (66, 34)))
    )


def _droppings(sketch: Sketch) -> str:
    return backdrops.grass(40) + "".join(
        svg.ellipse(
            60 + sketch.rng.gauss(0, 20),
            98 + sketch.rng.gauss(0, 11),
            6.4,
            5,
            "#5d4a30",
            turn=sketch.rng.uniform(0, 90),
            stroke="#33281a",
            width=0.9,
        )
        for _ in range(17)
    )


def _frost(sketch: Sketch) -> str:
    star = "".join(
        f'<g transform="translate({x} {y}) scale({s})">'
        + "".join(
            f'<g transform="rotate({60 * n})">{svg.path("M0 0L0 -20M0 -12l-5 -5M0 -12l5 -5", stroke="#8fb0c4", width=2.2)}</g>'
            for n in range(6)
        )
        + "</g>"
        for x, y, s in ((36, 34, 1.1), (88, 26, 0.8), (74, 58, 0.6))
    )
    leaf = f'<g transform="translate(14 62) scale(0.72) rotate(-10 50 60)">{sketch.leaf().draw("#8fa58a", "#7d947a")}</g>'
    return leaf + star


def _hail(sketch: Sketch) -> str:
    cloud = svg.path("M24 46C12 46 12 28 26 28C28 12 54 10 58 22C74 12 94 22 88 34C104 36 102 52 90 50L24 50Z", "#8d99a3")
    return cloud + "".join(
        svg.path(f"M{x} {y - 16}L{x - 3} {y - 6}", stroke="#b9c6cc", width=2) + svg.circle(x - 4, y, 6, "#f1f5f6", "#7d8d96", 1.4)
        for x, y in ((34, 76), (60, 86), (86, 74), (46, 108), (76, 114), (100, 104), (20, 104))
    )


def _wind(sketch: Sketch) -> str:
    lines = "".join(
        svg.path(d, stroke=svg.SLATE, width=3)
        for d in ("M6 30C30 22 50 36 70 28C82 22 78 10 68 14", "M2 52C26 46 40 56 56 50", "M8 72C24 68 32 74 42 70")
    )
    return f'<g transform="rotate(26 60 136)">{scenes.shoot()}</g>' + lines


def _spray(sketch: Sketch) -> str:
    nozzle = svg.path("M8 10L44 18L40 34L6 24Z", svg.SLATE, svg.INK, 1.2) + svg.path("M44 18L54 22L50 32L40 34Z", svg.INK)
    drops = "".join(
        svg.circle(58 + r * c, 30 + r * s, 2, "#7f9fae")
        for r in (14, 26, 38, 50, 62)
        for c, s in ((0.98, 0.2), (0.9, 0.43), (0.77, 0.64), (0.58, 0.81))
    )
    return nozzle + drops + seedling(84, 138, 0.8) + seedling(30, 138, 0.7)


def _planted(sketch: Sketch) -> str:
    trowel = f'<g transform="translate(94 72) rotate(24)">{svg.path("M-4 -48L4 -48L5 -12L-5 -12Z", svg.BOOT)}{svg.path("M-11 -12L11 -12C13 10 6 26 0 34C-6 26 -13 10 -11 -12Z", "#9aa3a6", svg.INK, 1.2)}</g>'
    return earth(96) + svg.path("M20 98C30 84 68 84 78 98Z", "#a5865f") + seedling(48, 92, 1.05) + trowel


def _brought(sketch: Sketch) -> str:
    pot = svg.path("M52 78L104 78L96 128L60 128Z", "#b8633a", "#7a3e1d", 1.4) + svg.path(
        "M48 70L108 70L108 82L48 82Z", "#c9724a", "#7a3e1d", 1.4
    )
    return seedling(78, 72, 1.05) + pot + svg.path("M4 100l30 0m-11 -11l11 11l-11 11", stroke=svg.SLATE, width=5)


def _weeds(sketch: Sketch) -> str:
    posts = "".join(svg.path(f"M{58 + n * 14} 62L{58 + n * 14} 120", stroke=svg.ROOT, width=4) for n in range(2)) + svg.path(
        "M52 74L120 74M52 96L120 96", stroke=svg.ROOT, width=3
    )
    return (
        earth(116)
        + seedling(26, 118, 1.1)
        + posts
        + "".join(seedling(x, 118, s, t, ("#8a9a52", "#76873f")) for x, s, t in ((76, 0.8, -8), (92, 1.0, 6), (108, 0.75, 12)))
    )


DRAWN: dict[str, Draw] = {
    "soil-dry-a-finger-deep": lambda _: soil.finger("dry"),
    "soil-sodden": lambda _: soil.finger("sodden"),
    "roots-chewed": lambda _: soil.root(True),
    "legless-white-maggots": plain(soil.maggots),
    "white-eggs-at-the-stem-base": plain(soil.base_eggs),
    "roots-brown": _brown_roots,
    "root-knots": _knots,
    "tunnels-in-root": _root_tunnels,
    "gnawed-roots-gone": _gone,
    "blackened-stem-base": _black_base,
    "ant-mound": _mound,
    "red-ants-of-many-sizes": _ants_on_stick,
    "mound-with-fan": _fan,
    "runways-in-grass": _runways,
    "droppings-pellets": _droppings,
    "recent-frost": _frost,
    "hail": _hail,
    "strong-wind": _wind,
    "spray-or-dust-in-the-last-days": _spray,
    "just-planted-out": _planted,
    "new-plant-or-soil-brought-in": _brought,
    "weeds-of-the-same-family-near": _weeds,
}
