"""Signs of the whole plant and its shoots."""

from bootmark.drawing import backdrops, scenes, soil, svg
from bootmark.drawing.backdrops import seedling
from bootmark.drawing.sketch import Draw, Sketch, plain

YELLOW = ("#cdbf5b", "#b9a94b")


def _tinted(drawing: str, colours: tuple[str, str]) -> str:
    return drawing.replace(svg.GREEN, colours[0]).replace(svg.DARK_GREEN, colours[1])


def _stand(sketch: Sketch, odd: dict[int, tuple[float, tuple[str, str]]]) -> str:
    """Seven plants in a row; odd: size and colours of those that differ, by place."""
    plants = ""
    for n in range(7):
        size, colours = odd.get(n, (0.8, (svg.GREEN, svg.DARK_GREEN)))
        plants += seedling(10 + 16.6 * n, 116, size * (1 + 0.05 * sketch.rng.uniform(-1, 1)), sketch.rng.uniform(-4, 4), colours)
    return backdrops.row(plants)


def _patch(sketch: Sketch) -> str:
    parts = [svg.path("M0 26L120 26L120 132L0 132Z", "#8fae5e")]
    parts += [svg.path(f"M0 {34 + 12 * n}L120 {34 + 12 * n}", stroke="#6a8a46", width=5, stroke_dasharray="7 4") for n in range(9)]
    patch = svg.blob(sketch.rng, 62, 80, 30, 0.25, 16)
    parts.append(svg.path(svg.shape_d(patch), "#d9c95a", "#a8953a", 1.4))
    parts += [svg.path(f"M36 {64 + 12 * n}L88 {64 + 12 * n}", stroke="#b9a23f", width=5, stroke_dasharray="7 4") for n in range(3)]
    return "".join(parts)


def _one_side(sketch: Sketch) -> str:
    clips = (
        '<clipPath id="h"><path d="M60 0L120 0L120 140L60 140Z"/></clipPath><clipPath id="i"><path d="M0 0L60 0L60 140L0 140Z"/></clipPath>'
    )
    sick = _tinted(scenes.shoot(droop=True), YELLOW)
    return f'{clips}<g clip-path="url(#i)">{scenes.shoot()}</g><g clip-path="url(#h)">{sick}</g>'


def _falling(sketch: Sketch) -> str:
    low = "".join(
        f'<g transform="translate({x} {y}) rotate({turn})">{svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", YELLOW[0])}{svg.path("M0 0L33 0", stroke="#efe7b5", width=1)}</g>'
        for x, y, turn in ((8, 124, 8), (78, 130, -10), (60, 108, 35), (22, 100, 140))
    )
    return f'<g transform="translate(12 -8) scale(0.8)">{scenes.shoot()}</g>' + low


def _strip(sketch: Sketch) -> str:
    return backdrops.row("".join(seedling(12 + 19 * n, 116, 0.85, 62 if n % 2 else -58, YELLOW) for n in range(6)))


def _cut_seedling(sketch: Sketch) -> str:
    return (
        backdrops.earth(96)
        + svg.path("M60 98L59 88", stroke=svg.STEM, width=5)
        + svg.ellipse(59, 87, 3.4, 1.8, "#dfe6c8", stroke=svg.DRY)
        + f'<g transform="translate(34 92) rotate(-82)">{seedling(0, 0, 0.95)}</g>'
        + seedling(98, 98, 0.6)
    )


def _hanging_top(sketch: Sketch) -> str:
    low = "".join(
        f'<g transform="translate(60 {y}) rotate({turn})">{svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", svg.GREEN if turn < 0 else svg.DARK_GREEN)}</g>'
        for y, turn in ((120, 200), (116, -20), (94, 206), (90, -26), (70, 212), (66, -32))
    )
    tip = svg.path("M60 56C60 30 74 20 88 40C92 48 92 56 90 66", stroke="#8a9150", width=4) + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M0 0C6 -9 18 -9 28 0C18 9 6 9 0 0Z", "#98a05a")}</g>'
        for x, y, t in ((74, 30, 84), (86, 40, 100), (90, 62, 90), (66, 34, 110))
    )
    return svg.path("M60 142L60 54", stroke=svg.STEM, width=5) + low + tip


def _limp(sketch: Sketch) -> str:
    return (
        soil.ground("moist")
        + f'<g transform="translate(8 -14) scale(0.86)">{scenes.shoot(droop=True)}</g>'
        + svg.circle(24, 22, 9, "#e6c65a")
        + svg.path("M92 30a11 11 0 1 0 10 -16a9 9 0 0 1 -10 16Z", "#8d99ad")
    )


def _crook(sketch: Sketch) -> str:
    return svg.path("M56 142C56 100 54 70 58 48C62 24 86 20 92 40C94 48 92 54 88 58", stroke="#33291f", width=6) + "".join(
        f'<g transform="translate({x} {y}) rotate({t})">{svg.path("M0 0C8 -11 22 -11 34 0C22 11 8 11 0 0Z", "#4a3a2a")}{svg.path("M0 0L28 0", stroke="#7a6a52", width=1)}</g>'
        for x, y, t in ((56, 108, 130), (57, 100, 50), (57, 78, 136), (58, 70, 46), (64, 40, 100), (84, 30, 70))
    )


DRAWN: dict[str, Draw] = {
    "drooping": lambda _: scenes.shoot(droop=True),
    "perks-up-hours-after-water": plain(soil.drooping_after_water),
    "patch-shutting-down": _patch,
    "plants-stunted": lambda sketch: _stand(
        sketch, {2: (0.42, (svg.GREEN, svg.DARK_GREEN)), 3: (0.38, (svg.GREEN, svg.DARK_GREEN)), 4: (0.44, (svg.GREEN, svg.DARK_GREEN))}
    ),
    "top-wilted": _hanging_top,
    "drooping-that-stays": _limp,
    "one-side-wilts": _one_side,
    "dead-branches-at-the-top": lambda sketch: backdrops.tree(sketch.rng, gaps=True),
    "old-leaves-fall": _falling,
    "all-needles-colour": lambda _: _tinted(backdrops.needles(), ("#d9a93c", "#c2902a")),
    "tops-die-back-evenly": _strip,
    "cut-at-the-soil": _cut_seedling,
    "blackened-shoot-crook": _crook,
    "irrigation-not-running": plain(soil.dry_line),
}
