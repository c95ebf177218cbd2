"""Measure: a picture tells a unit of a count."""

import uuid
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, g, render_template, request
from werkzeug.wrappers import Response

from bootmark import say
from bootmark.core.meanings import AgentKind, Gate, Pictured
from bootmark.core.photo.sheet import OF
from bootmark.say.photo import REFUSED
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import pictured
from bootmark.services.scouting.pictured import Said
from bootmark.web import at_stop
from bootmark.web.guard import db, member, on_farm

COUNTED = (Pictured.PAPER, Pictured.CARD)
blueprint = Blueprint("measure", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/measure")
@on_farm
def newest() -> str | Response:
    return at_stop.newest("measure")


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
        gate=last.gate if last and last.gate else _gate(agent),
        may=member().role in SCOUTS,
    )


def _gate(agent: Any) -> Gate:
    return Gate.MITES if agent is None or agent.kind == AgentKind.MITE else Gate.THRIPS


@dataclass(frozen=True)
class Mark:
    """A thing on a picture. x, y: points; r: how large its ring is; lit: it moved, or came since."""

    x: float
    y: float
    r: float
    lit: bool


@dataclass(frozen=True)
class Shown:
    """A picture with what it says. number: for the count, None where a person names examples first; headline: in words."""

    said: Said
    marks: list[Mark]
    number: int | None
    headline: str
    second: str


def _shown(said: Said) -> Shown:
    if said.why:
        return Shown(said, [], None, say.line(REFUSED[said.why]), "")
    told = said.told
    lit = told.get("moved") or told.get("came") or [False] * told["count"]
    marks = [Mark(x * said.width, y * said.height, said.width / 90, bool(on)) for (x, y), on in zip(told["seen"], lit, strict=True)]
    headline, number, second = _paper(told) if said.asked.of == Pictured.PAPER else _card(told)
    return Shown(said, marks, number, headline, second)


def _paper(told: dict[str, Any]) -> tuple[str, int, str]:
    larger = say.many("{of} larger thing was left out.", "{of} larger things were left out.", told["larger"]) if told["larger"] else ""
    if told["moving"] is None:
        words = say.many("{of} speck", "{of} specks", told["count"])
        hint = say.line("One picture can't tell animals from dirt: take the second three seconds later.")
        return words, told["count"], " ".join(filter(None, (hint, larger)))
    moving = say.many("{of} moved", "{of} moved", told["moving"])
    still = say.many("{of} speck stayed where it was.", "{of} specks stayed where they were.", max(told["count"] - told["moving"], 0))
    return moving, told["moving"], " ".join(filter(None, (still, larger)))


def _card(told: dict[str, Any]) -> tuple[str, int | None, str]:
    words = say.many("{of} thing sits on it", "{of} things sit on it", told["count"])
    if told["came"] is None:
        return words, None, say.line("Tap one or more of what you count: those of the same size are marked.")
    text = "{of} came since the last picture of a card here: lit."
    new = say.many(text, text, sum(told["came"]))
    return words, None, new
