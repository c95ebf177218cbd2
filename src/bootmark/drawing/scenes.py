"""What is not a leaf: fruit, flower, tip, trap, paper, and the animals themselves."""

import math
import random

from bootmark.drawing import svg
from bootmark.drawing.caterpillars import lying

FRUIT, DARK_FRUIT = "#b9b24f", "#a29a3d"


def pear() -> str:
    body = "M60 22C70 22 72 38 76 52C82 70 96 78 96 100C96 120 80 130 60 130C40 130 24 120 24 100C24 78 38 70 44 52C48 38 50 22 60 22Z"
    shade = "M60 22C70 22 72 38 76 52C82 70 96 78 96 100C96 120 80 130 60 130C74 108 70 60 60 22Z"
    stalk = svg.path("M60 24C59 16 62 12 65 6", stroke=svg.ROOT, width=3)
    return stalk + svg.path(body, FRUIT) + svg.path(shade, DARK_FRUIT)


def frass(rng: random.Random, x: float, y: float, count: int, spread: float = 6) -> str:
    return "".join(
        svg.circle(
            x + rng.uniform(-spread, spread),
            y + rng.uniform(-spread * 0.4, spread),
            rng.uniform(0.8, 1.9),
            rng.choice(["#6a4423", "#7d5330", "#54351b"]),
        )
        for _ in range(count)
    )


def entry_hole(rng: random.Random) -> str:
    return pear() + svg.circle(54, 92, 3.6, "#3a2412") + svg.circle(54, 92, 6.2, "none", "#7f3b20", 1.6) + frass(rng, 54, 97, 26)


def exit_hole(rng: random.Random) -> str:
    return pear() + svg.circle(58, 118, 5.2, "#2c1a0c", "#6a4423", 1.6) + svg.ellipse(58, 116, 3, 1.2, "#4a2d15")


def stings(rng: random.Random) -> str:
    marks = [(44, 84), (62, 70), (74, 96), (52, 110), (68, 116)]
    return pear() + "".join(svg.circle(x, y, 2.4, "#7d6a2c", "#56491c", 0.8) + svg.circle(x, y, 0.9, "#3a2f10") for x, y in marks)


def core_larva(rng: random.Random) -> str:
    body = "M60 22C70 22 72 38 76 52C82 70 96 78 96 100C96 120 80 130 60 130C40 130 24 120 24 100C24 78 38 70 44 52C48 38 50 22 60 22Z"
    parts = [svg.path(body, FRUIT), svg.path(body, "#f4efd4", transform="translate(6 8) scale(0.9)")]
    parts.append(svg.path("M60 78C72 84 74 104 60 116C46 104 48 84 60 78Z", "#d9c78f"))
    parts.append(svg.path("M92 92C84 88 76 96 70 96", stroke="#7d5330", width=4))
    parts += [frass(rng, 64, 98, 24, 9), lying(57, 98, 38, "#e9c3ad", head="#7a3a1c", turn=-16, fat=0.2)]
    return "".join(parts)


def misshapen(rng: random.Random) -> str:
    body = "M60 20C72 22 68 40 78 50C98 66 86 84 98 102C92 128 66 116 56 130C38 130 22 116 30 96C20 80 42 72 42 52C46 38 50 22 60 20Z"
    scars = "".join(svg.path(f"M{40 + 9 * n} {96 - 6 * n}q8 -6 14 2", stroke="#8a7a4a", width=2.2) for n in range(4))
    return svg.path("M60 22C59 14 62 12 65 6", stroke=svg.ROOT, width=3) + svg.path(body, FRUIT) + scars


def lens(inside: str) -> str:
    """A round view through the hand lens."""
    ring = svg.circle(60, 66, 47, "none", svg.INK, 3)
    handle = svg.path("M92 102L108 128", stroke=svg.INK, width=7)
    return f'{handle}<clipPath id="l"><circle cx="60" cy="66" r="46"/></clipPath><g clip-path="url(#l)">{inside}</g>{ring}'


