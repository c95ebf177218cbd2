"""Answer times of each main page and of a tap, as ratios to a bare page with one SELECT on the same kind of server.

Run with ./bootmark bench pages [WORDS], on a throw-away copy of the demo with one server process a core and nothing else running.
Prints medians: at rest, the first request after another person's write, the first after a restart, and at 100 times the rows.
WORDS: "quick" leaves out restarts and the many rows.
"""

import contextlib
import dataclasses
import http.cookiejar
import itertools
import json
import os
import random
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.parse
import urllib.request
import uuid
from collections.abc import Callable, Iterator, Sequence

from sqlalchemy import create_engine, text

from bootmark.core.catalogue import default
from bootmark.launch import web
from bootmark.launch.cluster import free_port
from bootmark.standins.estate import FARM, PASSWORD, made
from tests import database, sending

ROUNDS, WRITES, RESTARTS, TIMES = 40, 12, 5, 100
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
RECORDS = {
    "stop": "id version_id",
    "look": "id version_id stop_id",
    "finding": "id look_id",
    "sample": "id version_id stop_id",
    "decision": "id version_id look_id sample_id",
    "treatment": "id decision_id",
    "application": "id version_id treatment_id",
    "return_visit": "id decision_id application_id",
    "trap_check": "id version_id",
    "stage_sighting": "id version_id",
}
"""Tables that grow as people work, with the ids that are made anew in a copy."""
MOMENTS = {"seen_at", "started_at", "finished_at"}
DAYS = {"on", "due_on"}
OLD = {"treatment": "state <> 'planned'", "return_visit": "state <> 'booked'"}
"""Copies lie in the past: what is still to be done is not copied."""


@contextlib.contextmanager
def server(application: str, folder: str, path: str) -> Iterator[str]:
    """The usual number of server processes on one socket, up and answering."""
    with web.listening(f"127.0.0.1:{free_port()}") as listener, contextlib.ExitStack() as stack:
        command = web.command(listener.descriptor, application)
        for _ in range(web.process_count()):
            process = subprocess.Popen(
                command, cwd=folder, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, pass_fds=(listener.descriptor,)
            )
            stack.callback(process.wait)
            stack.callback(process.terminate)
        urllib.request.urlopen(f"{listener.address}{path}").read()
        yield listener.address


@contextlib.contextmanager
def bootmark() -> Iterator[str]:
    with server(web.APPLICATION, os.getcwd(), "/livez") as address:
        yield address


@dataclasses.dataclass
class Client:
    """A signed-in person."""

    address: str
    opener: urllib.request.OpenerDirector
    token: str

    @classmethod
    def enter(cls, address: str, jar: http.cookiejar.CookieJar) -> "Client":
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
        page = opener.open(f"{address}/sign-in").read().decode()
        form = {"csrf_token": _token(page, "value"), "email": "ilva@ferrin.example", "password": PASSWORD, "to": f"/f/{FARM}/farm"}
        page = opener.open(f"{address}/sign-in", urllib.parse.urlencode(form).encode()).read().decode()
        return cls(address, opener, _token(page, "content"))

    def get(self, path: str) -> float:
        """Milliseconds of one request."""
        start = time.perf_counter()
        self.opener.open(f"{self.address}{path}").read()
        return 1000 * (time.perf_counter() - start)

    def tap(self, stop: uuid.UUID, seq: int, signs: dict[str, str]) -> float:
        body = json.dumps({"seq": seq, "signs": signs, "tools": None}).encode()
        head = {"Content-Type": "application/json", "X-CSRFToken": self.token}
        request = urllib.request.Request(f"{self.address}/f/{FARM}/look/{stop}/rank", body, head)
        start = time.perf_counter()
        self.opener.open(request).read()
        return 1000 * (time.perf_counter() - start)


def _token(page: str, attribute: str) -> str:
    match = re.search(rf'name="csrf(?:_token)?" {attribute}="([^"]+)"', page)
    assert match
    return match.group(1)


