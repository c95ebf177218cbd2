"""Whether one leaf lies on another: an edge runs through the blade that is neither its midrib nor the border of a discoloured patch."""

import numpy as np
from scipy import ndimage

from bootmark.core import judgement
from bootmark.core.photo.halves import Halves
from bootmark.core.photo.light import Floats, Mask

VEIN = 0.025
"""Share of a leaf's length that its veins are thinner than."""


def runs_through(lab: Floats, left: Mask, cut: Halves) -> bool:
    """Whether a long edge runs through a leaf.

    lab: its colours as on white paper; left: what is left of it; cut: its halves. Veins are lines, not steps from one colour to another:
    they go first. Along the midrib one half may be darker, and what is discoloured has an edge of its own. Common practice, no source.
    """
    size = max(5, round(VEIN * cut.length)) | 1
    calm = ndimage.gaussian_filter(lab, (1, 1, 0))
    for without_lines in (ndimage.grey_opening, ndimage.grey_closing):
        calm = without_lines(calm, (size, size, 1))
    slot, inside, off = cut.across(left.shape)
    beside = inside & (np.abs(off - cut.bend[slot]) > judgement.MIDRIB_WIDE * cut.length)
    own = ndimage.binary_erosion(left, iterations=size - 1) & ~ndimage.binary_dilation(_turned(calm) & left, iterations=size)
    labels, count = ndimage.label((_steps(calm, cut.length) > judgement.LEAF_STEP) & beside & own, np.ones((3, 3)))
    lengths = [np.hypot(*(span.stop - span.start for span in spans)) for spans in ndimage.find_objects(labels)]
    return count > 0 and bool(max(lengths) > judgement.LEAF_EDGE_LONG * cut.length)


def _steps(calm: Floats, length: float) -> Floats:
    """How far colours differ from one side of each point to the other, as if the step there were sharp: units of colour."""
    spread = max(1.0, length / 400)
    slopes = [ndimage.gaussian_filter(calm, (spread, spread, 0), order=order) for order in ((0, 1, 0), (1, 0, 0))]
    steep: Floats = np.sqrt(sum((slope**2).sum(axis=-1) for slope in slopes)) * spread * np.sqrt(2 * np.pi)
    return steep


def _turned(calm: Floats) -> Mask:
    """What is green no more: yellow, brown, red."""
    turned: Mask = np.arctan2(calm[..., 2], calm[..., 1]) < judgement.LEAF_TURNED
    return turned
