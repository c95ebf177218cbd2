"""Signs that help has come, or that something harmless is about, where no animal of its own is drawn."""

from bootmark.drawing import insects, motifs, svg
from bootmark.drawing.backdrops import bark, blade, earth, stem
from bootmark.drawing.insects import beetle
from bootmark.drawing.laid import on
from bootmark.drawing.motifs import box, disc, spots, threads, tufts
from bootmark.drawing.sketch import Draw, Sketch

MUMMY = "#c9a868"


def _mouldy(sketch: Sketch) -> str:
    bodies = ((42, 62, 13), (76, 50, 12), (62, 96, 14), (92, 88, 11))
    dead = "".join(svg.ellipse(x, y, r, r * 0.7, "#8a7a54", turn=20, stroke="#5a4a34", width=1) for x, y, r in bodies)
    fur = "".join(tufts(disc(x, y, r * 1.1), "#fbfaf3", 46, 7, 1.3)(sketch.rng) for x, y, r in bodies)
    return blade(under=True) + dead + fur


def _hanging(_: Sketch) -> str:
    body = svg.path("M60 34C72 44 70 70 64 88C62 100 58 116 60 128C50 116 50 92 52 74C52 58 50 44 60 34Z", "#4a3c28", "#2b2118", 1.4)
    return svg.path("M6 26C40 14 84 16 116 30", stroke=svg.STEM, width=7) + body + svg.path("M60 128q-4 8 0 12q4 -4 0 -12Z", "#6a5030")


def _limp_grubs(_: Sketch) -> str:
    limp = "".join(
        svg.path(f"M{x} {y}c12 -12 30 -8 36 4c4 10 -2 18 -10 16c-10 -2 -14 -8 -26 -4Z", "#b0522e", "#7a3018", 1.3)
        for x, y in ((14, 72), (58, 92), (40, 120))
    )
    return earth(40) + limp


def _ragged(_: Sketch) -> str:
    parts = [blade(under=True)]
    for n, (x, y) in enumerate(((40, 62), (72, 54), (56, 94))):
        parts.append(svg.ellipse(x, y, 18, 14, MUMMY, turn=n * 35, stroke="#7d5a2a", width=1.4))
        parts.append(svg.path(f"M{x} {y - 4}l7 -3l5 5l-2 7l-6 3l-6 -4Z", "#2b2118", "#5a3c1c", 1))
    return "".join(parts)


def _coils(_: Sketch) -> str:
    heaps = "".join(
        svg.path(f"M{x - 16} {y}a16 7 0 1 0 32 0a13 6 0 1 0 -26 -5a10 5 0 1 0 20 -5a6 4 0 1 0 -12 -3", "#7a5c3e", "#4a3522", 1.6)
        for x, y in ((36, 92), (84, 112), (74, 72))
    )
    return motifs.turf() + heaps


def _leaping(_: Sketch) -> str:
    leaps = "".join(
        svg.path(f"M{x} {y}q{w / 2} -{h} {w} -2", stroke=svg.SLATE, width=1.4, stroke_dasharray="3 3")
        + svg.ellipse(x + w, y - 2, 3.4, 1.9, "#f4f2ea", stroke="#6d7276", width=0.8)
        for x, y, w, h in ((18, 74, 26, 44), (56, 84, 30, 56), (34, 112, 34, 40))
    )
    return earth(60) + leaps


def _slime(sketch: Sketch) -> str:
    cushion = svg.path(svg.shape_d(svg.blob(sketch.rng, 58, 92, 34, 0.4, 16)), "#e6c84a", "#b8962a", 1.6)
    return earth(46) + cushion + spots(disc(58, 92, 26), "#f6e08a", 26, (1.4, 3.4))(sketch.rng)


def _cups(_: Sketch) -> str:
    cups = "".join(
        svg.path(f"M{x - 13} {y}L{x - 8} {y + 22}L{x + 8} {y + 22}L{x + 13} {y}Z", "#8a6a44", "#5a4026", 1.2)
        + svg.ellipse(x, y, 13, 6, "#d9c49a", stroke="#5a4026", width=1.2)
        + "".join(svg.ellipse(x + dx, y + 0.5, 3.2, 2, "#f4f0e4", stroke="#8a7a5a", width=0.7) for dx in (-6, 0, 6))
        for x, y in ((34, 70), (72, 60), (56, 98), (92, 92))
    )
    return earth(52) + cups