def spider_mite(x: float, y: float, size: float, turn: float) -> str:
    legs = "".join(
        svg.path(
            f"M{x + side * size * 0.5:.1f} {y - size * 0.5 + n * size * 0.32:.1f}q{side * size * 0.7:.1f} {(-3 + 2 * n):.1f} {side * size:.1f} {(n - 1) * size * 0.35:.1f}",
            stroke="#8d7c4a",
            width=1,
        )
        for n in range(4)
        for side in (-1, 1)
    )
    body = svg.ellipse(x, y, size * 0.72, size, "#d9d08c", stroke="#9a8d4d", width=0.8)
    marks = svg.ellipse(x - size * 0.4, y + 1, size * 0.24, size * 0.42, "#3f4a2a") + svg.ellipse(
        x + size * 0.4, y + 1, size * 0.24, size * 0.42, "#3f4a2a"
    )
    return f'<g transform="rotate({turn:.0f} {x:.0f} {y:.0f})">{legs}{body}{marks}</g>'


def mites_and_eggs(rng: random.Random) -> str:
    ground = (
        svg.circle(60, 66, 47, svg.UNDER)
        + svg.path("M10 96C40 80 80 50 112 40", stroke=svg.VEIN, width=4)
        + svg.path("M50 76L60 110", stroke=svg.VEIN, width=2.4)
    )
    eggs = "".join(
        svg.circle(x, y, 3.4, "#f3ecd0", "#b9ad7d", 0.8) + svg.circle(x - 1, y - 1, 1, svg.WHITE)
        for x, y in ((34, 96), (46, 103), (84, 84), (92, 70), (70, 98), (28, 80))
    )
    return lens(ground + eggs + spider_mite(48, 54, 12, 30) + spider_mite(80, 52, 9, -40))


def predatory(rng: random.Random) -> str:
    ground = svg.circle(60, 66, 47, svg.UNDER) + svg.path("M10 96C40 80 80 50 112 40", stroke=svg.VEIN, width=4)
    legs = "".join(
        svg.path(
            f"M{56 + 5 * n} 58q{-4 + 2 * n} -14 {-8 + 5 * n} -20M{56 + 5 * n} 76q{-4 + 2 * n} 14 {-8 + 5 * n} 20",
            stroke="#a5602f",
            width=1.4,
        )
        for n in range(4)
    )
    body = svg.path("M42 67C42 54 60 52 72 58C84 62 84 72 72 76C60 82 42 80 42 67Z", "#d98a4e", "#9b5a28", 1) + svg.ellipse(
        58, 62, 8, 3, "#f2c398", turn=10
    )
    return lens(ground + legs + body + spider_mite(88, 90, 6, 20))


def thrips_shape(x: float, y: float, length: float, turn: float, colour: str = "#b98a3a") -> str:
    body = svg.path(
        f"M{x - length / 2} {y}q{length * 0.1} {-length * 0.14} {length * 0.3} {-length * 0.13}L{x + length / 2} {y}L{x - length * 0.2} {y + length * 0.13}q{-length * 0.2} 0 {-length * 0.3} {-length * 0.13}Z",
        colour,
        "#7a571d",
        0.8,
    )
    wing = svg.path(f"M{x - length * 0.15} {y}L{x + length * 0.42} {y}", stroke="#5d4218", width=1.2)
    feelers = svg.path(f"M{x - length / 2} {y}l-6 -4M{x - length / 2} {y}l-6 4", stroke="#7a571d", width=0.9)
    return f'<g transform="rotate({turn:.0f} {x:.0f} {y:.0f})">{body}{wing}{feelers}</g>'


def sheet(rng: random.Random, inside: str) -> str:
    paper = svg.path("M14 40L98 24L110 112L24 126Z", svg.WHITE, "#b9b3a2", 1.4)
    return (
        paper + "".join(svg.circle(rng.uniform(30, 96), rng.uniform(44, 110), rng.uniform(0.4, 0.9), "#8a8570") for _ in range(26)) + inside
    )


