"""Agents and signs as a two-layer noisy-or network with a leak, solved over sets of up to three joint causes.

P(sign there | agents S) = 1 - (1 - leak) * product over S of (1 - q[agent, sign]); signs are independent
given S. What is told differs from what is there: a sign is mistaken or overlooked, each with its own chance, so
P(told seen | S) = mistaken + (1 - mistaken - overlooked) * P(there | S). Sources: Pearl (1988), "Probabilistic Reasoning in
Intelligent Systems", section 4.3.2, for the noisy-or; Heckerman (1989), "A tractable inference algorithm
for diagnosing multiple diseases", for few joint causes.

Agents that can leave none of the signs answered are summed out exactly, by elementary symmetric sums of
their odds. Among the others, triples are left out only where a bound on their whole mass stays below
`TOLERANCE`: adding a cause multiplies the chance of a seen sign by less, the more causes are there already,
and lowers that of an absent one by less, the likelier the others make it.
"""

import functools
import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.field.priors import KEPT, Plant, Prior, guessed, living_on, priors
from bootmark.core.types import ABSENT, SEEN, Case

MOST_JOINT = 3
TOLERANCE = 5e-7
"""Share of all mass that may be left out of the sum over triples."""
MANY_ANSWERS, TOLERANCE_OF_MANY = 30, 1e-3
"""From so many answers on nearly all agents bear on some, and triples take ten times as long: more of them are left out."""

Shown = list[tuple[int, float]]


@functools.lru_cache(maxsize=KEPT)
def _showing(plant: Plant, catalogue: Catalogue) -> dict[str, list[tuple[int, float]]]:
    """For each sign the agents that show it, by their places, and how often."""
    showing: dict[str, list[tuple[int, float]]] = {}
    for place, agent in enumerate(living_on(plant, catalogue)):
        for sign, shows in agent.shows.items():
            showing.setdefault(sign, []).append((place, shows.chance))
    return showing


@functools.lru_cache(maxsize=KEPT)
def _askable(plant: Plant, crop: str, habit: str, catalogue: Catalogue) -> dict[str, tuple[str, ...]]:
    """For each look the signs that it answers, that the plant can show and that somebody who lives on it leaves."""
    showing = _showing(plant, catalogue)
    return {
        look.id: tuple(sign for sign in look.signs if sign in showing and catalogue.can_show(sign, crop, habit))
        for look in catalogue.looks.values()
    }


@functools.lru_cache(maxsize=KEPT)
def _together(plant: Plant, catalogue: Catalogue) -> dict[str, tuple[int, ...]]:
    """The places of each kind's agents, and of each agent of no kind."""
    places: dict[str, list[int]] = {}
    for place, agent in enumerate(living_on(plant, catalogue)):
        places.setdefault(catalogue.key_of(agent.id), []).append(place)
    return {key: tuple(members) for key, members in places.items()}


@dataclass(frozen=True)
class Solution:
    """total: mass of all sets; chances: of each agent; alone: weights of the sets of agents that the answers
    bear on, with no other agent there; room: what other agents besides multiply the weight of a set of each
    size by; left_out: bound on the share of mass not summed."""

    total: float
    chances: tuple[float, ...]
    alone: list[tuple[tuple[int, ...], float]]
    room: tuple[float, ...]
    left_out: float

    def likely(self, share: float) -> Iterator[tuple[tuple[int, ...], float]]:
        """Sets of at least this share of all mass, agents on which no answer bears summed out."""
        floor = share * self.total
        return ((members, weight * self.room[len(members)]) for members, weight in self.alone if weight >= floor)


def _doubted(error: float, most: float) -> float:
    """A chance of erring as it is reasoned with: larger than the catalogue's, but not beyond what an answer is worth."""
    return min(judgement.MORE_DOUBT * error, max(most, error))


@functools.lru_cache(maxsize=4)
def _errors(catalogue: Catalogue) -> dict[str, tuple[float, float]]:
    """Each sign's own chances that it is mistaken and overlooked, with more doubt."""
    return {
        sign: (_doubted(entry.mistaken, judgement.MOST_MISTAKEN), _doubted(entry.overlooked, judgement.MOST_OVERLOOKED))
        for sign, entry in catalogue.signs.items()
    }


