"""Where on the drawing of a stage each mark stands, and a numbered ring round it."""

from collections.abc import Sequence

from bootmark.drawing import svg

SIDEWAYS = {
    "pattern": (60, 74), "stripes": (42, 74), "bands": (74, 74), "spots": (52, 74), "horn": (21, 61), "head": (102, 74), "neck": (94, 74),
    "hairs": (36, 58), "pose": (60, 58), "slim": (70, 74),
}  # fmt: skip
"""A caterpillar, a grub or a slug-like larva, its head to the right."""
UPWARD = {
    "pattern": (78, 84), "stripes": (46, 92), "bands": (60, 100), "spots": (46, 74), "wings": (84, 92), "head": (60, 38), "neck": (60, 54),
    "hairs": (84, 100), "pose": (38, 96), "slim": (82, 74), "cover": (54, 98), "wax": (60, 72), "horn": (60, 72),
    "feelers": (76, 32),
}  # fmt: skip
"""What is drawn with its head up, or lies about."""
ASLANT = {
    "tubes": (30, 76), "stripes": (62, 70), "pattern": (52, 74), "wax": (76, 58), "head": (84, 58), "hairs": (38, 90), "slim": (60, 72),
}  # fmt: skip
"""An aphid, its head to the upper right."""
TRACK = {"toes": (76, 68), "claws": (44, 38), "slim": (42, 108)}
PLACES = {"aphid": ASLANT, "mammal": TRACK}
CENTRE = (60, 72)
SPREAD, MIDDLE, LEAST_Y = 14, 60, 29


def rings(body: str, sideways: bool, names: Sequence[str], scale: float = 1.0) -> str:
    """A ring with its number for each mark. sideways: its head is to the right; names: of drawn.TOLD; scale: of the drawing, about CENTRE."""
    places = SIDEWAYS if sideways else PLACES.get(body, UPWARD)
    parts = []
    for number, name in enumerate(names, 1):
        x, y = (round(middle + (at - middle) * scale) for at, middle in zip(places.get(name, (60, 74)), CENTRE, strict=True))
        parts.append(svg.circle(x, y, 10, "none", svg.BOOT, 2))
        # Tags of marks that lie on each other stand on either side.
        edge = -1 if x < MIDDLE or (x == MIDDLE and number % 2) else 1
        tag_x, tag_y = x + edge * SPREAD, max(y - SPREAD, LEAST_Y)
        parts.append(
            svg.circle(tag_x, tag_y, 6.5, svg.BOOT)
            + svg.text(number, tag_x, tag_y + 3.4, size=10, anchor="middle", weight="700", fill=svg.WHITE)
        )
    return "".join(parts)
