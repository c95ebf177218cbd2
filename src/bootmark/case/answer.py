"""A case answered: causes, verdict, next look, calls and letter, as the screens and the command line show them."""

from typing import Any

from bootmark import say
from bootmark.case.told import ToldCase
from bootmark.core import ENGINE
from bootmark.core.catalogue import Catalogue
from bootmark.core.field import call, called, identify
from bootmark.core.meanings import Activity, VerdictKind
from bootmark.core.messages import Says
from bootmark.core.types import Decision, Finding, NextLook, Ranking, Verdict
from bootmark.say import letter
from bootmark.say.tongue import Tongue

V = 1
MOST_CAUSES = 8
OPEN = (VerdictKind.NEEDS_A_LOOK, VerdictKind.CANNOT_TELL, VerdictKind.NO_CAUSE_KNOWN)

Json = dict[str, Any]


def answer(told: ToldCase, catalogue: Catalogue) -> Json:
    """One case as an object of plain values. The schema is docs/case.md."""
    return written(told, *identify.answer(told.case, catalogue=catalogue), catalogue)


def written(told: ToldCase, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> Json:
    """A case that has been ranked, as that object."""
    tongue = say.tongue()
    calls = called.calls(told.case, ranking, looks, verdict, told.crop, told.policy, catalogue, told.samples)
    return {
        "v": V,
        "catalogue": catalogue.hash,
        "engine": ENGINE,
        "id": told.id,
        "crop": {
            "id": told.plant.plant.crop if told.plant.plant else "",
            "understood": told.plant.sure,
            "suggestions": list(told.plant.suggestions),
        },
        "causes": [{"agents": list(cause.agents), "chance": round(cause.probability, 4)} for cause in ranking.explanations[:MOST_CAUSES]],
        "verdict": _verdict(tongue, verdict, catalogue),
        "next_look": _next(verdict, looks, calls, catalogue),
        "call": [_call(tongue, finding, decision, catalogue) for finding, decision in calls],
        "letter": _letter(tongue, told, verdict, looks, calls, catalogue),
        "notes": [*_notes(tongue, told, ranking, catalogue), *tongue.all(called.conflicts(calls, catalogue), catalogue)],
    }


def _next(verdict: Verdict, looks: list[NextLook], calls: list[tuple[Finding, Decision]], catalogue: Catalogue) -> Json | None:
    """The look that decides; once a cause is named, the one that its call waits for, or that would prove a second cause."""
    if verdict.kind in OPEN or not verdict.agents:
        return _look(looks[0].look, looks[0].signs, catalogue) if looks else None
    for _, decision in calls:
        sign = next((choice.reason.sign for choice in decision.choices if choice.reason.kind in call.ASKS), "")
        if sign:
            look = catalogue.signs[sign].look
            asked = next((row.signs for row in looks if row.look == look), ())
            return _look(look, tuple(dict.fromkeys([sign, *asked])), catalogue)
    beside = next((str(line.facts["look"]) for line in verdict.advice if line.kind == Says.PERHAPS_TOO), "")
    asked = next((row.signs for row in looks if row.look == beside), ())
    return _look(beside, asked, catalogue) if asked else None


def _verdict(tongue: Tongue, verdict: Verdict, catalogue: Catalogue) -> Json:
    return {
        "kind": verdict.kind,
        "agents": list(verdict.agents),
        "chance": round(verdict.probability, 4),
        "activity": verdict.activity if verdict.agents else Activity.NOT_KNOWN,
        "for": tongue.all(verdict.speaks_for, catalogue),
        "against": tongue.all(verdict.speaks_against, catalogue),
        "would_change": tongue.all(verdict.would_change, catalogue),
        "advice": tongue.all(verdict.advice, catalogue),
        "dangers": tongue.all(verdict.dangers, catalogue),
    }


def _look(look: str, signs: tuple[str, ...], catalogue: Catalogue) -> Json:
    entry = catalogue.looks[look]
    return {
        "id": entry.id,
        "do": entry.do,
        "signs": [{"id": sign, "sentence": catalogue.signs[sign].sentence} for sign in signs],
    }


def _call(tongue: Tongue, finding: Finding, decision: Decision, catalogue: Catalogue) -> Json:
    agent = catalogue.agent(finding.agent)
    return {
        "agent": finding.agent,
        "outcome": decision.kind,
        "headline": tongue.say(decision.headline, catalogue),
        "for": tongue.all(decision.reasons_for, catalogue),
        "against": tongue.all(decision.reasons_against, catalogue),
        "cautions": tongue.all(decision.cautions, catalogue),
        "look_again_days": decision.look_again_days,
        "controls": [
            {
                "id": choice.control,
                "kind": agent.control(choice.control).kind,
                "name": agent.control(choice.control).name,
                "do": agent.control(choice.control).do,
                "when": agent.control(choice.control).timing,
                "offered": choice.offered,
                "reason": tongue.say(choice.reason, catalogue),
            }
            for choice in decision.choices
        ],
    }


def _letter(
    tongue: Tongue, told: ToldCase, verdict: Verdict, looks: list[NextLook], calls: list[tuple[Finding, Decision]], catalogue: Catalogue
) -> str:
    if looks and verdict.kind == VerdictKind.NEEDS_A_LOOK:
        return letter.ask(tongue, looks[0], told.plant.words, catalogue, verdict.dangers)
    return letter.text(letter.answer(tongue, told.plant.words, verdict, [decision for _, decision in calls], catalogue))


def _notes(tongue: Tongue, told: ToldCase, ranking: Ranking, catalogue: Catalogue) -> list[str]:
    notes = tongue.all(ranking.notes, catalogue)
    if not told.plant.sure and told.plant.suggestions:
        notes.insert(
            0, tongue.line("{words} was taken for {plant}: did you mean that?", words=told.plant.words, plant=told.plant.suggestions[0])
        )
    if not told.month_told:
        notes.append(tongue.line("The month was not told: June is taken."))
    if ranking.unexplained:
        names = tongue.formats.both([catalogue.signs[sign].name.lower() for sign in ranking.unexplained])
        notes.append(tongue.line("Nothing that Bootmark knows of here leaves this: {names}.", names=names))
    return notes
