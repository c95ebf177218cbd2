"""Who is asking, for which farm, and what a page may do: sign-in, the farm's session, headers, request log."""

import dataclasses
import datetime as dt
import functools
import json
import logging
import time
import uuid
from collections.abc import Callable, Collection
from typing import Any, cast

import limits
from flask import Flask, Response, abort, current_app, g, redirect, render_template, request, session, url_for
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter
from werkzeug.wrappers import Response as AnyResponse

from bootmark import say
from bootmark.core.catalogue import default
from bootmark.services.base import farm_time, grown, rates, sign_ins, work
from bootmark.services.base.command import AskFirst, Forbidden
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.base.sign_ins import From, Here
from bootmark.services.base.work import Farm, Session, SignedOut
from bootmark.web import held
from bootmark.web.held import Held

csrf = CSRFProtect()
login = LoginManager()
log = logging.getLogger("bootmark.request")

POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' blob: data:",
        "font-src 'self'",
        "connect-src 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "manifest-src 'self'",
        # Text becomes elements, and an address a script, in one named place each: where it comes from this site itself.
        "require-trusted-types-for 'script'",
        "trusted-types own-pages own-scripts",
    )
)


MINUTE = dt.timedelta(minutes=1)
AT_EVERY_TAP = 100
"""How often a minute only taps are asked for."""


class User(UserMixin):  # type: ignore[misc]
    """A sign-in, as the login library wants it: known by its token."""

    def __init__(self, token: str) -> None:
        self.id = token


@login.user_loader
def load_user(token: str) -> User:
    # Whether the sign-in still lasts is asked with the membership, in one question for each page.
    return User(token)


def token() -> str:
    """The token of the request's sign-in."""
    return cast(str, current_user.id)


def asked_from() -> From:
    """Where the request comes from."""
    return From(request.remote_addr or "", "A phone" if "mobi" in request.user_agent.string.lower() else "A computer")


def sign_in_over(form: Held) -> AnyResponse:
    """The sign-in on top of a form that was sent after the session's end."""
    page = render_template("sign_in.html", email="", errors={}, to="", form={}, held=form.sealed())
    return cast(AnyResponse, Response(page, 401))


@login.unauthorized_handler
def unauthorized() -> AnyResponse:
    if request.path.endswith("/sync") or request.is_json:
        return cast(AnyResponse, Response(json.dumps({"error": "signed out"}), 401, mimetype="application/json"))
    if form := held.of_request():
        return sign_in_over(form)
    return redirect(url_for("sign_in.page", next=request.full_path.rstrip("?")))


def at_most(a_minute: int) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """A view that a person may ask for so often a minute; beyond that the answer is 429.

    For what is expensive: nobody's haste is to take the others' time. All processes count together, but for what is asked at every tap:
    that is counted in each process, since to be counted would cost as much as the answer.
    """

    def limited(view: Callable[..., Any]) -> Callable[..., Any]:
        rate = limits.RateLimitItemPerMinute(a_minute)

        @functools.wraps(view)
        def inside(**words: Any) -> Any:
            key = f"{view.__module__}.{view.__qualname__} {member().account_id}"
            if a_minute > AT_EVERY_TAP:
                within = MovingWindowRateLimiter(current_app.extensions["limits"]).hit(rate, key)
            else:
                with work.nobody() as session:
                    within = rates.hits(session, f"rate:{key}", MINUTE, real_now()) <= a_minute
            if not within:
                abort(429)
            return view(**words)

        return inside

    return limited


def real_now() -> dt.datetime:
    """The one place in the interface that reads the machine's clock."""
    return dt.datetime.now(dt.UTC)


def db() -> Session:
    """The request's one transaction, as its farm."""
    return cast(Session, g.db)


def the_farm() -> Farm:
    return cast(Farm, g.farm)


def member() -> Member:
    return cast(Member, g.member)


def only(roles: Collection[Role]) -> None:
    """Stop whoever has none of the roles. Raises Forbidden."""
    Forbidden.unless(member().role, roles)


