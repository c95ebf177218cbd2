"""Which look next: the bits that its answers are expected to tell, for each second that it costs."""

import math
from collections.abc import Mapping, Sequence
from operator import mul

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Look
from bootmark.core.field.network import Network, Solution
from bootmark.core.meanings import AgentKind, Often
from bootmark.core.types import SEEN, Case, Cause, NextLook, Ranking

CHI_SQUARES_A_BIT = 2 * math.log(2)
MOST_ASKED = 8
MOST_JOINT = 4
MOST_GROUPS = 60
MOST_LISTED = 40


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
        chances, agents, entries = self.solution.chances, self.network.agents, self.network.catalogue.agents
        kinds: dict[str, float] = {}
        for agent, chance in zip(agents, chances, strict=True):
            key = agent.of or agent.id
            kinds[key] = kinds.get(key, 0.0) + chance
        return [
            agent.id if chance >= judgement.SPECIES_SHARE * kinds[agent.of or agent.id] or agent.of not in entries else agent.of
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
    """Looks worth taking: those that can change the call first, then by bits for each second."""
    network = question.network
    case = network.case
    pests = [suspect for suspect in ranking.suspects if network.agents[network.place[suspect.agent]].is_pest and not suspect.confirmed]
    leading = network.agents[network.place[pests[0].agent]] if pests and pests[0].probability > judgement.IN_THE_LEAD else None
    wanted = {shows.sign for shows in leading.shows.values() if shows.confirms} if leading else set()
    proofs, own = proofs_of_leader(network, ranking), _signs_of_leader(network, ranking)
    # What no likely cause leaves tells nothing; it is still asked where its look is taken.
    relevant = {sign for place in question.members for sign in network.agents[place].shows} | proofs | own
    worthwhile = []
    for look in looks.values():
        signs = [sign for sign in look.signs if sign not in case.signs and sign in network.showing and network.can_show(sign)]
        if not signs or not possible(look, case):
            continue
        rows = {sign: question.told_seen(sign) for sign in signs if sign in relevant}
        if not rows:
            continue
        worth = dict.fromkeys(signs, 0.0) | {sign: question.single(row) for sign, row in rows.items()}
        asked = sorted(signs, key=lambda sign: (sign not in proofs, sign not in own, -worth[sign]))
        asked = asked[:MOST_ASKED]
        if sum(worth[sign] for sign in asked) < judgement.WORTH_A_LOOK and proofs.isdisjoint(asked):
            continue
        bits, call_bits, leads = question.joint([rows[sign] for sign in asked[:MOST_JOINT] if sign in rows])
        bits += judgement.REST_TELLS * sum(worth[sign] for sign in asked[MOST_JOINT:])
        if bits >= judgement.WORTH_A_LOOK or not proofs.isdisjoint(asked):
            confirms = leading.chance_of_one(wanted & set(asked)) * pests[0].probability if leading else 0.0
            worthwhile.append((look, bits, judgement.THE_CALL * (call_bits + confirms) + judgement.LEADS * leads, tuple(asked)))
    most = max((call / (look.seconds + judgement.HANDLING_SECONDS) for look, _, call, _ in worthwhile), default=0.0)

    def key(entry: tuple[Look, float, float, tuple[str, ...]]) -> tuple[bool, bool, bool, float]:
        look, bits, call, asked = entry
        cost = look.seconds + judgement.HANDLING_SECONDS
        # The plant has been glanced at already: to be asked about it in words is for when nothing else tells.
        idle = look.id == "glance" and proofs.isdisjoint(asked)
        proves = bool(proofs) and not proofs.isdisjoint(asked)
        return (idle, not proves, call / cost < judgement.CHANGES_THE_CALL * most, -(judgement.THE_CALL * bits + call) / cost)

    return [
        NextLook(
            look.id,
            bits,
            look.seconds,
            asked,
            splits(network, ranking, asked),
            call >= judgement.CHANGES_THE_CALL * most * (look.seconds + judgement.HANDLING_SECONDS),
            not proofs.isdisjoint(asked),
        )
        for look, bits, call, asked in sorted(worthwhile, key=key)
    ]


def proofs_of_leader(network: Network, ranking: Ranking) -> frozenset[str]:
    """Signs not yet answered that would prove the likeliest explanation, once it leads clearly and nothing has proved it."""
    leaders = [suspect for suspect in ranking.kinds if suspect.probability >= judgement.LEADS_CLEARLY][:1]
    dangers = [suspect for suspect in ranking.kinds if _fits_danger(network, suspect.agent) and suspect.probability >= judgement.DANGER_AT]
    wanted = {suspect.agent for suspect in (*leaders, *dangers) if not suspect.confirmed}
    agents = [agent for agent in network.agents if not wanted.isdisjoint((agent.id, agent.of))]
    return frozenset(
        shows.sign for agent in agents for shows in agent.shows.values() if shows.confirms and shows.sign not in network.case.signs
    )


def _signs_of_leader(network: Network, ranking: Ranking) -> frozenset[str]:
    """Every sign of the likeliest kind, proved or not: a look that is taken asks for all of them together."""
    leader = ranking.kinds[0].agent if ranking.kinds else ""
    return frozenset(sign for agent in network.agents if leader and leader in (agent.id, agent.of) for sign in agent.shows)


def _fits_danger(network: Network, kind: str) -> bool:
    """Whether a sign seen is met with what can hurt people or stock."""
    agent = network.catalogue.agent(kind)
    often = (Often.ALWAYS, Often.USUAL, Often.SOMETIMES)
    return bool(agent.hurts) and any(shows.often in often and network.case.signs.get(sign) == SEEN for sign, shows in agent.shows.items())


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
