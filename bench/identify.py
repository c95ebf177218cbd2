"""How well naming works, on cases drawn from the catalogue's own frequencies with joint causes and wrong answers.

Prints, for each crop and for all: how often the leading suspect is at work after the glance, after six looks
chosen by Bootmark, after six looks at random, and after twelve chosen looks (what further looks would tell),
among cases that have a cause; how many of the stated chances came true, tenth by tenth, among
all; and the time of suspects and next looks together, as milliseconds and against a plain loop in the same run.

The last lines tell the same calibration where answers err half and twice as often as assumed, how often a proof alone concludes, and
how many of the drawn cases, answered as `./bootmark case` answers, hold something of docs/harm.md.

    python bench/identify.py [cases for each crop [seed]]

Each crop's cases follow from the seed and its name alone. A seed that was looked at while a setting was chosen
flatters that setting: measure on a fresh one.
"""

import concurrent.futures
import itertools
import json
import os
import random
import statistics
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from bootmark.case.__main__ import answered
from bootmark.core.catalogue import Catalogue, default
from bootmark.core.field import identify
from bootmark.core.field.network import Network
from bootmark.core.meanings import OPEN_VERDICTS
from bootmark.core.types import Case, Ranking
from tests.outside.played import always

CROPS = ("pear", "potato", "cabbage", "raspberry", "hop", "birch", "tomato", "rose")
LOOKS, FURTHER = 6, 12
SCALES = (0.5, 1.0, 2.0)
"""How often answers err, in times of what the catalogue assumes of each sign."""
LEAST_IN_TENTH, HARM_TIMES = 200, 8
SEED = 20260618


Policy = Callable[[Case], tuple[Ranking, list[tuple[str, ...]]]]
"""A case ranked, and the signs of each look in the order in which it would be taken."""


@dataclass
class Specimen:
    """One invented plant: its agents, the signs that are there, and what a scout would answer for each."""

    crop: str
    month: int
    agents: tuple[str, ...]
    answers: dict[str, str]


@dataclass
class Tally:
    right: dict[str, int] = field(default_factory=dict)
    whole: dict[str, int] = field(default_factory=dict)
    looks: list[int] = field(default_factory=list)
    stated: list[tuple[float, bool]] = field(default_factory=list)
    short: list[int] = field(default_factory=list)
    cases: int = 0

    def add(self, policy: str, ranking: Ranking, truth: tuple[str, ...]) -> None:
        self.right[policy] = self.right.get(policy, 0) + (ranking.suspects[0].agent in truth)
        top = next((cause for cause in ranking.causes if cause.agents), None)
        self.whole[policy] = self.whole.get(policy, 0) + (top is not None and set(top.agents) == set(truth))


def draw(crop: str, catalogue: Catalogue, rng: random.Random, scale: float = 1.0) -> Specimen:
    """Up to three agents by their priors, signs by their frequencies, each mistaken or overlooked by its own chance times a scale."""
    month = rng.randint(4, 9)
    network = Network(Case(crop, month=month), catalogue)
    while True:
        agents = [agent for agent, prior in zip(network.agents, network.priors, strict=True) if rng.random() < prior.chance]
        if len(agents) <= 3:
            break
    answers = {}
    for sign in sorted({sign for agent in network.agents for sign in agent.shows}):
        there = rng.random() < catalogue.signs[sign].leak or any(
            rng.random() < agent.shows[sign].chance for agent in agents if sign in agent.shows
        )
        entry = catalogue.signs[sign]
        wrong = rng.random() < scale * (entry.overlooked if there else entry.mistaken)
        state = there != wrong
        answers[sign] = "seen" if state else "absent"
    return Specimen(crop, month, tuple(agent.id for agent in agents), answers)


def glance(specimen: Specimen, catalogue: Catalogue) -> dict[str, str]:
    return {sign: state for sign, state in specimen.answers.items() if catalogue.signs[sign].look == "glance"}


def rankings(specimen: Specimen, catalogue: Catalogue, choose: Policy, most: int = LOOKS) -> list[Ranking]:
    """After the glance and after each look by a policy; a look that is taken answers every sign it can."""
    answers, ranked = glance(specimen, catalogue), []
    while True:
        ranking, options = choose(Case(specimen.crop, month=specimen.month, signs=answers))
        ranked.append(ranking)
        if not options or len(ranked) > most:
            return ranked
        answers = answers | {sign: specimen.answers[sign] for sign in options[0] if sign in specimen.answers}


def by_information(catalogue: Catalogue) -> Policy:
    def choose(case: Case) -> tuple[Ranking, list[tuple[str, ...]]]:
        ranking, looks, _ = identify.answer(case, catalogue=catalogue)
        return ranking, [catalogue.looks[look.look].signs for look in looks]

    return choose


