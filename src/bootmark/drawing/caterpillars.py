"""Caterpillars and larvae of sawflies with the marks by which one is told from another, in the pose in which they are met."""

import math

from bootmark.core.catalogue.drawn import PLAIN, Drawn, Pattern, Pose
from bootmark.drawing import svg
from bootmark.drawing.limbs import LINE, turned
from bootmark.drawing.svg import Point

RINGS = 12
TRUE_LEGS = (9, 10, 11)
PROLEGS = (0, 3, 4, 5, 6)
PALE = "#fbfaf0"


def _spine(length: float, pose: Pose) -> list[Point]:
    """Middles of the rings from tail to head."""
    shares = [n / (RINGS - 1) for n in range(RINGS)]
    if pose == Pose.CURLED:
        turn, radius = math.tau * 0.78, length * 0.2
        return [(radius * math.cos(turn * share + 0.9), radius * math.sin(turn * share + 0.9)) for share in shares]
    along = [length * (share - 0.5) for share in shares]
    if pose == Pose.LOOP:
        return [(x * 0.8, -length * 0.3 * math.sin(math.pi * share) ** 2) for x, share in zip(along, shares, strict=True)]
    if pose == Pose.RAISED:
        return [(x, -length * 0.42 * max(0.0, 0.45 - share) ** 1.3 * 2) for x, share in zip(along, shares, strict=True)]
    return [(x, -1.2 * math.sin(n * 1.1)) for n, x in enumerate(along)]


def _legs(at: list[Point], r: float, colour: str, pose: Pose, prolegs: tuple[int, ...]) -> str:
    if pose == Pose.CURLED:
        return ""
    feet = [(n, 0.62) for n in prolegs] + [(n, 0.34) for n in TRUE_LEGS]
    return "".join(svg.path(f"M{at[n][0]:.1f} {at[n][1] + r * 0.6:.1f}l0 {r * 0.8:.1f}", stroke=colour, width=r * wide) for n, wide in feet)


def _marks(at: list[Point], r: float, drawn: Drawn) -> str:
    mark, parts = drawn.mark or PALE, []
    for n in range(drawn.stripes):
        off = r * (1.3 * (n + 0.5) / drawn.stripes - 0.65)
        parts.append(svg.line([(x, y + off) for x, y in at], mark, r * min(0.34, 0.7 / drawn.stripes)))
    for ring, (x, y) in enumerate(at[1:-1]):
        if ring < drawn.bands:
            parts.append(svg.path(f"M{x:.1f} {y - r * 0.92:.1f}q{r * 0.2:.1f} {r * 0.9:.1f} 0 {r * 1.84:.1f}", stroke=mark, width=r * 0.3))
        for n in range(drawn.spots):
            off = r * (1.2 * (n + 0.5) / drawn.spots - 0.6)
            parts.append(svg.circle(x, y + off, r * 0.2, mark))
        parts.append(_pattern(x, y, r, drawn.pattern, mark))
    if drawn.pattern == Pattern.SADDLE:
        middle = at[5:7]
        parts.append(svg.line(middle, mark, r * 1.5))
    return "".join(parts)


def _pattern(x: float, y: float, r: float, pattern: Pattern, mark: str) -> str:
    if pattern == Pattern.SLANTS:
        return svg.path(f"M{x - r * 0.55:.1f} {y + r * 0.6:.1f}L{x + r * 0.5:.1f} {y - r * 0.6:.1f}", stroke=mark, width=r * 0.2)
    if pattern == Pattern.VEES:
        d = f"M{x - r * 0.5:.1f} {y - r * 0.55:.1f}L{x:.1f} {y + r * 0.55:.1f}L{x + r * 0.45:.1f} {y - r * 0.5:.1f}"
        return svg.path(d, stroke=mark, width=r * 0.2)
    if pattern == Pattern.WARTS:
        return "".join(svg.circle(x, y + r * off, r * 0.15, mark, LINE, 0.4) for off in (-0.55, 0.0, 0.5))
    if pattern == Pattern.CHECKS:
        return svg.ellipse(x, y - r * 0.3, r * 0.36, r * 0.3, mark)
    return ""


def _hairs(at: list[Point], r: float) -> str:
    ends = ((-1.0, -2.0), (0.1, -2.3), (1.0, -1.9), (-0.7, 1.8), (0.6, 1.8))
    return "".join(svg.path(f"M{x:.1f} {y:.1f}l{dx * r:.1f} {dy * r:.1f}", stroke="#8a7a5a", width=0.8) for x, y in at for dx, dy in ends)


