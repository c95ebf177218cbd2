"""Signs of the whole plant, its shoots, stems, bark, flowers and fruit."""

from bootmark.web.drawing import animals, backdrops, scenes, svg
from bootmark.web.drawing.backdrops import apple, bark, seedling, stem
from bootmark.web.drawing.sketch import Draw, Sketch, plain

YELLOW = ("#cdbf5b", "#b9a94b")
BROWN = ("#b08a55", "#94713f")
RED = ("#c2683a", "#a8502c")


def _tinted(drawing: str, colours: tuple[str, str]) -> str:
    return drawing.replace(svg.GREEN, colours[0]).replace(svg.DARK_GREEN, colours[1])


def _stand(one: Sketch, odd: dict[int, tuple[float, tuple[str, str]]]) -> str:
    """Seven plants in a row; odd: size and colours of those that differ, by place."""
    plants = ""
    for n in range(7):
        size, colours = odd.get(n, (0.8, (svg.GREEN, svg.DARK_GREEN)))
        plants += seedling(10 + 16.6 * n, 116, size * (1 + 0.05 * one.rng.uniform(-1, 1)), one.rng.uniform(-4, 4), colours)
    return backdrops.row(plants)


def _patch(one: Sketch) -> str:
    parts = [svg.path("M0 26L120 26L120 132L0 132Z", "#8fae5e")]
    parts += [svg.path(f"M0 {34 + 12 * n}L120 {34 + 12 * n}", stroke="#6a8a46", width=5, stroke_dasharray="7 4") for n in range(9)]
    patch = svg.blob(one.rng, 62, 80, 30, 0.25, 16)
    parts.append(svg.path(svg.shape_d(patch), "#d9c95a", "#a8953a", 1.4))
    parts += [svg.path(f"M36 {64 + 12 * n}L88 {64 + 12 * n}", stroke="#b9a23f", width=5, stroke_dasharray="7 4") for n in range(3)]
    return "".join(parts)


def _one_side(one: Sketch) -> str:
    clips = (
        '<clipPath id="h"><path d="M60 0L120 0L120 140L60 140Z"/></clipPath><clipPath id="i"><path d="M0 0L60 0L60 140L0 140Z"/></clipPath>'
    )
    sick = _tinted(scenes.shoot(droop=True), YELLOW)
    return f'{clips}<g clip-path="url(#i)">{scenes.shoot()}</g><g clip-path="url(#h)">{sick}</g>'


def _falling(one: Sketch) -> str:
    low = "".join(
        f'<g transform="translate({x} {y}) rotate({turn})">{svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", YELLOW[0])}{svg.path("M0 0L33 0", stroke="#efe7b5", width=1)}</g>'
        for x, y, turn in ((8, 124, 8), (78, 130, -10), (60, 108, 35), (22, 100, 140))
    )
    return f'<g transform="translate(12 -8) scale(0.8)">{scenes.shoot()}</g>' + low


def _strip(one: Sketch) -> str:
    return backdrops.row("".join(seedling(12 + 19 * n, 116, 0.85, 62 if n % 2 else -58, YELLOW) for n in range(6)))


def _bracts(one: Sketch) -> str:
    around = "".join(
        f'<g transform="translate(60 62) rotate({n * 60})">{svg.path("M0 0C14 -18 34 -20 50 0C34 20 14 18 0 0Z", "#c2452f", "#8f2a1a", 1)}{svg.path("M4 0L44 0", stroke="#e0a090", width=1)}</g>'
        for n in range(6)
    )
    true = "".join(svg.circle(x, y, 4.6, "#d9c23f", svg.STEM, 1) for x, y in ((55, 58), (65, 58), (60, 67), (60, 52)))
    return svg.path("M60 70C60 100 58 120 60 140", stroke=svg.STEM, width=4) + around + true


def _air_roots(one: Sketch) -> str:
    return stem(24, 50) + "".join(
        svg.path(f"M60 {34 + 24 * n}C78 {36 + 24 * n} 92 {50 + 24 * n} 98 {74 + 20 * n}", stroke="#b9c6a0", width=6.4)
        + svg.path(f"M94 {64 + 20 * n}L98 {74 + 20 * n}", stroke="#7f9f58", width=6)
        for n in range(3)
    )


def _split(one: Sketch) -> str:
    return (
        stem(40, joint=False)
        + svg.path("M60 30C70 60 70 100 60 134C50 100 50 60 60 30Z", "#e9dcb8", "#8a6a35", 1.6)
        + svg.path("M60 44L60 122", stroke="#a88a52", width=2)
    )


