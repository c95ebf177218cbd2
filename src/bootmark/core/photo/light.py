"""Light, sharpness and the ground that something lies on: what every measurement asks of a picture first."""

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

from bootmark.core import judgement
from bootmark.core.meanings import Refusal

Picture = NDArray[np.uint8]
"""Rows, columns, red green blue: 0 to 255."""
Floats = NDArray[np.float64]
Mask = NDArray[np.bool_]
Labels = NDArray[np.int_]
SATURATED = 252
"""Of 255: from which a point may be brighter than it shows."""
FRAME = 0.04
"""Share of a side that counts as the picture's frame."""
WINDOW = 31
"""Points across which an edge's whole step is looked for: a blurred one takes many."""
WHITE = 0.86
"""How bright the ground is made: plain paper."""


class Unreadable(Exception):
    """A picture that can't be measured."""

    def __init__(self, why: Refusal) -> None:
        super().__init__(why)
        self.why = why


def linear(picture: Picture) -> Floats:
    """Light as the sensor had it, 0 to 1. Source: sRGB, IEC 61966-2-1."""
    coded = picture.astype(np.float64) / 255
    return np.where(coded <= 0.04045, coded / 12.92, ((coded + 0.055) / 1.055) ** 2.4)


def lab(light: Floats) -> Floats:
    """Lightness, red against green, yellow against blue. light: linear, white at 1. Source: CIE 1976 L*a*b*, sRGB primaries, D65."""
    to_xyz = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]])
    xyz = light @ to_xyz.T / np.array([0.9505, 1.0, 1.089])
    root = np.where(xyz > (6 / 29) ** 3, np.cbrt(np.maximum(xyz, 0)), xyz / (3 * (6 / 29) ** 2) + 4 / 29)
    x, y, z = np.moveaxis(root, -1, 0)
    return np.stack([116 * y - 16, 500 * (x - y), 200 * (y - z)], axis=-1)


def fitted(picture: Picture, longest: int) -> Picture:
    """A picture made smaller by whole steps, until its longest side has at most so many points: each is the mean of what it stands for."""
    step = int(np.ceil(max(picture.shape[:2]) / longest))
    if step <= 1:
        return picture
    rows, columns = (side // step * step for side in picture.shape[:2])
    cut = picture[:rows, :columns].reshape(rows // step, step, columns // step, step, 3)
    small: Picture = cut.mean(axis=(1, 3)).astype(np.uint8)
    return small


def closed(mask: Mask, steps: int) -> Mask:
    """A mask with gaps of up to twice so many points closed; what goes over the picture's edge still does."""
    grown: Mask = ndimage.binary_closing(np.pad(mask, steps, mode="edge"), iterations=steps)
    return grown[steps:-steps, steps:-steps]


def grey(picture: Picture) -> Floats:
    """The mean of the three colours of each point, 0 to 1."""
    return (picture[..., 0].astype(np.float64) + picture[..., 1] + picture[..., 2]) / (3 * 255)


def frame(shape: tuple[int, ...]) -> Mask:
    """The points along the edge of a picture."""
    edge = max(2, round(FRAME * min(shape[:2])))
    mask = np.ones(shape[:2], dtype=bool)
    mask[edge:-edge, edge:-edge] = False
    return mask


def sharpness(grey: Floats) -> float:
    """How steep the steepest edges are, as a share of the step that they make: 1 from one point to the next, less where they are blurred.

    grey: 0 to 1. Independent of how bright a picture is and of how many edges it has.
    """
    steep = np.hypot(ndimage.sobel(grey, 0), ndimage.sobel(grey, 1)) / 4
    spread = ndimage.maximum_filter(grey, WINDOW) - ndimage.minimum_filter(grey, WINDOW)
    edges = spread >= max(np.quantile(spread, 0.98) * 0.7, 0.05)
    if edges.sum() < 50:
        return 0.0
    return float(np.quantile(steep[edges] / spread[edges], 0.9))


@dataclass(frozen=True)
class Lit:
    """A picture in even light. lab: as it would be on white paper; ground: which points are ground; surface: the light on the ground; base:
    the ground's colour, 1 on the mean."""

    lab: Floats
    ground: Mask
    surface: Floats
    base: Floats


def on_plain_ground(picture: Picture) -> Lit:
    """Take the light off a picture of something on plain ground.

    The colour of the ground is taken from the frame, its light from a curved surface through all that is ground; what is left are the
    colours of what lies on it. Raises Unreadable where it is too dark, or the ground is not plain.
    """
    light = linear(picture)
    edge = frame(picture.shape)
    grey = light.mean(axis=-1)
    base = np.median(light[edge], axis=0)
    if base.mean() < judgement.PHOTO_DARK:
        raise Unreadable(Refusal.DARK)
    if np.median(picture[edge].min(axis=-1)) >= SATURATED:
        raise Unreadable(Refusal.GLARE)
    ratios = light / np.maximum(grey[..., None], 1e-4)
    like = np.abs(ratios - base / base.mean()).max(axis=-1) < judgement.PHOTO_HUE
    ground = like & (grey > base.mean() * judgement.PHOTO_SHADE)
    if ground[edge].mean() < judgement.PHOTO_PLAIN:
        raise Unreadable(Refusal.GROUND)
    surface = _surface(grey, ground)
    coloured = on_white(light, surface, base / base.mean())
    rough = np.hypot(coloured[..., 1], coloured[..., 2])[edge & ground]
    if np.quantile(rough, 0.9) > judgement.PHOTO_ROUGH:
        raise Unreadable(Refusal.GROUND)
    return Lit(coloured, ground, surface, base / base.mean())


def on_white(light: Floats, surface: Floats, base: Floats) -> Floats:
    """Colours as they would be on white paper in even light, by the light on the ground and the ground's colour."""
    return lab(np.clip(light / (surface[..., None] * base) * WHITE, 0, 1.2))


def _surface(grey: Floats, ground: Mask) -> Floats:
    """The light on the ground, as a surface of the second order through what is ground, by least squares on some of its points."""
    rows, columns = grey.shape
    ys, xs = np.nonzero(ground)
    step = max(1, len(ys) // 20_000)
    ys, xs = ys[::step], xs[::step]

    def terms(y: Any, x: Any) -> Floats:
        v, u = y / rows - 0.5, x / columns - 0.5
        return np.stack([np.ones_like(u), u, v, u * v, u * u, v * v], axis=-1)

    fit, *_ = np.linalg.lstsq(terms(ys, xs), np.log(np.maximum(grey[ys, xs], 1e-4)), rcond=None)
    all_y, all_x = np.mgrid[0:rows, 0:columns]
    surface: Floats = np.exp(terms(all_y, all_x) @ fit)
    return surface
