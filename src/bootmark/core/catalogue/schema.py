"""JSON Schemas of the catalogue's files, made from the model, so that an editor checks and completes while one types.

The loader remains the judge: what a schema can't say (events in the order of their sums, a control's stages) it says, in a sentence.
Standard: JSON Schema 2020-12.
"""

import json
import tomllib
from collections.abc import Iterable, Mapping
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue import loader, model, short
from bootmark.core.catalogue.model import Catalogue
from bootmark.core.catalogue.reader import PROVENANCE
from bootmark.core.catalogue.shapes import STAGES, Bears, Keeps, Stand
from bootmark.core.meanings import AgentKind, BiofixKind, ControlKind, CountTool, DayPart, Measure, Place, Spared, Spell, Work

Schema = dict[str, Any]
FOLDER = loader.HERE / "schemas"
TEXT: Schema = {"type": "string", "minLength": 1}
NUMBER: Schema = {"type": "number"}
WHOLE: Schema = {"type": "integer"}
FLAG: Schema = {"type": "boolean"}
MONTHS: Schema = {"type": "array", "items": {"type": "integer", "minimum": 1, "maximum": 12}, "minItems": 2, "maxItems": 2}
FACTOR: Schema = {"type": "number", "exclusiveMinimum": 0, "description": "How many times likelier, 1 for no difference."}


def _one_of(words: Iterable[str], says: str = "") -> Schema:
    return {"enum": list(words)} | ({"description": says} if says else {})


def _list(items: Schema, says: str = "") -> Schema:
    return {"type": "array", "items": items} | ({"description": says} if says else {})


def _table(needed: Mapping[str, Schema], optional: Mapping[str, Schema], says: str = "") -> Schema:
    table: Schema = {"type": "object", "properties": {**needed, **optional}, "required": list(needed), "additionalProperties": False}
    return table | ({"description": says} if says else {})


def _by_name(names: Iterable[str], value: Schema, says: str = "") -> Schema:
    named: Schema = {"type": "object", "propertyNames": {"enum": list(names)}, "additionalProperties": value}
    return named | ({"description": says} if says else {})


def _stages(says: str = "") -> Schema:
    return _list(_one_of(STAGES), says)


def _ref(name: str) -> Schema:
    return {"$ref": f"#/$defs/{name}"}


def _control(source: Schema) -> Schema:
    """A control's fields."""
    fields = {
        "kind": _one_of(ControlKind), "name": TEXT, "do": TEXT, "stages": _stages("Stages that it kills."),
        "phases": _list(TEXT, "Events of the heat model whose animals it kills as long as they are in that phase."),
        "at_events": _list(TEXT, "Events of the heat model that it must meet while they go on."),
        "timing": TEXT, "spares": TEXT, "harms": _list(_one_of(Spared), "What it harms."),
        "brings": _one_of(Spared, "What a release lets out."), "group": {"type": "string"},
        "spares_eggs": FLAG, "repeats": WHOLE, "contact": FLAG, "look_again_days": WHOLE, "success": TEXT, "skill": TEXT,
        "tools": _list(TEXT), "cautions": _list(TEXT), "harvest_days": WHOLE, "reentry_hours": WHOLE,
        "gap_days": WHOLE, "season_most": WHOLE, "feed_days": WHOLE, "plant_back_days": WHOLE,
        "work": _one_of(Work, "What it asks of the hours that it is done in."), "lasts_days": WHOLE, "source": source,
        "months": MONTHS, "not_with": _list(TEXT, "Signs beside which it does harm."), "keeps_out": FLAG,
        "targets": _list(TEXT, "Orders, kinds or agents, the only ones that it works on."),
        "not_on": _list(_one_of(model.HABITS), "Habits of plants that it is never done to."),
        "needs": _list(TEXT, "Signs that must have been seen."), "needs_absent": _list(TEXT, "Signs that must be known absent."),
        "by_hand": FLAG, "small": FLAG, "final": FLAG, "retired": FLAG,
        "closed": {"type": "object", "additionalProperties": _table({"months": MONTHS, "why": TEXT}, {}, "Plants on which it waits.")},
        "marks": _list(TEXT, "Crops that it may mark or burn."),
    }  # fmt: skip
    return {"properties": fields, "additionalProperties": False}


def _controls(shared: Iterable[str]) -> Schema:
    """Controls by their ids. One that stands in controls.toml needs only what differs here."""
    short = ["timing", "success", "look_again_days"]
    whole = [*short, "kind", "name", "do", "spares", "skill"]
    return {
        "type": "object",
        "properties": {name: {"$ref": "#/$defs/control", "required": short} for name in shared},
        "additionalProperties": {"$ref": "#/$defs/control", "required": whole},
    }


