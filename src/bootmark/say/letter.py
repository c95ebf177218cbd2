"""What goes back to someone who asked from afar: the one look to take, or an answer that a layman understands."""

from collections.abc import Sequence
from dataclasses import dataclass

from bootmark.core.catalogue import Catalogue, default
from bootmark.core.catalogue.model import Agent
from bootmark.core.meanings import Activity, VerdictKind
from bootmark.core.messages import Message, Says
from bootmark.core.types import ACTING, Decision, NextLook, Verdict
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
NOT_SETTLED = "What you told us does not settle the cause."
UNSETTLED = {
    VerdictKind.NEEDS_A_LOOK: "What you told us does not settle the cause. It may be {names}, but nothing seen so far proves it.",
    VerdictKind.CANNOT_TELL: "What you told us does not settle the cause. It may be {names}, but nothing seen so far proves it.",
    VerdictKind.NO_CAUSE_KNOWN: "No cause that we know fits what you told us.",
}
BAG = ("Put a few leaves or a shoot into a paper bag, write place and day on it, and bring or send it.", "Do not treat it yet.")
REPORT = ("Photograph it.", "Leave it where it is: do not move, post or treat it.", "Tell the plant health authority today.")


MOST_ACTS = 3


@dataclass(frozen=True)
class Reply:
    """A reply's parts, in the order in which they are read. danger: what may hurt somebody, before all else."""

    title: str
    danger: tuple[str, ...]
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


MINE = frozenset({"my", "our", "the", "a", "an", "some", "this", "these"})
"""What stands before the plant in a sender's words and not in a letter to them."""


def plant_name(crop: str, catalogue: Catalogue) -> str:
    """A plant as a letter calls it: the sender's own word, or a crop's name where its id is all that is known."""
    if crop in catalogue.crops:
        return catalogue.crops[crop].name.lower()
    words = crop.split()
    return " ".join(words[1:] if len(words) > 1 and words[0].lower() in MINE else words)


def _inside(text: str) -> str:
    return text[0].lower() + text[1:]


def ask(tongue: Tongue, look: NextLook, crop: str, catalogue: Catalogue | None = None, dangers: Sequence[Message] = ()) -> str:
    """One request, ready to send: what may hurt, what to do, what to tell, what picture helps."""
    entries = catalogue or default()
    what = entries.looks[look.look]
    signs = "; ".join(_inside(entries.signs[sign].sentence.rstrip(".")) for sign in look.signs)
    parts = [
        tongue.line("Thank you for asking about your {crop}. One look would tell us most.", crop=plant_name(crop, entries)),
        *tongue.all(dangers, entries),
        what.do if what.do.endswith((".", "?")) else f"{what.do}.",
        *(tongue.line(AT_HAND[tool]) for tool in what.tools if tool in AT_HAND),
        tongue.line("Do you see this, yes or no: {signs}?", signs=signs)
        if len(look.signs) == 1
        else tongue.line("Which of these do you see, and which are not there: {signs}?", signs=signs),
        tongue.line("A sharp photograph of that spot, with a coin beside it, helps. Please treat nothing until we have answered."),
    ]
    return " ".join(parts)


def answer(tongue: Tongue, crop: str, verdict: Verdict, decisions: Sequence[Decision], catalogue: Catalogue | None = None) -> Reply:
    """A verdict and its calls as a reply in plain words. No spray is ever put into it: that takes the label and a licensed adviser."""
    entries = catalogue or default()
    agents = [entries.agent(agent) for agent in verdict.agents]
    parts = _parts(tongue, verdict, agents, decisions, entries)
    title = tongue.line("Your {crop}: {title}", crop=plant_name(crop, entries), title=parts.title)
    danger = tuple(tongue.all(verdict.dangers, entries))
    return Reply(title, danger, parts.answer, _why(tongue, verdict, agents, entries), parts.do, parts.watch, tongue.line(CAUTION))


def text(reply: Reply) -> str:
    """A reply as plain text."""
    return "\n".join([reply.title, *reply.danger, reply.answer, *reply.why, *reply.do, *reply.watch, reply.caution])


