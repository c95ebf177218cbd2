"""The farm itself: what it is called, where it lies, by which clock, money and school it works."""

import uuid
from typing import Annotated, Any

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.field.schools import POLICIES, School
from bootmark.core.units import Quantity, Scale, System
from bootmark.say.formats import Days, Numbers
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Choice, Flag, Number
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import Role
from bootmark.services.owning.rules import Called, Currency, Region, Zone
from bootmark.store.models import Farm, FarmSettings

KEPT_DAYS = (30, 36_500)
"""For how many days a farm may keep what it knows of strangers."""
OWN_ORDER = ""
"""Of a farm whose policy was not taken from a school."""


class SaveFarm(Command, kind="farm.save", roles=(Role.OWNER,)):
    """Keep what the farm is called, where it lies, its time, money and school of control."""

    name: Annotated[str, Called()]
    latitude: Annotated[float, Number(-90, 90, "degrees")]
    longitude: Annotated[float, Number(-180, 180, "degrees")]
    time_zone: Annotated[str, Zone()]
    region: Annotated[str, Region()] = ""
    currency: Annotated[str, Currency()] = ""
    school: Annotated[str, Choice((OWN_ORDER, *School), fallback=OWN_ORDER)] = OWN_ORDER
    measures: Annotated[str, Choice(tuple(System))] = System.METRIC
    scale: Annotated[str, Choice(tuple(Scale))] = Scale.CELSIUS
    days: Annotated[str, Choice(tuple(Days))] = Days.DAY_FIRST
    numbers: Annotated[str, Choice(tuple(Numbers))] = Numbers.POINT
    retention_days: Annotated[int | None, Number(*KEPT_DAYS, "days", whole=True, optional=True)] = None
    calls_signed: Annotated[bool, Flag()] = False
    reach: Annotated[float | None, Number(0.5, 60, optional=True, measures=Quantity.LENGTH)] = None


KEPT = tuple(SaveFarm.model_fields)
"""What the farm's row takes over."""


def policy_as_kept(school: str) -> dict[str, Any]:
    """A school's policy as a farm's row keeps it."""
    policy = POLICIES[School(school)]
    flags = {"certified": policy.certified, "to_nature": policy.to_nature}
    return {"order": list(policy.order or ()), "refuses": sorted(policy.refuses), **flags}


def _take_over(context: Context, head: FarmSettings) -> None:
    farm = context.session.get_one(Farm, context.farm_id)
    for name in KEPT:
        setattr(farm, name, getattr(head, name))
    if head.school:
        farm.policy = policy_as_kept(head.school)


@handles(SaveFarm, FarmSettings, _take_over)
def store_farm(command: SaveFarm, context: Context) -> FarmSettings:
    if context.sent.record_id != context.farm_id:
        context.errors["record_id"] = say.line("This is not this farm: load the page again.")
    return FarmSettings(**command.model_dump())


def base(session: Session, farm: uuid.UUID) -> uuid.UUID | None:
    """The command that made the farm what it is; None where nobody has kept anything of it."""
    head = session.get(FarmSettings, (farm, farm))
    return head.command_id if head else None


def asked_of(farm: Farm) -> dict[str, Any]:
    """What stands in the form before anything is typed."""
    return {name: getattr(farm, name) for name in KEPT}
