"""What a scout writes at a stop: the stop, looks and counts."""

import datetime as dt
import uuid
from dataclasses import replace

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from bootmark.core import ENGINE
from bootmark.core.catalogue import Catalogue, default
from bootmark.core.field import identify, priors
from bootmark.core.types import SEEN, STATES, Case, Cause, NextLook, Ranking, Verdict
from bootmark.services import block_weather, season
from bootmark.services.commands import Context, Fields, Json, Refused, as_json, kind
from bootmark.services.farm_time import zone
from bootmark.store.models import Block, Farm, FindingRow, Look, ReturnVisit, SampleRow, Stop

SCOUTS = ("owner", "adviser", "scout", "applicator")
KEPT_CAUSES = 6
SLIP = 0.05
"""Share of a scout's answers taken to be wrong: each is a tap on a drawing with its sentence. Judgement, no source."""


def _answer_return(context: Context, stop: Stop) -> None:
    if stop.return_id:
        context.session.execute(
            update(ReturnVisit).where(ReturnVisit.farm_id == context.farm_id, ReturnVisit.id == stop.return_id).values(state="answered")
        )


@kind("stop.open", Stop, SCOUTS, _answer_return)
def stop_open(context: Context) -> Json:
    """Open a stop in a block; one that answers a booked return says which."""
    fields = Fields(context.sent.payload)
    where = fields.text("where", most=120, needed=False)
    fields.done()
    block = context.get(Block, context.sent.payload.get("block_id"), "block_id")
    return_id = context.sent.payload.get("return_id")
    visit = context.get(ReturnVisit, return_id, "return_id") if return_id else None
    if visit and visit.block_id != block.id:
        raise Refused(return_id="That look is booked for another block.")
    return {"block_id": block.id, "on": local_day(context), "where": where, "return_id": visit.id if visit else None}


def local_day(context: Context) -> dt.date:
    return context.sent.seen_at.astimezone(zone(context.farm)).date()


def history(session: Session, farm_id: uuid.UUID, block_id: uuid.UUID, *, before: dt.datetime) -> dict[str, int]:
    """Confirmed findings of each agent on a block in earlier rounds."""
    rows = session.execute(
        select(FindingRow.agent, func.count(func.distinct(FindingRow.look_id)))
        .where(FindingRow.farm_id == farm_id, FindingRow.block_id == block_id, FindingRow.confirmed, FindingRow.seen_at < before)
        .group_by(FindingRow.agent)
    )
    return dict(rows.all())


def case_of(session: Session, farm: Farm, block: Block, at: dt.datetime, signs: dict[str, str]) -> Case:
    """What is known of a stop before anybody looks, with what was told."""
    local = at.astimezone(zone(farm))
    # What was found earlier on the same day is this case, not its history.
    midnight = dt.datetime.combine(local.date(), dt.time(0), zone(farm))
    return Case(
        crop=block.crop,
        place=block.place,
        month=local.month,
        hemisphere="north" if farm.latitude >= 0 else "south",
        weather=block_weather.hints(session, farm, block, local.date()),
        signs=signs,
        history=history(session, farm.id, block.id, before=midnight),
        hour=local.hour,
        region=farm.region,
        heat=about_now(session, farm, block, local.date()),
        slip=SLIP,
    )


def about_now(session: Session, farm: Farm, block: Block, day: dt.date) -> dict[str, float]:
    """By this year's heat, the share of each agent's population that has come, for agents whose season was set by hand.

    Where most of a season is over, the month tells more: later generations are not all modelled.
    """
    found = {}
    for block_id, agent_id in season.biofixes(session, farm, day):
        agent = default().agents.get(agent_id)
        season_now = season.of_block(session, farm, block, agent, day) if agent and block_id == block.id else None
        if season_now:
            shares = season_now.forecast.on(day)
            if shares.get("over", 0.0) < 0.5:
                found[agent_id] = 1 - shares.get("not yet", 0.0)
    return found


