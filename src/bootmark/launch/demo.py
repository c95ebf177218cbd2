"""The demo: its database, the stand-in station, the web application and the worker, as one."""

import contextlib
import hashlib
import json
import os
import time
from collections.abc import Iterator
from pathlib import Path

from bootmark.launch import cluster as clusters
from bootmark.launch import owner, packages, web
from bootmark.launch.child import Program
from bootmark.launch.cluster import Cluster
from bootmark.launch.environment import environment, python, secret
from bootmark.launch.say import ROOT, VAR, Stop, step
from bootmark.launch.supervise import Supervisor

START_SECONDS = 30.0


class ReadyNote:
    """What the demo's database was last made ready for; while it holds, a start need not look again."""

    SOURCES = ("store/migrations/versions/*.py", "core/catalogue/**/*.toml", "standins/*.py")

    def __init__(self, path: Path) -> None:
        self.path = path
        try:
            self.kept_state: dict[str, object] = json.loads(path.read_text())
        except (OSError, ValueError):
            self.kept_state = {}

    def digest(self) -> str:
        """Migrations, catalogue and demo as they are now."""
        files = sorted(path for pattern in self.SOURCES for path in (ROOT / "src" / "bootmark").glob(pattern))
        return hashlib.sha256(b"\0".join(path.read_bytes() for path in files)).hexdigest()

    def station_port(self) -> int:
        """The stand-in station's port of last time, since stations keep their address; another where it is taken."""
        port = self.kept_state.get("station_port")
        return port if isinstance(port, int) and not clusters.port_taken(port) else clusters.free_port()

    def holds(self, station_port: int) -> bool:
        return self.kept_state == {"digest": self.digest(), "station_port": station_port}

    def write(self, station_port: int) -> None:
        self.path.write_text(json.dumps({"digest": self.digest(), "station_port": station_port}))


@contextlib.contextmanager
def lasting(*, reset: bool) -> Iterator[tuple[Cluster, int]]:
    """The demo's own cluster and the lock that makes it ours. Raises Stop where another demo runs on it."""
    folder = clusters.home()
    lock = owner.claim(folder)
    try:
        if reset:
            step("Removing the old demo")
            clusters.remove(folder)
        yield clusters.lasting(), lock
    finally:
        os.close(lock)


@contextlib.contextmanager
def running(port: int, *, reset: bool, logs: Path) -> Iterator[tuple[str, Supervisor]]:
    """The demo on its lasting database, up and answering; stops all of it at the end, whatever happens."""
    with web.listening(f"127.0.0.1:{port}") as socket, lasting(reset=reset) as (cluster, lock):
        clusters.make_startable(cluster)
        supervisor = Supervisor(logs)
        with supervisor.until_told():
            clusters.wait_until_it_answers(cluster, supervisor.run(cluster.program(lock), cluster.without_room))
            _start(cluster, supervisor, socket)
            yield f"http://127.0.0.1:{port}", supervisor


@contextlib.contextmanager
def throw_away(port: int, *, logs: Path) -> Iterator[tuple[str, Cluster]]:
    """The same on a database that goes when it is done with."""
    with web.listening(f"127.0.0.1:{port}") as socket, clusters.throw_away() as cluster:
        supervisor = Supervisor(logs)
        with supervisor.until_told():
            _start(cluster, supervisor, socket)
            yield f"http://127.0.0.1:{port}", cluster


def _start(cluster: Cluster, supervisor: Supervisor, socket: web.Listening) -> None:
    """Make the database ready and start everything else. Raises Stop where that fails."""
    ready = ReadyNote(cluster.folder / "ready.json")
    station_port = ready.station_port()
    mail_port, letters_port = clusters.free_port(), clusters.free_port()
    env = environment(
        cluster,
        BOOTMARK_MAIL=f"smtp://127.0.0.1:{mail_port}",
        BOOTMARK_MAIL_FROM="bootmark@ferrin.example",
        BOOTMARK_ADDRESS=socket.address,
        BOOTMARK_LETTERS=f"http://127.0.0.1:{letters_port}",
        BOOTMARK_SECRET=secret(),
        BOOTMARK_STATION=f"http://127.0.0.1:{station_port}",
        BOOTMARK_DEMO="1",
        BOOTMARK_LOCAL_STATIONS="1",
        BOOTMARK_BACKUPS=str(VAR / "backups"),
        BOOTMARK_LOGS=str(supervisor.logs),
    )
    if not ready.holds(station_port):
        if python("-m", "bootmark.standins.demo", env=env):
            raise Stop(
                "The database or the demo farm in it could not be made ready: read the lines above, or run './bootmark demo --reset'."
            )
        ready.write(station_port)
    station = (str(packages.PYTHON), "-m", "bootmark.standins", str(station_port))
    supervisor.run(Program("station", station, env, ROOT, supervisor.log("station")))
    post_box = (str(packages.PYTHON), "-m", "bootmark.standins.post_box", str(mail_port), str(letters_port))
    supervisor.run(Program("post-box", post_box, env, ROOT, supervisor.log("post-box")))
    web.run(supervisor, env, socket)
    supervisor.run(Program("worker", (str(packages.PYTHON), "-m", "bootmark.worker"), env, ROOT, supervisor.log("worker")))
    limit = time.monotonic() + START_SECONDS
    while not web.ready(socket.address) and not supervisor.stopping:
        if supervisor.ended() or time.monotonic() > limit:
            raise Stop(f"Bootmark did not start: read {supervisor.log(supervisor.ended() or 'web-1')}.")
        time.sleep(0.05)
