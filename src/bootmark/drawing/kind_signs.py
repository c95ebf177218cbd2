"""Signs that tell a kind: animals of any colour, as they sit, walk or hide."""

from bootmark.core.catalogue.drawn import Drawn, Pose
from bootmark.drawing import backdrops, insects, larvae, scenes, small, svg
from bootmark.drawing.backdrops import bark, blade, stem, twig
from bootmark.drawing.caterpillars import lying
from bootmark.drawing.insects import beetle
from bootmark.drawing.laid import upper
from bootmark.drawing.moths import resting
from bootmark.drawing.motifs import bulb
from bootmark.drawing.sketch import Draw, Sketch
from bootmark.drawing.svg import circle, ellipse, path

EARTH = "#6b543a"


def _crowd(sketch: Sketch) -> str:
    colours = ("#9cb45c", "#3a3f2c", "#c99a9a", "#c9c3a2")
    return stem(14) + "".join(
        small.aphid(60 + side * (9 + n % 3 * 4), 24 + 9 * n, 8, colours[n % 4], 90 - 60 * side) for n in range(11) for side in (-1, 1)
    )


def _lifted(sketch: Sketch) -> str:
    return (
        bark()
        + ellipse(44, 84, 15, 11, "#e0b93c", stroke="#8a6a2a", width=1.4)
        + small.scale_cover(80, 52, 15, "#8a7a68", turn=24)
        + path("M112 22L70 66L64 62L106 16Z", "#b9bec4", svg.INK, 1)
    )


def _felt(sketch: Sketch) -> str:
    tufts = "".join(
        circle(x + sketch.rng.uniform(-11, 11), y + sketch.rng.uniform(-9, 9), sketch.rng.uniform(1.6, 3.2), "#d9b98a", "#a5803f", 0.5)
        for x, y in ((44, 66), (74, 54), (62, 94))
        for _ in range(26)
    )
    return blade(under=True) + tufts


def _eight(sketch: Sketch) -> str:
    mites = "".join(
        small.mite(x, y, 12, colour, turn)
        for x, y, colour, turn in ((44, 54, "#8a3d24", 20), (78, 66, "#c9b04a", -50), (52, 90, "#7f9a4a", 110))
    )
    eggs = "".join(circle(x, y, 4, "#f4ead2", "#a5803f", 0.8) for x, y in ((70, 42), (86, 90), (34, 78)))
    return scenes.lens(circle(60, 66, 47, svg.UNDER) + mites + eggs)


def _web(sketch: Sketch) -> str:
    silk = path("M10 110C20 40 60 6 108 22C104 66 76 110 34 128Z", "#f4f1e8", "#c9c3b4", 1.2, opacity="0.8")
    worms = "".join(
        lying(x, y, 36, colour, turn=turn)
        for x, y, colour, turn in ((42, 84, "#6a6250", -30), (64, 58, "#7a7058", -50), (80, 36, "#6a6250", -20))
    )
    return twig() + silk + worms


def _file(sketch: Sketch) -> str:
    hairs = "".join(
        path(f"M{18 + 9 * n} {112 - 9 * n}l{sketch.rng.uniform(-12, 2):.1f} {sketch.rng.uniform(-14, -6):.1f}", stroke="#8a8270", width=0.8)
        for n in range(10)
        for _ in range(4)
    )
    walkers = "".join(lying(26 + 27 * n, 102 - 27 * n, 34, "#5a5348", turn=-45) for n in range(3))
    return bark(96) + path("M70 8C104 2 116 34 96 46C80 52 62 34 70 8Z", "#f4f1e8", "#c9c3b4", 1.2) + walkers + hairs


def _shaken_sawfly(sketch: Sketch) -> str:
    return (
        blade()
        + lying(58, 66, 66, "#94ad5a", turn=-12)
        + "".join(path(f"M{34 + 8 * n} {78 - 1.4 * n}l0 7", stroke="#6d8a3c", width=3) for n in range(7))
    )


def _skins(sketch: Sketch) -> str:
    return bark() + "".join(
        larvae.pupa(x, y, 15, "#9a6a35", turn) + circle(x - 5, y + 7, 4, "#33261a")
        for x, y, turn in ((50, 34, -60), (72, 72, -40), (46, 106, -70))
    )


def _soft_ants(sketch: Sketch) -> str:
    tube = path("M48 0C44 40 52 60 46 142L74 142C80 90 70 60 76 0Z", "#8a6a48", "#5d432a", 1.2)
    hole = ellipse(60, 70, 15, 24, "#3a2a1c")
    return (
        bark(96)
        + tube
        + hole
        + "".join(insects.ant(x, y, 9, turn, "#efe6d2") for x, y, turn in ((54, 58, 30), (66, 70, -60), (56, 84, 110), (88, 50, 10)))
    )


