"""How many there are, and how sure that is."""

import functools
import math
from collections.abc import Callable, Mapping
from statistics import NormalDist, mean, variance
from typing import Any

from bootmark.core.meanings import LimitMethod, Measure, Side
from bootmark.core.types import Interval, Sample


def _beta_continued_fraction(a: float, b: float, x: float) -> float:
    """The continued fraction of the incomplete beta function, by Lentz's method."""
    tiny = 1e-300
    c, d = 1.0, 1 - (a + b) * x / (a + 1)
    d = 1 / (d if abs(d) > tiny else tiny)
    result = d
    for m in range(1, 300):
        for numerator in (
            m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m)),
            -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1)),
        ):
            d = 1 + numerator * d
            d = 1 / (d if abs(d) > tiny else tiny)
            c = 1 + numerator / c
            c = c if abs(c) > tiny else tiny
            result *= d * c
        if abs(d * c - 1) < 1e-14:
            break
    return result


def _t_tail(t: float, degrees: int) -> float:
    """P(T > t) for Student's t, t >= 0."""
    x = degrees / (degrees + t * t)
    a, b = degrees / 2, 0.5
    front = math.exp(math.lgamma(a + b) - math.lgamma(a) - math.lgamma(b) + a * math.log(x) + b * math.log1p(-x)) if t else 0.0
    if t == 0:
        return 0.5
    if x < (a + 1) / (a + b + 2):
        return 0.5 * front * _beta_continued_fraction(a, b, x) / a
    return 0.5 * (1 - front * _beta_continued_fraction(b, a, 1 - x) / b)


def _bisect(falling: Callable[[float], float], target: float, high: float) -> float:
    low = 0.0
    while falling(high) > target:
        high *= 2
    for _ in range(64):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if falling(middle) > target else (low, middle)
    return 0.5 * (low + high)


@functools.lru_cache(maxsize=1024)
def student_t(level: float, degrees: int) -> float:
    """The two-sided critical value of Student's t.

    level: confidence, 0 to 1; degrees: degrees of freedom, 1 or more.
    Source: incomplete beta function, Abramowitz and Stegun (1964), 26.7.1. The example stands in every table of t.

    >>> round(student_t(0.95, 10), 3)
    2.228
    """
    return _bisect(lambda t: _t_tail(t, degrees), (1 - level) / 2, 4.0)


def wilson(hits: int, units: int, level: float = 0.9) -> tuple[float, float]:
    """Confidence limits of a proportion. Source: Wilson (1927), JASA 22, 209-212.

    hits: units that have it, of `units` looked at, 1 or more; level: confidence, 0 to 1. Returns shares, low and high.
    Example: with no hits the upper limit is z^2 / (n + z^2), here 3.841 / 13.841.

    >>> [round(limit, 3) for limit in wilson(0, 10, 0.95)]
    [0.0, 0.278]
    """
    z = NormalDist().inv_cdf(0.5 + level / 2)
    share, spread = hits / units, z * z / units
    middle = (share + spread / 2) / (1 + spread)
    half = z / (1 + spread) * math.sqrt(share * (1 - share) / units + spread / (4 * units))
    return max(0.0, middle - half), min(1.0, middle + half)


def interval(sample: Sample | Mapping[str, Any], *, level: float = 0.9) -> Interval:
    """What a sample says of its block: mean per unit or share of units, with limits.

    A proportion has Wilson's limits. A mean has Student's t limits on the counts themselves,
    not below zero; where every unit had none the upper limit is the exact Poisson one,
    -ln(1 - level) / units. One unit alone gives no upper limit (infinity) unless it had none.

    Parameters
    ----------
    sample : counts, a number for each unit, and their measure.
    level : confidence of both limits together, 0 to 1.

    Returns
    -------
    Interval
        Estimate, low and high in the sample's measure.

    Raises
    ------
    ValueError
        Where nothing was looked at.

    Source
    ------
    Wilson (1927) for a share; Student's t for a mean.

    Examples
    --------
    By hand: the mean of 1, 3, 1, 3 is 2, its standard error the root of a third, and t is 2.353 for three degrees.

    >>> limits = interval({"counts": [1, 3, 1, 3], "measure": "mean"})
    >>> limits.estimate, round(limits.low, 2), round(limits.high, 2)
    (2, 0.64, 3.36)
    """
    counted = Sample.of(sample)
    units = len(counted.counts)
    if not units:
        raise ValueError("nothing has been counted yet")
    if counted.measure == Measure.PROPORTION:
        hits = sum(count > 0 for count in counted.counts)
        low, high = wilson(hits, units, level)
        return Interval(hits / units, low, high, units, level, LimitMethod.WILSON)
    average = mean(counted.counts)
    if average == 0:
        return Interval(0.0, 0.0, -math.log(1 - level) / units, units, level, LimitMethod.POISSON_NONE)
    if units == 1:
        return Interval(average, 0.0, math.inf, 1, level, LimitMethod.ONE_UNIT)
    half = student_t(level, units - 1) * math.sqrt(variance(counted.counts) / units)
    if half == 0:
        half = student_t(level, units - 1) * math.sqrt(average / units)
        return Interval(average, max(0.0, average - half), average + half, units, level, LimitMethod.POISSON_EQUAL)
    return Interval(average, max(0.0, average - half), average + half, units, level, LimitMethod.STUDENT)


def side(estimate: Interval, threshold: float) -> Side:
    """Where a count lies. The threshold itself counts as reached: a pest there matters."""
    if estimate.high < threshold:
        return Side.BELOW
    return Side.ABOVE if estimate.low >= threshold else Side.BETWEEN


def enemy_ratio(sample: Sample | Mapping[str, Any]) -> float | None:
    """Natural enemies for each pest, None where enemies were not counted; infinity where only enemies were found.

    >>> enemy_ratio({"counts": [4, 6], "enemies": [1, 0], "measure": "mean"})
    0.1
    """
    counted = Sample.of(sample)
    if not counted.enemies:
        return None
    pests, enemies = sum(counted.counts), sum(counted.enemies)
    if pests:
        return enemies / pests
    return math.inf if enemies else 0.0


def ratio_limits(sample: Sample | Mapping[str, Any], *, level: float = 0.9) -> tuple[float, float]:
    """Limits of natural enemies for each pest, from how both go together from unit to unit; both infinite where only enemies were seen.

    Raises ValueError where enemies were not counted, or on fewer than two units. Source: the ratio estimator, Cochran (1977), 6.3.
    """
    counted, ratio = Sample.of(sample), enemy_ratio(sample)
    units = len(counted.counts)
    if ratio is None or units < 2:
        raise ValueError("a ratio takes enemies and pests on two units at least")
    if math.isinf(ratio) or not sum(counted.counts):
        return ratio, ratio
    rests = [enemies - ratio * pests for pests, enemies in zip(counted.counts, counted.enemies, strict=True)]
    spread = math.sqrt(sum(rest * rest for rest in rests) / (units - 1) / units) / (sum(counted.counts) / units)
    half = student_t(level, units - 1) * spread
    return max(0.0, ratio - half), ratio + half
