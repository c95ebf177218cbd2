"""A ranked case in the one schema that the bench of Look and Enquiry draws, every text in it made here."""

from typing import Any

from bootmark.core import judgement
from bootmark.core.catalogue import Catalogue
from bootmark.core.meanings import OPEN_VERDICTS, Activity, VerdictKind
from bootmark.core.types import SEEN, Case, Cause, NextLook, Ranking, Verdict
from bootmark.say.naming import SPELLS
from bootmark.say.tongue import Tongue

MOST_CAUSES, MOST_LOOKS, LEAST_SHOWN = 5, 3, 0.01
MOST_MEMBERS, ONE_OF = 3, 0.1
DOING = {
    Activity.ACTIVE: "At work now.",
    Activity.FINISHED: "The attack is over: what is seen is old damage.",
    Activity.PARASITISED: "Parasitised: it will die without a spray.",
    Activity.DEAD: "Dead: nothing alive was found.",
    Activity.NOT_KNOWN: "Not known yet whether it is still at work.",
}
TITLES = {
    VerdictKind.NAMED: "It is {names}.",
    VerdictKind.HELP_HAS_COME: "Help has come: {names}.",
    VerdictKind.NORMAL: "Normal for the season: {names}.",
    VerdictKind.MUST_BE_REPORTED: "It must be reported: {names}.",
    VerdictKind.NOT_A_PEST: "Not a pest: {names}.",
    VerdictKind.NEEDS_A_LOOK: "It needs a look before it has a name.",
    VerdictKind.CANNOT_TELL: "Bootmark cannot tell.",
    VerdictKind.SEND_A_SAMPLE: "Send a sample: it may be {names}.",
    VerdictKind.NO_CAUSE_KNOWN: "No cause that Bootmark knows fits this.",
}
ONWARD = {VerdictKind.NAMED: "count"} | dict.fromkeys(OPEN_VERDICTS, "round")
"""The screen that a kept look leads to; the call where nothing else is said."""


def ranked(tongue: Tongue, case: Case, ranking: Ranking, looks: list[NextLook], verdict: Verdict, catalogue: Catalogue) -> dict[str, Any]:
    """What the bench shows of a case as it stands."""
    spells = ((SPELLS[spell], days) for spell, days in case.weather.items() if days >= judgement.HINT_DAYS and spell in SPELLS)
    return {
        "causes": [_cause(tongue, cause, ranking, catalogue) for cause in _shown(case, ranking) if cause.probability >= LEAST_SHOWN],
        "verdict": _verdict(tongue, verdict, catalogue),
        "looks": [_look(tongue, look, catalogue) for look in looks[:MOST_LOOKS]],
        "notes": tongue.all(ranking.notes, catalogue),
        "weather": [tongue.fill(text, {"days": days}) for text, days in spells],
    }


def _shown(case: Case, ranking: Ranking) -> tuple[Cause, ...]:
    """The explanations of what was seen; before anything is, what is most usual here now."""
    if any(state == SEEN for state in case.signs.values()):
        return ranking.explanations[:MOST_CAUSES]
    return tuple(Cause((suspect.agent,), suspect.probability) for suspect in ranking.suspects[:MOST_CAUSES])


def chance(tongue: Tongue, probability: float) -> str:
    """A chance in words. It is never told as certain or as none, which no rounding makes it."""
    percent = round(100 * probability)
    if percent >= 100:
        return tongue.line("Over 99 in 100.")
    return tongue.line("{percent} in 100.", percent=percent) if percent else tongue.line("Under 1 in 100.")


def _cause(tongue: Tongue, cause: Cause, ranking: Ranking, catalogue: Catalogue) -> dict[str, Any]:
    agents = [catalogue.agent(agent) for agent in cause.agents]
    return {
        "key": "+".join(cause.agents) or "nothing",
        "agents": list(cause.agents),
        "names": [agent.in_sentence if place else agent.name for place, agent in enumerate(agents)]
        or [_nobody(tongue, ranking, catalogue)],
        "percent": round(100 * cause.probability),
        "chance": chance(tongue, cause.probability),
        "pest": any(agent.is_pest for agent in agents),
        "why": _why(tongue, cause.agents, ranking, catalogue),
    }


