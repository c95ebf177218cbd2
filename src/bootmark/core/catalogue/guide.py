"""What a reader asks of the catalogue: an entry by any name, and what tells two or three apart."""

from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue, Look, Sign

MOST_APART = 3


@dataclass(frozen=True)
class Row:
    """One sign that tells apart. words: how often each agent shows it, in their order; only: it proves that agent alone."""

    sign: Sign
    words: tuple[str, ...]
    only: tuple[bool, ...]
    gap: float


@dataclass(frozen=True)
class LookRow:
    """One look and the signs of it that tell apart, the sign that tells most first."""

    look: Look
    rows: tuple[Row, ...]
    tells: tuple[str, ...]


def search(catalogue: Catalogue, words: str) -> list[Agent]:
    """Agents of which a name begins with these words, then those of which a name, family or summary holds them.

    Common, other and scientific names count alike; capitals do not count. No words find nothing.
    """
    wanted = " ".join(words.lower().split())
    if not wanted:
        return []
    matches = []
    for agent in catalogue.agents.values():
        names = [name.lower() for name in (agent.name, agent.scientific, *agent.other_names)]
        if any(name.startswith(wanted) for name in names):
            rank = 0
        elif any(f" {wanted}" in f" {name.replace('-', ' ')}" for name in names):
            rank = 1
        elif any(wanted in name for name in (*names, agent.family.lower(), agent.order.lower())):
            rank = 2
        elif wanted in agent.summary.lower():
            rank = 3
        else:
            continue
        matches.append((rank, agent.name, agent))
    return [agent for _, _, agent in sorted(matches, key=lambda match: match[:2])]


def apart(catalogue: Catalogue, agents: tuple[Agent, ...]) -> tuple[LookRow, ...]:
    """The table that tells two or three agents apart, look by look, the look that tells most for its seconds first.

    Raises ValueError for fewer than two agents or more than three.
    """
    if not 2 <= len({agent.id for agent in agents}) == len(agents) <= MOST_APART:
        raise ValueError(f"two or three different agents are told apart, not {len(agents)}")
    compared = []
    for look in catalogue.looks.values():
        rows = []
        for sign_id in look.signs:
            shown = [agent.shows.get(sign_id) for agent in agents]
            chances = [showing.chance if showing else 0.0 for showing in shown]
            gap = max(chances) - min(chances)
            if gap >= judgement.TELLS_APART:
                words = tuple(showing.often if showing else "not seen" for showing in shown)
                only = tuple(bool(showing and showing.confirms) for showing in shown)
                rows.append(Row(catalogue.signs[sign_id], words, only, gap))
        if rows:
            rows.sort(key=lambda row: -row.gap)
            tells = tuple(
                alike.tell
                for agent in agents
                for alike in agent.look_alikes
                if alike.look == look.id and catalogue.agent(alike.agent) in agents
            )
            compared.append(LookRow(look, tuple(rows), tells))
    return tuple(sorted(compared, key=lambda showing: (not showing.tells, -showing.rows[0].gap / (10 + showing.look.seconds))))
