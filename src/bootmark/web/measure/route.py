"""Measure: a picture tells a unit of a count."""

import uuid
from dataclasses import dataclass

from flask import Blueprint, g, render_template, request

from bootmark import say
from bootmark.core.meanings import AgentKind, Gate, Pictured
from bootmark.core.photo import cards
from bootmark.core.photo.sheet import OF
from bootmark.core.photo.specks import gate_for
from bootmark.say.photo import REFUSED
from bootmark.services.base.handling import Json
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import pictured
from bootmark.services.scouting.pictured import Said
from bootmark.web import at_stop
from bootmark.web.guard import db, member, on_farm

COUNTED = (Pictured.PAPER, Pictured.CARD)
blueprint = Blueprint("measure", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/measure/<uuid:stop>")
@on_farm
def page(stop: uuid.UUID) -> str:
    here = at_stop.find(stop)
    of = Pictured(request.args["of"]) if request.args.get("of") in COUNTED else Pictured.PAPER
    agent = g.catalogue.agents.get(request.args.get("agent", ""))
    pictures = pictured.of_stop(db(), stop, of)
    last = pictures[0].asked if pictures else None
    shown = [_shown(row) for row in pictures]
    return render_template(
        "measure.html",
        here=here,
        of=of,
        agent=agent,
        pictures=shown,
        result=shown[0] if shown and not shown[0].said.why else None,
        sizes=[(str(size), say.term(size)) for size in OF[of]],
        size=last.sheet if last else OF[of][1 if of == Pictured.PAPER else 0],
        gates=[(str(gate), say.term(gate)) for gate in Gate],
        gate=last.gate if last and last.gate else gate_for(agent.kind if agent else AgentKind.MITE),
        may=member().role in SCOUTS,
    )


@dataclass(frozen=True)
class Mark:
    """A thing on a picture. x, y: points; r: how large its ring is; lit: it moved, or came since."""

    x: float
    y: float
    r: float
    lit: bool


@dataclass(frozen=True)
class Shown:
    """A picture with what it says. number: for the count, None where a person names examples first; headline: in words; alike: for each
    thing on a card those of its size."""

    said: Said
    marks: list[Mark]
    number: int | None
    headline: str
    second: str
    alike: list[list[int]]


def _shown(said: Said) -> Shown:
    if said.why:
        return Shown(said, [], None, say.line(REFUSED[said.why]), "", [])
    answer = said.answer
    lit = answer.get("moved") or answer.get("came") or [False] * answer["count"]
    marks = [Mark(x * said.width, y * said.height, said.width / 90, bool(on)) for (x, y), on in zip(answer["seen"], lit, strict=True)]
    alike = cards.alike(answer["lengths"], answer["widths"]) if said.asked.of == Pictured.CARD else []
    headline, number, second = _paper(answer) if said.asked.of == Pictured.PAPER else _card(answer)
    return Shown(said, marks, number, headline, second, alike)


def _paper(answer: Json) -> tuple[str, int, str]:
    larger = say.many("{of} larger thing was left out.", "{of} larger things were left out.", answer["larger"]) if answer["larger"] else ""
    if answer["moving"] is None:
        words = say.many("{of} speck", "{of} specks", answer["count"])
        hint = say.line("One picture can't tell animals from dirt: take the second three seconds later.")
        return words, answer["count"], " ".join(filter(None, (hint, larger)))
    moving = say.many("{of} moved", "{of} moved", answer["moving"])
    still = say.many("{of} speck stayed where it was.", "{of} specks stayed where they were.", answer["moved"].count(False))
    return moving, answer["moving"], " ".join(filter(None, (still, larger)))


def _card(answer: Json) -> tuple[str, int | None, str]:
    words = say.many("{of} thing sits on it", "{of} things sit on it", answer["count"])
    if answer["came"] is None:
        return words, None, say.line("Tap one or more of what you count: those of the same size are marked.")
    text = "{of} came since the last picture of a card here: lit."
    new = say.many(text, text, sum(answer["came"]))
    return words, None, new