def _gall_grub(sketch: Sketch) -> str:
    return (
        path("M60 142L60 104", stroke=svg.STEM, width=4)
        + circle(60, 66, 40, "#b9984a", "#7a5a24", 2)
        + circle(60, 66, 30, "#e9dcb0")
        + circle(60, 66, 15, "#5d4424")
        + larvae.grub(60, 66, 11, 20, legs=False)
    )


def _gall_maggots(sketch: Sketch) -> str:
    fold = path("M20 110C16 60 50 18 100 16C104 60 80 108 36 122Z", "#8fae5a", svg.STEM, 1.4) + path(
        "M34 104C40 66 62 40 92 30C84 62 66 92 34 104Z", "#d9e0b0"
    )
    return fold + "".join(
        larvae.maggot(x, y, turn, 0.5, "#e08a3c") for x, y, turn in ((50, 82, 30), (62, 68, -40), (74, 54, 10), (58, 92, 80))
    )


def _in_fruit(sketch: Sketch) -> str:
    return (
        backdrops.cut_fruit() + path("M30 84C44 70 76 74 92 90L86 98C70 86 48 84 36 94Z", "#6b4a24") + lying(62, 84, 46, "#e8c9a8", turn=14)
    )


def _bulb_larva(sketch: Sketch) -> str:
    return bulb(path("M44 60C58 50 82 62 80 84C74 100 50 98 44 84Z", "#8a6a3c") + larvae.maggot(62, 76, 20, 1.3))


def _rings(sketch: Sketch) -> str:
    return bulb("".join(ellipse(60, 80, rx, ry, "none", stroke="#7a4a22", width=3.4) for rx, ry in ((30, 36), (21, 26), (11, 15))))


def _slime(sketch: Sketch) -> str:
    return bulb(
        path("M34 84C40 58 80 56 88 82C96 104 76 122 60 120C42 120 28 106 34 84Z", "#8a7a3c", "#5d4f24", 1.4)
        + path("M48 118C46 130 54 132 52 140M70 118C72 128 66 130 70 140", stroke="#8a7a3c", width=4)
        + path("M44 16q6 -6 0 -12M74 14q6 -6 0 -12", stroke="#7d8a5a", width=2)
    )


def _leatherjackets(sketch: Sketch) -> str:
    return (
        backdrops.grass(36)
        + path("M0 40L120 40L120 142L0 142Z", EARTH)
        + "".join(
            path(f"M{x} {y}q14 -9 34 -2q7 5 0 11q-20 8 -34 1q-6 -5 0 -10Z", "#8a8270", "#4f483c", 1.2)
            for x, y in ((14, 66), (64, 86), (24, 112))
        )
    )


def _many_legs(sketch: Sketch) -> str:
    wood = ellipse(38, 84, 18, 11, "#7d8288", stroke=svg.INK, width=1.2) + "".join(
        path(f"M{26 + 5 * n} 76q2 8 0 17", stroke="#4f5358", width=1) for n in range(6)
    )
    feet = "".join(path(f"M{66 + 5 * n} 112l-2 8", stroke="#4a3626", width=1) for n in range(9))
    return backdrops.earth(40) + wood + path("M62 108C74 98 100 100 112 108L110 114C98 108 76 106 66 114Z", "#6b4a30", svg.INK, 1) + feet


def _heap(sketch: Sketch, colour: str = "#c9a86a") -> str:
    return path("M4 142C12 96 40 78 60 76C84 78 110 98 118 142Z", colour, "#8a6a35", 1.4) + "".join(
        ellipse(x, y, 5, 3, "#dcc08a", turn=turn, stroke="#a5803f", width=0.7)
        for x, y, turn in (
            (30, 118, 20),
            (48, 96, -30),
            (66, 88, 10),
            (84, 104, 60),
            (98, 126, -20),
            (58, 124, 40),
            (40, 134, 0),
            (76, 130, 70),
        )
    )


def _store_beetles(sketch: Sketch) -> str:
    walkers = ((34, 70, -30), (66, 62, 20), (88, 82, -80), (52, 104, 110), (78, 116, 10))
    return _heap(sketch) + "".join(
        beetle(x, y, 9, "#6b3f24", slim=0.44, snout=n % 2 == 0, turn=turn) for n, (x, y, turn) in enumerate(walkers)
    )


def _store_web(sketch: Sketch) -> str:
    threads = "".join(
        path(
            f"M{sketch.rng.uniform(16, 60):.0f} {sketch.rng.uniform(60, 120):.0f}L{sketch.rng.uniform(60, 108):.0f} {sketch.rng.uniform(60, 124):.0f}",
            stroke="#f4f1e8",
            width=1.4,
        )
        for _ in range(26)
    )
    return (
        _heap(sketch, "#d9c08a") + threads + lying(58, 92, 30, "#f0dcc0", turn=-10) + resting(80, 38, 20, "#b9a27a", Drawn(pose=Pose.OPEN))
    )


