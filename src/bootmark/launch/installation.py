"""A real installation: on the database that the environment names, or on a cluster of its own in a folder for data."""

import contextlib
import os
import secrets
from collections.abc import Iterator
from pathlib import Path

from bootmark.launch import cluster as clusters
from bootmark.launch import owner
from bootmark.launch.certificate import Tls
from bootmark.launch.cluster import Cluster
from bootmark.launch.environment import environment, python, secret
from bootmark.launch.say import VAR, Stop
from bootmark.launch.supervise import Supervisor

SETTINGS = ("BOOTMARK_WEB_URL", "BOOTMARK_OWNER_URL", "BOOTMARK_WORKER_URL", "BOOTMARK_SECRET")
KEEPERS_ONLY = ("BOOTMARK_ADMIN_", "BOOTMARK_OWNER_", "BOOTMARK_BACKUP_")
"""What no web process and no worker is told: the addresses that get past the wall."""
LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"
"""Of a code that is typed from a terminal: none is taken for another."""
CODE = "BOOTMARK_FIRST_CODE"
REMEDY = "restore a backup into a new folder: set BOOTMARK_DATA to it and run './bootmark restore FILE'"


def folder() -> Path:
    """Where an installation keeps its database, secret, backups and logs: outside the checkout, apart from any demo."""
    if os.environ.get("BOOTMARK_DATA"):
        return Path(os.environ["BOOTMARK_DATA"]).expanduser().absolute()
    if os.geteuid() == 0:
        return Path("/var/lib/bootmark/farms")
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share") / "bootmark"


def is_set() -> bool:
    """Whether the environment names a database. Raises Stop where it does so by half."""
    missing = [name for name in SETTINGS if not os.environ.get(name)]
    if missing and len(missing) < len(SETTINGS):
        raise Stop(
            f"{', '.join(missing)} is not set: docs/running.md lists the settings; with none of them Bootmark makes its own database."
        )
    return not missing


def _cluster(home: Path) -> Cluster:
    """The installation's own cluster. Its folder is claimed."""
    home.mkdir(parents=True, exist_ok=True)
    home.chmod(0o711)
    if not clusters.reachable(home):
        raise Stop(f"The user that runs PostgreSQL can't get into {home}: set BOOTMARK_DATA to a folder that it can reach.")
    return clusters.lasting(home / "postgres", REMEDY)


def _environment(cluster: Cluster, home: Path) -> dict[str, str]:
    backups, logs = os.environ.get("BOOTMARK_BACKUPS") or str(home / "backups"), os.environ.get("BOOTMARK_LOGS") or str(home / "log")
    return environment(
        cluster,
        BOOTMARK_SECRET=secret(home),
        BOOTMARK_BACKUPS=backups,
        BOOTMARK_LOGS=logs,
        BOOTMARK_AUTHORITY=os.environ.get("BOOTMARK_AUTHORITY") or str(Tls(home / "tls").authority),
    )


def code() -> str:
    """A one-time code, in two parts as it is read out."""
    letters = "".join(secrets.choice(LETTERS) for _ in range(10))
    return f"{letters[:5]}-{letters[5:]}"


@contextlib.contextmanager
def running() -> Iterator[tuple[dict[str, str], Supervisor]]:
    """The database up to date and what web and workers are told; all that was started ends with it. Raises Stop."""
    with contextlib.ExitStack() as stack:
        if is_set():
            env = environment(BOOTMARK_LOGS=str(os.environ.get("BOOTMARK_LOGS") or VAR / "log"))
            supervisor = Supervisor(Path(env["BOOTMARK_LOGS"]))
            stack.enter_context(supervisor.until_told())
        else:
            home = folder()
            lock = owner.claim(home / "postgres", second="set BOOTMARK_DATA to another folder")
            stack.callback(os.close, lock)
            cluster = _cluster(home)
            clusters.make_startable(cluster)
            env = _environment(cluster, home)
            supervisor = Supervisor(Path(env["BOOTMARK_LOGS"]))
            stack.enter_context(supervisor.until_told())
            clusters.wait_until_it_answers(cluster, supervisor.run(cluster.program(lock), cluster.without_room), REMEDY)
        if python("-m", "bootmark.store.setup", env=env):
            raise Stop("The database could not be brought up to date: read the lines above.")
        yield env | {CODE: code()}, supervisor


def for_children(env: dict[str, str]) -> dict[str, str]:
    """What web processes and workers are told."""
    return {name: value for name, value in env.items() if not name.startswith(KEEPERS_ONLY)}


@contextlib.contextmanager
def reached() -> Iterator[dict[str, str]]:
    """The same for one command: beside an installation that runs, or on its database, started for as long as the command takes."""
    if os.environ.get("BOOTMARK_OWNER_URL"):
        yield environment()
        return
    home = folder()
    try:
        lock = owner.claim(home / "postgres", wait=0)
    except Stop:
        yield _environment(clusters.lasting(home / "postgres", REMEDY), home)
        return
    try:
        cluster = _cluster(home)
        with clusters.running(cluster, lock):
            env = _environment(cluster, home)
            if python("-m", "bootmark.store.setup", env=env):
                raise Stop("The database could not be brought up to date: read the lines above.")
            yield env
    finally:
        os.close(lock)


def welcome(env: dict[str, str], address: str) -> None:
    """Say where Bootmark runs, which farms are in it, and by which code the first is made where there is none."""
    print(f"\nBootmark runs at {address}\n", flush=True)
    python("-m", "bootmark.farms", "list", "--begin", f"{address}/begin", env=env)
    print("\nCtrl-C stops it.", flush=True)
