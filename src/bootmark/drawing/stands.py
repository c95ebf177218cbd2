"""How plants stand: a shoot, a rosette, a tree, a bush, a conifer, a palm, a climber, a creeper, grass, turf, a bulb, a cactus."""

import math
import random
from collections.abc import Callable

from bootmark.core.catalogue.shapes import Bears, Keeps, Stand
from bootmark.drawing import svg
from bootmark.drawing.fruits import flower
from bootmark.drawing.limbs import LINE
from bootmark.drawing.standing import BARK, CROWN, DARK_BARK, MIDDLE, SOIL, Standing


def shoot(standing: Standing) -> None:
    standing.soil()
    standing.roots()
    standing.add(
        "stem",
        svg.path(f"M{MIDDLE} {SOIL}C{MIDDLE - 4} 260 {MIDDLE + 4} 140 {MIDDLE} 58", stroke=svg.STEM, width=6.5),
        (MIDDLE - 2, 300),
        (98, 262, 44, 76),
    )
    standing.add("base", svg.path(f"M{MIDDLE - 6} {SOIL}l2 -20h8l2 20Z", svg.STEM, LINE), (MIDDLE + 4, SOIL - 8))
    standing.add(
        "old leaf", standing.one_leaf(MIDDLE - 2, 282, 88, 158) + standing.one_leaf(MIDDLE, 240, 80, 150), (58, 240), (20, 196, 96, 96)
    )
    standing.add("underside", standing.one_leaf(MIDDLE, 262, 84, 24, under=True), (176, 240), (128, 208, 90, 66))
    standing.add(
        "young leaf", standing.one_leaf(MIDDLE, 160, 60, 148) + standing.one_leaf(MIDDLE, 150, 56, 34), (84, 136), (56, 96, 60, 76)
    )
    standing.add("tip", standing.one_leaf(MIDDLE, 62, 46, 92), (116, 34), (92, 6, 56, 60))
    _flower_and_fruit(standing, (162, 84), (172, 158))


def _flower_and_fruit(standing: Standing, bloom: svg.Point, hung: svg.Point) -> None:
    stem = "".join(
        svg.path(f"M{MIDDLE} {y + 26:.0f}Q{(MIDDLE + x) / 2:.0f} {y + 4:.0f} {x} {y}", stroke=svg.STEM, width=2.6)
        for x, y in (bloom, (hung[0], hung[1] - 4))
    )
    standing.fruit_at(*hung)
    name = "grain" if standing.bears == Bears.EAR else "fruit"
    body, to = standing.parts[name]
    standing.add(name, stem + body, to)
    standing.add("flower", flower(*bloom), bloom)


def rosette(standing: Standing) -> None:
    standing.soil()
    standing.roots(0.7)
    standing.add("base", svg.path(f"M{MIDDLE - 18} {SOIL + 2}q18 -22 36 0Z", svg.STEM, LINE), (MIDDLE - 12, SOIL - 4))
    standing.add(
        "old leaf",
        standing.one_leaf(MIDDLE - 6, SOIL - 8, 118, 168) + standing.one_leaf(MIDDLE - 4, SOIL - 12, 116, 142),
        (44, 312),
        (4, 270, 96, 92),
    )
    standing.add(
        "underside",
        standing.one_leaf(MIDDLE + 6, SOIL - 8, 116, 14, under=True) + standing.one_leaf(MIDDLE + 6, SOIL - 12, 108, 42, under=True),
        (196, 316),
        (140, 274, 96, 90),
    )
    stalk = svg.path(f"M{MIDDLE} {SOIL - 20}C{MIDDLE + 4} 260 {MIDDLE - 2} 190 {MIDDLE} 130", stroke=svg.STEM, width=5)
    standing.add("stem", stalk, (MIDDLE + 1, 208), (98, 180, 44, 60))
    standing.add(
        "young leaf",
        standing.one_leaf(MIDDLE - 2, SOIL - 16, 96, 112) + standing.one_leaf(MIDDLE + 2, SOIL - 16, 92, 70),
        (90, 270),
        (72, 244, 96, 60),
    )
    standing.add("tip", standing.one_leaf(MIDDLE, SOIL - 18, 54, 92), (MIDDLE + 4, 322), (98, 306, 46, 44))
    _flower_and_fruit(standing, (MIDDLE, 118), (168, 168))


