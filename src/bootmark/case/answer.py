"""A case answered: causes, verdict, next look, calls and letter, as the screens and the command line show them."""

from typing import Any

from bootmark import say
from bootmark.case.asked import AskedCase
from bootmark.core import ENGINE
from bootmark.core.catalogue import Catalogue
from bootmark.core.field import called, identify
from bootmark.core.meanings import OPEN_VERDICTS, Activity, VerdictKind
from bootmark.core.types import Decision, Finding, NextLook, Ranking, Verdict
from bootmark.say import letter
from bootmark.say.tongue import Tongue

V = 1
MOST_CAUSES = 8

Json = dict[str, Any]


def answer(asked_case: AskedCase, catalogue: Catalogue) -> Json:
    """One case as an object of plain values. The schema is docs/case.md."""
    return written(asked_case, *identify.answer(asked_case.case, catalogue=catalogue), catalogue)


def written(asked_case: AskedCase, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> Json:
    """A case that has been ranked, as that object."""
    tongue = say.tongue()
    calls = called.calls(asked_case.case, ranking, looks, verdict, asked_case.crop, asked_case.policy, catalogue, asked_case.samples)
    return {
        "v": V,
        "catalogue": catalogue.hash,
        "engine": ENGINE,
        "id": asked_case.id,
        "crop": {
            "id": asked_case.plant.plant.crop if asked_case.plant.plant else "",
            "understood": asked_case.plant.sure,
            "suggestions": list(asked_case.plant.suggestions),
        },
        "causes": [{"agents": list(cause.agents), "chance": round(cause.probability, 4)} for cause in ranking.explanations[:MOST_CAUSES]],
        "verdict": _verdict(tongue, verdict, catalogue),
        "next_look": _next(verdict, looks, catalogue),
        "call": [_call(tongue, finding, decision, catalogue) for finding, decision in calls],
        "letter": _letter(tongue, asked_case, verdict, looks, calls, catalogue),
        "notes": [*_notes(tongue, asked_case, ranking, catalogue), *tongue.all(called.conflicts(calls, catalogue), catalogue)],
    }


def _next(verdict: Verdict, looks: list[NextLook], catalogue: Catalogue) -> Json | None:
    """The look that decides; once a cause is named, only where the call still waits for it."""
    still_open = verdict.kind in OPEN_VERDICTS or not verdict.agents
    wanted = next((look for look in looks if still_open or look.awaited), None)
    return _look(wanted.look, wanted.signs, catalogue) if wanted else None


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
    tongue: Tongue,
    asked_case: AskedCase,
    verdict: Verdict,
    looks: list[NextLook],
    calls: list[tuple[Finding, Decision]],
    catalogue: Catalogue,
) -> str:
    if looks and verdict.kind == VerdictKind.NEEDS_A_LOOK:
        return letter.ask(tongue, looks[0], asked_case.plant.words, catalogue, verdict.dangers)
    return letter.text(letter.answer(tongue, asked_case.plant.words, verdict, [decision for _, decision in calls], catalogue))


def _notes(tongue: Tongue, asked_case: AskedCase, ranking: Ranking, catalogue: Catalogue) -> list[str]:
    notes = tongue.all(ranking.notes, catalogue)
    if not asked_case.plant.sure and asked_case.plant.suggestions:
        notes.insert(
            0,
            tongue.line(
                "{words} was taken for {plant}: did you mean that?", words=asked_case.plant.words, plant=asked_case.plant.suggestions[0]
            ),
        )
    if not asked_case.month_given:
        notes.append(tongue.line("The month was not told: June is taken."))
    if ranking.unexplained:
        names = tongue.formats.both([catalogue.signs[sign].name.lower() for sign in ranking.unexplained])
        notes.append(tongue.line("Nothing that Bootmark knows of here leaves this: {names}.", names=names))
    return notes
