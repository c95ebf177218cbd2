"""The plant to point at: one shoot with every part that a sign can be on."""

import functools

from bootmark.web.drawing import svg
from bootmark.web.drawing.leaf import FORMS, Leaf

# Where each part's label stands and where its line ends: label x, y, anchor; point x, y.
LABELS = {
    "tip": ("growing tip", 0, 20, "start", 108, 34),
    "flower": ("flower", 236, 40, "end", 160, 66),
    "young leaf": ("young leaf", 0, 86, "start", 78, 118),
    "fruit": ("fruit", 230, 150, "end", 176, 166),
    "old leaf": ("old leaf", 6, 196, "start", 74, 226),
    "underside": ("underside", 238, 306, "end", 196, 276),
    "stem": ("stem", 6, 300, "start", 117, 306),
    "base": ("stem base", 230, 352, "end", 122, 366),
    "root": ("roots", 6, 452, "start", 96, 430),
    "ground": ("soil, around", 236, 400, "end", 140, 388),
    "whole": ("whole plant", 6, 486, "start", 6, 486),
}


# Where a finger in a wet glove may land for each part: left, top, width, height.
REACH = {
    "whole": (0, 470, 110, 26),
    "ground": (0, 372, 240, 98),
    "root": (62, 392, 108, 76),
    "stem": (98, 168, 36, 180),
    "old leaf": (4, 206, 108, 128),
    "underside": (124, 244, 112, 66),
    "young leaf": (36, 92, 150, 72),
    "fruit": (136, 158, 100, 66),
    "flower": (134, 44, 102, 54),
    "tip": (76, -4, 82, 70),
    "base": (96, 346, 44, 30),
}


def _leaf(base: tuple[float, float], tip: tuple[float, float], under: bool = False) -> str:
    leaf = Leaf(FORMS["ovate"], base, tip, under)
    body = leaf.draw()
    return body.replace(leaf.stalk(), svg.line([base, (117, base[1] + 9)], svg.STEM, 3))


def _parts() -> dict[str, str]:
    """What is drawn for each part, back to front."""
    stem = svg.path("M117 372C119 300 115 180 117 52", stroke=svg.STEM, width=7)
    return {
        "ground": svg.path("M0 372C40 364 90 378 130 371S210 366 240 372L240 500L0 500Z", svg.SOIL)
        + svg.path("M0 372C40 364 90 378 130 371S210 366 240 372", stroke=svg.BOOT, width=2),
        "root": "".join(
            svg.path(d, stroke=svg.ROOT, width=3)
            for d in (
                "M117 372C112 396 96 410 84 440",
                "M117 372C118 404 116 430 112 462",
                "M117 372C126 400 142 416 158 444",
                "M104 404C92 410 84 412 70 414",
            )
        ),
        "stem": stem,
        "base": svg.path("M113 352L121 352L124 374L110 374Z", svg.STEM) + svg.path("M111 371q6 5 12 0", stroke=svg.ROOT, width=2),
        "old leaf": _leaf((106, 262), (24, 218)) + _leaf((108, 318), (38, 290)),
        "underside": _leaf((126, 270), (212, 262), True),
        "young leaf": _leaf((109, 150), (52, 98)) + _leaf((124, 146), (178, 104)),
        "fruit": svg.path("M121 176C136 172 156 166 166 172", stroke=svg.STEM, width=2.4)
        + f'<g transform="translate(150 168) scale(0.36)">{_fruit()}</g>',
        "flower": svg.path("M119 96C130 88 140 82 150 78", stroke=svg.STEM, width=2.2) + _flower(),
        "tip": _leaf((114, 66), (96, 26)) + _leaf((119, 66), (134, 24)) + _leaf((117, 62), (116, 10)),
    }


def _fruit() -> str:
    return svg.path(
        "M60 22C70 22 72 38 76 52C82 70 96 78 96 100C96 120 80 130 60 130C40 130 24 120 24 100C24 78 38 70 44 52C48 38 50 22 60 22Z",
        "#b9b24f",
    )


def _flower() -> str:
    petals = "".join(svg.circle(156 + dx, 74 + dy, 7, "#f3e6e4", "#cdb3ae") for dx, dy in ((0, -9), (9, -3), (6, 8), (-6, 8), (-9, -3)))
    return petals + svg.circle(156, 74, 4.5, "#c9a94a")


@functools.cache
def plant_parts() -> tuple[tuple[str, str], ...]:
    """Each part and its drawing with the room around it that counts as it, back to front."""
    drawn = _parts()
    return tuple((part, _reach(part) + drawn.get(part, "")) for part in dict.fromkeys((*drawn, *REACH)))


def _reach(part: str) -> str:
    left, top, width, height = REACH[part]
    return f'<rect x="{left}" y="{top}" width="{width}" height="{height}" fill="#000" fill-opacity="0"/>'


def label(part: str) -> str:
    """A part's name with a line to it."""
    words, x, y, anchor, to_x, to_y = LABELS[part]
    start = x + 4 + 7.6 * len(words) if anchor == "start" else x - 4 - 7.6 * len(words)
    line = "" if part == "whole" else svg.line([(start, y - 4), (to_x, to_y)], svg.SLATE, 1.1)
    return line + svg.text(words, x, y, anchor=anchor)


@functools.cache
def plant_svg() -> str:
    """The plant alone, for where nothing is to be pointed at."""
    return svg.document("".join(_parts().values()), "A plant with tip, flower, fruit, leaves, stem and roots", "0 0 240 500")
