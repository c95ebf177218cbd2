"""Signs of flower and fruit."""

from bootmark.drawing import backdrops, scenes, svg
from bootmark.drawing.backdrops import apple
from bootmark.drawing.sketch import Draw, Sketch, plain


def _bracts(sketch: Sketch) -> str:
    around = "".join(
        f'<g transform="translate(60 62) rotate({n * 60})">{svg.path("M0 0C14 -18 34 -20 50 0C34 20 14 18 0 0Z", "#c2452f", "#8f2a1a", 1)}{svg.path("M4 0L44 0", stroke="#e0a090", width=1)}</g>'
        for n in range(6)
    )
    true = "".join(svg.circle(x, y, 4.6, "#d9c23f", svg.STEM, 1) for x, y in ((55, 58), (65, 58), (60, 67), (60, 52)))
    return svg.path("M60 70C60 100 58 120 60 140", stroke=svg.STEM, width=4) + around + true


def _spots_on(sketch: Sketch, colour: str, edge: str, count: int, size: tuple[float, float], fruit: str = "") -> str:
    spots = "".join(
        svg.path(
            svg.shape_d(
                svg.blob(
                    sketch.rng,
                    34 + 26 * (n % 3) + sketch.rng.uniform(-6, 6),
                    60 + 20 * (n // 3) + sketch.rng.uniform(-6, 6),
                    sketch.rng.uniform(*size),
                )
            ),
            colour,
            edge,
            1,
        )
        for n in range(count)
    )
    return (fruit or apple()) + spots


def _russet(sketch: Sketch) -> str:
    net = "".join(
        svg.path(
            f"M{18 + 9 * n} {58 + n % 3 * 4}q{sketch.rng.uniform(-8, 8):.0f} 26 {sketch.rng.uniform(-6, 6):.0f} 46",
            stroke="#8a6535",
            width=1.3,
        )
        for n in range(10)
    )
    return apple("#b3905a", "#9c7a48") + net + svg.path("M34 44C44 34 54 38 60 42C50 52 40 56 30 58Z", "#b9b24f")


def _crescents(sketch: Sketch) -> str:
    return apple("#9db35c", "#86a048") + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M-9 4A10 10 0 0 1 9 4A13 9 0 0 0 -9 4Z", "#6b4423", "#4a2d15", 1)}</g>'
        for x, y, t in ((44, 66, -30), (76, 74, 20), (54, 98, 160), (80, 102, 60))
    )


def _soft(sketch: Sketch) -> str:
    return (
        backdrops.berry("#8f2438")
        + svg.path("M42 76C52 66 84 66 88 82C84 98 54 100 42 76Z", "#56122299", "#3a0c18", 1)
        + svg.circle(64, 78, 2.4, "#1f0810")
    )


def _trails(sketch: Sketch) -> str:
    return backdrops.cut_fruit() + "".join(
        svg.path(d, stroke="#8a5a2a", width=3)
        for d in ("M26 70C36 66 34 84 46 80S40 106 56 112", "M94 64C84 72 92 84 78 88S84 106 70 114", "M40 52C46 60 54 52 58 58")
    )


def _tunnel(sketch: Sketch) -> str:
    return (
        backdrops.cut_fruit()
        + svg.path("M98 70C88 66 82 80 68 80", stroke="#5d3a1c", width=8)
        + svg.path("M60 66C70 72 72 90 60 100C50 92 52 72 60 66Z", "#4a2d15")
        + scenes.frass(sketch.rng, 64, 86, 16, 9)
    )


def _ring_rot(sketch: Sketch) -> str:
    spot = "".join(
        svg.circle(66, 82, r, fill, "#4a2d15", 1) for r, fill in ((25, "#8a5a2a"), (18, "#7a4a22"), (11, "#6b3f1c"), (5, "#4a2d15"))
    )
    dots = "".join(
        svg.circle(66 + r * c, 82 + r * s, 1.3, "#1f140c")
        for r in (14.5, 21.5)
        for c, s in ((1, 0), (0.7, 0.7), (0, 1), (-0.7, 0.7), (-1, 0), (-0.7, -0.7), (0, -1), (0.7, -0.7))
    )
    return apple("#c2683a", "#a8502c") + spot + dots


