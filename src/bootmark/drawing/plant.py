"""The plant to point at, in the form of the crop: every part that a sign can be on where that plant has it."""

import functools
from dataclasses import dataclass

from bootmark import say
from bootmark.core.catalogue.model import Crop
from bootmark.core.catalogue.shapes import BY_HABIT, Bears, Keeps, Stand
from bootmark.drawing import svg
from bootmark.drawing.palette import themed
from bootmark.drawing.standing import Standing
from bootmark.drawing.stands import DRAWN

WIDE, HIGH, SOIL = 240, 500, 366
LEAST_GAP = 27

FINGER = (64, 46)
"""Room that counts as a part for a finger in a wet glove, where the part says nothing else."""
NAMES = {
    "tip": "growing tip", "flower": "flower", "young leaf": "young leaf", "fruit": "fruit", "old leaf": "old leaf", "underside": "underside",
    "stem": "stem", "base": "stem base", "root": "roots", "ground": "soil, around", "whole": "whole plant", "trunk": "trunk, bark",
    "bulb": "bulb, tuber", "grain": "ear, seed", "turf": "turf",
}  # fmt: skip


@dataclass(frozen=True)
class Shape:
    """What decides how a plant is drawn. leaf: a leaf form."""

    stand: Stand = Stand.SHOOT
    leaf: str = "ovate"
    bears: Bears = Bears.CAPSULE
    keeps: Keeps = Keeps.NOTHING


def shape_of(crop: Crop | None, habit: str = "", leaf: str = "ovate") -> Shape:
    """The shape of a crop, or that of a plant of which only the habit is known."""
    if crop:
        return Shape(crop.stand, crop.leaf, crop.bears, crop.keeps)
    return Shape(BY_HABIT.get(habit, Stand.SHOOT), leaf)


@dataclass(frozen=True)
class Part:
    """name: of the part; body: what is drawn and may be touched; label: its name with a line to it."""

    name: str
    body: str
    label: str

    @property
    def title(self) -> str:
        """Its name as the label has it."""
        return say.line(NAMES[self.name])


@functools.cache
def _standing(shape: Shape) -> Standing:
    standing = Standing(shape.leaf, shape.bears, shape.keeps)
    DRAWN[shape.stand](standing)
    return standing


def parts(shape: Shape) -> tuple[Part, ...]:
    """The parts that such a plant has, back to front. Only the drawing is kept: labels are in the language of whoever asks."""
    standing = _standing(shape)
    labels = _labels({name: at for name, (_, at) in standing.parts.items()})
    return tuple(Part(name, _reach(name, at, standing) + body, labels[name]) for name, (body, at) in standing.parts.items())


def _reach(name: str, at: svg.Point, standing: Standing) -> str:
    if name == "whole":
        left, top, wide, high = 0.0, 470.0, 110.0, 26.0
    elif name in standing.reach:
        left, top, wide, high = standing.reach[name]
    else:
        wide, high = FINGER
        left, top = at[0] - wide / 2, at[1] - high / 2
    return f'<rect x="{left:.0f}" y="{top:.0f}" width="{wide:.0f}" height="{high:.0f}" fill="#000" fill-opacity="0"/>'


def _labels(at: dict[str, svg.Point]) -> dict[str, str]:
    """Each part's name at the nearer edge, no two on each other, with a line to the part."""
    labels = {}
    for left in (True, False):
        side = sorted((name for name, (x, _) in at.items() if name != "whole" and (x < WIDE / 2) == left), key=lambda name: at[name][1])
        height = -LEAST_GAP + 16.0
        last = 488.0 - LEAST_GAP * len(side)
        for place, name in enumerate(side):
            height = max(height + LEAST_GAP, min(at[name][1], last + LEAST_GAP * (place + 1) - 20))
            labels[name] = _label(name, left, height, at[name])
    if "whole" in at:
        labels["whole"] = svg.text(say.line(NAMES["whole"]), 6, 490, anchor="start", halo=themed.paper)
    return labels


def _label(name: str, left: bool, height: float, to: svg.Point) -> str:
    words = say.line(NAMES[name])
    x, anchor = (2, "start") if left else (WIDE - 2, "end")
    start = x + (4 + 7.6 * len(words)) * (1 if left else -1)
    leads = name not in ("ground", "turf") and (abs(start - to[0]) > 6 or abs(height - to[1]) > 14)
    line = svg.line([(start, height - 4), to], svg.SLATE, 1.1) if leads else ""
    return line + svg.text(words, x, round(height, 1), anchor=anchor, halo=themed.paper)


def plant_svg() -> str:
    """A plant alone, for where nothing is to be pointed at."""
    body = "".join(part.body for part in parts(Shape(bears=Bears.POME)))
    return svg.document(body, say.line("A plant with tip, flower, fruit, leaves, stem and roots"), "0 0 240 500")
