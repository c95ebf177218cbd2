"""Whether a count was made as its plan has it: by its tool, in its hours, in its weather."""

from bootmark.core import judgement
from bootmark.core.catalogue.model import Sampling
from bootmark.core.meanings import CountTool, DayPart, OffPlan

WHOLE_PLANTS = frozenset({"plant", "tree", "bush"})
"""Units of plans that are a plant each: there are no more of them than plants."""


def all_there_are(plan: Sampling, unit: str, plants: int | None) -> int | None:
    """How many units of a plan there are at the most; None where nobody knows, or one plant has many.

    unit: what was counted, as the plan says; plants: that stand there, None where nobody counted them.
    """
    return plants if unit == plan.unit and unit in WHOLE_PLANTS else None


def off_plan(plan: Sampling, tool: str, hour: int | None, temp: float | None = None, rain: float | None = None) -> OffPlan | None:
    """Why a count does not hold; None where it does, or where nobody knows the hour or the weather.

    plan: how it is to be counted; tool: with what it was, empty for the plan's own; hour: local, 0 to 23; temp: degrees C; rain: mm in
    the hour. Whoever looks closer than the plan asks for sees no less. Common practice, no source.
    """
    used = CountTool(tool) if tool else plan.tool
    if used != plan.tool and not (plan.tool == CountTool.EYE and used == CountTool.LENS):
        return OffPlan.TOOL
    if hour is not None and not in_part(plan.part, hour):
        return OffPlan.HOUR
    if plan.dry and rain is not None and rain > judgement.RAIN_MM:
        return OffPlan.WET
    return OffPlan.COLD if plan.least_temp is not None and temp is not None and temp < plan.least_temp else None


def in_part(part: DayPart, hour: int) -> bool:
    """Whether a local hour lies in a part of the day."""
    if part == DayPart.ANY:
        return True
    first, last = judgement.DAY_PARTS[part]
    return first <= hour < last if first < last else hour >= first or hour < last