def paper_specks(rng: random.Random) -> str:
    moving = ""
    for x, y in ((44, 62), (70, 54), (84, 84), (54, 94), (74, 104)):
        moving += svg.ellipse(x, y, 2.4, 1.7, "#8a5a2a", turn=rng.uniform(0, 180)) + svg.path(
            f"M{x - 5} {y + 3}q-5 4 -9 2", stroke="#8a8570", width=0.9, stroke_dasharray="2 2"
        )
    return sheet(rng, moving)


def slender_on_paper(rng: random.Random) -> str:
    return lens(svg.circle(60, 66, 47, svg.WHITE) + thrips_shape(54, 52, 42, -24) + thrips_shape(72, 86, 32, 18, "#d8c37a"))


def flower(rng: random.Random, inside: str = "") -> str:
    petals = "".join(
        svg.ellipse(
            60 + 27 * math.cos(n * math.tau / 5 - 1.57),
            62 + 27 * math.sin(n * math.tau / 5 - 1.57),
            19,
            15,
            "#f3e6e4",
            turn=n * 72 - 90,
            stroke="#cdb3ae",
            width=1,
        )
        for n in range(5)
    )
    stamens = "".join(
        svg.path(f"M60 62L{60 + 16 * math.cos(n * 0.7):.1f} {62 + 16 * math.sin(n * 0.7):.1f}", stroke="#c9a94a", width=1.2)
        for n in range(9)
    )
    return svg.path("M60 84C60 104 56 120 58 136", stroke=svg.STEM, width=3) + petals + stamens + svg.circle(60, 62, 8, "#b7c07a") + inside


def flower_thrips(rng: random.Random) -> str:
    return flower(rng, thrips_shape(46, 50, 22, 40) + thrips_shape(76, 66, 20, -50) + thrips_shape(58, 86, 17, 10, "#e2cc74"))


def shoot(inside: str = "", droop: bool = False) -> str:
    places: tuple[tuple[int, int, int], ...]
    if droop:
        stem = svg.path("M60 136C60 110 60 84 60 62C60 44 72 34 84 46", stroke=svg.STEM, width=4)
        places = ((60, 100, 118), (60, 96, 62), (60, 78, 122), (60, 74, 58), (64, 48, 96), (80, 44, 80))
    else:
        stem = svg.path("M60 136C61 100 59 60 60 24", stroke=svg.STEM, width=4)
        places = ((60, 104, 205), (60, 100, -25), (60, 76, 212), (60, 72, -32), (60, 46, 228), (60, 42, -48), (60, 26, 270))
    leaves = ""
    for x, y, turn in places:
        leaf = (
            svg.path("M0 0C8 -13 24 -13 38 0C24 13 8 13 0 0Z", svg.GREEN)
            + svg.path("M0 0C8 13 24 13 38 0Z", svg.DARK_GREEN)
            + svg.path("M0 0L33 0", stroke=svg.VEIN, width=1)
        )
        leaves += f'<g transform="translate({x} {y}) rotate({turn})">{leaf}</g>'
    return stem + leaves + inside


def nymphs_in_drops(rng: random.Random) -> str:
    parts = [
        svg.path("M20 130C50 100 70 70 96 20", stroke=svg.STEM, width=9),
        svg.path("M58 84C80 76 100 84 112 96C94 100 72 98 58 84Z", svg.GREEN),
    ]
    for x, y, turn in ((58, 84, 20), (44, 100, -30), (70, 66, 40), (80, 52, -20)):
        parts.append(svg.ellipse(x, y, 13, 10, "#e6e8c2", turn=turn, stroke="#f7f6df", width=1.2))
        parts.append(
            svg.ellipse(x, y, 8, 5.6, "#c98f3c", turn=turn, stroke="#8a5a1d", width=0.8)
            + svg.circle(x - 5, y - 2, 1.5, svg.RUST)
            + svg.circle(x - 5, y + 2.4, 1.5, svg.RUST)
        )
    return "".join(parts)


