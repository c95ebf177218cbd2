"""Error pages: what happened, and where to go."""

import logging

from flask import Flask, g, render_template, request
from flask_login import current_user
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import HTTPException
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.services.base.command import Forbidden, Refused
from bootmark.services.base.work import DatabaseAway, NotHere
from bootmark.web import guard, held

log = logging.getLogger("bootmark.error")

SAID = {
    400: ("That request could not be read", "Go back and try again."),
    403: ("This is not for your role", "Ask the farm's owner."),
    404: ("There is nothing here", "The address may be mistyped, or the record belongs to another farm."),
    405: ("That can't be done this way", "Use the buttons on the page."),
    413: ("That file is too large", "32 MB is the most: split it or take a smaller one."),
    429: ("Too much at once", "Wait a minute, then try again."),
}


OPEN = frozenset({"sign_in.enter", "begin.enter", "join.enter", "join.reset", "join.ask_for_reset"})
"""Forms of whoever is not signed in: what they hold is typed anew."""
FAILED = "Nothing was stored. Try again; if it fails again, tell the owner this number: {number}."
OTHER = ("Something went wrong", "Go back and try again.")


def _page(status: int, title: str, text: str) -> tuple[str, int]:
    # The transaction is gone, and what was read in it with it.
    farm = g.pop("farm", None)
    back = (request.view_args or {}).get("farm") if farm is not None else None
    return render_template("error.html", title=title, text=text, status=status, back=back), status


def init(app: Flask) -> None:
    @app.errorhandler(CSRFError)
    def stale(_error: CSRFError) -> AnyResponse | tuple[str, int]:
        form = held.of_request()
        if form and held.is_from_here() and not current_user.is_authenticated and request.endpoint not in OPEN:
            return guard.sign_in_over(form)
        return _page(
            400, say.line("This page has grown old"), say.line("Go back, load it again, and send it once more. Nothing was stored.")
        )

    @app.errorhandler(Refused)
    def refused(error: Refused) -> tuple[str, int]:
        forbidden = isinstance(error, Forbidden)
        return _page(
            403 if forbidden else 400,
            say.line("This is not for your role") if forbidden else say.line("That can't be stored"),
            " ".join(error.errors.values()),
        )

    @app.errorhandler(DatabaseAway)
    def away(error: DatabaseAway) -> tuple[str, int, dict[str, str]]:
        log.warning({"id": g.get("request_id"), "said": "the database does not answer"}, exc_info=error.__cause__ or error)
        title = say.line("The disk is full") if error.no_room else say.line("The database does not answer")
        return *_page(503, title, say.line("Nothing was stored. Wait a moment, then send it again.")), {"Retry-After": "3"}

    @app.errorhandler(NotHere)
    def not_here(_error: NotHere) -> tuple[str, int]:
        return _page(404, *map(say.line, SAID[404]))

    @app.errorhandler(HTTPException)
    def http_error(error: HTTPException) -> tuple[str, int]:
        status = error.code or 500
        title, text = SAID.get(status, OTHER)
        return _page(status, say.line(title), say.line(text))

    @app.errorhandler(Exception)
    def unknown(error: Exception) -> tuple[str, int]:
        log.error({"id": g.get("request_id"), "said": "a request failed"}, exc_info=error)
        return _page(
            500,
            say.line("Bootmark failed at this"),
            say.line(FAILED, number=g.get("request_id", "")),
        )
