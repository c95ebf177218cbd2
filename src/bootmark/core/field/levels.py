"""From what a control costs and a pest eats to when to act: the injury level, the earlier threshold, and what they hang on."""

from dataclasses import dataclass, fields, replace

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Crop
from bootmark.core.field.call import economic_injury_level


@dataclass(frozen=True)
class Terms:
    """cost: of the control for an area; value: of a unit of yield; injury: per pest; damage: yield lost for each unit of injury on that
    area; efficacy: share of injury that the control keeps off."""

    cost: float
    value: float
    injury: float
    damage: float
    efficacy: float

    @property
    def level(self) -> float:
        """Pests for each unit. Raises ValueError where a term is not above zero: nought price, no level."""
        return economic_injury_level(self.cost, self.value, self.injury, self.damage, self.efficacy)


@dataclass(frozen=True)
class Swing:
    """What becomes of the level where one term is lower or higher than it was told. term: its name in Terms."""

    term: str
    low: float
    high: float


def sold_for_looks(agent: Agent, crop: Crop | None) -> bool:
    """Whether a pest costs by blemishes and not by yield, so that no level can be worked. crop: None where the catalogue has it not."""
    return agent.cosmetic or (crop is not None and not crop.eaten and not crop.fed)


def action_threshold(level: float, doubling_days: float, wait_days: float, bite_days: float) -> float:
    """Where to act, so that the level is not passed until the control works.

    level: the injury level; doubling_days: in which the pest doubles; wait_days: until somebody can treat; bite_days: until that tells.
    Returns pests for each unit. Raises ValueError for a doubling time or a level not above zero, or a wait below it.
    Source: exponential growth; action before the level, Pedigo, Hutchins and Higley (1986).

    >>> action_threshold(40, 4, 4, 4)
    10.0
    """
    if min(level, doubling_days) <= 0 or min(wait_days, bite_days) < 0:
        raise ValueError("a level and a doubling time lie above zero, and no wait below it")
    times: float = 2.0 ** ((wait_days + bite_days) / doubling_days)
    return level / times


def swings(terms: Terms) -> list[Swing]:
    """How the level moves where one term after the other is wrong by judgement.TERM_UNSURE, the one that moves it most first."""
    moved = []
    for term in fields(terms):
        value = getattr(terms, term.name)
        high = min(value * (1 + judgement.TERM_UNSURE), 1.0) if term.name == "efficacy" else value * (1 + judgement.TERM_UNSURE)
        levels = [replace(terms, **{term.name: other}).level for other in (value * (1 - judgement.TERM_UNSURE), high)]
        moved.append(Swing(term.name, min(levels), max(levels)))
    return sorted(moved, key=lambda swing: swing.low - swing.high)