def grain_eggs(rng: random.Random) -> str:
    leaf = svg.path("M10 120C20 60 60 20 110 14C108 70 70 116 10 120Z", svg.UNDER) + svg.path(
        "M10 120C40 80 76 44 110 14", stroke=svg.VEIN, width=4
    )
    eggs = "".join(
        svg.ellipse(
            30 + 7.6 * n + rng.uniform(-1, 1),
            97 - 8 * n + rng.uniform(-5, 5),
            5.2,
            2.2,
            "#e3b93d",
            turn=rng.uniform(-60, 10),
            stroke="#9d7a16",
            width=0.7,
        )
        for n in range(9)
    )
    return leaf + eggs


def flying(rng: random.Random) -> str:
    parts = [shoot()]
    for x, y, turn in ((20, 40, -20), (98, 30, 20), (104, 74, 10), (18, 84, -30), (86, 12, 0)):
        parts.append(
            f'<g transform="rotate({turn} {x} {y})">'
            + svg.ellipse(x, y, 4.6, 2, svg.INK)
            + svg.path(f"M{x} {y}q4 -12 12 -9q-2 7 -12 9q-6 -12 -10 -6q2 6 10 6", "#c8d0d2", "#7c868a", 0.8)
            + "</g>"
        )
    return "".join(parts)


def ants(rng: random.Random) -> str:
    parts = [
        svg.path("M52 140C56 100 58 60 62 0L76 0C72 60 70 100 70 140Z", "#9a7b55"),
        svg.path("M64 140C66 100 68 60 72 0L76 0C72 60 70 100 70 140Z", "#83664a"),
    ]
    for n in range(6):
        x, y = 61 + 2 * math.sin(n * 2), 124 - 22 * n
        parts += [svg.circle(x, y, 3, svg.INK), svg.circle(x + 0.6, y - 5, 2, svg.INK), svg.circle(x + 1, y - 9, 2.3, svg.INK)]
        parts.append(
            svg.path(
                f"M{x - 7} {y - 9}L{x + 8} {y - 1}M{x + 8} {y - 9}L{x - 7} {y - 1}M{x - 7} {y - 5}L{x + 8} {y - 5}",
                stroke=svg.INK,
                width=0.8,
            )
        )
    return "".join(parts)


