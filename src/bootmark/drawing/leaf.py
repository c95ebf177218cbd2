"""A leaf as geometry: a half-width function along a midrib, from which outline, veins and halves follow.

Damage is cut from or laid on that geometry, so that the share of leaf lost is known by computation.
"""

import math
import random
from dataclasses import dataclass, field, replace

from shapely.geometry import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from bootmark.drawing import svg

STEPS = 56


@dataclass(frozen=True)
class Form:
    """width: half-width as a share of length; belly: where it is widest, 0 at the base; teeth: how many a side; depth: of a tooth; lobes: how deep; waves: how many
    lobes; leaflets: pairs of whole leaflets beside it; straight: veins run along, as in a blade."""

    width: float = 0.3
    belly: float = 0.4
    teeth: int = 17
    depth: float = 0.05
    lobes: float = 0.0
    veins: int = 7
    waves: float = 2.5
    leaflets: int = 0
    straight: bool = False

    def half(self, t: float) -> float:
        """Half-width at a place along the midrib, as a share of length."""
        power = math.log(0.5) / math.log(self.belly)
        arch = math.sin(math.pi * t**power)
        body: float = self.width * max(0.0, arch) ** (0.85 if t**power < 0.5 else 1.15)
        if self.lobes:
            body *= 1 - self.lobes * (0.5 + 0.5 * math.cos(2 * math.pi * self.waves * t))
        tooth = (t * self.teeth) % 1.0
        return body * (1 - self.depth * tooth * 1.6)


FORMS = {
    "ovate": Form(),
    "broad": Form(0.4, 0.5, 6, 0.05, veins=6),
    "slim": Form(0.22, 0.42, 20, 0.04),
    "lobed": Form(0.42, 0.42, 14, 0.08, 0.35, 6),
    "palmate": Form(0.58, 0.36, 18, 0.06, 0.5, 5, 1.6),
    "compound": Form(0.3, 0.45, 14, 0.06, veins=5, leaflets=2),
    "blade": Form(0.12, 0.35, 2, 0.0, veins=3, straight=True),
    "needle": Form(0.085, 0.3, 2, 0.0, veins=0, leaflets=6, straight=True),
    "pad": Form(0.44, 0.56, 2, 0.0, veins=0),
}