def _keep_findings(context: Context, look: Look) -> None:
    """The agents that this version of the look speaks of: the named ones, or the likeliest as suspects."""
    stop = context.get(Stop, look.stop_id, "stop_id")
    told = look.working["verdict"]
    confirmed = set(look.working["confirmed"])
    for ordinal, agent in enumerate(told["agents"]):
        context.session.add(
            FindingRow(
                farm_id=context.farm_id,
                id=context.derived_id("finding", ordinal),
                look_id=look.id,
                look_version=look.version,
                block_id=stop.block_id,
                agent=agent,
                verdict=told["kind"],
                probability=look.working["chances"].get(agent, 0.0),
                confirmed=agent in confirmed,
                activity=look.working["activity"].get(agent, "not known"),
                seen_at=look.seen_at,
            )
        )


@kind("look.record", Look, SCOUTS, _keep_findings)
def look_record(context: Context) -> Json:
    """Keep what was seen and not seen at a stop, with the verdict as the core gives it then."""
    fields = Fields(context.sent.payload)
    note = fields.text("note", needed=False)
    signs = context.sent.payload.get("signs")
    if not isinstance(signs, dict):
        raise Refused(signs="Signs are told as sign: seen, absent or unsure.")
    for sign, state in signs.items():
        if sign not in context.catalogue.signs:
            fields.errors["signs"] = f"{sign} is not a sign that Bootmark knows."
        elif state not in STATES:
            fields.errors["signs"] = f"{sign} must be seen, absent or unsure, not {state!r}."
    fields.done()
    stop = context.get(Stop, context.sent.payload.get("stop_id"), "stop_id")
    block = context.get(Block, stop.block_id, "block_id")
    case = case_of(context.session, context.farm, block, context.sent.seen_at, signs)
    told = read(case, context)
    return {"stop_id": stop.id, "signs": signs, "note": note, "verdict": told["verdict"]["kind"], "working": told}


def read(case: Case, context: Context) -> Json:
    """Everything that the verdict rests on, to be kept with it."""
    known = context.catalogue
    ranking, looks, verdict = identify.answer(case, catalogue=known)
    sound = not any(state == "seen" for state in case.signs.values())
    return {
        "case": as_json(case),
        "causes": as_json(ranking.explanations[:KEPT_CAUSES]),
        "chances": {one.agent: one.probability for one in ranking.suspects},
        "confirmed": [one.agent for one in ranking.suspects if one.confirmed],
        "activity": {agent: identify.activity(agent, case, catalogue=known) for agent in verdict.agents},
        "verdict": as_json(verdict) | ({"kind": "needs a look"} if sound else {}),
        "next_look": looks[0].look if looks else "",
        "catalogue": known.hash,
        "engine": ENGINE,
    }


@kind("sample.record", SampleRow, SCOUTS)
def sample_record(context: Context) -> Json:
    """Keep a count: one number for each unit looked at, and natural enemies beside them."""
    payload = context.sent.payload
    fields = Fields(payload)
    agent = fields.one_of("agent", list(context.catalogue.agents))
    unit = fields.text("unit", most=40)
    measure = fields.one_of("measure", ("mean", "proportion", "trap"))
    counts, enemies = fields.counts("counts"), fields.counts("enemies")
    if "counts" not in fields.errors and not counts:
        fields.errors["counts"] = "Nothing was counted yet: count at least one unit."
    if enemies and len(enemies) != len(counts):
        fields.errors["enemies"] = f"Enemies were counted on {len(enemies)} units and pests on {len(counts)}: count both on each."
    fields.done()
    stop = context.get(Stop, payload.get("stop_id"), "stop_id")
    return {"stop_id": stop.id, "agent": agent, "unit": unit, "measure": measure, "counts": counts, "enemies": enemies}


