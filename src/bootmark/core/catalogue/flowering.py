"""When a plant is in leaf, flowers and fruits at a latitude: months as they are in the temperate north, moved by how warm the place is."""

from bootmark.core import judgement
from bootmark.core.catalogue.model import turned

YEAR = frozenset(range(1, 13))
EVERGREEN = ("conifer", "palm", "succulent", "grass")
SUMMER_GREEN, SPRING_GREEN = frozenset(range(4, 11)), frozenset(range(2, 7))


def in_leaf_by_habit(habit: str) -> frozenset[int]:
    """Months in leaf in the temperate north of a plant of which nothing is said but its habit. Common practice, no source."""
    if habit in EVERGREEN:
        return YEAR
    return SPRING_GREEN if habit == "bulb" else SUMMER_GREEN


def months_at(months: frozenset[int], latitude: float) -> frozenset[int]:
    """Months of the temperate north (50 degrees) as they are at a latitude.

    months: 1 to 12; latitude: degrees, south below nought. Returns months, all twelve between the tropics; those of the south are half a
    year away. Spring comes four days later with each degree towards the pole, autumn as much earlier: what is from September on is moved
    the other way. Raises ValueError where the latitude is beyond the poles.

    Source: Hopkins (1920), "The bioclimatic law", Monthly Weather Review 48, from memory.

    >>> sorted(months_at(frozenset({5}), 35))
    [3]
    >>> sorted(months_at(frozenset({5}), -50))
    [11]
    """
    if not -90 <= latitude <= 90:
        raise ValueError(f"a latitude lies between -90 and 90 degrees, not {latitude}")
    if abs(latitude) < judgement.TROPICS or months == YEAR:
        return YEAR if months else months
    shift = round((abs(latitude) - judgement.TEMPERATE) * judgement.DAYS_A_DEGREE / judgement.DAYS_A_MONTH)
    moved = frozenset((month - 1 + (shift if month < judgement.AUTUMN else -shift)) % 12 + 1 for month in months)
    return turned(moved, "north" if latitude >= 0 else "south")


def in_order(months: frozenset[int]) -> list[int]:
    """Months from the first after a gap on, so that a winter's run is not torn apart by the turn of the year.

    >>> in_order(frozenset({1, 2, 11, 12}))
    [11, 12, 1, 2]
    """
    start = next((month for month in range(1, 13) if month in months and (month - 2) % 12 + 1 not in months), 1)
    return [month for month in ((start - 1 + step) % 12 + 1 for step in range(12)) if month in months]
