"""Season forecasts of an agent on a block, computed once for each state of biofix, weather and sightings."""

import datetime as dt
import functools
import hashlib
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import ENGINE, judgement
from bootmark.core.catalogue import Agent, Control, Heat
from bootmark.core.season import biofix, offset, openings, phenology
from bootmark.core.season.anchor import Sighting
from bootmark.core.season.daily import warmed
from bootmark.core.season.phenology import Season
from bootmark.services.base import ground, grown, memo, stamp
from bootmark.services.base.stamp import Topic
from bootmark.services.seasons import offsets
from bootmark.services.seasons.packing import unpack
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Biofix, Block, Farm, FindingRow, SeasonResult, StageSighting, Trap, TrapCheck
from bootmark.store.rows import of_farm

DRAWS = 120
Pair = tuple[uuid.UUID, str]


class Start(NamedTuple):
    """A biofix: its day, what it rests on, and within how many days up to that one it lies: those since the trap was read before."""

    on: dt.date
    basis: str
    days: int = 1


_seasons: memo.Kept[Season] = memo.Kept(256)
_starts: memo.Kept[dict[Pair, Start]] = memo.Kept(64)
_seen: memo.Kept[dict[Pair, list[Sighting]]] = memo.Kept(64)
_pairs: memo.Kept[set[Pair]] = memo.Kept(64)


@dataclass(frozen=True)
class Ask:
    """Everything that one forecast rests on. key: changes with any of it."""

    block: Block
    agent: Agent
    biofix: dt.date
    basis: str
    sightings: tuple[Sighting, ...]
    key: str
    days: int = 1


@dataclass(frozen=True)
class Found:
    """A forecast with what it rests on."""

    biofix: dt.date
    basis: str
    forecast: Season
    sightings: tuple[Sighting, ...] = ()


def tells_heat(session: Session, farm: Farm, block: Block) -> bool:
    """Whether there is a station, and one that stands where the plants do."""
    return not block_weather.sources(session, farm, block) or block_weather.tells_heat(session, farm, block)


def biofixes(session: Session, day: dt.date) -> dict[Pair, Start]:
    """The newest biofix of each block and agent that this season's heat can be counted from."""
    return stamp.while_standing(session, _starts, (Topic.SEASONS, Topic.PLACES), day, lambda: _biofixes(session, day))


def _biofixes(session: Session, day: dt.date) -> dict[Pair, Start]:
    rows = session.execute(
        of_farm(Biofix, Biofix.block_id, Biofix.agent, Biofix.on, Biofix.basis)
        .where(Biofix.on <= day, Biofix.on > day - dt.timedelta(days=judgement.SEASON_DAYS))
        .order_by(Biofix.on, Biofix.seen_at)
    )
    waited, heirs = _waited(session, day), ground.heirs(session)
    starts: dict[Pair, Start] = {}
    for row in rows:
        start = Start(row.on, row.basis, waited.get((row.block_id, row.agent, row.on), 1))
        # A piece that was cut off goes on from where its block began.
        starts |= {(block.id, row.agent): start for block in heirs.of(row.block_id, row.on)}
    return starts


def _waited(session: Session, day: dt.date) -> dict[tuple[uuid.UUID, str, dt.date], int]:
    """Days since a trap was read before, by block, agent and the day on which it held something."""
    joined = (Trap.farm_id == TrapCheck.farm_id) & (Trap.id == TrapCheck.trap_id)
    rows = session.execute(
        of_farm(TrapCheck, TrapCheck.trap_id, TrapCheck.on, TrapCheck.caught, Trap.block_id, Trap.agent, Trap.set_on)
        .join(Trap, joined)
        .where(TrapCheck.on <= day, TrapCheck.on > day - dt.timedelta(days=judgement.SEASON_DAYS))
        .order_by(TrapCheck.on)
    )
    last: dict[uuid.UUID, dt.date] = {}
    waited: dict[tuple[uuid.UUID, str, dt.date], int] = {}
    for row in rows:
        # What could not be read tells nothing of the days before it: they are added to the next reading's.
        if row.caught is None:
            continue
        days = (row.on - last.get(row.trap_id, row.set_on)).days
        last[row.trap_id] = row.on
        if row.caught:
            key = (row.block_id, row.agent, row.on)
            waited[key] = max(1, min(days, waited.get(key, days)))
    return waited


def sightings(session: Session, day: dt.date) -> dict[Pair, list[Sighting]]:
    """What was counted by stage this season, by block and agent, in order of days."""
    return stamp.while_standing(session, _seen, (Topic.SEASONS,), day, lambda: _sightings(session, day))


def _sightings(session: Session, day: dt.date) -> dict[Pair, list[Sighting]]:
    rows = session.scalars(
        of_farm(StageSighting)
        .where(StageSighting.on <= day, StageSighting.on > day - dt.timedelta(days=judgement.SEASON_DAYS))
        .order_by(StageSighting.on, StageSighting.seen_at)
    )
    by_pair: dict[Pair, list[Sighting]] = {}
    for row in rows:
        by_pair.setdefault((row.block_id, row.agent), []).append(
            Sighting(row.on, {stage: int(count) for stage, count in row.counts.items()})
        )
    return by_pair