def tree(standing: Standing) -> None:
    standing.soil()
    standing.roots(1.4)
    standing.bark(34, 206)
    boughs = svg.path(f"M{MIDDLE} 226Q92 190 58 170M{MIDDLE} 218Q150 184 184 160M{MIDDLE} 214Q118 160 124 96", stroke=BARK, width=8)
    crown = standing.clumps(((60, 150, 38), (178, 142, 40), (120, 92, 48), (82, 100, 34), (160, 96, 36), (120, 150, 44)))
    standing.add("stem", crown + boughs, (92, 190), (60, 172, 60, 42))
    standing.add("old leaf", standing.one_leaf(84, 176, 62, 196), (46, 168), (4, 140, 74, 62))
    standing.add("underside", standing.one_leaf(160, 176, 62, -8, under=True), (196, 182), (160, 160, 76, 44))
    standing.add("young leaf", standing.one_leaf(92, 96, 52, 146), (64, 72), (36, 48, 62, 50))
    standing.add("tip", standing.one_leaf(124, 76, 50, 88), (122, 34), (94, 10, 58, 58))
    standing.fruit_at(156, 124)
    standing.add("flower", flower(176, 80), (176, 80))


def bush(standing: Standing) -> None:
    standing.soil()
    standing.roots(1.2)
    canes = "".join(
        svg.path(f"M{MIDDLE + n * 5} {SOIL}Q{MIDDLE + bend * 0.3:.0f} 260 {MIDDLE + bend} {top}", stroke=colour, width=6)
        for n, bend, top, colour in (
            (-2, -66, 150, BARK),
            (-1, -28, 100, svg.STEM),
            (0, 4, 64, svg.STEM),
            (1, 36, 104, svg.STEM),
            (2, 70, 152, BARK),
        )
    )
    standing.add("stem", canes, (94, 260), (66, 230, 56, 60))
    standing.add(
        "trunk",
        svg.path(f"M{MIDDLE - 14} {SOIL - 4}Q{MIDDLE - 22} {SOIL - 40} {MIDDLE - 34} {SOIL - 72}", stroke=DARK_BARK, width=7),
        (94, 316),
        (64, 296, 50, 46),
    )
    standing.add("base", svg.path(f"M{MIDDLE - 20} {SOIL + 2}q20 -26 40 0Z", DARK_BARK, LINE), (MIDDLE + 12, SOIL - 6))
    standing.add("old leaf", standing.one_leaf(66, 220, 64, 186) + standing.one_leaf(78, 250, 58, 206), (30, 224), (4, 196, 72, 86))
    standing.add(
        "underside",
        standing.one_leaf(176, 224, 60, -6, under=True) + standing.one_leaf(168, 250, 52, -26, under=True),
        (208, 230),
        (164, 202, 74, 72),
    )
    standing.add("young leaf", standing.one_leaf(92, 104, 50, 148) + standing.one_leaf(58, 152, 50, 140), (56, 92), (16, 80, 84, 70))
    standing.add("tip", standing.one_leaf(124, 66, 46, 90), (124, 34), (98, 10, 54, 58))
    standing.fruit_at(176, 162)
    standing.add("flower", flower(164, 98), (164, 98))


def conifer(standing: Standing) -> None:
    standing.soil()
    standing.roots(1.2)
    standing.bark(22, 250)
    tiers = "".join(
        svg.path(f"M{MIDDLE} {top}L{MIDDLE - half} {top + 74}Q{MIDDLE} {top + 58} {MIDDLE + half} {top + 74}Z", CROWN[n % 2], LINE, 0.8)
        for n, (top, half) in enumerate(((190, 88), (140, 72), (92, 54), (50, 36)))
    )
    standing.add("stem", tiers, (150, 214), (134, 196, 40, 40))
    standing.add("old leaf", _twig(62, 246, 196), (40, 250), (4, 222, 84, 52))
    standing.add("underside", _twig(180, 246, -16, pale=True), (206, 252), (164, 226, 74, 50))
    standing.add("young leaf", _twig(82, 138, 160), (58, 130), (30, 106, 72, 44))
    standing.add(
        "tip",
        svg.path(
            f"M{MIDDLE} 56L{MIDDLE} 18M{MIDDLE} 40l-10 -8M{MIDDLE} 40l10 -8M{MIDDLE} 30l-8 -8M{MIDDLE} 30l8 -8", stroke="#7fa85f", width=4
        ),
        (MIDDLE, 24),
        (92, 4, 56, 50),
    )
    standing.fruit_at(162, 150)
    standing.add("flower", svg.ellipse(150, 96, 4, 9, "#c98a4a", turn=20, stroke=LINE), (150, 96))


