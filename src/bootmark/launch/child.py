"""Starting a program so that it never outlives whoever started it: the kernel sends it a signal when we die, however we die."""

import contextlib
import os
import shutil
import signal
import subprocess
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

POSTGRES = "postgres"
UNLESS_ORPHANED = '[ "$PPID" = "$0" ] && exec "$@"'
"""Whoever started us may have died before the kernel knew that we want to be told."""


@dataclass(frozen=True)
class Program:
    """One program to run. user: whom to run it as, where we are root; ends_with: the signal that ends it in good order;
    passes: descriptors that it inherits; log: where its words go."""

    name: str
    command: Sequence[str]
    environment: Mapping[str, str]
    folder: Path
    log: Path
    user: str = ""
    ends_with: signal.Signals = signal.SIGTERM
    passes: tuple[int, ...] = ()


def as_user(user: str) -> list[str]:
    """Words before a command that is not to run as root."""
    if not user or os.geteuid() != 0:
        return []
    return [f"--reuid={user}", f"--regid={user}", "--init-groups"]


def start(program: Program) -> subprocess.Popen[bytes]:
    """Start a program in a session of its own, so that Ctrl-C reaches it once, through us."""
    signalled = [shutil.which("setpriv") or "setpriv", f"--pdeathsig={program.ends_with.name}", *as_user(program.user), "--"]
    words = [*signalled, "/bin/sh", "-c", UNLESS_ORPHANED, str(os.getpid()), *program.command]
    log = _log(program.log)
    try:
        return subprocess.Popen(
            words,
            env=dict(program.environment),
            cwd=program.folder,
            stdin=subprocess.DEVNULL,
            stdout=log,
            stderr=log,
            pass_fds=program.passes,
            start_new_session=True,
            umask=0o077,
        )
    finally:
        if log != subprocess.DEVNULL:
            os.close(log)


def open_log(path: Path) -> int:
    """A log that only its user reads, to write at its end. Raises OSError."""
    log = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600)
    with contextlib.suppress(OSError):
        os.fchmod(log, 0o600)
    return log


def _log(path: Path) -> int:
    """Where a program's words go. Where that can't be opened they are lost: nobody is kept from running by that."""
    try:
        return open_log(path)
    except OSError:
        return subprocess.DEVNULL


def ask_to_end(program: Program, process: subprocess.Popen[bytes]) -> None:
    with contextlib.suppress(ProcessLookupError):
        process.send_signal(program.ends_with)


def wait_or_kill(process: subprocess.Popen[bytes], seconds: float) -> None:
    try:
        process.wait(max(0.1, seconds))
    except subprocess.TimeoutExpired:
        process.kill()
        process.wait()