def _why(tongue: Tongue, verdict: Verdict, agents: list[Agent], catalogue: Catalogue) -> tuple[str, ...]:
    """The signs that speak for it, in the catalogue's own sentences, the proving ones first."""
    proving: list[str] = []
    fitting: list[str] = []
    for reason in verdict.speaks_for:
        if reason.sign not in catalogue.signs:
            continue
        sentence = catalogue.signs[reason.sign].sentence
        proves = any(agent.shows[reason.sign].confirms for agent in agents if reason.sign in agent.shows)
        (proving if proves else fitting).append(sentence)
    proofs = [tongue.line("{sign} That is proof.", sign=sentence) for sentence in proving]
    return tuple(dict.fromkeys([*proofs, *fitting]))


def _acts(agent: Agent, decision: Decision) -> list[str]:
    """What a layman may do without a sprayer, in the call's own order, as far as it fits now."""
    controls = [agent.control(choice.control) for choice in decision.choices if choice.offered]
    return [f"{control.name}. {control.do.rstrip('.')}. {control.timing}" for control in controls if control.unsprayed][:MOST_ACTS]


def _parts(tongue: Tongue, verdict: Verdict, agents: list[Agent], decisions: Sequence[Decision], catalogue: Catalogue) -> _Parts:
    names = tongue.formats.both([agent.in_sentence for agent in agents])
    if verdict.kind in UNSETTLED or not agents:
        return _Parts(
            tongue.line("not certain yet"),
            tongue.line(UNSETTLED[verdict.kind] if agents or verdict.kind == VerdictKind.NO_CAUSE_KNOWN else NOT_SETTLED, names=names),
            _bag(tongue),
        )
    first = agents[0]
    facts = {"names": names, "agent": first.in_sentence, "summary": first.summary}
    if verdict.kind == VerdictKind.MUST_BE_REPORTED:
        answer = tongue.line("It may be {agent}. {summary}", **facts)
        return _Parts(tongue.line("please report this"), answer, tuple(map(tongue.line, REPORT)), _again(tongue, decisions, catalogue))
    if verdict.kind == VerdictKind.SEND_A_SAMPLE:
        answer = tongue.line("It may be {names}, which only a clinic can prove. {summary}", **facts)
        do = (first.sample, tongue.line("Keep the plant apart and pull or treat nothing until they have answered."))
        return _Parts(tongue.line("please send a sample"), answer, do, _again(tongue, decisions, catalogue))
    if verdict.kind in (VerdictKind.HELP_HAS_COME, VerdictKind.NORMAL):
        wrong = (tongue.line("Often said, and wrong: {said}", said=_inside(first.said_wrongly)),) if first.said_wrongly else ()
        leave = tongue.line("Leave it alone. {when}", when=first.leave_when.removeprefix("Always. "))
        return _Parts(tongue.line("nothing to treat"), tongue.line("The cause: {names}. {summary}", **facts), (leave,), wrong)
    if verdict.activity in OVER:
        return _Parts(first.in_sentence, tongue.line(OVER[verdict.activity], **facts), (tongue.line("Treat nothing now."),))
    acts = [act for agent, decision in zip(agents, decisions, strict=True) for act in _acts(agent, decision)]
    kept = tongue.all([line for line in verdict.advice if line.kind == Says.KIND_HAS_LISTED], catalogue)
    headlines = [tongue.say(decision.headline, catalogue) for decision in decisions if decision.kind not in ACTING or not acts]
    steps = tuple(dict.fromkeys([*kept, *headlines, *acts]))
    return _Parts(names, tongue.line("The cause: {names}. {summary}", **facts), steps, _again(tongue, decisions, catalogue))


def _bag(tongue: Tongue) -> tuple[str, ...]:
    return tuple(map(tongue.line, BAG))


def _again(tongue: Tongue, decisions: Sequence[Decision], catalogue: Catalogue) -> tuple[str, ...]:
    """When to look again, and for what; once for each thing to look for."""
    looks = [
        tongue.many(
            "Look again in {of} day for this: {wanted}.",
            "Look again in {of} days for this: {wanted}.",
            decision.look_again_days,
            wanted=_inside(tongue.say(decision.look_again_for, catalogue).rstrip(".")),
        )
        for decision in decisions
        if decision.look_again_days
    ]
    return tuple(dict.fromkeys(looks))
