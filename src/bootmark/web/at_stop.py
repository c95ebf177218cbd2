"""What Look, Count and Call share: the stop they stand at, or the way to one."""

import uuid

from flask import g, redirect, render_template, url_for
from werkzeug.wrappers import Response

from bootmark.services.base import ground
from bootmark.services.base.roles import Role
from bootmark.services.scouting import closed, stops
from bootmark.services.scouting.stops import AtStop
from bootmark.web import forms
from bootmark.web.guard import db, member, now, the_farm


def find(stop: uuid.UUID) -> AtStop:
    """The stop with its records."""
    here = stops.at(db(), stop)
    forms.open_stop(here.stop, *here.worn)
    return here


def newest(screen: str) -> str | Response:
    """Where a lug leads without a stop: to the one opened last today, or to the blocks to choose from."""
    stop = stops.newest(db(), member().account_id, now().date())
    if stop:
        return redirect(url_for(f"{screen}.page", farm=the_farm().id, stop=stop.id))
    blocks = ground.blocks(db())
    return render_template(
        "no_stop.html",
        screen=screen,
        blocks=blocks,
        crops=g.catalogue.crops,
        closed=closed.blocks(db(), g.catalogue, now()),
        may_walk=member().role != Role.VIEWER,
    )
