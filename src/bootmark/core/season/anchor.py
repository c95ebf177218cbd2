"""Stage sightings that re-anchor a forecast, by Bayes' rule.

Two things of a heat model are not known to the degree: its sums (a factor) and its biofix (a shift in degree-days). Both
stand on a grid with their prior. A sample of animals by stage weighs each point of the grid by how well it foretells the
shares of the stages that can be seen, so that a sighting counts for as much as its sample is worth.
"""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln

from bootmark.core import judgement
from bootmark.core.catalogue.model import Heat
from bootmark.core.season import shares

Array = NDArray[np.float64]
POINTS, REACH = 41, 3.0


@dataclass(frozen=True)
class Sighting:
    """Animals counted by stage on one day."""

    on: dt.date
    counts: Mapping[str, int]

    def __post_init__(self) -> None:
        if any(count < 0 for count in self.counts.values()) or sum(self.counts.values()) < 1:
            raise ValueError("a sighting needs at least one animal, and no count below nothing")


@dataclass(frozen=True)
class Errors:
    """What a model's sums and biofix may be off by.

    factors, shifts: one a draw, (draws, 1), the shifts in degree-days C; moved: mean shift that sightings brought on the day
    of the last, degree-days C; surer: share of the variance that they took away.
    """

    factors: Array
    shifts: Array
    moved: float = 0.0
    surer: float = 0.0


def _axis(spread: float) -> tuple[Array, Array]:
    """Points and prior weights of a normal error; one point where there is none."""
    if spread <= 0:
        return np.zeros(1), np.ones(1)
    points = np.linspace(-REACH, REACH, POINTS)
    weights = np.exp(-(points**2) / 2)
    return points * spread, weights / weights.sum()


def likelihood(counts: Sequence[int], expected: Array) -> Array:
    """Log chance of counts by stage where shares are expected: the Dirichlet-multinomial of clumped animals.

    counts: one for each stage; expected: (stages, ...), adding to one over stages. Returns (...). Source: Mosimann (1962),
    Biometrika 49: 65-82; the clumping is judgement.
    """
    seen = np.asarray(counts, dtype=float).reshape(-1, *([1] * (expected.ndim - 1)))
    worth = (1 - judgement.CLUMPED) / judgement.CLUMPED
    alpha = worth * np.maximum(expected, 1e-9)
    total = alpha.sum(axis=0)
    return np.asarray(gammaln(total) - gammaln(total + seen.sum()) + (gammaln(alpha + seen) - gammaln(alpha)).sum(axis=0))


def weigh(
    model: Heat, heat_on: Sequence[tuple[Sighting, float, float | None]], spread: float, shift: float, draws: int, seed: int
) -> Errors:
    """Errors of a model, drawn from what its sightings leave likely.

    heat_on: each sighting with the degree-days C of its day as the model counts them, and those of the day from which
    animals stay for winter, None before it; spread: one standard deviation of the factor's logarithm; shift: likewise of
    the biofix, degree-days C. Without sightings these are drawn from the prior.
    """
    logs, log_weights = _axis(spread)
    moves, move_weights = _axis(shift)
    factors = np.exp(logs)[:, None]
    prior = log_weights[:, None] * move_weights[None, :]
    score = np.log(prior)
    stages = shares.seen_stages(model)
    for sighting, heat, held in heat_on:
        rows = shares.by_stage(shares.phases(heat * factors + moves, model, None if held is None else held * factors + moves), model)
        visible = np.stack([rows[stage] for stage in stages])
        # Whoever sees an animal sees it in some stage: those not out yet, or gone, are in no sample.
        visible = (visible + judgement.MISREAD) / (visible + judgement.MISREAD).sum(axis=0)
        score = score + likelihood([int(sighting.counts.get(stage, 0)) for stage in stages], visible)
    after = np.exp(score - score.max())
    after /= after.sum()
    rng = np.random.default_rng(seed)
    # Evenly spaced along the cumulated weights: few draws then hold what many would.
    places = np.searchsorted(np.cumsum(after.ravel()), (np.arange(draws) + 0.5) / draws).clip(0, after.size - 1)
    rng.shuffle(places)
    first, two = np.unravel_index(places, after.shape)
    moved, surer = 0.0, 0.0
    if heat_on:
        off = heat_on[-1][1] * (factors - 1) + moves
        means = [float((weights * off).sum()) for weights in (prior, after)]
        variances = [float((weights * (off - mean) ** 2).sum()) for weights, mean in zip((prior, after), means, strict=True)]
        moved = means[1] - means[0]
        surer = 1 - variances[1] / variances[0] if variances[0] > 0 else 0.0
    return Errors(factors[first, :], moves[two][:, None], moved, surer)