def _sand(one: Sketch) -> str:
    heap = "".join(
        svg.circle(
            62 + one.rng.gauss(0, 12),
            112 + abs(one.rng.gauss(0, 7)),
            one.rng.uniform(1.6, 3.4),
            one.rng.choice(("#d9a04a", "#c98a35", "#e6b866")),
            "#8a5a1f",
            0.4,
        )
        for _ in range(70)
    )
    return stem(28) + svg.circle(62, 92, 6.5, "#3a2412", "#8a6a35", 1.6) + backdrops.earth(118) + heap


def _cut_seedling(one: Sketch) -> str:
    return (
        backdrops.earth(96)
        + svg.path("M60 98L59 88", stroke=svg.STEM, width=5)
        + svg.ellipse(59, 87, 3.4, 1.8, "#dfe6c8", stroke=svg.DRY)
        + f'<g transform="translate(34 92) rotate(-82)">{seedling(0, 0, 0.95)}</g>'
        + seedling(98, 98, 0.6)
    )


def _gnawed(one: Sketch) -> str:
    wood = svg.path("M34 84C50 78 74 80 88 86L88 116C72 122 48 122 34 116Z", backdrops.PALE_WOOD, "#5d4a36", 1.2)
    teeth = "".join(svg.path(f"M{38 + 8 * (n % 6)} {90 + 9 * (n // 6)}l4 5", stroke="#a8853f", width=1.8) for n in range(18))
    return bark(56) + wood + teeth + backdrops.earth(122)


def _sawdust(one: Sketch) -> str:
    dust = "".join(
        svg.circle(
            64 + one.rng.gauss(0, 6),
            66 + abs(one.rng.gauss(0, 20)),
            one.rng.uniform(1.2, 2.8),
            one.rng.choice(("#d9b87a", "#c9a05a", "#e9d3a0")),
            "#8a6a35",
            0.4,
        )
        for _ in range(60)
    )
    return bark(60) + svg.circle(64, 60, 8, "#2b1c10", "#5d4a36", 1.6) + dust


def _holes(one: Sketch) -> str:
    return stem(34) + "".join(svg.circle(x, y, 3.8, "#2b1c10", "#8a6a35", 1.4) for x, y in ((56, 40), (66, 66), (54, 90), (64, 114)))


def _d_holes(one: Sketch) -> str:
    return bark() + "".join(
        svg.path(f"M{x} {y - 9}L{x} {y + 9}A9 9 0 0 0 {x} {y - 9}Z", "#20150c", "#5d4a36", 1.4) for x, y in ((46, 40), (74, 74), (50, 108))
    )


def _round_holes(one: Sketch) -> str:
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


def _canker(one: Sketch) -> str:
    return (
        bark()
        + svg.path("M60 34C84 44 86 96 60 116C38 98 38 46 60 34Z", "#4a3524", "#33241a", 1.6)
        + svg.path("M60 46C76 54 76 92 60 104C46 92 46 56 60 46Z", "#5d4430", "#33241a", 1)
        + svg.path("M60 74L92 60", stroke="#4a3524", width=7)
    )


def _galleries(one: Sketch) -> str:
    wood = svg.path("M30 12L92 8L94 132L28 134Z", backdrops.PALE_WOOD, "#8a6a45", 1)
    paths = svg.path("M44 124C70 116 32 98 58 90S76 66 52 62S44 36 70 34", stroke="#a5803f", width=7.5) + svg.path(
        "M44 124C70 116 32 98 58 90S76 66 52 62S44 36 70 34", stroke="#7a5a2a", width=2, stroke_dasharray="2 3"
    )
    flaps = svg.path("M30 12L12 20L8 130L28 134Z", backdrops.BARK) + svg.path("M92 8L112 18L114 128L94 132Z", backdrops.DARK_BARK)
    return flaps + wood + paths + animals.caterpillar(74, 34, 24, "#f3ead2", head="#8a5a2a", fat=0.2)


def _ridge(one: Sketch) -> str:
    return (
        stem(20)
        + svg.path("M48 50C36 62 36 92 48 104L72 104C84 92 84 62 72 50Z", "#8fae5e", svg.STEM, 1.4)
        + svg.path("M62 52C70 66 70 90 62 102", stroke="#5d7d3c", width=3)
    )


