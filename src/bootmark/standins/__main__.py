"""The stand-in weather station and forecast server: python -m bootmark.standins PORT."""

import datetime as dt
import json
import sys
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs, urlsplit

from bootmark.standins import sky
from bootmark.standins.estate import SITES

LONGEST = dt.timedelta(days=60)


class Station(BaseHTTPRequestHandler):
    """GET /readings?station&since&until and /forecast?station&at, both JSON."""

    def do_GET(self) -> None:
        address = urlsplit(self.path)
        words = {name: values[0] for name, values in parse_qs(address.query).items()}
        try:
            site = SITES.get(words.get("station", ""), {})
            if address.path == "/readings":
                since, until = dt.datetime.fromisoformat(words["since"]), dt.datetime.fromisoformat(words["until"])
                hours = sky.hours(max(since, until - LONGEST), until, **site)
                self.answer(200, {"hours": [hour.as_json() for hour in hours]})
            elif address.path == "/forecast":
                at = dt.datetime.fromisoformat(words["at"])
                ahead = sky.forecast(at, **site)
                self.answer(200, {"issued_at": ahead[0].at.isoformat(), "hours": [hour.as_json() for hour in ahead]})
            else:
                self.answer(404, {"error": "ask for /readings or /forecast"})
        except (KeyError, ValueError) as error:
            self.answer(400, {"error": f"since, until and at are times with their zone: {error}"})

    def answer(self, status: int, content: dict[str, object]) -> None:
        body = json.dumps(content).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, format: str, *args: object) -> None:
        """Quiet: the supervisor keeps logs for what goes wrong only."""


def serve(port: int) -> ThreadingHTTPServer:
    return ThreadingHTTPServer(("127.0.0.1", port), Station)


if __name__ == "__main__":
    serve(int(sys.argv[1])).serve_forever()
