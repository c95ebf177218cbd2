"""Pages made from the catalogue: what it holds of each plant, and what is listed where."""

from bootmark.core.catalogue.model import Agent, Catalogue, Crop
from bootmark.core.meanings import AgentKind

GROUPS = (
    ("Insects and mites", (AgentKind.INSECT, AgentKind.MITE)),
    ("Diseases", (AgentKind.DISEASE,)),
    ("Disorders, what is normal", (AgentKind.DISORDER, AgentKind.NORMAL)),
    ("Animals, slugs", (AgentKind.VERTEBRATE, AgentKind.MOLLUSC)),
    ("Helpers", (AgentKind.BENEFICIAL,)),
)
HEAD = """# What the catalogue covers

Made from the catalogue by `BOOTMARK_WRITE_DOCS=1 ./bootmark test tests.test_docs`. For each plant its agents with an entry of their own,
and behind the plus how many kinds may live on it besides: what has no entry there is named by its kind. A cell that says only kinds is
meant: no agent of that group with an entry of its own is known here to live on that plant.
"""


def _own(agent: Agent, crop: Crop) -> bool:
    """Whether an agent is told to live on a plant by its own name, not on any plant."""
    return not agent.is_kind and crop.id in agent.hosts and "*" not in agent.hosts


def _cell(agents: list[Agent], crop: Crop) -> str:
    named = sorted(agent.in_sentence for agent in agents if _own(agent, crop))
    kinds = sum(not _own(agent, crop) for agent in agents)
    besides = f"+ {kinds}" if kinds else ""
    return " ".join(part for part in (", ".join(named), besides) if part) or "none"


def page(catalogue: Catalogue) -> str:
    """The page as Markdown: a row for each plant, a column for each group of causes."""
    rows = [f"| Plant | {' | '.join(title for title, _ in GROUPS)} |", f"|---{'|---' * len(GROUPS)}|"]
    for crop in sorted(catalogue.crops.values(), key=lambda crop: (crop.group, crop.name)):
        here = catalogue.on(crop.id)
        cells = [_cell([agent for agent in here if agent.kind in kinds], crop) for _, kinds in GROUPS]
        rows.append(f"| {crop.name} | {' | '.join(cells)} |")
    return HEAD + "\n" + "\n".join(rows) + "\n"


LISTED_HEAD = """# What is listed where

Made from the catalogue by the same command as [coverage](coverage.md). What somebody remembers of lists of plant health, with the year
where one is remembered; a country stands under each name that its lists go by. **The authority's own list rules**: ask it, and report what
you are not sure of. An agent that is not here may be listed all the same.
"""


def listed(catalogue: Catalogue) -> str:
    """The page of listings as Markdown: the agents under each list, with what is remembered of it."""
    lists: dict[str, list[str]] = {}
    for agent in sorted(catalogue.agents.values(), key=lambda agent: agent.name):
        for listing in agent.notifiable:
            place, _, more = listing.partition(", ")
            lists.setdefault(place, []).append(f"{agent.in_sentence} ({more})" if more else agent.in_sentence)
    rows = [f"| {place} | {'; '.join(agents)} |" for place, agents in sorted(lists.items())]
    return LISTED_HEAD + "\n" + "\n".join(["| List | Agents |", "|---|---|", *rows]) + "\n"
