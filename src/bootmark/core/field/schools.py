"""Schools of control, from which a farm takes its policy: which kinds of control it uses, and which first."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from bootmark.core.catalogue import Catalogue
from bootmark.core.meanings import ControlKind
from bootmark.core.types import Policy

GENTLE = (ControlKind.CULTURAL, ControlKind.PHYSICAL, ControlKind.LIVING, ControlKind.SOFT)


class School(StrEnum):
    """The values stand in the database."""

    NATURE = "nature"
    HAND = "hand"
    LIVING = "living"
    SOFT = "soft"
    ORGANIC = "organic"
    CONVENTIONAL = "conventional"


def _of(*order: ControlKind, certified: bool = False) -> Policy:
    return Policy(order, frozenset(ControlKind) - set(order), certified, to_nature=not order)


POLICIES = {
    School.NATURE: _of(),
    School.HAND: _of(ControlKind.CULTURAL, ControlKind.PHYSICAL),
    School.LIVING: _of(ControlKind.LIVING, ControlKind.CULTURAL, ControlKind.PHYSICAL, ControlKind.SOFT, ControlKind.CONVENTIONAL),
    School.SOFT: _of(*GENTLE),
    School.ORGANIC: _of(*GENTLE, certified=True),
    School.CONVENTIONAL: _of(*GENTLE, ControlKind.CONVENTIONAL),
}
"""What each school uses, most welcome first. Common practice, no source."""


@dataclass(frozen=True)
class Reach:
    """What a policy leaves on the pests of some crops. pests: how many there are; bare: those against which no control is left."""

    controls: int
    of: int
    pests: int
    bare: int


def reach(policy: Policy, crops: Iterable[str], catalogue: Catalogue) -> Reach:
    """How much of the catalogue's controls a policy leaves to whoever grows these crops; an agent of several crops counts once."""
    grown = set(crops)
    agents = [agent for agent in catalogue.agents.values() if agent.is_pest and not agent.is_kind and not grown.isdisjoint(agent.hosts)]
    kept = [sum(policy.uses(control.kind) for control in agent.controls) for agent in agents]
    return Reach(sum(kept), sum(len(agent.controls) for agent in agents), len(agents), sum(not count for count in kept))
