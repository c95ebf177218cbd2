"""What a plant bears, hung at a place: drawn for the plant to point at."""

import math

from bootmark.core.catalogue.shapes import Bears
from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, turned

STALK = "#56743b"


def fruit(bears: Bears, x: float, y: float, size: float = 14) -> str:
    """It hangs from a place by its stalk; an ear and a cob stand up."""
    return turned(x, y, 0, DRAW[bears](size))


def _stalk(size: float) -> str:
    return svg.path(f"M0 {-size * 0.6:.1f}q1 {size * 0.3:.1f} 0 {size * 0.6:.1f}", stroke=STALK, width=2)


def _round(size: float, colour: str, crease: bool = False) -> str:
    line = svg.path(f"M0 0q{-size * 0.4:.1f} {size * 0.9:.1f} 0 {size * 1.9:.1f}", stroke="#00000044", width=1.4) if crease else ""
    shine = svg.circle(-size * 0.35, size * 0.65, size * 0.2, "#ffffff88")
    return _stalk(size) + svg.circle(0, size, size, colour, LINE) + line + shine


def _pome(size: float) -> str:
    d = f"M0 0C{-size * 0.5:.1f} 0 {-size * 0.4:.1f} {size * 0.6:.1f} {-size * 0.8:.1f} {size:.1f}C{-size * 1.2:.1f} {size * 2:.1f} {size * 1.2:.1f} {size * 2:.1f} {size * 0.8:.1f} {size:.1f}"
    return _stalk(size) + svg.path(d + f"C{size * 0.4:.1f} {size * 0.6:.1f} {size * 0.5:.1f} 0 0 0Z", "#b9ae45", LINE)


def _cluster(size: float) -> str:
    beads = ((0, 0.5), (-0.5, 0.8), (0.5, 0.8), (0, 1.1), (-0.45, 1.4), (0.45, 1.4), (0, 1.75))
    return _stalk(size) + "".join(svg.circle(size * x, size * y, size * 0.36, "#b5384a", LINE, 0.7) for x, y in beads)


def _bunch(size: float) -> str:
    rows = ((0.3, (-0.6, 0, 0.6)), (0.8, (-0.4, 0.2, 0.7)), (1.3, (-0.5, 0.1)), (1.8, (-0.1, 0.3)), (2.2, (0.1,)))
    return _stalk(size) + "".join(svg.circle(size * x, size * y, size * 0.34, "#6b5a8a", LINE, 0.7) for y, across in rows for x in across)


def _pod(size: float) -> str:
    seeds = "".join(svg.circle(size * (0.25 - 0.12 * n), size * (0.5 + 0.5 * n), size * 0.17, "#7d9a4a") for n in range(4))
    d = f"M{size * 0.2:.1f} 0Q{size * 0.8:.1f} {size:.1f} {-size * 0.3:.1f} {size * 2.5:.1f}Q{-size * 0.4:.1f} {size:.1f} {size * 0.2:.1f} 0Z"
    return _stalk(size) + svg.path(d, "#9ab75a", LINE) + seeds


def _gourd(size: float) -> str:
    ribs = "".join(
        svg.path(f"M0 {size * 0.2:.1f}q{size * bend:.1f} {size * 0.9:.1f} 0 {size * 1.7:.1f}", stroke="#8a5a1f", width=1)
        for bend in (-1.6, -0.7, 0.7, 1.6)
    )
    return _stalk(size) + svg.ellipse(0, size, size * 1.25, size, "#d98a2f", stroke=LINE) + ribs


def _long(size: float) -> str:
    d = f"M{-size * 0.3:.1f} 0C{-size * 0.8:.1f} {size:.1f} {-size * 0.5:.1f} {size * 2.4:.1f} {size * 0.1:.1f} {size * 2.6:.1f}C{size * 0.7:.1f} {size * 2.3:.1f} {size * 0.6:.1f} {size * 0.8:.1f} {size * 0.3:.1f} 0Z"
    return (
        _stalk(size)
        + svg.path(d, "#4f7a3a", LINE)
        + "".join(svg.circle(-size * 0.1, size * (0.6 + 0.5 * n), 1.6, "#d9e2b0") for n in range(4))
    )


def _capsule(size: float) -> str:
    return _stalk(size) + svg.path(
        f"M0 0C{-size * 0.9:.1f} {size * 0.4:.1f} {-size * 0.7:.1f} {size * 1.6:.1f} 0 {size * 1.7:.1f}C{size * 0.7:.1f} {size * 1.6:.1f} {size * 0.9:.1f} {size * 0.4:.1f} 0 0Z",
        "#9a8a4a",
        LINE,
    )


