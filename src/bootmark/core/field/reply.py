"""What goes back to someone who asked from afar: the one look to take, or an answer that a layman understands."""

from dataclasses import dataclass

from bootmark.core.catalogue.model import Agent, Catalogue
from bootmark.core.meanings import VerdictKind
from bootmark.core.types import Case, NextLook, Verdict

AT_HAND = {
    "hand lens": "A phone's camera zoomed in on the spot does if you have no lens.",
    "strong lens": "You will not see it with the bare eye: rather bag some leaves and send them.",
    "white paper": "Any sheet of white paper does.",
    "knife": "Cut away from your hand.",
    "spade": "",
    "torch": "",
}


@dataclass(frozen=True)
class Reply:
    """A reply's parts, in the order in which they are read."""

    title: str
    answer: str
    why: tuple[str, ...]
    do: tuple[str, ...]
    watch: tuple[str, ...]
    caution: str


def ask(look: NextLook, catalogue: Catalogue, crop: str) -> str:
    """One request, ready to send: what to do, what to tell, what picture helps."""
    what = catalogue.looks[look.look]
    signs = [catalogue.signs[sign] for sign in look.signs]
    told = "; ".join(sign.sentence.rstrip(".")[0].lower() + sign.sentence.rstrip(".")[1:] for sign in signs)
    tools = " ".join(hint for tool in what.tools if (hint := AT_HAND.get(tool, "")))
    name = catalogue.crops[crop].name.lower() if crop in catalogue.crops else crop
    question = "Do you see this, yes or no" if len(signs) == 1 else "Which of these do you see, and which are not there"
    parts = [
        f"Thank you for asking about your {name}. One look would tell us most.",
        what.do if what.do.endswith(".") else f"{what.do}.",
        tools,
        f"{question}: {told}?",
        "A sharp photograph of that spot, with a coin beside it, helps. Please treat nothing until we have answered.",
    ]
    return " ".join(part for part in parts if part)


def _names(agents: list[Agent]) -> str:
    return " and ".join(agent.in_sentence for agent in agents)


def _acts(agent: Agent) -> list[str]:
    """What a layman may do without a sprayer, in the order of the catalogue."""
    return [f"{control.do.rstrip('.')}. {control.timing}" for control in agent.controls if control.unsprayed][:3]


CAUTION = "We name what you told us of and have not seen the plant itself. The label and local rules come before this letter."
OVER = {
    "finished": "The attack is over: what you see is old damage.",
    "dead": "Nothing alive was found.",
    "parasitised": "It carries parasites that will kill it.",
}
BAG = ("Put a few leaves or a shoot into a paper bag, write place and day on it, and bring or send it.", "Do not treat it yet.")
REPORT = ("Photograph it.", "Leave it where it is: do not move, post or treat it.", "Tell the plant health authority today.")


def answer(case: Case, verdict: Verdict, catalogue: Catalogue) -> Reply:
    """A verdict as a reply in plain words. No spray is ever put into it: that takes the label and a licensed adviser."""
    agents = [catalogue.agent(agent) for agent in verdict.agents]
    crop = catalogue.crops[case.crop].name.lower() if case.crop in catalogue.crops else case.crop
    title, text, do, watch = _parts(verdict, agents)
    return Reply(f"Your {crop}: {title}", text, _why(verdict, agents, catalogue), do, watch, CAUTION)


def _why(verdict: Verdict, agents: list[Agent], catalogue: Catalogue) -> tuple[str, ...]:
    """The signs that speak for it, in the catalogue's own sentences, the proving ones first."""
    found = []
    for reason in verdict.speaks_for:
        if reason.sign in catalogue.signs:
            proves = any(agent.shows[reason.sign].confirms for agent in agents if reason.sign in agent.shows)
            found.append((not proves, catalogue.signs[reason.sign].sentence + (" Nothing else leaves that." if proves else "")))
    return tuple(dict.fromkeys(text for _, text in sorted(found, key=lambda one: one[0])))


def _parts(verdict: Verdict, agents: list[Agent]) -> tuple[str, str, tuple[str, ...], tuple[str, ...]]:
    """Title, answer, what to do, and what to watch for."""
    if not agents or verdict.kind in (VerdictKind.NEEDS_A_LOOK, VerdictKind.CANNOT_TELL):
        likely = f" It may be {_names(agents)}, but nothing seen so far is left by that alone." if agents else ""
        return "not certain yet", f"What you told us does not settle the cause.{likely}", BAG, ()
    first, names = agents[0], _names(agents)
    wrong = (f"Often said, and wrong: {first.said_wrongly[0].lower()}{first.said_wrongly[1:]}",) if first.said_wrongly else ()
    if verdict.kind == VerdictKind.MUST_BE_REPORTED:
        return "please report this", f"It may be the {first.in_sentence}. {first.summary}", REPORT, ()
    if verdict.kind in (VerdictKind.HELP_HAS_COME, VerdictKind.NORMAL):
        return (
            "nothing to treat",
            f"The cause: {names}. {first.summary}",
            (f"Leave it alone. {first.leave_when.removeprefix('Always. ')}",),
            wrong,
        )
    if verdict.activity in OVER:
        return first.in_sentence, f"{OVER[verdict.activity]} It was {names}. {first.summary}", ("Treat nothing now.",), ()
    success = tuple(dict.fromkeys(f"It worked if: {agent.controls[0].success}" for agent in agents if agent.controls))
    return names, f"The cause: {names}. {first.summary}", tuple(act for agent in agents for act in _acts(agent)), success
