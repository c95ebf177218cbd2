"""The chance of each agent before any sign: crop, place, season or heat, recent weather, the farm's own history."""

import functools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue, turned
from bootmark.core.meanings import AgentKind, Direction
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import SEEN, Case

UNDER_COVER = ("greenhouse", "tunnel")
KEPT = 256
ORDER = list(judgement.HOW_USUAL)


@dataclass(frozen=True)
class Prior:
    chance: float
    reasons: tuple[Message, ...]


@dataclass(frozen=True)
class Plant:
    """What a case is on, as far as what lives there depends on it."""

    crop: str
    family: str
    habit: str

    @classmethod
    def of(cls, case: Case) -> "Plant":
        return cls(case.crop, case.family, case.habit)


@functools.lru_cache(maxsize=KEPT)
def living_on(plant: Plant, catalogue: Catalogue) -> tuple[Agent, ...]:
    """Agents that may be at work on a plant.

    One that is not known falls back to those of its family; without a family, to those of any crop.
    """
    if plant.crop in catalogue.crops:
        return catalogue.on(plant.crop)
    kin = _crops_of(plant.family, catalogue)
    return tuple(agent for agent in catalogue.agents.values() if _lives_on(agent, plant, kin))


APART = (AgentKind.BENEFICIAL, AgentKind.NORMAL)
"""Kinds of agents whose members are unlike each other but for what follows from them."""


def guessed(plant: Plant, catalogue: Catalogue) -> Message | None:
    """What is said where the plant has no entry, and its causes had to be guessed at."""
    if plant.crop in catalogue.crops:
        return None
    kin = _crops_of(plant.family, catalogue)
    if kin:
        return says(Says.CROP_OF_FAMILY, plant=plant.crop, family=plant.family, crops=tuple(kin[:3]))
    if plant.habit:
        return says(Says.CROP_BY_HABIT, plant=plant.crop, habit=plant.habit)
    return says(Says.CROP_UNKNOWN, plant=plant.crop)


def _crops_of(family: str, catalogue: Catalogue) -> list[str]:
    return [crop.id for crop in catalogue.crops.values() if crop.family == family]


def _lives_on(agent: Agent, plant: Plant, kin: list[str]) -> bool:
    """Whether it may live on a plant that is no crop of the catalogue: by its family, its habit, or anyhow."""
    wide = not {plant.family, plant.habit}.isdisjoint(agent.habits) or "*" in agent.hosts
    # A plant of which nothing is known may have any kind.
    return wide or (agent.is_kind and not plant.family and not plant.habit) or any(crop in agent.hosts for crop in kin)


def _usual(agent: Agent, plant: Plant, catalogue: Catalogue) -> str:
    if plant.crop not in catalogue.crops:
        wide = agent.habits.get(plant.family) or agent.habits.get(plant.habit)
        if wide:
            return wide
        kin = [usual for crop, usual in agent.hosts.items() if crop in catalogue.crops and catalogue.crops[crop].family == plant.family]
        if kin:
            return judgement.LESS_USUAL[min(kin, key=ORDER.index)]
    return agent.usual_on(plant.crop)


def _another(kind: Agent, most: Mapping[str, int], usual: str) -> str:
    """How usual another of a kind is: a step less usual than the kind, where a member that has its own entry is as usual there."""
    return judgement.LESS_USUAL[usual] if most.get(kind.id, len(ORDER)) <= ORDER.index(usual) else usual


def _in_season(agent: Agent, case: Case) -> tuple[float, list[Message]]:
    """The season's factor: this year's heat where a model tells it, otherwise the month."""
    out = judgement.OUT_OF_SEASON_UNDER_COVER if case.place in UNDER_COVER else judgement.OUT_OF_SEASON
    share = case.heat.get(agent.id)
    if share is not None:
        if share < judgement.NOT_NOW_SHARE:
            return out, [says(Says.HEAT_NOT_NOW, Direction.AGAINST)]
        return 1.0, [says(Says.HEAT_NOW, Direction.FOR)] if share > judgement.NOW_SHARE else []
    if case.month not in agent.months_in(case.hemisphere) and not _there(agent, case):
        return out, [says(Says.SEASON_OUT, Direction.AGAINST)]
    return 1.0, []


def _there(agent: Agent, case: Case) -> bool:
    """Whether what was seen of it outlasts it, or a stage that feeds lives in this month."""
    if any(shows.outlasts and case.signs.get(sign) == SEEN for sign, shows in agent.shows.items()):
        return True
    return any(case.month in turned(agent.year[stage], case.hemisphere) for stage in agent.feeds if stage in agent.year)


