"""The farm plan: blocks as they lie, rows drawn by their place, and a walking line."""

import functools
import math
from collections.abc import Mapping, Sequence
from html import escape

import shapely
from shapely import affinity
from shapely.geometry import LineString, Polygon

from bootmark import say
from bootmark.core.meanings import FeatureKind
from bootmark.drawing import plan_things, svg
from bootmark.drawing.palette import themed

FILLS = {"orchard": "#dfe3cb", "field": "#eadfc4", "tunnel": "#e3e6e4", "greenhouse": "#e3e6e4", "bed": "#e2dccb", "container": "#e2dccb"}
ROW_GAP = {"orchard": 13.0, "field": 7.0, "tunnel": 9.0, "greenhouse": 9.0, "bed": 6.0, "container": 8.0}
TREE_GAP = 13.0
MOST_ROWS, MOST_TREES = 60, 60
"""Of one block: more would be no picture, and takes long on a block of kilometres."""
WIDE, TALL = 640.0, 400.0
"""What a plan's longer side is drawn as, whatever its metres: letters, rows and markers keep their size on a bed and on a valley."""
FEW, LETTER = 24, 7.5
"""Blocks up to which each bears its name; beyond, those that have room for it, with so much for a letter."""
Rows = tuple[float, float | None]
"""How rows lie: degrees from north, and metres from row to row where that is told."""
Shape = tuple[str, str, str, tuple[tuple[float, float], ...], Rows | None]
"""A block: its id, name, place, outline in metres and rows."""
Under = tuple[str, int, int, tuple[float, ...]]
"""A picture under the plan: where it is, its width and height, and how it lies there, as SVG has it, in metres."""
LEAST = 20.0
"""Metres that a plan shows at least."""


def _lie(shape: Polygon, rows: Rows | None) -> tuple[float, float, float]:
    """How rows lie in a block: their turn on the plan in degrees, how long they may be, how wide all of them are together."""
    if rows:
        # The plan's south is down: a row towards the north points up.
        level = affinity.rotate(shape, 90 - rows[0], "centroid")
        left, top, right, bottom = level.bounds
        return rows[0] - 90, right - left, bottom - top
    corners = [(x, y) for x, y, *_ in shapely.get_coordinates(shape.minimum_rotated_rectangle)[:3]]
    first, second = math.dist(corners[0], corners[1]), math.dist(corners[1], corners[2])
    start, end = (corners[0], corners[1]) if first >= second else (corners[1], corners[2])
    return math.degrees(math.atan2(end[1] - start[1], end[0] - start[0])), max(first, second), min(first, second)


@functools.lru_cache(maxsize=512)
def _rows(outline: tuple[tuple[float, float], ...], place: str, lie: Rows | None = None, scale: float = 1.0) -> str:
    """Rows as they lie, or along a block's longer side; trees as dots, crops as lines."""
    shape = Polygon(outline)
    turn, length, width = _lie(shape, lie)
    middle = shape.centroid
    gap = scale * lie[1] if lie and lie[1] else ROW_GAP[place]
    gap, tree_gap = max(gap, width / MOST_ROWS), max(TREE_GAP, length / MOST_TREES)
    parts = []
    inner = shape.buffer(-3)
    for n in range(int(width / gap)):
        y = middle.y - width / 2 + gap * (n + 0.5)
        row = affinity.rotate(
            LineString([(middle.x - length / 2, y), (middle.x + length / 2, y)]), turn, (middle.x, middle.y)
        ).intersection(inner)
        if row.is_empty or row.geom_type != "LineString":
            continue
        if place == "orchard":
            for step in range(int(row.length / tree_gap)):
                spot = row.interpolate(tree_gap * (step + 0.5))
                parts.append(svg.circle(spot.x, spot.y, 3.6, "#8fa873"))
        else:
            dash = {"stroke_dasharray": "5 3"} if place == "field" else {}
            parts.append(
                svg.line(
                    [(x, y) for x, y in row.coords], "#9caf7d" if place != "tunnel" else "#8fa873", 2.0 if place != "field" else 1.6, **dash
                )
            )
    return "".join(parts)


Spot = tuple[float, float, str, bool]
Thing = tuple[str, str, tuple[tuple[float, float], ...]]
"""What is no block: its kind, its name, its points."""


def plan_svg(
    blocks: tuple[Shape, ...],
    stops: Sequence[str] = (),
    marks: Mapping[str, str] | None = None,
    links: Mapping[str, str] | None = None,
    spots: Sequence[Spot] = (),
    things: Sequence[Thing] = (),
    gate: tuple[float, float] | None = None,
    under: Under | None = None,
) -> str:
    """The plan as SVG, from metres east and south.

    stops: block ids in walking order, from the gate; marks: block id to "must" or "wait"; links: block id to where a click on it leads;
    spots: traps as x, y, name, whether one waits; things: what stands there and is no block; under: a picture.
    """
    shown = (tuple(stops), tuple((marks or {}).items()), tuple((links or {}).items()), tuple(spots), tuple(things), gate, under)
    return _drawn(blocks, *shown, say.tongue().language)


