"""What a sign's drawing is asked for: on which leaf form, how severe, and with which random source."""

import random
from collections.abc import Callable
from dataclasses import dataclass

from bootmark.drawing.leaf import FORMS, Leaf


@dataclass
class Sketch:
    rng: random.Random
    form: str = "ovate"
    severity: float = 0.6

    def leaf(self, *, under: bool = False, form: str = "") -> Leaf:
        return Leaf(FORMS[form or self.form], under=under)


Draw = Callable[[Sketch], str]
"""One sign as the inside of an SVG of 120 by 140."""
Mark = Callable[[random.Random], str]
"""Something strewn on a backdrop, from a random source."""


def on_leaf(how: Callable[[Leaf, random.Random, float], str], *, under: bool = False, form: str = "") -> Draw:
    """Damage on a leaf of the crop's own form; form: where the sign belongs to one form only."""
    return lambda sketch: how(sketch.leaf(under=under, form=form), sketch.rng, sketch.severity)


def plain(scene: Callable[[random.Random], str]) -> Draw:
    """A scene that has neither leaf form nor severity."""
    return lambda sketch: scene(sketch.rng)