def pages() -> dict[str, str]:
    """Main pages, at a stop of the demo where they need one."""
    with create_engine(os.environ["BOOTMARK_ADMIN_URL"]).connect() as connection:
        stop = connection.execute(text("SELECT stop_id FROM look ORDER BY seen_at DESC LIMIT 1")).scalar_one()
        counted = connection.execute(text("SELECT stop_id FROM sample ORDER BY seen_at DESC LIMIT 1")).scalar_one()
        treatment = connection.execute(text("SELECT id FROM treatment WHERE state = 'planned' LIMIT 1")).scalar_one()
    here = f"/f/{FARM}"
    return {
        "Round": f"{here}/round",
        "Look": f"{here}/look/{stop}",
        "Count": f"{here}/count/{counted}",
        "Call": f"{here}/call/{counted}",
        "Stages": f"{here}/stages",
        "Timing": f"{here}/timing",
        "Do": f"{here}/do",
        "Job card": f"{here}/do/{treatment}",
        "Book": f"{here}/book",
        "Farm": f"{here}/farm",
    }


def cases(count: int) -> list[dict[str, str]]:
    """Taps of scouts: one sign more each time, then another plant. No case comes twice."""
    rng = random.Random(20261125)
    catalogue = default()
    signs = sorted({sign for agent in catalogue.on("raspberry") for sign in agent.shows})
    lines: list[dict[str, str]] = []
    while len(lines) < count:
        plant = rng.sample(signs, 6)
        lines += [{sign: ("seen", "absent")[n % 3 == 2] for n, sign in enumerate(plant[:length])} for length in range(1, 7)]
    return lines[:count]


def another_person_writes(numbers: Iterator[int]) -> None:
    """A scout opens a stop and keeps a look there."""
    number = next(numbers)
    stop = uuid.uuid4()
    sending.send("stop.open", {"block_id": str(made("Tunnel 1")), "where": f"row {number}"}, stop, role="scout")
    sending.send("look.record", {"stop_id": str(stop), "signs": {"stippling": "seen"}}, role="scout")


def many_rows() -> None:
    """Copies of everything that people recorded, each a few days further back."""
    with create_engine(os.environ["BOOTMARK_ADMIN_URL"]).begin() as connection:
        for table, ids in RECORDS.items():
            columns = connection.execute(
                text("SELECT column_name FROM information_schema.columns WHERE table_schema = 'public' AND table_name = :t"), {"t": table}
            ).scalars()
            made = {name: _copied(name, ids.split()) for name in columns}
            listed = ", ".join(f'"{name}"' for name in made)
            where = f"WHERE {OLD[table]}" if table in OLD else ""
            rows = f"SELECT {', '.join(made.values())} FROM {table}, generate_series(1, {TIMES - 1}) n {where} ON CONFLICT DO NOTHING"
            connection.execute(text(f"INSERT INTO {table} ({listed}) {rows}"))
    # As the database's own tidying would have done by the time when there are so many.
    with create_engine(os.environ["BOOTMARK_ADMIN_URL"], isolation_level="AUTOCOMMIT").connect() as connection:
        connection.execute(text("VACUUM ANALYZE"))


def _copied(name: str, ids: list[str]) -> str:
    if name in ids:
        return f"CASE WHEN {table_column(name)} IS NULL THEN NULL ELSE md5({table_column(name)}::text || n)::uuid END"
    if name in MOMENTS:
        return f"{table_column(name)} - n * interval '3 days'"
    return f"{table_column(name)} - 3 * n" if name in DAYS else table_column(name)


def table_column(name: str) -> str:
    return f'"{name}"'


def median(times: Sequence[float]) -> float:
    return statistics.median(times)


