"""What every animal is drawn with."""

from bootmark.drawing import svg

LINE = "#3d352b"


def turned(x: float, y: float, turn: float, body: str) -> str:
    return f'<g transform="translate({x:.1f} {y:.1f}) rotate({turn:.0f})">{body}</g>'


def legs(count: int, reach: float, spread: float, colour: str = LINE, width: float = 1.6) -> str:
    middle = (count - 1) / 2
    parts = []
    for n in range(count):
        off = (n - middle) * spread
        for side in (-1, 1):
            parts.append(
                svg.path(
                    f"M{off:.1f} 0Q{off * 1.2:.1f} {side * reach * 0.7:.1f} {off * 1.7:.1f} {side * reach:.1f}", stroke=colour, width=width
                )
            )
    return "".join(parts)
