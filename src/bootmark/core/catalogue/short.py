"""Short rows: members of a kind in a few lines each, where what they share with it is most of what there is to say.

A file of the folder `rows` is named by the kind and holds a table for each member. A sign is written as how often it is left, with `!`
where it proves and `~` where it outlasts who left it; a stage as its months.
"""

from collections.abc import Mapping
from pathlib import Path
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue.reader import CatalogueError, Reader
from bootmark.core.catalogue.shapes import STAGES

Table = Mapping[str, Any]

FOLDER = "rows"
PROVES, OUTLASTS = "!", "~"
TAKEN = (
    "colours", "body", "order", "family", "harmful_stage", "feeds", "growth", "wild_hosts", "places", "favoured", "cosmetic", "hurts",
    "species", "sample", "thresholds", "enemies", "controls", "sampling", "looks", "look_alikes", "leave_when", "heat", "eats",
)  # fmt: skip
"""Keys that stand in a short row as they stand in a file of one's own."""


def _sign(row: Reader, sign: str, written: Any) -> Table:
    often = str(written).rstrip(PROVES + OUTLASTS)
    if often not in judgement.HOW_OFTEN:
        raise row.fail(
            f"{sign!r} is {written!r}; it must be one of {', '.join(judgement.HOW_OFTEN)}, with ! where it proves, ~ where it lasts"
        )
    return {"often": often, "confirms": PROVES in written, "outlasts": OUTLASTS in written}


def _life(row: Reader) -> Table:
    year = row.get("year", dict, {})
    unknown = set(year) - set(STAGES)
    if unknown:
        raise row.fail(f"{min(unknown)!r} in 'year' is no stage; stages are {', '.join(STAGES)}")
    stages = {stage: {"months": list(months), "where": ""} for stage, months in year.items()}
    as_stage = {"winters_as": row.text("winters_as")} if "winters_as" in row.table else {}
    return {**stages, **as_stage, "winters": row.text("winters", ""), "generations": row.text("generations", "")}


def whole(kind_id: str, kind: Table, agent_id: str, table: Table) -> tuple[Table, Table]:
    """One short row as the file that it stands for, and how its stages are drawn. Raises CatalogueError."""
    row = Reader(f"{FOLDER}/{kind_id}.toml [{agent_id}]", table)
    entry = {
        "id": agent_id,
        "of": kind_id,
        "brief": True,
        "kind": kind["kind"],
        "source": row.text("source", kind["source"]),
        "name": row.text("name"),
        "scientific": row.text("scientific"),
        "other_names": list(row.words("also", [])),
        "summary": row.text("summary"),
        "said_wrongly": row.text("said_wrongly", ""),
        "occurs": row.text("occurs"),
        "notifiable": list(row.words("listed", [])),
        "months": list(row.words("months", [1, 12])),
        "hosts": row.get("hosts", dict),
        "signs": {sign: _sign(row, sign, written) for sign, written in row.get("signs", dict).items()},
        "life": _life(row),
        **{key: table[key] for key in TAKEN if key in table},
    }
    row.used.update(TAKEN)
    marks = row.get("drawn", dict, {})
    row.done()
    return entry, marks


def rows(raw: Mapping[Path, Table], kinds: Mapping[str, Table], files: Mapping[str, Table]) -> tuple[dict[str, Table], dict[str, Table]]:
    """All short rows as entries by their ids, and their marks. raw: files by path; kinds, files: the files of kinds and of agents by id."""
    entries: dict[str, Table] = {}
    marks: dict[str, Table] = {}
    for path, tables in raw.items():
        if path.parent.name != FOLDER:
            continue
        if path.stem not in kinds:
            raise CatalogueError(f"{FOLDER}/{path.name}: no kind is called so")
        for agent_id, table in tables.items():
            if agent_id in entries or agent_id in kinds or agent_id in files:
                raise CatalogueError(f"{FOLDER}/{path.name} [{agent_id}]: stands in another file as well")
            entries[agent_id], drawn = whole(path.stem, kinds[path.stem], agent_id, table)
            if drawn:
                marks[agent_id] = drawn
    return entries, marks
