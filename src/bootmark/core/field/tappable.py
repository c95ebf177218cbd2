"""The signs that can be tapped on a plant."""

from bootmark.core import judgement
from bootmark.core.catalogue.model import Catalogue, Sign
from bootmark.core.field.priors import Plant, living_on
from bootmark.core.field.resolve import resolve
from bootmark.core.types import Case

LEAST = 0.05
SOUND = "leaf-still-green-and-working"
"""A sign of most causes and of none: it does not come first."""
ALWAYS = ("leaf-still-green-and-working", "soil-dry-a-finger-deep", "soil-sodden", "perks-up-hours-after-water", "irrigation-not-running")


def signs_for(catalogue: Catalogue, crop: str, family: str = "", habit: str = "") -> list[Sign]:
    """Signs that any cause on this plant can leave, those most often met there first."""
    case, _ = resolve(Case(crop, family=family, habit=habit), catalogue)
    met = dict.fromkeys(ALWAYS, LEAST)
    for agent in living_on(Plant.of(case), catalogue):
        usual = judgement.HOW_USUAL[agent.hosts.get(case.crop) or agent.habits.get(case.habit) or agent.hosts.get("*", "seldom")]
        for sign, shows in agent.shows.items():
            if sign != SOUND and catalogue.can_show(sign, case.crop, case.habit):
                met[sign] = met.get(sign, 0.0) + usual * shows.chance
    return sorted((catalogue.signs[sign] for sign in met), key=lambda sign: -met[sign.id])
