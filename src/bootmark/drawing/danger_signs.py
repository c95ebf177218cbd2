"""Signs of what can hurt people or stock and is no pest: poisons, gases, burning sap."""

import math

from bootmark.drawing import svg
from bootmark.drawing.backdrops import cut_fruit, ear, earth
from bootmark.drawing.limbs import LINE
from bootmark.drawing.sketch import Draw, Sketch
from bootmark.drawing.svg import circle, ellipse, path

GRAIN, COAT, MOULD = "#d9b85a", "#d9568a", "#8fa86a"


def _seeds(sketch: Sketch, colour: str, count: int = 26) -> str:
    return "".join(
        ellipse(
            sketch.rng.uniform(18, 102),
            sketch.rng.uniform(58, 122),
            9,
            5.4,
            colour,
            turn=sketch.rng.uniform(0, 180),
            stroke=LINE,
            width=0.9,
        )
        for _ in range(count)
    )


def _green_tubers(_: Sketch) -> str:
    tubers = ((42, 52, -14, "#c9b26a"), (82, 66, 20, "#8fa84a"), (48, 104, 6, "#7d9a3f"))
    return "".join(
        ellipse(x, y, 27, 19, colour, turn=turn, stroke=LINE, width=1.2) + circle(x - 8, y - 3, 1.6, LINE) + circle(x + 9, y + 4, 1.6, LINE)
        for x, y, turn, colour in tubers
    ) + path("M82 48q6 -12 2 -22q8 4 6 20M48 86q-6 -10 -2 -18q6 6 8 16", "#a9c46a", LINE, 0.9)


def _bitter(_: Sketch) -> str:
    tongue = path("M70 92C92 84 112 96 108 114C102 130 82 126 74 116Z", "#d98a86", LINE, 1.1)
    drops = path("M84 74l-3 9a4 4 0 1 0 7 0Z", "#b5c46a", LINE, 0.8)
    return f'<g transform="translate(-14 -22) scale(0.86)">{cut_fruit()}</g>' + tongue + drops


def _pink_ear(sketch: Sketch) -> str:
    felt = "".join(
        circle(
            60 + sketch.rng.uniform(-13, 13), sketch.rng.uniform(34, 82), sketch.rng.uniform(4, 8), ("#e8a9a8", "#f4e9e6", "#e0926a")[n % 3]
        )
        for n in range(15)
    )
    return ear() + felt


def _bleached(_: Sketch) -> str:
    def head(y: float, colour: str) -> str:
        return "".join(ellipse(60 + side * 8, y, 6.5, 10, colour, turn=side * 22, stroke=LINE, width=0.9) for side in (-1, 1))

    heads = "".join(head(24 + 13 * n, "#f2ecd6" if n < 4 else "#7d9a4a") for n in range(7))
    return path("M60 138L60 20", stroke="#7d9a4a", width=4) + heads


def _mould(sketch: Sketch) -> str:
    fur = "".join(
        circle(sketch.rng.uniform(30, 92), sketch.rng.uniform(64, 112), sketch.rng.uniform(6, 13), colour)
        for colour in (MOULD, "#dfe6dc", "#7d9a8a", MOULD, "#eef2ea", "#b9c98a")
    )
    smell = "".join(path(f"M{34 + 24 * n} 46q-7 -9 0 -17t0 -16", stroke="#8a8a6a", width=2.2) for n in range(3))
    return _seeds(sketch, GRAIN) + fur + smell


def _warm_heap(_: Sketch) -> str:
    heap = (
        path("M8 128C28 70 92 70 112 128Z", "#c9a85a", LINE, 1.2)
        + path("M30 118C42 88 78 88 90 118Z", "#d9763f")
        + path("M44 118C50 102 70 102 76 118Z", "#c0392b")
    )
    steam = "".join(path(f"M{40 + 20 * n} 66q-8 -11 0 -21t0 -20", stroke="#a8a496", width=3) for n in range(3))
    return heap + steam


def _haze(sketch: Sketch) -> str:
    silo = path("M34 134L34 40Q60 20 86 40L86 134Z", "#b9b6ae", LINE, 1.3) + "".join(
        path(f"M34 {60 + 24 * n}h52", stroke="#8d8a84", width=1.4) for n in range(3)
    )
    cloud = "".join(ellipse(sketch.rng.uniform(20, 100), sketch.rng.uniform(104, 132), 20, 10, "#b5722fcc") for _ in range(9))
    return silo + path("M70 132L70 100L84 100L84 132Z", "#3a3630") + cloud


def _tablets(sketch: Sketch) -> str:
    powder = "".join(
        circle(sketch.rng.uniform(36, 86), sketch.rng.uniform(74, 104), sketch.rng.uniform(1.5, 4), "#9aa39a") for _ in range(34)
    )
    sleeves = path("M26 50l30 -8l3 13l-30 8ZM66 112l28 6l-3 13l-28 -6Z", "#f4f1e8", LINE, 1)
    return _seeds(sketch, GRAIN) + powder + sleeves + circle(88, 62, 8, "#a9b0a6", LINE) + circle(40, 116, 8, "#a9b0a6", LINE)


def _hogweed(_: Sketch) -> str:
    def umbel(x: float, y: float, size: float) -> str:
        rays = [(x + size * math.cos(turn), y - size * 0.55 * abs(math.sin(turn)) - 2) for turn in (n * math.pi / 8 for n in range(9))]
        return "".join(
            svg.line([(x, y + size * 0.5), ray], "#8aa05a", 1.4) + circle(*ray, size * 0.2, "#fbfaf2", "#b9b39d", 0.7) for ray in rays
        )

    stem = path("M74 136L72 44", stroke="#7d9a5a", width=8) + "".join(
        circle(73 + (n % 2) * 3 - 1.5, 62 + 14 * n, 2.3, "#7a3a5a") for n in range(6)
    )
    leaf = path("M73 104L40 82L52 92L28 96L48 104L30 120L56 112L73 118Z", "#5f8a45", LINE, 1)
    person = circle(20, 96, 6, "#5d5348") + path(
        "M20 102L20 122M20 108l-7 8M20 108l7 8M20 122l-5 14M20 122l5 14", stroke="#5d5348", width=3
    )
    return stem + leaf + umbel(72, 40, 32) + umbel(98, 62, 16) + path("M73 82Q88 78 97 68", stroke="#7d9a5a", width=4) + person


def _pellets(sketch: Sketch) -> str:
    colours = ("#2f6bb0", "#2f6bb0", "#3f9a6a", "#c0392b")
    return earth(60) + "".join(
        ellipse(
            sketch.rng.uniform(16, 104),
            sketch.rng.uniform(76, 128),
            6.4,
            4,
            colours[n % 4],
            turn=sketch.rng.uniform(0, 180),
            stroke=LINE,
            width=0.8,
        )
        for n in range(17)
    )


DRAWN: dict[str, Draw] = {
    "green-skinned-tubers": _green_tubers,
    "bitter-fruit": _bitter,
    "pink-mould-on-ears": _pink_ear,
    "heads-bleached": _bleached,
    "mould-in-the-store": _mould,
    "heap-feels-warm": _warm_heap,
    "coated-seed": lambda sketch: _seeds(sketch, COAT, 30),
    "gas-in-the-store": _haze,
    "powder-of-spent-tablets": _tablets,
    "weed-taller-than-a-head": _hogweed,
    "coloured-pellets-lie-about": _pellets,
}
