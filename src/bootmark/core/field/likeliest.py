"""What can be seen on a plant now, and who leaves it: the Guide's way in without a name."""

from dataclasses import dataclass

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue.model import Agent, Catalogue, Sign
from bootmark.core.field.network import Network
from bootmark.core.field.resolve import CaseLike, resolve
from bootmark.core.field.tappable import SOUND


@dataclass(frozen=True)
class Leaver:
    """An agent that leaves a sign. share: of the times that the sign is met on that plant in that month, those that are its doing."""

    agent: Agent
    share: float


def _met(case: CaseLike, catalogue: Catalogue | None) -> tuple[Network, dict[str, list[tuple[Agent, float]]]]:
    resolved, entries = resolve(case, catalogue)
    network = Network(resolved, entries)
    met: dict[str, list[tuple[Agent, float]]] = {}
    for agent, prior in zip(network.agents, network.priors, strict=True):
        for sign, shows in agent.shows.items():
            met.setdefault(sign, []).append((agent, prior.chance * shows.chance))
    return network, met


def signs_on(case: CaseLike, part: str = "", *, catalogue: Catalogue | None = None) -> list[Sign]:
    """Signs of a part of the plant, or of all of it, those that are met most in that month first.

    Parameters
    ----------
    case : the plant, the month, the place; what was told of signs does not matter.
    part : one of the catalogue's parts; all of them where empty.
    catalogue : the shipped one where None.

    Returns
    -------
    Signs that some cause can leave there.

    Raises
    ------
    ValueError
        For a case without a crop.

    Source
    ------
    Chances as in `suspects`, added up over the causes: common practice, no source.
    """
    network, met = _met(case, catalogue)
    signs = (
        network.catalogue.signs[sign]
        for sign in met
        if network.catalogue.can_show(sign, network.case.crop, network.case.habit) and sign != SOUND
    )
    return sorted((sign for sign in signs if part in ("", sign.part)), key=lambda sign: -sum(chance for _, chance in met[sign.id]))


def leavers(case: CaseLike, sign: str, *, catalogue: Catalogue | None = None) -> list[Leaver]:
    """Agents that leave a sign on the plant, the likeliest in that month first; none where nothing does."""
    _, met = _met(case, catalogue or catalogues.default())
    leaving = sorted(met.get(sign, ()), key=lambda row: -row[1])
    total = sum(chance for _, chance in leaving) or 1.0
    return [Leaver(agent, chance / total) for agent, chance in leaving]