def _pecked(sketch: Sketch) -> str:
    return apple("#c2683a", "#a8502c") + "".join(
        svg.path(f"M{x} {y}l{-s} {-s * 1.4}l{s * 2} 0Z", "#f4e6c0", "#6b3a1a", 1.2)
        for x, y, s in ((48, 70, 8), (70, 84, 10), (56, 104, 7), (84, 66, 6))
    )


def _buds(sketch: Sketch) -> str:
    return svg.path("M60 142C60 100 60 60 60 30M60 92C44 86 34 76 30 62M60 70C76 62 84 52 88 40", stroke=svg.STEM, width=4) + "".join(
        svg.path(f"M{x} {y}C{x - 9} {y + 8} {x - 5} {y + 20} {x} {y + 22}C{x + 5} {y + 20} {x + 9} {y + 8} {x} {y}Z", colour, "#5d4423", 1)
        for x, y, colour in ((60, 10, "#a5803f"), (30, 44, "#8a6a35"), (88, 22, "#b8935a"), (36, 112, "#8a6a35"), (84, 116, "#a5803f"))
    )


def _petals(sketch: Sketch) -> str:
    petals = []
    for n in range(5):
        turn = n * 72 - 90
        holes = "".join(
            svg.circle(sketch.rng.uniform(14, 40), sketch.rng.uniform(-12, 12), sketch.rng.uniform(3, 6), svg.PAPER, svg.DRY, 1)
            for _ in range(3)
        )
        petals.append(
            f'<g transform="translate(60 62) rotate({turn})">{svg.ellipse(27, 0, 19, 15, "#e9c3d0", stroke="#b98a9a")}{holes}</g>'
        )
    return svg.path("M60 84C60 104 56 120 58 136", stroke=svg.STEM, width=3) + "".join(petals) + svg.circle(60, 62, 9, "#c9a94a")


def _pods(sketch: Sketch) -> str:
    return (
        backdrops.pod()
        + svg.circle(62, 74, 8, "#3a2412", "#8a6a35", 1.6)
        + svg.path("M50 34q10 -6 18 2M52 104q8 8 16 0M50 54q6 -4 10 0", stroke="#a8853f", width=3.4)
        + scenes.frass(sketch.rng, 64, 84, 12, 5)
    )


DRAWN: dict[str, Draw] = {
    "distorted-fruit": plain(scenes.misshapen),
    "fruit-entry-hole-with-frass": plain(scenes.entry_hole),
    "fruit-exit-hole-at-the-end": plain(scenes.exit_hole),
    "stings-and-dimples": plain(scenes.stings),
    "coloured-leaves-under-flower": _bracts,
    "pecked": _pecked,
    "fruit-pits": lambda sketch: _spots_on(sketch, "#4f3a1c", "#33250f", 9, (2.4, 3.8)),
    "fruit-scabs": lambda sketch: _spots_on(sketch, "#5d4a2a", "#33291a", 7, (5, 10)),
    "surface-russet": _russet,
    "dark-patch-at-the-blossom-end": lambda _: (
        backdrops.tomato() + svg.path("M30 104C44 92 78 92 92 104C88 122 76 127 60 127C44 127 34 120 30 104Z", "#33231a", "#5d2a1a", 1.6)
    ),
    "crescent-scars": _crescents,
    "soft-sunken-fruit": _soft,
    "brown-trails-in-flesh": _trails,
    "empty-tunnel-to-the-core": _tunnel,
    "ring-rot-spots": _ring_rot,
    "ear-tip-eaten": lambda sketch: backdrops.ear(
        svg.path("M38 44C46 28 74 28 82 44L80 66L40 66Z", "#8a5a2a") + scenes.frass(sketch.rng, 60, 50, 40, 16)
    ),
    "silk-cut": lambda _: backdrops.ear(
        "".join(svg.path(f"M{50 + 5 * n} 36l{-2 + n} -{6 + n % 2 * 4}", stroke="#8a6a35", width=2) for n in range(5))
    ),
    "pods-eaten": _pods,
    "flower-buds-dropped": _buds,
    "petals-eaten": _petals,
}