def _holed_seeds(sketch: Sketch) -> str:
    seeds = ((36, 44, -20), (82, 40, 30), (44, 96, 10), (88, 100, -40))
    return "".join(
        ellipse(x, y, 25, 17, "#e9dcc0", turn=turn, stroke="#9a7a4a", width=1.6) + circle(x + 3, y - 2, 5.6, "#3a2a1c", "#7a5a34", 1.2)
        for x, y, turn in seeds
    )


def _nest(sketch: Sketch) -> str:
    ball = "".join(ellipse(62, 58 + 9 * n, 34 - abs(n) * 3, 8, "#c9bda4", stroke="#8a7d64", width=1) for n in (-3, -2, -1, 0, 1, 2, 3))
    return (
        path("M0 18L120 10", stroke="#5d4a36", width=8)
        + ball
        + circle(66, 88, 6, "#2b2118")
        + "".join(insects.wasp(x, y, 13, "#e0b62e", turn) for x, y, turn in ((26, 104, -40), (98, 110, -140), (84, 126, -90)))
    )


def _bees(sketch: Sketch) -> str:
    return scenes.flower(sketch.rng, insects.wasp(60, 60, 17, "#c99a3c", -70)) + insects.wasp(96, 22, 13, "#8a6a35", -20)


def _folded_turf(sketch: Sketch) -> str:
    rug = path("M6 96L74 84L114 40L88 30C70 48 50 66 10 76Z", "#7f9a4a", "#4f6a2c", 1.4) + path("M74 84L114 40L116 50L78 94Z", "#8a6a48")
    return path("M0 84L120 84L120 142L0 142Z", EARTH) + rug + larvae.grub(44, 116, 11, 20) + larvae.grub(84, 122, 9, 120)


DRAWN: dict[str, Draw] = {
    "soft-aphids": _crowd,
    "cover-lifts-off": _lifted,
    "mealy-insects": lambda _: (
        stem(20) + "".join(small.mealybug(x, y, 15, turn) for x, y, turn in ((46, 58, -40), (74, 84, 30), (56, 112, 80)))
    ),
    "jumping-lice": lambda _: (
        stem(14)
        + insects.hopper(44, 44, 18, "#b08a52", -60)
        + path("M52 36Q76 4 100 30", stroke=svg.SLATE, width=1.6, stroke_dasharray="4 4")
        + insects.hopper(102, 36, 15, "#b08a52", 20)
        + "".join(ellipse(x, y, 8, 6, "#d9c98a", stroke="#8a7a3c", width=1) for x, y in ((66, 84), (52, 104), (70, 118)))
    ),
    "felt-patches": _felt,
    "eight-legged-specks": _eight,
    "shield-bugs": lambda _: blade() + insects.bug(60, 74, 30, "#7d8a3c", -90),
    "leaf-beetles-and-larvae": upper(beetle(78, 50, 24, "#3f5a7a", slim=0.8, turn=-30), larvae.slug_larva(46, 94, 38, "#c9803c", 20)),
    "chafers-on-leaves": upper(beetle(60, 72, 38, "#7a4a24", slim=0.7, head="#33261a")),
    "snouted-beetles": upper(beetle(58, 78, 32, "#6b6258", slim=0.6, snout=True, turn=-60)),
    "sawfly-larvae": _shaken_sawfly,
    "caterpillars-in-a-web": _web,
    "hairs-that-burn": _file,
    "legless-grub-in-wood": lambda _: (
        bark(96)
        + path("M34 8C58 30 30 60 52 84C66 104 50 122 64 142L88 142C76 116 92 104 78 80C60 56 80 34 60 8Z", "#e9d3a6", "#8a6a35", 1.4)
        + larvae.grub(66, 84, 17, 40, legs=False)
    ),
    "pupal-skins-in-bark": _skins,
    "pale-soft-ants": _soft_ants,
    "grub-in-hard-gall": _gall_grub,
    "maggots-in-the-gall": _gall_maggots,
    "caterpillar-in-fruit": _in_fruit,
    "larva-in-the-bulb": _bulb_larva,
    "brown-rings-in-bulb": _rings,
    "rot-soft-and-smelling": _slime,
    "leatherjackets": _leatherjackets,
    "many-legged-in-soil": _many_legs,
    "beetles-in-the-store": _store_beetles,
    "web-in-the-store": _store_web,
    "holes-in-seeds": _holed_seeds,
    "wasps-at-a-nest": _nest,
    "bees-on-flowers": _bees,
    "turf-lifts-like-a-rug": _folded_turf,
}
