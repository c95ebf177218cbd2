"""Degree-days of a whole region: 1,000 stations, 365 days and 50 agents by single sine, against one arcsine and one cosine.

The reference is what numpy takes for an arcsine and a cosine over as many elements, in the same run.

    python bench/season.py
"""

import time

import numpy as np

from bootmark.core.season import degree_days

STATIONS, DAYS, AGENTS, ROUNDS = 1000, 365, 50, 3


def timed(work: object) -> float:
    best = float("inf")
    for _ in range(ROUNDS):
        start = time.perf_counter()
        work()  # type: ignore[operator]
        best = min(best, time.perf_counter() - start)
    return best


def main() -> None:
    rng = np.random.default_rng(1)
    middle = 12 - 10 * np.cos(2 * np.pi * np.arange(DAYS) / 365) + rng.normal(0, 3, (STATIONS, DAYS))
    swing = rng.uniform(3, 9, (STATIONS, DAYS))
    low, high = middle - swing, middle + swing
    thresholds = [(lower, lower + 20) for lower in np.linspace(4, 14, AGENTS)]
    angles = rng.uniform(-1, 1, (STATIONS, DAYS))

    def heat() -> None:
        for lower, upper in thresholds:
            degree_days.daily(low, high, lower, upper)

    def reference() -> None:
        for _ in range(AGENTS):
            np.arcsin(angles)
            np.cos(angles)

    ours, theirs = timed(heat), timed(reference)
    size = f"{STATIONS} stations x {DAYS} days x {AGENTS} agents"
    print(f"{size}: {ours:.2f} s, one arcsine and one cosine {theirs:.2f} s: {ours / theirs:.1f} times")


if __name__ == "__main__":
    main()