def _silk(sketch: Sketch) -> str:
    return (
        bark(96)
        + svg.path("M26 30C50 22 76 26 96 34L94 112C70 120 46 118 28 110Z", "#ffffff77", "#ffffffaa", 1.2)
        + threads(box(30, 34, 90, 108), "#ffffffcc", 26, 20, 1)(sketch.rng)
    )


def _volcano(_: Sketch) -> str:
    cones = "".join(
        svg.path(f"M{x - w} {y}Q{x - w / 4} {y - h} {x} {y - h}Q{x + w / 4} {y - h} {x + w} {y}Z", "#a5865f", "#6a5030", 1.3)
        + svg.ellipse(x, y - h + 2, 4.6, 2.8, "#2b2118")
        for x, y, w, h in ((40, 100, 30, 30), (88, 86, 22, 22), (84, 126, 24, 24))
    )
    return motifs.turf() + cones


def _ladybird(_: Sketch) -> str:
    cocoon = svg.ellipse(60, 94, 20, 11, "#a8845a", stroke="#6a4a26", width=1.4) + svg.path(
        "M44 90l32 4M44 98l32 -2M50 86l20 14", stroke="#8a6a44", width=1
    )
    return blade() + cocoon + beetle(60, 66, 30, "#c23a22", slim=0.9, head="#26221e")


def _speared(*bugs: str) -> str:
    """A caterpillar that hangs on a beak."""
    beak = svg.path("M62 60L88 40", stroke=svg.INK, width=2.4)
    prey = svg.path("M86 34C98 30 110 38 108 52C106 64 98 66 94 58C90 50 82 44 86 34Z", "#8fae5a", "#5a7a34", 1.3)
    return blade() + beak + prey + "".join(bugs)


def _grasping(_: Sketch) -> str:
    body = svg.ellipse(62, 84, 9, 30, "#b8a47a", stroke="#6a5634", width=1.4) + svg.ellipse(
        62, 48, 7, 9, "#8a744a", stroke="#5a4626", width=1.2
    )
    eyes = svg.circle(56, 44, 2.6, svg.INK) + svg.circle(68, 44, 2.6, svg.INK)
    legs = svg.path("M54 78L26 96M56 92L32 124M70 78L98 96M68 92L92 124M58 36L46 12M66 36L78 12", stroke="#6a5634", width=2)
    arms = svg.path("M56 60L36 54L46 34L54 40M68 60L88 54L78 34L70 40", stroke="#6a5634", width=4.4)
    return blade() + legs + arms + body + eyes


def _wide_eyed(_: Sketch) -> str:
    body = svg.ellipse(60, 88, 17, 24, "#b8a47a", stroke="#6a5634", width=1.4) + svg.path(
        "M44 66L76 66L80 84L40 84Z", "#8a744a", "#5a4626", 1.2
    )
    head = svg.path("M42 66Q60 48 78 66Z", "#5a4a34") + svg.circle(39, 63, 7, "#2b2118") + svg.circle(81, 63, 7, "#2b2118")
    legs = svg.path("M46 76L22 62M44 90L18 96M48 104L28 124M74 76L98 62M76 90L102 96M72 104L92 124", stroke="#5a4626", width=2)
    return earth(30) + legs + body + head


def _jawed(_: Sketch) -> str:
    rings = "".join(
        svg.ellipse(30 + n * 9, 84 - n * 1.4, 8, 8.4 - abs(n - 3) * 0.5, "#3a3634", stroke="#1d1a18", width=1) for n in range(8)
    )
    legs = svg.path("M84 80L78 104M92 78L92 104M76 82L66 106M84 68L80 50M92 66L94 48M76 70L68 52", stroke="#6a4a26", width=2.2)
    jaws = svg.path("M106 68Q120 62 116 50M108 78Q122 82 118 94", stroke="#8a4a1e", width=3)
    tails = svg.path("M24 84L4 72M24 88L4 98", stroke="#3a3634", width=2)
    return earth(30) + legs + tails + rings + svg.circle(104, 73, 8, "#6a3a1e", "#2b1a10", 1.2) + jaws