def _girdles(one: Sketch) -> str:
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


def _pinched(one: Sketch) -> str:
    return (
        svg.path("M46 -2L74 -2C74 50 72 66 68 84C72 100 74 120 76 142L44 142C46 120 48 100 52 84C48 66 46 50 46 -2Z", "#7f9f58")
        + _fingers(60, 84)
        + backdrops.earth(124)
    )


def _crumpled(one: Sketch) -> str:
    return (
        svg.path("M60 142L60 84", stroke="#7f9f58", width=18)
        + svg.path("M54 86C64 72 82 66 104 34", stroke="#8f9a4a", width=16)
        + "".join(svg.path(d, stroke="#4f5a26", width=2) for d in ("M50 80l18 8", "M52 74l20 6", "M56 90l12 -4"))
        + _fingers(60, 92).replace("#e0b692", "#e0b69288")
    )


def _slit(inside: str, core: str = "#e9e3c2") -> str:
    return stem(48, joint=False) + svg.path("M60 6C76 30 76 112 60 138C44 112 44 30 60 6Z", core, "#5d7d3c", 1.6) + inside


def _larva_inside(one: Sketch) -> str:
    return _slit(
        svg.path("M60 22C66 50 54 80 60 124", stroke="#8a6a35", width=11)
        + animals.caterpillar(60, 72, 56, "#f3ead2", head="#6b4a2a", turn=-90, fat=0.18)
        + scenes.frass(one.rng, 60, 114, 16, 5)
    )


def _streaks(one: Sketch) -> str:
    return (
        svg.path("M34 -2L86 -2L86 142L34 142Z", backdrops.BARK)
        + svg.path("M42 14L76 10L78 126L44 130Z", backdrops.PALE_WOOD, "#5d4a36", 1)
        + "".join(svg.path(f"M{49 + 6 * n} {18 + n * 3 % 7}q{(-1) ** n * 3} 44 0 104", stroke="#7a4a22", width=2.4) for n in range(5))
    )


def _threads(one: Sketch) -> str:
    ends = svg.path("M30 -2L54 -2L52 46L32 50Z", "#7f9f58", svg.STEM, 1) + svg.path("M66 142L90 142L90 94L70 90Z", "#7f9f58", svg.STEM, 1)
    ends += svg.ellipse(42, 48, 10.5, 4, "#dfe6c8", turn=-8, stroke=svg.STEM) + svg.ellipse(
        80, 92, 10.5, 4, "#dfe6c8", turn=12, stroke=svg.STEM
    )
    return ends + "".join(
        svg.path(f"M{35 + 3.4 * n} 50C{48 + 4 * n} {70 - n} {60 + 3 * n} {76 + n} {73 + 3.2 * n} 90", stroke="#c9c3a2", width=1.2)
        for n in range(5)
    )


def _hanging_top(one: Sketch) -> str:
    low = "".join(
        f'<g transform="translate(60 {y}) rotate({turn})">{svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", svg.GREEN if turn < 0 else svg.DARK_GREEN)}</g>'
        for y, turn in ((120, 200), (116, -20), (94, 206), (90, -26), (70, 212), (66, -32))
    )
    tip = svg.path("M60 56C60 30 74 20 88 40C92 48 92 56 90 66", stroke="#8a9150", width=4) + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M0 0C6 -9 18 -9 28 0C18 9 6 9 0 0Z", "#98a05a")}</g>'
        for x, y, t in ((74, 30, 84), (86, 40, 100), (90, 62, 90), (66, 34, 110))
    )
    return svg.path("M60 142L60 54", stroke=svg.STEM, width=5) + low + tip


def _limp(one: Sketch) -> str:
    return (
        scenes.ground("moist")
        + f'<g transform="translate(8 -14) scale(0.86)">{scenes.shoot(droop=True)}</g>'
        + svg.circle(24, 22, 9, "#e6c65a")
        + svg.path("M92 30a11 11 0 1 0 10 -16a9 9 0 0 1 -10 16Z", "#8d99ad")
    )


def _crook(one: Sketch) -> str:
    return svg.path("M56 142C56 100 54 70 58 48C62 24 86 20 92 40C94 48 92 54 88 58", stroke="#33291f", width=6) + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M0 0C8 -11 22 -11 34 0C22 11 8 11 0 0Z", "#4a3a2a")}{svg.path("M0 0L28 0", stroke="#7a6a52", width=1)}</g>'
        for x, y, t in ((56, 108, 130), (57, 100, 50), (57, 78, 136), (58, 70, 46), (64, 40, 100), (84, 30, 70))
    )