def _twig(x: float, y: float, angle: float, *, pale: bool = False) -> str:
    """A twig with its needles."""
    turn, parts = math.radians(angle), []
    dx, dy = math.cos(turn), -math.sin(turn)
    for n in range(9):
        at = (x + dx * 6 * n, y + dy * 6 * n)
        for side in (-1, 1):
            end = (at[0] + dx * 9 - side * dy * 10, at[1] + dy * 9 + side * dx * 10)
            parts.append(svg.line([at, end], svg.UNDER if pale else "#3f6a34", 2.2))
    return svg.line([(x, y), (x + dx * 54, y + dy * 54)], BARK, 3) + "".join(parts)


def palm(standing: Standing) -> None:
    standing.soil()
    standing.roots(0.9)
    standing.bark(26, 150)

    def frond(angle: float, length: float, colour: str) -> str:
        turn = math.radians(angle)
        ends = (MIDDLE + length * math.cos(turn), 146 - length * math.sin(turn) + length * 0.22)
        rib = f"M{MIDDLE} 146Q{MIDDLE + length * 0.6 * math.cos(turn):.0f} {146 - length * 0.9 * math.sin(turn):.0f} {ends[0]:.0f} {ends[1]:.0f}"
        blades = "".join(
            svg.path(
                f"M{MIDDLE + (ends[0] - MIDDLE) * share:.0f} {146 + (ends[1] - 146) * share - length * 0.3 * math.sin(math.pi * share) * (1 if angle > 0 else 0.4):.0f}l{math.cos(turn) * 10:.0f} 22",
                stroke=colour,
                width=3.2,
            )
            for share in (0.25, 0.4, 0.55, 0.7, 0.85, 0.97)
        )
        return svg.path(rib, stroke="#7a8a3a", width=3.6) + blades

    standing.add("old leaf", frond(196, 84, "#8a9a4a") + frond(166, 92, CROWN[0]), (58, 176), (4, 130, 84, 76))
    standing.add("underside", frond(-16, 84, svg.UNDER) + frond(14, 92, svg.UNDER), (186, 176), (152, 130, 84, 76))
    standing.add("young leaf", frond(140, 84, CROWN[1]) + frond(40, 84, CROWN[1]), (70, 96), (30, 62, 70, 62))
    standing.add("stem", svg.path(f"M{MIDDLE - 12} 160q12 -26 24 0Z", "#a58b4a", LINE), (MIDDLE + 2, 150), (98, 136, 44, 34))
    standing.add("tip", svg.path(f"M{MIDDLE - 5} 140L{MIDDLE} 58L{MIDDLE + 5} 140Z", "#9ab75a", LINE), (MIDDLE, 74), (98, 52, 44, 60))
    standing.fruit_at(152, 170, 12)
    standing.add("flower", svg.path("M128 158q12 10 14 30M132 156q16 6 22 24", stroke="#e0c06a", width=3), (140, 182), (150, 186, 50, 40))