def too_soon(seconds: int) -> str:
    return say.many("Too many tries: wait {of} second, then try again.", "Too many tries: wait {of} seconds, then try again.", seconds)


def ask_who() -> None:
    """Where the sign-in is older than an hour, the form's password says who it is. Raises AskFirst where it does not."""
    if member().fresh:
        return
    password = request.form.get("password", "")
    if not password:
        raise AskFirst
    # A transaction of its own: a failed try is counted whatever comes of the form.
    with work.nobody() as session:
        attempt = sign_ins.check(session, g.person.email, password, asked_from(), real_now())
    if attempt.wait:
        raise AskFirst(too_soon(attempt.wait))
    if attempt.person is None:
        raise AskFirst(say.line("That is not your password: type it again."))
    sign_ins.asked(db(), token(), attempt.person, asked_from(), real_now())
    g.member = dataclasses.replace(member(), fresh=True)


def now() -> dt.datetime:
    """The farm's time, in its own zone."""
    return farm_time.now(the_farm(), real_now())


def signed_in(view: Callable[..., Any]) -> Callable[..., Any]:
    """A view for whoever is signed in; it opens its own transactions."""

    @functools.wraps(view)
    def inside(**words: Any) -> Any:
        if not current_user.is_authenticated:
            return unauthorized()
        with work.nobody() as session:
            g.here = sign_ins.of_token(session, token(), real_now())
        return view(**words) if g.here else unauthorized()

    return inside


def here() -> Here:
    """The sign-in and its person, where no farm is asked for."""
    return cast(Here, g.here)


def on_farm(view: Callable[..., Any]) -> Callable[..., Any]:
    """A view of one farm: only its members come in, and all that the view writes is one transaction."""

    @functools.wraps(view)
    def inside(farm: uuid.UUID, **words: Any) -> Any:
        if not current_user.is_authenticated:
            return unauthorized()
        with work.at_work(farm, token(), real_now()) as here:
            g.db, g.member, g.farm, g.person, g.sign_in = here.session, here.member, here.farm, here.person, here.sign_in
            g.preferences = here.preferences
            g.catalogue = default()
            say.speak(here.preferences.tongue(say.tongue(), here.farm))
            grown.turn(here.session, now().date(), g.catalogue)
            answer = view(**words)
            # A page that tells what was wrong with a form has written nothing.
            if getattr(answer, "status_code", 200) >= 400 or (isinstance(answer, tuple) and answer[1] >= 400):
                here.session.rollback()
        return answer

    return inside


def _before() -> None:
    say.speak(say.TONGUES[current_app.config["LANGUAGE"]])
    g.started, g.request_id = time.perf_counter(), uuid.uuid4().hex[:12]


def _done(_error: BaseException | None) -> None:
    # A thread goes on to somebody else's request, or to none: nobody's ways stay behind.
    say.speak(say.TONGUES[current_app.config["LANGUAGE"]])


def _after(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    response.headers["X-Request-Id"] = g.get("request_id", "")
    if current_app.config["SESSION_COOKIE_SECURE"]:
        response.headers["Strict-Transport-Security"] = "max-age=31536000"
    if request.endpoint and not request.endpoint.startswith(("static", "drawing", "script")):
        response.headers.setdefault("Cache-Control", "no-store")
        took = round(1000 * (time.perf_counter() - g.get("started", time.perf_counter())), 1)
        # The route, never the address: an address may hold what is nobody's business.
        route = request.url_rule.rule if request.url_rule else ""
        log.info({"id": g.get("request_id"), "method": request.method, "route": route, "status": response.status_code, "ms": took})
    return response


def init(app: Flask) -> None:
    csrf.init_app(app)
    app.extensions["limits"] = MemoryStorage()
    login.init_app(app)
    # The token alone says who it is: a phone changes its address as it walks.
    login.session_protection = None
    app.before_request(_before)
    app.after_request(_after)
    app.teardown_request(_done)

    @app.errorhandler(SignedOut)
    def signed_out(_error: SignedOut) -> AnyResponse:
        session.clear()
        return cast(AnyResponse, unauthorized())
