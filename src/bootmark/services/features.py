"""What stands on the plan and is no block: gates, paths, water, hives, houses, lines overhead, neighbours, single plants."""

from collections.abc import Iterator
from typing import Annotated

from bootmark import say
from bootmark.core.ground import outline
from bootmark.core.ground.features import FORMS, LEAST_POINTS, TALL
from bootmark.core.meanings import FeatureKind, Form
from bootmark.core.units import Quantity
from bootmark.services.base import ground
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Checks, Choice, Flag, Note, Number, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.outlines import sentence
from bootmark.services.base.points import Points
from bootmark.services.base.roles import KEEPERS
from bootmark.store.models import PlanFeature


class SaveFeature(Command, kind="feature.save", roles=KEEPERS):
    """Keep what stands on the plan and is no block."""

    feature: Annotated[str, Choice(tuple(FeatureKind))]
    name: Annotated[str, Text(60, needed=False)] = ""
    points: Annotated[list[list[float]], Points()]
    height: Annotated[float | None, Number(0.1, 150, optional=True, measures=Quantity.LENGTH)] = None
    note: Note = ""
    ended: Annotated[bool, Flag()] = False
    check_days: Annotated[int | None, Number(1, 366, "days", whole=True, optional=True)] = None

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
