"""The web application's processes, all on one socket that we hold, so that nobody is turned away while one is started again."""

import contextlib
import os
import socket
import urllib.error
import urllib.request
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from bootmark.launch import packages
from bootmark.launch.child import Program
from bootmark.launch.say import ROOT, Stop
from bootmark.launch.supervise import Supervisor

PROCESSES = 2
BACKLOG = 1024
APPLICATION = "bootmark.web.wsgi:app"


@dataclass(frozen=True)
class Listening:
    """An open socket and where it listens."""

    descriptor: int
    address: str


@contextlib.contextmanager
def listening(bind: str) -> Iterator[Listening]:
    """Listen on HOST:PORT. Raises Stop where that can't be done."""
    host, _, port = bind.rpartition(":")
    if not host or not port.isdigit():
        raise Stop(f"{bind!r} is no place to listen on: give a host and a port, such as 127.0.0.1:8600.")
    with contextlib.ExitStack() as stack:
        try:
            family = socket.getaddrinfo(host.strip("[]"), int(port), type=socket.SOCK_STREAM)[0][0]
            listener = stack.enter_context(socket.socket(family, socket.SOCK_STREAM))
            listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            listener.bind((host.strip("[]"), int(port)))
            listener.listen(BACKLOG)
        except (OSError, OverflowError) as error:
            better = f"stop what uses it, or choose another with './bootmark demo --port {int(port) + 1}'"
            raise Stop(f"Port {port} on {host} is in use or not to be had ({error}): {better}.") from error
        yield Listening(listener.fileno(), f"http://{bind}")


def command(descriptor: int, application: str = APPLICATION) -> list[str]:
    return [str(packages.PYTHON), "-m", "bootmark.web.serving", str(descriptor), application]


def run(supervisor: Supervisor, environment: Mapping[str, str], listener: Listening) -> None:
    for number in range(1, process_count() + 1):
        name = f"web-{number}"
        passes = (listener.descriptor,)
        supervisor.run(Program(name, command(listener.descriptor), environment, ROOT, supervisor.log(name), passes=passes))


def process_count() -> int:
    """Web processes: BOOTMARK_WEB_PROCESSES, else two."""
    return count("BOOTMARK_WEB_PROCESSES", PROCESSES)


def worker_count() -> int:
    """Worker processes of a real installation: BOOTMARK_WORKERS, else one a core and four at the most."""
    return count("BOOTMARK_WORKERS", min(4, os.cpu_count() or 1))


def count(setting: str, usual: int) -> int:
    """A number of processes from the environment. Raises Stop where it is none."""
    number = os.environ.get(setting, "")
    if number and (not number.isdigit() or not 1 <= int(number) <= 32):
        raise Stop(f"{setting} is {number!r}: give a number from 1 to 32.")
    return int(number) if number else usual


def ready(address: str) -> bool:
    """Whether the application takes requests."""
    try:
        with urllib.request.urlopen(f"{address}/readyz", timeout=2) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False
