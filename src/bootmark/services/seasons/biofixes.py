"""The days from which heat is counted, as people set them."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated

from bootmark import say
from bootmark.services.base import grown
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent, Checks, Day, RecordId, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.store.models import Biofix, Block

MOST_YEARS_BACK = 5


class SetBiofix(Command, kind="biofix.set", roles=SCOUTS):
    """Set the day from which an agent's heat is counted on a block."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    agent: Annotated[str, Agent(heat=True)]
    on: Annotated[dt.date, Day(past="heat is counted from a day that has been")]
    basis: Annotated[str, Text(200)]

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if (checks.today - self.on).days > 366 * MOST_YEARS_BACK:
            yield "on", say.line("{on:full} is more than five years back: check the year.", on=self.on)


@handles(SetBiofix, Biofix)
def store_biofix(command: SetBiofix, context: Context) -> Biofix:
    block: Block = context.get(Block, command.block_id, "block_id")
    agent = context.catalogue.agent(command.agent)
    if not grown.lives_on(agent, block):
        context.errors["agent"] = say.line(
            "{agent} does not live on {crop}.", agent=agent.name, crop=context.catalogue.crops[block.crop].name.lower()
        )
    return Biofix(**command.model_dump())