def climber(standing: Standing) -> None:
    standing.soil()
    standing.roots()
    post = svg.path(f"M{MIDDLE + 14} {SOIL + 10}L{MIDDLE + 14} 20", stroke="#b59a6a", width=5)
    vine = svg.path(
        f"M{MIDDLE} {SOIL}C{MIDDLE - 6} 320 {MIDDLE + 40} 300 {MIDDLE + 6} 262S{MIDDLE + 38} 214 {MIDDLE + 4} 178S{MIDDLE + 36} 124 {MIDDLE + 8} 96S{MIDDLE + 26} 60 {MIDDLE + 14} 40",
        stroke=svg.STEM,
        width=5.5,
    )
    standing.add("stem", post + vine, (MIDDLE + 6, 262), (102, 240, 50, 50))
    standing.add(
        "trunk",
        svg.path(f"M{MIDDLE} {SOIL - 2}C{MIDDLE - 5} 332 {MIDDLE + 20} 326 {MIDDLE + 24} 306", stroke=BARK, width=9),
        (MIDDLE + 4, 326),
        (98, 304, 48, 40),
    )
    standing.add("base", svg.path(f"M{MIDDLE - 8} {SOIL + 2}l3 -18h10l3 18Z", DARK_BARK, LINE), (MIDDLE - 4, SOIL - 6))
    standing.add("old leaf", standing.one_leaf(MIDDLE + 2, 266, 78, 168), (60, 246), (24, 214, 86, 66))
    standing.add("underside", standing.one_leaf(MIDDLE + 24, 214, 76, 4, under=True), (190, 206), (150, 180, 84, 60))
    standing.add("young leaf", standing.one_leaf(MIDDLE + 4, 126, 62, 156), (76, 106), (42, 76, 74, 62))
    standing.add(
        "tip",
        standing.one_leaf(MIDDLE + 14, 44, 36, 100) + svg.path(f"M{MIDDLE + 16} 52q16 -6 14 -18q-2 -8 -8 -4", stroke=svg.STEM, width=2),
        (MIDDLE + 10, 24),
        (104, 2, 56, 56),
    )
    standing.fruit_at(168, 144)
    stalks = svg.path(f"M{MIDDLE + 26} 148Q150 132 168 138M{MIDDLE + 18} 92Q150 84 168 92", stroke=svg.STEM, width=2.4)
    standing.add("flower", stalks + flower(172, 92), (172, 92))


def creeper(standing: Standing) -> None:
    standing.soil()
    standing.roots(0.8)
    runner = svg.path(
        f"M{MIDDLE} {SOIL}C{MIDDLE - 8} 320 {MIDDLE - 70} 330 48 286S96 190 118 176S176 120 186 84", stroke=svg.STEM, width=5.5
    )
    standing.add("stem", runner, (76, 216), (48, 196, 46, 56))
    standing.add("base", svg.path(f"M{MIDDLE - 8} {SOIL + 2}l3 -18h10l3 18Z", svg.STEM, LINE), (MIDDLE + 4, SOIL - 8))
    standing.add("old leaf", standing.one_leaf(62, 306, 74, 150) + standing.one_leaf(100, 330, 66, 128), (38, 272), (2, 236, 78, 84))
    standing.add("underside", standing.one_leaf(116, 322, 84, 26, under=True), (186, 292), (138, 262, 90, 60))
    standing.add("young leaf", standing.one_leaf(112, 180, 60, 152) + standing.one_leaf(150, 146, 54, 148), (72, 156), (50, 110, 84, 66))
    standing.add(
        "tip",
        standing.one_leaf(186, 86, 34, 96) + svg.path("M186 92q24 0 24 -20q-1 -10 -8 -6", stroke=svg.STEM, width=2),
        (186, 60),
        (160, 36, 56, 56),
    )
    stalks = svg.path("M156 146Q140 130 130 122M128 178Q150 176 170 182", stroke=svg.STEM, width=2.4)
    standing.add("flower", stalks + flower(130, 120), (130, 120))
    standing.fruit_at(170, 190, 20)
    standing.reach["fruit"] = (140, 180, 70, 58)


