"""Small pieces of SVG, and the colours that all drawings share."""

import itertools
import math
import random
from collections.abc import Iterable, Sequence
from html import escape

from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry.base import BaseGeometry

from bootmark.drawing.palette import plain

Point = tuple[float, float]

INK, BOOT, SLATE, MOSS, OCHRE, RUST = plain.ink, plain.boot, plain.slate, plain.moss, plain.ochre, plain.rust
PAPER, PAGE, RULE = plain.paper, plain.page, plain.rule
GREEN, DARK_GREEN, VEIN, UNDER, DARK_UNDER = "#6f9350", "#5d8040", "#cfdcb5", "#a9bd8c", "#98ad7c"
DRY, PALE, WHITE = "#8a5a2a", "#eef0cf", "#fbfaf3"
STEM, SOIL, DARK_SOIL, ROOT = "#56743b", "#dcc9b0", "#b79a76", "#8b6a45"


def path(d: str, fill: str = "none", stroke: str = "none", width: float = 1.0, **more: str | float) -> str:
    extra = "".join(f' {name.replace("_", "-")}="{value}"' for name, value in more.items())
    line = f' stroke="{stroke}" stroke-width="{width:g}" stroke-linecap="round" stroke-linejoin="round"' if stroke != "none" else ""
    return f'<path d="{d}" fill="{fill}"{line}{extra}/>'


def circle(x: float, y: float, r: float, fill: str, stroke: str = "none", width: float = 1.0) -> str:
    line = f' stroke="{stroke}" stroke-width="{width:g}"' if stroke != "none" else ""
    return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.2f}" fill="{fill}"{line}/>'


def ellipse(x: float, y: float, rx: float, ry: float, fill: str, *, turn: float = 0.0, stroke: str = "none", width: float = 1.0) -> str:
    line = f' stroke="{stroke}" stroke-width="{width:g}"' if stroke != "none" else ""
    spin = f' transform="rotate({turn:.0f} {x:.1f} {y:.1f})"' if turn else ""
    return f'<ellipse cx="{x:.1f}" cy="{y:.1f}" rx="{rx:.2f}" ry="{ry:.2f}" fill="{fill}"{line}{spin}/>'


def line(points: Iterable[Point], stroke: str, width: float = 1.0, **more: str | float) -> str:
    return path(open_d(points), "none", stroke, width, **more)


def open_d(points: Iterable[Point]) -> str:
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points)


def smooth_d(points: Sequence[Point]) -> str:
    """A curve through the middles of the lines between points."""
    d = f"M{points[0][0]:.1f} {points[0][1]:.1f}"
    for here, two in itertools.pairwise(points):
        d += f"Q{here[0]:.1f} {here[1]:.1f} {(here[0] + two[0]) / 2:.1f} {(here[1] + two[1]) / 2:.1f}"
    return d + f"L{points[-1][0]:.1f} {points[-1][1]:.1f}"


def shape_d(shape: BaseGeometry) -> str:
    """The outline of a polygon or several, holes included."""
    parts = shape.geoms if isinstance(shape, MultiPolygon) else [shape] if isinstance(shape, Polygon) else []
    rings = [ring for part in parts if not part.is_empty for ring in (part.exterior, *part.interiors)]
    return "".join("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in list(ring.coords)[:-1]) + "Z" for ring in rings)


def blob(rng: random.Random, x: float, y: float, r: float, rough: float = 0.3, count: int = 9) -> Polygon:
    """A ragged round patch."""
    turn = rng.random() * math.tau
    return Polygon(
        [
            (
                x + r * (1 + rough * rng.uniform(-1, 1)) * math.cos(turn + n * math.tau / count),
                y + r * (1 + rough * rng.uniform(-1, 1)) * math.sin(turn + n * math.tau / count),
            )
            for n in range(count)
        ]
    )


def text(words: object, x: float, y: float, *, size: int = 0, anchor: str = "", weight: str = "", fill: str = "", halo: str = "") -> str:
    """Words at a place: the one way to put them into a drawing, so that none is ever taken for markup. halo: a colour round the letters."""
    given = {"x": f"{x:g}", "y": f"{y:g}", "text-anchor": anchor, "font-size": str(size or ""), "font-weight": weight}
    if halo:
        given |= {"paint-order": "stroke", "stroke": halo, "stroke-width": "4"}
    given["fill"] = fill
    attributes = "".join(f' {name}="{value}"' for name, value in given.items() if value)
    return f"<text{attributes}>{escape(str(words))}</text>"


def document(body: str, title: str, box: str = "0 0 120 140", role: str = "img") -> str:
    """A drawing by itself. role: "group" where it holds links."""
    said = escape(title)
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{box}" role="{role}" aria-label="{said}"><title>{said}</title>{body}</svg>'
