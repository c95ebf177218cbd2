"""The naming network against a general Bayesian-network library that shares no code with Bootmark.

The network is rebuilt from the catalogue's raw words: one binary node for each agent, a chain of counters that
allows three at work, a noisy-or node for each sign (leak and chances), and an answer that is wrong by each sign's own
two errors as likelihood evidence. Solved by pyAgrum's lazy propagation (exact).
"""

import math
import random
import tomllib
import unittest
from collections import Counter

import pyagrum as gum

from bootmark.core.catalogue import default, loader
from bootmark.core.catalogue.model import Agent
from bootmark.core.field import identify

CATALOGUE = default()
CHANCE = {"always": 0.97, "usual": 0.75, "sometimes": 0.35, "seldom": 0.08, "never": 0.0}
USUAL = {"often": 0.12, "sometimes": 0.05, "seldom": 0.015, "rarely": 0.004}
RARER = {"often": "sometimes", "sometimes": "seldom", "seldom": "rarely", "rarely": "rarely"}
MISTAKEN = {"hardly": 0.0003, "seldom": 0.01, "sometimes": 0.04, "often": 0.1}
OVERLOOKED = {"hardly": 0.01, "seldom": 0.04, "sometimes": 0.1, "often": 0.25}
RAW = {name: tomllib.loads((loader.HERE / f"{name}.toml").read_text()) for name in ("signs", "looks")}
AT_WORK, TOGETHER = 1.5, 1.5
"""Agents at work on average; members of a kind together, in times of the most usual one."""
MOST = 3
CASES = 24
FEW = 9
"""Agents that leave a sign, up to which the library can solve it exactly in seconds."""
CROPS = ("raspberry", "pear", "potato", "cabbage", "rose", "birch", "hop", "tomato")


def errors(sign: str) -> tuple[float, float]:
    """How easily a sign is mistaken and overlooked: its own words, else its look's."""
    words = RAW["looks"][RAW["signs"][sign]["look"]] | RAW["signs"][sign]
    chances = ((MISTAKEN[words["mistaken"]], 0.25), (OVERLOOKED[words["overlooked"]], 0.4))
    # With two fifths more doubt than the words have, up to a bound; words that are beyond it stay.
    mistaken, overlooked = (min(1.4 * chance, max(most, chance)) for chance, most in chances)
    return mistaken, overlooked


def in_season(agent: Agent, month: int, signs: dict[str, str]) -> bool:
    """In its months, while a stage that feeds is there, or where what was seen outlasts it."""
    lasting = any(shows.outlasts and signs.get(sign) == "seen" for sign, shows in agent.shows.items())
    return lasting or month in agent.months or any(month in agent.year.get(stage, ()) for stage in agent.feeds)


def is_apart(agent: str) -> bool:
    """A helper, or what is normal: as usual as it is, however many others there are, and no cause of harm."""
    return CATALOGUE.agents[agent].kind in ("beneficial", "normal")


def kind_of(agent: str) -> str:
    return agent if is_apart(agent) else CATALOGUE.agents[agent].of or agent


def odds_of(crop: str, month: int, signs: dict[str, str]) -> dict[str, float]:
    """Each agent's odds before any sign, in an open field with no weather told and no past."""
    odds: dict[str, float] = {}
    chances: dict[str, float] = {}
    usual_here = {agent.id: agent.hosts.get(crop, agent.hosts.get("*")) for agent in CATALOGUE.agents.values()}
    for agent in CATALOGUE.agents.values():
        usual = usual_here[agent.id]
        if usual:
            order = list(USUAL)
            kin = [usual_here[member.id] for member in CATALOGUE.members(agent.id)]
            if any(other and order.index(other) <= order.index(usual) for other in kin):
                usual = RARER[usual]
            chances[agent.id] = USUAL[usual]
    for agent in CATALOGUE.agents.values():
        if agent.id in chances:
            alike = [chances[other] for other in chances if kind_of(other) == kind_of(agent.id)]
            chance = chances[agent.id] * min(1.0, TOGETHER * max(alike) / math.fsum(alike))
            odds[agent.id] = chance / (1 - chance) * (1.0 if in_season(agent, month, signs) else 0.15) * agent.places.get("field", 1.0)
    mean = math.fsum(odd / (1 + odd) for agent, odd in odds.items() if not is_apart(agent))
    scale = min(1.0, AT_WORK / mean)
    return {agent: odd * (1.0 if CATALOGUE.agents[agent].hurts or is_apart(agent) else scale) for agent, odd in odds.items()}


