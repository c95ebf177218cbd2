"""What a call is weighed on: the finding, the count, where the population stands, the crop and what was done already."""

import datetime as dt
from collections.abc import Sequence
from typing import Any, NamedTuple

from sqlalchemy.orm import Session

from bootmark.core import ENGINE, judgement
from bootmark.core.catalogue import Agent, Catalogue
from bootmark.core.field import call, called, overruled, plans, spots
from bootmark.core.field.overruled import Instead
from bootmark.core.field.spots import Spot
from bootmark.core.ground import strips
from bootmark.core.meanings import Activity, Chosen, Condition, ControlKind, Measure, Pattern, SoldAs, VerdictKind, Worth
from bootmark.core.messages import Says
from bootmark.core.types import Answered, CropState, Decision, Done, Finding, Policy, Sample, StageNow
from bootmark.services import surroundings
from bootmark.services.base import applied, ground, grown, memo, stamp
from bootmark.services.base.farm_time import zone
from bootmark.services.base.handling import Json, as_json
from bootmark.services.base.stamp import Topic
from bootmark.services.scouting import conditions, growth, held, holds, picking
from bootmark.services.seasons import crop_stages, forecasts, traps
from bootmark.services.treatment import thresholds
from bootmark.services.weather import blocks as block_weather
from bootmark.store.models import Block, Farm, Look, SampleRow, Stop


def policy_of(farm: Farm) -> Policy:
    order = farm.policy.get("order")
    own = None if order is None else tuple(map(ControlKind, order))
    refuses = frozenset(map(ControlKind, farm.policy.get("refuses", ())))
    return Policy(own, refuses, bool(farm.policy.get("certified")), bool(farm.policy.get("to_nature")))


def crop_state(session: Session, farm: Farm, block: Block, day: dt.date, agent: str = "") -> CropState:
    """The crop on a block on a day, as a call weighs it. agent: whose marks on stalks, fruit and leaves are asked for; none where empty."""
    hemisphere = "north" if farm.latitude >= 0 else "south"
    in_flower, on_hold = crop_stages.in_flower(session, farm, block, day), block.id in held.blocks(session)
    grows = next(iter(grown.standing(block)), None)
    shown = conditions.newest(session, block.id, agent, day) if agent else {}
    return CropState(
        block.crop,
        picking.days_to(block, day),
        in_flower,
        day.month,
        hemisphere,
        farm.region,
        on_hold=on_hold,
        height=grows.height if grows else None,
        reach=farm.reach,
        sold_as=SoldAs(grows.sold_as) if grows and grows.sold_as else None,
        worth=Worth(grows.worth) if grows and grows.worth else None,
        lines_near=surroundings.lines_near(session, farm, block),
        storm=block_weather.storm_ahead(session, farm, block, day),
        weak_stalks=shown.get(Condition.STALKS),
        holed_fruit=shown.get(Condition.FRUIT),
        leaf_loss=shown.get(Condition.LEAVES),
        area=block.area,
        flowered=crop_stages.flowered(session, block, day),
    )


def finding_of(look: Look, agent: str, catalogue: Catalogue, answers: Sequence[Answered] = (), region: str = "") -> Finding:
    """One agent of a look, as its newest version tells it. answers: what came back from outside, in the order of their days."""
    working = look.working
    named = agent in working["verdict"]["agents"]
    finding = Finding(
        agent=agent,
        verdict=VerdictKind(working["verdict"]["kind"]) if named else VerdictKind.NEEDS_A_LOOK,
        probability=working["chances"].get(agent, 0.0),
        confirmed=agent in working["confirmed"],
        activity=Activity(working["activity"].get(agent, Activity.NOT_KNOWN)),
        next_look=working["next_look"],
    )
    # Looks of before version 0.5 kept no dangers.
    dangers = {line["agent"]: Says(line["kind"]) for line in working["verdict"].get("dangers", ())}
    finding = called.with_signs(finding, look.signs, working["verdict"]["agents"], dangers, catalogue)
    for answer in answers:
        finding = called.settled(finding, answer, region, catalogue)
    return finding


def sample_of(session: Session, farm: Farm, block: Block, row: SampleRow, agent: Agent) -> Sample:
    """A kept count as the core takes it, with why it does not hold where its tool, its hour or the weather was not the plan's."""
    off = None
    if agent.sampling and agent.sampling.measure == row.measure:
        weather = block_weather.at(session, farm, block, row.seen_at) or {}
        hour = row.seen_at.astimezone(zone(farm)).hour
        off = plans.off_plan(agent.sampling, row.tool, hour, weather.get("temp"), weather.get("rain"))
    counts, enemies, measure, chosen = tuple(row.counts), tuple(row.enemies), Measure(row.measure), Chosen(row.chosen)
    return Sample(row.unit, counts, enemies, measure, row.dead, row.parasitised, chosen, off, row.ages)


def caught(session: Session, farm: Farm, block: Block, agent: Agent, day: dt.date) -> Sample | None:
    """What the register says of an agent whose threshold is a trap's: each trap's own catch of a week, where it matters.

    Among dispensers it is held against the farm's own threshold for that; where there is none, against the same as elsewhere: as many there
    are more. Fewer in the traps do not say that there are few on the plants: these are counted.
    """
    among = traps.disrupted(session, farm, agent, block.id, day)
    line = (agent.threshold(block.crop, Measure.DISRUPTED) if among else None) or agent.threshold(block.crop, Measure.TRAP)
    rates = traps.weekly(traps.register(session, day), block.id, agent.id, day) if line else ()
    return Sample("trap", rates, measure=Measure(line.measure)) if line and rates and sum(rates) / len(rates) >= line.value else None


