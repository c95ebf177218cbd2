"""The commands of ./bootmark."""

import argparse
import contextlib
import hashlib
import json
import os
import secrets
import shutil
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from bootmark.launch import cluster as clusters
from bootmark.launch import packages
from bootmark.launch.cluster import Cluster
from bootmark.launch.say import ROOT, VAR, Stop, step
from bootmark.launch.supervise import Supervisor

DEMO_PORT = 8600


def environment(cluster: Cluster | None = None, **more: str) -> dict[str, str]:
    """The child's environment; the database addresses travel in it, never on a command line."""
    known = dict(os.environ, PYTHONPATH=str(ROOT / "src"), PYTHONUNBUFFERED="1")
    if cluster:
        for role in clusters.ROLES:
            known[f"BOOTMARK_{role.removeprefix('bm_').upper()}_URL"] = cluster.url(role)
            known[f"BOOTMARK_{role.removeprefix('bm_').upper()}_PASSWORD"] = cluster.passwords[role]
    return known | more


def python(*words: str, env: dict[str, str], quiet: bool = False) -> int:
    done = subprocess.run([str(packages.PYTHON), *words], env=env, cwd=ROOT, capture_output=quiet, text=True)
    if done.returncode and quiet:
        print(done.stderr, file=sys.stderr)
    return done.returncode


def secret() -> str:
    note = VAR / "secret"
    if not note.exists():
        note.parent.mkdir(exist_ok=True)
        note.touch(mode=0o600)
        note.write_text(secrets.token_urlsafe(48))
    return note.read_text()


def answers(address: str) -> bool:
    try:
        with urllib.request.urlopen(f"{address}/healthz", timeout=1) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False


class ReadyNote:
    """What the demo's database was last made ready for; while it holds, a start need not look again."""

    SOURCES = ("store/migrations/versions/*.py", "core/catalogue/**/*.toml", "standins/*.py")

    def __init__(self, path: Path) -> None:
        self.path = path
        try:
            self.told: dict[str, object] = json.loads(path.read_text())
        except (OSError, ValueError):
            self.told = {}

    def digest(self) -> str:
        """Migrations, catalogue and demo as they are now."""
        files = sorted(path for pattern in self.SOURCES for path in (ROOT / "src" / "bootmark").glob(pattern))
        return hashlib.sha256(b"\0".join(path.read_bytes() for path in files)).hexdigest()

    def station_port(self) -> int:
        """The stand-in station's port of last time, since stations keep their address; another where it is taken."""
        port = self.told.get("station_port")
        return port if isinstance(port, int) and not clusters.port_taken(port) else clusters.free_port()

    def holds(self, station_port: int) -> bool:
        return self.told == {"digest": self.digest(), "station_port": station_port}

    def write(self, station_port: int) -> None:
        self.path.write_text(json.dumps({"digest": self.digest(), "station_port": station_port}))


@contextlib.contextmanager
def demo_running(port: int, *, reset: bool, logs: Path) -> Iterator[tuple[str, Supervisor]]:
    """The demo, up and answering; stops all of it at the end, whatever happens."""
    if clusters.port_taken(port):
        raise Stop(f"Port {port} is in use: stop what uses it, or choose another with './bootmark demo --port {port + 1}'.")
    if reset:
        step("Removing the old demo")
        clusters.remove_lasting()
    cluster, folder = clusters.lasting()
    clusters.start(cluster, folder)
    try:
        ready = ReadyNote(folder / "ready.json")
        station_port = ready.station_port()
        env = environment(
            cluster,
            BOOTMARK_SECRET=secret(),
            BOOTMARK_STATION=f"http://127.0.0.1:{station_port}",
            BOOTMARK_DEMO="1",
            BOOTMARK_BACKUPS=str(VAR / "backups"),
        )
        if not ready.holds(station_port):
            if python("-m", "bootmark.standins.demo", env=env):
                raise Stop(
                    "The database or the demo farm in it could not be made ready: read the lines above, or run './bootmark demo --reset'."
                )
            ready.write(station_port)
        supervisor = Supervisor(logs)
        with supervisor.until_told():
            supervisor.run("station", [str(packages.PYTHON), "-m", "bootmark.standins", str(station_port)], env, ROOT)
            supervisor.run("web", web_command(f"127.0.0.1:{port}"), env, ROOT)
            supervisor.run("worker", [str(packages.PYTHON), "-m", "bootmark.worker"], env, ROOT)
            address = f"http://127.0.0.1:{port}"
            limit = time.monotonic() + 30
            while not answers(address) and not supervisor.stopping:
                if supervisor.ended() or time.monotonic() > limit:
                    raise Stop(f"Bootmark did not start: read {logs / ((supervisor.ended() or 'web') + '.log')}.")
                time.sleep(0.05)
            yield address, supervisor
    finally:
        clusters.stop(cluster)


