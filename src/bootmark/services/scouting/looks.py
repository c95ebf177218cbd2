"""What a scout writes at a stop: the stop, looks and counts."""

import datetime as dt
import uuid
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Annotated

from pydantic import Field
from sqlalchemy import func
from sqlalchemy.orm import Session

from bootmark import say
from bootmark.core import ENGINE
from bootmark.core.catalogue import Agent, Catalogue, default
from bootmark.core.field import identify, plans
from bootmark.core.meanings import Age, Chosen, CountTool, Measure, Pattern, VerdictKind
from bootmark.core.types import SEEN, Case, NextLook, Ranking, Verdict
from bootmark.services.base import acted_on, ground, grown, memo, planned, stamp
from bootmark.services.base.command import Command
from bootmark.services.base.farm_time import zone
from bootmark.services.base.fields import MOST_UNITS, Checks, Choice, Counts, Flag, Number, Pictures, RecordId, Signs, Tally, Text
from bootmark.services.base.fields import Agent as AgentField
from bootmark.services.base.handling import Context, Json, as_json, handles
from bootmark.services.base.roles import SCOUTS
from bootmark.services.base.stamp import Topic
from bootmark.services.base.states import VisitState
from bootmark.services.seasons import forecasts
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, DecisionRow, Farm, FindingRow, Look, Photo, ReturnVisit, SampleRow, Stop
from bootmark.store.rows import of_farm

KEPT_CAUSES = 6
MEASURES = (Measure.MEAN, Measure.PROPORTION, Measure.TRAP)


RESTS_ON = (Topic.PLACES, Topic.WEATHER, Topic.SEASONS, Topic.SCOUTING, Topic.RESULTS)
_before: memo.Kept[Case] = memo.Kept(512)


class OpenStop(Command, kind="stop.open", roles=SCOUTS):
    """Open a stop in a block; one that answers a booked return says which, and one in a mixed bed at which planting it is."""

    block_id: Annotated[uuid.UUID, RecordId("block")]
    where: Annotated[str, Text(120, needed=False)] = ""
    return_id: Annotated[uuid.UUID | None, RecordId("booked look", optional=True)] = None
    planting_id: Annotated[uuid.UUID | None, RecordId("planting", optional=True)] = None
    longitude: Annotated[float | None, Number(-180, 180, "degrees", optional=True)] = None
    latitude: Annotated[float | None, Number(-90, 90, "degrees", optional=True)] = None
    flagged: Annotated[bool, Flag()] = False

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        if (self.longitude is None) != (self.latitude is None):
            yield "longitude", say.line("A place has both, longitude and latitude.")
        if self.flagged and not self.where and self.longitude is None:
            yield "where", say.line("Say where the flag is: row and plant, or your place.")


class RecordLook(Command, kind="look.record", roles=SCOUTS):
    """Keep what was seen and not seen at a stop, with the verdict as the core gives it then."""

    stop_id: Annotated[uuid.UUID, RecordId("stop")]
    signs: Annotated[dict[str, str], Signs()]
    note: Annotated[str, Text(needed=False)] = ""
    plants: Annotated[int | None, Number(1, 10_000, "plants", whole=True, optional=True)] = None


class RecordSample(Command, kind="sample.record", roles=SCOUTS):
    """Keep a count: one number for each unit looked at, and natural enemies beside them."""

    stop_id: Annotated[uuid.UUID, RecordId("stop")]
    agent: Annotated[str, AgentField()]
    unit: Annotated[str, Text(40)]
    measure: Annotated[str, Choice(MEASURES)]
    counts: Annotated[list[int], Counts()]
    enemies: Annotated[list[int], Counts(needed=False)]
    chosen: Annotated[str, Choice(tuple(Chosen), fallback=Chosen.PLAN)] = Chosen.PLAN
    tool: Annotated[str, Choice(("", *CountTool), fallback="")] = ""
    dead: Annotated[int | None, Number(0, 1_000_000, whole=True, optional=True, not_whole="count the animals")] = None
    parasitised: Annotated[int | None, Number(0, 1_000_000, whole=True, optional=True, not_whole="count the animals")] = None
    pattern: Annotated[str, Choice(("", *Pattern), fallback="")] = ""
    laid: Annotated[int | None, Number(1, MOST_UNITS, whole=True, optional=True)] = None
    pictures: Annotated[list[str], Pictures()] = Field(default_factory=list)
    ages: Annotated[dict[str, int], Tally(tuple(Age))] = Field(default_factory=dict)

    def across(self, checks: Checks) -> Iterator[tuple[str, str]]:
        units, beside = len(self.counts), len(self.enemies)
        grown = sum(number for age, number in self.ages.items() if age != Age.EGGS)
        if self.measure == Measure.MEAN and grown > sum(self.counts):
            yield (
                "ages",
                say.line("{grown} were told apart by their age and {all} counted: each of them counts.", grown=grown, all=sum(self.counts)),
            )
        if len(self.pictures) > units:
            yield "pictures", say.line("There are more pictures than units: one picture tells one unit.")
        if beside and beside != units:
            yield (
                "enemies",
                say.line("Enemies were counted on {beside} units and pests on {units}: count both on each.", beside=beside, units=units),
            )


