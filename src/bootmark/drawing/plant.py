"""The plant to point at: one shoot with every part that a sign can be on."""

import functools

from bootmark import say
from bootmark.drawing import pictures, svg

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
    "trunk": ("trunk, bark", 6, 340, "start", 117, 340),
    "bulb": ("bulb, tuber", 236, 448, "end", 128, 420),
    "grain": ("ear, seed", 236, 118, "end", 168, 92),
    "turf": ("turf", 6, 396, "start", 60, 384),
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
    "trunk": (98, 318, 36, 28),
    "bulb": (116, 406, 40, 34),
    "grain": (146, 92, 44, 26),
    "turf": (14, 372, 60, 22),
}


def _parts() -> dict[str, str]:
    """What is drawn for each part, back to front."""
    return {id.replace("-", " "): body for id, body in pictures.parts("plant").items()}


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
    name, x, y, anchor, to_x, to_y = LABELS[part]
    words = say.line(name)
    start = x + 4 + 7.6 * len(words) if anchor == "start" else x - 4 - 7.6 * len(words)
    line = "" if part == "whole" else svg.line([(start, y - 4), (to_x, to_y)], svg.SLATE, 1.1)
    return line + svg.text(words, x, y, anchor=anchor)


def plant_svg() -> str:
    """The plant alone, for where nothing is to be pointed at."""
    return svg.document("".join(_parts().values()), say.line("A plant with tip, flower, fruit, leaves, stem and roots"), "0 0 240 500")
