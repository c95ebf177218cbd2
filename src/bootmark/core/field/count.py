"""How many there are, and how sure that is."""

import functools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from statistics import NormalDist, mean, variance
from typing import Any

from bootmark.core import judgement
from bootmark.core.field import stopping as rules
from bootmark.core.field.points import walk_points
from bootmark.core.meanings import Chosen, LimitMethod, Measure, Side, StopKind
from bootmark.core.types import Interval, Sample, Taylor

__all__ = [
    "Dispersion",
    "Stop",
    "dispersion",
    "enemy_ratio",
    "interval",
    "ratio_limits",
    "sample_size",
    "stopping",
    "student_t",
    "taylor_fit",
    "walk_points",
    "wilson",
]


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


def wilson(hits: float, units: float, level: float = 0.9) -> tuple[float, float]:
    """Confidence limits of a proportion. Source: Wilson (1927), JASA 22, 209-212.

    hits: units that have it, of `units` looked at, 1 or more, fractions where they tell less than as many; level: confidence, 0 to 1.
    Returns shares, low and high.
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
    -ln(1 - level) / units. One unit alone gives no upper limit (infinity) unless it had none. Where all that there are were counted the
    estimate is the truth: its limits are itself.

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
    if counted.chosen == Chosen.ALL:
        share = sum(count > 0 for count in counted.counts) / units
        truth = share if counted.measure == Measure.PROPORTION else mean(counted.counts)
        return Interval(truth, truth, truth, units, level, LimitMethod.ALL_COUNTED)
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


@dataclass(frozen=True)
class Stop:
    """What tallies come to against a plan. leans: what they say at the end of a plan, or so far; low, high: the lines between which the
    count goes on, one value for each unit from the first on, as means or shares; units: after which the plan ends."""

    kind: StopKind
    leans: Side
    low: tuple[float, ...]
    high: tuple[float, ...]
    units: int


def stopping(plan: Mapping[str, Any], tallies: Sequence[int]) -> Stop:
    """Whether a count may stop.

    plan: threshold, measure, units (the plan's own, 0 where none), smallest (least units, ten where none), taylor (a, b) or k, and error,
    one or a pair: how often it may say that it matters at half the threshold, and too few at twice it. tallies: a count for each unit.
    Raises ValueError for a threshold or an error that is none. Source: Wald (1947); see bootmark.core.field.stopping.

    >>> stopping({"threshold": 5, "measure": "mean", "k": 0.8}, [60] * 9).kind.value
    'keep counting'
    """
    threshold, measure = float(plan["threshold"]), Measure(plan.get("measure", Measure.MEAN))
    taylor = Taylor(*plan["taylor"]) if plan.get("taylor") else None
    if plan.get("k"):
        taylor = rules.with_clumping(threshold, plan["k"])
    of = rules.rule(threshold, measure, taylor, int(plan.get("units", 0)))
    if plan.get("error") is not None:
        both = plan["error"] if isinstance(plan["error"], (list, tuple)) else (plan["error"], plan["error"])
        if not all(0 < error < HALF for error in both):
            raise ValueError("an error lies between nought and a half")
        of = replace(of, bounds=rules.bounds(*both))
    smallest = max(1, int(plan.get("smallest", of.least)))
    of = replace(of, least=smallest, most=max(of.most, smallest))
    word = rules.word(of, tallies)
    kind = StopKind.END if word.ended else KINDS[word.side]
    low, high = rules.lines(of, tallies, max(of.most, len(tallies)))
    return Stop(kind, word.side, tuple(low), tuple(high), of.most)


HALF = 0.5
KINDS = {Side.ABOVE: StopKind.ABOVE, Side.BELOW: StopKind.BELOW, Side.BETWEEN: StopKind.KEEP}


def sample_size(average: float, precision: float, *, measure: Measure = Measure.MEAN, taylor: Taylor | None = None) -> int:
    """Units whose mean or share has a standard error of so much of itself.

    average: animals for each unit, or a share; precision: standard error over mean, 0.25 for a decision; taylor: how the pest clumps, at
    random where None. Raises ValueError where one is not above zero, or a share not below one.
    Source: Karandinos (1976), Bulletin of the ESA 22, 417-421; with Taylor's law Ruesink (1980).

    >>> sample_size(4.0, 0.25, taylor=Taylor(3.0, 1.5)), sample_size(0.2, 0.25, measure=Measure.PROPORTION)
    (24, 64)
    """
    if average <= 0 or precision <= 0 or (measure == Measure.PROPORTION and average >= 1):
        raise ValueError("a mean and a precision lie above zero, and a share below one")
    if measure == Measure.PROPORTION:
        return math.ceil((1 - average) / (average * precision**2) - TINY)
    law = taylor or Taylor(1.0, 1.0)
    wanted: float = law.a * average ** (law.b - 2) / precision**2
    return math.ceil(wanted - TINY)


TINY = 1e-9


def taylor_fit(samples: Sequence[Sequence[int]]) -> Taylor | None:
    """Taylor's power law from samples of single units; None where they are too few or too alike. Source: Taylor (1961)."""
    return rules.fitted([(mean(counts), variance(counts)) for counts in samples if len(counts) > 1])


@dataclass(frozen=True)
class Dispersion:
    """How counts lie: index, 1 at random, more where they are heaped; chance: of one as large if they were strewn at random; heaped:
    whether a hot spot is to be looked for."""

    index: float
    chance: float
    heaped: bool


def dispersion(counts: Sequence[int]) -> Dispersion:
    """Morisita's index of counts at points of a block. A hot spot is never told on fewer than ten points.

    Raises ValueError on fewer than two points. Source: Morisita (1962), Researches on Population Ecology 4, 1-7; its departure from
    chance by the chi-square of the variance, here by the Wilson-Hilferty approximation (1931).

    >>> round(dispersion([10, 0, 0, 0, 0, 0, 0, 0, 0, 0]).index, 1)
    10.0
    """
    points, total = len(counts), sum(counts)
    if points < 2:
        raise ValueError("one point has no pattern")
    if total < 2:
        return Dispersion(1.0, 1.0, False)
    index = points * sum(count * (count - 1) for count in counts) / (total * (total - 1))
    chi, free = index * (total - 1) + points - total, points - 1
    spread = 2 / (9 * free)
    chance = 1 - NormalDist().cdf(((max(chi, 0) / free) ** (1 / 3) - (1 - spread)) / math.sqrt(spread))
    return Dispersion(index, chance, points >= judgement.LEAST_UNITS and chance < judgement.HEAPED_CHANCE)
