"""Animals counted by stage, which re-anchor a forecast."""

import datetime as dt
import uuid
from collections.abc import Iterator
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core.catalogue.shapes import STAGES
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent, Checks, Choice, Count, Day, Note, RecordId
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.store.models import Block, StageSighting
from bootmark.store.rows import of_farm

NEWEST = 12


class SightStages(Command, kind="stage.sighting", roles=SCOUTS):
    """Keep how many animals of each stage that was looked for were seen on a block on a day: 0 is none, no entry is not looked for."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    agent: Annotated[str, Agent()]
    on: Annotated[dt.date, Day(past="count what is there today or was before")]
    counts: dict[Annotated[str, Choice(STAGES)], Count]
    note: Note = ""

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        agent = checks.catalogue.agent(self.agent)
        for stage in self.counts.keys() - set(agent.stages):
            yield (
                f"counts.{stage}",
                say.line("{name} has no {stage}: its stages are {stages}.", name=agent.name, stage=stage, stages=", ".join(agent.stages)),
            )
        if not any(self.counts.values()):
            yield "counts", say.line("Nothing was counted: write how many you saw of at least one stage.")


@handles(SightStages, StageSighting)
def store_sighting(command: SightStages, context: Context) -> StageSighting:
    context.get(Block, command.block_id, "block_id")
    return StageSighting(**command.model_dump())


def newest(session: Session, block_id: uuid.UUID, agent: str) -> list[StageSighting]:
    """What was counted last of an agent on a block, the newest first."""
    mine = of_farm(StageSighting).where(StageSighting.block_id == block_id, StageSighting.agent == agent)
    return list(session.scalars(mine.order_by(StageSighting.on.desc()).limit(NEWEST)))
