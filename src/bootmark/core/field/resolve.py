"""A case as it comes, with its plant understood."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from bootmark.core import catalogue as catalogues
from bootmark.core.catalogue import plants
from bootmark.core.catalogue.model import Catalogue
from bootmark.core.types import Case

CaseLike = Case | Mapping[str, Any]


def resolve(case: CaseLike, catalogue: Catalogue | None) -> tuple[Case, Catalogue]:
    """A case with its plant understood: a crop's own id, or the family and the habit of a plant that has no entry."""
    plain, entries = Case.of(case), catalogue or catalogues.default()
    if plain.crop in entries.crops or (plain.family and plain.habit):
        return plain, entries
    meant = plants.understand(plain.crop, entries)
    plant = meant.plant
    if plant is None:
        return plain, entries
    # What is only like a name is not guessed at: it is weighed by its family and habit, and said so.
    if plant.crop and meant.sure:
        return replace(plain, crop=plant.crop), entries
    return replace(plain, family=plain.family or plant.family, habit=plain.habit or plant.habit), entries
