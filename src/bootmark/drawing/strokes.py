"""Stages of life over time, their colours and textures, as plain strokes: a browser paints them many times faster than patterns."""

import functools
from collections.abc import Sequence

import numpy as np
import shapely
from shapely import LineString, MultiLineString, Polygon

from bootmark.drawing import svg
from bootmark.drawing.palette import themed

COLOURS = {stage: getattr(themed, stage) for stage in ("egg", "larva", "nymph", "pupa", "adult")}
NOTHING = 0.15
"""Less than this above its base, in units of the sheet, is not drawn."""
LINE = int(shapely.GeometryType.LINESTRING)
TRUE_TO = 0.3
"""How far a drawn curve may lie from the reckoned one, in units of the sheet."""
HATCH = {
    "larva": (((8.0, 35.0),), themed.larva_line, 3.0),
    "nymph": (((8.0, 35.0),), themed.larva_line, 3.0),
    "pupa": (((8.5, 45.0), (8.5, -45.0)), themed.pupa_line, 1.6),
}
"""Sets of lines (how far apart, degrees from upright), their colour and width, by stage; an adult is plain and an egg dotted."""


def _d(points: np.ndarray) -> str:
    """Points as a path, each after the first told from the one before."""
    tenths = np.rint(10 * points).astype(int)
    steps = np.diff(tenths, axis=0).tolist()
    return f"M{tenths[0, 0] / 10:g} {tenths[0, 1] / 10:g}" + (f"l{' '.join(f'{x / 10:g} {y / 10:g}' for x, y in steps)}" if steps else "")


def _pieces(tenths: np.ndarray, ends: np.ndarray) -> str:
    """Straight pieces as a path; tenths: places in tenths of a unit, ends: the same shape (pieces, 2), where each piece ends."""
    rows = np.hstack([tenths, ends - tenths]).tolist()
    return "".join(f"M{x / 10:g} {y / 10:g}l{across / 10:g} {down / 10:g}" for x, y, across, down in rows)


def humps(points: np.ndarray, base: float) -> list[np.ndarray]:
    """The stretches of a curve that rise above its base, thinned; points: shape (days, 2)."""
    above = points[:, 1] < base - NOTHING
    near = above.copy()
    near[1:] |= above[:-1]
    near[:-1] |= above[1:]
    turns = np.flatnonzero(np.diff(np.concatenate(([False], near, [False])).astype(int)))
    stretches = [points[start:end] for start, end in zip(turns[::2], turns[1::2], strict=True) if end - start > 1]
    return [np.asarray(LineString(stretch).simplify(TRUE_TO).coords) for stretch in stretches]


def lines(humps: Sequence[np.ndarray]) -> str:
    return "".join(_d(hump) for hump in humps)


def filled(humps: Sequence[np.ndarray], base: float) -> str:
    """Each stretch closed down to the base."""
    return "".join(f"{_d(hump)}V{base:g}H{hump[0, 0]:.1f}Z" for hump in humps)


def dashes(points: np.ndarray, base: float, on: float, off: float) -> str:
    """A curve in dashes about so long and so far apart, nothing where it lies on its base."""
    if len(points) < 2:
        return ""
    step = points[1, 0] - points[0, 0]
    draw, skip = max(round(on / step), 1), max(round(off / step), 1)
    starts = np.arange(0, len(points) - draw, draw + skip)
    above = points[:, 1] < base - NOTHING
    tenths = np.rint(10 * points).astype(int)
    if draw == 1:
        shown = starts[above[starts] | above[starts + 1]]
        return _pieces(tenths[shown], tenths[shown + 1])
    return "".join(_d(points[n : n + draw + 1]) for n in starts if above[n : n + draw + 1].any())


def under(humps: Sequence[np.ndarray], base: float) -> list[Polygon]:
    """What the stretches of a curve fill down to their base."""
    return [Polygon([*hump, (hump[-1, 0], base), (hump[0, 0], base)]) for hump in humps]


def between(upper: np.ndarray, lower: np.ndarray) -> list[Polygon]:
    """What lies between two curves over the same days, thinned, in as many pieces as there are."""
    shape = Polygon([*upper, *lower[::-1]]).buffer(0).simplify(TRUE_TO)
    return [part for part in shapely.get_parts(shape) if isinstance(part, Polygon) and part.area > NOTHING]


def outline(shapes: Sequence[Polygon]) -> str:
    return "".join(f"{_d(np.asarray(shape.exterior.coords)[:-1])}Z" for shape in shapes)


def texture(stage: str, shapes: Sequence[Polygon]) -> str:
    """What tells a stage apart without its colour, over the shapes that it fills."""
    parts = []
    for region in shapes:
        shape = region.buffer(0)
        if stage == "egg":
            parts.append(_dots(shape))
        elif stage in HATCH:
            parts += [_hatch(shape, *lie) for lie in HATCH[stage][0]]
    d = "".join(parts)
    if not d:
        return ""
    if stage == "egg":
        return svg.path(d, stroke=themed.egg_line, width=2.2)
    _, colour, width = HATCH[stage]
    return f'<path d="{d}" fill="none" stroke="{colour}" stroke-width="{width:g}"/>'


def _dots(shape: Polygon) -> str:
    left, top, right, bottom = shape.bounds
    y, x = np.mgrid[np.floor(top / 3.5) * 3.5 : bottom : 3.5, np.floor(left / 7) * 7 : right : 7]
    x = x + 3.5 * (np.rint(y / 3.5).astype(int) % 2)
    inside = shapely.contains_xy(shape.buffer(-0.8), x, y)
    return "".join(f"M{a:g} {b:g}h0" for a, b in zip(x[inside].tolist(), y[inside].tolist(), strict=True))


@functools.lru_cache(maxsize=64)
def _ruled(top: int, bottom: int, left: int, right: int, apart: float, degrees: float) -> MultiLineString:
    """Parallel lines over a box, at places that do not hang on the box."""
    lean = np.tan(np.radians(degrees)) * (bottom - top)
    pitch = apart / np.cos(np.radians(degrees))
    first = np.floor((left - max(lean, 0)) / pitch) * pitch
    return MultiLineString([((x, bottom), (x + lean, top)) for x in np.arange(first, right - min(lean, 0), pitch)])


def _hatch(shape: Polygon, apart: float, degrees: float) -> str:
    left, top, right, bottom = shape.bounds
    box = int(top // 10) * 10, int(bottom // 10 + 1) * 10, int(left // 50) * 50, int(right // 50 + 1) * 50
    ruled = _ruled(*box, apart, degrees)
    parts = shapely.get_parts(shapely.intersection(shape, ruled))
    # A line that only touches the outline leaves a point; all others run straight from edge to edge.
    parts = parts[shapely.get_type_id(parts) == LINE]
    starts, ends = (np.rint(10 * shapely.get_coordinates(shapely.get_point(parts, place))).astype(int) for place in (0, -1))
    return _pieces(starts, ends)
