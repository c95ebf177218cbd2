"""Signs of stem, cane, bark and wood."""

from bootmark.drawing import backdrops, scenes, soil, svg
from bootmark.drawing.backdrops import bark, stem
from bootmark.drawing.caterpillars import lying
from bootmark.drawing.sketch import Draw, Sketch, plain


def _tinted(drawing: str, colours: tuple[str, str]) -> str:
    return drawing.replace(svg.GREEN, colours[0]).replace(svg.DARK_GREEN, colours[1])


def _air_roots(sketch: Sketch) -> str:
    return stem(24, 50) + "".join(
        svg.path(f"M60 {34 + 24 * n}C78 {36 + 24 * n} 92 {50 + 24 * n} 98 {74 + 20 * n}", stroke="#b9c6a0", width=6.4)
        + svg.path(f"M94 {64 + 20 * n}L98 {74 + 20 * n}", stroke="#7f9f58", width=6)
        for n in range(3)
    )


def _split(sketch: Sketch) -> str:
    return (
        stem(40, joint=False)
        + svg.path("M60 30C70 60 70 100 60 134C50 100 50 60 60 30Z", "#e9dcb8", "#8a6a35", 1.6)
        + svg.path("M60 44L60 122", stroke="#a88a52", width=2)
    )


def _heap(
    sketch: Sketch,
    crumbs: int,
    top: tuple[float, float],
    spread: tuple[float, float],
    size: tuple[float, float],
    colours: tuple[str, ...],
    edge: str,
) -> str:
    """Crumbs that fell from a hole: thickest at the top, spreading to the sides and downward only."""
    rng = sketch.rng
    return "".join(
        svg.circle(
            top[0] + rng.gauss(0, spread[0]), top[1] + abs(rng.gauss(0, spread[1])), rng.uniform(*size), rng.choice(colours), edge, 0.4
        )
        for _ in range(crumbs)
    )


def _sand(sketch: Sketch) -> str:
    heap = _heap(sketch, 70, (62, 112), (12, 7), (1.6, 3.4), ("#d9a04a", "#c98a35", "#e6b866"), "#8a5a1f")
    return stem(28) + svg.circle(62, 92, 6.5, "#3a2412", "#8a6a35", 1.6) + backdrops.earth(118) + heap


def _gnawed(sketch: Sketch) -> str:
    wood = svg.path("M34 84C50 78 74 80 88 86L88 116C72 122 48 122 34 116Z", backdrops.PALE_WOOD, "#5d4a36", 1.2)
    teeth = "".join(svg.path(f"M{38 + 8 * (n % 6)} {90 + 9 * (n // 6)}l4 5", stroke="#a8853f", width=1.8) for n in range(18))
    return bark(56) + wood + teeth + backdrops.earth(122)


def _sawdust(sketch: Sketch) -> str:
    dust = _heap(sketch, 60, (64, 66), (6, 20), (1.2, 2.8), ("#d9b87a", "#c9a05a", "#e9d3a0"), "#8a6a35")
    return bark(60) + svg.circle(64, 60, 8, "#2b1c10", "#5d4a36", 1.6) + dust


def _holes(sketch: Sketch) -> str:
    return stem(34) + "".join(svg.circle(x, y, 3.8, "#2b1c10", "#8a6a35", 1.4) for x, y in ((56, 40), (66, 66), (54, 90), (64, 114)))


def _d_holes(sketch: Sketch) -> str:
    return bark() + "".join(
        svg.path(f"M{x} {y - 9}L{x} {y + 9}A9 9 0 0 0 {x} {y - 9}Z", "#20150c", "#5d4a36", 1.4) for x, y in ((46, 40), (74, 74), (50, 108))
    )


def _round_holes(sketch: Sketch) -> str:
    return bark() + "".join(
        svg.circle(x, y, r, "#20150c", "#5d4a36", 1.6) for x, y, r in ((48, 42, 8), (74, 66, 7), (52, 100, 8), (76, 116, 6))
    )


