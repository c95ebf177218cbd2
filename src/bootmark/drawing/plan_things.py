"""What stands on the plan and is no block: water, houses, paths, lines overhead, gates, hives, single plants."""

from collections.abc import Callable

from shapely import Polygon

from bootmark import say
from bootmark.core.ground.features import FORMS
from bootmark.core.meanings import FeatureKind, Form
from bootmark.drawing import svg
from bootmark.drawing.palette import themed

Points = tuple[tuple[float, float], ...]
RINGS = {FeatureKind.WATER: "#c5d6de", FeatureKind.HOUSE: "#c9bfae", FeatureKind.NEIGHBOUR: "#efe9da"} | dict.fromkeys(
    (FeatureKind.INCOMING, FeatureKind.STORE), "#e0d3c4"
)
LINES = {
    FeatureKind.PATH: ("#b9a98a", 4.0, "none"),
    FeatureKind.POWER: ("#5a5d57", 1.4, "10 4 2 4"),
    FeatureKind.IRRIGATION: ("#4b7891", 1.6, "3 3"),
    FeatureKind.FENCE: ("#7a6a4f", 1.6, "1 5"),
}
WORDS = {
    FeatureKind.GATE: "gate",
    FeatureKind.HIVES: "hives",
    FeatureKind.POWER: "power line",
    FeatureKind.WATER: "water",
    FeatureKind.INCOMING: "incoming plants",
    FeatureKind.STORE: "store",
    FeatureKind.COMPOST: "compost",
}
"""What stands beside one without a name of its own."""
LETTER = 6.5
"""How wide a letter of a name is drawn."""


def _ring(kind: str, points: Points) -> str:
    dashes = {"stroke_dasharray": "4 3"} if kind == FeatureKind.NEIGHBOUR else {}
    return svg.path(svg.shape_d(Polygon(points)), RINGS[FeatureKind(kind)], themed.grey, 1.0, **dashes)


def _line(kind: str, points: Points) -> str:
    colour, width, dashes = LINES[FeatureKind(kind)]
    return svg.line(points, colour, width, stroke_dasharray=dashes)


def _spot(kind: str, points: Points) -> str:
    x, y = points[0]
    if kind == FeatureKind.PLANT:
        return svg.circle(x, y, 6, "#8fa873", themed.ink, 1.0)
    if kind == FeatureKind.HIVES:
        return svg.path(f"M{x - 6:.1f} {y + 5:.1f}v-7q6 -7 12 0v7Z", "#dcb45c", themed.ink, 1.2)
    if kind == FeatureKind.COMPOST:
        return svg.path(f"M{x - 8:.1f} {y + 4:.1f}q8 -16 16 0Z", "#8a7653", themed.ink, 1.0)
    return svg.circle(x, y, 5, themed.page, themed.boot, 2.0)


WAYS: dict[Form, Callable[[str, Points], str]] = {Form.RING: _ring, Form.LINE: _line, Form.SPOT: _spot}


def _middle(points: Points) -> tuple[float, float]:
    """In the middle of a line's middle stretch."""
    (x1, y1), (x2, y2) = points[(len(points) - 1) // 2], points[len(points) // 2 if len(points) > 2 else 1]
    return ((x1 + x2) / 2, (y1 + y2) / 2)


def drawn(kind: str, name: str, points: Points, right: float) -> str:
    """One of them with its name. points: as the plan is drawn; right: where it ends."""
    body = WAYS[FORMS[FeatureKind(kind)]](kind, points)
    word = name or say.line(WORDS.get(FeatureKind(kind), ""))
    x, y = _middle(points) if FORMS[FeatureKind(kind)] == Form.LINE else points[0]
    beyond = x + 6 + len(word) * LETTER > right
    place, anchor = (x - 6, "end") if beyond else (x + 6, "start")
    text = svg.text(word, round(place), round(y + 16), size=12, anchor=anchor, fill=themed.grey, halo=themed.paper)
    return body + (text if word else "")