def _riding(_: Sketch) -> str:
    mites = "".join(
        svg.ellipse(x, y, 5.5, 4.4, "#c9a06a", stroke="#8a5a2a", width=1)
        + svg.path(f"M{x - 5} {y}l-4 -3M{x - 5} {y + 2}l-4 3", stroke="#8a5a2a")
        for x, y in ((48, 66), (60, 58), (72, 66), (54, 78), (68, 80), (60, 92))
    )
    return earth(30) + beetle(60, 76, 46, "#2a2420", slim=0.8, head="#1d1a18") + mites


def _glued(_: Sketch) -> str:
    lumps = "".join(
        svg.path(f"M{x} {y}c16 -14 34 -4 34 12c0 14 -20 20 -32 10c-6 -6 -8 -16 -2 -22Z", "#e08a3a", "#8a4a1e", 1.4)
        + "".join(svg.circle(x + dx, y + dy, 2.6, "#26221e") for dx, dy in ((10, 4), (20, 6), (12, 14), (22, 16)))
        for x, y in ((24, 74), (64, 44))
    )
    return blade() + lumps


DRAWN: dict[str, Draw] = {
    "hunters-among-pests": lambda _: _speared(insects.bug(48, 78, 26, "#8a5a3a", 38)),
    "shield-bug-with-prey": lambda _: _speared(insects.bug(46, 80, 34, "#8a5a3a", 38)),
    "bugs-with-grasping-forelegs": _grasping,
    "bugs-with-eyes-at-the-sides": _wide_eyed,
    "flat-larvae-with-open-jaws": _jawed,
    "mites-riding-on-an-insect": _riding,
    "ladybird-pupae": _glued,
    "animals-dead-under-mould": _mouldy,
    "limp-caterpillars-hanging": _hanging,
    "grubs-limp-and-brick-red": _limp_grubs,
    "mummies-with-ragged-holes": _ragged,
    "ladybird-over-a-cocoon": _ladybird,
    "coils-of-wet-soil": _coils,
    "specks-that-leap-on-wet-soil": _leaping,
    "slime-on-mulch-or-grass": _slime,
    "cups-with-eggs-on-mulch": _cups,
    "tar-dots-shot-onto-leaves": on(blade(), spots(motifs.BLADE, "#1d1a18", 22, (1.4, 2.4), edge="#4a4236")),
    "silk-sheet-tight-on-the-bark": _silk,
    "small-volcano-with-a-hole": _volcano,
    "covers-with-round-holes": on(
        stem(26),
        *(
            svg.ellipse(x, y, 11, 9, "#b8a58a", turn=turn, stroke="#7a6a50", width=1.1) + svg.circle(x + 2, y - 1, 3, "#1d1a18")
            for x, y, turn in ((50, 30, 10), (70, 52, 60), (52, 76, -20), (70, 100, 30), (50, 120, 70))
        ),
    ),
    "blackened-eggs": on(
        blade(under=True),
        *(
            svg.ellipse(x, y, 6.5, 8, "#1d1a18", stroke="#4a4236", width=1)
            + (svg.circle(x, y - 2, 2.2, "#d9c9a0") if (x + y) % 3 == 0 else "")
            for x, y in ((46, 62), (60, 60), (74, 62), (52, 76), (66, 76), (46, 91), (60, 91), (74, 90))
        ),
    ),
    "brown-barrels-among-mealybugs": on(
        stem(26),
        *(svg.ellipse(x, y, 9, 13, "#7a5228", turn=turn, stroke="#4a3016", width=1.3) for x, y, turn in ((52, 44, 20), (70, 92, -14))),
        svg.circle(53, 38, 3, "#1d1208"),
        motifs.wool(box(48, 60, 74, 82), 9),
    ),
    "foam-egg-case-on-a-twig": on(
        stem(14),
        svg.path("M48 46C64 38 84 46 86 66C88 86 74 98 56 94Q50 70 48 46Z", "#c9a06a", "#8a6a3a", 1.6),
        svg.path("M54 54l28 6M54 64l30 4M55 74l28 2M57 84l22 0", stroke="#a8824e", width=1.6),
    ),
}
