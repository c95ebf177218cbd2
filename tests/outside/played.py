"""Plays a written case through `./bootmark case`, look by look, as somebody who answers what is asked."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from bootmark.case.__main__ import answered
from bootmark.core.catalogue import Catalogue
from bootmark.core.catalogue.model import Control
from bootmark.core.field.activity import activity
from bootmark.core.judgement import UNKNOWN_HARVEST_DAYS
from bootmark.core.meanings import OPEN_VERDICTS, Activity
from bootmark.core.types import ACTING

FILE = Path(__file__).with_name("cases.txt")
LOOKS = 6
WATERS = ("water-well", "water-it", "leach")
HARMS = {
    "spray": lambda control: control["kind"] in ("soft", "conventional"),
    "pull": lambda control: control["id"] == "remove-plants",
    "water": lambda control: control["id"] in WATERS,
}
"""What a word of the last column forbids on offer; any other word is a control's id or an outcome."""


@dataclass(frozen=True)
class Written:
    crop: str
    month: int
    place: str
    country: str
    cause: str
    told: tuple[str, ...]
    shows: tuple[str, ...]
    calls: tuple[str, ...]
    harms: tuple[str, ...]


@dataclass(frozen=True)
class Played:
    """How a case went. leads, concludes: by species or kind; right: the call; harm: what was said that harms."""

    written: Written
    answer: dict[str, Any]
    leads: bool
    concludes: bool
    right: bool
    harm: tuple[str, ...]
    asked: tuple[str, ...]


def written() -> Iterator[Written]:
    for line in FILE.read_text("utf-8").splitlines():
        if line and not line.startswith("#"):
            crop, month, place, country, cause, told, shows, calls, harms = (part.strip() for part in line.split("|"))
            yield Written(
                crop, int(month), place, country, cause, *(tuple(words.split()) for words in (told, f"{told} {shows}", calls, harms))
            )


def ask(case: Written, signs: dict[str, str], catalogue: Catalogue) -> dict[str, Any]:
    line = {"crop": case.crop, "month": case.month, "place": case.place, "country": case.country, "signs": signs}
    answer = answered(json.dumps(line), catalogue)
    assert "error" not in answer, answer["error"]
    return answer


def play(case: Written, catalogue: Catalogue, flipped: str = "") -> Played:
    """flipped: a sign of which the opposite is told, whenever it is told."""

    def state(sign: str) -> str:
        return "seen" if (sign in case.shows) != (sign == flipped) else "absent"

    signs = {sign: state(sign) for sign in case.told}
    answer = ask(case, signs, catalogue)
    for _ in range(LOOKS):
        if answer["next_look"] is None:
            break
        signs |= {row["id"]: state(row["id"]) for row in answer["next_look"]["signs"]}
        answer = ask(case, signs, catalogue)
    return judged(case, answer, signs, catalogue)


def judged(case: Written, answer: dict[str, Any], signs: dict[str, str], catalogue: Catalogue) -> Played:
    kind = catalogue.kind_of(case.cause) or case.cause
    cause = catalogue.agent(case.cause).id

    def meant(agents: list[str]) -> bool:
        return any(agent == cause or (catalogue.kind_of(agent) or agent) == kind for agent in agents)

    verdict = answer["verdict"]
    leading: list[str] = next((row["agents"] for row in answer["causes"] if row["agents"]), [])
    concludes = verdict["kind"] not in OPEN_VERDICTS and meant(verdict["agents"])
    call = next((call for call in answer["call"] if meant([call["agent"]])), None)
    right = concludes and call is not None and outcome(call) & set(case.calls) != set()
    return Played(case, answer, meant(leading), concludes, right, tuple(harms(case, answer, signs, catalogue)), tuple(signs))


def outcome(call: dict[str, Any]) -> set[str]:
    """The words of the table that a call answers to."""
    words = set()
    if call["outcome"] == "look again":
        words |= {"count", "look"} if call["controls"] else {"look"}
    if call["outcome"] in ACTING:
        words |= {"act", "culture", "count"}
    if call["outcome"] == "leave":
        words.add("leave")
    if call["outcome"] in ("report", "refer"):
        words |= {"report"}
    if call["outcome"] == "send a sample":
        words |= {"sample", "culture"}
    if any(control["id"] in ("report-it", "keep-evidence", "hold-the-lot") and control["offered"] for control in call["controls"]):
        words.add("report")
    return words


def harms(case: Written, answer: dict[str, Any], signs: dict[str, str], catalogue: Catalogue) -> Iterator[str]:
    offered = [(call, control) for call in answer["call"] for control in call["controls"] if control["offered"]]
    for word in case.harms:
        rule = HARMS.get(word, lambda control, word=word: control["id"] == word)
        yield from (f"{word}: {control['id']} for {call['agent']}" for call, control in offered if rule(control))
        yield from (f"{word}: {call['agent']}" for call in answer["call"] if call["outcome"] == word)
    yield from always(answer, signs, catalogue)


def limits(control: Control, seen: set[str], in_flower: bool, days_to_harvest: int | None) -> Iterator[str]:
    """What a control on offer passes: bees, the harvest, the roots."""
    if in_flower and "bees" in control.harms:
        yield f"bees: {control.id} on a crop in flower"
    # An unknown interval is not nought.
    interval = control.harvest_days if control.harvest_days is not None else UNKNOWN_HARVEST_DAYS
    if days_to_harvest is not None and days_to_harvest < interval:
        yield f"harvest: {control.id} {days_to_harvest} days before it"
    if control.id in WATERS and {"soil-sodden", "roots-brown"} & seen:
        yield f"water on rotting roots: {control.id}"
    if control.id == "drain" and "soil-dry-a-finger-deep" in seen:
        yield f"drought on dry roots: {control.id}"


def always(
    answer: dict[str, Any], signs: dict[str, str], catalogue: Catalogue, *, in_flower: bool = False, days_to_harvest: int | None = None
) -> Iterator[str]:
    """What is harmful in any case; the list is docs/harm.md."""
    verdict = answer["verdict"]
    seen = {sign for sign, state in signs.items() if state == "seen"}
    for call in answer["call"]:
        agent = catalogue.agent(call["agent"])
        on_offer = [control for control in call["controls"] if control["offered"]]
        proved = any(sign in seen and shows.confirms for member in catalogue.kin(agent.id) for sign, shows in member.shows.items())
        if on_offer and verdict["kind"] in OPEN_VERDICTS:
            yield f"a control on an unproved suspect: {agent.id}"
        if on_offer and agent.kind != "disorder" and not proved:
            yield f"a control without proof: {agent.id}"
        for row in on_offer:
            yield from limits(agent.control(row["id"]), seen, in_flower, days_to_harvest)
        case = {"crop": answer["crop"]["id"] or "a plant", "signs": signs}
        if agent.is_pest and call["outcome"] in ACTING and activity(agent.id, case, catalogue=catalogue) == Activity.PARASITISED:
            yield f"a parasitised host killed: {agent.id}"
        if agent.hurts and not any(agent.hurts in caution for caution in call["cautions"]):
            yield f"a hand near what hurts, unwarned: {agent.id}"
    if verdict["kind"] in ("not a pest", "normal for the season", "help has come"):
        cleared = {catalogue.kind_of(agent) or agent for agent in verdict["agents"]}
        here = catalogue.on(answer["crop"]["id"])
        for agent in here:
            proved = any(sign in seen and shows.confirms for sign, shows in agent.shows.items())
            if proved and agent.is_pest and agent.notifiable and (catalogue.kind_of(agent.id) or agent.id) not in cleared:
                yield f"cleared beside the proof of a listed pest: {agent.id}"
