"""Pictures of known truth, many of them: how far off what is measured is, and how many of the bad ones are refused.

Run with ./bootmark bench photos [HOW MANY] [SEED]. Leaves: holes and edges eaten on one side from 0 to 70 %, discoloured to half, light of
2,500 to 7,500 K, tilt to 30 degrees, blur, shadow, noise, JPEG.
"""

import random
import statistics
import sys
import time
from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from bootmark.core.photo import leaf
from bootmark.core.photo.light import Unreadable
from tests.outside.photographed import Picture, eaten_leaf, laid, leaf_picture, on_each_other, taken, usual

BAD: dict[str, Callable[[random.Random], Picture]] = {
    "eaten on both sides": lambda rng: leaf_picture(rng, eaten_leaf(rng, rng.uniform(0.1, 0.4), edge="both")),
    "dark": lambda rng: leaf_picture(rng, eaten_leaf(rng, 0.2), replace(usual(rng), exposure=0.04)),
    "blurred": lambda rng: leaf_picture(rng, eaten_leaf(rng, 0.2), replace(usual(rng), blur=rng.uniform(16, 24))),
    "cut": lambda rng: taken(laid(eaten_leaf(rng, 0.2), rng, at=(0.02, 0.5)), usual(rng), rng),
    "on each other": on_each_other,
    "lobed": lambda rng: leaf_picture(rng, eaten_leaf(rng, 0.2, form="lobed")),
}


def tell_refused(bad: Mapping[str, Callable[[random.Random], Any]], many: int, seed: int, measure: Callable[[Any], object]) -> None:
    """Of so many bad pictures of each kind, how many are refused, and why."""
    for name, make in bad.items():
        why: Counter[str] = Counter()
        for n in range(max(many // 5, 5)):
            try:
                measure(make(random.Random(f"{seed} {name} {n}")))
                why["measured"] += 1
            except Unreadable as error:
                why[error.why] += 1
        print(f"  {name}: {1 - why['measured'] / sum(why.values()):.0%} refused {dict(why)}")


def main() -> None:
    many, seed = (int(word) for word in (*sys.argv[1:], "100", "1")[:2])
    off, odd, refused, seconds = [], [], Counter[str](), 0.0
    for n in range(many):
        rng = random.Random(f"{seed} {n}")
        drawn = eaten_leaf(rng, rng.uniform(0, 0.7), rng.choice((0.0, 0.0, rng.uniform(0.05, 0.5))), edge=rng.choice(("", "", "one")))
        picture = leaf_picture(rng, drawn)
        began = time.perf_counter()
        try:
            told = leaf.measure(picture)
        except Unreadable as error:
            refused[error.why] += 1
            continue
        finally:
            seconds += time.perf_counter() - began
        off.append(abs(told.lost - drawn.truth.lost))
        odd.append(abs(told.discoloured - drawn.truth.discoloured))
    within = sum(error <= 0.03 for error in off) / len(off)
    print(f"leaves: {within:.1%} within 3 points, nine tenths within {statistics.quantiles(off, n=10)[-1]:.3f}, worst {max(off):.3f}")
    print(f"  discoloured: {sum(error <= 0.05 for error in odd) / len(odd):.1%} within 5 points; {seconds / many:.2f} s a picture")
    print(f"  good ones refused: {sum(refused.values()) / many:.1%} {dict(refused)}")
    tell_refused(BAD, many, seed, leaf.measure)


if __name__ == "__main__":
    main()
