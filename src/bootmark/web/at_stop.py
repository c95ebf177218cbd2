"""What Look, Count and Call share: the stop they stand at, or the way to one."""

import uuid

from flask import abort, g, redirect, render_template, url_for
from werkzeug.wrappers import Response

from bootmark.services import rounds, stops
from bootmark.services.stops import AtStop
from bootmark.web import forms
from bootmark.web.guard import db, member, now, the_farm


def find(stop: uuid.UUID) -> AtStop:
    """The stop with its records; an answer of 404 where it is not this farm's."""
    found = stops.at(db(), the_farm(), stop)
    if found is None:
        abort(404)
    forms.open_stop(found.stop, *found.worn)
    return found


def newest(screen: str) -> str | Response:
    """Where a lug leads without a stop: to the one opened last today, or to the blocks to choose from."""
    stop = stops.newest(db(), the_farm(), member().account_id, now().date())
    if stop:
        return redirect(url_for(f"{screen}.page", farm=the_farm().id, stop=stop.id))
    blocks = rounds.blocks_of(db(), the_farm())
    return render_template("no_stop.html", screen=screen, blocks=blocks, crops=g.known.crops, may_walk=member().role != "viewer")
