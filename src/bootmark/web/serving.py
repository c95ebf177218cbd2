"""How gunicorn serves: each worker makes its first pages ready before it takes a request."""

from typing import Any

from bootmark.web.warm import warm


def post_worker_init(worker: Any) -> None:
    warm(worker.app.wsgi())
