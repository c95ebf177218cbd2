"""A form that was sent after the session's end is held: whoever signs in on top of it sends it on.

What is held travels in the page, signed, so that nobody else can put words into it; it goes on by a press, under the new sign-in.
"""

from dataclasses import dataclass

from flask import current_app, request
from itsdangerous import BadData, URLSafeTimedSerializer

LEFT_OUT = frozenset({"csrf_token", "password", "fresh"})
"""What is never held: it is typed again, or made anew."""
LASTS = 12 * 3600


@dataclass(frozen=True)
class Held:
    """Where a form goes and what it holds."""

    path: str
    fields: tuple[tuple[str, str], ...]

    def sealed(self) -> str:
        return str(_sealer().dumps([self.path, self.fields]))


def _sealer() -> URLSafeTimedSerializer:
    return URLSafeTimedSerializer(current_app.config["SECRET_KEY"], salt="held form")


def of_request() -> Held | None:
    """The form that the request brings; None where it brings none, or a file, which can't be held."""
    if request.method != "POST" or not request.form or request.is_json or any(file.filename for file in request.files.values()):
        return None
    fields = tuple((name, value) for name, value in request.form.items(multi=True) if name not in LEFT_OUT)
    return Held(request.path, fields) if fields else None


def is_from_here() -> bool:
    """Whether the browser says that a page of ours sent the request."""
    return request.headers.get("Origin") == request.host_url.rstrip("/")


def opened(sealed: str) -> Held | None:
    """What was sealed here; None where it was not, or long ago."""
    try:
        path, fields = _sealer().loads(sealed, max_age=LASTS)
    except BadData:
        return None
    return Held(path, tuple((name, value) for name, value in fields))
