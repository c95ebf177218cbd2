"""Signs that are grown insects and other animals that walk, fly or hide."""

from bootmark.drawing import backdrops, insects, larvae, scenes, small, svg
from bootmark.drawing.backdrops import blade, stem
from bootmark.drawing.insects import beetle
from bootmark.drawing.laid import BLACK, on, under, upper
from bootmark.drawing.sketch import Draw, Sketch, plain


def _mummies(sketch: Sketch) -> str:
    parts = [blade(under=True)]
    for n, (x, y) in enumerate(((40, 66), (66, 52), (56, 88), (84, 74), (34, 98))):
        parts.append(svg.ellipse(x, y, 12, 9.4, "#c9a868" if n % 2 else "#b8935a", turn=n * 40, stroke="#7d5a2a", width=1.2))
        parts.append(
            svg.circle(x + 5, y - 1, 3, "#2b2118") if n in (1, 2, 4) else svg.path(f"M{x - 6} {y}q6 -5 12 0", stroke="#ffffff88", width=1.4)
        )
    return "".join(parts)


def _spotted(sketch: Sketch) -> str:
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
    return scenes.shoot() + web + small.spider(60, 62, 10)


def _night_ground(*bodies: str) -> Draw:
    board = svg.path("M6 40L112 26L114 38L8 53Z", "#8d7258", "#5d4a36", 1.2)
    return on(backdrops.earth(62), board, *bodies)


def _swarm(sketch: Sketch) -> str:
    return scenes.flower(sketch.rng) + "".join(
        beetle(x, y, 15, "#6d7276" if n % 2 else "#3f4246", slim=0.32, head="#6d5a3a", turn=turn)
        for n, (x, y, turn) in enumerate(((40, 44, -30), (76, 40, -120), (58, 74, -80), (86, 76, -10)))
    )


def _fly_up(sketch: Sketch) -> str:
    at = ((30, 44, -30), (56, 24, 10), (86, 34, 30), (100, 64, 50), (22, 74, -50), (70, 58, 0))
    return f'<g transform="translate(0 44) scale(1 0.72)">{blade()}</g>' + "".join(small.whitefly(x, y, 13, turn) for x, y, turn in at)