def _bite(one: Sketch, *, torn: bool) -> str:
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


def _spots_on(one: Sketch, colour: str, edge: str, count: int, size: tuple[float, float], fruit: str = "") -> str:
    spots = "".join(
        svg.path(
            svg.shape_d(
                svg.blob(
                    one.rng, 34 + 26 * (n % 3) + one.rng.uniform(-6, 6), 60 + 20 * (n // 3) + one.rng.uniform(-6, 6), one.rng.uniform(*size)
                )
            ),
            colour,
            edge,
            1,
        )
        for n in range(count)
    )
    return (fruit or apple()) + spots


def _russet(one: Sketch) -> str:
    net = "".join(
        svg.path(
            f"M{18 + 9 * n} {58 + n % 3 * 4}q{one.rng.uniform(-8, 8):.0f} 26 {one.rng.uniform(-6, 6):.0f} 46", stroke="#8a6535", width=1.3
        )
        for n in range(10)
    )
    return apple("#b3905a", "#9c7a48") + net + svg.path("M34 44C44 34 54 38 60 42C50 52 40 56 30 58Z", "#b9b24f")


def _crescents(one: Sketch) -> str:
    return apple("#9db35c", "#86a048") + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M-9 4A10 10 0 0 1 9 4A13 9 0 0 0 -9 4Z", "#6b4423", "#4a2d15", 1)}</g>'
        for x, y, t in ((44, 66, -30), (76, 74, 20), (54, 98, 160), (80, 102, 60))
    )


def _soft(one: Sketch) -> str:
    return (
        backdrops.berry("#8f2438")
        + svg.path("M42 76C52 66 84 66 88 82C84 98 54 100 42 76Z", "#56122299", "#3a0c18", 1)
        + svg.circle(64, 78, 2.4, "#1f0810")
    )


def _trails(one: Sketch) -> str:
    return backdrops.cut_fruit() + "".join(
        svg.path(d, stroke="#8a5a2a", width=3)
        for d in ("M26 70C36 66 34 84 46 80S40 106 56 112", "M94 64C84 72 92 84 78 88S84 106 70 114", "M40 52C46 60 54 52 58 58")
    )


def _tunnel(one: Sketch) -> str:
    return (
        backdrops.cut_fruit()
        + svg.path("M98 70C88 66 82 80 68 80", stroke="#5d3a1c", width=8)
        + svg.path("M60 66C70 72 72 90 60 100C50 92 52 72 60 66Z", "#4a2d15")
        + scenes.frass(one.rng, 64, 86, 16, 9)
    )


def _ring_rot(one: Sketch) -> str:
    spot = "".join(
        svg.circle(66, 82, r, fill, "#4a2d15", 1) for r, fill in ((25, "#8a5a2a"), (18, "#7a4a22"), (11, "#6b3f1c"), (5, "#4a2d15"))
    )
    dots = "".join(
        svg.circle(66 + r * c, 82 + r * s, 1.3, "#1f140c")
        for r in (14.5, 21.5)
        for c, s in ((1, 0), (0.7, 0.7), (0, 1), (-0.7, 0.7), (-1, 0), (-0.7, -0.7), (0, -1), (0.7, -0.7))
    )
    return apple("#c2683a", "#a8502c") + spot + dots


def _pecked(one: Sketch) -> str:
    return apple("#c2683a", "#a8502c") + "".join(
        svg.path(f"M{x} {y}l{-s} {-s * 1.4}l{s * 2} 0Z", "#f4e6c0", "#6b3a1a", 1.2)
        for x, y, s in ((48, 70, 8), (70, 84, 10), (56, 104, 7), (84, 66, 6))
    )


def _buds(one: Sketch) -> str:
    return svg.path("M60 142C60 100 60 60 60 30M60 92C44 86 34 76 30 62M60 70C76 62 84 52 88 40", stroke=svg.STEM, width=4) + "".join(
        svg.path(f"M{x} {y}C{x - 9} {y + 8} {x - 5} {y + 20} {x} {y + 22}C{x + 5} {y + 20} {x + 9} {y + 8} {x} {y}Z", colour, "#5d4423", 1)
        for x, y, colour in ((60, 10, "#a5803f"), (30, 44, "#8a6a35"), (88, 22, "#b8935a"), (36, 112, "#8a6a35"), (84, 116, "#a5803f"))
    )


