"""A plant while it is drawn: its parts, and what many ways of standing share: soil, roots, bark, leaves, fruit."""

import math
from dataclasses import dataclass, field

from bootmark.core.catalogue.shapes import Bears, Keeps
from bootmark.drawing import svg
from bootmark.drawing.fruits import UPRIGHT, fruit
from bootmark.drawing.leaf import FORMS, Leaf
from bootmark.drawing.limbs import LINE

SOIL, MIDDLE = 366, 120
BARK, DARK_BARK = "#8b6a45", "#6b4f33"
CROWN = ("#5f8a45", "#6f9a52", "#7fa85f")
Box = tuple[float, float, float, float]


@dataclass
class Standing:
    """A plant while it is drawn. parts: each with its drawing and the point that its label leads to, back to front; reach: where a
    finger may land, for parts that are not small."""

    leaf: str
    bears: Bears
    keeps: Keeps
    parts: dict[str, tuple[str, svg.Point]] = field(default_factory=dict)
    reach: dict[str, Box] = field(default_factory=dict)

    def add(self, name: str, body: str, at: svg.Point, reach: Box | None = None) -> None:
        self.parts[name] = (body, at)
        if reach:
            self.reach[name] = reach

    def one_leaf(self, x: float, y: float, length: float, angle: float, *, under: bool = False) -> str:
        """A leaf from a place, at an angle in degrees: 0 to the right, 90 up."""
        turn = math.radians(angle)
        tip = (x + length * math.cos(turn), y - length * math.sin(turn))
        drawn = Leaf(FORMS[self.leaf], (x, y), tip, under)
        return drawn.draw(bare=not FORMS[self.leaf].leaflets)

    def soil(self) -> None:
        hill = f"M0 {SOIL + 8}Q60 {SOIL - 6} {MIDDLE} {SOIL}T240 {SOIL + 4}L240 500L0 500Z"
        ground = svg.path(hill, svg.SOIL) + svg.path(
            f"M0 {SOIL + 8}Q60 {SOIL - 6} {MIDDLE} {SOIL}T240 {SOIL + 4}", stroke=svg.BOOT, width=2
        )
        self.add("ground", ground, (206, 392), (150, 376, 90, 84))
        self.add("whole", "", (6, 486))

    def roots(self, spread: float = 1.0) -> None:
        d = "".join(
            f"M{MIDDLE} {SOIL + 4}Q{MIDDLE + bend * 0.3 * spread:.0f} {SOIL + 34} {MIDDLE + bend * spread:.0f} {SOIL + deep}"
            for bend, deep in ((-48, 52), (-26, 84), (0, 96), (30, 80), (52, 48))
        )
        self.add("root", svg.path(d, stroke=BARK, width=3.4), (MIDDLE - 30, SOIL + 70), (62, 392, 96, 76))
        below = {Keeps.TUBERS: self._tubers, Keeps.TAPROOT: self._taproot, Keeps.BULB: self._onion}.get(self.keeps)
        if below:
            below()

    def _tubers(self) -> None:
        body = "".join(
            svg.ellipse(x, y, 17, 12, "#cfa86a", turn=turn, stroke=LINE)
            + svg.circle(x - 5, y - 2, 1.3, LINE)
            + svg.circle(x + 6, y + 3, 1.3, LINE)
            for x, y, turn in ((150, 416, 16), (176, 440, -20), (132, 446, 8))
        )
        self.add("bulb", body, (132, 446), (112, 402, 84, 56))

    def _taproot(self) -> None:
        d = f"M{MIDDLE - 20} {SOIL + 2}C{MIDDLE - 26} {SOIL + 40} {MIDDLE - 4} {SOIL + 80} {MIDDLE} {SOIL + 108}C{MIDDLE + 4} {SOIL + 80} {MIDDLE + 26} {SOIL + 40} {MIDDLE + 20} {SOIL + 2}Z"
        self.add(
            "bulb",
            svg.path(d, "#d9803f", LINE)
            + svg.path(f"M{MIDDLE - 16} {SOIL + 26}h14M{MIDDLE + 2} {SOIL + 44}h12", stroke="#a5602f", width=1.2),
            (MIDDLE + 10, SOIL + 40),
            (94, 372, 52, 84),
        )

    def _onion(self) -> None:
        d = f"M{MIDDLE - 6} {SOIL - 8}C{MIDDLE - 44} {SOIL + 8} {MIDDLE - 38} {SOIL + 52} {MIDDLE} {SOIL + 54}C{MIDDLE + 38} {SOIL + 52} {MIDDLE + 44} {SOIL + 8} {MIDDLE + 6} {SOIL - 8}Z"
        skins = "".join(
            svg.path(f"M{MIDDLE} {SOIL - 4}Q{MIDDLE + bend} {SOIL + 24} {MIDDLE} {SOIL + 52}", stroke="#b58a4a", width=1.1)
            for bend in (-34, -14, 14, 34)
        )
        self.add("bulb", svg.path(d, "#e3c58a", LINE) + skins, (MIDDLE + 22, SOIL + 26), (84, 362, 72, 62))

    def fruit_at(self, x: float, y: float, size: float = 14) -> None:
        name = "grain" if self.bears == Bears.EAR else "fruit"
        to = (x, y - size) if self.bears in UPRIGHT else (x, y + size)
        self.add(name, fruit(self.bears, x, y, size), to)
        if self.bears == Bears.COB:
            self.add("grain", "", (x - 4, y - size * 2), (x - 28, y - size * 3.2, 56, size * 1.6))

    def bark(self, width: float, top: float) -> None:
        """A trunk with its bark, and the flare at its foot."""
        half = width / 2
        d = f"M{MIDDLE - half:.0f} {SOIL - 20}L{MIDDLE - half * 0.7:.0f} {top:.0f}L{MIDDLE + half * 0.7:.0f} {top:.0f}L{MIDDLE + half:.0f} {SOIL - 20}Z"
        cracks = "".join(
            svg.path(f"M{MIDDLE + half * off:.1f} {SOIL - 34 - 26 * n}q3 -8 -1 -16", stroke=DARK_BARK, width=1.6)
            for n, off in enumerate((-0.4, 0.3, -0.1, 0.4, -0.3))
        )
        middle = (top + SOIL) / 2 + 14
        self.add("trunk", svg.path(d, BARK, LINE) + cracks, (MIDDLE - half * 0.4, middle), (MIDDLE - 34, middle - 44, 68, 88))
        foot = f"M{MIDDLE - half:.0f} {SOIL - 22}Q{MIDDLE - half - 4:.0f} {SOIL - 4} {MIDDLE - half - 14:.0f} {SOIL + 3}L{MIDDLE + half + 14:.0f} {SOIL + 3}Q{MIDDLE + half + 4:.0f} {SOIL - 4} {MIDDLE + half:.0f} {SOIL - 22}Z"
        self.add("base", svg.path(foot, DARK_BARK, LINE), (MIDDLE + half, SOIL - 8))

    def clumps(self, places: tuple[tuple[float, float, float], ...]) -> str:
        return "".join(svg.circle(x, y, r, CROWN[n % 3]) for n, (x, y, r) in enumerate(places))
