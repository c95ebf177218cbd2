"""Pictures of known truth: our own drawings, put on grounds, lit, blurred, tilted, shaded, made noisy and compressed as a phone would."""

import io
import math
import random
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from bootmark.drawing import svg
from bootmark.drawing.leaf import FORMS, Leaf

Picture = NDArray[np.uint8]
WIDE, HIGH = 1600, 1200
LENS = 0.015
"""What phones leave of their lens's bend, at a corner. From memory: a wide lens bends by some per cent, and its phone takes most of it off."""
PAPER, BOARD = (236, 234, 228), (196, 190, 178)
GREENS = ((70, 120, 50), (96, 140, 62), (52, 98, 44), (120, 150, 70))
FADED = ((206, 186, 84), (150, 104, 58), (198, 170, 104), (120, 74, 44))


@dataclass(frozen=True)
class Shot:
    """How a picture is taken. kelvin: of the light; blur: points; tilt: degrees; noise: standard deviation of 255; shade: how dark a shadow
    on the ground is, 1 for none; uneven: how much darker one side is; exposure: times."""

    kelvin: float = 5500
    blur: float = 1.0
    tilt: float = 0.0
    noise: float = 3.0
    shade: float = 1.0
    uneven: float = 0.15
    exposure: float = 1.0
    quality: int = 85
    ground: tuple[int, int, int] = PAPER
    lens: float = 0.0


def usual(rng: random.Random) -> Shot:
    """A picture as it comes from somebody who was told how."""
    return Shot(
        kelvin=rng.uniform(2500, 7500),
        blur=rng.uniform(0.6, 1.8),
        tilt=rng.uniform(0, 30),
        noise=rng.uniform(1, 6),
        shade=rng.choice((1.0, 1.0, rng.uniform(0.55, 0.9))),
        uneven=rng.uniform(0, 0.3),
        exposure=rng.uniform(0.65, 1.1),
        quality=rng.choice((75, 85, 92)),
        ground=rng.choice((PAPER, PAPER, BOARD)),
        lens=rng.uniform(-LENS, LENS),
    )


def _white(kelvin: float) -> NDArray[np.float64]:
    """The colour of a light, its green at 1. Source: Planck's law at 600, 540 and 450 nm, against 6,500 K."""

    def planck(nanometres: float, heat: float) -> float:
        return 1 / (nanometres**5 * (math.exp(1.4388e7 / (nanometres * heat)) - 1))

    gains = np.array([planck(wave, kelvin) / planck(wave, 6500) for wave in (600, 540, 450)])
    return gains / gains[1]


def taken(flat: Image.Image, shot: Shot, rng: random.Random) -> Picture:
    """A flat drawing as a phone takes it."""
    image = flat
    if shot.tilt:
        image = _tilted(image, shot.tilt, rng, shot.ground)
    if shot.lens:
        image = _bent(image, shot.lens, shot.ground)
    light = ((np.arange(256) / 255) ** 2.2)[np.asarray(image)]
    rows, columns = np.mgrid[0 : light.shape[0], 0 : light.shape[1]]
    turn = rng.uniform(0, 2 * math.pi)
    along = (columns * math.cos(turn) + rows * math.sin(turn)) / math.hypot(*light.shape[:2])
    field = 1 - shot.uneven * (along - along.min()) / np.ptp(along)
    if shot.shade < 1:
        edge = rng.uniform(0.05, 0.2) if rng.random() < 0.5 else rng.uniform(0.8, 0.95)
        field = field * (1 - (1 - shot.shade) / (1 + np.exp(-((columns / light.shape[1]) - edge) * (-60 if edge < 0.5 else 60))))
    light = light * field[..., None] * _white(shot.kelvin) * shot.exposure / max(_white(shot.kelvin).max(), 1)
    coded = np.clip(light, 0, 1) ** (1 / 2.2) * 255
    noisy = coded + np.random.default_rng(rng.randrange(2**32)).normal(0, shot.noise, coded.shape)
    seen = Image.fromarray(np.clip(noisy, 0, 255).astype(np.uint8)).filter(ImageFilter.GaussianBlur(shot.blur))
    kept = io.BytesIO()
    seen.save(kept, "JPEG", quality=shot.quality)
    return np.asarray(Image.open(kept).convert("RGB"))