@dataclasses.dataclass
class Beside:
    """Times of something, each with one of the bare page a moment before: machines are fast and slow by turns."""

    times: list[float] = dataclasses.field(default_factory=list)
    bare: list[float] = dataclasses.field(default_factory=list)

    def take(self, bare: Client, act: Callable[[], float]) -> None:
        self.bare.append(bare.get("/"))
        self.times.append(act())

    def __str__(self) -> str:
        return f"{median(self.times) / median(self.bare):.1f} ({median(self.times):.1f} ms)"


def at_rest(bare: Client, client: Client, wanted: dict[str, str]) -> dict[str, Beside]:
    beside = {name: Beside() for name in wanted}
    for name, path in wanted.items():
        for _ in range(8):
            client.get(path)
        for _ in range(ROUNDS):
            beside[name].take(bare, lambda path=path: client.get(path))  # type: ignore[misc]
    return beside


def after_a_write(bare: Client, client: Client, wanted: dict[str, str], numbers: Iterator[int]) -> dict[str, Beside]:
    beside = {name: Beside() for name in wanted}
    for _ in range(WRITES):
        for name, path in wanted.items():
            another_person_writes(numbers)
            beside[name].take(bare, lambda path=path: client.get(path))  # type: ignore[misc]
    return beside


def after_a_restart(bare: Client, jar: http.cookiejar.CookieJar, wanted: dict[str, str]) -> dict[str, Beside]:
    beside = {name: Beside() for name in wanted}
    for _ in range(RESTARTS):
        for name, path in wanted.items():
            with bootmark() as address:
                opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
                beside[name].take(bare, lambda address=address, path=path, opener=opener: Client(address, opener, "").get(path))  # type: ignore[misc]
    return beside


def taps(bare: Client, client: Client, stop: uuid.UUID) -> Beside:
    beside = Beside()
    for seq, signs in enumerate(cases(ROUNDS * 3)):
        if seq < ROUNDS:
            client.tap(stop, seq, signs)
        else:
            beside.take(bare, lambda seq=seq, signs=signs: client.tap(stop, seq, signs))  # type: ignore[misc]
    return beside


def table(columns: dict[str, dict[str, Beside]]) -> None:
    every = [time for column in columns.values() for beside in column.values() for time in beside.bare]
    print(f"bare page, one SELECT: {median(every):.2f} ms; times the bare page, as it was asked for between:")
    print(f"{'':10}" + "".join(f"{title:>18}" for title in columns))
    for name in next(iter(columns.values())):
        print(f"{name:10}" + "".join(f"{column.get(name, '')!s:>18}" for column in columns.values()))


def measure(quick: bool) -> None:
    folder = tempfile.mkdtemp(prefix="bootmark-bare-")
    with open(f"{folder}/bare.py", "w") as file:
        file.write(BARE)
    jar = http.cookiejar.CookieJar()
    numbers = itertools.count()
    wanted = pages()
    stop = uuid.UUID(wanted["Look"].rsplit("/", 1)[1])
    columns: dict[str, dict[str, Beside]] = {}
    with server("bare:app", folder, "/") as bare_address:
        bare = Client(bare_address, urllib.request.build_opener(), "")
        for _ in range(ROUNDS):
            bare.get("/")
        with bootmark() as address:
            client = Client.enter(address, jar)
            columns["at rest"] = at_rest(bare, client, wanted) | {"A tap": taps(bare, client, stop)}
            columns["after a write"] = after_a_write(bare, client, wanted, numbers)
        if not quick:
            columns["after a restart"] = after_a_restart(bare, jar, wanted)
            many_rows()
            with bootmark() as address:
                client = Client(address, urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar)), client.token)
                columns[f"{TIMES} x rows"] = at_rest(bare, client, wanted) | {"A tap": taps(bare, client, stop)}
                columns["and a write"] = after_a_write(bare, client, wanted, numbers)
        table(columns)


def main() -> None:
    database.clone()
    measure("quick" in sys.argv[1:])


if __name__ == "__main__":
    main()
