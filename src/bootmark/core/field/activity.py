"""Whether an attack goes on, is over, or has been ended by what eats it."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue import plants
from bootmark.core.catalogue.model import Catalogue
from bootmark.core.meanings import Activity, Often
from bootmark.core.types import ABSENT, SEEN, Case

PARASITISED = ("white-cocoons-on-its-back", "yellow-cocoons-beside-it", "mummies", "black-whitefly-scales", "white-eggs-behind-head")
DEAD = ("crushed-body-dry",)

Told = Case | Mapping[str, Any]


def resolve(case: Told, catalogue: Catalogue | None) -> tuple[Case, Catalogue]:
    """A case with its plant understood: a crop's own id, or the family and the habit of a plant that has no entry."""
    told, entries = Case.of(case), catalogue or catalogues.default()
    if told.crop in entries.crops or (told.family and told.habit):
        return told, entries
    meant = plants.understand(told.crop, entries)
    plant = meant.plant
    if plant is None:
        return told, entries
    # What is only like a name is not guessed at: it is weighed by its family and habit, and said so.
    if plant.crop and meant.sure:
        return replace(told, crop=plant.crop), entries
    return replace(told, family=told.family or plant.family, habit=told.habit or plant.habit), entries


def activity(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> Activity:
    """Whether an attack goes on: an activity.

    Parasitised or dead where a sign says so; active with a live sign of it seen; finished where the
    live signs that confirm it were looked for and are absent while lasting damage is there.
    """
    resolved, entries = resolve(case, catalogue)
    shows = entries.agent(agent).shows
    seen = {sign for sign in shows if resolved.signs.get(sign) == SEEN}
    if entries.agent(agent).is_pest:
        if seen & set(PARASITISED):
            return Activity.PARASITISED
        if seen & set(DEAD) and not any(entries.signs[sign].live for sign in seen):
            return Activity.DEAD
    if any(entries.signs[sign].live for sign in seen):
        return Activity.ACTIVE
    looked_for = [
        sign
        for sign, showing in shows.items()
        if entries.signs[sign].live and showing.confirms and showing.often in (Often.ALWAYS, Often.USUAL)
    ]
    answered = [sign for sign in looked_for if sign in resolved.signs]
    if any(shows[sign].outlasts for sign in seen) and answered and all(resolved.signs[sign] == ABSENT for sign in answered):
        return Activity.FINISHED
    return Activity.NOT_KNOWN


def activity_look(agent: str, case: Told, *, catalogue: Catalogue | None = None) -> str:
    """The look that would tell whether an attack goes on; empty where none is left."""
    resolved, entries = resolve(case, catalogue)
    shows = entries.agent(agent).shows
    live = [sign for sign, showing in shows.items() if entries.signs[sign].live and showing.confirms and sign not in resolved.signs]
    return entries.signs[max(live, key=lambda sign: shows[sign].chance)].look if live else ""