def _head(at: list[Point], r: float, colour: str, drawn: Drawn) -> str:
    (x, y), (before_x, before_y) = at[-1], at[-2]
    way = math.hypot(x - before_x, y - before_y) or 1.0
    x, y = x + (x - before_x) / way * r * 0.75, y + (y - before_y) / way * r * 0.75
    head = svg.circle(x, y, r * 0.82, drawn.head or colour, LINE, 0.8)
    if drawn.pattern == Pattern.INVERTED_Y:
        fork = f"M{x - r * 0.1:.1f} {y - r * 0.7:.1f}L{x:.1f} {y:.1f}L{x - r * 0.45:.1f} {y + r * 0.55:.1f}M{x:.1f} {y:.1f}l{r * 0.5:.1f} {r * 0.5:.1f}"
        head += svg.path(fork, stroke=PALE, width=r * 0.18)
    return head


def caterpillar(drawn: Drawn, colour: str, head: str, *, fat: float = 0.16, prolegs: tuple[int, ...] = PROLEGS) -> str:
    """Of a stage, in the middle of its drawing, head to the right. prolegs: rings that bear the fleshy legs."""
    return turned(60, 74, 0, _body(drawn, 78 * drawn.size, colour, head, fat, prolegs))


def lying(
    x: float, y: float, length: float, colour: str, *, turn: float = 0, head: str = "#6b4a2a", fat: float = 0.16, drawn: Drawn = PLAIN
) -> str:
    """Anywhere in a drawing. length: along the body, head to the right before it is turned."""
    return turned(x, y, turn, _body(drawn, length, colour, head, fat, PROLEGS))


def _body(drawn: Drawn, length: float, colour: str, head: str, fat: float, prolegs: tuple[int, ...]) -> str:
    skin, r = drawn.colour or colour, length * (drawn.slim or fat) / 2 * 1.3
    at = _spine(length, drawn.pose)
    if drawn.pose == Pose.BAG:
        return _bag(at, r) + _head(at, r, head, drawn)
    parts = [_legs(at, r, skin, drawn.pose, (0, 1) if drawn.pose == Pose.LOOP else prolegs), _hairs(at, r) if drawn.hairs else ""]
    for n, (x, y) in enumerate(at):
        taper = 0.8 if n in (0, RINGS - 1) else 1.0
        across = r if drawn.pose == Pose.CURLED else length / RINGS * 0.8
        parts.append(svg.ellipse(x, y, max(across, r * 0.7), r * taper, skin, stroke="#00000040", width=0.6))
    parts += [_marks(at, r, drawn), _head(at, r, head, drawn)]
    if drawn.neck:
        parts.append(svg.ellipse(*at[-1], r * 0.45, r * 0.8, drawn.neck))
    if drawn.horn:
        x, y = at[0]
        curve = f"M{x - r * 0.2:.1f} {y - r * 0.6:.1f}q{-r * 0.8:.1f} {-r * 0.7:.1f} {-r * 0.7:.1f} {-r * 2.0:.1f}"
        parts.append(svg.path(curve, stroke=drawn.horn, width=r * 0.5))
    return "".join(parts)


def _bag(at: list[Point], r: float) -> str:
    """A bag of silk hung with bits of twig and leaf."""
    (left, _), (right, y) = at[0], at[-1]
    hull = f"M{left:.1f} {y:.1f}C{left + 10:.1f} {y - r * 3:.1f} {right - 14:.1f} {y - r * 2.4:.1f} {right:.1f} {y - r * 0.6:.1f}"
    hull += f"L{right:.1f} {y + r * 0.6:.1f}C{right - 14:.1f} {y + r * 2.4:.1f} {left + 10:.1f} {y + r * 3:.1f} {left:.1f} {y:.1f}Z"
    twigs = "".join(
        svg.path(
            f"M{left + 12 + 6.5 * n:.1f} {y + r * (1.7 if n % 2 else -1.9):.1f}l9 {r * (-1.6 if n % 2 else 1.5):.1f}",
            stroke=colour,
            width=2.6,
        )
        for n, colour in zip(range(10), ("#5d4a2c", "#7a8a4a", "#8a6f4a", "#4a3a22") * 3, strict=False)
    )
    return svg.path(hull, "#a58b62", LINE, 1) + twigs