DRAWN: dict[str, Draw] = {
    "slender-insects-on-paper": plain(scenes.slender_on_paper),
    "thrips-in-flower": plain(scenes.flower_thrips),
    "ants-tending": plain(scenes.ants),
    "insects-fly-up-when-shaken": plain(scenes.flying),
    "males-in-its-lure-trap": plain(scenes.lure_trap),
    "bee-carrying-leaf": plain(scenes.bee_with_leaf),
    "white-flies-rise": _fly_up,
    "lace-winged-bugs": under(
        insects.lace_bug(48, 72, 22, -60),
        insects.bug(84, 88, 9, "#33291d", -20, shield=False),
        insects.bug(82, 52, 8, "#33291d", -100, shield=False),
    ),
    "hopper-nymphs-run-sideways": under(
        insects.hopper(46, 82, 20, "#a9c46a", 160),
        insects.hopper(80, 58, 22, "#b8cf7a", -30),
        svg.path("M60 104q-10 8 -22 6m6 -6l-6 6l8 4", stroke=svg.SLATE, width=2),
    ),
    "spittle": lambda sketch: (
        stem(16)
        + "".join(
            svg.circle(
                60 + sketch.rng.uniform(-20, 18), 78 + sketch.rng.uniform(-16, 16), sketch.rng.uniform(4, 9), "#fdfdf8", "#c9cbbd", 0.9
            )
            for _ in range(26)
        )
        + insects.hopper(64, 82, 11, "#9cc05a", -100)
    ),
    "flat-grey-bugs-and-bronze-eggs": lambda sketch: (
        blade(under=True)
        + insects.bug(44, 56, 21, "#8a8274", -50)
        + insects.bug(84, 98, 9, "#c9d6b0", -30)
        + "".join(svg.ellipse(64 + 7 * (n % 4), 68 + 8 * (n // 4), 3.6, 3, "#a5642a", stroke="#5d3418", width=0.7) for n in range(9))
    ),
    "mottled-shield-bugs": lambda sketch: (
        backdrops.apple()
        + insects.bug(60, 78, 34, "#8f7f62", -90, bands="#f4efe4")
        + "".join(svg.circle(60 + sketch.rng.uniform(-14, 14), 76 + sketch.rng.uniform(-14, 20), 1, "#4a3f2c") for _ in range(34))
    ),
    "brown-quick-bugs": lambda sketch: scenes.flower(sketch.rng, insects.bug(66, 60, 24, "#9a8350", -60, mark="#efe3b0")),
    "mummies": _mummies,
    "pirate-bugs": lambda sketch: scenes.flower(
        sketch.rng,
        insects.bug(60, 62, 22, BLACK, -70, shield=False)
        + svg.path("M56 58l12 -5l2 8l-12 6Z", svg.WHITE)
        + svg.path("M48 74l10 -3l0 8l-8 3Z", svg.WHITE),
    ),
    "spiders-hunting": _spotted,
    "ground-beetles-at-night": _night_ground(
        beetle(44, 92, 19, BLACK, slim=0.46, turn=-20), beetle(88, 110, 15, BLACK, slim=0.24, turn=-150)
    ),
    "small-jumping-beetles": lambda sketch: (
        blade()
        + "".join(beetle(x, y, 8, "#2c3a3a", slim=0.66, turn=t) for x, y, t in ((38, 92, -40), (60, 66, 20), (90, 82, -80)))
        + beetle(88, 22, 8, "#2c3a3a", slim=0.66, turn=-30)
        + svg.path("M64 62Q72 30 84 26", stroke=svg.SLATE, width=1.6, stroke_dasharray="4 4")
    ),
    "bronze-potato-jumpers": upper(
        beetle(60, 70, 27, "#4a4230", slim=0.64, head="#3a3426"),
        *(svg.circle(48 + 6 * (n % 5), 58 + 7 * (n // 5), 1, "#8a7a4a") for n in range(25)),
    ),
    "metallic-beetles-white-tufts": upper(beetle(60, 76, 36, "#a5622f", slim=0.66, head="#2f6b45", neck="#37794f", tufts=True)),
    "yellow-black-spotted-beetles": lambda sketch: scenes.flower(sketch.rng, beetle(60, 66, 28, "#c9cc4a", slim=0.54, spots=12, turn=-70)),
    "sixteen-spot-copper-beetles": upper(beetle(60, 74, 34, "#c98a42", slim=0.92, spots=14, head="#8a5a2a")),
    "blue-black-cream-beetles": lambda _: (
        stem(18)
        + beetle(60, 62, 27, "#27324a", slim=0.42, head="#27324a", neck="#b5432a", turn=-90)
        + "".join(svg.path(f"M{x} {y}l7 0l0 9l-7 0Z", "#f1e3b8") for x, y in ((50, 54), (63, 54), (50, 70), (63, 70)))
        + larvae.slug_larva(76, 116, 40, "#7f8275", -70)
    ),
    "long-soft-beetles": _swarm,
    "small-brown-beetle-in-flower": lambda sketch: scenes.flower(
        sketch.rng, beetle(52, 56, 16, "#a5803f", slim=0.5, turn=-50) + beetle(76, 72, 15, "#a5803f", slim=0.5, turn=-150)
    ),
    "snout-weevils-by-night": lambda _: (
        svg.path("M0 0L120 0L120 142L0 142Z", "#2a2d3a")
        + blade().replace(svg.GREEN, "#3f5138").replace(svg.DARK_GREEN, "#36462f").replace(svg.VEIN, "#6f8262")
        + svg.circle(100, 18, 9, "#efe3b8")
        + beetle(58, 82, 28, "#4c4a48", slim=0.58, snout=True, turn=-50, head="#3f3d3b")
    ),
    "grasshoppers": lambda _: backdrops.grass(86) + insects.grasshopper(62, 62, 42),
    "earwigs-hiding": lambda sketch: scenes.flower(sketch.rng, insects.earwig(62, 66, 27)),
    "slugs-at-night": lambda _: (
        svg.path("M0 0L120 0L120 142L0 142Z", "#2a2d3a")
        + svg.path("M120 10L120 50L10 118L20 132Z", "#efe3b8", opacity="0.35")
        + svg.path("M0 112L120 106L120 142L0 142Z", "#4f463c")
        + small.slug(56, 98, 76, "#a58a66")
        + small.slug(92, 60, 40, "#a58a66", house=True)
    ),
}