def _answer_return(context: Context, stop: Stop) -> None:
    if stop.return_id:
        visit: ReturnVisit = context.get(ReturnVisit, stop.return_id, "return_id")
        visit.state = VisitState.ANSWERED


@handles(OpenStop, Stop, _answer_return)
def store_stop(command: OpenStop, context: Context) -> Stop:
    block: Block = context.get(Block, command.block_id, "block_id")
    visit: ReturnVisit | None = context.get(ReturnVisit, command.return_id, "return_id") if command.return_id else None
    if visit and visit.block_id != block.id:
        context.errors["return_id"] = say.line("That look is booked for another block.")
    if block.ended and block.ended <= context.today:
        context.errors["block_id"] = say.line("{block} is no block any more: choose another.", block=block.name)
    planting = acted_on.planting(context, block, command.planting_id, context.today)
    if command.longitude is not None and ground.away(context.farm, (command.longitude, command.latitude or 0.0)) > ground.FURTHEST:
        context.errors["longitude"] = say.line("It lies further from the farm than {most:0} km.", most=ground.FURTHEST / 1000)
    before = context.session.get(Stop, (context.farm_id, context.sent.record_id))
    return Stop(**command.model_dump(exclude={"planting_id"}), planting_id=planting, on=before.on if before else context.today)


def history(session: Session, block_id: uuid.UUID, *, before: dt.datetime) -> dict[str, int]:
    """Confirmed findings of each agent on a block in earlier rounds."""
    rows = session.execute(
        of_farm(FindingRow, FindingRow.agent, func.count(func.distinct(FindingRow.look_id)))
        .where(FindingRow.block_id == block_id, FindingRow.confirmed, FindingRow.seen_at < before)
        .group_by(FindingRow.agent)
    )
    return dict(rows.all())


def case_of(session: Session, farm: Farm, block: Block, at: dt.datetime, signs: dict[str, str]) -> Case:
    """What is known of a stop before anybody looks, with what was told. The former is gathered once while the farm's rows stand."""
    local = at.astimezone(zone(farm))
    key = (block.id, block.crop, local.date(), local.hour, default().hash)
    return replace(stamp.while_standing(session, _before, RESTS_ON, key, lambda: _before_looking(session, farm, block, local)), signs=signs)


def _before_looking(session: Session, farm: Farm, block: Block, local: dt.datetime) -> Case:
    # What was found earlier on the same day is this case, not its history.
    midnight = dt.datetime.combine(local.date(), dt.time(0), zone(farm))
    return Case(
        crop=block.crop,
        place=block.place,
        month=local.month,
        hemisphere="north" if farm.latitude >= 0 else "south",
        weather=block_weather.hints(session, farm, block, local.date()),
        history=history(session, block.id, before=midnight),
        hour=local.hour,
        region=farm.region,
        heat=about_now(session, farm, block, local.date()),
    )


def about_now(session: Session, farm: Farm, block: Block, day: dt.date) -> dict[str, float]:
    """By this year's heat, the share of each agent's population that has come, for agents whose season was set by hand.

    Where most of a season is over, the month tells more: later generations are not all modelled.
    """
    about = {}
    for block_id, agent_id in forecasts.biofixes(session, day):
        agent = default().agents.get(agent_id)
        season_now = forecasts.of_block(session, farm, block, agent, day) if agent and block_id == block.id else None
        if season_now:
            shares = season_now.forecast.on(day)
            if shares.get("over", 0.0) < 0.5:
                about[agent_id] = 1 - shares.get("not yet", 0.0)
    return about


