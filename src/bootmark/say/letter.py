"""What goes back to someone who asked from afar: the one look to take, or an answer that a layman understands."""

from dataclasses import dataclass

from bootmark.core.catalogue import Catalogue, default
from bootmark.core.catalogue.model import Agent
from bootmark.core.meanings import Activity, VerdictKind
from bootmark.core.types import Case, NextLook, Verdict
from bootmark.say.tongue import Tongue

AT_HAND = {
    "hand lens": "A phone's camera zoomed in on the spot does if you have no lens.",
    "strong lens": "You will not see it with the bare eye: rather bag some leaves and send them.",
    "white paper": "Any sheet of white paper does.",
    "knife": "Cut away from your hand.",
}
"""What a layman takes in place of a tool, or is warned of."""
CAUTION = "We name what you told us of and have not seen the plant itself. The label and local rules come before this letter."
OVER = {
    Activity.FINISHED: "The attack is over: what you see is old damage. It was {names}. {summary}",
    Activity.DEAD: "Nothing alive was found. It was {names}. {summary}",
    Activity.PARASITISED: "It carries parasites that will kill it. It was {names}. {summary}",
}
BAG = ("Put a few leaves or a shoot into a paper bag, write place and day on it, and bring or send it.", "Do not treat it yet.")
REPORT = ("Photograph it.", "Leave it where it is: do not move, post or treat it.", "Tell the plant health authority today.")


@dataclass(frozen=True)
class Reply:
    """A reply's parts, in the order in which they are read."""

    title: str
    answer: str
    why: tuple[str, ...]
    do: tuple[str, ...]
    watch: tuple[str, ...]
    caution: str


@dataclass(frozen=True)
class _Parts:
    title: str
    answer: str
    do: tuple[str, ...]
    watch: tuple[str, ...] = ()


def _crop(crop: str, catalogue: Catalogue) -> str:
    return catalogue.crops[crop].name.lower() if crop in catalogue.crops else crop


def _inside(text: str) -> str:
    return text[0].lower() + text[1:]


def ask(tongue: Tongue, look: NextLook, crop: str, catalogue: Catalogue | None = None) -> str:
    """One request, ready to send: what to do, what to tell, what picture helps."""
    entries = catalogue or default()
    what = entries.looks[look.look]
    signs = "; ".join(_inside(entries.signs[sign].sentence.rstrip(".")) for sign in look.signs)
    parts = [
        tongue.line("Thank you for asking about your {crop}. One look would tell us most.", crop=_crop(crop, entries)),
        what.do if what.do.endswith(".") else f"{what.do}.",
        *(tongue.line(AT_HAND[tool]) for tool in what.tools if tool in AT_HAND),
        tongue.line("Do you see this, yes or no: {signs}?", signs=signs)
        if len(look.signs) == 1
        else tongue.line("Which of these do you see, and which are not there: {signs}?", signs=signs),
        tongue.line("A sharp photograph of that spot, with a coin beside it, helps. Please treat nothing until we have answered."),
    ]
    return " ".join(parts)


def answer(tongue: Tongue, case: Case, verdict: Verdict, catalogue: Catalogue | None = None) -> Reply:
    """A verdict as a reply in plain words. No spray is ever put into it: that takes the label and a licensed adviser."""
    entries = catalogue or default()
    agents = [entries.agent(agent) for agent in verdict.agents]
    parts = _parts(tongue, verdict, agents)
    title = tongue.line("Your {crop}: {title}", crop=_crop(case.crop, entries), title=parts.title)
    return Reply(title, parts.answer, _why(tongue, verdict, agents, entries), parts.do, parts.watch, tongue.line(CAUTION))


def _why(tongue: Tongue, verdict: Verdict, agents: list[Agent], catalogue: Catalogue) -> tuple[str, ...]:
    """The signs that speak for it, in the catalogue's own sentences, the proving ones first."""
    proving, fitting = [], []
    for reason in verdict.speaks_for:
        if reason.sign not in catalogue.signs:
            continue
        sentence = catalogue.signs[reason.sign].sentence
        if any(agent.shows[reason.sign].confirms for agent in agents if reason.sign in agent.shows):
            proving.append(tongue.line("{sign} Nothing else leaves that.", sign=sentence))
        else:
            fitting.append(sentence)
    return tuple(dict.fromkeys(proving + fitting))


def _acts(agent: Agent) -> list[str]:
    """What a layman may do without a sprayer, in the order of the catalogue."""
    return [f"{control.do.rstrip('.')}. {control.timing}" for control in agent.controls if control.unsprayed][:3]


def _parts(tongue: Tongue, verdict: Verdict, agents: list[Agent]) -> _Parts:
    names = tongue.formats.both([agent.in_sentence for agent in agents])
    if not agents or verdict.kind in (VerdictKind.NEEDS_A_LOOK, VerdictKind.CANNOT_TELL):
        unsettled = (
            "What you told us does not settle the cause. It may be {names}, but nothing seen so far is left by that alone."
            if agents
            else "What you told us does not settle the cause."
        )
        return _Parts(tongue.line("not certain yet"), tongue.line(unsettled, names=names), tuple(map(tongue.line, BAG)))
    first = agents[0]
    facts = {"names": names, "agent": first.in_sentence, "summary": first.summary}
    if verdict.kind == VerdictKind.MUST_BE_REPORTED:
        answer = tongue.line("It may be the {agent}. {summary}", **facts)
        return _Parts(tongue.line("please report this"), answer, tuple(map(tongue.line, REPORT)))
    if verdict.kind in (VerdictKind.HELP_HAS_COME, VerdictKind.NORMAL):
        wrong = (tongue.line("Often said, and wrong: {said}", said=_inside(first.said_wrongly)),) if first.said_wrongly else ()
        leave = tongue.line("Leave it alone. {when}", when=first.leave_when.removeprefix("Always. "))
        return _Parts(tongue.line("nothing to treat"), tongue.line("The cause: {names}. {summary}", **facts), (leave,), wrong)
    if verdict.activity in OVER:
        return _Parts(first.in_sentence, tongue.line(OVER[verdict.activity], **facts), (tongue.line("Treat nothing now."),))
    success = (tongue.line("It worked if: {success}", success=agent.controls[0].success) for agent in agents if agent.controls)
    acts = tuple(act for agent in agents for act in _acts(agent))
    return _Parts(names, tongue.line("The cause: {names}. {summary}", **facts), acts, tuple(dict.fromkeys(success)))
