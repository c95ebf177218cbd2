"""Stage sightings that re-anchor a forecast, by Bayes' rule.

Two things of a heat model are not known to the degree: its sums (a factor) and its biofix (a shift in degree-days). Both
stand on a grid with their prior. A sample of animals by stage weighs each point of the grid by how well it foretells the
shares of the stages that were looked for, so that a sighting counts for as much as its sample is worth. The prior has the long tails of
Student's t: many animals that all say otherwise are believed, few are not.
"""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln, ndtr, stdtrit

from bootmark.core import judgement
from bootmark.core.catalogue.heat import Heat
from bootmark.core.season import shares

Array = NDArray[np.float64]
POINTS, REACH, FREEDOM = 61, 6.0, 4
SIMULATED = 4000


@dataclass(frozen=True)
class Sighting:
    """Animals counted by stage on one day. counts: of the stages that were looked for, 0 where none was there; no others."""

    on: dt.date
    counts: Mapping[str, int]

    def __post_init__(self) -> None:
        if any(count < 0 for count in self.counts.values()) or sum(self.counts.values()) < 1:
            raise ValueError("a sighting needs at least one animal, and no count below nothing")


@dataclass(frozen=True)
class Prior:
    """What is not known of a model before anything was seen.

    spread: one standard deviation of the logarithm of its sums' factor; shift: likewise of the biofix, degree-days C; ahead, ahead_spread:
    heat that may have gone before a biofix that lies between two checks, mean and standard deviation, degree-days C.
    """

    spread: float
    shift: float
    ahead: float = 0.0
    ahead_spread: float = 0.0


@dataclass(frozen=True)
class Errors:
    """What a model's sums and biofix may be off by.

    factors, shifts: one a draw, (draws, 1), the shifts in degree-days C; moved: mean shift that sightings brought on the day
    of the last, degree-days C; surer: share of the variance that they took away; chance: that a sample as odd as the oddest sighting is
    met where the model is right.
    """

    factors: Array
    shifts: Array
    moved: float = 0.0
    surer: float = 0.0
    chance: float = 1.0


def _axis(spread: float) -> tuple[Array, Array]:
    """Points and prior weights of an error; one point where there is none.

    Student's t, scaled so that four in five lie where a normal of this standard deviation has them.
    """
    if spread <= 0:
        return np.zeros(1), np.ones(1)
    scale = spread * judgement.TENTH / float(stdtrit(FREEDOM, ndtr(judgement.TENTH)))
    points = np.linspace(-REACH, REACH, POINTS)
    weights = (1 + points**2 / FREEDOM) ** (-(FREEDOM + 1) / 2)
    return points * scale, weights / weights.sum()


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


def _oddness(counts: Array, visible: Array, there: Array, prior: Array, rng: np.random.Generator) -> float:
    """Chance of a sample as early or as late as this one, or of meeting any animal of stages that should not be there.

    counts: (stages,); visible: shares of the stages looked for, (stages, factors, shifts); there: their share of all, (factors, shifts).
    """
    animals = int(counts.sum())
    met = float((prior * (1 - (1 - np.clip(there, 0.0, 1.0)) ** animals)).sum())
    if len(counts) < 2:
        return met
    drawn = np.searchsorted(np.cumsum(prior.ravel()), rng.random(SIMULATED)).clip(0, prior.size - 1)
    worth = (1 - judgement.CLUMPED) / judgement.CLUMPED
    brood = rng.standard_gamma(worth * np.maximum(visible.reshape(len(counts), -1)[:, drawn].T, 1e-9)) + 1e-12
    samples = rng.multinomial(animals, brood / brood.sum(axis=1, keepdims=True))
    stage = np.arange(len(counts))
    means, mine = samples @ stage, float(counts @ stage)
    tail = min(float((means <= mine).mean()), float((means >= mine).mean()))
    return min(met, 1.0, 2 * max(tail, 0.5 / SIMULATED))


def weigh(model: Heat, heat_on: Sequence[tuple[Sighting, float, float | None]], prior: Prior, draws: int, seed: int) -> Errors:
    """Errors of a model, drawn from what its sightings leave likely.

    heat_on: each sighting with the degree-days C of its day as the model counts them, and those of the day from which
    animals stay for winter, None before it. Without sightings these are drawn from the prior.
    """
    logs, log_weights = _axis(prior.spread)
    moves, move_weights = _axis(float(np.hypot(prior.shift, prior.ahead_spread)))
    moves = moves + prior.ahead
    factors = np.exp(logs)[:, None]
    before = log_weights[:, None] * move_weights[None, :]
    score, chance = np.log(before), 1.0
    rng = np.random.default_rng(seed)
    for sighting, heat, held in heat_on:
        rows = shares.by_stage(shares.phases(heat * factors + moves, model, None if held is None else held * factors + moves), model)
        stages = [stage for stage in shares.seen_stages(model) if stage in sighting.counts]
        counts = np.array([int(sighting.counts[stage]) for stage in stages])
        if not counts.sum():
            continue
        expected = np.stack([rows[stage] for stage in stages])
        there = expected.sum(axis=0)
        # Whoever sees an animal sees it in some stage: those not out yet, or gone, are in no sample, nor are stages not looked for.
        visible = (expected + judgement.MISREAD * np.maximum(there, 1e-6)) / (expected + judgement.MISREAD * np.maximum(there, 1e-6)).sum(
            axis=0
        )
        score = score + likelihood(counts.tolist(), visible)
        score = score + np.log(np.maximum(1 - (1 - np.clip(there, 0.0, 1.0)) ** int(counts.sum()), 1e-6))
        chance = min(chance, _oddness(counts, visible, there, before, rng))
    after = np.exp(score - score.max())
    after /= after.sum()
    # Evenly spaced along the cumulated weights: few draws then hold what many would.
    places = np.searchsorted(np.cumsum(after.ravel()), (np.arange(draws) + 0.5) / draws).clip(0, after.size - 1)
    rng.shuffle(places)
    first, two = np.unravel_index(places, after.shape)
    moved, surer = 0.0, 0.0
    if heat_on:
        off = heat_on[-1][1] * (factors - 1) + moves
        means = [float((weights * off).sum()) for weights in (before, after)]
        variances = [float((weights * (off - mean) ** 2).sum()) for weights, mean in zip((before, after), means, strict=True)]
        moved = means[1] - means[0]
        surer = max(0.0, 1 - variances[1] / variances[0]) if variances[0] > 0 else 0.0
    return Errors(factors[first, :], moves[two][:, None], moved, surer, chance)
