"""A stand-in mail server whose letters are read on a page: python -m bootmark.standins.post_box MAIL_PORT PAGE_PORT."""

import html
import sys
import threading
from collections import deque
from email import message_from_bytes, policy
from email.message import EmailMessage
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

from aiosmtpd.controller import Controller

MOST_LETTERS = 50
"""Of the newest."""
PAGE = '<!doctype html><html lang="en"><meta charset="utf-8"><title>Letters</title><h1>Letters of this demo, the newest first</h1>{letters}'
LETTER = "<h2>{subject}</h2><p>To {to}</p><pre>{body}</pre>"


class PostBox:
    """Takes every letter, and sends none on."""

    def __init__(self) -> None:
        self.letters: deque[EmailMessage] = deque(maxlen=MOST_LETTERS)
        self._lock = threading.Lock()

    async def handle_DATA(self, _server: Any, _session: Any, envelope: Any) -> str:
        letter = message_from_bytes(envelope.content, policy=policy.default)
        with self._lock:
            self.letters.appendleft(letter)
        return "250 taken"

    def page(self) -> str:
        with self._lock:
            letters = list(self.letters)
        written = "".join(LETTER.format(**{name: html.escape(text) for name, text in self._parts(letter).items()}) for letter in letters)
        return PAGE.format(letters=written or "<p>None yet.</p>")

    @staticmethod
    def _parts(letter: EmailMessage) -> dict[str, str]:
        return {"subject": str(letter["Subject"]), "to": str(letter["To"]), "body": letter.get_content()}


def serve(mail_port: int, page_port: int) -> tuple[Controller, ThreadingHTTPServer]:
    """A mail server that runs in a thread of its own, and the page's server, which does not run yet."""
    box = PostBox()

    class Page(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            body = box.page().encode()
            self.send_response(200)
            self.send_header("Content-Type", "text/html; charset=utf-8")
            self.send_header("Content-Length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

        def log_message(self, format: str, *args: object) -> None:
            """Quiet, as the stand-in station is."""

    mail = Controller(box, hostname="127.0.0.1", port=mail_port)
    mail.start()
    return mail, ThreadingHTTPServer(("127.0.0.1", page_port), Page)


if __name__ == "__main__":
    serve(int(sys.argv[1]), int(sys.argv[2]))[1].serve_forever()
