"""The served application as it runs for real: a lasting kind of database, web processes and a worker under supervision, to do harm to."""

import contextlib
import http.cookiejar
import json
import os
import re
import shutil
import signal
import subprocess
import tempfile
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import psycopg

from bootmark.launch import cluster, owner, packages, web
from bootmark.launch.child import Program
from bootmark.launch.cluster import Cluster
from bootmark.launch.environment import environment
from bootmark.launch.say import ROOT
from bootmark.launch.supervise import Supervisor
from bootmark.standins.estate import FARM, PASSWORD, PEOPLE
from bootmark.store import setup
from tests import database

SECRET = "only for tests, never used elsewhere"


class Stand:
    """What runs, and how to hurt it."""

    def __init__(self, kept: Cluster, supervisor: Supervisor, listener: web.Listening) -> None:
        self.cluster, self.supervisor, self.address = kept, supervisor, listener.address
        self.stopped = threading.Event()
        self.watch = threading.Thread(target=self._watch, daemon=True)

    def _watch(self) -> None:
        while not self.stopped.is_set():
            self.supervisor.look()
            time.sleep(0.05)

    def kill(self, name: str) -> None:
        """SIGKILL for one of the programs, or for a connection of the database."""
        if name == "backend":
            with self.admin() as connection:
                pids = connection.execute("SELECT pid FROM pg_stat_activity WHERE usename = 'bm_web'").fetchall()
            for (pid,) in pids[:1]:
                os.kill(pid, signal.SIGKILL)
            return
        with contextlib.suppress(ProcessLookupError):
            self.supervisor.children[name].process.send_signal(signal.SIGKILL)

    def admin(self) -> "psycopg.Connection[tuple[Any, ...]]":
        return psycopg.connect(setup.plain(self.cluster.url("bm_admin")), autocommit=True)

    def health(self) -> str:
        try:
            with urllib.request.urlopen(f"{self.address}/healthz", timeout=5) as answer:
                return str(answer.read().decode())
        except urllib.error.HTTPError as error:
            return error.read().decode()
        except OSError as error:
            return str(error)

    def until(self, holds: Callable[[], bool], seconds: float = 30) -> float:
        """Seconds until something holds. Raises AssertionError where it does not."""
        started = time.monotonic()
        while not holds():
            assert time.monotonic() - started < seconds, f"not within {seconds} s: {self.health()}"
            time.sleep(0.02)
        return time.monotonic() - started

    def log(self) -> str:
        return "".join(path.read_text(errors="replace") for path in sorted(self.supervisor.logs.glob("*.log")))


class Scout:
    """Somebody who is signed in and sends."""

    def __init__(self, address: str, role: str = "scout") -> None:
        self.address = address
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        page = self.get("/sign-in")
        form = {"email": next(mail for _, mail, held, _ in PEOPLE if held == role), "password": PASSWORD, "to": f"/f/{FARM}/farm"}
        page = self.send("/sign-in", urllib.parse.urlencode(form | {"csrf_token": _token(page, "value")}).encode())
        self.token = _token(page, "content")

    def get(self, path: str) -> str:
        with self.opener.open(f"{self.address}{path}", timeout=30) as answer:
            return str(answer.read().decode())

    def send(self, path: str, body: bytes, kind: str = "application/x-www-form-urlencoded") -> str:
        headers = {"Content-Type": kind} | ({"X-CSRFToken": self.token} if hasattr(self, "token") else {})
        with self.opener.open(urllib.request.Request(f"{self.address}{path}", body, headers), timeout=30) as answer:
            return str(answer.read().decode())

    def sync(self, commands: list[dict[str, Any]]) -> list[dict[str, Any]]:
        """The answers to a batch. Raises OSError where none came."""
        answer = json.loads(self.send(f"/f/{FARM}/sync", json.dumps({"commands": commands}).encode(), "application/json"))
        return list(answer["results"])

    def as_sent(self, commands: list[dict[str, Any]]) -> bytes:
        """The bytes of a batch as they go over the wire."""
        body = json.dumps({"commands": commands}).encode()
        cookies = "; ".join(f"{cookie.name}={cookie.value}" for cookie in self.jar)
        head = (
            f"POST /f/{FARM}/sync HTTP/1.1\r\nHost: here\r\nContent-Type: application/json\r\nContent-Length: {len(body)}\r\n"
            f"X-CSRFToken: {self.token}\r\nCookie: {cookies}\r\n\r\n"
        )
        return head.encode() + body


def stop_command(block: uuid.UUID, where: str) -> dict[str, Any]:
    """A command that opens a stop."""
    ids = {"command_id": str(uuid.uuid4()), "record_id": str(uuid.uuid4())}
    return ids | {"kind": "stop.open", "v": 1, "base": None, "payload": {"block_id": str(block), "where": where}}


def _token(page: str, attribute: str) -> str:
    match = re.search(rf'name="csrf(?:_token)?" {attribute}="([^"]+)"', page)
    assert match, page[:400]
    return match.group(1)


@contextlib.contextmanager
def stand(folder: Path | None = None) -> Iterator[Stand]:
    """A durable cluster with the demo farm, two web processes and a worker. folder: where, a temporary one unless given."""
    outer = folder or Path(tempfile.mkdtemp(prefix=cluster.THROW_AWAY))
    outer.chmod(0o755)
    with contextlib.ExitStack() as stack:
        stack.callback(shutil.rmtree, outer, True)
        lock = owner.claim(outer / "postgres")
        stack.callback(os.close, lock)
        kept = cluster.create(outer / "postgres")
        listener = stack.enter_context(web.listening(f"127.0.0.1:{cluster.free_port()}"))
        supervisor = Supervisor(Path(tempfile.mkdtemp(prefix="bootmark-logs-")))
        stack.callback(shutil.rmtree, supervisor.logs, True)
        here = Stand(kept, supervisor, listener)
        stack.callback(supervisor.stop)
        cluster.wait_until_it_answers(kept, supervisor.run(kept.program(lock), kept.without_room))
        env = environment(kept, BOOTMARK_SECRET=SECRET, BOOTMARK_LOGS=str(supervisor.logs))
        _fill(kept)
        web.run(supervisor, env, listener)
        supervisor.run(Program("worker", (str(packages.PYTHON), "-m", "bootmark.worker"), env, ROOT, supervisor.log("worker")))
        here.until(lambda: here.health() == "ok\n")
        here.watch.start()
        stack.callback(here.watch.join)
        stack.callback(here.stopped.set)
        yield here


def _fill(kept: Cluster) -> None:
    """The demo farm, from the run's template: much quicker than making it."""
    source = os.environ["BOOTMARK_BACKUP_URL"].rsplit("/", 1)[0] + f"/{database.template()}"
    setup.create_roles_and_database(kept.url("bm_admin"), {role: kept.passwords[role] for role in setup.ROLES})
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "demo.dump"
        setup.dump(source, file)
        words = [cluster.command("pg_restore"), "-d", setup.plain(kept.url("bm_admin")), str(file)]
        done = subprocess.run(words, capture_output=True, text=True)
        assert done.returncode == 0, done.stderr
    setup.migrate(kept.url("bm_owner"))
