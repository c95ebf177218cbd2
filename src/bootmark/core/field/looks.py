"""Which look next: the bits that its answers are expected to tell, for each second that it costs."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from operator import mul

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Look
from bootmark.core.field.activity import activity
from bootmark.core.field.network import Network, Solution
from bootmark.core.field.proofs import MOSTLY, awaited, dangers, fits, open_proofs, provable
from bootmark.core.meanings import OVER, AgentKind
from bootmark.core.types import Case, Cause, NextLook, Ranking

CHI_SQUARES_A_BIT = 2 * math.log(2)
MOST_ASKED = 8
MOST_JOINT = 4
MOST_GROUPS = 60
MOST_LISTED = 40
MOST_EATEN, MOST_EATERS = 3, 3
"""Of the likeliest kinds, those whose eaters are asked about; signs of eaters that a look asks about beyond its own."""

GLANCE = "glance"
"""The look that was taken before anything was told."""


def _bits(chance: float) -> float:
    return 0.0 if chance <= 0 or chance >= 1 else -chance * math.log2(chance) - (1 - chance) * math.log2(1 - chance)


def _entropy(weights: Sequence[float]) -> float:
    total = math.fsum(weights)
    return -math.fsum(w / total * math.log2(w / total) for w in weights if w > 0) if total > 0 else 0.0


def call_of(agent: Agent, region: str) -> str:
    """The kind of call that an agent leads to, once it is named."""
    if agent.listed_in(region):
        return "report"
    if agent.is_pest and not agent.cosmetic:
        return "act"
    return "mend" if agent.kind in (AgentKind.DISORDER, AgentKind.DISEASE) else "leave"


class Question:
    """What the scout asks: which agents are at work.

    The likeliest sets of agents are weighed; all other agents only add to the chance that a sign is there anyway. An agent
    that no sign explains yet is asked about too: it may be what the plant suffers from most.
    """

    def __init__(self, network: Network, solution: Solution) -> None:
        self.network, self.solution = network, solution
        mass = sorted(solution.likely(judgement.UNLIKELY), key=lambda item: -item[1])[:MOST_GROUPS]
        total = math.fsum(weight for _, weight in mass)
        self.groups = [members for members, _ in mass]
        self.members = {place for members in self.groups for place in members}
        self.weights = [weight / total for _, weight in mass]
        self.holding = {place: [n for n, members in enumerate(self.groups) if place in members] for place in self.members}
        order = ("report", "act", "mend", "leave", "none")
        region = network.case.region
        calls = [call_of(agent, region) for agent in network.agents]
        self.calls = [min((order.index(calls[place]) for place in members), default=len(order) - 1) for members in self.groups]
        kinds = sorted(set(self.calls))
        self.by_call = [[n for n, call in enumerate(self.calls) if call == kind] for kind in kinds]
        self.about_call = _entropy([math.fsum(self.weights[n] for n in group) for group in self.by_call])
        self.leads = self._lead(self.weights)
        self.others = {place: chance for place, chance in enumerate(solution.chances) if place not in self.members and chance > 1e-3}

    def causes(self) -> tuple[Cause, ...]:
        """Sets of those agents that explain what was seen, each with its chance whatever else is there besides.

        Where no agent of a kind stands out among its own, the kind stands for all of them.
        """
        explaining = self.network.explains() if self.network.seen else self.network.explaining()
        called = self._called()
        mass: dict[tuple[str, ...], float] = {}
        for members, weight in self.solution.likely(judgement.UNLIKELY):
            key = tuple(dict.fromkeys([called[place] for place in members if place in explaining]))
            mass[key] = mass.get(key, 0.0) + weight
        best = sorted(mass.items(), key=lambda item: -item[1])[:MOST_LISTED]
        total = math.fsum(weight for _, weight in best)
        return tuple(Cause(group, weight / total) for group, weight in best)

    def _called(self) -> list[str]:
        """What each agent is told as: itself where it holds most of its kind's chance, else its kind."""
        chances, agents = self.solution.chances, self.network.agents
        kinds: dict[str, float] = {}
        for agent, chance in zip(agents, chances, strict=True):
            kind = agent.of or agent.id
            kinds[kind] = kinds.get(kind, 0.0) + chance
        return [
            agent.id if chance >= judgement.SPECIES_SHARE * kinds[agent.of or agent.id] else agent.of or agent.id
            for agent, chance in zip(agents, chances, strict=True)
        ]

    def told_seen(self, sign: str) -> list[float]:
        """P(told seen | group), for each group."""
        mistaken, overlooked = self.network.errors(sign)
        missing = 1 - self.network.catalogue.signs[sign].leak
        keeps = []
        for place, chance in self.network.showing.get(sign, ()):
            if place in self.members:
                keeps.append((place, 1 - chance))
            elif place in self.others:
                missing *= 1 - self.others[place] * chance
        misses = [missing] * len(self.groups)
        for place, keep in keeps:
            for n in self.holding[place]:
                misses[n] *= keep
        straight = 1 - mistaken - overlooked
        return [mistaken + straight * (1 - miss) for miss in misses]

    def single(self, row: list[float]) -> float:
        """How much one sign's answer varies between the groups, near to its bits (half the chi-square over ln 2), without a logarithm."""
        shares = list(map(mul, self.weights, row))
        mean, square = sum(shares), sum(map(mul, shares, row))
        return (square - mean * mean) / (mean * (1 - mean)) / CHI_SQUARES_A_BIT if 0 < mean < 1 else 0.0

    def joint(self, rows: Sequence[list[float]]) -> tuple[float, float, float]:
        """In the answers to several signs at once: bits about the groups, bits about the call, and how much surer the lead."""
        outcomes = [self.weights]
        for row in rows:
            against = [1 - chance for chance in row]
            outcomes = [list(map(mul, weights, answer)) for weights in outcomes for answer in (row, against)]
        gained = 0.0
        after = 0.0
        for weights in outcomes:
            whole = sum(weights)
            if whole > 0:
                gained -= whole * math.log2(whole)
                if len(self.by_call) > 1:
                    after += whole * _entropy([sum([weights[n] for n in group]) for group in self.by_call])
        noise = sum(map(mul, self.weights, map(sum, zip(*([_bits(chance) for chance in row] for row in rows), strict=True))))
        leads = math.fsum(self._lead(weights) for weights in outcomes) - self.leads
        return max(0.0, gained - noise), max(0.0, self.about_call - after), leads

    def _lead(self, weights: list[float]) -> float:
        """The greatest share of these weights that sets with one same agent hold."""
        return max([sum([weights[n] for n in group]) for group in self.holding.values()], default=0.0)