def _nobody(tongue: Tongue, ranking: Ranking, catalogue: Catalogue) -> str:
    """What is said where no agent is at work: never that nothing is, beside a live animal that nobody explains."""
    live = any(catalogue.signs[sign].live for sign in ranking.unexplained)
    return tongue.line("A cause that Bootmark does not know" if live else "Nothing that Bootmark knows")


def _why(tongue: Tongue, agents: tuple[str, ...], ranking: Ranking, catalogue: Catalogue) -> str:
    """The one sentence under a cause: what speaks against it, or what it lacks, or what speaks for it."""
    if not agents:
        return tongue.line("Marks by chance, or a cause that Bootmark does not know.")
    suspects = [suspect for suspect in map(ranking.of, agents) if suspect]
    for kind in agents:
        members = [cause for cause in (ranking.of(member.id) for member in catalogue.members(kind)) if cause and cause.probability > ONE_OF]
        if len(members) > 1:
            names = tongue.formats.both([catalogue.agent(member.agent).in_sentence for member in members[:MOST_MEMBERS]])
            return tongue.line("Most likely of them here: {names}.", names=names)
    against = next((reason for suspect in suspects for reason in suspect.reasons_against), None)
    if against:
        return tongue.say(against, catalogue)
    if any(not suspect.confirmed and catalogue.agent(suspect.agent).is_pest for suspect in suspects):
        return tongue.line("Needs a live one before any call.")
    speaks = next((reason for suspect in suspects for reason in suspect.reasons_for), None)
    return tongue.say(speaks, catalogue) if speaks else tongue.line("Fits what was told.")


def _verdict(tongue: Tongue, verdict: Verdict, catalogue: Catalogue) -> dict[str, Any]:
    waits = verdict.kind == VerdictKind.NEEDS_A_LOOK
    agents = [catalogue.agent(agent) for agent in verdict.agents]
    doing = DOING[verdict.activity] if any(agent.is_pest for agent in agents) else ""
    return {
        "kind": verdict.kind,
        "agents": list(verdict.agents),
        "title": tongue.line(TITLES[verdict.kind], names=tongue.formats.both([agent.in_sentence for agent in agents])),
        "text": tongue.line("Nothing is named, and nothing treated, on a symptom alone.")
        if waits
        else tongue.joined(verdict.advice, catalogue),
        "doing": tongue.line(doing),
        "speaks_for": tongue.all(verdict.speaks_for, catalogue),
        "speaks_against": tongue.all(verdict.speaks_against, catalogue),
        "would_change": tongue.all(verdict.would_change, catalogue),
        "dangers": tongue.all(verdict.dangers, catalogue),
        "kept": tongue.line("It stays on the round until somebody takes the look that decides." if waits else "Next in the line:"),
        "onward": ONWARD.get(verdict.kind, "call"),
    }


def _look(tongue: Tongue, next_look: NextLook, catalogue: Catalogue) -> dict[str, Any]:
    look = catalogue.looks[next_look.look]
    names = [catalogue.agent(agent).in_sentence for agent in next_look.splits]
    tells = "Tells {first} from {last}." if len(names) == 2 else "Shows whether {first} is there." if names else ""
    return {
        "id": look.id,
        "name": look.name,
        "do": look.do,
        "takes": tongue.line("{seconds} seconds.", seconds=next_look.seconds),
        "tells": tongue.line(tells, first=names[0], last=names[-1]) if names else "",
        "signs": [{"id": sign, "name": catalogue.signs[sign].name} for sign in next_look.signs],
        "yes": look.yes,
        "no": look.no,
    }