def _weather(agent: Agent, case: Case) -> tuple[float, list[Message]]:
    factor, reasons = 1.0, []
    for hint, times in agent.favoured.items():
        days = case.weather.get(hint, 0)
        if days >= judgement.HINT_DAYS and times != 1:
            factor *= times
            reasons.append(says(Says.SPELL, Direction.FOR if times > 1 else Direction.AGAINST, spell=hint, days=days))
    return factor, reasons


@functools.lru_cache(maxsize=KEPT)
def _standing(plant: Plant, place: str, catalogue: Catalogue) -> tuple[float, ...]:
    """Odds of each agent by how usual it is on that plant in that place, whatever the season; kept, since each tap asks again."""
    agents = living_on(plant, catalogue)
    usual = {agent.id: _usual(agent, plant, catalogue) for agent in agents}
    most: dict[str, int] = {}
    for agent in agents:
        if agent.of:
            most[agent.of] = min(most.get(agent.of, len(ORDER)), ORDER.index(usual[agent.id]))
    chances = [judgement.HOW_USUAL[_another(agent, most, usual[agent.id]) if agent.is_kind else usual[agent.id]] for agent in agents]
    shares = _shares(agents, chances, catalogue)
    return tuple(
        chance / (1 - chance) * agent.places.get(place, 1.0)
        for agent, chance in zip(agents, (chance * share for chance, share in zip(chances, shares, strict=True)), strict=True)
    )


def _shares(agents: Sequence[Agent], chances: Sequence[float], catalogue: Catalogue) -> list[float]:
    """What each agent's chance is lowered to, so that a kind is hardly more usual on a plant for having many members with entries.

    Helpers and what is normal are not one thing under many names: each is as usual as it is.
    """
    keys = [agent.id if agent.kind in APART else catalogue.key_of(agent.id) for agent in agents]
    total: dict[str, float] = {}
    most: dict[str, float] = {}
    for key, chance in zip(keys, chances, strict=True):
        total[key] = total.get(key, 0.0) + chance
        most[key] = max(most.get(key, 0.0), chance)
    return [min(1.0, judgement.KIND_OF_MANY * most[key] / total[key]) for key in keys]


def priors(case: Case, catalogue: Catalogue) -> tuple[Prior, ...]:
    """One prior for each agent that may live on the case's plant, in their order; kept, since each tap asks again.

    Of the signs only those bear on it that outlast who left them.
    """
    lasting = frozenset(sign for sign, state in case.signs.items() if state == SEEN and sign in _lasting(catalogue))
    weather, history, heat = (frozenset(row.items()) for row in (case.weather, case.history, case.heat))
    return _priors(Plant.of(case), case.place, case.month, case.hemisphere, weather, history, heat, lasting, catalogue)


@functools.lru_cache(maxsize=4)
def _lasting(catalogue: Catalogue) -> frozenset[str]:
    """Signs that outlast any agent that leaves them."""
    return frozenset(sign for agent in catalogue.agents.values() for sign, shows in agent.shows.items() if shows.outlasts)


Known = frozenset[tuple[str, Any]]


@functools.lru_cache(maxsize=KEPT)
def _priors(
    plant: Plant, place: str, month: int, hemisphere: str, weather: Known, history: Known, heat: Known, lasting: frozenset[str],
    catalogue: Catalogue,
) -> tuple[Prior, ...]:  # fmt: skip
    case = Case(plant.crop, place, month, hemisphere, dict(weather), dict.fromkeys(lasting, SEEN), dict(history), heat=dict(heat))
    agents = living_on(plant, catalogue)
    odds, seasons, usual_chance = [], [], []
    for agent, standing in zip(agents, _standing(plant, place, catalogue), strict=True):
        factor, season = _in_season(agent, case)
        odds.append(standing * factor)
        seasons.append(season)
        usual_chance.append(odds[-1] / (1 + odds[-1]))
    harmful = math.fsum(chance for agent, chance in zip(agents, usual_chance, strict=True) if agent.kind not in APART)
    scale = min(1.0, judgement.MEAN_CAUSES / max(1e-9, harmful))
    answers = []
    for agent, own, season in zip(agents, odds, seasons, strict=True):
        factor, spells = _weather(agent, case)
        reasons = [*season, *_of_place(agent, case), *spells]
        past = case.history.get(agent.id, 0)
        if past:
            factor *= 1 + min(past, judgement.HISTORY_CAP)
            reasons.append(says(Says.HISTORY, Direction.FOR, times=past))
        # What can hurt, what helps and what is normal is as usual as it is, however many pests may live there.
        whole = own * (1.0 if agent.hurts or agent.kind in APART else scale) * factor
        answers.append(Prior(whole / (1 + whole), tuple(reasons)))
    return tuple(answers)


def _of_place(agent: Agent, case: Case) -> list[Message]:
    usual = agent.places.get(case.place, 1.0)
    if usual == 1:
        return []
    return [says(Says.PLACE_USUAL, Direction.FOR if usual > 1 else Direction.AGAINST, place=case.place)]