def _heat(source: Schema) -> Schema:
    event = _table(
        {
            "id": TEXT,
            "name": TEXT,
            "at": NUMBER,
            "spread": NUMBER,
            "stage": _one_of((*STAGES, "over")),
            "mark": _one_of(tuple(judgement.QUANTILES)),
        },
        {"source": source},
        "at: the sum for which a work tells it; mark: which share has then come; spread: between animals; in degree-days of `unit`.",
    )
    stage = _table(
        {"id": TEXT, "name": TEXT, "stage": _one_of(STAGES), "heat": NUMBER, "spread": NUMBER},
        {"source": source},
        "How long a stage lasts, in degree-days of `unit`; chained over the generations.",
    )
    optional = {
        "upper": NUMBER,
        "method": _one_of(("average", "modified_average", "single_sine", "double_sine", "single_triangle", "double_triangle")),
        "cutoff": _one_of(("horizontal", "intermediate", "vertical")), "month_day": _list(WHOLE), "catch": _list(WHOLE),
        "crop_code": WHOLE, "winter_stage": _one_of(STAGES), "winter_after": _list(WHOLE), "egg": NUMBER,
        "adult_before_eggs": NUMBER, "events": _list(event), "stages": _list(stage), "generations": WHOLE, "first": NUMBER,
        "first_spread": NUMBER, "source": source, "winter_below": NUMBER, "catch_least": WHOLE, "catch_nights": WHOLE, "error": NUMBER,
        "region": TEXT,
    }  # fmt: skip
    needed = {"unit": _one_of(("C", "F")), "lower": NUMBER, "biofix": _one_of(BiofixKind), "biofix_name": TEXT}
    return _table(needed, optional, "A model of the season by heat; temperatures and sums in `unit`.")


HOW = {"tool": _one_of(CountTool), "stroke": TEXT, "part": _one_of(DayPart), "dry": FLAG, "least_temp": NUMBER}
"""With what, in which part of the day and in what weather a count holds."""


def agent(catalogue: Catalogue, shared: Iterable[str], sources: Iterable[str]) -> Schema:
    """The schema of one agent's file. shared: controls of controls.toml; sources: keys of sources.toml."""
    source, crop, name = _ref("source"), _ref("crop"), _ref("agent")
    shows = _table(
        {"often": _one_of(judgement.HOW_OFTEN)},
        {"outlasts": FLAG, "confirms": FLAG, "source": source},
        "outlasts: it stays when the agent has gone; confirms: only this agent leaves it.",
    )
    stage = _table({"months": MONTHS, "where": TEXT}, {})
    threshold = _table({"crop": crop, "value": NUMBER, "measure": _one_of(Measure), "unit": TEXT}, {"source": source})
    enemy = _table({"agent": name, "ratio": NUMBER}, {"source": source}, "ratio: so many for each pest hold it back.")
    taylor = _table({"a": NUMBER, "b": NUMBER}, {"source": source}, "Taylor's law of single units.")
    sampling = _table(
        {"unit": TEXT, "measure": _one_of((Measure.MEAN, Measure.PROPORTION)), "units": WHOLE, "plan": TEXT, "when": TEXT},
        {
            "source": source,
            "per": WHOLE,
            **HOW,
            "taylor": taylor,
        },
    )
    needed = {
        "id": TEXT, "kind": _one_of(AgentKind), "name": TEXT, "scientific": {"type": "string"}, "other_names": _list(TEXT),
        "order": {"type": "string"}, "family": {"type": "string"}, "body": _one_of(model.BODIES), "summary": TEXT,
        "harmful_stage": {"type": "string"}, "growth": TEXT, "wild_hosts": TEXT, "occurs": TEXT, "said_wrongly": TEXT, "leave_when": TEXT,
        "source": source, "months": MONTHS,
        "hosts": _table({}, {**dict.fromkeys(judgement.HOW_USUAL, _list(crop)), "source": source}, "Crops by how usual; * for any."),
        "signs": _by_name(catalogue.signs, shows, "Signs by their ids."),
        "looks": _by_name(catalogue.looks, TEXT, "What each look shows of it."),
        "look_alikes": _by_name(catalogue.agents, _table({"look": _one_of(catalogue.looks), "tell": TEXT}, {})),
        "life": _table(
            {"winters": TEXT, "generations": TEXT},
            {**dict.fromkeys(STAGES, stage), "winters_as": _one_of(STAGES), "source": source},
        ),
        "controls": _controls(shared),
    }  # fmt: skip
    optional = {
        "colours": _list(TEXT), "feeds": _stages("Stages that do the harm."), "notifiable": _list(TEXT), "cosmetic": FLAG,
        "thresholds": _list(threshold), "enemies": _list(enemy), "favoured": _by_name(Spell, FACTOR), "places": _by_name(Place, FACTOR),
        "heat": _heat(source), "sampling": sampling, "of": _one_of([agent.id for agent in catalogue.agents.values() if agent.is_kind]),
        "species": _table({}, {"matters": TEXT, "tells": TEXT}, "Whether it changes anything to know which of its kind it is."),
        "sample": TEXT, "hurts": TEXT, "generic": FLAG, "eats": _list(_one_of(catalogue.agents)),
    }  # fmt: skip
    shared_parts = {
        "source": _one_of(sources, "A key of sources.toml; where it is left out, that of the table or the file holds."),
        "crop": _one_of(("*", *catalogue.crops, *model.HABITS, *catalogue.families)),
        "agent": _one_of(catalogue.agents),
        "control": _control(source),
    }
    whole = _table(needed, optional)
    # What a kind says, its members may leave out.
    whole["if"] = {"required": ["of"]}
    whole["then"] = {"required": ["id", "kind", "name", "hosts", "source"]}
    whole["else"] = {"required": whole.pop("required")}
    return _document("One agent of the catalogue", {**whole, "$defs": shared_parts})


