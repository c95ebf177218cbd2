"""In which order somebody goes to several farms on a day, so that nothing is carried from one to the next."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import IntEnum


class Turn(IntEnum):
    """Clean farms come first, those with a pest that was proved lately after them, those with a block held after a report last."""

    CLEAN = 0
    INFESTED = 1
    HELD = 2


@dataclass(frozen=True)
class FarmDay:
    """A farm's walk of today. id: of the farm; worth: of its stops, 0 to 100 each; stops: how many; pests, held: whether a pest was proved
    there lately, and whether a block is held after a report."""

    id: str
    worth: float
    stops: int
    pests: bool
    held: bool

    @property
    def turn(self) -> Turn:
        return Turn.HELD if self.held else Turn.INFESTED if self.pests else Turn.CLEAN


def ordered(farms: Iterable[FarmDay]) -> list[FarmDay]:
    """Farms in the order of a day: by what may be carried, then by what a walk is worth. Common practice, no source."""
    return sorted(farms, key=lambda farm: (farm.turn, -farm.worth, farm.id))
