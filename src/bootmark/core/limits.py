"""Records for limits that belong together."""

from typing import NamedTuple


class Limits(NamedTuple):
    """What work asks of the weather: not below the least, with caution above the second, never above the most."""

    least: float
    caution: float
    most: float


class Between(NamedTuple):
    """Two ends, both of them allowed."""

    low: float
    high: float


class Around(NamedTuple):
    """So much on either side of a moment."""

    before: float
    after: float