def _beads(colour: str, edge: str) -> Draw:
    at = ((56, 40, 8), (64, 58, 11), (58, 82, 9), (66, 100, 7), (60, 118, 5))
    return lambda _: (
        bark(60)
        + "".join(
            svg.path(
                f"M{x} {y - r}C{x + r} {y - r} {x + r} {y + r * 1.3} {x} {y + r * 1.6}C{x - r} {y + r * 1.3} {x - r} {y - r} {x} {y - r}Z",
                colour,
                edge,
                1,
            )
            + svg.circle(x - r / 3, y, r / 4, "#ffffffaa")
            for x, y, r in at
        )
    )


def _canker(sketch: Sketch) -> str:
    return (
        bark()
        + svg.path("M60 34C84 44 86 96 60 116C38 98 38 46 60 34Z", "#4a3524", "#33241a", 1.6)
        + svg.path("M60 46C76 54 76 92 60 104C46 92 46 56 60 46Z", "#5d4430", "#33241a", 1)
        + svg.path("M60 74L92 60", stroke="#4a3524", width=7)
    )


def _galleries(sketch: Sketch) -> str:
    wood = svg.path("M30 12L92 8L94 132L28 134Z", backdrops.PALE_WOOD, "#8a6a45", 1)
    paths = svg.path("M44 124C70 116 32 98 58 90S76 66 52 62S44 36 70 34", stroke="#a5803f", width=7.5) + svg.path(
        "M44 124C70 116 32 98 58 90S76 66 52 62S44 36 70 34", stroke="#7a5a2a", width=2, stroke_dasharray="2 3"
    )
    flaps = svg.path("M30 12L12 20L8 130L28 134Z", backdrops.BARK) + svg.path("M92 8L112 18L114 128L94 132Z", backdrops.DARK_BARK)
    return flaps + wood + paths + lying(74, 34, 24, "#f3ead2", head="#8a5a2a", fat=0.2)


def _ridge(sketch: Sketch) -> str:
    return (
        stem(20)
        + svg.path("M48 50C36 62 36 92 48 104L72 104C84 92 84 62 72 50Z", "#8fae5e", svg.STEM, 1.4)
        + svg.path("M62 52C70 66 70 90 62 102", stroke="#5d7d3c", width=3)
    )


def _girdles(sketch: Sketch) -> str:
    top = f'<g transform="translate(-4 -26) scale(1.05 0.7)">{_tinted(scenes.shoot(droop=True), ("#8f8a4a", "#7b763c"))}</g>'
    return (
        top
        + svg.path("M60 142L60 70", stroke="#7f9f58", width=14)
        + "".join(svg.path(f"M53 {y}q7 5 14 0", stroke="#3a2412", width=3.2) for y in (92, 110))
    )


def _fingers(x: float, y: float) -> str:
    return svg.path(
        f"M{x - 58} {y - 14}C{x - 36} {y - 18} {x - 18} {y - 10} {x - 9} {y - 6}L{x - 9} {y + 8}C{x - 20} {y + 12} {x - 40} {y + 12} {x - 58} {y + 10}Z",
        "#e0b692",
        "#a77b58",
        1.4,
    ) + svg.path(
        f"M{x + 58} {y - 14}C{x + 36} {y - 18} {x + 18} {y - 10} {x + 9} {y - 6}L{x + 9} {y + 8}C{x + 20} {y + 12} {x + 40} {y + 12} {x + 58} {y + 10}Z",
        "#e0b692",
        "#a77b58",
        1.4,
    )


def _pinched(sketch: Sketch) -> str:
    return (
        svg.path("M46 -2L74 -2C74 50 72 66 68 84C72 100 74 120 76 142L44 142C46 120 48 100 52 84C48 66 46 50 46 -2Z", "#7f9f58")
        + _fingers(60, 84)
        + backdrops.earth(124)
    )


def _crumpled(sketch: Sketch) -> str:
    return (
        svg.path("M60 142L60 84", stroke="#7f9f58", width=18)
        + svg.path("M54 86C64 72 82 66 104 34", stroke="#8f9a4a", width=16)
        + "".join(svg.path(d, stroke="#4f5a26", width=2) for d in ("M50 80l18 8", "M52 74l20 6", "M56 90l12 -4"))
        + _fingers(60, 92).replace("#e0b692", "#e0b69288")
    )


