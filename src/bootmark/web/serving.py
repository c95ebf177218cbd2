"""One web process: python -m bootmark.web.serving DESCRIPTOR [MODULE:APPLICATION], on a socket that is open already.

A request is read whole before a thread takes it, so that a slow sender holds neither a thread nor a transaction. Each process shows its
first pages to nobody before it takes a request, and ends in good order: what is being answered is answered.
"""

import os
import resource
import signal
import socket
import sys
import time
from importlib import import_module
from typing import Any

from waitress import wasyncore
from waitress.server import create_server

from bootmark import logs
from bootmark.web.app import MOST_BYTES
from bootmark.web.warm import warm

THREADS = 4
MOST_CONNECTIONS = 2000
IDLE_SECONDS = 60
MOST_HEAD_BYTES = 65_536
END_SECONDS = 6.0
"""For what is being answered when the process is told to end."""


def server_on(descriptor: int, application: Any) -> Any:
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (max(soft, min(hard, 2 * MOST_CONNECTIONS)), hard))
    return create_server(
        application,
        sockets=[socket.socket(fileno=descriptor)],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_SECONDS,
        max_request_header_size=MOST_HEAD_BYTES,
        # A little more than the application takes, so that its own sentence is read.
        max_request_body_size=MOST_BYTES + 1_000_000,
        asyncore_use_poll=True,
        ident=None,
        # The application itself believes them, and only behind a proxy that speaks TLS.
        clear_untrusted_proxy_headers=os.environ.get("BOOTMARK_TLS") != "1",
    )


def serve(server: Any) -> None:
    """Answer until SIGTERM or SIGINT; then finish what is being answered."""
    signals: list[int] = []
    for number in (signal.SIGTERM, signal.SIGINT):
        signal.signal(number, lambda which, _frame: signals.append(which))
    while not signals:
        wasyncore.loop(timeout=0.5, use_poll=True, map=server._map, count=1)
    server.del_channel()
    limit = time.monotonic() + END_SECONDS
    while time.monotonic() < limit and any(each.requests or each.total_outbufs_len for each in server.active_channels.values()):
        wasyncore.loop(timeout=0.05, use_poll=True, map=server._map, count=1)
    server.task_dispatcher.shutdown(timeout=1)


def main(words: list[str]) -> None:
    logs.to_standard_error()
    module, _, name = (words[1] if len(words) > 1 else "bootmark.web.wsgi:app").partition(":")
    application = getattr(import_module(module), name)
    if hasattr(application, "jinja_env") and "round.page" in application.view_functions:
        warm(application)
    serve(server_on(int(words[0]), application))


if __name__ == "__main__":
    main(sys.argv[1:])
