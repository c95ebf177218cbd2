"""When a count may stop: Wald's sequential tests, with the pest's own clumping, never below ten units.

Between half the threshold and twice it nobody is told to go on for a better answer than the farm needs. How often the word is wrong is
shown by simulation in bench/count.py, and in tests/outside for the lines themselves.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import NormalDist, mean, variance
from typing import Any

from bootmark.core import judgement
from bootmark.core.meanings import Chosen, Measure, Side
from bootmark.core.types import Sample, Taylor

TIMES = 2.0
"""The word must be right at the threshold divided by this, and at its multiple."""
USUAL_B = 1.5
"""Exponent of a law of which only its k at the threshold is given: a rule asks for no more of it."""
LEAST_CLUMPING = 0.05
"""Of k: beyond that a sample of thirty is one lucky leaf."""


def bounds(wrong_matters: float, wrong_few: float) -> tuple[float, float]:
    """Wald's bounds of the evidence, natural logarithms: below the first too few, from the second on it matters.

    Source: Wald (1947), Sequential Analysis, 3.2.
    """
    return math.log(wrong_few / (1 - wrong_matters)), math.log((1 - wrong_few) / wrong_matters)


BOUNDS = bounds(judgement.LINE_WRONG_MATTERS, judgement.LINE_WRONG_FEW)


@dataclass(frozen=True)
class Rule:
    """What a count is held against, and for how long.

    threshold: in animals for each unit, or a share of units; clumping: k of the negative binomial at the threshold, infinite where
    animals are strewn at random, and for shares; least: units below which nothing is said; most: units after which the plan ends; usual:
    how many it takes on average at half and at twice the threshold; per: units from one plant or place, which are like each other and told
    together; bounds: of the evidence; alike: how many units of a share tell as much as one would if they were not of one plant.
    """

    threshold: float
    measure: Measure
    clumping: float
    least: int
    most: int
    usual: int
    per: int = 1
    bounds: tuple[float, float] = BOUNDS
    alike: float = 1.0

    @property
    def together(self) -> float:
        """The threshold of what is told together."""
        return self.threshold * self.per


@dataclass(frozen=True)
class Word:
    """What a count says. ended: the plan has ended before it could tell for sure; the word is then the one that costs less if wrong."""

    side: Side
    ended: bool = False


def clumping(taylor: Taylor, average: float) -> float:
    """k of the negative binomial at a mean, by Taylor's power law: infinite where the variance is not above the mean.

    taylor: variance = a mean^b; average: animals for each unit, above 0. Source: Taylor (1961), Nature 189, 732-735.

    >>> round(clumping(Taylor(3.0, 1.5), 4.0), 2)
    0.8
    """
    spare = taylor.a * average**taylor.b - average
    return average * average / spare if spare > 0 else math.inf


def with_clumping(threshold: float, k: float) -> Taylor:
    """The law that has this k at a threshold, both above zero; the inverse of clumping there.

    >>> round(clumping(with_clumping(5.0, 0.8), 5.0), 9)
    0.8
    """
    return Taylor((threshold + threshold**2 / k) / threshold**USUAL_B, USUAL_B)


def rule(threshold: float, measure: Measure, taylor: Taylor | None = None, units: int = 0, per: int = 1) -> Rule:
    """How a threshold is held against counts. taylor: the pest's own, a common one where None; units: that its plan looks at, per of them
    on each plant.

    Raises ValueError where the threshold is not above zero, or a share not below one.
    """
    if not 0 < threshold < (1 if measure == Measure.PROPORTION else math.inf):
        raise ValueError("a threshold lies above zero, and as a share below one")
    alike = design_effect(per) if measure == Measure.PROPORTION else 1.0
    per = 1 if measure == Measure.PROPORTION else per
    k = math.inf if measure == Measure.PROPORTION else clumping(taylor or Taylor(*judgement.COMMON_TAYLOR), threshold * per)
    fixed = fixed_units(threshold * per, measure, k) * alike
    most = max(judgement.LEAST_UNITS, math.ceil(units / per), math.ceil(judgement.PLAN_ENDS * fixed))
    usual = max(judgement.LEAST_UNITS, math.ceil(judgement.SEQUENTIAL_SHARE * fixed))
    return Rule(threshold, measure, k, per * judgement.LEAST_UNITS, per * most, per * min(usual, most), per, alike=alike)


def design_effect(per: int) -> float:
    """How many units of a share it takes, so many of them on each plant, to tell as much as one that stands by itself.

    Source: Kish (1965), Survey Sampling, 5.4: 1 + (m - 1) rho.

    >>> design_effect(1)
    1.0
    """
    return 1 + (per - 1) * judgement.SHARE_ALIKE


def _ends(threshold: float, measure: Measure) -> tuple[float, float]:
    """The two states between which a test tells: half the threshold, and twice it."""
    high = threshold * TIMES
    return threshold / TIMES, min(high, (1 + threshold) / 2) if measure == Measure.PROPORTION else high


def fixed_units(threshold: float, measure: Measure, k: float) -> float:
    """Units that a plan of fixed length takes for the same errors, by the normal approximation."""
    few, many = _ends(threshold, measure)

    def spread(level: float) -> float:
        return math.sqrt(level * (1 - level) if measure == Measure.PROPORTION else level + level * level / k)

    wrong_many, wrong_few = (NormalDist().inv_cdf(1 - wrong) for wrong in (judgement.WRONG_MATTERS, judgement.WRONG_FEW))
    return ((wrong_many * spread(few) + wrong_few * spread(many)) / (many - few)) ** 2


def _weights(of: Rule, k: float) -> tuple[float, float]:
    """What each animal (or unit that has it) adds to the evidence, and what each unit takes from it."""
    few, many = _ends(of.together, of.measure)
    if of.measure == Measure.PROPORTION:
        return math.log(many * (1 - few) / (few * (1 - many))) / of.alike, math.log((1 - few) / (1 - many)) / of.alike
    if math.isinf(k):
        return math.log(many / few), many - few
    return math.log(many * (few + k) / (few * (many + k))), k * math.log((many + k) / (few + k))


def _grouped(of: Rule, counts: Sequence[int]) -> Sequence[int]:
    """What is told together: the sums of each plant; units of a plant that is begun wait for the rest."""
    if of.per == 1:
        return counts
    return [sum(counts[start : start + of.per]) for start in range(0, len(counts) - of.per + 1, of.per)]


def clumped(of: Rule, counts: Sequence[int]) -> float:
    """The k that a count is read with: the smaller of the pest's own and the sample's, so that the larger variance counts."""
    together = _grouped(of, counts)
    if of.measure == Measure.PROPORTION or len(together) < 2:
        return of.clumping
    average = mean(together)
    spare = variance(together) - average
    return max(LEAST_CLUMPING, min(of.clumping, average * average / spare if spare > 0 else math.inf))


def _total(of: Rule, counts: Sequence[int]) -> int:
    return sum(count > 0 for count in counts) if of.measure == Measure.PROPORTION else sum(counts)


def evidence(of: Rule, counts: Sequence[int]) -> float:
    """The logarithm of how much likelier a count is at twice the threshold than at half of it.

    Units of one plant that are alike take from what was found; where none was found each was looked at for itself, and in simulated walks
    that is wrong less often than the lines allow.
    """
    each, unit = _weights(of, clumped(of, counts))
    together = _grouped(of, counts)
    total = _total(of, together)
    return each * total - unit * len(together) * (of.alike if total == 0 else 1.0)


def word(of: Rule, counts: Sequence[int]) -> Word:
    """What a count says so far. Below ten units it says nothing; at the end of the plan what costs less if it is wrong."""
    if len(counts) < of.least:
        return Word(Side.BETWEEN)
    balance = evidence(of, counts)
    if balance <= of.bounds[0]:
        return Word(Side.BELOW)
    if balance >= of.bounds[1]:
        return Word(Side.ABOVE)
    if len(counts) < of.most:
        return Word(Side.BETWEEN)
    return Word(Side.ABOVE if balance >= judgement.END_OF_PLAN else Side.BELOW, ended=True)


def of_sample(of: Rule, sample: Sample | Mapping[str, Any]) -> Word:
    """What a sample says: where every unit there is was looked at, that is the truth; picked units say nothing of the others."""
    counted = Sample.of(sample)
    if counted.chosen == Chosen.PICKED or not counted.counts:
        return Word(Side.BETWEEN)
    if counted.chosen == Chosen.ALL:
        return Word(Side.ABOVE if _total(of, counted.counts) / len(counted.counts) >= of.threshold else Side.BELOW)
    return word(of, counted.counts)


def lines(of: Rule, counts: Sequence[int], units: int) -> tuple[list[float], list[float]]:
    """The two lines between which a count goes on, as means or shares, for 1 unit to so many: low and high.

    They are drawn with the clumping that the count so far is read with. Where a line lies below zero nothing can stop there yet.
    """
    each, unit = _weights(of, clumped(of, counts))
    groups = [n / of.per for n in range(1, units + 1)]
    low, high = ([(bound + unit * n) / (each * n * of.per) for n in groups] for bound in of.bounds)
    return low, high


def none_seen(of: Rule, units: int, level: float = 0.9) -> float:
    """The upper limit of the mean where so many units had none: (1 + m / k)^(-k n) = 1 - level.

    Without clumping it is the exact Poisson one. Source: the zero term of the negative binomial.

    >>> round(none_seen(Rule(1.0, Measure.MEAN, math.inf, 10, 20, 10), 10), 3)
    0.23
    """
    if math.isinf(of.clumping):
        return -math.log(1 - level) / units
    power: float = (1 - level) ** (-of.per / (of.clumping * units))
    return of.clumping * (power - 1) / of.per


def operating(of: Rule, at: float) -> float:
    """The chance that a count without end says "too few", where a block has so many animals for each unit. Source: Wald (1947), 3.4.

    The overshoot at the lines is left out, as it is there; the least and the most units are not in it.
    """
    power = _power(of, at)
    low, high = of.bounds
    if abs(power) < 1e-9:
        return high / (high - low)
    return (math.exp(power * high) - 1) / (math.exp(power * high) - math.exp(power * low))


def _power(of: Rule, at: float) -> float:
    """The h at which the mean of exp(h z) is one, z being what a unit adds to the evidence: by bisection away from nought."""
    each, unit = _weights(of, of.clumping)

    def log_moment(h: float) -> float:
        if of.measure == Measure.PROPORTION:
            return math.log1p(at * math.expm1(h * each)) - h * unit
        if math.isinf(of.clumping):
            return at * math.expm1(h * each) - h * unit
        inside = 1 - at / of.clumping * math.expm1(h * each)
        return -of.clumping * math.log(inside) - h * unit if inside > 0 else math.inf

    drift = at * each - unit
    if abs(drift) < 1e-12:
        return 0.0
    near, far = (-1e-6, -1e-3) if drift > 0 else (1e-6, 1e-3)
    while log_moment(far) < 0:
        far *= 1.5
    for _ in range(80):
        middle = 0.5 * (near + far)
        near, far = (middle, far) if log_moment(middle) < 0 else (near, middle)
    return 0.5 * (near + far)


def fitted(pairs: Sequence[tuple[float, float]]) -> Taylor | None:
    """Taylor's law from the means and variances of a farm's own samples, by least squares of the logarithms.

    None below judgement.TAYLOR_SAMPLES samples that have both above zero, or where their means hardly differ.
    """
    logs = [(math.log(average), math.log(spread)) for average, spread in pairs if average > 0 and spread > 0]
    if len(logs) < judgement.TAYLOR_SAMPLES:
        return None
    x, y = mean(x for x, _ in logs), mean(y for _, y in logs)
    wide = sum((each - x) ** 2 for each, _ in logs)
    if wide < len(logs) * judgement.TAYLOR_WIDE**2:
        return None
    b = sum((own - x) * (other - y) for own, other in logs) / wide
    return Taylor(math.exp(y - b * x), b)
