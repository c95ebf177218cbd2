"""Stalks that were pushed, fruit that was looked at, leaves whose loss was told by eye: shares with limits."""

from collections.abc import Sequence
from dataclasses import replace

from bootmark.core.field.count import interval
from bootmark.core.meanings import Condition, Measure
from bootmark.core.types import Interval, Sample


def limits(condition: Condition, units: Sequence[int]) -> Interval:
    """The share with its limits at 90 %.

    units: 0 or 1 for each stalk or fruit, per cent lost for each leaf. Raises ValueError where there are none. Source: Wilson (1927) for
    stalks and fruit, Student's t for leaves, within 0 and 1.

    >>> round(limits(Condition.LEAVES, [10, 20, 30, 20]).estimate, 2)
    0.2
    """
    if condition != Condition.LEAVES:
        return interval(Sample(condition, tuple(units), measure=Measure.PROPORTION))
    lost = interval(Sample(condition, tuple(units)))
    return replace(lost, estimate=lost.estimate / 100, low=lost.low / 100, high=min(lost.high / 100, 1.0))