def _slit(inside: str, core: str = "#e9e3c2") -> str:
    return stem(48, joint=False) + svg.path("M60 6C76 30 76 112 60 138C44 112 44 30 60 6Z", core, "#5d7d3c", 1.6) + inside


def _larva_inside(sketch: Sketch) -> str:
    return _slit(
        svg.path("M60 22C66 50 54 80 60 124", stroke="#8a6a35", width=11)
        + lying(60, 72, 56, "#f3ead2", head="#6b4a2a", turn=-90, fat=0.18)
        + scenes.frass(sketch.rng, 60, 114, 16, 5)
    )


def _streaks(sketch: Sketch) -> str:
    return (
        svg.path("M34 -2L86 -2L86 142L34 142Z", backdrops.BARK)
        + svg.path("M42 14L76 10L78 126L44 130Z", backdrops.PALE_WOOD, "#5d4a36", 1)
        + "".join(svg.path(f"M{49 + 6 * n} {18 + n * 3 % 7}q{(-1) ** n * 3} 44 0 104", stroke="#7a4a22", width=2.4) for n in range(5))
    )


def _threads(sketch: Sketch) -> str:
    ends = svg.path("M30 -2L54 -2L52 46L32 50Z", "#7f9f58", svg.STEM, 1) + svg.path("M66 142L90 142L90 94L70 90Z", "#7f9f58", svg.STEM, 1)
    ends += svg.ellipse(42, 48, 10.5, 4, "#dfe6c8", turn=-8, stroke=svg.STEM) + svg.ellipse(
        80, 92, 10.5, 4, "#dfe6c8", turn=12, stroke=svg.STEM
    )
    return ends + "".join(
        svg.path(f"M{35 + 3.4 * n} 50C{48 + 4 * n} {70 - n} {60 + 3 * n} {76 + n} {73 + 3.2 * n} 90", stroke="#c9c3a2", width=1.2)
        for n in range(5)
    )


def _bite(sketch: Sketch, *, torn: bool) -> str:
    end = "M48 60L52 44L55 56L60 36L64 54L69 42L72 62" if torn else "M48 66L72 44"
    base = svg.path("M48 142L48 62L72 46L72 142Z" if not torn else "M48 142L48 60L52 44L55 56L60 36L64 54L69 42L72 62L72 142Z", "#8f9f5e")
    face = "" if torn else svg.path("M48 66L72 44L72 50L48 72Z", "#efe7c8", "#8a6a35", 1)
    shreds = (
        "".join(svg.path(f"M{50 + 5 * n} 56l{-6 + 3 * n} -{16 + n % 2 * 8}", stroke="#cdbb8f", width=1.6) for n in range(5)) if torn else ""
    )
    return (
        base
        + face
        + svg.path(end, stroke=svg.DRY, width=2)
        + shreds
        + f'<g transform="translate(70 100) rotate(-20) scale(0.8)">{svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", svg.GREEN)}</g>'
    )


DRAWN: dict[str, Draw] = {
    "whole-plant-dead-among-green-ones": plain(soil.dead_among_green),
    "roots-from-the-stem": _air_roots,
    "stem-split": _split,
    "wet-sand-frass": _sand,
    "gnawed-bark": _gnawed,
    "sawdust-frass": _sawdust,
    "entry-holes": _holes,
    "d-shaped-exit-holes": _d_holes,
    "round-exit-holes": _round_holes,
    "gum": _beads("#c9822a", "#7a4a12"),
    "ooze-drops": _beads("#e9d8a6", "#a8853f"),
    "cankers": _canker,
    "galleries-under-bark": _galleries,
    "swollen-stem": _ridge,
    "two-rings-round-the-cane": _girdles,
    "stem-soft-when-pinched": _pinched,
    "stalk-crumples": _crumpled,
    "brown-tissue-inside": lambda _: _slit(svg.path("M60 20C68 44 68 100 60 126C52 100 52 44 60 20Z", "#7a4a22")),
    "larva-in-the-stem": _larva_inside,
    "brown-streaks-in-wood": _streaks,
    "threads-from-the-cut": _threads,
    "clean-angled-bite": lambda sketch: _bite(sketch, torn=False),
    "torn-bite": lambda sketch: _bite(sketch, torn=True),
}