@dataclass
class Leaf:
    """One specimen. base, tip: in the drawing's units; under: drawn from below; curl: -1 to 1, edges up or down."""

    form: Form = field(default_factory=Form)
    base: tuple[float, float] = (56.0, 112.0)
    tip: tuple[float, float] = (65.0, 10.0)
    under: bool = False
    narrow: float = 1.0

    def __post_init__(self) -> None:
        self.whole_length = math.dist(self.base, self.tip)
        self.foot = self.base
        if self.form.leaflets:
            self.base = self.between(0.42)
        self.length = math.dist(self.base, self.tip)
        self.along = ((self.tip[0] - self.base[0]) / self.length, (self.tip[1] - self.base[1]) / self.length)
        self.across = (-self.along[1], self.along[0])
        right = [self.at(n / STEPS, 1) for n in range(STEPS + 1)]
        left = [self.at(n / STEPS, -1) for n in range(STEPS, -1, -1)]
        self.outline = Polygon(right + left).buffer(0)
        self.dark = Polygon([*right, *(self.at(n / STEPS, 0) for n in range(STEPS, -1, -1))]).buffer(0)
        self.cut: BaseGeometry = Polygon()

    def between(self, share: float) -> tuple[float, float]:
        return (self.base[0] + (self.tip[0] - self.base[0]) * share, self.base[1] + (self.tip[1] - self.base[1]) * share)

    def at(self, t: float, side: float) -> tuple[float, float]:
        """A point on the leaf: t along the midrib, side from -1 (left edge) to 1."""
        off = side * self.form.half(t) * self.length * self.narrow
        bend = 0.05 * self.length * math.sin(math.pi * t)
        x = self.base[0] + self.along[0] * t * self.length + self.across[0] * off - bend
        y = self.base[1] + self.along[1] * t * self.length + self.across[1] * off
        return (x, y)

    def anywhere(self, rng: random.Random, inside: float = 0.9) -> tuple[float, float]:
        return self.at(rng.uniform(0.08, 0.93), rng.uniform(-inside, inside))

    def remove(self, shape: BaseGeometry) -> None:
        self.cut = unary_union([self.cut, shape])

    @property
    def lost(self) -> float:
        """Share of the leaf's area that is gone."""
        return float(self.outline.intersection(self.cut).area / self.outline.area)

    def veins(self, sides: tuple[int, ...] = (-1, 1)) -> list[list[tuple[float, float]]]:
        veins: list[list[tuple[float, float]]] = []
        if self.form.straight:
            return [
                [self.at(step / 12, side * (n + 1) / (self.form.veins + 1)) for step in range(1, 12)]
                for n in range(self.form.veins)
                for side in sides
            ]
        for n in range(self.form.veins):
            start = 0.06 + 0.78 * n / self.form.veins
            for side in sides:
                reach = [(start + (0.17 + 0.02 * n) * step / 6 * (1 + 0.25 * step / 6), side * 0.93 * step / 6) for step in range(7)]
                veins.append([self.at(min(t, 0.97), s) for t, s in reach])
        return veins

    def veins_area(self, width: float) -> BaseGeometry:
        midrib = [self.at(n / 20, 0) for n in range(20)]
        return unary_union([LineString(vein).buffer(width) for vein in [midrib, *self.veins()]])

    def stalk(self) -> str:
        x, y = self.foot
        stem = svg.path(
            f"M{x:.1f} {y:.1f}C{x - 1:.1f} {y + 9:.1f} {x - 5:.1f} {y + 14:.1f} {x - 2:.1f} {y + 22:.1f}", stroke=svg.STEM, width=2.6
        )
        if not self.form.leaflets:
            return stem
        whole = Leaf(self.form_alone, self.foot, self.tip)
        parts = [stem, svg.line([self.foot, self.base], svg.STEM, 2.4)]
        slim = self.form.straight
        for n in range(self.form.leaflets):
            share = (0.02 if slim else 0.1) + (0.92 if slim else 0.3) * n / self.form.leaflets
            x, y = whole.between(share)
            for side in (-1, 1):
                reach = self.whole_length * (0.42 if slim else 0.4)
                tip = (x + side * reach * 0.86 * -whole.across[0], y - reach * (0.5 if slim else 0.36))
                parts.append(Leaf(self.form_alone, (x, y), tip, self.under).draw(bare=True))
        if slim:
            parts.append(svg.line([self.foot, self.between(0.5)], svg.ROOT, 3))
        return "".join(parts)

    @property
    def form_alone(self) -> Form:
        return replace(self.form, leaflets=0)

    def draw(self, light: str = "", dark: str = "", vein: str = "", *, bare: bool = False) -> str:
        """The leaf with its holes; damage that lies on it is added by the caller. bare: without its stalk."""
        light = light or (svg.UNDER if self.under else svg.GREEN)
        dark = dark or (svg.DARK_UNDER if self.under else svg.DARK_GREEN)
        vein = vein or svg.VEIN
        whole = self.outline.difference(self.cut)
        parts = ["" if bare else self.stalk(), svg.path(svg.shape_d(whole), light, fill_rule="evenodd")]
        parts.append(svg.path(svg.shape_d(self.dark.difference(self.cut)), dark, fill_rule="evenodd"))
        ribs = [LineString([self.at(n / 20, 0) for n in range(20)]), *(LineString(rib_line) for rib_line in self.veins())]
        for n, rib in enumerate(ribs):
            for piece in getattr(kept := rib.intersection(whole), "geoms", [kept]):
                if isinstance(piece, LineString) and len(piece.coords) > 1:
                    parts.append(svg.line([(x, y) for x, y in piece.coords], vein, 1.6 if n == 0 else 0.8))
        rims = self.outline.intersection(self.cut)
        if not rims.is_empty:
            # Chewed edges dry brown; the leaf's own margin does not.
            rim = self.cut.boundary.intersection(self.outline.buffer(-0.2))
            for piece in getattr(rim, "geoms", [rim]):
                if isinstance(piece, LineString):
                    parts.append(svg.line([(x, y) for x, y in piece.coords], svg.DRY, 1.1))
        return "".join(parts)

    def keep(self, x: float, y: float, margin: float = 0.0) -> bool:
        """Whether a point lies on what is left of the leaf."""
        spot = Point(x, y)
        return bool(self.outline.buffer(-margin).contains(spot) and not self.cut.contains(spot))
