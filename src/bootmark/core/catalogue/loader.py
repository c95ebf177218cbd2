"""Reads a catalogue folder and refuses a bad file by name and line of reasoning."""

import functools
import hashlib
import tomllib
from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue import compiled, drawn, short
from bootmark.core.catalogue.entry import read_agent, span
from bootmark.core.catalogue.flowering import in_leaf_by_habit
from bootmark.core.catalogue.hosts import check_rows, with_shared
from bootmark.core.catalogue.kinds import as_kind, inherit, reported, shares
from bootmark.core.catalogue.model import HABITS, PARTS, Agent, Catalogue, Crop, Look, Sign
from bootmark.core.catalogue.reader import PROVENANCE, CatalogueError, Reader
from bootmark.core.catalogue.shapes import BY_HABIT, STAGES, Bears, Keeps, Stand
from bootmark.core.meanings import Place

HERE = Path(__file__).parent
KINDS = "kinds"


def _signs(raw: Mapping[str, Any], looks: Mapping[str, Any]) -> dict[str, Sign]:
    """Signs; how easily one is mistaken or overlooked is its look's, where it says nothing else."""
    signs = {}
    for sign_id, table in raw.items():
        row = Reader(f"signs.toml [{sign_id}]", table)
        answered = looks.get(table.get("look"), {})
        signs[sign_id] = Sign(
            sign_id,
            row.text("name"),
            row.text("sentence"),
            row.one_of("part", PARTS),
            row.text("look"),
            row.number("leak", 0.02),
            row.get("live", bool, False),
            row.words("not_with", []),
            judgement.MISTAKEN[row.one_of("mistaken", judgement.MISTAKEN, answered.get("mistaken", "seldom"))],
            judgement.OVERLOOKED[row.one_of("overlooked", judgement.OVERLOOKED, answered.get("overlooked", "sometimes"))],
            row.words("crops", []),
            row.one_of("stage", (*STAGES, ""), ""),
            row.text("pictures", ""),
        )
        row.done()
    for sign in signs.values():
        for other in sign.not_with:
            if other not in signs:
                raise CatalogueError(f"signs.toml [{sign.id}]: unknown sign {other!r} in not_with")
    return signs


def _looks(raw: Mapping[str, Any], signs: Mapping[str, Sign]) -> dict[str, Look]:
    looks = {}
    for look_id, table in raw.items():
        row = Reader(f"looks.toml [{look_id}]", table)
        looks[look_id] = Look(
            look_id,
            row.text("name"),
            row.text("do"),
            int(row.number("seconds")),
            row.words("tools", []),
            row.get("night", bool, False),
            row.text("yes", ""),
            row.text("no", ""),
            tuple(sign.id for sign in signs.values() if sign.look == look_id),
        )
        for errors, steps in (("mistaken", judgement.MISTAKEN), ("overlooked", judgement.OVERLOOKED)):
            row.one_of(errors, steps, next(iter(steps)))
        row.done()
    for sign in signs.values():
        if sign.look not in looks:
            raise CatalogueError(f"signs.toml [{sign.id}]: unknown look {sign.look!r}")
    return looks


def _crops(raw: Mapping[str, Any]) -> dict[str, Crop]:
    crops = {}
    for crop_id, table in raw.items():
        row = Reader(f"crops.toml [{crop_id}]", table)
        crops[crop_id] = Crop(
            crop_id,
            row.text("name"),
            row.text("family"),
            row.text("group"),
            row.member("place", Place),
            row.words("also", []),
            row.text("leaf", "ovate"),
            row.one_of("habit", HABITS, "herb"),
            row.member("stand", Stand, BY_HABIT[table.get("habit", "herb")]),
            row.member("bears", Bears, Bears.CAPSULE),
            row.member("keeps", Keeps, Keeps.NOTHING),
            row.text("as", ""),
            row.words("like", []),
            {agent: usual for usual in judgement.HOW_USUAL for agent in row.words(usual, [])},
            _months(row, "in_leaf") or in_leaf_by_habit(table.get("habit", "herb")),
            _months(row, "flowers"),
            _months(row, "fruits"),
            row.words("eaten", []),
            row.get("fed", bool, False),
        )
        row.done()
    return crops


def _months(row: Reader, key: str) -> frozenset[int]:
    return span(row, list(row.words(key))) if key in row.table else frozenset()