def watched(session: Session, day: dt.date) -> set[Pair]:
    """Block and agent where its season matters: a biofix was set there this season, or it was found there before.

    An agent that only could be on the crop is not watched: the catalogue holds dozens for each.
    """
    return stamp.while_standing(session, _pairs, (Topic.SCOUTING, Topic.SEASONS), day, lambda: _watched(session, day))


def _watched(session: Session, day: dt.date) -> set[Pair]:
    confirmed = session.execute(of_farm(FindingRow, FindingRow.block_id, FindingRow.agent).where(FindingRow.confirmed).distinct())
    return {(block, agent) for block, agent in confirmed} | set(biofixes(session, day))


def ask(session: Session, farm: Farm, block: Block, agent: Agent, day: dt.date) -> Ask | None:
    """What an agent's forecast on a block rests on as of a day; None without a heat model, a station that tells its heat, or a biofix."""
    if agent.heat is None or not agent.heat.events or not block_weather.tells_heat(session, farm, block):
        return None
    key = block_weather.key(session, farm, block, day)
    if key is None:
        return None
    set_by_hand = biofixes(session, day).get((block.id, agent.id))
    on = set_by_hand.on if set_by_hand else biofix.calendar_day(agent.heat, farm.latitude < 0, day)
    if on is None:
        return None
    seen = tuple(sighting for sighting in sightings(session, day).get((block.id, agent.id), ()) if sighting.on >= on)
    basis = set_by_hand.basis if set_by_hand else say.line("{biofix_name}, the model's own day", biofix_name=agent.heat.biofix_name)
    rests_on = repr(
        (
            key,
            day,
            on,
            _digest(_own(session, agent)),
            set_by_hand.days if set_by_hand else 1,
            [(sighting.on, sorted(sighting.counts.items())) for sighting in seen],
            farm.latitude,
            ENGINE,
            DRAWS,
        )
    )
    digest = hashlib.sha256(rests_on.encode()).hexdigest()[:32]
    return Ask(block, agent, on, basis, seen, digest, set_by_hand.days if set_by_hand else 1)


@functools.cache
def _digest(heat: Heat) -> str:
    return hashlib.sha256(repr(heat).encode()).hexdigest()


def asks(session: Session, farm: Farm, blocks: Sequence[Block], catalogue: Any, day: dt.date) -> list[Ask]:
    """Every forecast that is watched on these blocks."""
    by_block: dict[uuid.UUID, list[str]] = {}
    for block_id, agent_id in watched(session, day):
        by_block.setdefault(block_id, []).append(agent_id)
    wanted = []
    for block in blocks:
        for agent_id in sorted(by_block.get(block.id, ())):
            agent = catalogue.agents.get(agent_id)
            question = ask(session, farm, block, agent, day) if agent and grown.lives_on(agent, block) else None
            if question:
                wanted.append(question)
    return wanted


def _own(session: Session, agent: Agent) -> Heat:
    """An agent's heat model as this farm has accepted it."""
    assert agent.heat
    accepted = offsets.accepted(session).get(agent.id)
    return offset.applied(agent.heat, accepted.times, accepted.error) if accepted else agent.heat


def answer(session: Session, farm: Farm, question: Ask, day: dt.date) -> Season | None:
    """The forecast of an ask; None where there is no weather from its biofix on."""
    if kept := _seasons.get(question.key):
        return kept
    season = _stored(session, question) or reckon(session, farm, question, day, sightings=question.sightings)
    return _seasons.put(question.key, season) if season else None


def _stored(session: Session, question: Ask) -> Season | None:
    """The forecast as it was stored, where it rests on the same."""
    rows = of_farm(SeasonResult, SeasonResult.facts, SeasonResult.arrays).where(
        SeasonResult.block_id == question.block.id,
        SeasonResult.agent == question.agent.id,
        SeasonResult.key == question.key,
        SeasonResult.facts != {},
    )
    row = session.execute(rows).one_or_none()
    return unpack(row.facts, row.arrays) if row else None


def reckon(
    session: Session, farm: Farm, question: Ask, day: dt.date, *, sightings: Sequence[Sighting] = (), warmer: float = 0.0, later: int = 0
) -> Season | None:
    """A forecast anew. warmer: degrees C added to every day from today on, and to none before; later: days by which the biofix is moved."""
    assert question.agent.heat
    on = question.biofix + dt.timedelta(days=later)
    weather, past = block_weather.series(session, farm, question.block, day, on)
    if not weather.dates or weather.dates[0] != on:
        return None
    if warmer:
        # Past years are warmed whole: what they tell is the days still to come.
        weather, past = warmed(weather, warmer, day), [warmed(year, warmer) for year in past]
    return phenology.forecast(
        _own(session, question.agent),
        weather,
        on,
        past_years=past,
        as_of=day,
        draws=DRAWS,
        sightings=sightings,
        biofix_days=question.days,
        latitude=farm.latitude,
    )


def of_block(session: Session, farm: Farm, block: Block, agent: Agent, day: dt.date) -> Found | None:
    """An agent's season on a block as of a day; None without a heat model, a biofix, a station or weather."""
    question = ask(session, farm, block, agent, day)
    forecast = answer(session, farm, question, day) if question else None
    return Found(question.biofix, question.basis, forecast, question.sightings) if question and forecast else None


def window_of(forecast: Season, control: Control, heat: Heat | None, day: dt.date) -> tuple[dt.date, dt.date] | None:
    return openings.window(forecast, control, heat, after=day) if heat else None
