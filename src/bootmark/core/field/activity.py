"""Whether an attack goes on, is over, or has been ended by what eats it."""

from bootmark.core.catalogue.model import Catalogue
from bootmark.core.field.resolve import CaseLike, resolve
from bootmark.core.meanings import Activity, Often
from bootmark.core.types import ABSENT, SEEN

PARASITISED = ("white-cocoons-on-its-back", "yellow-cocoons-beside-it", "mummies", "black-whitefly-scales", "white-eggs-behind-head")
DEAD = ("crushed-body-dry",)


def activity(agent: str, case: CaseLike, *, catalogue: Catalogue | None = None) -> Activity:
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


def activity_look(agent: str, case: CaseLike, *, catalogue: Catalogue | None = None) -> str:
    """The look that would tell whether an attack goes on; empty where none is left."""
    resolved, entries = resolve(case, catalogue)
    shows = entries.agent(agent).shows
    live = [sign for sign, showing in shows.items() if entries.signs[sign].live and showing.confirms and sign not in resolved.signs]
    return entries.signs[max(live, key=lambda sign: shows[sign].chance)].look if live else ""