def at_random(catalogue: Catalogue, rng: random.Random) -> Policy:
    def choose(case: Case) -> tuple[Ranking, list[tuple[str, ...]]]:
        shown = {sign for agent in catalogue.on(case.crop) for sign in agent.shows}
        left = [look.signs for look in catalogue.looks.values() if any(sign in shown and sign not in case.signs for sign in look.signs)]
        return identify.suspects(case, catalogue=catalogue), rng.sample(left, len(left))

    return choose


def run(crop: str, cases: int, seed: int) -> Tally:
    """One crop's cases; a process of its own may do it."""
    catalogue, tally, rng = default(), Tally(), random.Random(f"{seed}/{crop}")
    for _ in range(cases):
        specimen = draw(crop, catalogue, rng)
        ranked = rankings(specimen, catalogue, by_information(catalogue), FURTHER)
        taken = min(LOOKS, len(ranked) - 1)
        first, chosen, further = ranked[0], ranked[taken], ranked[-1]
        for ranking in (first, chosen):
            tally.stated += [(suspect.probability, suspect.agent in specimen.agents) for suspect in ranking.suspects[:3]]
        if not specimen.agents:
            continue
        tally.cases += 1
        tally.looks.append(taken)
        tally.add("glance", first, specimen.agents)
        tally.add("six looks", chosen, specimen.agents)
        tally.add("six at random", rankings(specimen, catalogue, at_random(catalogue, rng))[-1], specimen.agents)
        tally.add("twelve looks", further, specimen.agents)
        tally.short.append((further.suspects[0].agent in specimen.agents) - (chosen.suspects[0].agent in specimen.agents))
    return tally


def right_kind(agent: str, truth: tuple[str, ...], catalogue: Catalogue) -> bool:
    """Whether an agent is at work, or another of its kind."""
    kinds = {catalogue.kind_of(other) or other for other in truth}
    return agent in truth or (catalogue.kind_of(agent) or agent) in kinds


def erring(crop: str, cases: int, seed: int, scale: float) -> list[tuple[float, bool]]:
    """Stated chances of kinds after each look, and which came true, where answers err more or less often than assumed."""
    catalogue, rng, stated = default(), random.Random(f"{seed}/{crop}/{scale}"), []
    for _ in range(cases):
        specimen = draw(crop, catalogue, rng, scale)
        for ranking in rankings(specimen, catalogue, by_information(catalogue)):
            stated += [(kind.probability, right_kind(kind.agent, specimen.agents, catalogue)) for kind in ranking.kinds[:3]]
    return stated


def harmful(crop: str, cases: int, seed: int) -> list[str]:
    """What drawn cases were told that is harmful, answered as the command line answers."""
    catalogue, rng, harms = default(), random.Random(f"{seed}/{crop}/harm"), []
    for _ in range(cases):
        specimen = draw(crop, catalogue, rng, rng.choice(SCALES))
        signs = {sign: state for sign, state in specimen.answers.items() if state == "seen" or rng.random() < 0.1}
        answer = answered(json.dumps({"crop": crop, "month": specimen.month, "signs": signs}), catalogue)
        harms += [f"{crop}: {harm}" for harm in always(answer, signs, catalogue)]
    return harms