def _keep_findings(context: Context, look: Look) -> None:
    """The agents that this version of the look speaks of: the named ones, or the likeliest as suspects."""
    stop = context.get(Stop, look.stop_id, "stop_id")
    verdict = look.working["verdict"]
    confirmed = set(look.working["confirmed"])
    for ordinal, agent in enumerate(verdict["agents"]):
        context.session.add(
            FindingRow(
                farm_id=context.farm_id,
                id=context.derived_id("finding", ordinal),
                look_id=look.id,
                look_version=look.version,
                block_id=stop.block_id,
                agent=agent,
                verdict=verdict["kind"],
                probability=look.working["chances"].get(agent, 0.0),
                confirmed=agent in confirmed,
                activity=look.working["activity"].get(agent, "not known"),
                seen_at=look.seen_at,
            )
        )


@handles(RecordLook, Look, _keep_findings)
def store_look(command: RecordLook, context: Context) -> Look:
    stop: Stop = context.get(Stop, command.stop_id, "stop_id")
    block = grown.at_stop(context.session, stop)
    working = read(case_of(context.session, context.farm, block, context.sent.seen_at, command.signs), context)
    return Look(**command.model_dump(), verdict=working["verdict"]["kind"], working=working)


def read(case: Case, context: Context) -> Json:
    """Everything that the verdict rests on, to be kept with it."""
    catalogue = context.catalogue
    ranking, looks, verdict = identify.answer(case, catalogue=catalogue)
    sound = not any(state == SEEN for state in case.signs.values())
    return {
        "case": as_json(case),
        "causes": as_json(ranking.explanations[:KEPT_CAUSES]),
        # A kind's chance is that of any of its agents: it stands after theirs, and for its own entry's.
        "chances": {suspect.agent: suspect.probability for suspect in (*ranking.suspects, *ranking.kinds)},
        "confirmed": [*dict.fromkeys(suspect.agent for suspect in (*ranking.suspects, *ranking.kinds) if suspect.confirmed)],
        "activity": {agent: identify.activity(agent, case, catalogue=catalogue) for agent in verdict.agents},
        "verdict": as_json(verdict) | ({"kind": VerdictKind.NEEDS_A_LOOK} if sound else {}),
        "next_look": looks[0].look if looks else "",
        "catalogue": catalogue.hash,
        "engine": ENGINE,
    }


def _take_back(context: Context, sample: SampleRow) -> None:
    """What was planned and booked on a count that counts no more is taken back, where it has not begun: the call is made again."""
    for decision in context.session.scalars(of_farm(DecisionRow).where(DecisionRow.sample_id == sample.id)):
        planned.take_back(context, decision_id=decision.id)


def all_there_are(session: Session, stop: Stop, agent: Agent, unit: str) -> int | None:
    """How many units of an agent's plan stand at a stop, where each is a plant and somebody said how many there are."""
    planting = next(iter(grown.standing(grown.at_stop(session, stop))), None)
    return plans.all_there_are(agent.sampling, unit, planting.plants) if planting and agent.sampling else None


@handles(RecordSample, SampleRow, undo=_take_back)
def store_sample(command: RecordSample, context: Context) -> SampleRow:
    stop: Stop = context.get(Stop, command.stop_id, "stop_id")
    units, there = len(command.counts), all_there_are(context.session, stop, context.catalogue.agent(command.agent), command.unit)
    if there and units > there:
        text = "{there} stand there, and {units} were counted: count each once, or put their number right with the planting."
        context.errors["counts"] = say.line(text, there=there, units=units)
    for picture in filter(None, command.pictures):
        if context.get(Photo, uuid.UUID(picture), "pictures").stop_id != command.stop_id:
            context.errors["pictures"] = say.line("That picture was taken at another stop.")
    row = SampleRow(**command.model_dump())
    # Who has counted every plant by the plan has counted all that there are.
    if units == there and row.chosen == Chosen.PLAN:
        row.chosen = Chosen.ALL
    return row


@dataclass(frozen=True)
class Answered:
    """A case as it stands, with all that the core says of it."""

    case: Case
    ranking: Ranking
    looks: list[NextLook]
    verdict: Verdict


_answers: memo.Kept[Answered] = memo.Kept(256)


def answered(
    session: Session,
    farm: Farm,
    block: Block,
    at: dt.datetime,
    signs: dict[str, str],
    catalogue: Catalogue,
    tools: frozenset[str] | None = None,
) -> Answered:
    """A case at a stop as it stands on the bench. tools: what the scout carries, None for everything."""
    case = replace(case_of(session, farm, block, at, signs), tools=tools)
    key = (
        block.id,
        block.crop,
        at.astimezone(zone(farm)).replace(minute=0, second=0, microsecond=0),
        tuple(signs.items()),
        tools,
        catalogue.hash,
    )

    def answer() -> Answered:
        return Answered(case, *identify.answer(case, catalogue=catalogue))

    return stamp.while_standing(session, _answers, RESTS_ON, key, answer)
