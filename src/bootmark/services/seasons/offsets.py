"""How good a model was on a block in each year, and what a person accepted of its sums on this farm."""

import datetime as dt
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import judgement
from bootmark.core.catalogue import Agent as Entry
from bootmark.core.season import biofix, offset, phenology
from bootmark.core.season.anchor import Sighting
from bootmark.core.season.offset import Offset, YearOff
from bootmark.services.base import memo, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.fields import Agent, Checks, Number
from bootmark.services.base.handling import Context, handles
from bootmark.services.base.roles import KEEPERS
from bootmark.services.base.stamp import Topic
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Biofix, Block, Farm, ModelOffset, StageSighting
from bootmark.store.rows import of_farm

MOST_TIMES = 1.5
_accepted: memo.Kept[dict[str, ModelOffset]] = memo.Kept(64)


class AcceptOffset(Command, kind="model.offset", roles=KEEPERS):
    """Accept what past years said of a model's sums on this farm, or go back to the catalogue's own."""

    agent: Annotated[str, Agent(heat=True)]
    times: Annotated[float, Number(1 / MOST_TIMES, MOST_TIMES)]
    error: Annotated[float, Number(0.005, 0.5)]
    years: Annotated[int, Number(0, 50, "years", whole=True)]

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if self.years == 0 and self.times != 1:
            yield "times", say.line("{agent}: a factor rests on at least one year.", agent=checks.catalogue.agent(self.agent).name)


@handles(AcceptOffset, ModelOffset)
def store_offset(command: AcceptOffset, _: Context) -> ModelOffset:
    return ModelOffset(**command.model_dump())


def accepted(session: Session) -> Mapping[str, ModelOffset]:
    """What stands, by agent: the newest that was accepted; none where that was the catalogue's own."""

    def read() -> dict[str, ModelOffset]:
        newest = {row.agent: row for row in session.scalars(of_farm(ModelOffset).order_by(ModelOffset.seen_at))}
        return {agent: row for agent, row in newest.items() if row.years}

    return stamp.while_standing(session, _accepted, (Topic.SEASONS,), "accepted", read)


@dataclass(frozen=True)
class Judged:
    """One year: what was seen last, what the model gave for that day, and by how many days it was off, positive where it came early."""

    year: int
    on: dt.date
    seen: Mapping[str, int]
    foretold: Mapping[str, float]
    off: YearOff
    days: float


def judged(session: Session, farm: Farm, block: Block, agent: Entry, day: dt.date) -> list[Judged]:
    """Every season of a block in which stages were counted, the newest first, against the catalogue's own model."""
    heat = agent.heat
    if heat is None or not heat.events or not block_weather.tells_heat(session, farm, block):
        return []
    by_year: dict[int, list[Sighting]] = {}
    for row in session.scalars(
        of_farm(StageSighting).where(StageSighting.block_id == block.id, StageSighting.agent == agent.id, StageSighting.on <= day)
    ):
        by_year.setdefault(row.on.year, []).append(Sighting(row.on, {stage: int(count) for stage, count in row.counts.items()}))
    rows = [
        _of_year(session, farm, block, agent, sorted(seen, key=lambda sighting: sighting.on))
        for _, seen in sorted(by_year.items(), reverse=True)
    ]
    return [row for row in rows if row]


def _of_year(session: Session, farm: Farm, block: Block, agent: Entry, seen: Sequence[Sighting]) -> Judged | None:
    assert agent.heat
    last = seen[-1].on
    mine = of_farm(Biofix, Biofix.on).where(Biofix.block_id == block.id, Biofix.agent == agent.id, Biofix.on <= seen[0].on)
    since = last - dt.timedelta(days=judgement.SEASON_DAYS)
    on = session.scalar(mine.where(Biofix.on > since).order_by(Biofix.on.desc()).limit(1))
    on = on or biofix.calendar_day(agent.heat, farm.latitude < 0, last)
    if on is None:
        return None
    weather, past = block_weather.series(session, farm, block, last + dt.timedelta(days=1), on)
    if not weather.dates or weather.dates[0] != on or weather.dates[-1] < last:
        return None
    off = offset.of_year(agent.heat, phenology.sums_at(agent.heat, weather, on, seen, farm.latitude))
    if off is None:
        return None
    season = phenology.forecast(agent.heat, weather, on, past_years=past, as_of=last, draws=40, latitude=farm.latitude)
    daily = np.diff(season.heat[1], prepend=0.0)
    place = season.index(last)
    pace = float(daily[max(0, place - judgement.PACE_DAYS) : place + 1].mean())
    shares = season.on(last)
    foretold = {stage: shares.get(stage, 0.0) for stage in seen[-1].counts}
    return Judged(last.year, last, seen[-1].counts, foretold, off, off.heat / pace if pace > 0 else 0.0)


def proposed(agent: Entry, years: Sequence[Judged], this_year: int) -> Offset | None:
    """What the years before this one say of the model's sums here; None where none was counted."""
    return offset.combined(agent.heat, [row.off for row in years if row.year < this_year]) if agent.heat else None
