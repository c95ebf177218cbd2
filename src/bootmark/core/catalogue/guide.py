"""What a reader asks of the catalogue: an entry by any name, and what tells two or three apart."""

import difflib
from collections.abc import Iterable
from dataclasses import dataclass

from bootmark.core import judgement
from bootmark.core.catalogue.model import Agent, Catalogue, Look, Sign
from bootmark.core.catalogue.plants import plain

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


IN_PASSING = frozenset({"in", "on", "of", "the", "a", "and", "with", "my", "are", "is"})
CLOSE = 0.8
BEST_BY_SIGN = 12


def most_usual(agents: Iterable[Agent], crop: str) -> list[Agent]:
    """Agents by how usual they are on a crop, what has an entry of its own before kinds, and by name."""
    usual = list(judgement.HOW_USUAL)
    return sorted(agents, key=lambda agent: (usual.index(agent.usual_on(crop)), agent.is_kind, agent.name))


def search(catalogue: Catalogue, words: str) -> list[Agent]:
    """Agents that are meant by these words, best first: by a name, then by what they leave, then by what is told of them.

    Common, other and scientific names count alike; capitals, hyphens and plurals do not count, and where nothing has such a name the
    names like it are taken. No words find nothing.
    """
    wanted = plain(words)
    if not wanted:
        return []
    matches: dict[str, tuple[float, str]] = {}
    for agent in catalogue.agents.values():
        rank = _rank(agent, wanted)
        if rank is not None:
            matches[agent.id] = (rank, agent.name)
    for place, agent in enumerate(_leaving(catalogue, wanted)):
        matches.setdefault(agent.id, (3 + place / 100, agent.name))
    if not matches:
        names = {plain(name): agent.id for agent in catalogue.agents.values() for name in (agent.name, *agent.other_names)}
        for place, name in enumerate(difflib.get_close_matches(wanted, names, n=8, cutoff=CLOSE)):
            matches.setdefault(names[name], (place, name))
    return [catalogue.agents[agent] for agent, _ in sorted(matches.items(), key=lambda match: match[1])]


def _rank(agent: Agent, wanted: str) -> float | None:
    """How well the words fit an agent: its whole name best, a kind before its members; None where they do not."""
    names = [plain(name) for name in (agent.name, agent.scientific, *agent.other_names)]
    own = 0.0 if agent.is_kind else 0.3
    if wanted in names:
        return own
    if any(name.startswith(wanted) for name in names):
        return 0.4 + own
    if any(f" {wanted}" in f" {name}" for name in names):
        return 1 + own
    if any(wanted in name for name in (*names, agent.family.lower(), agent.order.lower())):
        return 2 + own
    return 4.0 if wanted in plain(agent.summary) else None


def _leaving(catalogue: Catalogue, wanted: str) -> list[Agent]:
    """Agents that leave what the words tell of, those that leave it most often first, kinds before their members."""
    parts = [part for part in wanted.split() if part not in IN_PASSING]
    if not parts:
        return []
    matching_signs: dict[str, int] = {}
    for sign in catalogue.signs.values():
        words = set(plain(f"{sign.name} {sign.sentence}").split())
        if all(any(word.startswith(part) for word in words) for part in parts):
            matching_signs[sign.id] = 2 if all(any(word.startswith(part) for word in plain(sign.name).split()) for part in parts) else 1
    weights = {
        agent.id: sum(matching_signs[sign] * shows.chance for sign, shows in agent.shows.items() if sign in matching_signs)
        + 0.2 * agent.is_kind
        for agent in catalogue.agents.values()
        if not matching_signs.keys().isdisjoint(agent.shows)
    }
    best = sorted(weights, key=lambda agent: -weights[agent])[:BEST_BY_SIGN]
    return [catalogue.agents[agent] for agent in best]


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
