"""Pictures of sheets of known truth, many of them: specks, drops, sticky cards; how far off, and how many of the bad ones are refused.

Run with ./bootmark bench sheets [HOW MANY] [SEED].
"""

import random
import sys
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from bench.photos import tell_refused
from bootmark.core.photo import cards, droplets, specks
from bootmark.core.photo.light import Unreadable
from tests.outside.sheets import A6, DISH, DROP_CARD, STICKY, insects, phone, poured, printed, smeared, stuck, tapped, wetted

MITES = (0.3, 1.0)
Error = float


def _specks(rng: random.Random) -> list[Error]:
    """How far off all specks are, and those that moved, as shares."""
    pair = tapped(rng, rng.randint(3, 100), rng.randint(2, 100))
    first, second = (specks.specks(picture, A6, MITES) for picture in (pair.first, pair.second))
    number = pair.moving + pair.still
    return [abs(first.count - number) / number, abs(specks.moved(first, second).moving - pair.moving) / pair.moving]


def _drops(rng: random.Random) -> list[Error]:
    card = wetted(rng, rng.uniform(0.05, 0.6) if rng.random() < 0.5 else rng.uniform(0.01, 0.2))
    told = droplets.card(card.picture, DROP_CARD)
    return [abs(told.cover - card.cover), abs(told.per_cm2 / card.per_cm2 - 1) if told.per_cm2 else 0.0]


def _cards(rng: random.Random) -> list[Error]:
    spots = insects(rng, rng.randint(5, 60), (1.2, 2.2), [])
    spots += insects(rng, rng.randint(0, 20), (4, 7), spots)
    return [abs(len(cards.measure(stuck(rng, spots), STICKY).places) / len(spots) - 1)]


def _dishes(rng: random.Random) -> list[Error]:
    number = rng.randint(5, 60)
    told = cards.measure(poured(rng, number, (2.0, 3.0)), DISH, dish=True)
    return [abs(len(told.places) / number - 1), abs(float(np.median(told.lengths)) / 2.5 - 1)]


GOOD: dict[str, tuple[Callable[[random.Random], list[Error]], tuple[tuple[str, Error], ...]]] = {
    "specks": (_specks, (("all", 0.1), ("moved", 0.1))),
    "drops": (_drops, (("cover", 0.03), ("number", 0.1))),
    "cards": (_cards, (("things", 0.1),)),
    "dishes": (_dishes, (("things", 0.1), ("lengths", 0.15))),
}
BAD: dict[str, Callable[[random.Random], object]] = {
    "dark": lambda rng: specks.specks(tapped(rng, 5, 5, replace(phone(rng), exposure=0.03)).first, A6, MITES),
    "blurred": lambda rng: specks.specks(tapped(rng, 5, 5, replace(phone(rng), blur=rng.uniform(6, 12))).first, A6, MITES),
    "leaning": lambda rng: specks.specks(tapped(rng, 5, 5, replace(phone(rng), tilt=rng.uniform(48, 60))).first, A6, MITES),
    "print": lambda rng: specks.specks(printed(rng, phone(rng)), A6, MITES),
    "other sheet": lambda rng: specks.moved(*(specks.specks(tapped(rng, 5, 15).first, A6, MITES) for _ in range(2))),
    "blued": lambda rng: droplets.card(wetted(rng, 0.1, card=(80, 90, 140)).picture, DROP_CARD),
    "fingers": lambda rng: droplets.card(smeared(rng, phone(rng)), DROP_CARD),
    "blurred drops": lambda rng: droplets.card(wetted(rng, 0.1, replace(phone(rng), blur=rng.uniform(6, 12))).picture, DROP_CARD),
}


def main() -> None:
    many, seed = (int(word) for word in (*sys.argv[1:], "30", "1")[:2])
    for name, (measure, limits) in GOOD.items():
        errors, refused, began = [], Counter[str](), time.perf_counter()
        for n in range(many):
            try:
                errors.append(measure(random.Random(f"{seed} {name} {n}")))
            except Unreadable as error:
                refused[error.why] += 1
        within = []
        for place, (what, limit) in enumerate(limits):
            off = [row[place] for row in errors]
            within.append(f"{what} {sum(error <= limit for error in off)} of {len(off)} within {limit}, worst {max(off):.3f}")
        seconds = (time.perf_counter() - began) / many
        print(f"{name}: {'; '.join(within)}; good ones refused {dict(refused) or 'none'}; {seconds:.1f} s each with its drawing")
    tell_refused(BAD, many, seed, lambda measured: measured)


if __name__ == "__main__":
    main()