def stage_now(
    session: Session, farm: Farm, block: Block, agent_id: str, day: dt.date, catalogue: Any, sample: SampleRow | None = None
) -> StageNow:
    """Where the population stands, as far as heat tells it, with the first window that its controls share; how soon it passes its
    threshold, as counted."""
    agent = catalogue.agent(agent_id)
    comes = growth.days_to_threshold(session, farm, block, agent, sample, day)
    season = forecasts.of_block(session, farm, block, agent, day)
    if season is None:
        return StageNow(today=day, days_to_threshold=comes)
    forecast = season.forecast
    spans = {control.id: forecasts.window_of(forecast, control, agent.heat, day) for control in agent.controls if control.stages}
    windows = {control: span for control, span in spans.items() if span and agent.control(control).kind != ControlKind.CULTURAL}
    open_now = [span for span in windows.values() if span[1] >= day]
    return StageNow(forecast.on(day), day, min(open_now or windows.values(), default=None), comes, windows)


def done_on(session: Session, farm: Farm, block: Block, agent: str, day: dt.date, catalogue: Catalogue) -> list[Done]:
    """What was carried out against an agent on a block's ground within a season, whatever the block was called then."""
    spans, done = strips.spans(ground.strips_of(block)), []
    for row in applied.since(session, day - dt.timedelta(days=judgement.SEASON_DAYS)):
        on = row.ended.astimezone(zone(farm)).date()
        if row.agent == agent and on <= day and any(str(row.block_id) == span.block and span.holds(on) for span in spans):
            judged = on + dt.timedelta(days=catalogue.agent(agent).control(row.control).look_again_days)
            done.append(Done(agent, row.control, on, judged))
    return done


def _spot(farm: Farm, block: Block, sample: SampleRow | None, agent: Agent) -> Spot | None:
    """Where a count by the plan says that a pest is heaped; None where its points are not known, or it is not."""
    line = agent.threshold(block.crop, Measure.MEAN)
    if sample is None or line is None or not sample.pattern or sample.chosen != Chosen.PLAN or sample.measure != Measure.MEAN:
        return None
    laid = ground.laid(farm, block, sample.laid, Pattern(sample.pattern)) if sample.laid else ()
    if not laid:
        return None
    points = [laid[place % len(laid)] for place in range(len(sample.counts))]
    rows = {"direction": block.row_direction, "spacing": block.row_spacing}
    return spots.spot(ground.on_plan(farm, block), points, sample.counts, line.value, block.area, laid=len(laid), **rows)


class Considered(NamedTuple):
    """The core's decision, what a person may call instead of it, and the spot that a count points to, None where there is none."""

    decision: Decision
    instead: Instead
    spot: Spot | None


def consider(
    session: Session, farm: Farm, catalogue: Any, look: Look, agent: str, sample: SampleRow | None, day: dt.date
) -> tuple[Considered, Json]:
    """The core's decision with everything that went into it."""
    stop = session.get_one(Stop, (farm.id, look.stop_id))
    block = grown.at_stop(session, stop)
    finding = finding_of(look, agent, catalogue, holds.answers_to(session, look.id), farm.region)
    # The farm's own thresholds and clumping stand before the catalogue's.
    own = thresholds.own(session, catalogue)
    stage = stage_now(session, farm, block, agent, day, own, sample)
    counted = sample_of(session, farm, block, sample, own.agent(agent)) if sample else caught(session, farm, block, own.agent(agent), day)
    crop, policy = crop_state(session, farm, block, day, agent), policy_of(farm)
    already = done_on(session, farm, block, agent, day, catalogue)
    decision = call.decide(finding, stage, counted, None, None, crop, policy, catalogue=own, done=already)
    instead = overruled.instead(finding, stage, counted, crop, policy, decision, catalogue=own)
    inputs = {"finding": finding, "stage": stage, "sample": counted, "crop": crop, "policy": policy, "done": already}
    pinned = {"look": str(look.version_id), "sample": str(sample.version_id) if sample else None, "block": str(block.version_id)}
    return Considered(decision, instead, _spot(farm, block, sample, own.agent(agent))), {
        "inputs": as_json(inputs),
        "result": as_json(decision),
        "versions": pinned,
        "catalogue": catalogue.hash,
        "engine": ENGINE,
    }


RESTS_ON = (Topic.PLACES, Topic.WEATHER, Topic.SEASONS, Topic.RESULTS, Topic.TREATMENT, Topic.SCOUTING)
_considered: memo.Kept[Considered] = memo.Kept(256)


def considered(session: Session, farm: Farm, catalogue: Any, look: Look, agent: str, sample: SampleRow | None, day: dt.date) -> Considered:
    """The core's decision as a page shows it, made once while what it rests on stands."""
    key = (catalogue.hash, look.version_id, agent, sample.version_id if sample else None, day)

    def made() -> Considered:
        return consider(session, farm, catalogue, look, agent, sample, day)[0]

    return stamp.while_standing(session, _considered, RESTS_ON, key, made)


def uses_this_season(session: Session, farm: Farm, block: Block, control: str, day: dt.date) -> int:
    """How often a material was used on a block within a year: what its label counts by the season, on any ground of it."""
    used = [row for row in applied.since(session, day - dt.timedelta(days=judgement.SEASON_DAYS)) if row.control == control]
    done = [(str(row.block_id), row.ended.astimezone(zone(farm)).date()) for row in used]
    return strips.most(ground.strips_of(block), lambda span: sum(where == span.block and span.holds(on) for where, on in done))