def _tilted(image: Image.Image, degrees: float, rng: random.Random, ground: tuple[int, int, int]) -> Image.Image:
    """A plane that leans away from the camera: what is further off is smaller."""
    wide, high = image.size
    lean = math.radians(degrees)
    far, squeezed = 1 / (1 + 0.35 * math.sin(lean)), math.cos(lean)
    top = high * (1 - squeezed) / 2
    corners = [(wide * (1 - far) / 2, top), (wide * (1 + far) / 2, top), (wide, high - top), (0.0, high - top)]
    if rng.random() < 0.5:
        corners = [corners[2], corners[3], corners[0], corners[1]]
    rows = []
    for (x, y), (u, v) in zip(corners, [(0, 0), (wide, 0), (wide, high), (0, high)], strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
    wanted = [value for corner in [(0, 0), (wide, 0), (wide, high), (0, high)] for value in corner]
    map_back = np.linalg.solve(np.array(rows, dtype=float), np.array(wanted, dtype=float))
    return image.transform(image.size, Image.Transform.PERSPECTIVE, list(map_back), Image.Resampling.BICUBIC, fillcolor=ground)


def _bent(image: Image.Image, lens: float, ground: tuple[int, int, int]) -> Image.Image:
    """Through a lens that bends straight lines: what lies off the middle is drawn inwards by the square of how far. Source: Brown (1966)."""
    wide, high = image.size
    middle = np.array([wide, high]) / 2

    def back(points: NDArray[np.float64]) -> NDArray[np.float64]:
        off = points - middle
        far = (off**2).sum(axis=1, keepdims=True) / (middle**2).sum()
        moved: NDArray[np.float64] = middle + off * (1 + lens * far)
        return moved

    steps = 8
    mesh = []
    for row in range(steps):
        for column in range(steps):
            box = (wide * column // steps, high * row // steps, wide * (column + 1) // steps, high * (row + 1) // steps)
            left, top, right, bottom = box
            corners = back(np.array([[left, top], [left, bottom], [right, bottom], [right, top]], dtype=float))
            mesh.append((box, tuple(corners.ravel())))
    return image.transform(image.size, Image.Transform.MESH, mesh, Image.Resampling.BICUBIC, fillcolor=ground)


@dataclass(frozen=True)
class Truth:
    lost: float
    discoloured: float


@dataclass
class Drawn:
    """A leaf that is being eaten and discoloured."""

    leaf: Leaf
    odd: BaseGeometry

    @property
    def left(self) -> BaseGeometry:
        return self.leaf.outline.difference(self.leaf.cut)

    @property
    def truth(self) -> Truth:
        left = self.left
        return Truth(self.leaf.lost, float(left.intersection(self.odd).area / left.area))


def eaten_leaf(rng: random.Random, lost: float, discoloured: float = 0.0, *, edge: str = "", form: str = "") -> Drawn:
    """A leaf with about so much lost, in holes; edge: "one" eats at one side too, "both" at both sides at the same height."""
    leaf = Leaf(replace(FORMS[form or rng.choice(("ovate", "broad", "slim"))], teeth=rng.choice((9, 17, 2))))
    inner = leaf.outline.buffer(-2.2)
    tries = 0
    if edge:
        for side in (1, -1)[: 1 if edge == "one" else 2]:
            for t in (0.3, 0.5, 0.68):
                at = leaf.at(t, side * 0.92)
                bite = svg.blob(rng, *at, rng.uniform(5, 9))
                half = Polygon([leaf.at(n / 40, 0.05 * side) for n in range(41)] + [leaf.at(n / 40, 3 * side) for n in range(40, -1, -1)])
                leaf.remove(bite.intersection(half.buffer(0)))
    while leaf.lost < lost and tries < 4000:
        tries += 1
        hole = svg.blob(rng, *leaf.anywhere(rng, 0.9), rng.uniform(1.4, 7)).intersection(inner)
        if leaf.lost < lost - 0.02 or hole.area < 0.02 * leaf.outline.area:
            leaf.remove(hole)
    # What hangs on nothing falls.
    pieces = getattr(leaf.outline.difference(leaf.cut), "geoms", [])
    for piece in sorted(pieces, key=lambda piece: piece.area)[:-1]:
        leaf.remove(piece.buffer(0.05))
    drawn = Drawn(leaf, Polygon())
    while discoloured and drawn.truth.discoloured < discoloured and tries < 6000:
        tries += 1
        drawn.odd = drawn.odd.union(svg.blob(rng, *leaf.anywhere(rng, 0.9), rng.uniform(3, 9)))
    return drawn


def laid(drawn: Drawn, rng: random.Random, ground: tuple[int, int, int] = PAPER, at: tuple[float, float] = (0.5, 0.5)) -> Image.Image:
    """A leaf as it lies flat on its ground, turned by chance."""
    scale, over = rng.uniform(7.0, 9.0), 2
    image = Image.new("RGB", (WIDE * over, HIGH * over), ground)
    pen = ImageDraw.Draw(image)
    turn = rng.uniform(0, 2 * math.pi)
    cx, cy = drawn.leaf.between(0.5)

    def put(points: object) -> list[tuple[float, float]]:
        placed = []
        for x, y in points:  # type: ignore[attr-defined]
            dx, dy = (x - cx) * scale * over, (y - cy) * scale * over
            placed.append(
                (
                    WIDE * over * at[0] + dx * math.cos(turn) - dy * math.sin(turn),
                    HIGH * over * at[1] + dx * math.sin(turn) + dy * math.cos(turn),
                )
            )
        return placed

    def fill(shape: BaseGeometry, colour: tuple[int, int, int]) -> None:
        for part in getattr(shape, "geoms", [shape]):
            if isinstance(part, Polygon) and not part.is_empty:
                pen.polygon(put(part.exterior.coords), colour)
                for ring in part.interiors:
                    pen.polygon(put(ring.coords), ground)

    green, odd = rng.choice(GREENS), rng.choice(FADED)
    left = drawn.left
    fill(left, green)
    darker = (int(green[0] * 0.86), int(green[1] * 0.88), int(green[2] * 0.86))
    fill(left.intersection(drawn.leaf.dark), darker)
    if not drawn.odd.is_empty:
        fill(left.intersection(drawn.odd), odd)
    for vein in drawn.leaf.veins():
        seen = LineString(vein).intersection(left.buffer(-0.4))
        for part in getattr(seen, "geoms", [seen]):
            if len(part.coords) > 1:
                pen.line(put(part.coords), (min(green[0] + 34, 255), min(green[1] + 30, 255), green[2] + 16), 3 * over)
    return image.resize((WIDE, HIGH), Image.Resampling.LANCZOS)


def on_each_other(rng: random.Random) -> Picture:
    """Two leaves of which one hides a part of the other."""
    shot = usual(rng)
    at = (0.5 + rng.uniform(-0.1, 0.1), 0.5 + rng.uniform(-0.1, 0.1))
    below = np.asarray(laid(eaten_leaf(rng, rng.uniform(0, 0.2)), rng, shot.ground))
    above = np.asarray(laid(eaten_leaf(rng, rng.uniform(0, 0.2)), rng, shot.ground, at))
    hides = (np.abs(above.astype(int) - np.array(shot.ground)).sum(axis=-1) > 30)[..., None]
    return taken(Image.fromarray(np.where(hides, above, below).astype(np.uint8)), shot, rng)


def leaf_picture(rng: random.Random, drawn: Drawn, shot: Shot | None = None) -> Picture:
    shot = shot or usual(rng)
    return taken(laid(drawn, rng, shot.ground), shot, rng)
