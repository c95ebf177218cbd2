"""The application factory."""

import logging
import os
from typing import Any

from flask import Flask
from flask.json.provider import DefaultJSONProvider
from werkzeug.middleware.proxy_fix import ProxyFix

from bootmark import say
from bootmark.services.base.sign_ins import PHONE
from bootmark.web import errors, guard, words
from bootmark.web.again import route as again
from bootmark.web.begin import route as begin
from bootmark.web.book import route as book
from bootmark.web.call import route as call
from bootmark.web.clock import route as clock
from bootmark.web.condition import route as condition
from bootmark.web.count import route as count
from bootmark.web.devices import route as devices
from bootmark.web.do import route as do
from bootmark.web.drawing import route as drawing
from bootmark.web.droplets import route as droplets
from bootmark.web.enquiry import route as enquiry
from bootmark.web.farm import route as farm
from bootmark.web.feature import route as feature
from bootmark.web.guide import route as guide
from bootmark.web.health import route as health
from bootmark.web.join import route as join
from bootmark.web.look import route as look
from bootmark.web.measure import route as measure
from bootmark.web.outlines import route as outlines
from bootmark.web.parts import route as parts
from bootmark.web.people import route as people
from bootmark.web.photo import route as photo
from bootmark.web.picture import route as picture
from bootmark.web.planting import route as planting
from bootmark.web.push import route as push
from bootmark.web.round import route as round_
from bootmark.web.running import route as running
from bootmark.web.script import route as script
from bootmark.web.season import route as season
from bootmark.web.settings import route as settings
from bootmark.web.sign_in import route as sign_in
from bootmark.web.spoken import SpokenEnvironment
from bootmark.web.stages import route as stages
from bootmark.web.station import route as station
from bootmark.web.sync import route as sync
from bootmark.web.threshold import route as threshold
from bootmark.web.timing import route as timing
from bootmark.web.trap import route as trap
from bootmark.web.trust import route as trust

SCREENS = (
    health,
    sign_in,
    begin,
    join,
    trust,
    round_,
    look,
    again,
    condition,
    count,
    measure,
    call,
    stages,
    threshold,
    timing,
    do,
    droplets,
    book,
    guide,
    enquiry,
    farm,
    feature,
    parts,
    planting,
    outlines,
    settings,
    people,
    running,
    station,
    season,
    trap,
    photo,
    picture,
    push,
    clock,
    devices,
    sync,
    drawing,
    script,
)
MOST_BYTES = 32_000_000


class Json(DefaultJSONProvider):
    """JSON as the framework reads it; what is nested too deeply is no JSON, as anything else that can't be read."""

    def loads(self, s: str | bytes, **kwargs: Any) -> Any:
        try:
            return super().loads(s, **kwargs)
        except RecursionError as error:
            raise ValueError("nested too deeply") from error


class Bootmark(Flask):
    """Flask, with templates that speak the page's language."""

    jinja_environment = SpokenEnvironment


def create_app(**own: Any) -> Flask:
    """Bootmark's web application. own: settings that override what the environment says."""
    app = Bootmark("bootmark.web", static_folder="static")
    app.json = Json(app)
    behind_tls = os.environ.get("BOOTMARK_TLS") == "1"
    app.config.update(
        LANGUAGE=say.ENGLISH.language,
        SECRET_KEY=os.environ.get("BOOTMARK_SECRET"),
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=behind_tls,
        # Behind TLS the browser itself sees to it that no other host and no plain page sets it.
        SESSION_COOKIE_NAME="__Host-bootmark" if behind_tls else "bootmark",
        # How long a cookie can be read at all; the sign-in's row says when it ends.
        PERMANENT_SESSION_LIFETIME=PHONE,
        SESSION_REFRESH_EACH_REQUEST=False,
        MAX_CONTENT_LENGTH=MOST_BYTES,
        MAX_FORM_MEMORY_SIZE=2_000_000,
        WTF_CSRF_TIME_LIMIT=None,
        SEND_FILE_MAX_AGE_DEFAULT=30 * 24 * 3600,
    )
    app.config.update(own)
    if not app.config["SECRET_KEY"]:
        raise RuntimeError("BOOTMARK_SECRET is not set")
    if behind_tls:
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1, x_proto=1, x_host=1)  # type: ignore[method-assign]
    logging.getLogger("bootmark").setLevel(logging.INFO)
    guard.init(app)
    words.init(app)
    errors.init(app)
    for screen in SCREENS:
        app.register_blueprint(screen.blueprint)
    return app