def _cob(size: float) -> str:
    grains = "".join(
        svg.circle(size * (-0.3 + 0.3 * (n % 3)), -size * (0.2 + 0.32 * (n // 3)), size * 0.15, "#e8c64a", "#b5922f", 0.6)
        for n in range(24)
    )
    husk = "".join(
        svg.path(
            f"M0 {size * 0.3:.1f}Q{side * size * 1.3:.1f} {-size * 0.6:.1f} {side * size * 0.7:.1f} {-size * 2.3:.1f}Q{side * size * 0.4:.1f} {-size:.1f} 0 {size * 0.3:.1f}Z",
            "#8fae5a",
            LINE,
            0.8,
        )
        for side in (-1, 1)
    )
    silk = "".join(
        svg.path(
            f"M0 {-size * 2.6:.1f}q{size * bend:.1f} {-size * 0.5:.1f} {size * bend * 1.4:.1f} {-size * 0.2:.1f}",
            stroke="#c98a4a",
            width=1.2,
        )
        for bend in (-0.8, -0.3, 0.3, 0.8)
    )
    return svg.ellipse(0, -size * 1.2, size * 0.5, size * 1.5, "#e8c64a", stroke=LINE) + grains + husk + silk


def _ear(size: float) -> str:
    grains = "".join(
        svg.ellipse(side * size * 0.26, -size * 0.42 * n, size * 0.2, size * 0.34, "#d9b85a", turn=side * 24, stroke=LINE, width=0.7)
        + svg.path(
            f"M{side * size * 0.3:.1f} {-size * (0.42 * n + 0.3):.1f}l{side * size * 0.5:.1f} {-size * 0.9:.1f}",
            stroke="#b5a05a",
            width=0.8,
        )
        for n in range(6)
        for side in (-1, 1)
    )
    return svg.path(f"M0 {size * 0.6:.1f}L0 {-size * 2.3:.1f}", stroke="#9ab75a", width=1.8) + grains


def _cone(size: float) -> str:
    body = svg.path(
        f"M0 0C{-size:.1f} {size * 0.5:.1f} {-size * 0.7:.1f} {size * 2:.1f} 0 {size * 2.3:.1f}C{size * 0.7:.1f} {size * 2:.1f} {size:.1f} {size * 0.5:.1f} 0 0Z",
        "#8a5f3a",
        LINE,
    )
    return body + "".join(
        svg.path(
            f"M{-size * 0.6:.1f} {size * (0.6 + 0.4 * n):.1f}q{size * 0.6:.1f} {size * 0.3:.1f} {size * 1.2:.1f} 0",
            stroke="#5d3f24",
            width=1,
        )
        for n in range(4)
    )


def _nut(size: float) -> str:
    return (
        _stalk(size)
        + svg.ellipse(0, size * 0.9, size * 0.7, size * 0.9, "#a5743f", stroke=LINE)
        + svg.path(
            f"M{-size * 0.75:.1f} {size * 0.7:.1f}Q0 {-size * 0.6:.1f} {size * 0.75:.1f} {size * 0.7:.1f}Q0 {size * 0.4:.1f} {-size * 0.75:.1f} {size * 0.7:.1f}Z",
            "#7d9a4a",
            LINE,
            0.8,
        )
    )


def _winged(size: float) -> str:
    return _stalk(size) + "".join(
        svg.ellipse(side * size * 0.6, size * 0.8, size * 0.3, size * 0.9, "#c9b86a", turn=side * -32, stroke=LINE, width=0.8)
        for side in (-1, 1)
    )


DRAW = {
    Bears.POME: _pome, Bears.STONE: lambda size: _round(size, "#c9694a", True), Bears.BERRY: lambda size: _round(size * 0.85, "#c0392b"),
    Bears.CLUSTER: _cluster, Bears.BUNCH: _bunch, Bears.POD: _pod, Bears.GOURD: _gourd, Bears.LONG: _long, Bears.CAPSULE: _capsule,
    Bears.COB: _cob, Bears.EAR: _ear, Bears.CONE: _cone, Bears.CITRUS: lambda size: _round(size, "#e0912f"), Bears.NUT: _nut, Bears.WINGED: _winged,
}  # fmt: skip
UPRIGHT = (Bears.COB, Bears.EAR)


def flower(x: float, y: float, size: float = 6.5) -> str:
    petals = "".join(
        svg.circle(
            x + size * math.cos(n * math.tau / 5 - 1.57),
            y + size * math.sin(n * math.tau / 5 - 1.57),
            size * 0.72,
            "#f2e4e2",
            "#c9a5a0",
            0.8,
        )
        for n in range(5)
    )
    return petals + svg.circle(x, y, size * 0.55, "#d9a93c")
