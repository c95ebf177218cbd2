"""What a fresh process does before it answers anybody: every main page once, so that nobody's first page waits for it.

Statements, templates and drawings are made ready, and what is kept of the first farms is read in. Nothing is written: each page's
transaction is taken back.
"""

import inspect
import logging
import time
import uuid
from typing import Any

from flask import Flask, g

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.services.base import people, work
from bootmark.services.base.preferences import Preferences
from bootmark.services.base.roles import Role
from bootmark.services.scouting import stops
from bootmark.web.guard import now

MOST_SECONDS = 3.0
MOST_FARMS = 3
PAGES = ("farm.page", "round.page", "stages.page", "timing.page", "do.page", "book.page")
AT_STOP = ("look.page", "count.page", "call.page")
NOBODY = uuid.UUID(int=0)
log = logging.getLogger("bootmark.warm")


def warm(app: Flask) -> None:
    """Show the main pages of the first farms to nobody. A fault here is a page's own, and is met by whoever asks for it."""
    started = time.monotonic()
    try:
        for farm in work.first_farms(MOST_FARMS):
            for endpoint in PAGES:
                _show(app, farm, endpoint)
            for stop in _last_stops(farm):
                for endpoint in AT_STOP:
                    _show(app, farm, endpoint, stop=stop)
            treatment = _next_treatment(app, farm)
            if treatment:
                _show(app, farm, "do.card", treatment=treatment)
            if time.monotonic() - started > MOST_SECONDS:
                break
    except Exception:
        log.warning("the first pages could not be made ready", exc_info=True)


def _show(app: Flask, farm: uuid.UUID, endpoint: str, **words: Any) -> None:
    view: Any = inspect.unwrap(app.view_functions[endpoint])
    with app.test_request_context(f"/f/{farm}/"), work.on_farm(farm) as session:
        g.db, g.farm, g.catalogue, g.request_id = session, work.farm_of(session), default(), ""
        g.member = people.Member(NOBODY, farm, g.farm.name, Role.OWNER, True)
        g.person, g.preferences = people.Person(NOBODY, ""), Preferences()
        say.speak(g.preferences.tongue(say.TONGUES[app.config["LANGUAGE"]], g.farm))
        view(**words)
        session.rollback()


def _last_stops(farm: uuid.UUID) -> list[uuid.UUID]:
    with work.on_farm(farm) as session:
        return stops.newest_of_all(session)


def _next_treatment(app: Flask, farm: uuid.UUID) -> uuid.UUID | None:
    from bootmark.services.treatment import timing

    with app.test_request_context(f"/f/{farm}/"), work.on_farm(farm) as session:
        g.farm = work.farm_of(session)
        planned = timing.planned(session, g.farm, default(), now())
        return planned[0].treatment.id if planned else None
