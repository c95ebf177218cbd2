"""A flat thing with four corners and of a known size, as paper or a card: found in a picture, and seen from straight above."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy import ndimage
from scipy.spatial import ConvexHull
from skimage import measure, transform

from bootmark.core import judgement
from bootmark.core.meanings import Pictured, Refusal, SheetSize
from bootmark.core.photo import light
from bootmark.core.photo.light import Floats, Mask, Picture, Unreadable

SIDES: dict[SheetSize, tuple[float, float]] = {
    SheetSize.A6: (148.0, 105.0),
    SheetSize.A5: (210.0, 148.0),
    SheetSize.A4: (297.0, 210.0),
    SheetSize.HALF_LETTER: (215.9, 139.7),
    SheetSize.LETTER: (279.4, 215.9),
    SheetSize.DROPS_NARROW: (76.0, 26.0),
    SheetSize.DROPS_WIDE: (76.0, 52.0),
    SheetSize.CARD_SMALL: (125.0, 75.0),
    SheetSize.CARD_MIDDLE: (200.0, 100.0),
    SheetSize.CARD_LONG: (250.0, 100.0),
    SheetSize.CARD_WIDE: (250.0, 200.0),
    SheetSize.DISH_SMALL: (60.0, 60.0),
    SheetSize.DISH_MIDDLE: (90.0, 90.0),
    SheetSize.DISH_LARGE: (150.0, 150.0),
}
"""Longer and shorter side, of dishes the diameter twice, millimetres. Source: ISO 216 and ANSI/ASME Y14.1 for paper; for cards and dishes
common practice, no source."""
ROUND = frozenset({SheetSize.DISH_SMALL, SheetSize.DISH_MIDDLE, SheetSize.DISH_LARGE})
OF: dict[Pictured, tuple[SheetSize, ...]] = {
    Pictured.PAPER: (SheetSize.A6, SheetSize.A5, SheetSize.A4, SheetSize.HALF_LETTER, SheetSize.LETTER),
    Pictured.DROPS: (SheetSize.DROPS_NARROW, SheetSize.DROPS_WIDE),
    Pictured.CARD: (
        SheetSize.CARD_MIDDLE,
        SheetSize.CARD_LONG,
        SheetSize.CARD_WIDE,
        SheetSize.CARD_SMALL,
        SheetSize.DISH_SMALL,
        SheetSize.DISH_MIDDLE,
        SheetSize.DISH_LARGE,
    ),
}
"""What each kind of picture is taken of."""
FIND_AT = 900
"""Points of the longest side at which a sheet is looked for."""
NEAR_CORNER = 0.08
"""Share of a side at either end that does not tell where the side runs: corners are bent and rounded."""


@dataclass(frozen=True)
class Lies:
    """How a sheet lies in a picture of so many rows. shape: rows along its short side and columns along its long one, from straight above;
    scale: points for each millimetre there; dish: it is round."""

    way: Floats
    rows: int
    shape: tuple[int, int]
    scale: float
    dish: bool = False

    def into(self, rows: int) -> transform.ProjectiveTransform:
        """The map from the sheet to the picture, or to the same made smaller, of so many rows."""
        smaller = rows / self.rows
        return transform.ProjectiveTransform(np.diag([smaller, smaller, 1.0]) @ self.way)

    def above(self, channel: Floats) -> Floats:
        """One channel of the picture, or of the same made smaller, as it is seen from straight above the sheet."""
        way = self.into(len(channel))
        seen: Floats = transform.warp(channel, way, output_shape=self.shape, order=1, mode="edge", preserve_range=True)
        return seen

    def inner(self, margin: float) -> Mask:
        """What of it, from straight above, lies further from its edge than a margin in millimetres."""
        inner: Mask
        if self.dish:
            rows, columns = (np.arange(side) + 0.5 - side / 2 for side in self.shape)
            inner = np.hypot(rows[:, None], columns[None]) < self.shape[0] / 2 - margin * self.scale
        else:
            inner = np.zeros(self.shape, dtype=bool)
            edge = max(1, int(margin * self.scale))
            inner[edge:-edge, edge:-edge] = True
        return inner

    def over_the_edge(self, step: Floats) -> Iterator[Floats]:
        """Lines that cross its edge, from straight above, at places all along it. step: how far off the edge, points."""
        rows, columns = self.shape
        if self.dish:
            for turn in np.linspace(0, 2 * np.pi, 4 * EDGE_PLACES, endpoint=False):
                yield rows / 2 + (rows / 2 + step)[:, None] * np.array([np.cos(turn), np.sin(turn)])
            return
        for share in np.linspace(0.15, 0.85, EDGE_PLACES):
            yield np.stack([np.full_like(step, share * columns), step], axis=-1)
            yield np.stack([np.full_like(step, share * columns), rows + step], axis=-1)
            yield np.stack([step, np.full_like(step, share * rows)], axis=-1)
            yield np.stack([columns + step, np.full_like(step, share * rows)], axis=-1)


def seen_at(place: Lies, points: Floats, size: tuple[int, ...]) -> Floats:
    """Points of a sheet, millimetres along its sides, as shares of the width and the height of the picture. size: its rows and columns."""
    if not len(points):
        return np.zeros((0, 2))
    seen: Floats = place.into(place.rows)(points * place.scale) / [size[1], size[0]]
    return seen


def in_colour_of_its_middle(picture: Picture) -> Mask:
    """What has the colour of the picture's middle and hangs together there; holes in it are filled. The picture may be of any size."""
    small = light.fitted(picture, FIND_AT)
    if float(np.quantile(small, 0.9)) < judgement.SHEET_DARK:
        raise Unreadable(Refusal.DARK)
    lab = light.lab(light.linear(small))
    rows, columns = lab.shape[:2]
    middle = lab[rows * 3 // 8 : rows * 5 // 8, columns * 3 // 8 : columns * 5 // 8].reshape(-1, 3)
    own = np.median(middle, axis=0)
    off = np.hypot(lab[..., 1] - own[1], lab[..., 2] - own[2])
    like: Mask = (off < judgement.SHEET_COLOUR) & (np.abs(lab[..., 0] - own[0]) < judgement.SHEET_LIGHT)
    return like


def lies(mask: Mask, rows: int, sides: tuple[float, float], most_scale: float) -> Lies:
    """How a sheet lies of which a mask shows where it is.

    mask: of the picture, or of the same made smaller; rows: those of the picture; sides: the sheet's longer and shorter side, millimetres;
    most_scale: points a millimetre at the most. Raises Unreadable where it has no four straight sides, is cut, too small, or leans too
    much. Source: the plane's projective map by four corners, Hartley and Zisserman (2004), chapter 4.
    """
    corners = _corners(mask) * (rows / mask.shape[0])
    lengths = np.hypot(*(corners - np.roll(corners, -1, axis=0)).T)
    # Clockwise from the top left; the first side is to be a long one.
    if lengths[0] + lengths[2] < lengths[1] + lengths[3]:
        corners, lengths = np.roll(corners, 1, axis=0), np.roll(lengths, 1)
    long, short = sides
    scale = float(min(most_scale, (lengths[0] + lengths[2]) / 2 / long))
    wanted = np.array([[0, 0], [long, 0], [long, short], [0, short]]) * scale
    way = transform.estimate_transform("projective", wanted, corners)
    if not way or _leans(way, np.array([long, short]) * scale / 2):
        raise Unreadable(Refusal.TILTED)
    return Lies(way.params, rows, (round(short * scale), round(long * scale)), scale)


def blur(place: Lies, grey: Floats) -> float:
    """How wide the step from the sheet to its ground is drawn out, millimetres: blur, since a sheet's edge has no width.

    grey: the picture that it lies in, or the same made smaller.
    """
    way = place.into(len(grey))
    reach = judgement.EDGE_REACH * place.scale
    widths = []
    for line in place.over_the_edge(np.arange(-reach, reach, 0.5)):
        x, y = way(line).T
        profile = ndimage.map_coordinates(grey, [y, x], order=1, mode="nearest")
        steepest = np.abs(np.diff(profile)).max() / 0.5
        widths.append(float(np.ptp(profile) / max(steepest, 1e-6)) / place.scale)
    return float(np.median(widths))


EDGE_PLACES = 12
"""Places along each side at which its edge is looked at."""


def _leans(way: transform.ProjectiveTransform, middle: Floats) -> bool:
    """Whether the sheet leans so much that one direction is far shorter than the other. middle: where the sheet's middle lies."""
    step = np.array([[1.0, 0.0], [0.0, 1.0]])
    spread = way(middle + step) - way(middle[None])
    long, short = np.linalg.svd(spread, compute_uv=False)
    return bool(short < judgement.SHEET_LEAN * long)


def dish_lies(mask: Mask, rows: int, diameter: float, most_scale: float) -> Lies:
    """How a round dish lies; as for a sheet, but for the view: an ellipse tells which way a dish leans, not which side is nearer.

    diameter: millimetres. Sizes at its near and far side are off by as much as the phone is nearer there. Raises Unreadable where it is not
    round, is cut, too small, or leans too much. Source: least squares of an ellipse, Halir and Flusser (1998).
    """
    part = _whole_part(mask, Refusal.NO_DISH)
    outline = _outline(part) * (rows / mask.shape[0])
    ellipse = measure.EllipseModel.from_estimate(outline)
    if not ellipse:
        raise Unreadable(Refusal.NO_DISH)
    axes = np.array(ellipse.axis_lengths)
    turn = np.array([[np.cos(ellipse.theta), -np.sin(ellipse.theta)], [np.sin(ellipse.theta), np.cos(ellipse.theta)]])
    off = np.hypot(*((outline - ellipse.center) @ turn / axes).T) - 1
    if np.quantile(np.abs(off), 0.9) > judgement.SHEET_BENT:
        raise Unreadable(Refusal.NO_DISH)
    if axes.min() < judgement.SHEET_LEAN * axes.max():
        raise Unreadable(Refusal.TILTED)
    scale = float(min(most_scale, 2 * axes.mean() / diameter))
    way = np.eye(3)
    # It is squeezed along its own axes, and turned back: the picture above it stands as the one that was taken.
    way[:2, :2] = turn @ np.diag(axes) @ turn.T / (diameter * scale / 2)
    way[:2, 2] = np.array(ellipse.center) - way[:2, :2] @ np.full(2, diameter * scale / 2)
    side = round(diameter * scale)
    return Lies(way, rows, (side, side), scale, dish=True)


def _whole_part(mask: Mask, none: Refusal) -> Mask:
    """A mask's largest part with its holes filled. none: why, where there is no such part. Raises Unreadable where it is too small, or goes
    over the picture's edge."""
    labels, count = ndimage.label(ndimage.binary_opening(mask, iterations=2))
    if not count:
        raise Unreadable(none)
    sizes = ndimage.sum_labels(mask, labels, range(1, count + 1))
    part: Mask = ndimage.binary_fill_holes(labels == int(np.argmax(sizes)) + 1)
    if part.sum() < judgement.SHEET_LEAST * mask.size:
        raise Unreadable(none)
    over = sum(edge.sum() > 2 for edge in (part[0], part[-1], part[:, 0], part[:, -1]))
    if over:
        raise Unreadable(Refusal.CUT if over < 3 else none)
    return part


def _outline(part: Mask) -> Floats:
    """The points of a mask's edge, x and y."""
    points: Floats = np.argwhere(part & ~ndimage.binary_erosion(part))[:, ::-1].astype(np.float64)
    return points


def _corners(mask: Mask) -> Floats:
    """The four corners of a mask's largest part, x and y, clockwise from the top left. Raises Unreadable."""
    part = _whole_part(mask, Refusal.NO_SHEET)
    outline = _outline(part)
    rough = _four(outline[ConvexHull(outline).vertices])
    corners = _refined(outline, rough)
    filled = part.sum() / max(measure.points_in_poly(np.argwhere(np.ones_like(part))[:, ::-1], corners).sum(), 1)
    if not judgement.SHEET_FILLS < filled < 1 / judgement.SHEET_FILLS:
        raise Unreadable(Refusal.NO_SHEET)
    return corners


def _four(hull: Floats) -> Floats:
    """The four corners of a convex outline, clockwise from the top left in a picture whose rows go down: the points that lie furthest into
    the corners of the smallest rectangle about it."""
    sides = np.roll(hull, -1, axis=0) - hull
    turns = np.arctan2(sides[:, 1], sides[:, 0])
    along, across = np.stack([np.cos(turns), np.sin(turns)]), np.stack([-np.sin(turns), np.cos(turns)])
    best = int((np.ptp(hull @ along, axis=0) * np.ptp(hull @ across, axis=0)).argmin())
    places = np.stack([hull @ along[:, best], hull @ across[:, best]], axis=-1)
    places = (places - places.min(axis=0)) / np.ptp(places, axis=0)
    corners = [hull[int(np.hypot(*(places - corner).T).argmin())] for corner in ([0, 0], [1, 0], [1, 1], [0, 1])]
    around = np.array(corners)
    return np.roll(around, -int(np.argmin(around.sum(axis=1))), axis=0)


def _refined(outline: Floats, rough: Floats) -> Floats:
    """Corners as the crossings of four straight lines through the outline's points, without those near the corners."""
    lines = []
    for start, end in zip(rough, np.roll(rough, -1, axis=0), strict=True):
        along = (end - start) / np.hypot(*(end - start))
        place, off = (outline - start) @ along, (outline - start) @ np.array([-along[1], along[0]])
        share = place / np.hypot(*(end - start))
        near = (share > NEAR_CORNER) & (share < 1 - NEAR_CORNER) & (np.abs(off) < judgement.SHEET_BENT * np.hypot(*(end - start)))
        for _ in range(3):
            if near.sum() < 10:
                raise Unreadable(Refusal.NO_SHEET)
            slope, height = np.polyfit(place[near], off[near], 1)
            far = np.abs(off - slope * place - height)
            near &= far < max(1.0, 2.5 * float(np.median(far[near])))
        first = start + height * np.array([-along[1], along[0]])
        second = first + along + slope * np.array([-along[1], along[0]])
        lines.append((first, second - first))
    corners = []
    for (first, along), (other, across) in zip([lines[-1], *lines[:-1]], lines, strict=True):
        matrix = np.stack([along, -across], axis=1)
        if abs(np.linalg.det(matrix)) < NEAR_CORNER:
            raise Unreadable(Refusal.NO_SHEET)
        corners.append(first + along * np.linalg.solve(matrix, other - first)[0])
    return np.array(corners)


def even(grey: Floats, scale: float, most: float) -> Floats:
    """How much darker each point is than the ground about it: 0 as the ground, 1 black.

    grey: 0 to 1; scale: points a millimetre; most: millimetres of the largest thing that lies there. What is larger counts as ground.
    """
    size = round(2.2 * most * scale) | 1
    ground = ndimage.uniform_filter(ndimage.grey_closing(ndimage.uniform_filter(grey, 3), size), size)
    darker: Floats = 1 - grey / np.maximum(ground, 1e-3)
    return darker - np.median(darker)
