"""Kinds: what agents that a field worker can't tell apart, and needn't, have in common.

A kind's file says it once. An agent that is `of` a kind takes from it what its own file leaves out. The kind's own entry stands for
another agent of that kind, one that has no file.
"""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from bootmark.core.catalogue.model import REPORT, Agent, Shows, Sign
from bootmark.core.catalogue.reader import CatalogueError, nearest

Table = Mapping[str, Any]

BLANK: Table = {
    "scientific": "several", "other_names": [], "order": "several", "family": "several", "body": "none", "harmful_stage": "none",
    "growth": "Differs.", "wild_hosts": "Many.", "occurs": "Wherever its hosts grow.", "notifiable": [], "said_wrongly": "",
    "leave_when": "Where it does no harm that you mind.", "months": [1, 12], "looks": {}, "look_alikes": {},
    "life": {"winters": "Differs.", "generations": "Differs."},
}  # fmt: skip
"""What a kind's file may leave out."""
MERGED = ("signs", "looks", "look_alikes")
"""Tables of which an agent states only the rows that differ."""
OWN = ("id", "name", "scientific", "other_names", "hosts", "species", "months", "life", "cosmetic", "hurts", "sample", "generic")
"""What is never inherited: an agent's own, or the kind's alone."""
REPORTED: Table = {"timing": "Where it is listed: the day it is seen.", "success": "The authority has answered.", "look_again_days": 7}
"""What the first act against what is listed says, where its file says nothing else."""
SEVERAL = 2
OFTEN_OF_MANY = "sometimes"


def as_kind(table: Table) -> Table:
    """A kind's file with what it may leave out."""
    return {**BLANK, **table}


def inherit(entry: str, table: Table, kinds: Mapping[str, Table]) -> Table:
    """An agent's file with what it takes from its kind. Raises CatalogueError for a kind that is none."""
    kind_id = table.get("of")
    if kind_id is None:
        return table
    if kind_id not in kinds:
        raise CatalogueError(f"{entry}.toml: 'of' names no kind: {kind_id!r}{nearest(str(kind_id), kinds)}")
    kind = kinds[kind_id]
    whole = {key: value for key, value in kind.items() if key not in OWN} | dict(table)
    controls = kind.get("controls", {})
    whole["controls"] = {name: controls.get(name, {}) | dict(own) for name, own in whole.get("controls", {}).items()}
    for key in MERGED:
        whole[key] = {name: row for name, row in kind.get(key, {}).items() if name != entry} | dict(table.get(key, {}))
    return whole


def reported(table: Table) -> Table:
    """A file of what is listed anywhere with the report as its first act, where it does not say it itself."""
    controls = table.get("controls", {})
    if not table.get("notifiable") or REPORT in controls:
        return table
    return {**table, "controls": {REPORT: REPORTED, **controls}}


def shares(kind: Agent, agents: Mapping[str, Agent], signs: Mapping[str, Sign]) -> Agent:
    """The kind's entry with the signs that several of its members leave, which another of its kind may leave as well.

    A sign that proves several members and no agent of another kind proves the kind.
    """
    members = [agent for agent in agents.values() if agent.of == kind.id]
    shows = dict(kind.shows)
    for sign in signs:
        leaving = [member for member in members if sign in member.shows]
        if sign in shows or len(leaving) < SEVERAL:
            continue
        proves = sum(member.shows[sign].confirms for member in leaving) >= SEVERAL
        proves = proves and not any(
            sign in agent.shows and agent.shows[sign].confirms for agent in agents.values() if kind.id not in (agent.of, agent.id)
        )
        outlasts = all(member.shows[sign].outlasts for member in leaving)
        shows[sign] = Shows(sign, OFTEN_OF_MANY, outlasts, proves, kind.source)
    return replace(kind, shows=shows)
