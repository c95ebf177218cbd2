"""What a proof says: which are still to be looked for, what hurts and may be there, which kin must be reported."""

from collections.abc import Iterable, Mapping, Sequence

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue, Control
from bootmark.core.meanings import Often
from bootmark.core.types import ABSENT, SEEN, Suspect

MOSTLY = (Often.ALWAYS, Often.USUAL)
AT_TIMES = (*MOSTLY, Often.SOMETIMES)


def open_proofs(agents: Iterable[Agent], signs: Mapping[str, str]) -> tuple[str, ...]:
    """Signs that would prove any of these agents, and that nobody has answered yet. signs: what was told of each."""
    return tuple(sign for agent in agents for sign, shows in agent.shows.items() if shows.confirms and sign not in signs)


def provable(agents: Iterable[Agent]) -> bool:
    """Whether any sign at all would prove one of these agents."""
    return any(shows.confirms for agent in agents for shows in agent.shows.values())


def fits(agent: Agent, signs: Mapping[str, str], often: Sequence[Often] = AT_TIMES) -> bool:
    """Whether a sign was seen that proves an agent, or that is met with it so often."""
    return any(signs.get(sign) == SEEN and (shows.confirms or shows.often in often) for sign, shows in agent.shows.items())


def dangers(suspects: Iterable[Suspect], signs: Mapping[str, str], catalogue: Catalogue) -> list[Suspect]:
    """Those suspects that can hurt people or stock, as soon as a sign of them fits, however unlikely they are."""
    return [
        suspect
        for suspect in suspects
        if suspect.probability >= judgement.DANGER_AT
        and catalogue.agent(suspect.agent).hurts
        and fits(catalogue.agent(suspect.agent), signs)
    ]


def awaited(control: Control, signs: Mapping[str, str]) -> tuple[str, ...]:
    """Signs that must be answered before a control is on offer; none where what was told refuses it already."""
    beside = any(signs.get(sign) == SEEN for sign in (*control.not_with, *control.needs_absent))
    refused = beside or any(signs.get(sign) == ABSENT for sign in control.needs)
    return () if refused else tuple(sign for sign in (*control.needs, *control.needs_absent) if sign not in signs)


def listed_kin(agent: Agent, crop: str, region: str, catalogue: Catalogue) -> tuple[Agent, ...]:
    """Members of a kind that must be reported in a region and may live on a crop; where the region is not told, in any region."""
    return tuple(
        member
        for member in catalogue.members(agent.id)
        if member.notifiable
        and (not region or member.listed_in(region))
        and (crop in member.hosts or "*" in member.hosts or crop not in catalogue.crops)
    )