def beetle_eggs(rng: random.Random) -> str:
    leaf = svg.path("M8 90C14 40 60 14 112 26C112 84 66 122 8 90Z", svg.UNDER) + svg.path(
        "M8 90C44 70 80 46 112 26", stroke=svg.VEIN, width=4
    )
    eggs = "".join(
        svg.ellipse(44 + 7.4 * (n % 6) + 3.5 * (n // 6 % 2), 56 + 9 * (n // 6), 3, 6, "#e69a2b", turn=8, stroke="#a9660f", width=0.8)
        for n in range(18)
    )
    return leaf + eggs


def humped_larva(rng: random.Random) -> str:
    leaf = svg.path("M4 116C30 96 90 98 118 112C90 132 30 134 4 116Z", svg.GREEN)
    body = svg.path("M22 104C20 66 52 40 82 54C102 64 104 96 94 104C70 112 40 112 22 104Z", "#c4512b", "#7d2a12", 1.4)
    dots = "".join(
        svg.circle(36 + 10.5 * n, 88 - 3 * math.sin(n), 2.5, svg.INK) + svg.circle(38 + 10 * n, 98, 2.2, svg.INK) for n in range(6)
    )
    rings = "".join(
        svg.path(f"M{42 + 13 * n} {60 - 4 * n if n < 2 else 50 + 3 * n}q-5 22 0 46", stroke="#93371a", width=0.9) for n in range(4)
    )
    return (
        leaf
        + body
        + rings
        + dots
        + svg.circle(98, 97, 8, svg.INK)
        + svg.path("M60 108l-2 8M74 108l0 8M86 106l2 8", stroke=svg.INK, width=3)
    )


def striped_beetle(rng: random.Random) -> str:
    legs = svg.path("M34 66L16 54M32 84L12 86M38 104L20 116M86 66L104 54M88 84L108 86M82 104L100 116", stroke="#6d4a16", width=3)
    wings = svg.ellipse(60, 86, 32, 38, "#e9cf73", stroke="#5d4218", width=1.4)
    stripes = "".join(
        svg.path(
            f"M{60 + side * (2 + 6.2 * n):.1f} {56 + 2.4 * n}C{60 + side * (3 + 7.2 * n):.1f} 76 {60 + side * (3 + 7 * n):.1f} 100 {60 + side * (1.5 + 5 * n):.1f} {122 - 4.5 * n:.1f}",
            stroke=svg.INK,
            width=2.5,
        )
        for n in range(5)
        for side in (-1, 1)
    )
    head = svg.path("M34 58C36 40 84 40 86 58C76 50 44 50 34 58Z", "#c9722c", "#5d4218", 1.2) + svg.circle(
        60, 36, 11, "#c9722c", "#5d4218", 1.2
    )
    return (
        legs
        + wings
        + stripes
        + head
        + svg.circle(56, 34, 2, svg.INK)
        + svg.circle(65, 34, 2, svg.INK)
        + svg.path("M54 27L44 14M66 27L76 14", stroke="#5d4218", width=1.6)
    )


def lure_trap(rng: random.Random) -> str:
    roof = svg.path("M14 62L60 28L106 62L106 70L60 38L14 70Z", "#8fa18b", svg.INK, 1.4)
    floor = svg.path("M20 66L100 66L106 100L14 100Z", svg.WHITE, svg.INK, 1.4)
    moths = ""
    for x, y, turn in ((40, 82, 10), (66, 76, -20), (84, 90, 30), (54, 93, -8)):
        moths += (
            f'<g transform="rotate({turn} {x} {y})">'
            + svg.path(
                f"M{x} {y - 7}C{x + 8} {y - 2} {x + 7} {y + 7} {x + 3} {y + 8}L{x} {y}L{x - 3} {y + 8}C{x - 7} {y + 7} {x - 8} {y - 2} {x} {y - 7}Z",
                "#8c857a",
                "#4c463d",
                0.8,
            )
            + "</g>"
        )
    return svg.path("M60 4L60 30", stroke=svg.INK, width=2) + floor + roof + svg.ellipse(60, 70, 5, 3, "#b65a3b") + moths


def bee_with_leaf(rng: random.Random) -> str:
    wings = svg.ellipse(50, 44, 24, 10, "#dfe5e4", turn=-28, stroke="#8d989a", width=1) + svg.ellipse(
        76, 40, 20, 8, "#dfe5e4", turn=-8, stroke="#8d989a", width=1
    )
    body = svg.ellipse(62, 70, 32, 16, "#4a3a28") + "".join(
        svg.path(f"M{56 + 11 * n} {56 + n}q4 14 0 28", stroke="#cdbb8f", width=2.6) for n in range(3)
    )
    head = svg.circle(30, 68, 11, "#33291d") + svg.path("M24 60L14 50M28 58L22 46", stroke="#33291d", width=1.6)
    roll = svg.path("M34 92C50 84 80 86 96 96C84 108 52 108 34 92Z", svg.GREEN, svg.STEM, 1.4) + svg.path(
        "M40 92C56 90 78 92 90 97", stroke=svg.VEIN, width=1.2
    )
    return wings + roll + body + head + svg.path("M50 84l-4 8M64 86l0 8M78 84l4 8", stroke="#33291d", width=2)


def pellets(rng: random.Random) -> str:
    return "".join(svg.ellipse(rng.uniform(38, 82), rng.uniform(36, 100), 2.6, 1.7, "#33291d", turn=rng.uniform(0, 180)) for _ in range(22))


def skins(rng: random.Random) -> str:
    return "".join(
        svg.path(f"M{x:.0f} {y:.0f}c4 -4 9 -2 10 2c-2 4 -8 5 -10 -2m2 -1l-4 -4m6 2l0 -6m4 4l4 -4", svg.WHITE, "#b9b39d", 0.8)
        for x, y in ((rng.uniform(42, 76), rng.uniform(32, 98)) for _ in range(11))
    )