def _sources(raw: Mapping[str, Any]) -> dict[str, str]:
    """Each source's key and what it stands for: its kind and, of a published work, its reference and what it gives."""
    sources = {}
    for key, table in raw.items():
        row = Reader(f"sources.toml [{key}]", table)
        kind, reference, gives = row.one_of("kind", PROVENANCE), row.text("reference"), row.text("says", "")
        named = f"{kind}: {reference}{f': {gives}' if gives else ''}"
        sources[key] = named if kind in PROVENANCE[:2] else kind
        row.done()
    return sources


def _refer(agents: Mapping[str, Agent], signs: Mapping[str, Sign], aliases: Mapping[str, str]) -> None:
    """Raises CatalogueError where an entry names another that is not there."""
    for agent in agents.values():
        for other in agent.look_alikes:
            if other.agent not in agents and other.agent not in aliases:
                raise CatalogueError(f"{agent.id}.toml: look-alike {other.agent!r} is not in the catalogue")
        for prey in agent.eats:
            if prey not in agents:
                raise CatalogueError(f"{agent.id}.toml: it eats {prey!r}, which is not in the catalogue")
        for enemy in agent.enemies:
            if enemy.agent not in agents and enemy.agent not in aliases:
                raise CatalogueError(f"{agent.id}.toml: enemy {enemy.agent!r} is not in the catalogue")
    for sign in signs.values():
        if sign.pictures and (sign.pictures not in agents or not sign.stage):
            raise CatalogueError(f"signs.toml [{sign.id}]: 'pictures' names an agent whose 'stage' is drawn; {sign.pictures!r} is none")


def load(folder: Path = HERE) -> Catalogue:
    """Read and check a catalogue folder. Raises CatalogueError naming the file and what is wrong."""
    files = sorted(folder.rglob("*.toml"))
    digest = hashlib.sha256(b"\0".join(path.read_bytes() for path in files)).hexdigest()
    raw = {}
    for path in files:
        try:
            raw[path] = tomllib.loads(path.read_text("utf-8"))
        except tomllib.TOMLDecodeError as error:
            raise CatalogueError(f"{path.name}: {error}") from error
    common = {path.stem: table for path, table in raw.items() if path.parent == folder}
    signs = _signs(common["signs"], common["looks"])
    looks = _looks(common["looks"], signs)
    crops = _crops(common["crops"])
    signs = {sign.id: replace(sign, crops=with_shared(sign.crops, crops)) for sign in signs.values()}
    for sign in signs.values():
        unknown = set(sign.crops) - set(crops) - set(HABITS)
        if unknown:
            raise CatalogueError(f"signs.toml [{sign.id}]: unknown crop or habit {', '.join(sorted(unknown))}")
    aliases, sources = common.get("aliases", {}), _sources(common["sources"])
    agents: dict[str, Agent] = {}
    kinds = {path.stem: table for path, table in raw.items() if path.parent.name == KINDS}
    apart = {folder, folder / KINDS, folder / short.FOLDER}
    entries = {path.stem: table for path, table in raw.items() if path.parent not in apart}
    rows, marked = short.rows(raw, kinds, entries)
    blanked = {kind: as_kind(table) for kind, table in kinds.items()}
    check_rows(crops, {**kinds, **entries, **rows})
    for entry, table in {**kinds, **entries, **rows}.items():
        whole = as_kind(table) if entry in kinds else inherit(entry, table, blanked if entry in rows else kinds)
        agents[entry] = read_agent(f"{entry}.toml", reported(whole), signs, looks, crops, common["controls"], sources, common["regions"])
    agents = {agent_id: shares(agent, agents, signs) if agent.is_kind else agent for agent_id, agent in agents.items()}
    _refer(agents, signs, aliases)
    marks = drawn.read({**common.get("drawn", {}), **marked}, {agent.id: agent.of for agent in agents.values()}, STAGES)
    agents = {agent.id: replace(agent, drawn=marks.get(agent.id, {})) for agent in agents.values()}
    named = {agent.id: agent.name for agent in agents.values()}
    agents = {agent.id: agent.with_enemy_names(named, aliases) for agent in agents.values()}
    return Catalogue(agents, signs, looks, crops, digest[:16], aliases)


@functools.cache
def default() -> Catalogue:
    """The catalogue that ships with Bootmark."""
    return compiled.kept(sorted(HERE.rglob("*.toml")), load)