class Network:
    """One case's agents with their priors, and what was told of its signs."""

    def __init__(self, case: Case, catalogue: Catalogue) -> None:
        self.case, self.catalogue = case, catalogue
        plant = Plant.of(case)
        self.agents, self.note = living_on(plant, catalogue), guessed(plant, catalogue)
        self.priors: tuple[Prior, ...] = priors(case, catalogue)
        self.odds = [prior.chance / (1 - prior.chance) for prior in self.priors]
        self.place = {agent.id: place for place, agent in enumerate(self.agents)}
        self.showing = _showing(plant, catalogue)
        self.seen = [sign for sign, state in case.signs.items() if state == SEEN and sign in catalogue.signs]
        self.absent = [sign for sign, state in case.signs.items() if state == ABSENT and sign in catalogue.signs]
        # What is asked of every agent is asked of the signs instead: they are few, and know who leaves them.
        self.proved = {place for sign in self.seen for place, _ in self.showing.get(sign, ()) if self.agents[place].shows[sign].confirms}
        self.askable = _askable(plant, case.crop, case.habit, catalogue)
        self.together = _together(plant, catalogue)
        self.answered = [*self.seen, *self.absent]
        column = {sign: at for at, sign in enumerate(self.answered)}
        self.shown: list[Shown] = [
            [(column[sign], 1 - shows.chance) for sign, shows in agent.shows.items() if sign in column] for agent in self.agents
        ]
        self.base = [1 - catalogue.signs[sign].leak for sign in self.answered]
        # Told as seen: a - b * miss; told as absent: a + b * miss. One line serves both.
        errors = [self.errors(sign) for sign in self.answered]
        seen = len(self.seen)
        self.fixed = [1 - overlooked for _, overlooked in errors[:seen]] + [overlooked for _, overlooked in errors[seen:]]
        straight = [1 - mistaken - overlooked for mistaken, overlooked in errors]
        self.slope = [-share for share in straight[:seen]] + straight[seen:]

    def errors(self, sign: str) -> tuple[float, float]:
        """Chances that a sign is mistaken and overlooked: the case's own slip where it tells one, else the sign's with more doubt."""
        slip = self.case.slip
        return _errors(self.catalogue)[sign] if slip is None else (slip, slip)

    def told_seen(self, sign: str, agents: tuple[Agent, ...]) -> float:
        """P(told seen | exactly these agents at work)."""
        missing = 1 - self.catalogue.signs[sign].leak
        for agent in agents:
            shows = agent.shows.get(sign)
            if shows:
                missing *= 1 - shows.chance
        mistaken, overlooked = self.errors(sign)
        return mistaken + (1 - mistaken - overlooked) * (1 - missing)

    def explains(self) -> set[int]:
        """Agents that make at least one seen sign likelier."""
        leaks = self.catalogue.signs
        return {place for sign in self.seen for place, chance in self.showing.get(sign, ()) if chance > leaks[sign].leak}

    def explaining(self) -> set[int]:
        """Agents that explain something seen; all of them where none does."""
        return self.explains() or set(range(len(self.agents)))

    def _gain(self, missing: list[float], place: int) -> float:
        """What adding an agent multiplies a set's weight by; missing: chance of each sign's absence given the set."""
        gain = self.odds[place]
        fixed, slope = self.fixed, self.slope
        for at, keep in self.shown[place]:
            miss = missing[at]
            gain *= (fixed[at] + slope[at] * miss * keep) / (fixed[at] + slope[at] * miss)
        return gain

    def _with(self, missing: list[float], place: int) -> list[float]:
        changed = missing.copy()
        for at, keep in self.shown[place]:
            changed[at] *= keep
        return changed

    def solve(self, tolerance: float | None = None) -> Solution:
        """Weigh all sets of up to three agents. tolerance: by the number of answers where None."""
        if tolerance is None:
            tolerance = TOLERANCE if len(self.answered) < MANY_ANSWERS else TOLERANCE_OF_MANY
        count = len(self.agents)
        shown_places = [place for place in range(count) if self.shown[place]]
        inert = [place for place in range(count) if not self.shown[place]]
        nothing = math.prod(f + s * m for f, s, m in zip(self.fixed, self.slope, self.base, strict=True))
        first = {place: nothing * self._gain(self.base, place) for place in shown_places}
        shown_places.sort(key=lambda place: -first[place])
        least = self._least()
        most = [self._most(place, least) for place in shown_places]
        tails = [*reversed([*itertools.accumulate(reversed(most))]), 0.0]
        alone: list[tuple[tuple[int, ...], float]] = [((), nothing)]
        twos: list[tuple[float, int, int, float]] = []
        missing_one = [self._with(self.base, place) for place in shown_places]
        fixed, slope, odds, shown = self.fixed, self.slope, self.odds, self.shown
        for a, leading in enumerate(shown_places):
            missing, weight = missing_one[a], first[leading]
            alone.append(((leading,), weight))
            for b in range(a + 1, len(shown_places)):
                both = weight * self._gain(missing, shown_places[b])
                alone.append(((leading, shown_places[b]), both))
                twos.append((both * tails[b + 1], a, b, both))
        allowed = tolerance * math.fsum(weight for _, weight in alone)
        left_out = 0.0
        twos.sort()
        for bound, a, b, weight in twos:
            if left_out + bound <= allowed:
                left_out += bound
                continue
            missing = self._with(missing_one[a], shown_places[b])
            leading, two = shown_places[a], shown_places[b]
            for third in shown_places[b + 1 :]:
                # As _gain, written out: this line is where the time goes.
                gain = odds[third]
                for at, keep in shown[third]:
                    step = slope[at] * missing[at]
                    gain *= (fixed[at] + step * keep) / (fixed[at] + step)
                alone.append(((leading, two, third), weight * gain))
        return self._summed(alone, inert, left_out)

    def _most(self, place: int, least: list[list[tuple[float, int]]]) -> float:
        """The most that adding an agent can multiply the weight of any pair of others by.

        What a seen sign gains is greatest where nothing else makes it; what an absent sign costs is least
        where the two others that make it most are there.
        """
        most = self.odds[place]
        for at, keep in self.shown[place]:
            miss = self.base[at]
            if self.slope[at] > 0:
                for other_keep, _ in [pair for pair in least[at] if pair[1] != place][: MOST_JOINT - 1]:
                    miss *= other_keep
            most *= (self.fixed[at] + self.slope[at] * miss * keep) / (self.fixed[at] + self.slope[at] * miss)
        return most

    def _least(self) -> list[list[tuple[float, int]]]:
        """For each sign answered, the agents that make it most, and the chance that each leaves it out."""
        least: list[list[tuple[float, int]]] = [[] for _ in self.answered]
        for place, shown in enumerate(self.shown):
            for at, keep in shown:
                least[at].append((keep, place))
        return [sorted(pairs)[:MOST_JOINT] for pairs in least]

    def _summed(self, alone: list[tuple[tuple[int, ...], float]], inert: list[int], left_out: float) -> Solution:
        """Add the sets that hold agents on which no answer bears: their odds multiply, nothing else."""
        odds = [self.odds[place] for place in inert]
        singles = math.fsum(odds)
        squares, cubes = math.fsum(x * x for x in odds), math.fsum(x * x * x for x in odds)
        two = (singles * singles - squares) / 2
        three = (singles**3 - 3 * singles * squares + 2 * cubes) / 6
        room = (1 + singles + two + three, 1 + singles + two, 1 + singles, 1.0)
        sizes = [0.0] * 4
        chances = [0.0] * len(self.agents)
        for members, weight in alone:
            size = len(members)
            sizes[size] += weight
            for place in members:
                chances[place] += weight * room[size]
        total = math.fsum(weight * more for weight, more in zip(sizes, room, strict=True))
        for place in inert:
            own = self.odds[place]
            rest = singles - own
            rest_two = two - own * rest
            chances[place] = own * (sizes[0] * (1 + rest + rest_two) + sizes[1] * (1 + rest) + sizes[2])
        return Solution(total, tuple(chance / total for chance in chances), alone, room, left_out / total)

    def chances_of_any(self, solution: Solution, groups: Sequence[Sequence[int]]) -> list[float]:
        """P(at least one of its agents is at work) for each of several groups that have no agent in common."""
        group_of = {place: number for number, places in enumerate(groups) for place in places}
        whole, held = 0.0, [0.0] * len(groups)
        for members, weight in solution.alone:
            weighed = weight * solution.room[len(members)]
            whole += weighed
            for number in {group_of[place] for place in members if place in group_of}:
                held[number] += weighed
        calm = (math.prod(1 - solution.chances[place] for place in places if not self.shown[place]) for places in groups)
        return [max(0.0, 1 - (whole - some) / solution.total * still) for some, still in zip(held, calm, strict=True)]

    def inert(self) -> list[int]:
        return [place for place in range(len(self.agents)) if not self.shown[place]]