def web_command(bind: str) -> list[str]:
    return [
        str(packages.PYTHON),
        "-m",
        "gunicorn",
        "--no-control-socket",
        "--bind",
        bind,
        "--workers",
        "2",
        "--threads",
        "4",
        "--preload",
        "--config",
        "python:bootmark.web.serving",
        "bootmark.web.wsgi:app",
    ]


def demo(options: argparse.Namespace) -> int:
    packages.ready()
    with demo_running(options.port, reset=options.reset, logs=VAR / "log") as (address, supervisor):
        if not supervisor.stopping:
            print(f"\nBootmark runs at {address}\n")
            subprocess.run([str(packages.PYTHON), "-m", "bootmark.standins.people"], env=environment(), cwd=ROOT)
            print("\nCtrl-C stops it.", flush=True)
        supervisor.wait()
    print("\nStopped.", flush=True)
    return 0


def serve(options: argparse.Namespace) -> int:
    """For real use: every setting comes from the environment."""
    packages.ready()
    for name in ("BOOTMARK_WEB_URL", "BOOTMARK_OWNER_URL", "BOOTMARK_WORKER_URL", "BOOTMARK_SECRET"):
        if not os.environ.get(name):
            raise Stop(f"{name} is not set: docs/running.md lists the settings that './bootmark serve' reads.")
    env = environment()
    if python("-m", "bootmark.store.setup", env=env):
        raise Stop("The database could not be brought up to date: read the lines above.")
    supervisor = Supervisor(VAR / "log")
    with supervisor.until_told():
        supervisor.run("web", web_command(os.environ.get("BOOTMARK_HOST", "127.0.0.1:8600")), env, ROOT)
        for number in range(1, worker_count() + 1):
            supervisor.run(f"worker-{number}", [str(packages.PYTHON), "-m", "bootmark.worker"], env, ROOT)
        supervisor.wait()
    return 0


def worker_count() -> int:
    """Worker processes of a real installation: BOOTMARK_WORKERS, else one a core and four at the most."""
    told = os.environ.get("BOOTMARK_WORKERS", "")
    if told and (not told.isdigit() or not 1 <= int(told) <= 32):
        raise Stop(f"BOOTMARK_WORKERS is {told!r}: give a number from 1 to 32.")
    return int(told) if told else min(4, os.cpu_count() or 1)


@contextlib.contextmanager
def throw_away(**more: str) -> Iterator[dict[str, str]]:
    """The environment of a cluster of its own, which goes when it is done with."""
    cluster, folder = clusters.throw_away()
    clusters.start(cluster, folder)
    try:
        yield environment(cluster, **more)
    finally:
        clusters.stop(cluster)
        shutil.rmtree(folder, ignore_errors=True)