def grass(standing: Standing) -> None:
    standing.soil()
    standing.roots(1.1)
    stalk = svg.path(f"M{MIDDLE} {SOIL}L{MIDDLE} 76", stroke="#7d9a4a", width=8) + "".join(
        svg.path(f"M{MIDDLE - 5} {y}h10", stroke="#56743b", width=3) for y in (316, 262, 208, 154)
    )
    standing.add("stem", stalk, (MIDDLE - 2, 300), (98, 280, 44, 58))
    standing.add("base", svg.path(f"M{MIDDLE - 8} {SOIL}l2 -22h12l2 22Z", "#8fa86a", LINE), (MIDDLE + 5, SOIL - 8))

    def blade(y: float, side: int, reach: float, colour: str) -> str:
        return svg.path(
            f"M{MIDDLE} {y}Q{MIDDLE + side * reach * 0.5:.0f} {y - 86:.0f} {MIDDLE + side * reach:.0f} {y - 18:.0f}Q{MIDDLE + side * reach * 0.45:.0f} {y - 62:.0f} {MIDDLE} {y + 14:.0f}Z",
            colour,
            LINE,
            0.8,
        )

    standing.add("old leaf", blade(314, -1, 96, CROWN[0]) + blade(260, -1, 84, CROWN[1]), (46, 268), (10, 230, 96, 80))
    standing.add("underside", blade(290, 1, 96, svg.UNDER), (192, 252), (134, 222, 92, 60))
    standing.add("young leaf", blade(180, -1, 76, CROWN[2]) + blade(160, 1, 76, CROWN[2]), (66, 136), (36, 104, 76, 66))
    standing.add(
        "tip",
        svg.path(f"M{MIDDLE} 84Q{MIDDLE - 16} 52 {MIDDLE - 26} 40Q{MIDDLE - 2} 52 {MIDDLE + 3} 84Z", CROWN[2], LINE, 0.8),
        (MIDDLE - 20, 46),
        (74, 28, 44, 50),
    )
    if standing.bears == Bears.COB:
        tassel = "".join(
            svg.path(f"M{MIDDLE} 78Q{MIDDLE + bend * 0.4:.0f} 40 {MIDDLE + bend} 26", stroke="#c9a85a", width=3)
            for bend in (-10, 4, 20, 34)
        )
        standing.add("flower", tassel, (MIDDLE + 22, 38), (122, 14, 60, 56))
        standing.fruit_at(MIDDLE + 26, 216, 17)
    else:
        standing.fruit_at(MIDDLE + 2, 76, 14)
        standing.add(
            "flower",
            svg.path(f"M{MIDDLE + 12} 58l8 -4M{MIDDLE + 12} 70l9 -2", stroke="#e0c86a", width=2),
            (MIDDLE + 18, 62),
            (134, 40, 50, 50),
        )


def turf(standing: Standing) -> None:
    standing.soil()
    standing.roots(1.3)
    rng = random.Random(7)

    def tuft(left: float, right: float, colour: str, high: float) -> str:
        return "".join(
            svg.path(
                f"M{x:.0f} {SOIL + 4}q{rng.uniform(-10, 10):.0f} {-high * 0.6:.0f} {rng.uniform(-16, 16):.0f} {-high * rng.uniform(0.7, 1.1):.0f}",
                stroke=colour,
                width=3,
            )
            for x in (rng.uniform(left, right) for _ in range(26))
        )

    standing.add("turf", tuft(6, 234, CROWN[0], 96) + tuft(6, 234, CROWN[1], 70), (70, 330), (10, 284, 220, 70))
    standing.add("old leaf", tuft(20, 70, "#8a9a5a", 60), (40, 346), (14, 320, 60, 44))
    standing.add("young leaf", tuft(90, 150, CROWN[2], 120), (112, 268), (84, 236, 70, 50))
    standing.add("underside", tuft(170, 220, svg.UNDER, 70), (204, 330), (170, 300, 60, 50))
    standing.add(
        "stem", svg.path(f"M{MIDDLE + 40} {SOIL + 2}L{MIDDLE + 44} 226", stroke="#7d9a4a", width=4), (MIDDLE + 42, 262), (142, 240, 44, 50)
    )
    standing.add("base", svg.path(f"M{MIDDLE - 60} {SOIL + 2}q60 -14 120 0Z", "#a58b5a"), (MIDDLE - 12, SOIL - 2), (84, 350, 72, 24))
    standing.add("tip", svg.path(f"M{MIDDLE - 20} 300q-4 -50 4 -84", stroke=CROWN[2], width=4), (MIDDLE - 18, 218), (80, 194, 44, 44))
    standing.fruit_at(MIDDLE + 44, 220, 11)