def possible(look: Look, case: Case) -> bool:
    """Whether the scout carries its tools and it is the hour for it."""
    carried = case.tools is None or set(look.tools) <= case.tools
    return carried and (not look.night or case.hour is None or case.hour >= judgement.NIGHT[0] or case.hour < judgement.NIGHT[1])


def rank(question: Question, ranking: Ranking, looks: Mapping[str, Look]) -> list[NextLook]:
    """Looks worth taking: a proof that is wanted first, then what the call waits for, what can change the call, and bits a second."""
    network = question.network
    case = network.case
    proofs, waiting, own = proofs_wanted(network, ranking), signs_awaited(network, ranking), _signs_of_leader(network, ranking)
    eaters = frozenset(open_proofs(_eaters(network, ranking), case.signs))
    # What no likely cause leaves tells nothing; it is still asked where its look is taken.
    relevant = {sign for place in question.members for sign in network.agents[place].shows} | proofs | waiting | own
    worthwhile = []
    for look in looks.values():
        signs = [sign for sign in network.askable[look.id] if sign not in case.signs]
        if not signs or not possible(look, case):
            continue
        rows = {sign: question.told_seen(sign) for sign in signs if sign in relevant}
        if not rows:
            continue
        worth = dict.fromkeys(signs, 0.0) | {sign: question.single(row) for sign, row in rows.items()}
        signs.sort(key=lambda sign: (sign not in proofs, sign not in waiting, sign not in own, -worth[sign]))
        # What eats a suspect is met where the suspect is looked for: its proofs crowd out none of the suspect's own.
        asked = signs[:MOST_ASKED] + [sign for sign in signs[MOST_ASKED:] if sign in eaters][:MOST_EATERS]
        proves, waits = not proofs.isdisjoint(asked), not waiting.isdisjoint(asked)
        if sum(worth[sign] for sign in asked) < judgement.WORTH_A_LOOK and not (proves or waits):
            continue
        bits, call_bits, leads = question.joint([rows[sign] for sign in asked[:MOST_JOINT] if sign in rows])
        bits += judgement.REST_TELLS * sum(worth[sign] for sign in asked[MOST_JOINT:])
        if bits >= judgement.WORTH_A_LOOK or proves or waits:
            worthwhile.append(_Worth(look, bits, judgement.THE_CALL * call_bits + judgement.LEADS * leads, tuple(asked), proves, waits))
    most = max((entry.call / entry.cost for entry in worthwhile), default=0.0)
    return [
        NextLook(
            entry.look.id,
            entry.bits,
            entry.look.seconds,
            entry.signs,
            splits(network, ranking, entry.signs),
            entry.decides(most),
            entry.proves,
            entry.waits,
        )
        for entry in sorted(worthwhile, key=lambda entry: entry.turn(most))
    ]