def _scale(blocks: tuple[Shape, ...], things: tuple[Thing, ...]) -> float:
    """How large a metre is drawn."""
    corners = [point for *_, outline, _ in blocks for point in outline] or [point for *_, points in things for point in points]
    corners = corners or [(0.0, 0.0)]
    wide = max(x for x, _ in corners) - min(x for x, _ in corners)
    tall = max(y for _, y in corners) - min(y for _, y in corners)
    return min(WIDE / max(wide, LEAST), TALL / max(tall, LEAST))


def _picture(under: Under, scale: float) -> str:
    href, width, height, lies = under
    numbers = " ".join(f"{scale * number:.6g}" for number in lies)
    return f'<image href="{escape(href)}" width="{width}" height="{height}" opacity="0.55" transform="matrix({numbers})"/>'


@functools.lru_cache(maxsize=256)
def _drawn(
    shapes: tuple[Shape, ...],
    stops: tuple[str, ...],
    marked: tuple[tuple[str, str], ...],
    linked: tuple[tuple[str, str], ...],
    spots: tuple[Spot, ...],
    standing: tuple[Thing, ...],
    start: tuple[float, float] | None,
    under: Under | None,
    _language: str,
) -> str:
    marks, links, scale = dict(marked), dict(linked), _scale(shapes, standing)
    blocks = [
        (block_id, name, place, tuple((scale * x, scale * y) for x, y in outline), lie) for block_id, name, place, outline, lie in shapes
    ]
    things = [(kind, name, tuple((scale * x, scale * y) for x, y in points)) for kind, name, points in standing]
    gate = (scale * start[0], scale * start[1]) if start and stops else None
    corners = [point for *_, outline, _ in blocks for point in outline] + [point for *_, points in things for point in points]
    corners = [*corners, *([gate] if gate else [])] or [(0.0, 0.0), (100.0, 60.0)]
    left, right = min(x for x, _ in corners) - 22, max(x for x, _ in corners) + 14
    top, bottom = min(y for _, y in corners) - 14, max(y for _, y in corners) + 14
    parts = [_picture(under, scale)] if under else []
    parts += [plan_things.drawn(kind, name, points, right) for kind, name, points in things]
    middles = {}
    for block_id, name, place, outline, lie in blocks:
        shape = Polygon(outline)
        middles[block_id] = (shape.centroid.x, shape.centroid.y)
        mark = marks.get(block_id, "")
        stroke, width = {"must": (themed.boot, 3.2), "wait": (themed.slate, 1.6)}.get(mark, (themed.ink, 1.2))
        # Over a picture a block is its outline: what grows there can be seen.
        fill = "none" if under else FILLS[place]
        body = svg.path(svg.shape_d(shape), fill, stroke, width) + ("" if under else _rows(outline, place, lie, scale))
        x, y = outline[0]
        fits = len(blocks) <= FEW or len(name) * LETTER < shape.bounds[2] - shape.bounds[0]
        text = svg.text(name, round(x + 6), round(y + 17), size=14, weight="700", fill=themed.ink, halo=themed.paper) if fits else ""
        link = links.get(block_id)
        parts.append(f'<a href="{escape(link)}" aria-label="{escape(name)}">{body}{text}</a>' if link else body + text)
    if stops:
        line = [middles[block_id] for block_id in stops if block_id in middles]
        line = [gate, *line, gate] if gate and line else line
        if len(line) > 1:
            parts.append(svg.line(line, themed.boot, 2.4, stroke_dasharray="7 5"))
        if gate and not any(kind == FeatureKind.GATE for kind, _, _ in things):
            parts.append(
                svg.circle(*gate, 6, themed.page, themed.boot, 2.4)
                + svg.text(say.line("gate"), round(gate[0] - 12), round(gate[1] + 22), size=12, fill=themed.ink)
            )
        for n, block_id in enumerate(stops, 1):
            if block_id not in middles:
                continue
            x, y = middles[block_id]
            parts.append(
                svg.circle(x, y, 13, themed.boot)
                + svg.text(n, round(x), round(y + 5), size=15, anchor="middle", weight="700", fill=themed.page)
            )
    for east, south, name, waits in spots:
        x, y = scale * east, scale * south
        parts.append(
            svg.path(
                f"M{x - 9:.1f} {y + 7:.1f}L{x:.1f} {y - 8:.1f}L{x + 9:.1f} {y + 7:.1f}Z",
                themed.boot if waits else themed.page,
                themed.boot,
                2,
            )
        )
        parts.append(svg.text(name, round(x), round(y + 22), size=13, anchor="middle", weight="700", fill=themed.ink, halo=themed.paper))
    title = "Plan of the farm with its traps" if spots else "Plan of the farm"
    return svg.document(
        "".join(parts),
        say.line("Plan of the farm with today's walk" if stops else title),
        f"{left:.0f} {top:.0f} {right - left:.0f} {bottom - top:.0f}",
        "group" if links else "img",
    )