def bulb(standing: Standing) -> None:
    standing.soil()
    standing.keeps = Keeps.BULB
    standing.roots(0.6)

    def leaf(bend: float, top: float, colour: str) -> str:
        return svg.path(
            f"M{MIDDLE - 7} {SOIL - 10}Q{MIDDLE + bend * 0.3 - 6:.0f} {(SOIL + top) / 2:.0f} {MIDDLE + bend} {top}Q{MIDDLE + bend * 0.4 + 8:.0f} {(SOIL + top) / 2 + 10:.0f} {MIDDLE + 7} {SOIL - 10}Z",
            colour,
            LINE,
            0.8,
        )

    standing.add("old leaf", leaf(-84, 230, CROWN[0]) + leaf(-54, 170, CROWN[0]), (52, 240), (14, 204, 74, 76))
    standing.add("underside", leaf(84, 226, svg.UNDER), (190, 244), (150, 204, 78, 76))
    standing.add("young leaf", leaf(-24, 120, CROWN[2]), (98, 150), (62, 110, 56, 66))
    standing.add(
        "stem",
        svg.path(f"M{MIDDLE + 4} {SOIL - 10}Q{MIDDLE + 16} 220 {MIDDLE + 20} 96", stroke="#7d9a4a", width=7),
        (MIDDLE + 14, 190),
        (122, 170, 36, 56),
    )
    standing.add("base", svg.path(f"M{MIDDLE - 9} {SOIL}l2 -26h14l2 26Z", "#c9d3a5", LINE), (MIDDLE - 4, SOIL - 14))
    standing.add("tip", leaf(-4, 84, CROWN[2]), (MIDDLE - 4, 96), (92, 70, 40, 46))
    standing.add(
        "flower",
        "".join(flower(MIDDLE + 20 + 13 * math.cos(turn), 82 + 13 * math.sin(turn), 4.5) for turn in (0, 1.05, 2.1, 3.14, 4.2, 5.24)),
        (MIDDLE + 22, 78),
        (112, 54, 60, 56),
    )


def cactus(standing: Standing) -> None:
    standing.soil()
    standing.roots(0.9)

    def pad(x: float, y: float, wide: float, high: float, colour: str, turn: float = 0) -> str:
        spines = "".join(
            svg.path(f"M{x + dx * wide:.0f} {y + dy * high:.0f}l-4 -5m4 5l4 -5", stroke="#e9dfc0", width=1.3)
            for dx, dy in ((-0.45, -0.4), (0.4, -0.45), (0, 0), (-0.4, 0.45), (0.45, 0.4))
        )
        return svg.ellipse(x, y, wide, high, colour, turn=turn, stroke=LINE) + spines

    standing.add("base", svg.path(f"M{MIDDLE - 20} {SOIL + 2}q20 -30 40 0Z", "#8a8a5a", LINE), (MIDDLE + 12, SOIL - 8))
    standing.add("stem", pad(MIDDLE, 304, 36, 58, "#5f8a55"), (MIDDLE - 20, 310), (86, 268, 66, 72))
    standing.add("old leaf", pad(72, 222, 34, 50, "#6a955c", -24), (56, 222), (30, 186, 72, 76))
    standing.add("underside", pad(170, 226, 34, 50, svg.UNDER, 24), (184, 232), (142, 190, 72, 76))
    standing.add("young leaf", pad(118, 140, 26, 38, "#84ac6a"), (104, 142), (88, 108, 60, 62))
    standing.add("tip", pad(150, 96, 16, 22, "#9ab97a", 20), (152, 84), (130, 66, 48, 48))
    standing.add("flower", flower(96, 100, 8), (96, 100))
    standing.fruit_at(184, 158, 11)


DRAWN: dict[Stand, Callable[[Standing], None]] = {
    Stand.SHOOT: shoot, Stand.ROSETTE: rosette, Stand.TREE: tree, Stand.BUSH: bush, Stand.CONIFER: conifer, Stand.PALM: palm,
    Stand.CLIMBER: climber, Stand.CREEPER: creeper, Stand.GRASS: grass, Stand.TURF: turf, Stand.BULB: bulb, Stand.CACTUS: cactus,
}  # fmt: skip
