"""How often a count that may stop says the wrong word, and how many units it takes: by walking through drawn blocks.

    ./bootmark bench count [walks] [seed]

For each threshold and clumping: at half the threshold and at twice it, how often the word is wrong, how often it is right within the plan,
and the units looked at beside those of a fixed plan of the same errors. Last, what happens where the pest clumps more than its catalogue
says, and where leaves are looked at tree by tree.
"""

import sys
from dataclasses import dataclass

import numpy as np

from bootmark.core.field import stopping
from bootmark.core.field.stopping import Rule
from bootmark.core.meanings import Measure, Side

MEANS, CLUMPINGS, SHARES = (0.2, 1.0, 5.0, 20.0), (0.3, 0.5, 1.0, 3.0), (0.02, 0.05, 0.1, 0.3)


@dataclass(frozen=True)
class Walked:
    """wrong, right: shares of walks; sure: that ended before the plan did; units: on average."""

    wrong: float
    right: float
    sure: float
    units: float


def walk(rule: Rule, drawn: np.ndarray, truth: Side) -> Walked:
    """Walks through drawn counts (walks, units), each until its word."""
    right, sure, units = 0, 0, 0
    for counts in drawn.tolist():
        for looked in range(rule.least, rule.most + 1):
            word = stopping.word(rule, counts[:looked])
            if word.side != Side.BETWEEN:
                break
        right += word.side == truth
        sure += not word.ended
        units += looked
    walks = len(drawn)
    return Walked(1 - right / walks, right / walks, sure / walks, units / walks)


def counts(rng: np.random.Generator, at: float, k: float, walks: int, units: int) -> np.ndarray:
    return rng.negative_binomial(k, k / (k + at), size=(walks, units))


def by_trees(rng: np.random.Generator, at: float, k: float, walks: int, units: int, leaves: int = 5) -> np.ndarray:
    """Leaves of one tree are like each other: trees are drawn first, then their leaves at random."""
    trees = rng.gamma(k, at / k, size=(walks, -(-units // leaves)))
    return rng.poisson(np.repeat(trees, leaves, axis=1)[:, :units])


def told(name: str, rule: Rule, half: Walked, twice: Walked, k: float) -> None:
    fixed = stopping.fixed_units(rule.threshold, rule.measure, k)
    share = (half.units + twice.units) / 2 / fixed
    print(
        f"{name:28} {rule.most:4} {fixed:6.1f} | half: wrong {half.wrong:6.1%} right {half.right:6.1%} units {half.units:5.1f} | "
        f"twice: wrong {twice.wrong:6.1%} right {twice.right:6.1%} units {twice.units:5.1f} | of fixed {share:4.2f}"
    )


def main(walks: int = 3000, seed: int = 20261127) -> None:
    rng = np.random.default_rng(seed)
    print("threshold, clumping           most  fixed")
    for threshold in MEANS:
        for k in CLUMPINGS:
            rule = stopping.rule(threshold, Measure.MEAN, stopping.with_clumping(threshold, k))
            half = walk(rule, counts(rng, threshold / 2, k, walks, rule.most), Side.BELOW)
            twice = walk(rule, counts(rng, threshold * 2, k, walks, rule.most), Side.ABOVE)
            told(f"mean {threshold:g}, k {k:g}", rule, half, twice, k)
    for share in SHARES:
        rule = stopping.rule(share, Measure.PROPORTION)
        half = walk(rule, rng.binomial(1, share / 2, (walks, rule.most)), Side.BELOW)
        twice = walk(rule, rng.binomial(1, min(2 * share, (1 + share) / 2), (walks, rule.most)), Side.ABOVE)
        told(f"share {share:.0%}", rule, half, twice, rule.clumping)
    print("clumps more than its law says (k 0.3, law 1), and leaves by trees of five (k of trees 1, law of leaves)")
    for threshold in MEANS:
        leaves = stopping.rule(threshold, Measure.MEAN, stopping.with_clumping(threshold, 1.0))
        trees = stopping.rule(threshold, Measure.MEAN, stopping.with_clumping(threshold, 1.0), per=5)
        for name, rule, draw, k in (
            ("clumped", leaves, counts, 0.3),
            ("trees as leaves", leaves, by_trees, 1.0),
            ("trees", trees, by_trees, 1.0),
        ):
            half = walk(rule, draw(rng, threshold / 2, k, walks, rule.most), Side.BELOW)
            twice = walk(rule, draw(rng, threshold * 2, k, walks, rule.most), Side.ABOVE)
            told(f"{name}, mean {threshold:g}", rule, half, twice, 1.0)


if __name__ == "__main__":
    main(*map(int, sys.argv[1:]))
