"""What was proved on a block nearby, as it speaks for a look here."""

import math
from collections.abc import Callable, Mapping, Sequence

from bootmark.core import judgement
from bootmark.core.field.worth import NextDoor, Place, Proved


def next_door(
    places: Sequence[Place], proved: Mapping[str, Sequence[Proved]], lives_on: Callable[[str, str], bool]
) -> dict[str, list[NextDoor]]:
    """Pests that were proved within judgement.BESIDE_METRES of each block and live on what grows there, each once, of the nearest.

    places: the farm's blocks; proved: by id of a block; lives_on: whether an agent lives on a block, by their ids.
    Common practice, no source.
    """
    sources = [place for place in places if proved.get(place.id)]
    beside: dict[str, list[NextDoor]] = {}
    for place in places:
        away = sorted((math.dist(place.at, source.at), source.name, source) for source in sources if source.id != place.id)
        near = ((source, row) for metres, _, source in away if metres <= judgement.BESIDE_METRES for row in proved[source.id])
        nearest: dict[str, NextDoor] = {}
        for source, row in near:
            if row.agent not in nearest and lives_on(row.agent, place.id):
                nearest[row.agent] = NextDoor(row.agent, source.name, row.on)
        if nearest:
            beside[place.id] = list(nearest.values())
    return beside
