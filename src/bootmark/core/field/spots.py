"""Hot spot or everywhere: which part of a block a count points to, with a margin, and how large it is."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.field.count import dispersion
from bootmark.core.field.points import Corner


@dataclass(frozen=True)
class Spot:
    """Where a pest is heaped. area: hectares, its margin with it; rows: the first and the last, counted from the north or west edge, None
    where rows have no spacing; points: how many of the count lie in it; of: how many there were."""

    area: float
    rows: tuple[int, int] | None
    points: int
    of: int


def spot(
    corners: Sequence[Corner],
    points: Sequence[Corner],
    counts: Sequence[int],
    threshold: float,
    area: float,
    laid: int,
    direction: float | None = None,
    spacing: float | None = None,
) -> Spot | None:
    """The part of a block that is to be treated alone; None where the pest is not heaped, or stands on too many points for that.

    corners: of the block, metres east and south on the plan; points: at which the counts were made, in their order; threshold: for a single
    unit; area: of the block, hectares; laid: points that were laid on it, of which a count may end before the last; direction: of its rows,
    degrees from north; spacing: metres from row to row. Every point stands for its part of the block; those next to a hot one are the
    margin.

    Raises ValueError where counts and points differ. Common practice, no source.
    """
    if len(points) != len(counts):
        raise ValueError(f"{len(counts)} counts were made at {len(points)} points")
    if len(counts) < judgement.LEAST_UNITS or not dispersion(counts).heaped:
        return None
    hot = [place for place, count in enumerate(counts) if count >= threshold]
    if not hot or len(hot) > judgement.SPOT_SHARE * len(counts):
        return None
    reach = judgement.SPOT_MARGIN * math.sqrt(area * 10_000 / laid)
    inside = [place for place, point in enumerate(points) if any(math.dist(point, points[other]) <= reach for other in hot)]
    rows = _rows(corners, [points[place] for place in inside], direction, spacing, reach / 2) if spacing and direction is not None else None
    return Spot(area * len(inside) / laid, rows, len(inside), len(points))


def _rows(corners: Sequence[Corner], inside: Sequence[Corner], direction: float, spacing: float, margin: float) -> tuple[int, int]:
    """The rows that some points lie in, with a margin to both sides. A row that runs to the north lies at a distance to the east."""
    turn = math.radians(direction)
    across = [x * math.cos(turn) + y * math.sin(turn) for x, y in corners]
    first_row, most = min(across), max(1, round((max(across) - min(across)) / spacing))
    places = [x * math.cos(turn) + y * math.sin(turn) - first_row for x, y in inside]
    first, last = (place / spacing for place in (min(places) - margin, max(places) + margin))
    return max(1, math.floor(first) + 1), min(most, math.floor(last) + 1)
