"""Which plants an agent lives on: what its own file says, what the plant's row says, and what lives on the plants that this one is like."""

from collections.abc import Mapping
from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue import model
from bootmark.core.catalogue.model import Crop
from bootmark.core.catalogue.reader import CatalogueError, Reader, nearest

ORDER = tuple(judgement.HOW_USUAL)
RANK = {usual: rank for rank, usual in enumerate(ORDER)} | {"": len(ORDER)}


def _liked(crop: Crop, hosts: Mapping[str, str], ill: bool) -> str:
    """How usual it is by the plants that a crop is like: as on the one that it shares all with, less than on the others.

    ill: whether it is a disease, which is found on the others hardly ever.
    """
    if crop.shares in hosts:
        return hosts[crop.shares]
    alike = min((hosts[other] for other in crop.like if other in hosts), key=RANK.__getitem__, default="")
    return (judgement.ALIKE_ILL if ill else judgement.ALIKE[alike]) if alike else ""


def read(reader: Reader, agent: str, ill: bool, crops: Mapping[str, Crop]) -> tuple[dict[str, str], dict[str, str], str]:
    """Crops by how usual, habits and families by how usual, and the source.

    What the agent's file says of a crop holds before what the crop's row says, that before what the plants are like that it is like, and
    that before its family and its habit.
    """
    hosts: dict[str, str] = {}
    wide: dict[str, str] = {}
    families = {crop.family for crop in crops.values()}
    for usual in ORDER:
        for plant in reader.words(usual, []):
            is_crop = plant == "*" or plant in crops
            if not is_crop and plant not in (*model.HABITS, *families) and not plant[:1].isupper():
                raise reader.fail(f"unknown crop {plant!r}{nearest(plant, [*crops, *model.HABITS])}")
            if plant in hosts or plant in wide:
                raise reader.fail(f"crop {plant!r} is listed twice")
            (hosts if is_crop else wide)[plant] = usual
    never = reader.words("never", [])
    source = reader.source()
    reader.done()
    stated = {crop.id: crop.lives[agent] for crop in crops.values() if agent in crop.lives} | hosts
    if not stated and not wide:
        raise reader.fail("no crop is named")
    grown = {crop.id: wide.get(crop.family) or wide[crop.habit] for crop in crops.values() if crop.family in wide or crop.habit in wide}
    said = grown | stated
    alike = {crop.id: _liked(crop, said, ill) for crop in crops.values() if crop.shares or crop.like}
    nearer = {crop: usual for crop, usual in alike.items() if usual and RANK[usual] < RANK[grown.get(crop, "")]}
    resolved = grown | nearer | stated
    return {crop: usual for crop, usual in resolved.items() if crop not in never}, wide, source


def check_rows(crops: Mapping[str, Crop], agents: Any) -> None:
    """Raises CatalogueError where a plant's row names a plant or an agent that is not in the catalogue."""
    for crop in crops.values():
        for plant in filter(None, (crop.shares, *crop.like)):
            if plant not in crops or plant == crop.id or crops[plant].shares or (plant == crop.shares and crops[plant].like):
                raise CatalogueError(f"crops.toml [{crop.id}]: {plant!r} is no crop that stands on its own{nearest(plant, crops)}")
        for agent in crop.lives:
            if agent not in agents:
                raise CatalogueError(f"crops.toml [{crop.id}]: {agent!r} is not in the catalogue{nearest(agent, agents)}")


def with_shared(plants: tuple[str, ...], crops: Mapping[str, Crop]) -> tuple[str, ...]:
    """Plants and those that share all with one of them."""
    return (*plants, *(crop.id for crop in crops.values() if crop.shares in plants and crop.id not in plants))
