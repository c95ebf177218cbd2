"""A leaf of which a known share is eaten, to hold a real one against."""

import functools
import random
from dataclasses import replace

from bootmark import say
from bootmark.drawing import svg
from bootmark.drawing.leaf import FORMS, Leaf

STEPS = 14
NEAR = 0.002
"""Share of the leaf by which the drawing may be off."""


def eaten(form: str, share: float, seed: int = 1) -> Leaf:
    """A leaf of a form, or one leaflet, with a share of its area eaten, within NEAR. share: 0 to 0.9; the same seed gives the same leaf.

    Raises ValueError for a share that is none.
    """
    if not 0 <= share <= 0.9:
        raise ValueError("a share lies from 0 to 0.9")
    rng = random.Random(f"{form} {seed}")
    leaf = Leaf(replace(FORMS[form], leaflets=0))
    while share - leaf.lost > NEAR:
        bite, at = random.Random(rng.random()), leaf.anywhere(rng, 0.95)
        seed_of = bite.random()
        largest, kept = 9.0, leaf.cut
        if _with(leaf, seed_of, at, largest) <= share + NEAR:
            continue
        low, high = 0.0, largest
        for _ in range(STEPS):
            leaf.cut = kept
            size = (low + high) / 2
            low, high = (size, high) if _with(leaf, seed_of, at, size) <= share else (low, size)
        leaf.cut = kept
        _with(leaf, seed_of, at, max(low, 0.2))
    return leaf


def _with(leaf: Leaf, seed: float, at: tuple[float, float], size: float) -> float:
    """Bite into a leaf. Returns what is lost then."""
    leaf.remove(svg.blob(random.Random(seed), *at, size))
    return leaf.lost


@functools.lru_cache(maxsize=128)
def eaten_svg(form: str, percent: int) -> str:
    """The drawing of a leaf of which so many per cent are eaten."""
    return svg.document(eaten(form, percent / 100).draw(), say.line("A leaf of which {percent} % are eaten", percent=percent))