def proved(catalogue: Catalogue) -> tuple[int, int]:
    """Of agents told by their best proving sign alone, how many conclude, on the host that they are most usual on."""
    concluded = tried = 0
    order = ("often", "sometimes", "seldom", "rarely")
    for agent in catalogue.agents.values():
        proofs = [sign for sign, shows in agent.shows.items() if shows.confirms]
        hosts = sorted((crop for crop in agent.hosts if crop != "*"), key=lambda crop: order.index(agent.hosts[crop]))
        if proofs and not agent.is_kind:
            best = max(proofs, key=lambda sign: (catalogue.signs[sign].live, agent.shows[sign].chance))
            case = Case((hosts or ["tomato"])[0], month=sorted(agent.months)[len(agent.months) // 2], signs={best: "seen"})
            _, _, verdict = identify.answer(case, catalogue=catalogue)
            tried += 1
            concluded += verdict.kind not in OPEN_VERDICTS
    return concluded, tried


def calibration(stated: list[tuple[float, bool]]) -> list[tuple[int, int, float, float]]:
    """For each tenth: how many, the mean of what was stated, the share that was right."""
    rows = []
    for tenth in range(10):
        within = [(chance, right) for chance, right in stated if tenth == min(9, int(chance * 10))]
        if within:
            rows.append((tenth, len(within), statistics.fmean(c for c, _ in within), statistics.fmean(r for _, r in within)))
    return rows


def clock(catalogue: Catalogue, rng: random.Random, wanted: int = 60) -> tuple[str, int, list[float], float]:
    """Seconds of suspects plus next looks at every step of cases on the crop nearest to sixty candidates, and of a reference loop."""
    crop = min(catalogue.crops, key=lambda crop: (abs(len(catalogue.on(crop)) - wanted), crop))
    times = []
    for _ in range(40):
        specimen = draw(crop, catalogue, rng)
        answers = {sign: state for sign, state in glance(specimen, catalogue).items() if state == "seen"}
        for _ in range(4):
            case = Case(crop, month=specimen.month, signs=answers)
            begun = time.perf_counter()
            _, looks, _ = identify.answer(case, catalogue=catalogue)
            times.append(time.perf_counter() - begun)
            if not looks:
                break
            answers = answers | {sign: specimen.answers[sign] for sign in looks[0].signs}
    begun = time.perf_counter()
    total = 0.0
    for left, right in itertools.product(range(1000), range(100)):
        total += left * right
    return crop, len(catalogue.on(crop)), times, time.perf_counter() - begun


def main() -> None:
    cases = int(sys.argv[1]) if len(sys.argv) > 1 else 150
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else SEED
    catalogue = default()
    whole = Tally()
    # Timed first, while nothing else runs.
    crop_timed, agents_timed, times, reference = clock(catalogue, random.Random(seed))
    print(f"{cases} cases for each crop, none to three causes, wrong answers by sign; share in which the leading suspect is at work")
    print(f"{'crop':12}{'agents':>7}{'glance':>9}{'six looks':>11}{'at random':>11}{'twelve looks':>14}{'looks':>7}")
    with concurrent.futures.ProcessPoolExecutor(os.cpu_count()) as pool:
        tallies = list(pool.map(run, CROPS, itertools.repeat(cases), itertools.repeat(seed)))
    for crop, tally in zip(CROPS, tallies, strict=True):
        _row(crop, len(catalogue.on(crop)), tally)
        for policy in tally.right:
            whole.right[policy] = whole.right.get(policy, 0) + tally.right[policy]
            whole.whole[policy] = whole.whole.get(policy, 0) + tally.whole[policy]
        whole.looks += tally.looks
        whole.stated += tally.stated
        whole.short += tally.short
        whole.cases += tally.cases
    _row("all", 0, whole)
    short = 100 * (whole.right["twelve looks"] - whole.right["six looks"]) / whole.cases
    error = 100 * statistics.stdev(whole.short) / len(whole.short) ** 0.5
    sets = [f"{whole.whole[policy] / whole.cases:.0%}" for policy in ("six looks", "twelve looks")]
    print(f"six looks come within {short:.1f} points of twelve looks (standard error {error:.1f}, {whole.cases} cases)")
    print(f"the whole set of causes is right in {sets[0]} against {sets[1]} after twelve")
    print("stated chance against what came true (first three suspects, after the glance and after six looks)")
    for tenth, count, mean, right in calibration(whole.stated):
        line_text = f"stated {mean:.3f}  came true {right:.3f}  apart {100 * (right - mean):+.1f} points"
        print(f"  {tenth / 10:.1f}-{(tenth + 1) / 10:.1f}  {count:6} times  {line_text}")
    for scale in SCALES:
        with concurrent.futures.ProcessPoolExecutor(os.cpu_count()) as pool:
            stated = [row for rows in pool.map(erring, CROPS, *(itertools.repeat(value) for value in (cases, seed, scale))) for row in rows]
        rows = [row for row in calibration(stated) if row[1] >= LEAST_IN_TENTH]
        print(
            f"kinds after each look, answers erring {scale:g} times as often: "
            + ", ".join(f"{mean:.2f} came true {right:.2f}" for _, _, mean, right in rows)
        )
    with concurrent.futures.ProcessPoolExecutor(os.cpu_count()) as pool:
        harms = [harm for rows in pool.map(harmful, CROPS, itertools.repeat(HARM_TIMES * cases), itertools.repeat(seed)) for harm in rows]
    concluded, tried = proved(catalogue)
    drawn = HARM_TIMES * cases * len(CROPS)
    print(f"told by its proof alone {concluded} of {tried} conclude; {len(harms)} of {drawn} drawn cases are harmful")
    for harm in harms[:10]:
        print(f"  {harm}")
    median = statistics.median(times)
    worst = sorted(times)[int(0.95 * len(times))]
    print(
        f"suspects, looks and verdict for {crop_timed} ({agents_timed} agents): median {1000 * median:.1f} ms, "
        f"one in twenty above {1000 * worst:.1f} ms; {median / reference:.2f} times a loop of 100,000 steps"
    )


def _row(name: str, agents: int, tally: Tally) -> None:
    shares = [tally.right.get(policy, 0) / max(1, tally.cases) for policy in ("glance", "six looks", "six at random", "twelve looks")]
    columns = "".join(f"{share:>{width}.0%}" for share, width in zip(shares, (9, 11, 11, 14), strict=True))
    print(f"{name:12}{agents or '':>7}{columns}{statistics.fmean(tally.looks or [0]):>7.1f}")


if __name__ == "__main__":
    main()