def _petals(one: Sketch) -> str:
    petals = []
    for n in range(5):
        turn = n * 72 - 90
        holes = "".join(
            svg.circle(one.rng.uniform(14, 40), one.rng.uniform(-12, 12), one.rng.uniform(3, 6), svg.PAPER, svg.DRY, 1) for _ in range(3)
        )
        petals.append(
            f'<g transform="translate(60 62) rotate({turn})">{svg.ellipse(27, 0, 19, 15, "#e9c3d0", stroke="#b98a9a")}{holes}</g>'
        )
    return svg.path("M60 84C60 104 56 120 58 136", stroke=svg.STEM, width=3) + "".join(petals) + svg.circle(60, 62, 9, "#c9a94a")


def _pods(one: Sketch) -> str:
    return (
        backdrops.pod()
        + svg.circle(62, 74, 8, "#3a2412", "#8a6a35", 1.6)
        + svg.path("M50 34q10 -6 18 2M52 104q8 8 16 0M50 54q6 -4 10 0", stroke="#a8853f", width=3.4)
        + scenes.frass(one.rng, 64, 84, 12, 5)
    )


DRAWN: dict[str, Draw] = {
    "drooping": lambda _: scenes.shoot(droop=True),
    "whole-plant-dead-among-green-ones": plain(scenes.dead_among_green),
    "perks-up-hours-after-water": plain(scenes.drooping_after_water),
    "distorted-fruit": plain(scenes.misshapen),
    "fruit-entry-hole-with-frass": plain(scenes.entry_hole),
    "fruit-exit-hole-at-the-end": plain(scenes.exit_hole),
    "stings-and-dimples": plain(scenes.stings),
    "patch-shutting-down": _patch,
    "plants-stunted": lambda one: _stand(
        one, {2: (0.42, (svg.GREEN, svg.DARK_GREEN)), 3: (0.38, (svg.GREEN, svg.DARK_GREEN)), 4: (0.44, (svg.GREEN, svg.DARK_GREEN))}
    ),
    "top-wilted": _hanging_top,
    "drooping-that-stays": _limp,
    "one-side-wilts": _one_side,
    "dead-branches-at-the-top": lambda one: backdrops.tree(one.rng, gaps=True),
    "old-leaves-fall": _falling,
    "all-needles-colour": lambda _: _tinted(backdrops.needles(), ("#d9a93c", "#c2902a")),
    "tops-die-back-evenly": _strip,
    "coloured-leaves-under-flower": _bracts,
    "roots-from-the-stem": _air_roots,
    "stem-split": _split,
    "wet-sand-frass": _sand,
    "cut-at-the-soil": _cut_seedling,
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
    "blackened-shoot-crook": _crook,
    "clean-angled-bite": lambda one: _bite(one, torn=False),
    "torn-bite": lambda one: _bite(one, torn=True),
    "pecked": _pecked,
    "fruit-pits": lambda one: _spots_on(one, "#4f3a1c", "#33250f", 9, (2.4, 3.8)),
    "fruit-scabs": lambda one: _spots_on(one, "#5d4a2a", "#33291a", 7, (5, 10)),
    "surface-russet": _russet,
    "dark-patch-at-the-blossom-end": lambda _: (
        backdrops.tomato() + svg.path("M30 104C44 92 78 92 92 104C88 122 76 127 60 127C44 127 34 120 30 104Z", "#33231a", "#5d2a1a", 1.6)
    ),
    "crescent-scars": _crescents,
    "soft-sunken-fruit": _soft,
    "brown-trails-in-flesh": _trails,
    "empty-tunnel-to-the-core": _tunnel,
    "ring-rot-spots": _ring_rot,
    "ear-tip-eaten": lambda one: backdrops.ear(
        svg.path("M38 44C46 28 74 28 82 44L80 66L40 66Z", "#8a5a2a") + scenes.frass(one.rng, 60, 50, 40, 16)
    ),
    "silk-cut": lambda _: backdrops.ear(
        "".join(svg.path(f"M{50 + 5 * n} 36l{-2 + n} -{6 + n % 2 * 4}", stroke="#8a6a35", width=2) for n in range(5))
    ),
    "pods-eaten": _pods,
    "flower-buds-dropped": _buds,
    "petals-eaten": _petals,
    "irrigation-not-running": plain(scenes.dry_line),
}
