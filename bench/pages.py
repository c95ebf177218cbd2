"""Median answer time of each main page against a bare Flask page that does one SELECT, on the same kind of server.

Run with ./bootmark bench pages. Prints, for each page, milliseconds and the ratio to the bare page.
"""

import http.cookiejar
import os
import re
import statistics
import subprocess
import sys
import time
import urllib.parse
import urllib.request

from sqlalchemy import create_engine, text

from bootmark.launch.cluster import free_port
from bootmark.standins.estate import FARM, PASSWORD

ROUNDS = 40
BARE = """
import os
from flask import Flask
from sqlalchemy import create_engine, text
app = Flask("bare")
engine = create_engine(os.environ["BOOTMARK_WEB_URL"])
@app.get("/")
def page():
    with engine.connect() as connection:
        return str(connection.execute(text("SELECT 1")).scalar())
"""


def opener(address: str) -> urllib.request.OpenerDirector:
    """A signed-in client."""
    client = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
    page = client.open(f"{address}/sign-in").read().decode()
    token = re.search(r'name="csrf_token" value="([^"]+)"', page)
    assert token
    form = {"csrf_token": token.group(1), "email": "ilva@ferrin.example", "password": PASSWORD, "to": ""}
    client.open(f"{address}/sign-in", urllib.parse.urlencode(form).encode())
    return client


def timed(client: urllib.request.OpenerDirector, address: str) -> float:
    taken = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        client.open(address).read()
        taken.append(1000 * (time.perf_counter() - start))
    return statistics.median(taken)


def pages() -> dict[str, str]:
    """Main pages, at a stop of the demo where they need one."""
    with create_engine(os.environ["BOOTMARK_ADMIN_URL"]).connect() as connection:
        stop = connection.execute(text("SELECT stop_id FROM look ORDER BY seen_at DESC LIMIT 1")).scalar_one()
        counted = connection.execute(text("SELECT stop_id FROM sample ORDER BY seen_at DESC LIMIT 1")).scalar_one()
        treatment = connection.execute(text("SELECT id FROM treatment WHERE state = 'planned' LIMIT 1")).scalar_one()
    return {
        "Round": "round",
        "Look": f"look/{stop}",
        "Count": f"count/{counted}",
        "Call": f"call/{counted}",
        "Stages": "stages",
        "Timing": "timing",
        "Do": "do",
        "Job card": f"do/{treatment}",
        "Book": "book",
        "Farm": "farm",
    }


def main() -> None:
    address = sys.argv[1]
    port = free_port()
    command = [
        sys.executable,
        "-m",
        "gunicorn",
        "--no-control-socket",
        "--bind",
        f"127.0.0.1:{port}",
        "--workers",
        "2",
        "--threads",
        "4",
        "bare:app",
    ]
    folder = f"/tmp/bootmark-bare-{port}"
    os.makedirs(folder)
    with open(f"{folder}/bare.py", "w") as file:
        file.write(BARE)
    bare_server = subprocess.Popen(command, cwd=folder, stderr=subprocess.DEVNULL)
    try:
        bare_client = urllib.request.build_opener()
        for _ in range(100):
            try:
                bare_client.open(f"http://127.0.0.1:{port}/").read()
                break
            except OSError:
                time.sleep(0.1)
        client = opener(address)
        wanted = pages()
        # Both workers of either server are warmed before anything is measured.
        for path in wanted.values():
            for _ in range(6):
                client.open(f"{address}/f/{FARM}/{path}").read()
        bare = timed(bare_client, f"http://127.0.0.1:{port}/")
        print(f"{'bare page, one SELECT':24} {bare:7.1f} ms")
        for name, path in wanted.items():
            median = timed(client, f"{address}/f/{FARM}/{path}")
            print(f"{name:24} {median:7.1f} ms  {median / bare:6.1f} times the bare page")
    finally:
        bare_server.terminate()
        bare_server.wait()


if __name__ == "__main__":
    main()
