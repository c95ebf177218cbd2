"""What stands on the plan and is no block: gates, paths, water, hives, houses, lines overhead, neighbours, single plants."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic_core import CoreSchema, core_schema

from bootmark import say
from bootmark.core.ground import outline
from bootmark.core.ground.features import FORMS, LEAST_POINTS, TALL
from bootmark.core.meanings import FeatureKind, Form
from bootmark.core.units import Quantity
from bootmark.services.base import ground
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Flag, Note, Number, Rule, Text, wrong
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.outlines import sentence
from bootmark.services.base.roles import KEEPERS
from bootmark.store.models import PlanFeature

MOST_POINTS = 500


@dataclass(frozen=True)
class Points(Rule):
    """Places as longitude and latitude."""

    def inner(self) -> CoreSchema:
        pair = core_schema.list_schema(core_schema.float_schema(allow_inf_nan=False), min_length=2, max_length=2)
        return core_schema.list_schema(pair, min_length=1, max_length=MOST_POINTS)

    def read(self, value: Any, checks: Checks) -> list[list[float]]:
        if not isinstance(value, list) or not value:
            raise wrong(say.line("Nothing is drawn: press on the plan where it is."))
        if len(value) > MOST_POINTS:
            raise wrong(say.line("It has {count} points, and {most} are the most.", count=len(value), most=MOST_POINTS))
        fault = outline.places_fault(value)
        if fault:
            raise wrong(sentence(fault))
        return [[float(place[0]), float(place[1])] for place in value]


class SaveFeature(Command, kind="feature.save", roles=KEEPERS):
    """Keep what stands on the plan and is no block."""

    feature: Annotated[str, Choice(tuple(FeatureKind))]
    name: Annotated[str, Text(60, needed=False)] = ""
    points: Annotated[list[list[float]], Points()]
    height: Annotated[float | None, Number(0.1, 150, optional=True, measures=Quantity.LENGTH)] = None
    note: Note = ""
    ended: Annotated[bool, Flag()] = False

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        form = FORMS[FeatureKind(self.feature)]
        if len(self.points) < LEAST_POINTS[form]:
            yield (
                "points",
                say.line("This has {count} points and takes {least} at least.", count=len(self.points), least=LEAST_POINTS[form]),
            )
        elif form == Form.RING and (fault := outline.fault(self.points)):
            yield "points", sentence(fault)
        elif form == Form.SPOT and len(self.points) > 1:
            yield "points", say.line("This is one spot: press where it is.")
        if self.height is not None and FeatureKind(self.feature) not in TALL:
            yield "height", say.line("Of this nobody asks the height: leave it empty.")


@handles(SaveFeature, PlanFeature)
def store_feature(command: SaveFeature, context: Context) -> PlanFeature:
    if any(ground.away(context.farm, place) > ground.FURTHEST for place in command.points):
        context.errors["points"] = say.line("It lies further from the farm than {most:0} km.", most=ground.FURTHEST / 1000)
    return PlanFeature(kind=command.feature, **command.model_dump(exclude={"feature"}))