@dataclass(frozen=True)
class _Worth:
    """A look, the bits that it is expected to tell, and what it is expected to change of the call."""

    look: Look
    bits: float
    call: float
    signs: tuple[str, ...]
    proves: bool
    waits: bool

    @property
    def cost(self) -> int:
        return self.look.seconds + judgement.HANDLING_SECONDS

    def decides(self, most: float) -> bool:
        return self.call / self.cost >= judgement.CHANGES_THE_CALL * most

    def turn(self, most: float) -> tuple[bool, bool, bool, bool, float]:
        # The plant has been glanced at already: to be asked about it in words is for when nothing else tells.
        idle = self.look.id == GLANCE and not self.proves
        return idle, not self.proves, not self.waits, not self.decides(most), -(judgement.THE_CALL * self.bits + self.call) / self.cost


def _of_kinds(network: Network, kinds: set[str]) -> list[Agent]:
    return [agent for agent in network.agents if not kinds.isdisjoint((agent.id, agent.of))]


def proofs_wanted(network: Network, ranking: Ranking) -> frozenset[str]:
    """Open proofs of the likeliest kind, once it leads clearly and nothing has proved it, and of what can hurt and may be there."""
    leaders = [kind for kind in ranking.kinds if kind.probability >= judgement.LEADS_CLEARLY][:1]
    hurting = dangers(ranking.kinds, network.case.signs, network.catalogue)
    unproved = {kind.agent for kind in (*leaders, *hurting) if not kind.confirmed}
    return frozenset(open_proofs(_of_kinds(network, unproved), network.case.signs))


def signs_awaited(network: Network, ranking: Ranking) -> frozenset[str]:
    """What the call waits for once there is a name: the proof of a second cause, what controls must not be without, and, before a hand
    comes near, the proof of what hurts and may usually leave what was seen."""
    signs, catalogue = network.case.signs, network.catalogue
    beside = {kind.agent for kind in ranking.kinds if kind.probability >= judgement.BESIDE_AT and not kind.confirmed}
    waiting = set(open_proofs(_of_kinds(network, beside), signs))
    named = [suspect for suspect in (*ranking.kinds, *ranking.suspects) if suspect.probability >= judgement.NAMED_AT]
    proved = [suspect.agent for suspect in named if suspect.confirmed or not provable(catalogue.kin(suspect.agent))]
    # A call that is over waits for nothing.
    called = {agent for agent in proved if activity(agent, network.case, catalogue=catalogue) not in OVER}
    called -= {catalogue.agent(agent).of for agent in called}
    controls = [control for agent in called for control in catalogue.agent(agent).controls]
    waiting.update(sign for control in controls for sign in awaited(control, signs))
    if any(control.by_hand for control in controls):
        hurting = (catalogue.agent(suspect.agent) for suspect in dangers(ranking.suspects, signs, catalogue))
        waiting.update(open_proofs((agent for agent in hurting if fits(agent, signs, MOSTLY)), signs))
    return frozenset(waiting)


def _signs_of_leader(network: Network, ranking: Ranking) -> frozenset[str]:
    """Every sign of the likeliest kind, proved or not: a look that is taken asks for all of them together."""
    return frozenset(sign for agent in _of_kinds(network, {kind.agent for kind in ranking.kinds[:1]}) for sign in agent.shows)


def _eaters(network: Network, ranking: Ranking) -> list[Agent]:
    """Helpers that live on one of the likeliest kinds, as they or those whom they eat say: they are met where their prey is looked for."""
    suspected = _of_kinds(network, {kind.agent for kind in ranking.kinds[:MOST_EATEN]})
    prey = {name for agent in suspected for name in (agent.id, agent.of)}
    named = {enemy.agent for agent in suspected for enemy in agent.enemies}
    helpers = (agent for agent in network.agents if agent.kind == AgentKind.BENEFICIAL)
    return [agent for agent in helpers if agent.id in named or not prey.isdisjoint(agent.eats)]


def splits(network: Network, ranking: Ranking, signs: tuple[str, ...]) -> tuple[str, ...]:
    """The leading suspects that a look tells apart: the one that shows its signs first."""
    leading = [
        network.agents[network.place[suspect.agent]] for suspect in ranking.suspects[:4] if suspect.probability > judgement.RARE_PEST
    ]

    def shown(agent: Agent) -> float:
        return max(network.told_seen(sign, (agent,)) for sign in signs)

    ordered = sorted(leading, key=lambda agent: -shown(agent))
    if len(ordered) < 2 or shown(ordered[0]) - shown(ordered[-1]) < judgement.SPLITS:
        return tuple(agent.id for agent in ordered[:1])
    return ordered[0].id, ordered[-1].id
