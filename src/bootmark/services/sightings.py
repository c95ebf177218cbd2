"""Animals counted by stage, which re-anchor a forecast."""

from bootmark.services.commands import Context, Fields, Json, kind
from bootmark.services.field import SCOUTS, local_day
from bootmark.store.models import Block
from bootmark.store.season_models import StageSighting

MOST_ANIMALS = 2000


@kind("stage.sighting", StageSighting, SCOUTS)
def stage_sighting(context: Context) -> Json:
    """Keep how many animals of each stage were seen on a block on a day."""
    payload = context.sent.payload
    fields = Fields(payload)
    agent_id = fields.one_of("agent", list(context.catalogue.agents))
    on = fields.day("on")
    note = fields.text("note", most=300, needed=False)
    agent = context.catalogue.agents.get(agent_id)
    counts: dict[str, int] = {}
    told = payload.get("counts")
    for stage in agent.stages if agent else ():
        value = str((told or {}).get(stage) or "0").strip() if isinstance(told, dict) else "0"
        if not value.isdigit() or int(value) > MOST_ANIMALS:
            fields.errors[f"count_{stage}"] = f"{value} is not a count: write a whole number from 0 to {MOST_ANIMALS}."
        elif int(value):
            counts[stage] = int(value)
    if not counts and not any(name.startswith("count_") for name in fields.errors):
        fields.errors["counts"] = "Nothing was counted: write how many you saw of at least one stage."
    if "on" not in fields.errors and on > local_day(context):
        fields.errors["on"] = f"{on:%-d %B} is still ahead: count what is there today or was before."
    fields.done()
    return {
        "block_id": context.get(Block, payload.get("block_id"), "block_id").id,
        "agent": agent_id,
        "on": on,
        "counts": counts,
        "note": note,
    }
