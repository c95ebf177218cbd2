"""The chance of each agent before any sign: crop, place, season or heat, recent weather, the farm's own history."""

import math
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.meanings import Direction
from bootmark.core.messages import Message, Says, says
from bootmark.core.types import Case

UNDER_COVER = ("greenhouse", "tunnel")
LESS_USUAL = {"often": "sometimes", "sometimes": "seldom", "seldom": "rarely", "rarely": "rarely"}


@dataclass(frozen=True)
class Prior:
    chance: float
    reasons: tuple[Message, ...]


def candidates(case: Case, catalogue: Catalogue) -> tuple[tuple[Agent, ...], Message | None]:
    """Agents that may be at work on the case's crop, and a note where the crop had to be guessed at.

    A crop that is not known falls back to those of its family; without a family, to those of any crop.
    """
    if case.crop in catalogue.crops:
        return catalogue.on(case.crop), None
    kin = [crop.id for crop in catalogue.crops.values() if crop.family == case.family]
    agents = tuple(agent for agent in catalogue.agents.values() if "*" in agent.hosts or any(crop in agent.hosts for crop in kin))
    if kin:
        return agents, says(Says.CROP_OF_FAMILY, plant=case.crop, family=case.family, crops=tuple(kin[:3]))
    return agents, says(Says.CROP_UNKNOWN, plant=case.crop)


def _usual(agent: Agent, case: Case, catalogue: Catalogue) -> str:
    if case.crop in agent.hosts:
        return agent.hosts[case.crop]
    if case.crop not in catalogue.crops:
        order = list(judgement.HOW_USUAL)
        kin = [usual for crop, usual in agent.hosts.items() if crop in catalogue.crops and catalogue.crops[crop].family == case.family]
        if kin:
            return LESS_USUAL[min(kin, key=order.index)]
    return agent.hosts.get("*", "rarely")


def _in_season(agent: Agent, case: Case) -> tuple[float, list[Message]]:
    """The season's factor: this year's heat where a model tells it, otherwise the month."""
    out = judgement.OUT_OF_SEASON_UNDER_COVER if case.place in UNDER_COVER else judgement.OUT_OF_SEASON
    share = case.heat.get(agent.id)
    if share is not None:
        if share < judgement.NOT_NOW_SHARE:
            return out, [says(Says.HEAT_NOT_NOW, Direction.AGAINST)]
        return 1.0, [says(Says.HEAT_NOW, Direction.FOR)] if share > judgement.NOW_SHARE else []
    if case.month not in agent.months_in(case.hemisphere):
        return out, [says(Says.SEASON_OUT, Direction.AGAINST)]
    return 1.0, []


def _weather(agent: Agent, case: Case) -> tuple[float, list[Message]]:
    factor, reasons = 1.0, []
    for hint, times in agent.favoured.items():
        days = case.weather.get(hint, 0)
        if days >= judgement.HINT_DAYS and times != 1:
            factor *= times
            reasons.append(says(Says.SPELL, Direction.FOR if times > 1 else Direction.AGAINST, spell=hint, days=days))
    return factor, reasons


def priors(agents: tuple[Agent, ...], case: Case, catalogue: Catalogue) -> tuple[Prior, ...]:
    """One prior for each agent, in their order."""
    odds, seasons, usual_chance = [], [], []
    for agent in agents:
        chance = judgement.HOW_USUAL[_usual(agent, case, catalogue)]
        factor, season = _in_season(agent, case)
        factor *= agent.places.get(case.place, 1.0)
        odds.append(chance / (1 - chance) * factor)
        seasons.append(season)
        usual_chance.append(odds[-1] / (1 + odds[-1]))
    scale = min(1.0, judgement.MEAN_CAUSES / max(1e-9, math.fsum(usual_chance)))
    answers = []
    for agent, own, season in zip(agents, odds, seasons, strict=True):
        factor, weather = _weather(agent, case)
        reasons = [*season, *_of_place(agent, case), *weather]
        past = case.history.get(agent.id, 0)
        if past:
            factor *= 1 + min(past, judgement.HISTORY_CAP)
            reasons.append(says(Says.HISTORY, Direction.FOR, times=past))
        whole = own * scale * factor
        answers.append(Prior(whole / (1 + whole), tuple(reasons)))
    return tuple(answers)


def _of_place(agent: Agent, case: Case) -> list[Message]:
    usual = agent.places.get(case.place, 1.0)
    if usual == 1:
        return []
    return [says(Says.PLACE_USUAL, Direction.FOR if usual > 1 else Direction.AGAINST, place=case.place)]