def kind(of_agent: Schema) -> Schema:
    """The schema of a kind's file: an agent's, of which it may leave out what differs among its members."""
    kept = {key: value for key, value in of_agent.items() if key not in ("if", "then", "else")}
    needed = ["id", "kind", "name", "summary", "source", "hosts", "signs", "controls"]
    return {**kept, "title": "One kind of the catalogue", "required": needed}


def rows(of_agent: Schema) -> Schema:
    """The schema of a file of short rows, one for each member of the kind that names the file."""
    whole = of_agent["properties"]
    often = {"type": "string", "pattern": f"^({'|'.join(judgement.HOW_OFTEN)})!?~?$"}
    needed = {
        "name": TEXT, "scientific": TEXT, "summary": TEXT, "occurs": TEXT, "hosts": whole["hosts"],
        "signs": {**whole["signs"], "additionalProperties": often},
    }  # fmt: skip
    optional = {
        "source": whole["source"], "also": _list(TEXT, "Other names."), "said_wrongly": TEXT, "listed": _list(TEXT), "months": MONTHS,
        "year": _by_name(STAGES, MONTHS, "Months of each stage."), "winters_as": _one_of(STAGES), "winters": TEXT,
        "generations": TEXT, "drawn": _by_name(STAGES, {"type": "object"}, "Marks of a stage, as in drawn.toml."),
        **{key: whole[key] for key in short.TAKEN if key != "controls"},
        "controls": {"type": "object", "additionalProperties": {"$ref": "#/$defs/control", "required": ["timing", "success"]}},
    }  # fmt: skip
    row = _table(needed, optional)
    return _document("Members of a kind", {"type": "object", "additionalProperties": row, "$defs": of_agent["$defs"]})


def signs(catalogue: Catalogue) -> Schema:
    sign = _table(
        {"name": TEXT, "sentence": TEXT, "part": _one_of(model.PARTS), "look": _one_of(catalogue.looks), "leak": NUMBER},
        {
            "live": FLAG,
            "not_with": _list(_one_of(catalogue.signs)),
            "mistaken": _one_of(judgement.MISTAKEN, "How easily it is taken for seen where it is not; its look's where left out."),
            "overlooked": _one_of(judgement.OVERLOOKED, "How easily it is overlooked; its look's where left out."),
            "stage": _one_of(STAGES, "The stage of life that is seen with it."),
            "crops": _list(_one_of((*catalogue.crops, *model.HABITS)), "Crops or habits, the only ones that can show it."),
            "pictures": _one_of(catalogue.agents, "The agent whose `stage` it shows, where its drawing is that animal's."),
        },
        "leak: its chance with no agent of the catalogue at work; live: the animal itself.",
    )
    return _document("Signs", {"type": "object", "additionalProperties": sign})


def crops(catalogue: Catalogue) -> Schema:
    other = _one_of(catalogue.crops)
    lives = _list(_one_of(catalogue.agents))
    crop = _table(
        {"name": TEXT, "family": TEXT, "group": TEXT, "place": _one_of(Place)},
        {
            "also": _list(TEXT, "Other names that it is looked for by."),
            "leaf": TEXT,
            "habit": _one_of(model.HABITS),
            "stand": _one_of(Stand),
            "bears": _one_of(Bears),
            "keeps": _one_of(Keeps),
            "as": other | {"description": "The crop with which it has all in common that lives there."},
            "like": _list(other, "Crops of which what lives there is found on it too, less often."),
            **dict.fromkeys(judgement.HOW_USUAL, lives | {"description": "Agents that live on it."}),
            "in_leaf": MONTHS,
            "flowers": MONTHS,
            "fruits": MONTHS,
            "eaten": _list(TEXT, "Its parts that people eat."),
            "fed": FLAG,
        },
    )
    return _document("Crops", {"type": "object", "additionalProperties": crop})


def sources() -> Schema:
    source = _table({"kind": _one_of(PROVENANCE), "reference": TEXT}, {"says": TEXT})
    return _document("What values rest on", {"type": "object", "additionalProperties": source})


def _document(title: str, schema: Schema) -> Schema:
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title, **schema}


def documents(catalogue: Catalogue) -> dict[str, Schema]:
    """The schema of each kind of file, by its name."""
    shared, keys = (tomllib.loads((loader.HERE / f"{name}.toml").read_text()) for name in ("controls", "sources"))
    of_agent = agent(catalogue, shared, keys)
    return {
        "agent": of_agent,
        "kind": kind(of_agent),
        "signs": signs(catalogue),
        "crops": crops(catalogue),
        "rows": rows(of_agent),
        "sources": sources(),
    }


def text(document: Schema) -> str:
    """A schema as it is committed."""
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"