def test(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    if options.fast:
        return python("-m", "tests.run", "--fast", env=environment())
    with throw_away(BOOTMARK_SECRET="only for tests, never used elsewhere") as env:
        return python("-m", *(["unittest", *options.names] if options.names else ["tests.run"]), env=env)


def release(options: argparse.Namespace) -> int:
    """Dump the demo farm as this version makes it, for tests to bring up to date ever after."""
    packages.ready(testing=True)
    with throw_away(BOOTMARK_SECRET="only for tests, never used elsewhere") as env:
        return python("-m", "tests.store.dump_release", options.version, env=env)


def check(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    env = environment()
    tools = (
        ("lint", ["-m", "ruff", "check", "."]),
        ("format", ["-m", "ruff", "format", "--check", "."]),
        ("types", ["-m", "mypy"]),
        ("imports", ["-m", "unittest", "tests.test_imports"]),
    )
    failed = []
    for name, words in tools:
        step(name)
        if python(*words, env=env):
            failed.append(name)
    print(f"check: {'all clean' if not failed else 'mend ' + ', '.join(failed)}")
    return 1 if failed else 0


def shots(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    port = clusters.free_port()
    with demo_running(port, reset=True, logs=VAR / "log") as (address, _):
        cluster, _folder = clusters.lasting()
        return python("-m", "tests.browser.shots", address, *options.names, env=environment(cluster))


def catalogue(options: argparse.Namespace) -> int:
    packages.ready()
    return python("-m", "bootmark.core.catalogue", env=environment())


OWN_DATABASE = ("farm", "pages")
"""Benches on a throw-away database."""


def bench(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    if options.name not in OWN_DATABASE:
        return python(f"bench/{options.name}.py", *options.words, env=environment())
    with throw_away(BOOTMARK_SECRET=secrets.token_urlsafe(32)) as env:
        env |= {"PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
        return python(f"bench/{options.name}.py", *options.words, env=env)


def worker(options: argparse.Namespace) -> int:
    packages.ready()
    return python("-m", "bootmark.worker", env=environment())


def assets(options: argparse.Namespace) -> int:
    """Rebuild the committed scripts and styles; the only command that needs npm."""
    if not shutil.which("npm"):
        raise Stop("npm is not installed: 'apt-get install npm'. It is needed only to rebuild the committed assets.")
    return subprocess.run(["sh", "assets/build.sh", *(["--check"] if options.check else [])], cwd=ROOT).returncode


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="./bootmark", description="Scouting plants for insect and mite pests.")
    commands = top.add_subparsers(required=True, metavar="command")

    def add(name: str, help_: str, action: object) -> argparse.ArgumentParser:
        one = commands.add_parser(name, help=help_)
        one.set_defaults(action=action)
        return one

    one = add("demo", "run the demo farm on this machine", demo)
    one.add_argument("--port", type=int, default=DEMO_PORT)
    one.add_argument("--reset", action="store_true", help="throw the demo's data away and load it anew")
    add("serve", "run for real use, with settings from the environment", serve)
    add("worker", "run only the background worker", worker)
    one = add("test", "run every test on a throw-away database, or the named modules", test)
    one.add_argument("names", nargs="*")
    one.add_argument("--fast", action="store_true", help="the core alone, without a database")
    add("release", "dump this version's demo farm for the tests of later ones", release).add_argument("version")
    add("check", "lint, format, types and import rules", check)
    add("shots", "remake docs/screenshots", shots).add_argument("names", nargs="*")
    add("catalogue", "what the catalogue covers and rests on", catalogue)
    one = add("bench", "run one benchmark, on the demo where it needs one", bench)
    one.add_argument("name", choices=["farm", "hindcast", "identify", "pages", "season"])
    one.add_argument("words", nargs="*", help="the benchmark's own words, as its file tells")
    add("assets", "rebuild the committed styles and scripts", assets).add_argument("--check", action="store_true")
    return top


def main() -> int:
    options = parser().parse_args()
    try:
        return int(options.action(options))
    except Stop as reason:
        print(f"\n{reason}", file=sys.stderr)
        return 1
    except OSError as error:
        print(f"\nThe machine refused ({error}): make room on the disk or check the rights, then run this again.", file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main())
