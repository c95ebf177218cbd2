"""Spells of weather that speak for or against a cause."""

from collections.abc import Mapping, Sequence

from bootmark.core import judgement
from bootmark.core.meanings import Spell


def spells(days: Sequence[tuple[float, float | None]]) -> Mapping[str, int]:
    """Lengths of the spells that the last day stands in.

    days: maximum temperature (degrees C) and rain (mm, None where not measured) of days in
    order. Returns days in a row that were hot (25 or more) and dry (under 1 mm), the rainy days
    among the last seven where there are five or more, and days since a soaking (2 mm).
    Common practice, no source for the limits.
    """
    lengths = dict.fromkeys(Spell, 0)
    for high, rain in reversed(days):
        if high < judgement.HOT_DAY or (rain or 0.0) >= judgement.WET_DAY:
            break
        lengths[Spell.HOT_AND_DRY] += 1
    for _, rain in reversed(days):
        if rain is None or rain >= judgement.SOAKING:
            break
        lengths[Spell.DROUGHT] += 1
    rainy = sum((rain or 0.0) >= judgement.WET_DAY for _, rain in days[-7:])
    lengths[Spell.WEEK_OF_RAIN] = rainy if rainy >= judgement.WEEK_OF_RAIN_DAYS else 0
    return {spell: days for spell, days in lengths.items() if days}
