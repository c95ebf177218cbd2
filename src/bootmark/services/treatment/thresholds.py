"""Where an agent starts to matter on this farm: its own thresholds, and how its own counts clump, before the catalogue's."""

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Annotated

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import judgement
from bootmark.core.catalogue import Agent, Catalogue
from bootmark.core.catalogue.model import NominalThreshold
from bootmark.core.field.count import taylor_fit
from bootmark.core.meanings import CATCHES, Chosen, Measure
from bootmark.core.types import Taylor
from bootmark.services.base import memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.fields import Checks, Choice, Number, Text
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.stamp import Topic
from bootmark.store.models import OwnThreshold, SampleRow
from bootmark.store.rows import of_farm

SOURCE = "the farm's own"
MEASURES = tuple(Measure)
_own: memo.Kept[Catalogue] = memo.Kept(64)
_laws: memo.Kept[dict[str, Taylor]] = memo.Kept(64)


class SetThreshold(Command, kind="threshold.set", roles=KEEPERS):
    """Say where an agent starts to matter on a crop of this farm, and why; crop: * for any."""

    agent: Annotated[str, AgentField()]
    crop: Annotated[str, Text(80)]
    measure: Annotated[str, Choice(MEASURES)]
    value: Annotated[float, Number(0.0001, 100_000)]
    why: Annotated[str, Text(300)]

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        agent = checks.catalogue.agent(self.agent)
        if not agent.is_pest:
            yield "agent", say.line("{agent} is no pest: nothing is done against it.", agent=agent.name)
        if self.crop != "*" and self.crop not in checks.catalogue.crops:
            yield "crop", say.line("{crop} is not a crop that Bootmark knows.", crop=self.crop)
        if self.measure == Measure.PROPORTION and self.value >= 1:
            yield "value", say.line("A share lies below 1: write 5 in a hundred as 0.05.")


@handles(SetThreshold, OwnThreshold)
def store_threshold(command: SetThreshold, _: Context) -> OwnThreshold:
    return OwnThreshold(**command.model_dump())


def rows(session: Session, agent: str) -> list[OwnThreshold]:
    """The farm's own thresholds of an agent, the newest first."""
    return list(session.scalars(of_farm(OwnThreshold).where(OwnThreshold.agent == agent).order_by(OwnThreshold.seen_at.desc())))


def laws(session: Session) -> Mapping[str, Taylor]:
    """How pests clump here, by agent: fitted where enough of the farm's own counts by the plan are there."""

    def read() -> dict[str, Taylor]:
        samples: dict[str, list[list[int]]] = {}
        planned = of_farm(SampleRow, SampleRow.agent, SampleRow.counts)
        planned = planned.where(SampleRow.chosen == Chosen.PLAN, SampleRow.measure == Measure.MEAN, SampleRow.tool == "")
        for agent, counts in session.execute(planned):
            if len(counts) >= judgement.LEAST_UNITS:
                samples.setdefault(agent, []).append(counts)
        fits = {agent: taylor_fit(own) for agent, own in samples.items()}
        return {agent: law for agent, law in fits.items() if law}

    return stamp.while_standing(session, _laws, (Topic.SCOUTING,), "laws", read)


def own(session: Session, catalogue: Catalogue) -> Catalogue:
    """The catalogue with the farm's own thresholds and clumping before its own: for weighing counts, not for naming."""

    def read() -> Catalogue:
        by_agent: dict[str, list[OwnThreshold]] = {}
        for row in session.scalars(of_farm(OwnThreshold).order_by(OwnThreshold.seen_at.desc())):
            by_agent.setdefault(row.agent, []).append(row)
        fits = laws(session)
        changed = {agent: _changed(catalogue.agent(agent), by_agent.get(agent, []), fits.get(agent)) for agent in {*by_agent, *fits}}
        return replace(catalogue, agents={**catalogue.agents, **changed}) if changed else catalogue

    return stamp.while_standing(session, _own, (Topic.TREATMENT, Topic.SCOUTING), catalogue.hash, read)


def measures_of(agent: Agent) -> tuple[Measure, ...]:
    """By what it may matter: as it is counted, and by its traps, among dispensers where such are hung against it."""
    counted = {agent.sampling.measure} if agent.sampling else set()
    counted |= {row.measure for row in agent.thresholds} or {Measure.TRAP}
    if any(control.disrupts for control in agent.controls):
        counted |= CATCHES
    return tuple(measure for measure in Measure if measure in counted)


def unit_of(agent: Agent, measure: Measure) -> str:
    """Of what a threshold tells, in the catalogue's words."""
    units = {row.measure: row.unit for row in reversed(agent.thresholds)}
    if agent.sampling:
        units.setdefault(agent.sampling.measure, agent.sampling.unit)
    if measure == Measure.DISRUPTED:
        return say.line("{unit}, among dispensers", unit=unit_of(agent, Measure.TRAP))
    return units.get(measure) or say.line("in a trap and week")


def _changed(agent: Agent, thresholds: list[OwnThreshold], law: Taylor | None) -> Agent:
    sampling = agent.sampling
    mine = tuple(
        NominalThreshold(row.crop, row.value, Measure(row.measure), unit_of(agent, Measure(row.measure)), SOURCE) for row in thresholds
    )
    return replace(agent, thresholds=(*mine, *agent.thresholds), sampling=replace(sampling, taylor=law) if sampling and law else sampling)