def network(odds: dict[str, float], signs: dict[str, str]) -> tuple[gum.BayesNet, dict[str, list[float]]]:
    """The two-layer network and what is told of it."""
    net = gum.BayesNet()
    before = ""
    for place, (agent, one) in enumerate(odds.items()):
        net.cpt(net.add(gum.LabelizedVariable(agent, agent, 2))).fillWith([1 / (1 + one), one / (1 + one)])
        counter = f"count {place}"
        net.add(gum.LabelizedVariable(counter, counter, MOST + 2))
        net.addArc(agent, counter)
        if before:
            net.addArc(before, counter)
        for here in (0, 1):
            for so_far in range(MOST + 2 if before else 1):
                row = [0.0] * (MOST + 2)
                row[min(MOST + 1, so_far + here)] = 1.0
                net.cpt(counter)[{agent: here, before: so_far} if before else {agent: here}] = row
        before = counter
    fields = {before: [1.0] * (MOST + 1) + [0.0]}
    for sign, state in signs.items():
        if state == "unsure":
            continue
        name = f"sign {sign}"
        net.addNoisyORNet(gum.LabelizedVariable(name, name, 2), CATALOGUE.signs[sign].leak)
        for agent in odds:
            shows = CATALOGUE.agents[agent].shows.get(sign)
            if shows and CHANCE[shows.often]:
                net.addWeightedArc(agent, name, CHANCE[shows.often])
        mistaken, overlooked = errors(sign)
        fields[name] = [mistaken, 1 - overlooked] if state == "seen" else [1 - mistaken, overlooked]
    return net, fields


def cases() -> list[tuple[str, int, dict[str, str]]]:
    rng = random.Random(7)
    problems = []
    for _ in range(CASES):
        crop, month = rng.choice(CROPS), rng.randint(1, 12)
        shown = Counter(sign for agent in CATALOGUE.on(crop) for sign in agent.shows)
        likely = sorted(sign for sign, agents in shown.items() if agents <= FEW)
        signs = {sign: rng.choice(("seen", "absent", "unsure")) for sign in rng.sample(likely, rng.randint(1, 7))}
        problems.append((crop, month, signs))
    return problems


class Library(unittest.TestCase):
    def test_every_agents_chance_agrees(self) -> None:
        for crop, month, signs in cases():
            odds = odds_of(crop, month, signs)
            net, network_told = network(odds, signs)
            engine = gum.LazyPropagation(net)
            engine.setEvidence(network_told)
            engine.setTargets(set(odds))
            engine.makeInference()
            ranking = identify.suspects({"crop": crop, "month": month, "signs": signs})
            self.assertEqual({suspect.agent for suspect in ranking.suspects}, set(odds))
            for suspect_row in ranking.suspects:
                self.assertAlmostEqual(
                    suspect_row.probability, engine.posterior(suspect_row.agent)[1], delta=1e-6, msg=f"{crop} {signs} {suspect_row.agent}"
                )

    def test_the_leading_joint_explanations_agree(self) -> None:
        for crop, month, signs in cases()[:20]:
            odds = odds_of(crop, month, signs)
            net, network_told = network(odds, signs)
            engine = gum.LazyPropagation(net)
            engine.setEvidence(network_told)
            whole = engine.evidenceProbability()
            for cause in identify.suspects({"crop": crop, "month": month, "signs": signs}).causes[:3]:
                engine.setEvidence({**network_told, **{agent: int(agent in cause.agents) for agent in odds}})
                self.assertAlmostEqual(
                    cause.probability, engine.evidenceProbability() / whole, delta=1e-6, msg=f"{crop} {signs} {cause.agents}"
                )


if __name__ == "__main__":
    unittest.main()
