"""Drops: what cards say of how a treatment was brought out."""

import uuid

from flask import Blueprint, g, render_template

from bootmark import say
from bootmark.core.meanings import CardPlace, Pictured
from bootmark.core.photo.droplets import by_place, evenness
from bootmark.core.photo.sheet import OF
from bootmark.say.photo import REFUSED
from bootmark.services.base.roles import SCOUTS
from bootmark.services.scouting import pictured
from bootmark.services.treatment import timing
from bootmark.web.guard import db, member, now, on_farm, the_farm

blueprint = Blueprint("droplets", __name__, template_folder=".")


@blueprint.get("/f/<uuid:farm>/droplets/<uuid:treatment>")
@on_farm
def page(treatment: uuid.UUID) -> str:
    planned = timing.of_treatment(db(), the_farm(), g.catalogue, treatment, now())
    cards = pictured.of_treatment(db(), treatment)
    read = [card for card in cards if not card.why]
    last = cards[-1].asked if cards else None
    return render_template(
        "droplets.html",
        planned=planned,
        cards=[(card, say.line(REFUSED[card.why]) if card.why else "") for card in cards],
        sums=by_place([(card.asked.place, card.answer["cover"]) for card in read]),
        mean=sum(card.answer["cover"] for card in read) / max(len(read), 1),
        uneven=evenness([card.answer["cover"] for card in read]),
        sizes=[(str(size), say.term(size)) for size in OF[Pictured.DROPS]],
        size=last.sheet if last else OF[Pictured.DROPS][0],
        places=[(str(place), say.term(place)) for place in CardPlace],
        may=member().role in SCOUTS,
    )
