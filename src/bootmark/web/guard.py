"""Who is asking, for which farm, and what a page may do: sign-in, the farm's session, headers, request log."""

import datetime as dt
import functools
import json
import logging
import time
import uuid
from collections.abc import Callable, Collection
from typing import Any, cast

from flask import Flask, Response, g, redirect, request, session, url_for
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect
from werkzeug.wrappers import Response as AnyResponse

from bootmark.core.catalogue import default
from bootmark.services.base import farm_time, work
from bootmark.services.base.command import Forbidden
from bootmark.services.base.people import Member
from bootmark.services.base.roles import Role
from bootmark.services.base.work import Farm, Session

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
    )
)


class User(UserMixin):  # type: ignore[misc]
    """The signed-in account, as the login library wants it."""

    def __init__(self, account_id: str) -> None:
        self.id = account_id


@login.user_loader
def load_user(account_id: str) -> User:
    # Whether the account is still there is asked with its membership, in one question for each page.
    return User(account_id)


@login.unauthorized_handler
def unauthorized() -> AnyResponse:
    if request.path.endswith("/sync") or request.is_json:
        return cast(AnyResponse, Response(json.dumps({"error": "signed out"}), 401, mimetype="application/json"))
    return redirect(url_for("sign_in.page", next=request.full_path.rstrip("?")))


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


def now() -> dt.datetime:
    """The farm's time, in its own zone."""
    return farm_time.now(the_farm(), real_now())


def signed_in(view: Callable[..., Any]) -> Callable[..., Any]:
    """A view for whoever is signed in; it opens its own transactions."""

    @functools.wraps(view)
    def inside(**words: Any) -> Any:
        return view(**words) if current_user.is_authenticated else unauthorized()

    return inside


def on_farm(view: Callable[..., Any]) -> Callable[..., Any]:
    """A view of one farm: only its members come in, and all that the view writes is one transaction."""

    @functools.wraps(view)
    def inside(farm: uuid.UUID, **words: Any) -> Any:
        if not current_user.is_authenticated:
            return unauthorized()
        account = uuid.UUID(current_user.id)
        with work.at_work(farm, account) as here:
            g.db, g.member, g.farm, g.person = here.session, here.member, here.farm, here.person
            g.known = default()
            answer = view(**words)
            # A page that tells what was wrong with a form has written nothing.
            if getattr(answer, "status_code", 200) >= 400 or (isinstance(answer, tuple) and answer[1] >= 400):
                here.session.rollback()
        return answer

    return inside


def _before() -> None:
    g.started, g.request_id = time.perf_counter(), uuid.uuid4().hex[:12]


def _after(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    response.headers["X-Request-Id"] = g.get("request_id", "")
    if request.endpoint and not request.endpoint.startswith(("static", "drawing")):
        response.headers.setdefault("Cache-Control", "no-store")
        took = round(1000 * (time.perf_counter() - g.get("started", time.perf_counter())), 1)
        line = {"id": g.get("request_id"), "method": request.method, "path": request.path, "status": response.status_code, "ms": took}
        log.info(json.dumps(line))
    return response


def init(app: Flask) -> None:
    csrf.init_app(app)
    login.init_app(app)
    login.session_protection = "basic"
    app.before_request(_before)
    app.after_request(_after)

    @app.before_request
    def lasting() -> None:
        session.permanent = True

    @app.get("/healthz")
    def healthz() -> tuple[str, int]:
        work.database_answers()
        return "ok\n", 200