def draft(
    session: Session,
    farm: Farm,
    block: Block,
    at: dt.datetime,
    signs: dict[str, str],
    known: Catalogue,
    tools: frozenset[str] | None = None,
) -> Json:
    """A case at a stop as it stands on the bench, ranked. tools: what the scout carries, None for everything."""
    case = replace(case_of(session, farm, block, at, signs), tools=tools)
    return drawn(case, known, *identify.answer(case, catalogue=known))


def drawn(case: Case, known: Catalogue, ranking: Ranking, looks: list[NextLook], verdict: Verdict) -> Json:
    """A ranked case in the one schema that the bench draws."""
    return {
        "causes": [
            {
                "key": "+".join(cause.agents) or "nothing",
                "agents": list(cause.agents),
                "names": [
                    known.agent(agent).name if place == 0 else known.agent(agent).in_sentence for place, agent in enumerate(cause.agents)
                ]
                or ["Nothing at work"],
                "percent": round(100 * cause.probability),
                "pest": any(known.agent(agent).is_pest for agent in cause.agents),
                "why": _why(cause.agents, ranking, known),
            }
            for cause in _shown(case, ranking)
            if cause.probability >= 0.01
        ],
        "verdict": as_json(verdict)
        | {"names": [known.agent(agent).in_sentence for agent in verdict.agents], "doing": _doing(verdict, known)},
        "looks": [_look_json(one, known) for one in looks[:3]],
        "notes": list(ranking.notes),
        "weather": _weather_words(case),
    }


def _shown(case: Case, ranking: Ranking) -> tuple[Cause, ...]:
    """The explanations of what was seen; before anything is, what is most usual here now."""
    if any(state == SEEN for state in case.signs.values()):
        return ranking.explanations[:5]
    return tuple(Cause((one.agent,), one.probability) for one in ranking.suspects[:5])


DOING = {
    "active": "At work now.",
    "finished": "The attack is over: what is seen is old damage.",
    "parasitised": "Parasitised: it will die without a spray.",
    "dead": "Dead: nothing alive was found.",
}


def _doing(verdict: Verdict, known: Catalogue) -> str:
    """Whether it is still at work, in a sentence; empty where nothing that could work is spoken of."""
    if not verdict.agents or not any(known.agent(agent).is_pest for agent in verdict.agents):
        return ""
    return DOING.get(verdict.activity, "Not known yet whether it is still at work.")


def _look_json(one: NextLook, known: Catalogue) -> Json:
    look = known.looks[one.look]
    names = [known.agent(agent).in_sentence for agent in one.splits]
    tells = f"Tells {names[0]} from {names[1]}." if len(names) == 2 else f"Shows whether {names[0]} is there." if names else ""
    return {
        "id": one.look,
        "name": look.name,
        "do": look.do,
        "seconds": one.seconds,
        "tools": list(look.tools),
        "tells": tells,
        "signs": [{"id": sign, "name": known.signs[sign].name} for sign in one.signs],
        "yes": look.yes,
        "no": look.no,
    }


def _why(agents: tuple[str, ...], ranking: Ranking, known: Catalogue) -> str:
    """The one sentence under a cause: what it lacks, or what speaks against it, or for it."""
    if not agents:
        return "Chance marks, or a cause that Bootmark does not know."
    ones = [one for one in map(ranking.of, agents) if one]
    unproved = [one for one in ones if not one.confirmed and known.agent(one.agent).is_pest]
    against = [reason.text for one in ones for reason in one.reasons_against]
    speaks = [reason.text for one in ones for reason in one.reasons_for]
    if against:
        return against[0]
    if unproved:
        return "Needs a live one before any call."
    return speaks[0] if speaks else "Fits what was told."


def _weather_words(case: Case) -> list[str]:
    return [
        f"{priors.HINTS.get(hint, hint).capitalize()} for {days} days." for hint, days in case.weather.items() if days >= priors.HINT_DAYS
    ]
